#include "core/geometry/net_area.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Clipper's grid is 1e-6 mm; a point this near to an edge's line lies on it.
constexpr double kOnEdge = 5e-6;

/// Length that the stretch p-q shares with the outline edge a-b, 0 unless it lies on it.
double sharedLength(Point a, Point b, Point p, Point q) {
    const double length = distance(a, b);
    if (length == 0) return 0;
    const Point along = (b - a) * (1 / length);
    if (std::abs(cross(along, p - a)) > kOnEdge || std::abs(cross(along, q - a)) > kOnEdge) return 0;
    const double from = std::clamp(dot(along, p - a), 0.0, length);
    const double to = std::clamp(dot(along, q - a), 0.0, length);
    return std::abs(to - from);
}

} // namespace

NetArea netAreaOf(const Ring& outline, const std::vector<Ring>& openings) {
    const Region gross{{outline}};
    NetArea result;
    result.net = openings.empty() ? gross : difference(gross, unionOf(openings));
    result.grossArea = {std::abs(areaMm2(gross)) / 1e6};
    result.netArea = {std::abs(areaMm2(result.net)) / 1e6};
    const std::size_t n = outline.size();
    for (std::size_t k = 0; k < n; ++k) result.edgeLength.push_back({distance(outline[k], outline[(k + 1) % n])});
    result.edgeLeft.assign(n, Mm{0});
    for (const Ring& ring : result.net.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point p = ring[i];
            const Point q = ring[(i + 1) % ring.size()];
            double onOutline = 0;
            for (std::size_t k = 0; k < n; ++k) {
                const double shared = sharedLength(outline[k], outline[(k + 1) % n], p, q);
                result.edgeLeft[k] = result.edgeLeft[k] + Mm{shared};
                onOutline += shared;
            }
            result.openingEdge = result.openingEdge + Mm{std::max(0.0, distance(p, q) - onOutline)};
        }
    return result;
}

} // namespace westrum
