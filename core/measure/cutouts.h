#pragma once

#include "core/measure/measurement.h"

namespace westrum {

/// Rounds the corners, cuts notches and steps out of the frame and leaves the result in `out.outline`, with remarks on
/// what could not be cut. @pre out.frame is not empty
void cutOutline(const Measurement& measurement, MeasuredOutline& out);

/// The ends of a straight side in the order in which its notches are measured: rear (left) end first, or the lower end
/// if it runs upwards.
struct SideLine {
    Point from, to;
    Point inward; ///< unit, into the surface
    [[nodiscard]] double length() const { return distance(from, to); }
};
/// Nothing for a curved side.
std::optional<SideLine> sideLine(const MeasuredOutline& outline, int side);

} // namespace westrum
