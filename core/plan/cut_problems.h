#pragma once

#include "core/plan/inputs.h"
#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <vector>

namespace westrum {

/// What must be cut of each product, in the catalogue's order; products of which nothing is wanted are left out. Planks
/// come as their set-out shares them out; what a person adds to the list is cut from the offcuts of these first.
std::vector<CutProblem> cutProblems(const SurfaceStage& surfaces, const CuttingInput& input);
std::vector<CutProblem> cutProblems(const Job& job, const SurfaceStage& surfaces);

} // namespace westrum
