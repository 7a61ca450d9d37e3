#pragma once

#include "core/geometry/polygon.h"
#include "core/shell/shape.h"
#include "core/units/quantity.h"

#include <optional>
#include <utility>
#include <vector>

namespace westrum {

// Along a path of points, in mm from its first.

double lengthOf(const Ring& path);
Point along(const Ring& path, double at);
Ring partOf(const Ring& path, double from, double to);
/// Least radius of a path's bends, each from a point and its two neighbours; nothing if it is straight.
std::optional<Mm> leastRadiusOf(const Ring& path);

/// What is said of the edges of the notch or step that a stretch of the outline runs along.
EdgeKind notchEdge(const MeasuredOutline& measured, const Ring& path);

/// The parts of an opening's edge within the outline, each a path: one that reaches the surface's own edge has none
/// there. Where all of it is within, one path that ends where it begins.
std::vector<Ring> edgesWithin(const Ring& shape, const MeasuredOutline& measured);

/// By how much a ring turns at a corner, in radians, to the left positive.
double turnAt(const Ring& ring, std::size_t corner);

/// Where along a path openings leave nothing to trim: from and to, rising, joined.
/// @param leastBetween  nothing shorter is left between two
std::vector<std::pair<double, double>> gapsOf(const Ring& path, const Surface& surface, const SurfaceShape& shape,
                                              double leastBetween);

/// Gaps where openings of the surface beyond a shared edge reach it, a doorway in the wall that a floor meets: added to
/// those along a path on its own side of the edge. The two sides of the edge run opposite ways.
/// @param side  that the path lies on  @param other  the same edge as a side of `there`
void addGapsBeyond(const Ring& side, const Ring& path, const Ring& other, const Surface& there,
                   const SurfaceShape& shape, double leastBetween, std::vector<std::pair<double, double>>& gaps);

} // namespace westrum
