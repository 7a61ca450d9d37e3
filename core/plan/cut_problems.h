#pragma once

#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <vector>

namespace westrum {

/// What must be cut of each product, in the catalogue's order; products of which nothing is wanted are left out. Planks
/// come as their set-out shares them out; what a person adds to the list is cut from the offcuts of these first.
std::vector<CutProblem> cutProblems(const Job& job, const Plan& plan);

/// The runs of trim along a surface's edges: every straight stretch of its outline of at least 30 mm, except where the
/// side is a turned-in reveal or an open movement gap. A run that ends at an outside corner (round a wheel arch) is
/// longer by the trim's width there, for the mitre; one longer than the stock is parted into equal lengths.
std::vector<CutPiece> trimRuns(const Surface& surface, const SurfacePlan& plan, Mm stockLength, Mm trimWidth);

/// The plan with what the cutting buys: lengths, sheets and metres of roll are added to purchases, cost and mass.
Plan withCuts(Plan plan, const Job& job, const std::vector<ProductCut>& cuts);

} // namespace westrum
