#pragma once

#include "core/geometry/polygon.h"

#include <vector>

namespace westrum {

/// Booleans and offsets, by Clipper on a grid of 1e-6 mm. Inputs may run either way round and overlap; results are
/// clean: outer rings counter-clockwise, holes clockwise. Coordinates must stay within +-1e6 mm.

Region unionOf(const std::vector<Ring>& rings);
Region unionOf(const Region& a, const Region& b);
Region difference(const Region& from, const Region& cut);
Region intersection(const Region& a, const Region& b);

/// The region moved inwards by `by` mm (> 0) at every edge, corners mitred. Empty if nothing is left.
Region inset(const Region& region, double by);

/// The region moved outwards by `by` mm (> 0) at every edge, corners mitred as far as twice that.
Region outset(const Region& region, double by);
/// The region with its outward corners rounded to a radius, as far as it is wide enough for that.
Region rounded(const Region& region, double radius);

/// The strip of the given width along one side of a line: on its left for a width > 0, where it runs on past both ends
/// by its width; on its right for a width < 0, where it ends square with the line.
Region stripAlong(const Ring& line, double width);

/// The connected parts of a region, each an outer ring with its holes, in no particular order.
std::vector<Region> partsOf(const Region& region);

/// The part of a region between y = low and y = high, as connected parts of more than `leastMm2`, sorted by least x.
std::vector<Region> bandOf(const Region& region, double low, double high, double leastMm2 = 1.0);

/// The part of a region between x = left and x = right.
Region clippedInX(const Region& region, double left, double right);

/// A circle as a ring of `corners` points on it, counter-clockwise.
Ring circle(Point centre, double radius, int corners = 4096);

/// A rectangle with lower-left corner (x, y); corner radius limited to half the shorter side.
Ring roundedRectangle(double x, double y, double width, double height, double radius, int cornersPerCircle = 4096);

} // namespace westrum
