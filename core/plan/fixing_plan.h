#pragma once

#include "core/plan/layer_request.h"
#include "core/plan/plan.h"

namespace westrum {

/// Gives every layer of a surface its fixings, each at its place and as long as the build-up is there; says how many
/// found no place. @param plan  with its layers set out and its battens packed
void placeFixings(const Surface& surface, const Finish& finish, const SurfaceContext& context, SurfacePlan& plan);

} // namespace westrum
