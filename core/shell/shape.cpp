#include "core/shell/shape.h"

#include "core/measure/cutouts.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr int kFingerCorners = 48;

/// The frame in which a placement is measured: `u` along the side away from the cross side, `v` into the surface.
struct PlaceFrame {
    Point origin; ///< on the side's line
    Point u, v;
    Point crossAt, crossAlong; ///< the cross side's line
};

std::optional<PlaceFrame> placeFrame(const Placement& place, const MeasuredOutline& m) {
    const auto side = sideLine(m, place.side);
    const auto cross = sideLine(m, place.cross);
    if (!side || !cross) return std::nullopt;
    PlaceFrame f;
    f.origin = side->from;
    f.v = side->inward;
    f.u = (side->to - side->from) * (1 / side->length());
    if (dot(f.u, cross->inward) < 0) f.u = f.u * -1;
    f.crossAt = cross->from;
    f.crossAlong = (cross->to - cross->from) * (1 / cross->length());
    if (std::abs(westrum::cross(f.u, f.crossAlong)) < 0.05) return std::nullopt; // nearly parallel
    return f;
}

/// Where the line through `p` along the frame's u meets the cross side.
Point onCross(const PlaceFrame& f, Point p) {
    const double t = cross(f.crossAt - p, f.crossAlong) / cross(f.u, f.crossAlong);
    return p + f.u * t;
}

/// The level that is the middle of what is seen over most of its length along x: of every cut through it the widest
/// part counts, by its width. Where no level holds for a third of that (everything slants), the mean of all.
double seenMiddle(const Region& region) {
    constexpr int kCuts = 240;
    constexpr double kAlike = 5; // mm: middles that make one line
    struct Part {
        double middle, width;
    };
    const Bounds b = boundsOf(region);
    std::vector<Part> parts;
    double all = 0, mean = 0;
    for (int k = 0; k < kCuts; ++k) {
        const double x = b.low.x + b.width() * (k + 0.5) / kCuts;
        std::vector<double> ys;
        for (const Ring& ring : region.rings)
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point p = ring[i], q = ring[(i + 1) % ring.size()];
                if ((p.x <= x) != (q.x <= x)) ys.push_back(p.y + (q.y - p.y) * (x - p.x) / (q.x - p.x));
            }
        std::sort(ys.begin(), ys.end());
        Part widest{0, 0};
        for (std::size_t i = 0; i + 1 < ys.size(); i += 2)
            if (ys[i + 1] - ys[i] > widest.width + 1e-6) widest = {(ys[i] + ys[i + 1]) / 2, ys[i + 1] - ys[i]};
        if (widest.width <= 0) continue;
        parts.push_back(widest);
        all += widest.width;
        mean += widest.middle * widest.width;
    }
    if (all <= 0) return (b.low.y + b.high.y) / 2;
    double best = 0, at = mean / all;
    for (const Part& p : parts) {
        double weight = 0, sum = 0;
        for (const Part& q : parts)
            if (std::abs(q.middle - p.middle) <= kAlike) {
                weight += q.width;
                sum += q.middle * q.width;
            }
        if (weight > best + 1e-6 && weight >= all / 3) {
            best = weight;
            at = sum / weight;
        }
    }
    return at;
}

Region overlap(const Region& region, const Ring& ring) { return intersection(region, {{ring}}); }

class Shaper {
public:
    Shaper(const Surface& s, const MeasuredOutline& m) : s_(s), m_(m) {}

    SurfaceShape run() {
        for (std::size_t i = 0; i < s_.openings.size(); ++i) opening(static_cast<int>(i));
        overlaps();
        std::vector<Ring> cut;
        for (const PlacedOpening& o : out_.openings)
            if (s_.openings[static_cast<std::size_t>(o.opening)].treatment == Treatment::CutBefore)
                cut.push_back(o.shape);
        out_.net = cut.empty() ? m_.outline : difference(m_.outline, unionOf(cut));
        for (std::size_t i = 0; i < s_.zones.size(); ++i) zone(static_cast<int>(i));
        std::vector<Ring> hidden;
        for (const PlacedZone& z : out_.zones)
            if (s_.zones[static_cast<std::size_t>(z.zone)].kind == ZoneKind::Hidden)
                hidden.insert(hidden.end(), z.shape.rings.begin(), z.shape.rings.end());
        out_.visible = hidden.empty() ? m_.outline : difference(m_.outline, unionOf(hidden));
        std::erase_if(out_.visible.rings, [](const Ring& r) { return std::abs(signedArea(r)) < 1; });
        if (out_.visible.empty()) {
            say(Severity::Warning, Part::Whole, -1, RemarkKind::AllHidden, {});
        } else {
            const Bounds b = boundsOf(out_.visible);
            out_.visibleCentreX = hidden.empty() ? (b.low.x + b.high.x) / 2 : seenMiddle(transposed(out_.visible));
            out_.visibleCentreY = hidden.empty() ? (b.low.y + b.high.y) / 2 : seenMiddle(out_.visible);
        }
        for (std::size_t i = 0; i < s_.supports.size(); ++i) support(static_cast<int>(i));
        return std::move(out_);
    }

private:
    void say(Severity severity, Part part, int index, RemarkKind kind, Facts facts) {
        out_.remarks.push_back({severity, Place{"", part, index}, kind, std::move(facts), {}});
    }

    /// A reading that must be there and more than nothing; says what is wrong.
    std::optional<double> need(const MaybeReading& r, Part part, int index, RemarkKind incomplete, const char* owner,
                               const std::string& name, const char* what, bool zeroAllowed = false) {
        if (!r) {
            say(Severity::Warning, part, index, incomplete, {{owner, name}, {"what", std::string(what)}});
            return std::nullopt;
        }
        if (!(r->length.value >= 0) || (r->length.value == 0 && !zeroAllowed)) {
            say(Severity::Error, part, index, RemarkKind::ReadingNotPositive,
                {{"reading", name + " " + what}, {"length", r->length}});
            return std::nullopt;
        }
        return r->length.value;
    }

    void opening(int index) {
        const Opening& o = s_.openings[static_cast<std::size_t>(index)];
        const auto needs = [&](const MaybeReading& r, const char* what, bool zero = false) {
            return need(r, Part::Opening, index, RemarkKind::OpeningIncomplete, "opening", o.name, what, zero);
        };
        Ring corners; // in the opening's own box, lower left at 0,0
        double width = 0, height = 0;
        if (o.shape == OpeningShape::Polygon) {
            if (o.corners.size() < 3)
                return say(Severity::Warning, Part::Opening, index, RemarkKind::OpeningIncomplete,
                           {{"opening", o.name}, {"what", std::string("three corners")}});
            for (const Opening::Corner& c : o.corners) {
                const auto x = needs(c.along, "corner", true), y = needs(c.across, "corner", true);
                if (!x || !y) return;
                corners.push_back({*x, *y});
            }
            if (crossesItself(corners) || std::abs(signedArea(corners)) < 1)
                return say(Severity::Error, Part::Opening, index, RemarkKind::OpeningCrossed, {{"opening", o.name}});
            if (signedArea(corners) < 0) std::reverse(corners.begin(), corners.end());
            const Bounds b = boundsOf(corners);
            for (Point& p : corners) p = p - b.low;
            width = b.width();
            height = b.height();
        } else {
            const auto w = needs(o.width, o.shape == OpeningShape::Round ? "diameter" : "width");
            const auto h = o.shape == OpeningShape::Round ? w : needs(o.height, "height");
            if (!w || !h) return;
            width = *w;
            height = *h;
            const double radius = o.radius ? std::max(0.0, o.radius->length.value) : 0;
            corners = o.shape == OpeningShape::Round ? circle({width / 2, height / 2}, width / 2, kArcCorners)
                                                     : roundedRectangle(0, 0, width, height, radius, kArcCorners);
        }
        if (!needs(o.place.fromSide, "distance from the first side", true) ||
            !needs(o.place.fromCross, "distance from the second side", true))
            return;
        const auto box = placedBox(o.place, width, height, m_);
        if (!box)
            return say(Severity::Error, Part::Opening, index, RemarkKind::OpeningIncomplete,
                       {{"opening", o.name}, {"what", std::string("two straight sides that meet")}});
        double pitch = 0;
        if (o.count > 1) {
            const auto p = needs(o.pitch, "spacing");
            if (!p) return;
            pitch = *p;
        }
        const Point u = ((*box)[1] - (*box)[0]) * (1 / width), v = ((*box)[3] - (*box)[0]) * (1 / height);
        bool outside = false, over = false;
        for (int k = 0; k < o.count; ++k) {
            const Point at = (*box)[0] + (o.rowAlong ? rowAlong(o.place, u) : v) * (pitch * k);
            PlacedOpening placed{.opening = index, .inRow = k};
            for (const Point& c : corners) placed.shape.push_back(at + u * c.x + v * c.y);
            placed.centre = at + u * (width / 2) + v * (height / 2);
            const double area = std::abs(signedArea(placed.shape));
            const double within = areaMm2(overlap(m_.outline, placed.shape));
            if (within < 1)
                outside = true;
            else if (within < area - std::max(10.0, area * 1e-4))
                over = true;
            if (signedArea(placed.shape) > 0) std::reverse(placed.shape.begin(), placed.shape.end());
            if (within >= 1) out_.openings.push_back(std::move(placed));
        }
        if (outside)
            say(Severity::Error, Part::Opening, index, RemarkKind::OpeningOutside, {{"opening", o.name}});
        else if (over)
            say(Severity::Warning, Part::Opening, index, RemarkKind::OpeningOverEdge, {{"opening", o.name}});
    }

    /// Rows grow away from the cross side.
    [[nodiscard]] Point rowAlong(const Placement& place, Point u) const {
        const auto f = placeFrame(place, m_);
        return f && dot(f->u, u) < 0 ? u * -1.0 : u;
    }

    void overlaps() {
        for (std::size_t i = 0; i < out_.openings.size(); ++i)
            for (std::size_t k = 0; k < i; ++k) {
                const PlacedOpening &a = out_.openings[k], &b = out_.openings[i];
                const Bounds ba = boundsOf(a.shape), bb = boundsOf(b.shape);
                if (ba.high.x <= bb.low.x || bb.high.x <= ba.low.x || ba.high.y <= bb.low.y || bb.high.y <= ba.low.y)
                    continue;
                Ring ring = a.shape;
                std::reverse(ring.begin(), ring.end());
                Ring other = b.shape;
                std::reverse(other.begin(), other.end());
                if (areaMm2(intersection({{ring}}, {{other}})) < 1) continue;
                say(Severity::Warning, Part::Opening, b.opening, RemarkKind::OpeningsOverlap,
                    {{"opening", nameOf(b)}, {"other", nameOf(a)}});
            }
    }
    [[nodiscard]] std::string nameOf(const PlacedOpening& o) const {
        return s_.openings[static_cast<std::size_t>(o.opening)].name;
    }

    void zone(int index) {
        const Zone& z = s_.zones[static_cast<std::size_t>(index)];
        const auto needs = [&](const MaybeReading& r, const char* what, bool zero = false) {
            return need(r, Part::Zone, index, RemarkKind::ZoneIncomplete, "zone", z.name, what, zero);
        };
        const auto w = needs(z.width, "width"), h = needs(z.height, "height");
        if (!w || !h || !needs(z.place.fromSide, "distance from the first side", true) ||
            !needs(z.place.fromCross, "distance from the second side", true))
            return;
        const auto box = placedBox(z.place, *w, *h, m_);
        PlacedZone placed{.zone = index};
        if (box) placed.shape = overlap(m_.outline, *box);
        if (placed.shape.empty())
            return say(Severity::Error, Part::Zone, index, RemarkKind::ZoneOutside, {{"zone", z.name}});
        out_.zones.push_back(std::move(placed));
    }

    void support(int index) {
        const Support& u = s_.supports[static_cast<std::size_t>(index)];
        const auto needs = [&](const MaybeReading& r, const char* what, bool zero = false) {
            return need(r, Part::Support, index, RemarkKind::SupportIncomplete, "support", u.name, what, zero);
        };
        const auto position = needs(u.position, "position", true), width = needs(u.width, "width");
        if (!position || !width) return;
        double spacing = 0;
        if (u.count > 1) {
            const auto s = needs(u.spacing, "spacing");
            if (!s) return;
            spacing = *s;
        }
        const Bounds b = boundsOf(m_.frame);
        const SideLine lower = lowerEdge(m_);
        bool outside = false;
        for (int k = 0; k < u.count; ++k) {
            const double at = (u.along ? lower.from.y : lower.from.x) + *position + k * spacing;
            const double low = at - *width / 2, high = at + *width / 2;
            const Ring strip = u.along ? Ring{{b.low.x, low}, {b.high.x, low}, {b.high.x, high}, {b.low.x, high}}
                                       : Ring{{low, b.low.y}, {high, b.low.y}, {high, b.high.y}, {low, b.high.y}};
            PlacedSupport placed{.support = index,
                                 .centre = at,
                                 .along = u.along,
                                 .kind = u.kind,
                                 .shape = overlap(m_.outline, strip),
                                 .inRow = k};
            if (placed.shape.empty())
                outside = true;
            else
                out_.supports.push_back(std::move(placed));
        }
        if (outside) say(Severity::Warning, Part::Support, index, RemarkKind::SupportOutside, {{"support", u.name}});
    }

    static constexpr int kArcCorners = 96; ///< off the true arc by 0.05 % of the radius

    const Surface& s_;
    const MeasuredOutline& m_;
    SurfaceShape out_;
};

} // namespace

std::vector<double> bodyHolesAlong(const Support& support, const PlacedSupport& placed, double from, double to) {
    constexpr int kMost = 2000; // a typing slip must not fill the memory
    std::vector<double> holes;
    if (placed.shape.empty()) return holes;
    const Bounds b = boundsOf(placed.shape);
    const double base = placed.along ? b.low.x : b.low.y;
    const auto put = [&](double at) {
        if (at >= from && at <= to) holes.push_back(at);
    };
    const double first = support.holeFirst ? support.holeFirst->length.value : 0;
    if (support.holePitch && support.holePitch->length.value > 1) {
        for (int k = 0; k < kMost && base + first + k * support.holePitch->length.value <= to; ++k)
            put(base + first + k * support.holePitch->length.value);
    } else if (support.holeFirst) {
        put(base + first);
    }
    for (const Reading& r : support.holes) put(base + r.length.value);
    std::sort(holes.begin(), holes.end());
    return holes;
}

std::vector<double> packingStations(double from, double to) {
    constexpr double kFromEnd = 50, kApart = 600; // mm
    if (to - from <= 2 * kFromEnd) return {(from + to) / 2};
    const int spaces = std::max(1, static_cast<int>(std::ceil((to - from - 2 * kFromEnd) / kApart - 1e-9)));
    std::vector<double> at;
    for (int k = 0; k <= spaces; ++k) at.push_back(from + kFromEnd + (to - from - 2 * kFromEnd) * k / spaces);
    return at;
}

std::optional<Ring> placedBox(const Placement& place, double width, double height, const MeasuredOutline& m) {
    const auto f = placeFrame(place, m);
    if (!f || !place.fromSide || !place.fromCross) return std::nullopt;
    const double half = place.toCentre ? 0 : 0.5;
    const Point level = f->origin + f->v * (place.fromSide->length.value + half * height);
    const Point centre = onCross(*f, level) + f->u * (place.fromCross->length.value + half * width);
    const Point u = f->u * (width / 2), v = f->v * (height / 2);
    Ring box{centre - u - v, centre + u - v, centre + u + v, centre - u + v};
    if (signedArea(box) < 0) box = {box[1], box[0], box[3], box[2]};
    return box;
}

std::optional<Point> crossFoot(const Placement& place, Point p, const MeasuredOutline& m) {
    const auto f = placeFrame(place, m);
    return f ? std::optional(onCross(*f, p)) : std::nullopt;
}

std::optional<PlacementDistances> distancesOf(const Placement& place, Point centre, double width, double height,
                                              const MeasuredOutline& m) {
    const auto f = placeFrame(place, m);
    if (!f) return std::nullopt;
    const double half = place.toCentre ? 0 : 0.5;
    return PlacementDistances{{dot(centre - f->origin, f->v) - half * height},
                              {dot(centre - onCross(*f, centre), f->u) - half * width}};
}

SurfaceShape shapeOf(const Surface& surface, const MeasuredOutline& measured) {
    return Shaper(surface, measured).run();
}

std::optional<Lid> lidOf(const Opening& opening, const PlacedOpening& placed) {
    if (!opening.lid || opening.treatment != Treatment::CutBefore || !(opening.lid->length.value >= 0)) return {};
    Lid lid{.gap = opening.lid->length};
    const Region hole{{Ring(placed.shape.rbegin(), placed.shape.rend())}};
    lid.shape = lid.gap.value > 0 ? inset(hole, lid.gap.value) : hole;
    if (areaMm2(lid.shape) < 1) return {};
    const Bounds b = boundsOf(lid.shape);
    lid.length = {b.width()};
    lid.width = {b.height()};
    if (opening.finger && opening.finger->length.value > 0) {
        lid.finger = opening.finger->length;
        lid.shape = difference(lid.shape, {{circle(placed.centre, lid.finger->value / 2, kFingerCorners)}});
    }
    return lid;
}

} // namespace westrum
