#include "core/geometry/side_offset.h"

#include <algorithm>
#include <cmath>

namespace westrum {

Ring sidesMoved(const Ring& ring, const std::vector<double>& leftwards) {
    const auto unit = [](Point v) { return v * (1 / std::max(1e-12, distance({0, 0}, v))); };
    const std::size_t n = ring.size();
    Ring line;
    for (std::size_t i = 0; i < n; ++i) {
        const std::size_t before = (i + n - 1) % n;
        const Point u = unit(ring[i] - ring[before]), v = unit(ring[(i + 1) % n] - ring[i]);
        const Point a{-u.y, u.x}, b{-v.y, v.x};
        const double c = dot(a, b), d1 = leftwards[before], d2 = leftwards[i], open = 1 - c * c;
        if (std::abs(d1 - d2) < 1e-9 || open < 0.01)
            line.push_back(ring[i] + (a + b) * ((d1 + d2) / 2 / std::max(0.02, 1 + c)));
        else
            line.push_back(ring[i] + a * ((d1 - c * d2) / open) + b * ((d2 - c * d1) / open));
    }
    return line;
}

} // namespace westrum
