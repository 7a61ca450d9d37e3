#include "core/measure/cutouts.h"
#include "core/shell/shape.h"
#include "core/shell/surface.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// Which corner and side of the original becomes which of its mirror image.
struct Mapping {
    int count{};
    /// Forms whose corners are listed as they lie: the list is reversed. Otherwise side 0 stays the lower edge.
    bool reversed{};
    [[nodiscard]] int corner(int k) const {
        return reversed ? (2 * count - 1 - k % count) % count : (count + 1 - k % count) % count;
    }
    [[nodiscard]] int side(int k) const {
        return reversed ? (2 * count - 2 - k % count) % count : (count - k % count) % count;
    }
};

Mapping mappingOf(const Measurement& m, const MeasuredOutline& outline) {
    Mapping map{4, m.form == OutlineForm::TwoPoint || m.form == OutlineForm::Drawn};
    if (m.form == OutlineForm::Polygon) map.count = static_cast<int>(m.polygon.sides.size());
    if (map.reversed)
        map.count =
            static_cast<int>(outline.sides.empty() && m.form == OutlineForm::TwoPoint ? m.fixedPoints.rows.size()
                                                                                      : outline.sides.size());
    return map;
}

void mirrorQuad(Measurement& m) {
    const auto reading = [&](QuadReading r) -> MaybeReading& { return m.readings[static_cast<std::size_t>(r)]; };
    std::swap(reading(QuadReading::AC), reading(QuadReading::BD));
    // A rectangle is read on AB and BC whatever the hand.
    if (m.form != OutlineForm::Rectangle) std::swap(reading(QuadReading::BC), reading(QuadReading::DA));
}

/// Sides and diagonals of a polygon, whether or not it is the form in use: side 0 stays the lower edge.
void mirrorPolygon(PolygonReadings& p) {
    const Mapping map{static_cast<int>(p.sides.size()), false};
    if (map.count < 3) return;
    const PolygonReadings from = p;
    for (int k = 0; k < map.count; ++k) p.sides[at(map.side(k))] = from.sides[at(k)];
    for (PolygonReadings::Diagonal& d : p.diagonals) {
        d.from = map.corner(d.from);
        d.to = map.corner(d.to);
    }
    p.turns.assign(from.turns.empty() ? 0 : at(map.count), CornerTurn::Unsaid);
    for (std::size_t k = 0; k < from.turns.size() && k < at(map.count); ++k)
        p.turns[at(map.corner(static_cast<int>(k)))] = from.turns[k];
}

/// Stations are counted from the other end: each lies as far from it as it did from the first.
void mirrorStations(StationReadings& s) {
    std::erase_if(s.rows, [](const auto& r) { return !r.at && !r.offset && !r.other; });
    if (!s.rows.empty() && s.rows.back().at) {
        const Mm end = s.rows.back().at->length;
        std::reverse(s.rows.begin(), s.rows.end());
        for (StationReadings::Row& r : s.rows)
            if (r.at) r.at = Reading{{}, end - r.at->length};
    }
    while (s.rows.size() < 2) s.rows.emplace_back();
}

void mirrorFixedPoints(FixedPointReadings& f) {
    // Lines not used lie between others in no order that means anything: they go last.
    std::stable_partition(f.rows.begin(), f.rows.end(), [](const auto& r) { return r.fromA || r.fromB; });
    const auto used = std::count_if(f.rows.begin(), f.rows.end(), [](const auto& r) { return r.fromA || r.fromB; });
    for (FixedPointReadings::Row& r : f.rows) std::swap(r.fromA, r.fromB);
    std::reverse(f.rows.begin(), f.rows.begin() + used);
}

void mirrorDrawn(Ring& drawn) {
    if (drawn.empty()) return;
    const Bounds b = boundsOf(drawn);
    for (Point& p : drawn) p.x = b.low.x + b.high.x - p.x;
    std::reverse(drawn.begin(), drawn.end());
}

SurfaceKind otherHand(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::LeftWall: return SurfaceKind::RightWall;
    case SurfaceKind::RightWall: return SurfaceKind::LeftWall;
    case SurfaceKind::LeftWallUpper: return SurfaceKind::RightWallUpper;
    case SurfaceKind::RightWallUpper: return SurfaceKind::LeftWallUpper;
    default: return kind;
    }
}

void mirrorEdges(std::vector<Edge>& edges, const Mapping& map) {
    const std::vector<Edge> from = edges;
    edges.assign(from.empty() ? 0 : at(map.count), {});
    for (std::size_t k = 0; k < from.size() && k < at(map.count); ++k) {
        Edge e = from[k];
        if (e.kind == EdgeKind::Meets) e = Edge{};
        // Going round the other way a side's start is its end.
        if (e.gapAtEnd) std::swap(e.allowance, e.gapAtEnd);
        std::swap(e.startDeg, e.endDeg);
        edges[at(map.side(static_cast<int>(k)))] = e;
    }
}

void mirrorOpening(Opening& o, const Mapping& map) {
    o.hole.clear(); // which hole of another surface it is, is for the person to say
    o.place.side = map.side(o.place.side);
    o.place.cross = map.side(o.place.cross);
    Mm extent;
    for (const Opening::Corner& c : o.corners)
        if (c.along) extent = std::max(extent, c.along->length);
    for (Opening::Corner& c : o.corners)
        if (c.along) c.along = Reading{{}, extent - c.along->length};
    std::reverse(o.corners.begin(), o.corners.end());
}

/// Rows of supports across are counted from the other end.
void mirrorCrossings(Surface& m, const std::vector<PlacedSupport>& placed) {
    const auto turned = [&](int support, int inRow) {
        if (support < 0 || support >= static_cast<int>(m.supports.size())) return inRow;
        const Support& u = m.supports[at(support)];
        return u.along ? inRow : u.count - 1 - inRow;
    };
    for (CrossingReading& r : m.packing.readings) {
        r.battenInRow = turned(r.batten, r.battenInRow);
        r.ribInRow = turned(r.rib, r.ribInRow);
        // Along the surface stations are counted from what becomes the other end.
        for (const PlacedSupport& p : placed)
            if (p.along && r.rib < static_cast<int>(m.supports.size()) && r.rib >= 0 && m.supports[at(r.rib)].along &&
                p.support == r.batten && p.inRow == r.battenInRow && !p.shape.empty()) {
                const Bounds b = boundsOf(p.shape);
                r.station = static_cast<int>(packingStations(b.low.x, b.high.x).size()) - 1 - r.station;
            }
    }
}

} // namespace

Surface mirrored(const Surface& s) {
    Surface m = s;
    m.hand = s.hand == Hand::Left ? Hand::Right : s.hand == Hand::Right ? Hand::Left : Hand::None;
    m.kind = otherHand(m.kind);
    const Measurement& from = s.measurement;
    const MeasuredOutline outline = outlineOf(from);
    Measurement& to = m.measurement;
    mirrorQuad(to);
    mirrorPolygon(to.polygon);
    mirrorStations(to.stations);
    mirrorFixedPoints(to.fixedPoints);
    mirrorDrawn(to.drawn);
    const Mapping map = mappingOf(from, outline);
    if (map.count < 3) return m; // nothing that sides could be told by

    to.cornerRadii.assign(from.cornerRadii.empty() ? 0 : at(map.count), {});
    for (std::size_t k = 0; k < from.cornerRadii.size() && k < at(map.count); ++k)
        to.cornerRadii[at(map.corner(static_cast<int>(k)))] = from.cornerRadii[k];
    mirrorEdges(m.edges, map);
    for (Notch& notch : to.notches) {
        // Counted from the side's left end, it is measured from what was its right one; from the lower end it stays.
        if (const auto line = sideLine(outline, notch.side); line && notch.position && notch.length)
            if (std::abs(line->to.x - line->from.x) >= std::abs(line->to.y - line->from.y))
                notch.position = Reading{{}, Mm{line->length()} - notch.position->length - notch.length->length};
        notch.side = map.side(notch.side);
    }
    for (Step& step : to.steps) step.corner = map.corner(step.corner);
    for (Opening& o : m.openings) mirrorOpening(o, map);
    for (Zone& z : m.zones) {
        z.place.side = map.side(z.place.side);
        z.place.cross = map.side(z.place.cross);
    }
    // Holes of ribs that run along are counted from what becomes their other end.
    const std::vector<PlacedSupport> placed =
        outline.measured() ? shapeOf(s, outline).supports : std::vector<PlacedSupport>();
    if (!placed.empty())
        for (const PlacedSupport& p : placed) {
            Support& u = m.supports[at(p.support)];
            if (!p.along || p.shape.empty()) continue;
            const Bounds b = boundsOf(p.shape);
            u.holes.clear();
            for (const double hole : bodyHolesAlong(s.supports[at(p.support)], p, b.low.x, b.high.x))
                u.holes.push_back(Reading{{}, Mm{b.high.x - hole}});
            std::reverse(u.holes.begin(), u.holes.end());
            u.holeFirst = u.holePitch = std::nullopt;
        }
    mirrorCrossings(m, placed);
    if (!outline.frame.empty()) {
        const SideLine edge = lowerEdge(outline);
        for (Support& u : m.supports) {
            if (!u.position || (u.along && edge.from.y == edge.to.y)) continue;
            const double rest = (u.count - 1) * (u.spacing ? u.spacing->length.value : 0);
            u.position = Reading{{},
                                 u.along ? u.position->length + Mm{edge.from.y - edge.to.y}
                                         : Mm{edge.to.x - edge.from.x - u.position->length.value - rest}};
        }
    }
    return m;
}

} // namespace westrum
