#pragma once

#include "core/geometry/polygon.h"

#include <cstdint>
#include <vector>

namespace westrum {

/// Points on a grid of a thousandth of a mm: sums and tests of sides are exact. Within +-1e6 mm.
struct GridPoint {
    std::int64_t x{};
    std::int64_t y{};
    friend constexpr auto operator<=>(const GridPoint&, const GridPoint&) = default;
};
using GridRing = std::vector<GridPoint>;

inline constexpr double kGridPerMm = 1000;

GridPoint toGrid(Point p);
Point fromGrid(GridPoint p);

/// Convex rings, counter-clockwise, that together are the region and do not overlap; as few as ear clipping and the
/// joining of neighbours give (at most four times the least, Hertel and Mehlhorn, 1983). Where an outline is too
/// degenerate for that, it is parted into trapezoids between its corners' heights.
std::vector<GridRing> convexParts(const Region& region);

/// The sum of two convex counter-clockwise rings, convex and counter-clockwise.
GridRing convexSum(const GridRing& a, const GridRing& b);

/// The region moved outwards (by > 0) or inwards (by < 0): corners mitred as far as twice `by`, so never nearer than
/// `by`; or rounded, the arcs flattened inside, so never farther.
enum class Corners { Mitred, Rounded };
Region grown(const Region& region, double by, Corners corners = Corners::Mitred);

/// The union of all sums of a ring of the one and a ring of the other list, both convex and counter-clockwise: the
/// Minkowski sum of what they make up.
Region sumOfParts(const std::vector<GridRing>& a, const std::vector<GridRing>& b);

} // namespace westrum
