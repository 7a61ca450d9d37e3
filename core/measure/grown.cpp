#include "core/measure/grown.h"

#include "core/geometry/side_offset.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Whether a piece of outline lies on a side.
bool liesOn(Point a, Point b, const Ring& side) {
    constexpr double kOff = 0.05; // mm
    const Point middle = (a + b) * 0.5;
    for (std::size_t k = 1; k < side.size(); ++k) {
        const Point way = side[k] - side[k - 1];
        const double length = distance(side[k - 1], side[k]);
        if (length < 1e-9) continue;
        const double on = dot(middle - side[k - 1], way) / length;
        if (on > -kOff && on < length + kOff && std::abs(cross(way, middle - side[k - 1])) / length < kOff &&
            std::abs(cross(way, b - a)) / length < kOff)
            return true;
    }
    return false;
}

} // namespace

std::optional<GrownOutline> grownOutline(const MeasuredOutline& measured, std::span<const double> bySide, double rest) {
    Ring ring;
    for (const Point& p : measured.outline.rings.front())
        if (ring.empty() || distance(ring.back(), p) > 0.02) ring.push_back(p);
    while (ring.size() > 1 && distance(ring.back(), ring.front()) <= 0.02) ring.pop_back();
    std::vector<double> inwards;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        double by = rest;
        for (std::size_t k = 0; k < measured.sides.size() && k < bySide.size(); ++k)
            if (liesOn(ring[i], ring[(i + 1) % ring.size()], measured.sides[k])) by = bySide[k];
        inwards.push_back(-by);
    }
    Ring grown = sidesMoved(ring, inwards);
    for (std::size_t i = 0; i < ring.size(); ++i) // an edge that turned round is one that vanished
        if (dot(grown[(i + 1) % ring.size()] - grown[i], ring[(i + 1) % ring.size()] - ring[i]) <= 0)
            return std::nullopt;
    if (signedArea(grown) < 100 || crossesItself(grown)) return std::nullopt;
    const Bounds b = boundsOf(grown);
    for (Point& p : grown) p = p - b.low;
    return GrownOutline{std::move(grown), b.low * -1.0};
}

} // namespace westrum
