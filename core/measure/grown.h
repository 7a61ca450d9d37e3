#pragma once

#include "core/measure/measurement.h"

#include <optional>
#include <span>

namespace westrum {

/// What was there as a template: an outline with its sides moved outwards (inwards where < 0), in mm by side of the
/// frame; edges that belong to none - of notches and steps - by `rest`. Moved to begin at 0, 0; `shift` is by how much.
struct GrownOutline {
    Ring ring;
    Point shift;
};
/// Nothing where it vanishes or would cross itself. @pre measured.measured()
/// 1000 x 600, 10 more at the first side and 5 less at the second: 995 x 610
std::optional<GrownOutline> grownOutline(const MeasuredOutline& measured, std::span<const double> bySide, double rest);

} // namespace westrum
