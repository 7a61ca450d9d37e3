#include "core/measure/cutouts.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

class Cutter {
public:
    Cutter(const Measurement& m, MeasuredOutline& out) : m_(m), out_(out) {}

    void run() {
        Region outline{{rounded()}};
        for (std::size_t i = 0; i < m_.notches.size(); ++i)
            if (const auto cut = notch(static_cast<int>(i))) takeOut(*cut, m_.notches[i].edges, outline);
        for (std::size_t i = 0; i < m_.steps.size(); ++i)
            if (const auto cut = step(static_cast<int>(i))) takeOut(*cut, m_.steps[i].edges, outline);
        std::vector<Region> parts = partsOf(outline);
        std::erase_if(parts, [](const Region& part) { return areaMm2(part) < kShortestSideMm * kShortestSideMm; });
        if (parts.empty()) return say(Severity::Error, {"", Part::Whole}, RemarkKind::OutlineEmpty, {});
        if (parts.size() > 1)
            say(Severity::Warning, {"", Part::Whole}, RemarkKind::OutlineInPieces,
                {{"count", static_cast<std::int64_t>(parts.size())}});
        for (const Region& part : parts)
            out_.outline.rings.insert(out_.outline.rings.end(), part.rings.begin(), part.rings.end());
    }

private:
    void say(Severity severity, Place place, RemarkKind kind, Facts facts) {
        out_.remarks.push_back({severity, std::move(place), kind, std::move(facts), {}});
    }

    /// A corner to be rounded between two straight sides.
    struct Corner {
        Point at, in, on; ///< on: unit along the side that follows, in: along the one that ends here
        double turn{};    ///< > 0 at an outer corner
        double radius{};
        double before{}, after{}; ///< the two sides' lengths
        [[nodiscard]] double tangent() const { return radius * std::tan(std::abs(turn) / 2); }
    };

    std::optional<Corner> cornerOf(std::size_t k) {
        const MaybeReading* reading = k < m_.cornerRadii.size() ? &m_.cornerRadii[k] : nullptr;
        if (!reading || !*reading) return std::nullopt;
        const std::size_t n = out_.sides.size();
        const Ring &before = out_.sides[(k + n - 1) % n], &after = out_.sides[k];
        Corner c;
        c.radius = (*reading)->length.value;
        if (!(c.radius >= 0)) {
            const Place place = placeOfRadius(k);
            say(Severity::Error, place, RemarkKind::ReadingNotPositive,
                {{"reading", place.key}, {"length", Mm{c.radius}}});
            return std::nullopt;
        }
        if (c.radius == 0 || before.size() != 2 || after.size() != 2) return std::nullopt;
        c.at = after.front();
        c.before = distance(before.front(), c.at);
        c.after = distance(c.at, after.back());
        c.in = (c.at - before.front()) * (1 / c.before);
        c.on = (after.back() - c.at) * (1 / c.after);
        c.turn = std::atan2(cross(c.in, c.on), dot(c.in, c.on));
        if (std::abs(c.turn) < 1e-6) return std::nullopt;
        return c;
    }

    static Place placeOfRadius(std::size_t corner) {
        Place place{"", Part::Reading};
        place.key = readingKey('R', static_cast<int>(corner));
        return place;
    }

    /// The frame with its corners rounded to their radii; a radius too large for its sides is said and left out. Two
    /// corners may share a side as they like; where both want more than there is, neither gets more than half.
    Ring rounded() {
        const std::size_t n = out_.sides.size();
        std::vector<std::optional<Corner>> corners;
        for (std::size_t k = 0; k < n; ++k) corners.push_back(cornerOf(k));
        const auto room = [&](double side, const std::optional<Corner>& other) {
            return side - std::min(side / 2, other ? other->tangent() : 0);
        };
        std::vector<bool> fits(n, true);
        for (std::size_t k = 0; k < n; ++k) {
            if (!corners[k]) continue;
            const Corner& c = *corners[k];
            const double most = std::min(room(c.before, corners[(k + n - 1) % n]), room(c.after, corners[(k + 1) % n]));
            fits[k] = c.tangent() <= most + 0.5;
            if (fits[k]) continue;
            const Place place = placeOfRadius(k);
            say(Severity::Error, place, RemarkKind::RadiusTooLarge,
                {{"reading", place.key},
                 {"length", Mm{c.radius}},
                 {"limit", Mm{most / std::tan(std::abs(c.turn) / 2)}}});
        }
        Ring ring;
        for (std::size_t k = 0; k < n; ++k) {
            const Ring& after = out_.sides[k];
            if (corners[k] && fits[k]) {
                const Ring arc = arcOf(*corners[k]);
                ring.insert(ring.end(), arc.begin(), arc.end());
            } else {
                ring.push_back(after.front());
            }
            // Points within a curved side.
            for (std::size_t i = 1; i + 1 < after.size(); ++i) ring.push_back(after[i]);
        }
        Ring clean;
        for (const Point& p : ring)
            if (clean.empty() || distance(clean.back(), p) > 1e-9) clean.push_back(p);
        while (clean.size() > 1 && distance(clean.back(), clean.front()) <= 1e-9) clean.pop_back();
        return clean;
    }

    static Ring arcOf(const Corner& c) {
        const double side = c.turn > 0 ? 1 : -1;
        const Point start = c.at - c.in * c.tangent();
        const Point centre = start + Point{-c.in.y, c.in.x} * (side * c.radius);
        // 0.05 mm off the true arc at most.
        const double step = 2 * std::acos(std::max(0.0, 1 - 0.05 / std::max(c.radius, 0.05)));
        const int pieces = std::max(2, static_cast<int>(std::ceil(std::abs(c.turn) / std::max(step, 0.01))));
        Ring arc;
        const Point spoke = start - centre;
        for (int i = 0; i <= pieces; ++i) {
            const double angle = c.turn * i / pieces;
            arc.push_back(centre + Point{spoke.x * std::cos(angle) - spoke.y * std::sin(angle),
                                         spoke.x * std::sin(angle) + spoke.y * std::cos(angle)});
        }
        return arc;
    }

    void takeOut(const Ring& cut, EdgeKind edges, Region& outline) {
        if (edges != EdgeKind::Unsaid) out_.cutAways.push_back({{{cut}}, edges});
        outline = difference(outline, {{cut}});
    }

    /// A reading of a notch or step; says what is missing or not positive.
    std::optional<double> cutoutReading(const MaybeReading& reading, const char* what, const std::string& name,
                                        const Place& place, bool zeroAllowed) {
        if (!reading) {
            say(Severity::Warning, place, RemarkKind::CutoutIncomplete,
                {{"cutout", name}, {"reading", std::string(what)}});
            return std::nullopt;
        }
        const double mm = reading->length.value;
        if (!(mm >= 0) || (mm == 0 && !zeroAllowed)) {
            say(Severity::Error, place, RemarkKind::ReadingNotPositive,
                {{"reading", name + " " + what}, {"length", reading->length}});
            return std::nullopt;
        }
        return mm;
    }

    std::optional<Ring> notch(int index) {
        const Notch& n = m_.notches[static_cast<std::size_t>(index)];
        const Place place{"", Part::Notch, index};
        const auto position = cutoutReading(n.position, "position", n.name, place, true);
        const auto length = cutoutReading(n.length, "length", n.name, place, false);
        const auto depth = cutoutReading(n.depth, "depth", n.name, place, false);
        if (!position || !length || !depth) return std::nullopt;
        const auto line = sideLine(out_, n.side);
        if (!line) {
            say(Severity::Error, place, RemarkKind::CutoutSideCurved, {{"cutout", n.name}});
            return std::nullopt;
        }
        const double side = line->length();
        if (*position + *length > side + 1) {
            say(Severity::Error, place, RemarkKind::NotchOutside,
                {{"cutout", n.name}, {"length", Mm{*position + *length}}, {"limit", Mm{side}}});
            return std::nullopt;
        }
        double across = 0; // the surface's depth seen from this side
        for (const Point& p : out_.frame) across = std::max(across, dot(p - line->from, line->inward));
        if (*depth >= across) {
            say(Severity::Error, place, RemarkKind::NotchTooDeep,
                {{"cutout", n.name}, {"length", Mm{*depth}}, {"limit", Mm{across}}});
            return std::nullopt;
        }
        const Point u = (line->to - line->from) * (1 / side);
        // A margin outwards, so that nothing of the side is left standing in front of the notch.
        const Point out = line->inward * -1.0;
        const double begin = *position, finish = *position + *length;
        Ring cut = begin < 1 ? cornerEnd(n.side, *line, *depth, false)
                             : Ring{line->from + u * begin + out, line->from + u * begin + line->inward * *depth};
        const Ring last = finish > side - 1
                              ? cornerEnd(n.side, *line, *depth, true)
                              : Ring{line->from + u * finish + out, line->from + u * finish + line->inward * *depth};
        cut.insert(cut.end(), last.rbegin(), last.rend());
        if (signedArea(cut) < 0) std::reverse(cut.begin(), cut.end());
        return cut;
    }

    /// The end of a notch that reaches the end of its side, from the side up to its depth. Where the next side leans
    /// outwards the notch takes the lean with it; where the outline turns inwards the surface goes on beyond the end,
    /// and the notch does not.
    [[nodiscard]] Ring cornerEnd(int side, const SideLine& line, double depth, bool atTo) const {
        const std::size_t n = out_.sides.size(), k = static_cast<std::size_t>(side);
        const Point end = atTo ? line.to : line.from;
        Ring next = out_.sides[(k + 1) % n];
        if (distance(next.front(), end) > 1e-6) {
            next = out_.sides[(k + n - 1) % n];
            std::reverse(next.begin(), next.end());
        }
        const Point away = (atTo ? line.to - line.from : line.from - line.to) * (1 / line.length());
        const auto high = [&](Point p) { return dot(p - end, line.inward); };
        const auto beyond = [&](Point p) { return dot(p - end, away); };
        const Point out = line.inward * -1.0, up = line.inward * depth;
        if (next.size() < 2 || high(next[1]) <= 1e-9) return {end + out, end + up};
        Ring points{end + out + away};
        for (std::size_t i = 1; i < next.size() && high(next[i - 1]) < depth; ++i) {
            const double before = high(next[i - 1]), now = high(next[i]);
            if (now <= before || beyond(next[i]) < beyond(next[i - 1])) break; // it turns away again, or leans inwards
            const double part = std::min(1.0, (depth - before) / (now - before));
            points.push_back(next[i - 1] + (next[i] - next[i - 1]) * part + away);
        }
        points.push_back(end + away * beyond(points.back()) + up);
        return points;
    }

    std::optional<Ring> step(int index) {
        const Step& s = m_.steps[static_cast<std::size_t>(index)];
        const Place place{"", Part::Step, index};
        const auto along = cutoutReading(s.along, "along", s.name, place, false);
        const auto across = cutoutReading(s.across, "across", s.name, place, false);
        const int n = static_cast<int>(out_.sides.size());
        if (!along || !across || s.corner < 0 || s.corner >= n) return std::nullopt;
        const Ring& after = out_.sides[static_cast<std::size_t>(s.corner)];
        const Ring& before = out_.sides[static_cast<std::size_t>((s.corner + n - 1) % n)];
        if (after.size() != 2 || before.size() != 2) {
            say(Severity::Error, place, RemarkKind::CutoutSideCurved, {{"cutout", s.name}});
            return std::nullopt;
        }
        const Point corner = after.front(), next = after.back(), last = before.front();
        const bool nextRunsAlong = std::abs(next.x - corner.x) * distance(corner, last) >=
                                   std::abs(last.x - corner.x) * distance(corner, next);
        const Point alongEnd = nextRunsAlong ? next : last;
        const Point acrossEnd = nextRunsAlong ? last : next;
        const double alongSide = distance(corner, alongEnd);
        const double acrossSide = distance(corner, acrossEnd);
        if (*along >= alongSide || *across >= acrossSide) {
            const bool first = *along >= alongSide;
            say(Severity::Error, place, RemarkKind::StepOutside,
                {{"cutout", s.name},
                 {"length", Mm{first ? *along : *across}},
                 {"limit", Mm{first ? alongSide : acrossSide}}});
            return std::nullopt;
        }
        const Point u = (alongEnd - corner) * (1 / alongSide);
        const Point v = (acrossEnd - corner) * (1 / acrossSide);
        Ring cut{corner - u - v, corner + u * *along - v, corner + u * *along + v * *across, corner - u + v * *across};
        if (signedArea(cut) < 0) std::reverse(cut.begin(), cut.end());
        return cut;
    }

    const Measurement& m_;
    MeasuredOutline& out_;
};

} // namespace

std::optional<SideLine> sideLine(const MeasuredOutline& outline, int side) {
    if (side < 0 || side >= static_cast<int>(outline.sides.size())) return std::nullopt;
    const Ring& points = outline.sides[static_cast<std::size_t>(side)];
    if (points.size() != 2 || distance(points[0], points[1]) < 1e-6) return std::nullopt;
    SideLine line{points[0], points[1], {}};
    const Point u = (line.to - line.from) * (1 / line.length());
    line.inward = {-u.y, u.x}; // the frame runs counter-clockwise: inside is to the left
    const bool runsAlong = std::abs(u.x) >= std::abs(u.y);
    if (runsAlong ? u.x < 0 : u.y < 0) std::swap(line.from, line.to);
    return line;
}

SideLine lowerEdge(const MeasuredOutline& outline) {
    const Bounds b = boundsOf(outline.frame);
    const Ring* base = nullptr;
    const auto runsThere = [](const Ring& side) {
        return side.size() == 2 && side[1].x - side[0].x > 1e-6 &&
               side[1].x - side[0].x >= std::abs(side[1].y - side[0].y);
    };
    const auto level = [](const Ring& side) { return (side[0].y + side[1].y) / 2; };
    for (const Ring& side : outline.sides)
        if (runsThere(side) && (!base || level(side) < level(*base) - 1)) base = &side;
    if (!base) return {b.low, {b.high.x, b.low.y}, {0, 1}};
    if (const Ring& first = outline.sides.front(); runsThere(first) && level(first) <= level(*base) + b.height() / 4)
        base = &first;
    SideLine line{(*base)[0], (*base)[1], {}};
    const Point u = (line.to - line.from) * (1 / line.length());
    line.inward = {-u.y, u.x};
    constexpr double inLine = 2;
    for (const Ring& side : outline.sides) {
        if (!runsThere(side)) continue;
        if (std::abs(dot(side[0] - line.from, line.inward)) > inLine ||
            std::abs(dot(side[1] - line.from, line.inward)) > inLine)
            continue;
        if (side[0].x < line.from.x) line.from = side[0];
        if (side[1].x > line.to.x) line.to = side[1];
    }
    return line;
}

void cutOutline(const Measurement& measurement, MeasuredOutline& out) { Cutter(measurement, out).run(); }

} // namespace westrum
