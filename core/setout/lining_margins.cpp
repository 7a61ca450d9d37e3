#include "core/setout/lining_margins.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kFoldEase = 3; // mm that a mitred fold's corner keeps
constexpr double kCornerRad = 20 * std::numbers::pi / 180;

/// Where a line meets another, each through a point along a direction.
std::optional<Point> crossing(Point a, Point u, Point b, Point v) {
    const double d = cross(u, v);
    if (std::abs(d) < 1e-9) return std::nullopt;
    return a + u * (cross(b - a, v) / d);
}

} // namespace

Region withMargins(const Region& region, const MarginOf& by, Piece& lines) {
    std::vector<Ring> rings = region.rings;
    std::vector<Ring> added, taken;
    for (const Ring& ring : region.rings) {
        if (signedArea(ring) <= 0) continue;
        const std::size_t n = ring.size();
        std::vector<Beyond> all(n);
        for (std::size_t i = 0; i < n; ++i) all[i] = by(ring[i], ring[(i + 1) % n]);
        const auto direction = [&](std::size_t i) {
            const Point d = ring[(i + 1) % n] - ring[i];
            return d * (1 / std::max(1e-12, std::hypot(d.x, d.y)));
        };
        for (std::size_t i = 0; i < n; ++i) {
            if (all[i].by <= 0) continue;
            for (const Ring& strip : stripAlong({ring[i], ring[(i + 1) % n]}, -all[i].by).rings) added.push_back(strip);
            if (all[i].fold) lines.folds.push_back({ring[i], ring[(i + 1) % n]});
        }
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t before = (i + n - 1) % n;
            const Beyond in = all[before], out = all[i];
            if (in.by <= 0 && out.by <= 0) continue;
            const Point v = ring[i], u0 = direction(before), u1 = direction(i);
            const Point n0 = outwards(u0), n1 = outwards(u1);
            const double turn = std::atan2(cross(u0, u1), dot(u0, u1));
            const Point foot0 = v + n0 * in.by, foot1 = v + n1 * out.by;
            if (turn < -kCornerRad) { // the cloth is pulled apart here: it is snipped to the corner
                if (const auto x = crossing(foot0, u0, foot1, u1); x && distance(*x, v) > 1)
                    lines.snips.push_back({*x, v});
                continue;
            }
            if (turn <= 1e-9) continue;
            const bool both = in.fold && out.fold && in.by > 0 && out.by > 0 && turn > kCornerRad;
            if (both) { // folded both ways: the corner is taken out so that the folds lie edge to edge
                Point bisector = n0 + n1;
                bisector = bisector * (1 / std::max(1e-9, std::hypot(bisector.x, bisector.y)));
                const Point near = v + bisector * kFoldEase, cutLine{-bisector.y, bisector.x};
                const auto p0 = crossing(foot0, u0, near, cutLine), p1 = crossing(foot1, u1, near, cutLine);
                const auto q0 = crossing(v, n0, near, cutLine), q1 = crossing(v, n1, near, cutLine);
                if (p0 && p1 && q0 && q1) {
                    // Along the cut line, a little past both ends of it.
                    const auto corner = [&](Point p, Point q, Point foot, Point past) {
                        const double l = distance(p, q);
                        if (l < 1e-6) return;
                        const Point along = (q - p) * (1 / l);
                        taken.push_back({p - along, q + along, foot + past});
                    };
                    corner(*p0, *q0, foot0, u0 + n0);
                    corner(*p1, *q1, foot1, n1 - u1);
                }
                continue;
            }
            const auto x = crossing(foot0, u0, foot1, u1);
            const double reach = 3 * std::max(in.by, out.by);
            if (x && distance(*x, v) <= reach)
                added.push_back({v, foot0, *x, foot1});
            else
                added.push_back({v, foot0, foot1});
        }
    }
    std::erase_if(added, [](const Ring& r) { return std::abs(signedArea(r)) < 1e-3; });
    Region all = unionOf(region, unionOf(added));
    if (!taken.empty()) all = difference(all, unionOf(taken));
    return all;
}

} // namespace westrum
