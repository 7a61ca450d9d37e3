#include "core/shell/sketch.h"

#include "core/measure/cutouts.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

/// Where a cut-out is not yet measured it is drawn as if it were this size.
constexpr double kGuessAlong = 700, kGuessDeep = 220;

double mmOf(const MaybeReading& reading, double otherwise) {
    return reading && reading->length.value > 0 && reading->length.value <= kLongestSideMm ? reading->length.value
                                                                                           : otherwise;
}

std::string letterOf(int side) { return std::string(1, static_cast<char>('a' + side % 26)); }

class Sketcher {
public:
    Sketcher(const Surface& s, const MeasuredOutline& m, const SketchParts& parts)
        : s_(s), m_(s.measurement), measured_(m), parts_(parts) {}

    Sketch run() {
        out_.measured = !measured_.frame.empty();
        if (out_.measured) {
            out_.frame = measured_.frame;
            out_.sides = measured_.sides;
            out_.fixedA = measured_.fixedA;
            out_.fixedB = measured_.fixedB;
        } else {
            guess();
        }
        switch (m_.form) {
        case OutlineForm::Rectangle:
            side("AB", 0);
            side("BC", 1);
            break;
        case OutlineForm::FourSides:
            for (int k = 0; k < 4; ++k) side(readingKey(static_cast<QuadReading>(k)), k);
            slot("AC", "e", SlotKind::Diagonal, corner(0), corner(2));
            slot("BD", "f", SlotKind::Diagonal, corner(1), corner(3));
            break;
        case OutlineForm::Polygon: polygon(); break;
        case OutlineForm::Stations: stations(); break;
        case OutlineForm::TwoPoint: twoPoint(); break;
        case OutlineForm::Drawn: break;
        }
        if (parts_.cutouts) {
            for (std::size_t i = 0; i < m_.notches.size(); ++i) notch(static_cast<int>(i));
            for (std::size_t i = 0; i < m_.steps.size(); ++i) step(static_cast<int>(i));
        }
        if (parts_.opening >= 0 && parts_.opening < static_cast<int>(s_.openings.size())) opening(parts_.opening);
        if (parts_.zone >= 0 && parts_.zone < static_cast<int>(s_.zones.size())) {
            const Zone& z = s_.zones[static_cast<std::size_t>(parts_.zone)];
            box('z', parts_.zone, z.place, mmOf(z.width, kGuessAlong), mmOf(z.height, kGuessDeep), true, true);
        }
        if (parts_.support >= 0 && parts_.support < static_cast<int>(s_.supports.size())) support(parts_.support);
        return std::move(out_);
    }

private:
    void slot(std::string key, std::string letter, SlotKind kind, Point from, Point to) {
        out_.places.push_back({std::move(key), std::move(letter), kind, from, to});
    }
    [[nodiscard]] Point corner(int k) const {
        const int n = static_cast<int>(out_.sides.size());
        return n == 0 ? Point{} : out_.sides[static_cast<std::size_t>(k % n)].front();
    }
    void side(const std::string& key, int k) {
        if (k >= static_cast<int>(out_.sides.size())) return;
        const Ring& line = out_.sides[static_cast<std::size_t>(k)];
        slot(key, letterOf(k), SlotKind::Side, line.front(), line.back());
    }

    /// A frame of about the right kind, from what has been read and from the ghost.
    void guess() {
        const double length = std::max(50.0, s_.ghostLength.value), height = std::max(50.0, s_.ghostHeight.value);
        Ring ring;
        if (m_.form == OutlineForm::Polygon) {
            // Points round an ellipse in the ghost, the first side level at the foot.
            const int n = std::max(3, static_cast<int>(m_.polygon.sides.size()));
            for (int k = 0; k < n; ++k) {
                const double angle = 2 * std::numbers::pi * (k - 0.5) / n - std::numbers::pi / 2;
                ring.push_back({length / 2 * (1 + std::cos(angle)), height / 2 * (1 + std::sin(angle))});
            }
        } else {
            const auto read = [&](QuadReading r, double otherwise) {
                return mmOf(m_.readings[static_cast<std::size_t>(r)], otherwise);
            };
            const bool quad = m_.form == OutlineForm::Rectangle || m_.form == OutlineForm::FourSides;
            const double w = quad ? read(QuadReading::AB, read(QuadReading::CD, length)) : length;
            const double h = quad ? read(QuadReading::BC, read(QuadReading::DA, height)) : height;
            ring = {{0, 0}, {w, 0}, {w, h}, {0, h}};
        }
        out_.frame = ring;
        for (std::size_t k = 0; k < ring.size(); ++k) out_.sides.push_back({ring[k], ring[(k + 1) % ring.size()]});
        if (m_.form == OutlineForm::TwoPoint) {
            out_.fixedA = {length * 0.1, 0};
            out_.fixedB = {length * 0.1 + mmOf(m_.fixedPoints.base, length * 0.8), 0};
        }
    }

    void polygon() {
        for (int k = 0; k < static_cast<int>(m_.polygon.sides.size()); ++k) side(readingKey('S', k), k);
        for (std::size_t d = 0; d < m_.polygon.diagonals.size(); ++d) {
            const auto& diagonal = m_.polygon.diagonals[d];
            slot(readingKey('D', static_cast<int>(d)), std::to_string(d + 1), SlotKind::Diagonal, corner(diagonal.from),
                 corner(diagonal.to));
        }
    }

    void stations() {
        const auto& rows = m_.stations.rows;
        if (rows.size() > kMostStationsDrawn) return;
        const Bounds b = boundsOf(out_.frame);
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const int k = static_cast<int>(i);
            const double guess = b.low.x + b.width() * static_cast<double>(i) / static_cast<double>(rows.size() - 1);
            const double x = rows[i].at ? rows[i].at->length.value : guess;
            const double y = mmOf(rows[i].offset, rows[i].offset ? 0 : b.height());
            const std::string number = std::to_string(i + 1);
            slot(readingKey('x', k), number, SlotKind::Station, {x, std::min(0.0, b.low.y)}, {x, 0});
            slot(readingKey('y', k), {}, SlotKind::Offset, {x, 0}, {x, y});
            if (m_.stations.bothSides)
                slot(readingKey('z', k), {}, SlotKind::Offset, {x, 0}, {x, -mmOf(rows[i].other, b.height() / 2)});
        }
    }

    void twoPoint() {
        slot("base", "A–B", SlotKind::Tape, out_.fixedA, out_.fixedB);
        const auto& rows = m_.fixedPoints.rows;
        const Bounds b = boundsOf(out_.frame);
        // Corners that are read lie where they are; the rest round the ghost.
        const bool drawn = out_.measured;
        std::size_t corner = 0;
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const int k = static_cast<int>(i);
            Point at;
            const double base = distance(out_.fixedA, out_.fixedB);
            if (drawn && rows[i].fromA && rows[i].fromB) {
                const double a = rows[i].fromA->length.value, c = rows[i].fromB->length.value;
                const double x = (a * a - c * c + base * base) / (2 * base);
                at = out_.fixedA + Point{x, std::sqrt(std::max(0.0, a * a - x * x)) * (rows[i].below ? -1 : 1)};
            } else {
                const Point ghost[4] = {b.low, {b.high.x, b.low.y}, b.high, {b.low.x, b.high.y}};
                at = ghost[corner % 4] * 0.9 + (b.low + b.high) * 0.05;
            }
            ++corner;
            if (rows.size() > 6) continue; // the table holds them
            slot(readingKey('a', k), std::to_string(i + 1), SlotKind::Tape, out_.fixedA, at);
            slot(readingKey('b', k), std::to_string(i + 1), SlotKind::Tape, out_.fixedB, at);
        }
    }

    [[nodiscard]] std::optional<SideLine> line(int k) const {
        MeasuredOutline drawn;
        drawn.sides = out_.sides;
        return sideLine(drawn, k);
    }

    void notch(int i) {
        const Notch& n = m_.notches[static_cast<std::size_t>(i)];
        const auto l = line(n.side);
        if (!l) return;
        const Point u = (l->to - l->from) * (1 / std::max(1.0, l->length()));
        const double from = mmOf(n.position, 0), along = mmOf(n.length, kGuessAlong), deep = mmOf(n.depth, kGuessDeep);
        const auto at = [&](double x, double y) { return l->from + u * x + l->inward * y; };
        const std::string key = "n" + std::to_string(i);
        slot(key + ".position", {}, SlotKind::Small, at(0, deep / 2), at(from, deep / 2));
        // Length and depth share the bay of the notch.
        slot(key + ".length", {}, SlotKind::Small, at(from, deep / 2), at(from + along * 0.54, deep / 2));
        slot(key + ".depth", {}, SlotKind::Small, at(from + along * 0.75, 0), at(from + along * 0.75, deep));
    }

    void step(int i) {
        const Step& s = m_.steps[static_cast<std::size_t>(i)];
        const int n = static_cast<int>(out_.sides.size());
        if (s.corner < 0 || s.corner >= n) return;
        const Point c = corner(s.corner), next = corner(s.corner + 1), last = corner(s.corner + n - 1);
        const bool nextRunsAlong =
            std::abs(next.x - c.x) * distance(c, last) >= std::abs(last.x - c.x) * distance(c, next);
        const Point alongEnd = nextRunsAlong ? next : last, acrossEnd = nextRunsAlong ? last : next;
        const Point u = (alongEnd - c) * (mmOf(s.along, kGuessAlong) / std::max(1.0, distance(c, alongEnd)));
        const Point v = (acrossEnd - c) * (mmOf(s.across, kGuessDeep) / std::max(1.0, distance(c, acrossEnd)));
        const std::string key = "s" + std::to_string(i);
        slot(key + ".along", {}, SlotKind::Small, c + u * 0.48 + v * 0.5, c + u + v * 0.5);
        slot(key + ".across", {}, SlotKind::Small, c + u * 0.25, c + u * 0.25 + v);
    }

    /// Position and size of a box placed from two sides.
    void box(char kind, int i, const Placement& place, double width, double height, bool hasWidth, bool hasHeight) {
        MeasuredOutline drawn;
        drawn.sides = out_.sides;
        drawn.frame = out_.frame;
        Placement guessed = place;
        if (!guessed.fromSide) guessed.fromSide = Reading{{}, {boundsOf(out_.frame).height() * 0.3}};
        if (!guessed.fromCross) guessed.fromCross = Reading{{}, {boundsOf(out_.frame).width() * 0.3}};
        const auto ring = placedBox(guessed, width, height, drawn);
        const auto l = line(place.side);
        if (!ring || !l) return;
        const std::string key = kind + std::to_string(i);
        const Point centre = ((*ring)[0] + (*ring)[2]) * 0.5;
        const double half = place.toCentre ? 0 : 0.5;
        const Point v = l->inward;
        const Point low = centre - v * (half * height);
        const double up = dot(low - l->from, v);
        const Point foot = *crossFoot(guessed, centre, drawn);
        const double reach = std::max(1e-9, distance(foot, centre));
        slot(key + ".cross", {}, SlotKind::Small, foot, centre + (foot - centre) * (half * width / reach));
        slot(key + ".side", {}, SlotKind::Small, low - v * up, low);
        const Point a = (*ring)[0], b = (*ring)[1], d = (*ring)[3];
        if (hasWidth)
            slot(key + ".width", {}, SlotKind::Small, (a + d) * 0.5 + v * (height * 0.25),
                 (b + (*ring)[2]) * 0.5 + v * (height * 0.25));
        if (hasHeight) slot(key + ".height", {}, SlotKind::Small, a + (b - a) * 0.5, a + (b - a) * 0.5 + (d - a) * 0.5);
    }

    void opening(int i) {
        const Opening& o = s_.openings[static_cast<std::size_t>(i)];
        double width = mmOf(o.width, 400), height = o.shape == OpeningShape::Round ? width : mmOf(o.height, 300);
        if (o.shape == OpeningShape::Polygon) {
            Ring ring;
            for (const Opening::Corner& c : o.corners)
                if (c.along && c.across) ring.push_back({c.along->length.value, c.across->length.value});
            if (ring.size() > 2) {
                width = std::max(1.0, boundsOf(ring).width());
                height = std::max(1.0, boundsOf(ring).height());
            }
        }
        box('o', i, o.place, width, height, o.shape != OpeningShape::Polygon, o.shape == OpeningShape::Rectangle);
    }

    void support(int i) {
        const Support& u = s_.supports[static_cast<std::size_t>(i)];
        const Bounds b = boundsOf(out_.frame);
        MeasuredOutline drawn;
        drawn.sides = out_.sides;
        drawn.frame = out_.frame;
        const Point from = lowerEdge(drawn).from;
        const double at = mmOf(u.position, (u.along ? b.height() : b.width()) * 0.3);
        const std::string key = "u" + std::to_string(i);
        if (u.along) {
            const double x = b.low.x + b.width() * 0.7;
            slot(key + ".position", {}, SlotKind::Small, {x, from.y}, {x, from.y + at});
            return;
        }
        // Over the middle where the end stands plumb there, else down where the distance is meant.
        double y = b.low.y + b.height() * 0.7;
        const Region whole{{out_.frame}};
        if (!contains(whole, {from.x + 2, y}) || contains(whole, {from.x - 2, y})) y = from.y + b.height() * 0.05;
        slot(key + ".position", {}, SlotKind::Small, {from.x, y}, {from.x + at, y});
    }

    const Surface& s_;
    const Measurement& m_;
    const MeasuredOutline& measured_;
    const SketchParts& parts_;
    Sketch out_;
};

} // namespace

Sketch sketchOf(const Surface& surface, const MeasuredOutline& measured, const SketchParts& parts) {
    return Sketcher(surface, measured, parts).run();
}

} // namespace westrum
