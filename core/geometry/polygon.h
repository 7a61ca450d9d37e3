#pragma once

#include "core/units/quantity.h"

#include <compare>
#include <vector>

namespace westrum {

/// A point of a surface's flat (developed) outline, in mm. x runs along the van from the rear (along a wall from its
/// rear or left end), y up or across; the frame is drawn in docs/architecture.md.
struct Point {
    double x{};
    double y{};
    friend constexpr auto operator<=>(const Point&, const Point&) = default;
    friend constexpr Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
    friend constexpr Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
    friend constexpr Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
};

double distance(Point a, Point b);
double cross(Point a, Point b);
double dot(Point a, Point b);

/// A closed ring of corners, not repeated at the end. Outlines run counter-clockwise, holes clockwise.
using Ring = std::vector<Point>;

/// A flat area: rings counter-clockwise are its outer edges, rings clockwise its holes. Rings do not cross.
struct Region {
    std::vector<Ring> rings;
    [[nodiscard]] bool empty() const { return rings.empty(); }
    friend bool operator==(const Region&, const Region&) = default;
};

struct Bounds {
    Point low{};
    Point high{};
    [[nodiscard]] double width() const { return high.x - low.x; }
    [[nodiscard]] double height() const { return high.y - low.y; }
    friend bool operator==(const Bounds&, const Bounds&) = default;
};

/// Signed area in mm2 by the shoelace rule: positive when the ring runs counter-clockwise.
double signedArea(const Ring& ring);

/// Area in mm2, holes deducted.
double areaMm2(const Region& region);

/// Centre of area, holes deducted. @pre areaMm2(region) > 0
Point centroid(const Region& region);

/// Extent of a non-empty ring or region.
Bounds boundsOf(const Ring& ring);
Bounds boundsOf(const Region& region);

double perimeter(const Ring& ring);

/// Whether two edges of the ring that are not neighbours touch or cross.
bool crossesItself(const Ring& ring);

/// Whether the point lies inside the region; on the edge itself either answer may come.
bool contains(const Region& region, Point p);

/// A rectangle with its lower left corner at a point, counter-clockwise.
Ring rectangle(double x, double y, double width, double height);

/// Turned about the origin, counter-clockwise; exact by quarter turns.
Ring turned(Ring ring, double rad);
Region turned(Region region, double rad);

/// Moved by a vector.
Region moved(Region region, Point by);

/// Each point with x and y exchanged, the rings turned to keep their direction: for rows that run across.
Region transposed(const Region& region);

} // namespace westrum
