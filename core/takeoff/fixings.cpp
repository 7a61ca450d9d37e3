#include "core/takeoff/fixings.h"

#include "core/geometry/boolean.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>

namespace westrum {

RunFixings fixingsAlong(Mm length, Mm end, Mm spacing) {
    const double between = length.value - 2 * end.value;
    if (between <= 0) return {1, std::nullopt};
    const auto spaces = roundUp(between / spacing.value);
    return {static_cast<int>(spaces) + 1, Mm{between / static_cast<double>(spaces)}};
}

std::vector<ClippedSide> clippedSides(const Region& panel, Mm apart) {
    std::vector<ClippedSide> sides;
    for (const Ring& ring : panel.rings) {
        if (signedArea(ring) <= 0) continue;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Mm length{distance(ring[i], ring[(i + 1) % ring.size()])};
            if (length > kClipFromEnd * 2) sides.push_back({length, fixingsAlong(length, kClipFromEnd, apart)});
        }
    }
    return sides;
}

PanelFixings fixingsOfPanel(const Ring& outline, Mm inset, Mm edgeSpacing, std::span<const double> battens,
                            Mm fieldSpacing) {
    PanelFixings fixings;
    // The line of fixings: every edge moved inwards, neighbours brought to meet.
    const std::size_t n = outline.size();
    Ring line;
    for (std::size_t i = 0; i < n; ++i) {
        const Point before = outline[(i + n - 1) % n], at = outline[i], after = outline[(i + 1) % n];
        const auto unit = [](Point v) { return v * (1 / std::max(1e-12, distance({0, 0}, v))); };
        const Point u = unit(at - before), v = unit(after - at);
        const Point inwards = Point{-u.y, u.x} + Point{-v.y, v.x};
        line.push_back(at + inwards * (inset.value / std::max(1e-9, 1 + dot(u, v))));
    }
    for (std::size_t i = 0; i < n; ++i) {
        const double length = distance(line[i], line[(i + 1) % n]);
        const auto spaces = std::max<std::int64_t>(1, roundUp(length / edgeSpacing.value));
        fixings.edge += static_cast<int>(spaces);
        fixings.edgeSpacing.push_back({length / static_cast<double>(spaces)});
    }
    const Bounds b = boundsOf(line);
    for (const double x : battens) {
        if (x <= b.low.x + 1e-6 || x >= b.high.x - 1e-6) continue;
        std::vector<double> ys;
        for (std::size_t i = 0; i < n; ++i) {
            const Point p = line[i], q = line[(i + 1) % n];
            if ((p.x > x) != (q.x > x)) ys.push_back(p.y + (q.y - p.y) * (x - p.x) / (q.x - p.x));
        }
        if (ys.size() < 2) continue;
        const auto [low, high] = std::minmax_element(ys.begin(), ys.end());
        fixings.field += static_cast<int>(std::max<std::int64_t>(0, roundUp((*high - *low) / fieldSpacing.value) - 1));
    }
    return fixings;
}

BoltLength boltLength(Mm grip, Mm washers, Mm nut, Mm protrude, std::span<const Mm> lengths) {
    BoltLength bolt{grip + washers + nut + protrude, std::nullopt};
    for (const Mm l : lengths)
        if (l.value >= bolt.needed.value - kCountSlack && (!bolt.length || l < *bolt.length)) bolt.length = l;
    return bolt;
}

ScrewLength screwLength(Mm lining, Mm batten, Mm bite, Mm clear, std::span<const Mm> lengths) {
    ScrewLength screw{lining + bite, lining + batten - clear, std::nullopt};
    for (const Mm l : lengths)
        if (l.value >= screw.least.value - kCountSlack && l.value <= screw.most.value + kCountSlack &&
            (!screw.length || l > *screw.length))
            screw.length = l;
    return screw;
}

} // namespace westrum
