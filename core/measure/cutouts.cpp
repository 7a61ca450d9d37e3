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
            if (const auto cut = notch(static_cast<int>(i))) outline = difference(outline, {{*cut}});
        for (std::size_t i = 0; i < m_.steps.size(); ++i)
            if (const auto cut = step(static_cast<int>(i))) outline = difference(outline, {{*cut}});
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

    /// The frame with its corners rounded to their radii; a radius too large for its sides is said and left out.
    Ring rounded() {
        const std::size_t n = out_.sides.size();
        Ring ring;
        for (std::size_t k = 0; k < n; ++k) {
            const Ring& before = out_.sides[(k + n - 1) % n];
            const Ring& after = out_.sides[k];
            const MaybeReading* radius = k < m_.cornerRadii.size() ? &m_.cornerRadii[k] : nullptr;
            const auto arc = radius && *radius ? cornerArc(before, after, (*radius)->length.value, static_cast<int>(k))
                                               : std::optional<Ring>();
            if (arc)
                ring.insert(ring.end(), arc->begin(), arc->end());
            else
                ring.push_back(after.front());
            // Points within a curved side.
            for (std::size_t i = 1; i + 1 < after.size(); ++i) ring.push_back(after[i]);
        }
        Ring clean;
        for (const Point& p : ring)
            if (clean.empty() || distance(clean.back(), p) > 1e-9) clean.push_back(p);
        while (clean.size() > 1 && distance(clean.back(), clean.front()) <= 1e-9) clean.pop_back();
        return clean;
    }

    std::optional<Ring> cornerArc(const Ring& before, const Ring& after, double radius, int corner) {
        Place place{"", Part::Reading};
        place.key = readingKey('R', corner);
        if (!(radius >= 0)) {
            say(Severity::Error, place, RemarkKind::ReadingNotPositive,
                {{"reading", place.key}, {"length", Mm{radius}}});
            return std::nullopt;
        }
        if (radius == 0 || before.size() != 2 || after.size() != 2) return std::nullopt;
        const Point p = after.front();
        const double a = distance(before.front(), p), b = distance(p, after.back());
        const Point in = (p - before.front()) * (1 / a), on = (after.back() - p) * (1 / b);
        const double turn = std::atan2(cross(in, on), dot(in, on)); // > 0 at an outer corner
        const double tangent = radius * std::tan(std::abs(turn) / 2);
        if (std::abs(turn) < 1e-6) return std::nullopt;
        if (tangent > a / 2 + 0.5 || tangent > b / 2 + 0.5) {
            const double most = std::min(a, b) / 2 / std::tan(std::abs(turn) / 2);
            say(Severity::Error, place, RemarkKind::RadiusTooLarge,
                {{"reading", place.key}, {"length", Mm{radius}}, {"limit", Mm{most}}});
            return std::nullopt;
        }
        const double side = turn > 0 ? 1 : -1;
        const Point start = p - in * tangent;
        const Point centre = start + Point{-in.y, in.x} * (side * radius);
        // 0.05 mm off the true arc at most.
        const double step = 2 * std::acos(std::max(0.0, 1 - 0.05 / std::max(radius, 0.05)));
        const int pieces = std::max(2, static_cast<int>(std::ceil(std::abs(turn) / std::max(step, 0.01))));
        Ring arc;
        const Point spoke = start - centre;
        for (int i = 0; i <= pieces; ++i) {
            const double angle = turn * i / pieces;
            arc.push_back(centre + Point{spoke.x * std::cos(angle) - spoke.y * std::sin(angle),
                                         spoke.x * std::sin(angle) + spoke.y * std::cos(angle)});
        }
        return arc;
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
        // At a corner that is not square the notch takes the corner's lean with it.
        constexpr double lean = 200;
        const Point from = line->from + u * (*position < 1 ? -lean : *position);
        const Point to = line->from + u * (*position + *length > side - 1 ? side + lean : *position + *length);
        const Point out = line->inward * -1.0;
        Ring cut{from + out, to + out, to + line->inward * *depth, from + line->inward * *depth};
        if (signedArea(cut) < 0) std::reverse(cut.begin(), cut.end());
        return cut;
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

void cutOutline(const Measurement& measurement, MeasuredOutline& out) { Cutter(measurement, out).run(); }

} // namespace westrum
