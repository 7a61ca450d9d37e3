#include "core/setout/board_lines.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kSteepestTaper = 0.15; ///< a side steeper than this is an end, not an edge that tapers

} // namespace

Region sheared(Region region, double slope) {
    if (slope == 0) return region;
    for (Ring& ring : region.rings)
        for (Point& p : ring) p.y -= slope * p.x;
    return region;
}

Line sideOf(const Region& net, const Bounds& b, bool high) {
    Line line = high ? Line{b.high.y, b.high.y} : Line{b.low.y, b.low.y};
    double longest = b.width() * 0.5;
    for (const Ring& ring : net.rings) {
        if (signedArea(ring) < 0) continue;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point p = ring[i], q = ring[(i + 1) % ring.size()];
            const double dx = high ? p.x - q.x : q.x - p.x; // outer rings run counter-clockwise
            if (dx <= longest) continue;
            const double slope = (q.y - p.y) / (q.x - p.x);
            if (std::abs(slope) < 1e-9 || std::abs(slope) > kSteepestTaper) continue;
            longest = dx;
            line = {p.y + slope * (b.low.x - p.x), p.y + slope * (b.high.x - p.x)};
        }
    }
    // A taper that reaches the bounds at its wide end; a slant elsewhere (a bevelled corner) is none.
    const double wide = high ? std::max(line.atStart, line.atEnd) : std::min(line.atStart, line.atEnd);
    if (std::abs(wide - (high ? b.high.y : b.low.y)) > 1)
        return high ? Line{b.high.y, b.high.y} : Line{b.low.y, b.low.y};
    return line;
}

} // namespace westrum
