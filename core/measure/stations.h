#pragma once

#include "core/geometry/polygon.h"
#include "core/units/quantity.h"

#include <vector>

namespace westrum {

/// How the measured ends of the offsets are joined.
enum class StationJoin {
    Straight, ///< a straight line from each to the next
    Smooth,   ///< monotone cubic (PCHIP): never swings beyond the offsets, unlike an ordinary spline
};

/// A curve over a baseline: `at` strictly increasing along it, `offset` square to it; both as long, at least two.
struct StationCurve {
    std::vector<double> at;
    std::vector<double> offset;
    StationJoin join = StationJoin::Straight;
};

/// Slope of the smooth curve at each station: the weighted harmonic mean of its neighbours' slopes inside, the shape
/// preserving three-point rule at the ends. Source: docs/formulae.md#stations.
std::vector<double> stationSlopes(const StationCurve& curve);

/// Height of the curve at `x`, which is taken back to the nearer end if it lies beyond the stations.
double heightAt(const StationCurve& curve, double x);

/// Area between curve and baseline, exact for either join. Below the baseline counts negative.
M2 areaUnder(const StationCurve& curve);

/// Length along the curve; the smooth one by adaptive Gauss quadrature to 0.0001 mm a bay.
Mm lengthAlong(const StationCurve& curve);

/// The curve as points from the first station to the last, off the true curve by no more than `tolerance` mm.
std::vector<Point> flattened(const StationCurve& curve, double tolerance = 0.05);

} // namespace westrum
