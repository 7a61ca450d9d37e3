#include "core/takeoff/bonding.h"

#include "core/geometry/boolean.h"
#include "core/units/count.h"

#include <algorithm>
#include <cassert>

namespace westrum {

Kg adhesiveFor(M2 area, std::span<const GluedFace> faces, double waste) {
    double perM2 = 0;
    for (const GluedFace& f : faces) perM2 += f.rateKgPerM2 * f.coats * f.porosity;
    return {area.value * perM2 * (1 + waste)};
}

double litresFor(M2 area, std::span<const double> coverage, double waste) {
    double perM2 = 0;
    for (const double m2PerLitre : coverage) perM2 += 1 / m2PerLitre;
    return area.value * perM2 * (1 + waste);
}

std::optional<Bays> baysFor(M2 area, int coats, const BondingPace& pace) {
    assert(coats >= 1 && pace.spreadM2PerMinute > 0);
    const double window = pace.openMinutes - pace.flashMinutes;
    if (window <= 0) return std::nullopt;
    const double perM2 = coats / pace.spreadM2PerMinute + (pace.closeM2PerMinute ? 1 / *pace.closeM2PerMinute : 0);
    Bays b;
    b.largest = {window / perM2};
    b.count = static_cast<int>(std::max<std::int64_t>(1, roundUp(area.value / b.largest.value)));
    b.each = {area.value / b.count};
    b.minutes = b.each.value * perM2 + pace.flashMinutes;
    return b;
}

std::vector<Region> equalStrips(const Region& region, int count, bool alongX) {
    assert(count >= 1);
    if (region.empty()) return {};
    if (count == 1) return {region};
    const Bounds all = boundsOf(region);
    const double low = alongX ? all.low.x : all.low.y, high = alongX ? all.high.x : all.high.y;
    const auto between = [&](double from, double to) {
        const Ring band = alongX ? rectangle(from, all.low.y - 1, to - from, all.height() + 2)
                                 : rectangle(all.low.x - 1, from, all.width() + 2, to - from);
        return intersection(region, {{band}});
    };
    const double each = areaMm2(region) / count;
    std::vector<Region> strips;
    double from = low;
    for (int k = 1; k <= count; ++k) {
        double to = high;
        if (k < count) {
            // The area up to a line grows with it: halving finds where it is enough, to a thousandth of a millimetre.
            double least = from, most = high;
            while (most - least > 1e-3) {
                const double middle = (least + most) / 2;
                (areaMm2(between(low, middle)) < each * k ? least : most) = middle;
            }
            to = most;
        }
        strips.push_back(between(from, to + (k == count ? 1 : 0)));
        from = to;
    }
    return strips;
}

} // namespace westrum
