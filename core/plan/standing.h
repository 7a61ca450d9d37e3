#pragma once

#include "core/plan/job.h"
#include "core/plan/plan.h"

#include <cstddef>
#include <optional>

namespace westrum {

/// Where a surface of the job stands; null if it hangs on nothing. @param place  among the job's surfaces
const Pose* standingPose(const SurfaceStage& stage, std::size_t place);

/// The middle of a measured surface from above, x forwards and y to the left from the floor's rear right corner: as it
/// stands in the van, or as it was put there; nothing where nobody says.
std::optional<Point> middleFromAbove(const Job& job, const SurfaceStage& stage, std::size_t place);

} // namespace westrum
