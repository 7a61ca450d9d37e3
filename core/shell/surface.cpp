#include "core/shell/surface.h"

#include <algorithm>
#include <array>
#include <charconv>

namespace westrum {
namespace {

template <class T> T* member(std::vector<T>& list, std::size_t index) {
    return index < list.size() ? &list[index] : nullptr;
}

MaybeReading* placed(Placement& place, std::string_view what) {
    return what == "side" ? &place.fromSide : what == "cross" ? &place.fromCross : nullptr;
}

} // namespace

bool liesLevel(SurfaceKind kind) {
    return kind == SurfaceKind::Floor || kind == SurfaceKind::Ceiling || kind == SurfaceKind::Headliner ||
           kind == SurfaceKind::ArchTop || kind == SurfaceKind::BenchTop || kind == SurfaceKind::Shelf;
}

MaybeReading* findReading(Surface& s, std::string_view key) {
    if (key == "heightRear") return &s.heightRear;
    if (key == "heightFront") return &s.heightFront;
    if (key == "fromRear") return &s.fromRear;
    if (key == "lean") return &s.lean;
    if (MaybeReading* r = findReading(s.measurement, key)) return r;
    if (key.size() < 2) return nullptr;
    std::size_t i = 0;
    const auto [end, error] = std::from_chars(key.data() + 1, key.data() + key.size(), i);
    if (error != std::errc()) return nullptr;
    std::string_view what = key.substr(static_cast<std::size_t>(end - key.data()));
    if (key.front() == 'e' && what.empty()) {
        Edge* e = member(s.edges, i);
        return e ? &e->allowance : nullptr;
    }
    if (what.empty() || what.front() != '.') return nullptr;
    what.remove_prefix(1);
    switch (key.front()) {
    case 'e':
        if (Edge* e = member(s.edges, i)) return what == "end" ? &e->gapAtEnd : nullptr;
        return nullptr;
    case 'n':
        if (Notch* n = member(s.measurement.notches, i))
            return what == "position" ? &n->position
                   : what == "length" ? &n->length
                   : what == "depth"  ? &n->depth
                                      : nullptr;
        return nullptr;
    case 's':
        if (Step* t = member(s.measurement.steps, i))
            return what == "along" ? &t->along : what == "across" ? &t->across : nullptr;
        return nullptr;
    case 'o':
        if (Opening* o = member(s.openings, i)) {
            if (MaybeReading* r = placed(o->place, what)) return r;
            return what == "width"    ? &o->width
                   : what == "height" ? &o->height
                   : what == "radius" ? &o->radius
                   : what == "pitch"  ? &o->pitch
                   : what == "turnIn" ? &o->turnIn
                                      : nullptr;
        }
        return nullptr;
    case 'z':
        if (Zone* z = member(s.zones, i)) {
            if (MaybeReading* r = placed(z->place, what)) return r;
            return what == "width" ? &z->width : what == "height" ? &z->height : nullptr;
        }
        return nullptr;
    case 'u':
        if (Support* u = member(s.supports, i))
            return what == "position"  ? &u->position
                   : what == "width"   ? &u->width
                   : what == "spacing" ? &u->spacing
                   : what == "depth"   ? &u->depth
                                       : nullptr;
        return nullptr;
    default: return nullptr;
    }
}

const MaybeReading* findReading(const Surface& surface, std::string_view key) {
    return findReading(const_cast<Surface&>(surface), key);
}

std::vector<std::string> readingKeys(const Surface& s) {
    std::vector<std::string> keys = readingKeys(s.measurement);
    const auto each = [&](char kind, std::size_t count, auto names) {
        for (std::size_t i = 0; i < count; ++i)
            for (const char* what : names(i))
                if (*what) keys.push_back(kind + std::to_string(i) + "." + what);
    };
    each('n', s.measurement.notches.size(), [](std::size_t) { return std::array{"position", "length", "depth"}; });
    each('s', s.measurement.steps.size(), [](std::size_t) { return std::array{"along", "across"}; });
    each('o', s.openings.size(), [&](std::size_t i) {
        const Opening& o = s.openings[i];
        return std::array{"cross",
                          "side",
                          o.shape == OpeningShape::Polygon ? "" : "width",
                          o.shape == OpeningShape::Rectangle ? "height" : "",
                          o.shape == OpeningShape::Rectangle ? "radius" : "",
                          o.count > 1 ? "pitch" : "",
                          o.edge == OpeningEdge::Reveal ? "turnIn" : ""};
    });
    each('z', s.zones.size(), [](std::size_t) { return std::array{"cross", "side", "width", "height"}; });
    each('u', s.supports.size(), [&](std::size_t i) {
        const Support& u = s.supports[i];
        return std::array{"position", "width", u.count > 1 ? "spacing" : "", u.kind == SupportKind::Rib ? "depth" : ""};
    });
    return keys;
}

Surface mirrored(const Surface& s) {
    Surface m = s;
    m.hand = s.hand == Hand::Left ? Hand::Right : s.hand == Hand::Right ? Hand::Left : Hand::None;
    const auto other = [](SurfaceKind a, SurfaceKind b, SurfaceKind kind) {
        return kind == a ? b : kind == b ? a : kind;
    };
    m.kind = other(SurfaceKind::LeftWall, SurfaceKind::RightWall, m.kind);
    m.kind = other(SurfaceKind::LeftWallUpper, SurfaceKind::RightWallUpper, m.kind);

    // Corner k of the mirror image is corner (1 - k) of the original, so that side 0 stays the lower edge: side k
    // becomes side -k. A polygon has as many sides as were entered, every other form but two-point has four.
    const Measurement& from = s.measurement;
    const int n = from.form == OutlineForm::Polygon    ? static_cast<int>(from.polygon.sides.size())
                  : from.form == OutlineForm::TwoPoint ? static_cast<int>(from.fixedPoints.rows.size())
                  : from.form == OutlineForm::Drawn    ? static_cast<int>(drawnSides(from.drawn).size())
                                                       : 4;
    if (n < 3) return m;
    const auto side = [n](int k) { return (n - k % n) % n; };
    const auto corner = [n](int k) { return (n + 1 - k % n) % n; };
    Measurement& to = m.measurement;
    const auto quad = [&](QuadReading r) -> MaybeReading& { return to.readings[static_cast<std::size_t>(r)]; };
    std::swap(quad(QuadReading::BC), quad(QuadReading::DA));
    std::swap(quad(QuadReading::AC), quad(QuadReading::BD));
    // A rectangle is read on AB and BC whatever the hand.
    if (from.form == OutlineForm::Rectangle) std::swap(quad(QuadReading::BC), quad(QuadReading::DA));
    for (std::size_t k = 0; k < from.polygon.sides.size(); ++k)
        to.polygon.sides[static_cast<std::size_t>(side(static_cast<int>(k)))] = from.polygon.sides[k];
    for (PolygonReadings::Diagonal& d : to.polygon.diagonals) {
        d.from = corner(d.from);
        d.to = corner(d.to);
    }
    if (!from.drawn.empty()) {
        const Bounds b = boundsOf(from.drawn);
        for (Point& p : to.drawn) p.x = b.low.x + b.high.x - p.x;
        std::reverse(to.drawn.begin(), to.drawn.end());
    }
    // Stations are counted from the other end: each lies as far from it as it did from the first.
    std::vector<StationReadings::Row>& rows = to.stations.rows;
    std::erase_if(rows, [](const auto& r) { return !r.at && !r.offset && !r.other; });
    if (!rows.empty() && rows.back().at) {
        const Mm end = rows.back().at->length;
        std::reverse(rows.begin(), rows.end());
        for (StationReadings::Row& r : rows)
            if (r.at) r.at = Reading{{}, end - r.at->length};
    }
    while (rows.size() < 2) rows.emplace_back();
    for (FixedPointReadings::Row& r : to.fixedPoints.rows) std::swap(r.fromA, r.fromB);
    std::reverse(to.fixedPoints.rows.begin(), to.fixedPoints.rows.end());
    // Reversed, row k comes from row n-1-k, so corner numbers run from there.
    const bool reversed = from.form == OutlineForm::TwoPoint || from.form == OutlineForm::Drawn;
    const auto cornerOf = [&](int k) { return reversed ? (2 * n - 1 - k % n) % n : corner(k); };
    const auto sideOf = [&](int k) { return reversed ? (2 * n - 2 - k % n) % n : side(k); };
    to.cornerRadii.assign(from.cornerRadii.empty() ? 0 : static_cast<std::size_t>(n), {});
    for (std::size_t k = 0; k < from.cornerRadii.size() && static_cast<int>(k) < n; ++k)
        to.cornerRadii[static_cast<std::size_t>(cornerOf(static_cast<int>(k)))] = from.cornerRadii[k];
    std::vector<Edge> edges(s.edges.empty() ? 0 : static_cast<std::size_t>(n));
    for (std::size_t k = 0; k < s.edges.size() && static_cast<int>(k) < n; ++k) {
        Edge e = s.edges[k];
        if (e.kind == EdgeKind::Meets) e = Edge{};
        edges[static_cast<std::size_t>(sideOf(static_cast<int>(k)))] = e;
    }
    m.edges = std::move(edges);
    const MeasuredOutline outline = outlineOf(from);
    for (Notch& notch : to.notches) {
        // Measured from the other end of its side: what is left beyond it.
        const double length = outline.sideLength(notch.side).value;
        const bool runsAlong = notch.side % 2 == 0;
        if (runsAlong && notch.position && notch.length && length > 0)
            notch.position = Reading{{}, Mm{length} - notch.position->length - notch.length->length};
        notch.side = sideOf(notch.side);
    }
    for (Step& step : to.steps) step.corner = cornerOf(step.corner);
    const auto mirrorPlace = [&](Placement& p) {
        p.side = sideOf(p.side);
        p.cross = sideOf(p.cross);
    };
    for (Opening& o : m.openings) {
        mirrorPlace(o.place);
        if (o.width)
            for (Opening::Corner& c : o.corners)
                if (c.along) c.along = Reading{{}, o.width->length - c.along->length};
    }
    for (Zone& z : m.zones) mirrorPlace(z.place);
    const double extent = outline.frame.empty() ? 0 : boundsOf(outline.frame).width();
    for (Support& u : m.supports)
        if (!u.along && u.position && extent > 0) {
            const double last = u.position->length.value + (u.count - 1) * (u.spacing ? u.spacing->length.value : 0);
            u.position = Reading{{}, Mm{extent - last}};
        }
    return m;
}

} // namespace westrum
