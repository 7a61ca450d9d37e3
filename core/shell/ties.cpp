#include "core/shell/ties.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

const TiedSurface* find(const std::vector<TiedSurface>& all, const std::string& id) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const TiedSurface& t) { return t.surface->id == id; });
    return found == all.end() ? nullptr : &*found;
}

/// Whether a surface's own readings disagree: that is to be settled first, and its sides are not to be trusted.
bool disagrees(const TiedSurface& t) { return t.measured->inDoubt(); }

double errorOf(const TiedSurface& t, int side) {
    const bool curvedSide = t.measured->sides[static_cast<std::size_t>(side)].size() > 2;
    const bool acrossCurve = t.surface->measurement.curve.curving != Curving::Flat && side % 2 == 1;
    return curvedSide || acrossCurve ? kCurveTapeErrorMm : kTapeErrorMm;
}

Surface* find(std::vector<Surface>& all, const std::string& id) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const Surface& s) { return s.id == id; });
    return found == all.end() ? nullptr : &*found;
}

void setEdge(Surface& surface, int side, const Edge& edge) {
    if (side < 0) return;
    if (surface.edges.size() <= static_cast<std::size_t>(side))
        surface.edges.resize(static_cast<std::size_t>(side) + 1);
    surface.edges[static_cast<std::size_t>(side)] = edge;
}

} // namespace

std::string edgeName(int side) { return std::string(1, static_cast<char>('a' + side % 26)); }

std::vector<Remark> tieRemarks(const std::vector<TiedSurface>& surfaces) {
    std::vector<Remark> remarks;
    for (const TiedSurface& t : surfaces)
        for (int side = 0; side < static_cast<int>(t.surface->edges.size()); ++side) {
            const Edge edge = t.surface->edge(side);
            if (edge.kind != EdgeKind::Meets) continue;
            const TiedSurface* other = find(surfaces, edge.surface);
            if (!other) {
                remarks.push_back({Severity::Warning,
                                   Place{t.surface->id, Part::Edge, side},
                                   RemarkKind::EdgeMeetsNothing,
                                   {{"edge", edgeName(side)}},
                                   {}});
                continue;
            }
            // Told once, at the first of the two.
            if (other < &t || (other == &t && edge.side < side)) continue;
            if (!t.measured->measured() || !other->measured->measured() || disagrees(t) || disagrees(*other)) continue;
            if (side >= static_cast<int>(t.measured->sides.size()) ||
                edge.side >= static_cast<int>(other->measured->sides.size()))
                continue;
            const Mm ours = t.measured->sideLength(side), theirs = other->measured->sideLength(edge.side);
            const double limit = 3 * std::hypot(errorOf(t, side), errorOf(*other, edge.side));
            const double difference = std::abs(ours.value - theirs.value);
            if (difference <= limit) continue;
            remarks.push_back({Severity::Warning,
                               Place{t.surface->id, Part::Edge, side},
                               RemarkKind::SharedEdgesDiffer,
                               {{"edge", edgeName(side)},
                                {"length", ours},
                                {"other", other->surface->name},
                                {"otherEdge", edgeName(edge.side)},
                                {"otherLength", theirs},
                                {"difference", Mm{difference}},
                                {"limit", Mm{limit}}},
                               {}});
        }
    return remarks;
}

void part(std::vector<Surface>& surfaces, const std::string& id, int side) {
    Surface* surface = find(surfaces, id);
    if (!surface) return;
    const Edge before = surface->edge(side);
    if (before.kind != EdgeKind::Meets) return;
    setEdge(*surface, side, {});
    if (Surface* other = find(surfaces, before.surface))
        if (const Edge back = other->edge(before.side);
            back.kind == EdgeKind::Meets && back.surface == id && back.side == side)
            setEdge(*other, before.side, {});
}

void meet(std::vector<Surface>& surfaces, const std::string& a, int side, const std::string& b, int otherSide) {
    part(surfaces, a, side);
    part(surfaces, b, otherSide);
    Surface *first = find(surfaces, a), *second = find(surfaces, b);
    if (!first || !second || (a == b && side == otherSide)) return;
    setEdge(*first, side, {.kind = EdgeKind::Meets, .surface = b, .side = otherSide});
    setEdge(*second, otherSide, {.kind = EdgeKind::Meets, .surface = a, .side = side});
}

int sidesOf(const Measurement& m) {
    switch (m.form) {
    case OutlineForm::Polygon: return static_cast<int>(m.polygon.sides.size());
    case OutlineForm::TwoPoint:
        return static_cast<int>(std::count_if(m.fixedPoints.rows.begin(), m.fixedPoints.rows.end(),
                                              [](const auto& r) { return r.fromA && r.fromB; }));
    case OutlineForm::Drawn: return static_cast<int>(drawnSides(m.drawn).size());
    default: return 4;
    }
}

} // namespace westrum
