#include "formats/surface_json.h"

#include "formats/base_json.h"

#include <string_view>

namespace westrum {
namespace {

constexpr double kLeastCornerDeg = 10, kMostCornerDeg = 350; ///< of a corner, by a bevel gauge
constexpr FileWords<SurfaceKind, 23> kKinds{{{SurfaceKind::Floor, "floor"},
                                             {SurfaceKind::Ceiling, "ceiling"},
                                             {SurfaceKind::LeftWall, "left-wall"},
                                             {SurfaceKind::RightWall, "right-wall"},
                                             {SurfaceKind::Bulkhead, "bulkhead"},
                                             {SurfaceKind::RearDoors, "rear-doors"},
                                             {SurfaceKind::LeftWallUpper, "left-wall-upper"},
                                             {SurfaceKind::RightWallUpper, "right-wall-upper"},
                                             {SurfaceKind::ArchTop, "arch-top"},
                                             {SurfaceKind::ArchFace, "arch-face"},
                                             {SurfaceKind::ArchEnd, "arch-end"},
                                             {SurfaceKind::Pillar, "pillar"},
                                             {SurfaceKind::SlidingDoor, "sliding-door"},
                                             {SurfaceKind::RearDoor, "rear-door"},
                                             {SurfaceKind::CabReveal, "cab-reveal"},
                                             {SurfaceKind::BenchFront, "bench-front"},
                                             {SurfaceKind::BenchTop, "bench-top"},
                                             {SurfaceKind::KitchenFront, "kitchen-front"},
                                             {SurfaceKind::Splashback, "splashback"},
                                             {SurfaceKind::WetCellWall, "wet-cell-wall"},
                                             {SurfaceKind::Shelf, "shelf"},
                                             {SurfaceKind::Headliner, "headliner"},
                                             {SurfaceKind::Other, "other"}}};
constexpr FileWords<Hand, 3> kHands{{{Hand::None, "none"}, {Hand::Left, "left"}, {Hand::Right, "right"}}};
constexpr FileWords<OutlineForm, 6> kForms{{{OutlineForm::Rectangle, "rectangle"},
                                            {OutlineForm::FourSides, "four-sides"},
                                            {OutlineForm::Polygon, "polygon"},
                                            {OutlineForm::Stations, "stations"},
                                            {OutlineForm::TwoPoint, "two-point"},
                                            {OutlineForm::Drawn, "drawn"}}};
constexpr FileWords<CornerTurn, 2> kTurns{{{CornerTurn::Outwards, "outwards"}, {CornerTurn::Inwards, "inwards"}}};
constexpr FileWords<Curving, 3> kCurvings{
    {{Curving::Flat, "flat"}, {Curving::Single, "single"}, {Curving::Double, "double"}}};
constexpr FileWords<OpeningShape, 3> kShapes{
    {{OpeningShape::Rectangle, "rectangle"}, {OpeningShape::Round, "round"}, {OpeningShape::Polygon, "polygon"}}};
constexpr FileWords<Treatment, 3> kTreatments{{{Treatment::CutBefore, "cut-before"},
                                               {Treatment::CoverAndRout, "cover-and-rout"},
                                               {Treatment::LeaveCovered, "leave-covered"}}};
constexpr FileWords<OpeningEdge, 4> kOpeningEdges{{{OpeningEdge::None, "none"},
                                                   {OpeningEdge::TrimRing, "trim-ring"},
                                                   {OpeningEdge::Reveal, "reveal"},
                                                   {OpeningEdge::Bound, "bound"}}};
constexpr FileWords<EdgeKind, 6> kEdges{{{EdgeKind::Unsaid, "unsaid"},
                                         {EdgeKind::Meets, "meets"},
                                         {EdgeKind::Free, "free"},
                                         {EdgeKind::DoorReveal, "door-reveal"},
                                         {EdgeKind::UnderTrim, "under-trim"},
                                         {EdgeKind::MovementGap, "movement-gap"}}};
constexpr FileWords<ZoneKind, 3> kZones{
    {{ZoneKind::Hidden, "hidden"}, {ZoneKind::Wiring, "wiring"}, {ZoneKind::Heavy, "heavy"}}};

constexpr int kMostSides = 100;
constexpr int kMostInRow = 50;
constexpr const char* kSideWords[4] = {"AB", "BC", "CD", "DA"};
constexpr const char* kCornerWords[4] = {"A", "B", "C", "D"};

/// A side or corner: by its letters up to the fourth (as version 1 had it), beyond by its number from 0.
void place(JsonWalk& walk, const Json& object, const std::string& path, const char* key, const char* const (&words)[4],
           int& into) {
    const Json* value = walk.member(object, path, key);
    if (!value) return;
    if (value->is_number()) return walk.count(object, path, key, 0, kMostSides - 1, into);
    std::string text;
    walk.text(object, path, key, text);
    if (!value->is_string()) return;
    for (int k = 0; k < 4; ++k)
        if (text == words[k]) {
            into = k;
            return;
        }
    walk.fault(FileFaultKind::UnknownWord, JsonWalk::join(path, key), text);
}

constexpr std::array<std::pair<AreaKind, const char*>, 4> kAreas{{{AreaKind::Living, "living"},
                                                                  {AreaKind::Garage, "garage"},
                                                                  {AreaKind::WetCell, "wet cell"},
                                                                  {AreaKind::Cab, "cab"}}};

Json placeWord(const char* const (&words)[4], int k) { return k < 4 ? Json(words[k]) : Json(k); }

class SurfaceReader {
public:
    SurfaceReader(JsonWalk& walk, Surface& surface) : walk_(walk), s_(surface) {}

    void read(const Json& entry, const std::string& path) {
        walk_.word(entry, path, "kind", kKinds, s_.kind);
        walk_.word(entry, path, "hand", kHands, s_.hand, false);
        // By a word where it is one of the kinds; whatever else stands there is a name of its own.
        readArea(walk_, entry, path, s_.area);
        double ghost = 0;
        if (walk_.number(entry, path, "ghostLengthMm", 1, kLongestSideMm, ghost, false)) s_.ghostLength = {ghost};
        if (walk_.number(entry, path, "ghostHeightMm", 1, kLongestSideMm, ghost, false)) s_.ghostHeight = {ghost};
        s_.heightRear = walk_.reading(entry, path, "heightRear");
        s_.heightFront = walk_.reading(entry, path, "heightFront");
        s_.fromRear = walk_.reading(entry, path, "fromRear");
        s_.lean = walk_.reading(entry, path, "lean");
        walk_.flag(entry, path, "leansOut", s_.leansOut);
        walk_.flag(entry, path, "before", s_.before);
        if (const Json* m = walk_.objectMember(entry, path, "measurement")) measurement(*m, path + ".measurement");
        walk_.each(
            entry, path, "openings", [&](const Json& e, const std::string& at) { opening(e, at); }, false, 100);
        walk_.each(
            entry, path, "edges", [&](const Json& e, const std::string& at) { edge(e, at); }, false, kMostSides);
        walk_.each(
            entry, path, "zones", [&](const Json& e, const std::string& at) { zone(e, at); }, false, 100);
        walk_.each(
            entry, path, "supports",
            [&](const Json& e, const std::string& at) { s_.supports.push_back(readSupport(walk_, e, at)); }, false,
            100);
        if (const Json* p = walk_.objectMember(entry, path, "packing", false))
            s_.packing = readPacking(walk_, *p, path + ".packing");
    }

private:
    void measurement(const Json& m, const std::string& at) {
        Measurement& into = s_.measurement;
        walk_.word(m, at, "form", kForms, into.form);
        int count = static_cast<int>(into.polygon.sides.size());
        walk_.count(m, at, "polygonSides", 3, kMostSides, count);
        into.polygon.sides.assign(static_cast<std::size_t>(count), {});
        if (walk_.member(m, at, "diagonals", false)) into.polygon.diagonals.clear();
        walk_.each(
            m, at, "diagonals",
            [&](const Json& d, const std::string& where) {
                PolygonReadings::Diagonal diagonal;
                walk_.count(d, where, "from", 0, kMostSides - 1, diagonal.from, true);
                walk_.count(d, where, "to", 0, kMostSides - 1, diagonal.to, true);
                into.polygon.diagonals.push_back(diagonal);
            },
            false);
        walk_.each(
            m, at, "cornerTurns",
            [&](const Json& c, const std::string& where) {
                int corner = 0;
                CornerTurn turn = CornerTurn::Unsaid;
                walk_.count(c, where, "corner", 0, kMostSides - 1, corner, true);
                walk_.word(c, where, "turns", kTurns, turn);
                if (corner >= count) return;
                into.polygon.turns.resize(static_cast<std::size_t>(count));
                into.polygon.turns[static_cast<std::size_t>(corner)] = turn;
            },
            false, kMostSides);
        count = static_cast<int>(into.stations.rows.size());
        walk_.count(m, at, "stationCount", 2, 1000, count);
        into.stations.rows.assign(static_cast<std::size_t>(count), {});
        walk_.flag(m, at, "smooth", into.stations.smooth);
        walk_.flag(m, at, "bothSides", into.stations.bothSides);
        if (walk_.member(m, at, "fixedPointRows", false)) into.fixedPoints.rows.clear();
        walk_.each(
            m, at, "fixedPointRows",
            [&](const Json& r, const std::string& where) {
                walk_.flag(r, where, "below", into.fixedPoints.rows.emplace_back().below);
            },
            false);
        walk_.word(m, at, "curving", kCurvings, into.curve.curving, false);
        count = static_cast<int>(into.curve.parts.size());
        walk_.count(m, at, "profileParts", 1, 100, count);
        into.curve.parts.assign(static_cast<std::size_t>(count), {});
        count = 0;
        walk_.count(m, at, "radiusCorners", 0, kMostSides, count);
        into.cornerRadii.assign(static_cast<std::size_t>(count), {});
        if (const Json* readings = walk_.objectMember(m, at, "readings", false)) {
            if (readings->size() > 5 * JsonWalk::kMostEntries)
                walk_.fault(FileFaultKind::TooMany, at + ".readings");
            else
                for (const auto& [key, value] : readings->items())
                    if (MaybeReading* place = findReading(into, key))
                        *place = walk_.reading(*readings, at + ".readings", key.c_str());
        }
        drawn(m, at, into.drawn);
        cutOuts(m, at, into);
    }

    void cutOuts(const Json& m, const std::string& at, Measurement& into) {
        walk_.each(
            m, at, "notches",
            [&](const Json& n, const std::string& where) {
                Notch notch;
                walk_.text(n, where, "name", notch.name, false);
                place(walk_, n, where, "side", kSideWords, notch.side);
                notch.position = walk_.reading(n, where, "position");
                notch.length = walk_.reading(n, where, "length");
                notch.depth = walk_.reading(n, where, "depth");
                walk_.word(n, where, "edges", kEdges, notch.edges, false);
                into.notches.push_back(std::move(notch));
            },
            false);
        walk_.each(
            m, at, "steps",
            [&](const Json& st, const std::string& where) {
                Step step;
                walk_.text(st, where, "name", step.name, false);
                place(walk_, st, where, "corner", kCornerWords, step.corner);
                step.along = walk_.reading(st, where, "along");
                step.across = walk_.reading(st, where, "across");
                walk_.word(st, where, "edges", kEdges, step.edges, false);
                into.steps.push_back(std::move(step));
            },
            false);
    }

    void drawn(const Json& m, const std::string& at, Ring& into) {
        const Json* list = walk_.member(m, at, "drawn", false);
        if (!list) return;
        if (!list->is_array()) return walk_.fault(FileFaultKind::WrongType, at + ".drawn", "list");
        if (list->size() > kMostDrawnCorners) return walk_.fault(FileFaultKind::TooMany, at + ".drawn");
        for (const Json& p : *list) {
            if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number())
                return walk_.fault(FileFaultKind::WrongType, at + ".drawn", "list of x and y");
            const Point point{p[0].get<double>(), p[1].get<double>()};
            if (!std::isfinite(point.x) || !std::isfinite(point.y) || std::abs(point.x) > kLongestLength.value ||
                std::abs(point.y) > kLongestLength.value)
                return walk_.fault(FileFaultKind::OutOfRange, at + ".drawn");
            into.push_back(point);
        }
        if (into.size() < 3 || signedArea(into) < 0) walk_.fault(FileFaultKind::OutOfRange, at + ".drawn");
    }

    void placement(const Json& e, const std::string& at, Placement& p) {
        place(walk_, e, at, "side", kSideWords, p.side);
        place(walk_, e, at, "cross", kSideWords, p.cross);
        p.fromSide = walk_.reading(e, at, "fromSide");
        p.fromCross = walk_.reading(e, at, "fromCross");
        walk_.flag(e, at, "toCentre", p.toCentre);
    }

    void opening(const Json& e, const std::string& at) {
        Opening o;
        walk_.text(e, at, "name", o.name, false);
        walk_.word(e, at, "kind", kOpeningWords, o.kind);
        walk_.word(e, at, "shape", kShapes, o.shape);
        placement(e, at, o.place);
        o.width = walk_.reading(e, at, "width");
        o.height = walk_.reading(e, at, "height");
        o.radius = walk_.reading(e, at, "radius");
        walk_.each(
            e, at, "corners",
            [&](const Json& c, const std::string& where) {
                o.corners.push_back({walk_.reading(c, where, "along"), walk_.reading(c, where, "across")});
            },
            false, 1000);
        walk_.count(e, at, "count", 1, kMostInRow, o.count);
        walk_.flag(e, at, "rowAlong", o.rowAlong);
        o.pitch = walk_.reading(e, at, "pitch");
        walk_.word(e, at, "treatment", kTreatments, o.treatment, false);
        walk_.word(e, at, "edge", kOpeningEdges, o.edge, false);
        o.turnIn = walk_.reading(e, at, "turnIn");
        o.clear = walk_.reading(e, at, "clear");
        walk_.flag(e, at, "even", o.even);
        walk_.text(e, at, "hole", o.hole, false);
        o.lid = walk_.reading(e, at, "lid");
        o.finger = walk_.reading(e, at, "finger");
        s_.openings.push_back(std::move(o));
    }

    void edge(const Json& e, const std::string& at) {
        Edge edge;
        walk_.word(e, at, "kind", kEdges, edge.kind);
        walk_.text(e, at, "surface", edge.surface, false);
        walk_.count(e, at, "side", 0, kMostSides - 1, edge.side);
        edge.allowance = walk_.reading(e, at, "allowance");
        edge.gapAtEnd = walk_.reading(e, at, "gapAtEnd");
        walk_.text(e, at, "trim", edge.trim, false);
        walk_.flag(e, at, "factory", edge.factory);
        for (const auto& [key, into] : {std::pair{"startDeg", &edge.startDeg}, {"endDeg", &edge.endDeg}}) {
            double degrees = 0;
            if (walk_.number(e, at, key, kLeastCornerDeg, kMostCornerDeg, degrees, false)) *into = degrees;
        }
        s_.edges.push_back(std::move(edge));
    }

    void zone(const Json& e, const std::string& at) {
        Zone z;
        walk_.text(e, at, "name", z.name, false);
        walk_.word(e, at, "kind", kZones, z.kind, false);
        placement(e, at, z.place);
        z.width = walk_.reading(e, at, "width");
        z.height = walk_.reading(e, at, "height");
        s_.zones.push_back(std::move(z));
    }

    JsonWalk& walk_;
    Surface& s_;
};

Json written(const Measurement& m) {
    Json out{{"form", wordOf(kForms, m.form)}};
    const Measurement usual;
    if (m.form == OutlineForm::Polygon || m.polygon != usual.polygon) {
        out["polygonSides"] = m.polygon.sides.size();
        out["diagonals"] = Json::array();
        for (const auto& d : m.polygon.diagonals) out["diagonals"].push_back({{"from", d.from}, {"to", d.to}});
        for (std::size_t k = 0; k < m.polygon.turns.size(); ++k)
            if (m.polygon.turns[k] != CornerTurn::Unsaid)
                out["cornerTurns"].push_back({{"corner", k}, {"turns", wordOf(kTurns, m.polygon.turns[k])}});
    }
    if (m.form == OutlineForm::Stations || m.stations != usual.stations) {
        out["stationCount"] = m.stations.rows.size();
        out["smooth"] = m.stations.smooth;
        out["bothSides"] = m.stations.bothSides;
    }
    if (m.form == OutlineForm::TwoPoint || m.fixedPoints != usual.fixedPoints) {
        out["fixedPointRows"] = Json::array();
        for (const auto& r : m.fixedPoints.rows) out["fixedPointRows"].push_back({{"below", r.below}});
    }
    if (m.curve != usual.curve) {
        out["curving"] = wordOf(kCurvings, m.curve.curving);
        out["profileParts"] = m.curve.parts.size();
    }
    if (!m.drawn.empty()) {
        out["drawn"] = Json::array();
        for (const Point& p : m.drawn) out["drawn"].push_back({p.x, p.y});
    }
    if (!m.cornerRadii.empty()) out["radiusCorners"] = m.cornerRadii.size();
    // Readings of every form are kept, also of those not chosen now.
    out["readings"] = Json::object();
    Measurement all = m;
    all.stations.bothSides = true;
    all.curve.curving = Curving::Double;
    for (const OutlineForm form :
         {OutlineForm::FourSides, OutlineForm::Polygon, OutlineForm::Stations, OutlineForm::TwoPoint}) {
        all.form = form;
        for (const std::string& key : readingKeys(all))
            putReading(out["readings"], key.c_str(), *findReading(all, key));
    }
    out["notches"] = Json::array();
    for (const Notch& n : m.notches) {
        Json notch{{"name", n.name}, {"side", placeWord(kSideWords, n.side)}};
        putReading(notch, "position", n.position);
        putReading(notch, "length", n.length);
        putReading(notch, "depth", n.depth);
        if (n.edges != EdgeKind::Unsaid) notch["edges"] = wordOf(kEdges, n.edges);
        out["notches"].push_back(std::move(notch));
    }
    out["steps"] = Json::array();
    for (const Step& s : m.steps) {
        Json step{{"name", s.name}, {"corner", placeWord(kCornerWords, s.corner)}};
        putReading(step, "along", s.along);
        putReading(step, "across", s.across);
        if (s.edges != EdgeKind::Unsaid) step["edges"] = wordOf(kEdges, s.edges);
        out["steps"].push_back(std::move(step));
    }
    return out;
}

void putPlacement(Json& out, const Placement& p) {
    out["side"] = placeWord(kSideWords, p.side);
    out["cross"] = placeWord(kSideWords, p.cross);
    putReading(out, "fromSide", p.fromSide);
    putReading(out, "fromCross", p.fromCross);
    if (p.toCentre) out["toCentre"] = true;
}

Json written(const Opening& o) {
    Json out{{"name", o.name}, {"kind", wordOf(kOpeningWords, o.kind)}, {"shape", wordOf(kShapes, o.shape)}};
    putPlacement(out, o.place);
    putReading(out, "width", o.width);
    putReading(out, "height", o.height);
    putReading(out, "radius", o.radius);
    for (const Opening::Corner& c : o.corners) {
        Json corner = Json::object();
        putReading(corner, "along", c.along);
        putReading(corner, "across", c.across);
        out["corners"].push_back(std::move(corner));
    }
    out["count"] = o.count;
    if (!o.rowAlong) out["rowAlong"] = false;
    putReading(out, "pitch", o.pitch);
    out["treatment"] = wordOf(kTreatments, o.treatment);
    out["edge"] = wordOf(kOpeningEdges, o.edge);
    putReading(out, "turnIn", o.turnIn);
    putReading(out, "clear", o.clear);
    if (o.even) out["even"] = true;
    if (!o.hole.empty()) out["hole"] = o.hole;
    putReading(out, "lid", o.lid);
    putReading(out, "finger", o.finger);
    return out;
}

} // namespace

void readArea(JsonWalk& walk, const Json& entry, const std::string& path, Area& into) {
    std::string area;
    walk.text(entry, path, "area", area, false);
    walk.text(entry, path, "areaName", into.name, false);
    for (const auto& [kind, word] : kAreas)
        if (area == word) into.kind = kind;
    if (!area.empty() && into.kind == AreaKind::Unsaid) into = {AreaKind::Other, area};
}

void putArea(Json& out, const Area& area) {
    for (const auto& [kind, word] : kAreas)
        if (area.kind == kind) out["area"] = word;
    if (area.kind == AreaKind::Other)
        out["area"] = area.name;
    else if (!area.name.empty())
        out["areaName"] = area.name;
}

Surface readSurface(JsonWalk& walk, const Json& entry, const std::string& path, std::set<std::string>& ids) {
    Surface s;
    walk.id(entry, path, ids, s.id);
    walk.text(entry, path, "name", s.name);
    SurfaceReader(walk, s).read(entry, path);
    return s;
}

Json written(const Surface& s) {
    Json out{{"id", s.id}, {"name", s.name}, {"kind", wordOf(kKinds, s.kind)}};
    if (s.hand != Hand::None) out["hand"] = wordOf(kHands, s.hand);
    putArea(out, s.area);
    out["ghostLengthMm"] = s.ghostLength.value;
    out["ghostHeightMm"] = s.ghostHeight.value;
    putReading(out, "heightRear", s.heightRear);
    putReading(out, "heightFront", s.heightFront);
    putReading(out, "fromRear", s.fromRear);
    putReading(out, "lean", s.lean);
    if (s.leansOut) out["leansOut"] = true;
    if (s.before) out["before"] = true;
    out["measurement"] = written(s.measurement);
    const auto list = [&](const char* key, const auto& entries, const auto& write) {
        if (entries.empty()) return;
        out[key] = Json::array();
        for (const auto& e : entries) out[key].push_back(write(e));
    };
    list("openings", s.openings, [](const Opening& o) { return written(o); });
    list("edges", s.edges, [](const Edge& e) {
        Json edge{{"kind", wordOf(kEdges, e.kind)}};
        if (e.kind == EdgeKind::Meets) edge.update({{"surface", e.surface}, {"side", e.side}});
        putReading(edge, "allowance", e.allowance);
        putReading(edge, "gapAtEnd", e.gapAtEnd);
        if (!e.trim.empty()) edge["trim"] = e.trim;
        if (e.factory) edge["factory"] = true;
        if (e.startDeg) edge["startDeg"] = *e.startDeg;
        if (e.endDeg) edge["endDeg"] = *e.endDeg;
        return edge;
    });
    list("zones", s.zones, [](const Zone& z) {
        Json zone{{"name", z.name}, {"kind", wordOf(kZones, z.kind)}};
        putPlacement(zone, z.place);
        putReading(zone, "width", z.width);
        putReading(zone, "height", z.height);
        return zone;
    });
    list("supports", s.supports, [](const Support& u) { return written(u); });
    if (s.packing != Packing{}) out["packing"] = written(s.packing);
    return out;
}

Access readAccess(JsonWalk& walk, const Json& entry, const std::string& path) {
    Access a;
    walk.each(
        entry, path, "doors",
        [&](const Json& d, const std::string& at) {
            Access::Door door;
            walk.text(d, at, "name", door.name, false);
            door.width = walk.reading(d, at, "width");
            door.height = walk.reading(d, at, "height");
            door.sill = walk.reading(d, at, "sill");
            walk.text(d, at, "floor", door.floor, false);
            a.doors.push_back(std::move(door));
        },
        false, 20);
    a.panelThickness = walk.reading(entry, path, "panelThickness");
    a.loadLength = walk.reading(entry, path, "loadLength");
    a.loadWidth = walk.reading(entry, path, "loadWidth");
    a.loadHeight = walk.reading(entry, path, "loadHeight");
    walk.flag(entry, path, "partToLoad", a.partToLoad);
    return a;
}

Json written(const Access& a) {
    Json out{{"doors", Json::array()}};
    for (const Access::Door& d : a.doors) {
        Json door{{"name", d.name}};
        putReading(door, "width", d.width);
        putReading(door, "height", d.height);
        putReading(door, "sill", d.sill);
        if (!d.floor.empty()) door["floor"] = d.floor;
        out["doors"].push_back(std::move(door));
    }
    putReading(out, "panelThickness", a.panelThickness);
    putReading(out, "loadLength", a.loadLength);
    putReading(out, "loadWidth", a.loadWidth);
    putReading(out, "loadHeight", a.loadHeight);
    if (a.partToLoad) out["partToLoad"] = true;
    return out;
}

BodyBefore readBefore(JsonWalk& walk, const Json& entry, const std::string& path) {
    constexpr std::size_t kMostChecks = 50;
    BodyBefore before;
    walk.text(entry, path, "body", before.body);
    walk.each(
        entry, path, "checks",
        [&](const Json& c, const std::string& at) {
            BodyCheck check;
            walk.text(c, at, "surface", check.surface);
            walk.text(c, at, "key", check.key);
            walk.number(c, at, "beforeMm", 0, 2 * kLongestSideMm, check.before.value);
            check.taken = walk.reading(c, at, "taken");
            before.checks.push_back(std::move(check));
        },
        false, kMostChecks);
    return before;
}

Json written(const BodyBefore& before) {
    Json out{{"body", before.body}, {"checks", Json::array()}};
    for (const BodyCheck& c : before.checks) {
        Json check{{"surface", c.surface}, {"key", c.key}, {"beforeMm", c.before.value}};
        putReading(check, "taken", c.taken);
        out["checks"].push_back(std::move(check));
    }
    return out;
}

} // namespace westrum
