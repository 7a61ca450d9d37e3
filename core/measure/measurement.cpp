#include "core/measure/measurement.h"

#include "core/measure/cutouts.h"
#include "core/measure/frames.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr std::array<const char*, kQuadReadings> kQuadKeys{"AB", "BC", "CD", "DA", "AC", "BD"};

double distanceToSegment(Point p, Point a, Point b) {
    const Point ab = b - a;
    const double t = std::clamp(dot(p - a, ab) / std::max(1e-12, dot(ab, ab)), 0.0, 1.0);
    return distance(p, a + ab * t);
}

bool isCurved(const Measurement& m) { return m.curve.curving != Curving::Flat; }

} // namespace

bool Measurement::empty() const {
    const auto read = [](const MaybeReading& r) { return r.has_value(); };
    switch (form) {
    case OutlineForm::Rectangle:
        return std::none_of(readings.begin(), readings.begin() + 2, read) &&
               (curve.curving == Curving::Flat ||
                std::none_of(curve.parts.begin(), curve.parts.end(), [](const auto& p) { return p.length || p.rise; }));
    case OutlineForm::FourSides: return std::none_of(readings.begin(), readings.end(), read);
    case OutlineForm::Polygon:
        return std::none_of(polygon.sides.begin(), polygon.sides.end(), read) &&
               std::none_of(polygon.diagonals.begin(), polygon.diagonals.end(),
                            [](const auto& d) { return d.length.has_value(); });
    case OutlineForm::Stations:
        return std::none_of(stations.rows.begin(), stations.rows.end(),
                            [](const auto& r) { return r.at || r.offset || r.other; });
    case OutlineForm::TwoPoint:
        return !fixedPoints.base && std::none_of(fixedPoints.rows.begin(), fixedPoints.rows.end(),
                                                 [](const auto& r) { return r.fromA || r.fromB; });
    case OutlineForm::Drawn: return drawn.empty();
    }
    return true;
}

Ring drawnOutline(const Ring& ring, double tolerance) {
    if (ring.size() < 3) return {};
    Ring out = ring;
    if (signedArea(out) < 0) std::reverse(out.begin(), out.end());
    const auto lowest = std::min_element(out.begin(), out.end(), [](Point a, Point b) {
        return a.x + a.y != b.x + b.y ? a.x + a.y < b.x + b.y : a < b;
    });
    std::rotate(out.begin(), lowest, out.end());
    // Loosened until it is short enough: a flattened curve need not keep every point.
    for (;; tolerance *= 2) {
        // A corner goes when it and all that went since the last one kept lie near the line to the next.
        constexpr std::size_t longestRun = 200;
        Ring kept{out.front()};
        std::size_t anchor = 0;
        for (std::size_t i = 1; i < out.size(); ++i) {
            const Point from = out[anchor], to = out[(i + 1) % out.size()];
            bool needed = i - anchor > longestRun;
            for (std::size_t k = anchor + 1; k <= i && !needed; ++k)
                needed = distanceToSegment(out[k], from, to) > tolerance;
            if (!needed) continue;
            kept.push_back(out[i]);
            anchor = i;
        }
        if (kept.size() >= 3) out = std::move(kept);
        if (out.size() <= kMostDrawnCorners) break;
    }
    const Bounds b = boundsOf(out);
    for (Point& p : out) p = p - b.low;
    return out;
}

namespace {

double turnOf(const Ring& ring, std::size_t i) {
    const std::size_t n = ring.size();
    const Point in = ring[i] - ring[(i + n - 1) % n], on = ring[(i + 1) % n] - ring[i];
    return std::abs(std::atan2(cross(in, on), dot(in, on)));
}

/// Whether the step from corner i to the next is a straight side rather than one chord of a flattened curve: were it a
/// chord, the curve would stand off it by far more than any drawing is flattened by.
bool isStraightSide(const Ring& ring, std::size_t i) {
    constexpr double flattenedMm = 0.4, coarseMm = 8, longMm = 100;
    const std::size_t n = ring.size();
    const auto step = [&](std::size_t k) { return distance(ring[k % n], ring[(k + 1) % n]); };
    const double own = step(i);
    for (const auto& [corner, neighbour] : {std::pair{i, step(i + n - 1)}, std::pair{(i + 1) % n, step(i + 1)}}) {
        const double off = own * own * turnOf(ring, corner) / (4 * (own + neighbour));
        if ((off > flattenedMm && own > 3 * neighbour) || (off > coarseMm && own > longMm)) return true;
    }
    return false;
}

} // namespace

std::vector<Ring> drawnSides(const Ring& drawn) {
    constexpr double least = 20 * std::numbers::pi / 180;
    const std::size_t n = drawn.size();
    std::vector<std::pair<double, std::size_t>> turns;
    for (std::size_t i = 0; i < n; ++i) {
        // Where a straight side goes over into a curve it ends, however little it turns there.
        const bool ends = isStraightSide(drawn, i) || isStraightSide(drawn, (i + n - 1) % n);
        const double turn = turnOf(drawn, i);
        turns.emplace_back(ends ? std::max(turn, least * 1.01) : turn, i);
    }
    std::stable_sort(turns.begin(), turns.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<std::size_t> corners;
    for (const auto& [turn, i] : turns)
        if (corners.size() < 3 || (turn > least && corners.size() < kMostDrawnSides)) corners.push_back(i);
    std::sort(corners.begin(), corners.end());
    std::vector<Ring> sides;
    for (std::size_t k = 0; k < corners.size(); ++k) {
        Ring side;
        const std::size_t last = corners[(k + 1) % corners.size()];
        for (std::size_t i = corners[k];; i = (i + 1) % n) {
            side.push_back(drawn[i]);
            if (i == last && side.size() > 1) break;
        }
        sides.push_back(std::move(side));
    }
    return sides;
}

Mm MeasuredOutline::sideLength(int side) const {
    if (side < 0 || side >= static_cast<int>(sides.size())) return {};
    const Ring& line = sides[static_cast<std::size_t>(side)];
    double sum = 0;
    for (std::size_t i = 1; i < line.size(); ++i) sum += distance(line[i - 1], line[i]);
    return {sum};
}

std::string readingKey(QuadReading reading) { return kQuadKeys[static_cast<std::size_t>(reading)]; }

std::string readingKey(char kind, int index) { return kind + std::to_string(index); }

MaybeReading* findReading(Measurement& m, std::string_view key) {
    for (std::size_t k = 0; k < kQuadKeys.size(); ++k)
        if (key == kQuadKeys[k]) return &m.readings[k];
    if (key == "base") return &m.fixedPoints.base;
    if (key == "chord2") return &m.curve.alongChord;
    if (key == "rise2") return &m.curve.alongRise;
    if (key.size() < 2) return nullptr;
    std::size_t i = 0;
    const auto [end, error] = std::from_chars(key.data() + 1, key.data() + key.size(), i);
    if (error != std::errc() || end != key.data() + key.size()) return nullptr;
    const auto within = [i](auto& list) { return i < list.size(); };
    switch (key.front()) {
    case 'S': return within(m.polygon.sides) ? &m.polygon.sides[i] : nullptr;
    case 'D': return within(m.polygon.diagonals) ? &m.polygon.diagonals[i].length : nullptr;
    case 'x': return within(m.stations.rows) ? &m.stations.rows[i].at : nullptr;
    case 'y': return within(m.stations.rows) ? &m.stations.rows[i].offset : nullptr;
    case 'z': return within(m.stations.rows) ? &m.stations.rows[i].other : nullptr;
    case 'a': return within(m.fixedPoints.rows) ? &m.fixedPoints.rows[i].fromA : nullptr;
    case 'b': return within(m.fixedPoints.rows) ? &m.fixedPoints.rows[i].fromB : nullptr;
    case 'p': return within(m.curve.parts) ? &m.curve.parts[i].length : nullptr;
    case 'h': return within(m.curve.parts) ? &m.curve.parts[i].rise : nullptr;
    case 'R': return within(m.cornerRadii) ? &m.cornerRadii[i] : nullptr;
    default: return nullptr;
    }
}

std::vector<std::string> readingKeys(const Measurement& m) {
    std::vector<std::string> keys;
    const auto each = [&](char kind, std::size_t count) {
        for (std::size_t i = 0; i < count; ++i) keys.push_back(readingKey(kind, static_cast<int>(i)));
    };
    switch (m.form) {
    case OutlineForm::Rectangle: keys = {"AB", "BC"}; break;
    case OutlineForm::FourSides: keys.assign(kQuadKeys.begin(), kQuadKeys.end()); break;
    case OutlineForm::Polygon:
        each('S', m.polygon.sides.size());
        each('D', m.polygon.diagonals.size());
        break;
    case OutlineForm::Stations:
        for (std::size_t i = 0; i < m.stations.rows.size(); ++i)
            for (const char kind : {'x', 'y', 'z'})
                if (kind != 'z' || m.stations.bothSides) keys.push_back(readingKey(kind, static_cast<int>(i)));
        break;
    case OutlineForm::TwoPoint:
        keys.emplace_back("base");
        for (std::size_t i = 0; i < m.fixedPoints.rows.size(); ++i)
            for (const char kind : {'a', 'b'}) keys.push_back(readingKey(kind, static_cast<int>(i)));
        break;
    case OutlineForm::Drawn: break;
    }
    if (isCurved(m))
        for (std::size_t i = 0; i < m.curve.parts.size(); ++i)
            for (const char kind : {'p', 'h'}) keys.push_back(readingKey(kind, static_cast<int>(i)));
    if (m.curve.curving == Curving::Double) keys.insert(keys.end(), {"chord2", "rise2"});
    each('R', m.cornerRadii.size());
    return keys;
}

MeasuredOutline outlineOf(const Measurement& measurement) {
    MeasuredOutline out = frameOf(measurement);
    if (out.frame.empty()) return out;
    const Bounds b = boundsOf(out.frame);
    addCurvature(measurement, {b.width()}, {b.height()}, out);
    cutOutline(measurement, out);
    return out;
}

} // namespace westrum
