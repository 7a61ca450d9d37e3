#include "core/shell/plan_places.h"

#include <cmath>
#include <deque>

namespace westrum {
namespace {

constexpr double kUpright = 0.5; ///< a side that is shorter than this share of itself from above stands

Point unit(Point p) {
    const double l = std::hypot(p.x, p.y);
    return l > 1e-9 ? p * (1 / l) : Point{};
}

/// A child by the side that it shares with a parent that is placed.
PlanPlace placeBy(const TiedSurface& parent, const PlanPlace& at, const Ring& theirs, const TiedSurface& child,
                  const Ring& mine, Point middle) {
    // Seen from inside, the two sides run against each other.
    const Point a = at.map(theirs.back()), b = at.map(theirs.front());
    const Point along = mine.back() - mine.front();
    const double length = std::hypot(along.x, along.y);
    const Point s = unit(along), n{-s.y, s.x}; // inwards
    const Point trace = (b - a) * (length > 1e-9 ? 1 / length : 0);
    Point inwards;
    if (liesLevel(child.surface->kind)) {
        const Point square{-unit(b - a).y, unit(b - a).x};
        inwards = dot(square, middle - a) >= 0 ? square : square * -1;
        if (liesLevel(parent.surface->kind)) { // on from the parent, away from it
            const Bounds own = boundsOf(parent.measured->frame);
            inwards = dot(square, at.map((own.low + own.high) * 0.5) - a) >= 0 ? square * -1 : square;
        }
    } else if (std::hypot(trace.x, trace.y) < kUpright) { // joined along an upright side: it turns the corner
        const Point way = unit(std::abs(at.perX.x) + std::abs(at.perX.y) > kUpright ? at.perX : at.perY);
        const Point square{-way.y, way.x};
        inwards = dot(square, middle - a) >= 0 ? square : square * -1;
    }
    PlanPlace place;
    place.perX = trace * s.x + inwards * n.x;
    place.perY = trace * s.y + inwards * n.y;
    place.origin = a - place.perX * mine.front().x - place.perY * mine.front().y;
    return place;
}

} // namespace

std::vector<std::optional<PlanPlace>> planPlaces(const std::vector<TiedSurface>& surfaces) {
    std::vector<std::optional<PlanPlace>> places(surfaces.size());
    std::size_t root = 0;
    while (root < surfaces.size() &&
           (surfaces[root].surface->kind != SurfaceKind::Floor || !surfaces[root].measured->measured()))
        ++root;
    if (root == surfaces.size()) return places;
    places[root] = PlanPlace{{}, {1, 0}, {0, 1}};
    const Bounds floor = boundsOf(surfaces[root].measured->frame);
    const Point middle = (floor.low + floor.high) * 0.5;
    std::deque<std::size_t> open{root};
    while (!open.empty()) {
        const std::size_t at = open.front();
        open.pop_front();
        const TiedSurface& parent = surfaces[at];
        for (std::size_t side = 0; side < parent.measured->sides.size(); ++side) {
            const Edge edge = parent.surface->edge(static_cast<int>(side));
            if (edge.kind != EdgeKind::Meets || edge.side < 0) continue;
            for (std::size_t i = 0; i < surfaces.size(); ++i) {
                const TiedSurface& child = surfaces[i];
                if (child.surface->id != edge.surface || places[i]) continue;
                const auto mine = static_cast<std::size_t>(edge.side);
                if (mine >= child.measured->sides.size()) continue;
                places[i] = placeBy(parent, *places[at], parent.measured->sides[side], child,
                                    child.measured->sides[mine], middle);
                open.push_back(i);
            }
        }
    }
    return places;
}

} // namespace westrum
