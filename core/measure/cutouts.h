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

/// The surface's lower edge from its rear (left) end to its other one: the first side if it runs there, else the lowest
/// that does, with all straight sides in the same line (a notch may part it). Where none runs so: the lower edge of the
/// box about the frame. Supports are counted from it. @pre outline.frame is not empty
SideLine lowerEdge(const MeasuredOutline& outline);

} // namespace westrum
