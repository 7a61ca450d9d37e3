#include "core/plan/base_plan.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kFarthestShift = 150; // mm
constexpr double kHair = 0.05;         // mm: what is nearer by less is not too near
constexpr double kThrough = 5;         // mm: a joint parted by an opening ends so near to it

struct Near {
    Point on, at;
    double length = 1e12;
};

Point nearestOn(Point p, Point a, Point b) {
    const Point way = b - a;
    const double l = dot(way, way);
    return a + way * (l > 0 ? std::clamp(dot(p - a, way) / l, 0.0, 1.0) : 0.0);
}

/// Nearest points of an outline and a line of points.
Near nearest(const Ring& shape, const Ring& line, bool closed) {
    Near best;
    const auto take = [&](Point on, Point at) {
        if (const double l = distance(on, at); l < best.length) best = {on, at, l};
    };
    const std::size_t n = line.size(), m = shape.size();
    for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
        const Point a = line[i], b = line[(i + 1) % n];
        for (const Point& p : shape) take(p, nearestOn(p, a, b));
        for (std::size_t k = 0; k < m; ++k) take(nearestOn(a, shape[k], shape[(k + 1) % m]), a);
    }
    return best;
}

/// As many corners as tell the distance to a tenth of a millimetre or so.
Ring thinned(const Ring& ring) {
    constexpr std::size_t kEnough = 48;
    if (ring.size() <= kEnough) return ring;
    Ring few;
    const std::size_t step = (ring.size() + kEnough - 1) / kEnough;
    for (std::size_t i = 0; i < ring.size(); i += step) few.push_back(ring[i]);
    return few;
}

Clearance clearanceOf(const Opening& o, const std::map<OpeningKind, Mm>& clearances) {
    Clearance c = usualClearance(o.kind);
    if (const auto own = clearances.find(o.kind); own != clearances.end()) c.edge = own->second;
    if (o.clear) c.edge = o.clear->length;
    return c;
}

/// What an opening is measured against.
class Room {
public:
    Room(const Surface& surface, const SurfacePlan& plan, int opening, const std::map<OpeningKind, Mm>& clearances)
        : plan_(plan), limit_(clearanceOf(surface.openings[static_cast<std::size_t>(opening)], clearances)) {
        for (const PlacedOpening& o : plan.shape.openings) {
            Ring ring = thinned(o.shape);
            if (o.opening == opening)
                own_.emplace_back(std::move(ring), boundsOf(o.shape));
            else
                others_.emplace_back(o.opening, std::move(ring));
        }
        if (const LayerPlan* face = plan.faceLayer())
            if (const Family* family = familyOf(face->family); family && family->laid.wrapped)
                joints_ = &face->setOut.joints;
    }
    [[nodiscard]] bool empty() const { return own_.empty(); }

    /// The nearest of each kind, the opening moved by so much.
    [[nodiscard]] std::vector<OpeningDistance> distances(Point by) const {
        std::vector<OpeningDistance> found;
        const auto put = [&](OpeningDistance::To to, int index, const Near& near, double length, Mm limit) {
            if (limit.value <= 0 || near.length > 1e11) return;
            const auto same = std::find_if(found.begin(), found.end(), [&](const auto& d) { return d.to == to; });
            const OpeningDistance d{to, index, near.on, near.at, {length}, limit};
            if (same == found.end())
                found.push_back(d);
            else if (d.length < same->length)
                *same = d;
        };
        for (const auto& [at, box] : own_) {
            Ring ring = at;
            for (Point& p : ring) p = p + by;
            const Bounds b{box.low + by, box.high + by};
            for (const Ring& side : plan_.measured.outline.rings) {
                const Near near = nearest(ring, side, true);
                const bool inside = contains(plan_.measured.outline, ring.front());
                put(OpeningDistance::To::Edge, -1, near, inside ? near.length : -near.length, limit_.edge);
            }
            for (const auto& [index, other] : others_) {
                const Near near = nearest(ring, other, true);
                put(OpeningDistance::To::Opening, index, near, near.length, limit_.edge);
            }
            if (joints_)
                for (std::size_t i = 0; i < joints_->size(); ++i) {
                    const Joint& j = (*joints_)[i];
                    Near near = nearest(ring, {j.from, j.to}, false);
                    // One that runs through it ends at its rims: it is no nearer there.
                    double left = 0, right = 0;
                    const Point way = j.to - j.from;
                    for (const Point& q : ring) {
                        const double side = cross(way, q - j.from);
                        left = std::max(left, side);
                        right = std::min(right, side);
                    }
                    if (left > 0 && right < 0 && near.length < kThrough) near.length = 0;
                    put(OpeningDistance::To::Joint, static_cast<int>(i), near, near.length, limit_.edge);
                }
            for (const PlacedSupport& s : plan_.shape.supports) {
                if (s.shape.empty()) continue;
                const Bounds r = boundsOf(s.shape);
                // So far from it across, if they pass each other at all; negative where they overlap.
                const double across = s.along ? std::max(r.low.y - b.high.y, b.low.y - r.high.y)
                                              : std::max(r.low.x - b.high.x, b.low.x - r.high.x);
                const double beside = s.along ? std::max(r.low.x - b.high.x, b.low.x - r.high.x)
                                              : std::max(r.low.y - b.high.y, b.low.y - r.high.y);
                if (beside > 0) continue;
                const Point middle = (b.low + b.high) * 0.5;
                const double low = s.along ? r.low.y : r.low.x, high = s.along ? r.high.y : r.high.x;
                const double here = s.along ? middle.y : middle.x;
                const double edge = std::abs(here - low) < std::abs(here - high) ? low : high;
                const Near near{middle, s.along ? Point{middle.x, edge} : Point{edge, middle.y}, 0};
                put(OpeningDistance::To::Support, s.support, near, across, limit_.support);
            }
        }
        return found;
    }
    /// Whether nothing is too near, the opening moved by so much: boxes first, outlines only where those do not tell.
    [[nodiscard]] bool clear(Point by) const {
        const double limit = limit_.edge.value - kHair, behind = limit_.support.value - kHair;
        for (const auto& [at, box] : own_) {
            const Bounds b{box.low + by, box.high + by};
            if (limit_.support.value > 0)
                for (const PlacedSupport& s : plan_.shape.supports) {
                    if (s.shape.empty()) continue;
                    const Bounds r = boundsOf(s.shape);
                    const double x = std::max(r.low.x - b.high.x, b.low.x - r.high.x),
                                 y = std::max(r.low.y - b.high.y, b.low.y - r.high.y);
                    if ((s.along ? x : y) <= 0 && (s.along ? y : x) < behind) return false;
                }
            if (limit_.edge.value <= 0) continue;
            Ring ring;
            const auto moved = [&ring, &shape = at, by]() -> const Ring& {
                if (ring.empty())
                    for (const Point& p : shape) ring.push_back(p + by);
                return ring;
            };
            const auto far = [&](const Bounds& o) {
                return std::max({o.low.x - b.high.x, b.low.x - o.high.x, o.low.y - b.high.y, b.low.y - o.high.y}) >=
                       limit;
            };
            for (const auto& [index, other] : others_)
                if (!far(boundsOf(other)) && nearest(moved(), other, true).length < limit) return false;
            for (const Ring& side : plan_.measured.outline.rings)
                for (std::size_t i = 0; i < side.size(); ++i) {
                    const Ring line{side[i], side[(i + 1) % side.size()]};
                    if (!far(boundsOf(line)) && nearest(moved(), line, false).length < limit) return false;
                }
            if (!contains(plan_.measured.outline, (b.low + b.high) * 0.5)) return false;
            if (joints_)
                for (const Joint& j : *joints_) {
                    const Ring line{j.from, j.to};
                    if (!far(boundsOf(line)) && nearest(moved(), line, false).length < limit) return false;
                }
        }
        return true;
    }

private:
    const SurfacePlan& plan_;
    Clearance limit_;
    std::vector<std::pair<Ring, Bounds>> own_;
    std::vector<std::pair<int, Ring>> others_;
    const std::vector<Joint>* joints_ = nullptr;
};

} // namespace

Clearance usualClearance(OpeningKind kind) {
    switch (kind) {
    case OpeningKind::Lamp:
    case OpeningKind::Socket: return {{30}, {5}};
    case OpeningKind::Hob:
    case OpeningKind::Sink: return {{30}, {5}};
    case OpeningKind::Heater: return {{50}, {5}};
    case OpeningKind::Pipe: return {{15}, {5}};
    case OpeningKind::Hatch: return {{30}, {}};
    case OpeningKind::Window:   // where the body has them
    case OpeningKind::RoofVent: // the same
    case OpeningKind::Other: return {};
    }
    return {};
}

std::vector<OpeningDistance> openingDistances(const Surface& surface, const SurfacePlan& plan, int opening,
                                              const std::map<OpeningKind, Mm>& clearances) {
    const Room room(surface, plan, opening, clearances);
    return room.empty() ? std::vector<OpeningDistance>() : room.distances({});
}

std::optional<Point> clearingShift(const Surface& surface, const SurfacePlan& plan, int opening,
                                   const std::map<OpeningKind, Mm>& clearances) {
    const Room room(surface, plan, opening, clearances);
    if (room.empty() || room.clear({})) return std::nullopt;
    // In whole millimetres, the shortest along x or y; failing that, both ways at once.
    for (double off = 1; off <= kFarthestShift; off += 1)
        for (const Point way : {Point{1, 0}, Point{-1, 0}, Point{0, 1}, Point{0, -1}})
            if (room.clear(way * off)) return way * off;
    for (double off = 5; off <= kFarthestShift; off += 5)
        for (double other = 5; other <= off; other += 5)
            for (const Point way : {Point{off, other}, Point{-off, other}, Point{off, -other}, Point{-off, -other},
                                    Point{other, off}, Point{-other, off}, Point{other, -off}, Point{-other, -off}})
                if (room.clear(way)) return way;
    return std::nullopt;
}

void checkClearances(const Surface& surface, const SurfaceContext& context, SurfacePlan& plan) {
    for (std::size_t i = 0; i < surface.openings.size(); ++i) {
        const int index = static_cast<int>(i);
        const Opening& o = surface.openings[i];
        const Room room(surface, plan, index, context.clearances);
        if (room.empty() || room.clear({})) continue;
        const auto distances = room.distances({});
        const auto worst = std::find_if(distances.begin(), distances.end(), [](const auto& d) { return d.tooNear(); });
        if (worst == distances.end()) continue;
        std::optional<Fix> fix;
        Mm shiftX, shiftY;
        if (const auto shift = clearingShift(surface, plan, index, context.clearances)) {
            shiftX = {shift->x};
            shiftY = {shift->y};
            fix = Fix{FixKind::ShiftOpening,
                      std::to_string(std::lround(shift->x)) + " " + std::to_string(std::lround(shift->y)),
                      static_cast<double>(index)};
        }
        const bool support = worst->to == OpeningDistance::To::Support;
        std::string name;
        if (support) name = surface.supports[static_cast<std::size_t>(worst->index)].name;
        if (worst->to == OpeningDistance::To::Opening)
            name = surface.openings[static_cast<std::size_t>(worst->index)].name;
        plan.remarks.push_back({Severity::Warning,
                                {"", Part::Opening, index},
                                support ? RemarkKind::OpeningOnSupport : RemarkKind::OpeningTooNear,
                                {{"opening", o.name},
                                 {"what", static_cast<std::int64_t>(worst->to)},
                                 {"name", name},
                                 {"length", support ? Mm{std::max(0.0, -worst->length.value)} : worst->length},
                                 {"limit", worst->limit},
                                 {"x", shiftX},
                                 {"y", shiftY}},
                                std::move(fix)});
    }
}

std::vector<LampRow> evenLamps(const Surface& surface, const SurfacePlan& plan) {
    std::vector<LampRow> rows;
    const Region& seen = plan.shape.visible.empty() ? plan.measured.outline : plan.shape.visible;
    if (seen.empty()) return rows;
    const Bounds b = boundsOf(seen);
    std::vector<int> lamps;
    for (std::size_t i = 0; i < surface.openings.size(); ++i)
        if (surface.openings[i].kind == OpeningKind::Lamp && surface.openings[i].even && surface.openings[i].width)
            lamps.push_back(static_cast<int>(i));
    // Rows one above the other, in the order in which they lie now.
    const auto height = [&](int opening) {
        for (const PlacedOpening& o : plan.shape.openings)
            if (o.opening == opening) return o.centre.y;
        return 0.0;
    };
    std::stable_sort(lamps.begin(), lamps.end(), [&](int p, int q) { return height(p) < height(q); });
    // On the middle of a row of what is seen, where rows run that way: equally far from the middle on both sides.
    std::vector<double> middles;
    if (const LayerPlan* face = plan.faceLayer())
        if (const Family* family = familyOf(face->family);
            family && family->laid.lampsOnRows && !face->setOut.rowsAcross)
            for (const Row& r : face->setOut.rows) middles.push_back((r.low + r.high + r.lowAtEnd + r.highAtEnd) / 4);
    for (std::size_t k = 0; k < lamps.size(); ++k) {
        const Opening& o = surface.openings[static_cast<std::size_t>(lamps[k])];
        double y =
            b.low.y + b.height() * (2.0 * static_cast<double>(k) + 1) / (2.0 * static_cast<double>(lamps.size()));
        if (!middles.empty())
            y = *std::min_element(middles.begin(), middles.end(),
                                  [&](double p, double q) { return std::abs(p - y) < std::abs(q - y); });
        // What is seen at that height, its longest stretch.
        std::vector<double> hits;
        for (const Ring& ring : seen.rings)
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point p = ring[i], q = ring[(i + 1) % ring.size()];
                if ((p.y > y) != (q.y > y)) hits.push_back(p.x + (q.x - p.x) * (y - p.y) / (q.y - p.y));
            }
        std::sort(hits.begin(), hits.end());
        double from = b.low.x, to = b.high.x, longest = 0;
        for (std::size_t i = 1; i < hits.size(); i += 2)
            if (hits[i] - hits[i - 1] > longest) {
                longest = hits[i] - hits[i - 1];
                from = hits[i - 1];
                to = hits[i];
            }
        const double pitch = (to - from) / o.count;
        rows.push_back({lamps[k], {from + pitch / 2, y}, {pitch}});
    }
    return rows;
}

void checkLamps(const Surface& surface, SurfacePlan& plan) {
    constexpr double kOff = 5; // mm: seen along a row
    const std::vector<LampRow> rows = evenLamps(surface, plan);
    double worst = 0;
    int opening = -1;
    for (const LampRow& row : rows) {
        double off = 0;
        for (const PlacedOpening& o : plan.shape.openings)
            if (o.opening == row.opening)
                off = std::max(off, distance(o.centre, row.first + Point{row.pitch.value * o.inRow, 0}));
        if (off > worst) {
            worst = off;
            opening = row.opening;
        }
    }
    if (worst > kOff)
        plan.remarks.push_back(
            {Severity::Warning,
             {"", Part::Opening, opening},
             RemarkKind::LampsOffCentre,
             {{"opening", surface.openings[static_cast<std::size_t>(opening)].name}, {"length", Mm{worst}}},
             Fix{FixKind::PlaceLamps, "", 0}});
}

} // namespace westrum
