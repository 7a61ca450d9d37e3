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
                   : what == "clear"  ? &o->clear
                   : what == "lid"    ? &o->lid
                   : what == "finger" ? &o->finger
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
            return what == "position"    ? &u->position
                   : what == "width"     ? &u->width
                   : what == "spacing"   ? &u->spacing
                   : what == "depth"     ? &u->depth
                   : what == "holeFirst" ? &u->holeFirst
                   : what == "holePitch" ? &u->holePitch
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
                          o.edge == OpeningEdge::Reveal ? "turnIn" : "",
                          o.clear ? "clear" : "",
                          o.lid ? "lid" : "",
                          o.lid && o.finger ? "finger" : ""};
    });
    each('z', s.zones.size(), [](std::size_t) { return std::array{"cross", "side", "width", "height"}; });
    each('u', s.supports.size(), [&](std::size_t i) {
        const Support& u = s.supports[i];
        return std::array{"position",
                          "width",
                          u.count > 1 ? "spacing" : "",
                          u.kind == SupportKind::Rib ? "depth" : "",
                          u.holeFirst || u.holePitch ? "holeFirst" : "",
                          u.holePitch ? "holePitch" : ""};
    });
    return keys;
}

} // namespace westrum
