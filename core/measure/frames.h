#pragma once

#include "core/measure/measurement.h"

namespace westrum {

/// The frame of a surface from the readings of its form: frame, sides, fits and the remarks on them; no cut-outs yet.
/// Nothing but remarks if the readings give no frame.
MeasuredOutline frameOf(const Measurement& measurement);

/// Least radius and stretch of a curved surface, with remarks; `width` and `height` are the developed extents.
void addCurvature(const Measurement& measurement, Mm width, Mm height, MeasuredOutline& out);

} // namespace westrum
