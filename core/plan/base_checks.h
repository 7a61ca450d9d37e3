#pragma once

#include "core/plan/layer_request.h"
#include "core/plan/plan.h"

#include <vector>

namespace westrum {

/// What the layers of a surface ask of what lies below them, and do not get. Places carry no surface yet.
/// @param plan  with its layers set out
std::vector<Remark> baseRemarks(const Surface& surface, const SurfaceContext& context, const SurfacePlan& plan);

/// The surface with its battens laid the other way, no further apart than they were.
Surface withBattensTurned(const Surface& surface, const MeasuredOutline& measured);

} // namespace westrum
