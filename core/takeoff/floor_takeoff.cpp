#include "core/takeoff/floor_takeoff.h"

#include "core/geometry/boolean.h"
#include "core/takeoff/whole_strips.h"

#include <algorithm>
#include <tuple>

namespace westrum {

PlankTakeoff takeOffPlanks(const SetOut& setOut, const Plank& plank) {
    PlankTakeoff t;
    t.planks = static_cast<int>(setOut.stock.size());
    for (const StockUnit& unit : setOut.stock) {
        t.cuts += static_cast<int>(unit.cuts.size());
        if (!unit.cuts.empty()) ++t.cutPlanks;
    }
    t.laidArea = setOut.laidArea();
    t.consumedArea = areaOf(plank.length, plank.width) * t.planks;
    t.laidMass = {t.laidArea.value * plank.massKgPerM2()};
    return t;
}

namespace {

std::vector<UnderlayStrip> stripsOver(const Region& region, const Underlay& underlay) {
    std::vector<UnderlayStrip> strips;
    const Bounds b = boundsOf(region);
    const double step = underlay.rollWidth.value - underlay.lap.value;
    for (double low = b.low.y; low < b.high.y - 1e-6; low += step) {
        const double high = std::min(low + underlay.rollWidth.value, b.high.y);
        double left = b.high.x;
        double right = b.low.x;
        for (const Region& part : bandOf(region, low, high)) {
            const Bounds p = boundsOf(part);
            left = std::min(left, p.low.x);
            right = std::max(right, p.high.x);
        }
        if (right > left) strips.push_back({low, high, {right - left}});
        if (high >= b.high.y - 1e-6) break;
    }
    return strips;
}

} // namespace

UnderlayTakeoff takeOffUnderlay(const Region& outline, const Underlay& underlay) {
    UnderlayTakeoff best;
    int fewest = 0;
    for (const bool alongX : {true, false}) {
        UnderlayTakeoff t;
        t.alongX = alongX;
        t.strips = stripsOver(alongX ? outline : transposed(outline), underlay);
        std::vector<Mm> lengths;
        for (const UnderlayStrip& s : t.strips) {
            t.totalLength = t.totalLength + s.length;
            lengths.push_back(s.length);
        }
        const StripsOnRolls on = rollsFor(lengths, {}, underlay.rollLength);
        t.joints = on.joints;
        if (alongX ||
            std::tuple(on.rolls, t.joints, t.totalLength) < std::tuple(fewest, best.joints, best.totalLength)) {
            best = std::move(t);
            fewest = on.rolls;
        }
    }
    best.laidArea = {areaMm2(outline) / 1e6};
    double lapped = 0;
    for (std::size_t i = 1; i < best.strips.size(); ++i)
        lapped += std::max(0.0, best.strips[i - 1].high - best.strips[i].low) * best.strips[i].length.value;
    best.laidMass = {(best.laidArea.value + lapped / 1e6) * underlay.massKgPerM2};
    return best;
}

} // namespace westrum
