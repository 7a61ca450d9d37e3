#include "core/geometry/polygon.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <numbers>

namespace westrum {

double distance(Point a, Point b) { return std::hypot(b.x - a.x, b.y - a.y); }
double cross(Point a, Point b) { return a.x * b.y - a.y * b.x; }
double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }

double signedArea(const Ring& ring) {
    double twice = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) twice += cross(ring[i], ring[(i + 1) % ring.size()]);
    return twice / 2;
}

double areaMm2(const Region& region) {
    double sum = 0;
    for (const Ring& ring : region.rings) sum += signedArea(ring);
    return sum;
}

Point centroid(const Region& region) {
    // About the first corner, so that far-off outlines lose no digits.
    const Point o = region.rings.front().front();
    Point sum;
    double area = 0;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i] - o, b = ring[(i + 1) % ring.size()] - o;
            const double c = cross(a, b) / 2;
            area += c;
            sum = sum + (a + b) * (c / 3);
        }
    return o + sum * (1 / area);
}

Bounds boundsOf(const Ring& ring) {
    assert(!ring.empty());
    Bounds b{ring.front(), ring.front()};
    for (Point p : ring) {
        b.low = {std::min(b.low.x, p.x), std::min(b.low.y, p.y)};
        b.high = {std::max(b.high.x, p.x), std::max(b.high.y, p.y)};
    }
    return b;
}

Bounds boundsOf(const Region& region) {
    assert(!region.empty());
    Bounds all = boundsOf(region.rings.front());
    for (const Ring& ring : region.rings) {
        const Bounds b = boundsOf(ring);
        all.low = {std::min(all.low.x, b.low.x), std::min(all.low.y, b.low.y)};
        all.high = {std::max(all.high.x, b.high.x), std::max(all.high.y, b.high.y)};
    }
    return all;
}

double perimeter(const Ring& ring) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) sum += distance(ring[i], ring[(i + 1) % ring.size()]);
    return sum;
}

namespace {

bool edgesMeet(Point a, Point b, Point c, Point d) {
    const auto side = [](Point p, Point q, Point r) {
        const double s = cross(q - p, r - p);
        return s > 1e-9 ? 1 : s < -1e-9 ? -1 : 0;
    };
    const auto within = [](Point p, Point q, Point r) {
        return std::min(p.x, q.x) <= r.x && r.x <= std::max(p.x, q.x) && std::min(p.y, q.y) <= r.y &&
               r.y <= std::max(p.y, q.y);
    };
    const int s1 = side(a, b, c), s2 = side(a, b, d), s3 = side(c, d, a), s4 = side(c, d, b);
    if (s1 * s2 < 0 && s3 * s4 < 0) return true;
    return (s1 == 0 && within(a, b, c)) || (s2 == 0 && within(a, b, d)) || (s3 == 0 && within(c, d, a)) ||
           (s4 == 0 && within(c, d, b));
}

} // namespace

bool crossesItself(const Ring& ring) {
    const std::size_t n = ring.size();
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = i + 2; j < n; ++j) {
            if (i == 0 && j == n - 1) continue;
            if (edgesMeet(ring[i], ring[i + 1], ring[j], ring[(j + 1) % n])) return true;
        }
    return false;
}

bool contains(const Region& region, Point p) {
    bool inside = false;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
        }
    return inside;
}

Ring rectangle(double x, double y, double width, double height) {
    return {{x, y}, {x + width, y}, {x + width, y + height}, {x, y + height}};
}

Ring turned(Ring ring, double rad) {
    double c = std::cos(rad);
    double s = std::sin(rad);
    const double quarters = rad / (std::numbers::pi / 2);
    if (std::abs(quarters - std::round(quarters)) < 1e-12) {
        c = std::round(c);
        s = std::round(s);
    }
    for (Point& p : ring) p = {c * p.x - s * p.y, s * p.x + c * p.y};
    return ring;
}

Region turned(Region region, double rad) {
    for (Ring& ring : region.rings) ring = turned(std::move(ring), rad);
    return region;
}

Region moved(Region region, Point by) {
    for (Ring& ring : region.rings)
        for (Point& p : ring) p = p + by;
    return region;
}

Region transposed(const Region& region) {
    Region out;
    for (const Ring& ring : region.rings) {
        Ring turned;
        for (auto p = ring.rbegin(); p != ring.rend(); ++p) turned.push_back({p->y, p->x});
        out.rings.push_back(std::move(turned));
    }
    return out;
}

} // namespace westrum
