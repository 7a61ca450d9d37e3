#include "core/takeoff/fixing_places.h"

#include "core/takeoff/needs.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kTouch = 1;      // mm: what is nearer than that touches
constexpr double kSamePlace = 20; // mm: two fixings nearer than that are one
constexpr double kIntoEnd = 10;   // mm: from the end of a bar that is notched or slants
constexpr double kHoleInside = 8; // mm: from a hole of the body to the bar's edge

/// So far along a run of an outline.
Point alongRun(const Ring& ring, const EdgeRun& run, double s) {
    const std::size_t n = ring.size();
    for (std::size_t k = 0; k < run.sides; ++k) {
        const Point a = ring[(run.from + k) % n], b = ring[(run.from + k + 1) % n];
        const double length = distance(a, b);
        if (s <= length || k + 1 == run.sides) return length > 0 ? a + (b - a) * (s / length) : a;
        s -= length;
    }
    return ring[run.from];
}

} // namespace

PlacedFixings placeOnBar(const Region& bar, bool along, int abreast, const FixingRules& rules,
                         std::span<const Holder> holders) {
    PlacedFixings placed;
    if (bar.empty()) return placed;
    const Bounds b = boundsOf(bar);
    const double low = along ? b.low.x : b.low.y, high = along ? b.high.x : b.high.y;
    const double side = along ? b.low.y : b.low.x, width = along ? b.height() : b.width();
    const double middle = side + width / 2;
    struct At {
        double s;
        int holder;
    };
    std::vector<At> places;
    const auto evenly = [&](double from, double to, int holder) {
        const double end = std::min(kFixFromEnd.value, (to - from) / 2);
        const RunFixings run = fixingsAlong({to - from}, {end}, rules.field);
        for (int k = 0; k < run.count; ++k)
            places.push_back({run.spacing ? from + end + run.spacing->value * k : (from + to) / 2, holder});
    };
    for (std::size_t i = 0; i < holders.size(); ++i) {
        const Holder& h = holders[i];
        const int index = static_cast<int>(i);
        if (h.along == along) {
            // It lies on it all along.
            if (std::abs(h.centre - middle) > h.half + width / 2 - kTouch) continue;
            const double from = std::max(low, h.from), to = std::min(high, h.to);
            if (to - from > kSamePlace) evenly(from, to, index);
        } else if (h.centre > low - kTouch && h.centre < high + kTouch && h.from < middle && h.to > middle) {
            places.push_back({std::clamp(h.centre, low, high), index});
        }
    }
    const bool loose = places.empty() && !holders.empty(); // supports are known, and none carries it
    if (places.empty()) evenly(low, high, -1);
    std::sort(places.begin(), places.end(), [](const At& p, const At& q) { return p.s < q.s; });
    const auto keptOut = [&](Point p) {
        return std::any_of(rules.keepOut.begin(), rules.keepOut.end(), [&](const Region& r) { return contains(r, p); });
    };
    double last = -1e12;
    for (const At& at : places) {
        if (at.s - last < kSamePlace && places.size() > 1 && at.s != places.front().s) continue;
        last = at.s;
        for (int k = 0; k < abreast; ++k) {
            double across = abreast > 1 ? side + width * (k == 0 ? 0.25 : 0.75) : middle;
            FixingPlace f{{}, FixingAt::Crossing, at.holder, false, !loose};
            if (at.holder >= 0) { // a hole of the body within the bar is used
                const Holder& h = holders[static_cast<std::size_t>(at.holder)];
                if (h.along != along)
                    for (const double hole : h.holes)
                        if (std::abs(hole - across) <= width / (2.0 * abreast) - kHoleInside) {
                            across = hole;
                            f.bodyHole = true;
                            break;
                        }
            }
            f.at = along ? Point{at.s, across} : Point{across, at.s};
            if (!contains(bar, f.at)) { // a slanting end, a notch
                f.at = along ? Point{std::clamp(at.s, low + kIntoEnd, high - kIntoEnd), across}
                             : Point{across, std::clamp(at.s, low + kIntoEnd, high - kIntoEnd)};
                if (!contains(bar, f.at)) continue;
            }
            if (keptOut(f.at))
                ++placed.leftOut;
            else
                placed.places.push_back(f);
        }
    }
    return placed;
}

std::vector<FixingPlace> placeClips(const Region& panel, Mm apart) {
    std::vector<FixingPlace> places;
    for (const Ring& ring : panel.rings) {
        if (signedArea(ring) <= 0) continue;
        for (const EdgeRun& run : edgeRuns(ring)) {
            const auto put = [&](double s) { places.push_back({alongRun(ring, run, s), FixingAt::Clip, -1}); };
            if (run.closed) {
                const auto clips = std::max<std::int64_t>(3, roundUp((run.length.value - 0.01) / apart.value));
                for (std::int64_t k = 0; k < clips; ++k)
                    put(run.length.value * static_cast<double>(k) / static_cast<double>(clips));
            } else if (run.length > kClipFromEnd * 2) {
                const RunFixings clips = fixingsAlong(run.length, kClipFromEnd, apart);
                for (int k = 0; k < clips.count; ++k)
                    put(clips.spacing ? kClipFromEnd.value + clips.spacing->value * k : run.length.value / 2);
            }
        }
    }
    return places;
}

} // namespace westrum
