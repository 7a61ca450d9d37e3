#include "core/setout/cushion_edges.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kCornerRad = 20 * std::numbers::pi / 180;
constexpr double kLeastBorder = 5; // mm: shorter edges go with their neighbour

/// The stretch of a ring that begins at a corner of it and is so long.
CushionEdge edgeFrom(const Ring& ring, std::size_t first, double length) {
    CushionEdge s{ring[first], ring[first], length};
    double walked = 0;
    const std::size_t n = ring.size();
    for (std::size_t k = 0; k < n && walked < length - 1e-9; ++k) {
        const Point a = ring[(first + k) % n], b = ring[(first + k + 1) % n];
        const double l = distance(a, b);
        if (l < 1e-9) continue;
        const Point u = (b - a) * (1 / l);
        if (walked <= length / 2 && walked + l >= length / 2) {
            s.middle = a + u * (length / 2 - walked);
            s.facing = {u.y, -u.x};
        }
        s.to = walked + l > length ? a + u * (length - walked) : b;
        walked += l;
    }
    return s;
}

/// A ring that bends all the way: where it looks most to a side its first half has its middle, the other half follows.
std::vector<CushionEdge> halvesOf(Ring ring, Point way) {
    const auto ahead =
        std::max_element(ring.begin(), ring.end(), [&](Point a, Point b) { return dot(a, way) < dot(b, way) - 1e-9; });
    const double all = perimeter(ring);
    // A quarter of the way back from there the first half begins: a corner is put in.
    std::rotate(ring.begin(), ahead, ring.end());
    double back = all / 4;
    for (std::size_t k = ring.size(); k-- > 0;) {
        const Point b = ring[(k + 1) % ring.size()], a = ring[k];
        const double l = distance(a, b);
        if (l < back) {
            back -= l;
            continue;
        }
        const Point start = b + (a - b) * (back / std::max(1e-9, l));
        ring.insert(ring.begin() + static_cast<std::ptrdiff_t>(k) + 1, start);
        std::rotate(ring.begin(), ring.begin() + static_cast<std::ptrdiff_t>(k) + 1, ring.end());
        break;
    }
    CushionEdge first = edgeFrom(ring, 0, all / 2);
    Ring reversed(ring.rbegin(), ring.rend()); // the other half, walked backwards from the same corner
    std::rotate(reversed.begin(), reversed.end() - 1, reversed.end());
    CushionEdge second = edgeFrom(reversed, 0, all / 2);
    std::swap(second.from, second.to);
    second.facing = second.facing * -1;
    return {first, second};
}

} // namespace

std::vector<CushionEdge> cushionEdges(const Ring& ring, std::optional<Point> way) {
    const std::size_t n = ring.size();
    const auto corner = [&](std::size_t i) {
        const Point in = ring[i] - ring[(i + n - 1) % n], out = ring[(i + 1) % n] - ring[i];
        return std::abs(std::atan2(cross(in, out), dot(in, out))) > kCornerRad;
    };
    std::size_t first = 0;
    while (first < n && !corner(first)) ++first;
    std::vector<CushionEdge> all;
    if (first == n) return way ? halvesOf(ring, *way) : std::vector<CushionEdge>{edgeFrom(ring, 0, perimeter(ring))};
    for (std::size_t k = 0; k < n; ++k) {
        const std::size_t i = (first + k) % n;
        if (!corner(i)) continue;
        double length = 0;
        std::size_t j = i;
        do {
            length += distance(ring[j], ring[(j + 1) % n]);
            j = (j + 1) % n;
        } while (!corner(j));
        all.push_back(edgeFrom(ring, i, length));
    }
    std::erase_if(all, [](const CushionEdge& s) { return s.length < kLeastBorder; });
    return all;
}

} // namespace westrum
