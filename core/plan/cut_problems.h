#pragma once

#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <vector>

namespace westrum {

/// What must be cut of each product, in the catalogue's order; products of which nothing is wanted are left out. Planks
/// come as their set-out shares them out; what a person adds to the list is cut from the offcuts of these first.
std::vector<CutProblem> cutProblems(const Job& job, const Plan& plan);

/// The plan with what the cutting buys: lengths, sheets and metres of roll are added to purchases, cost and mass.
Plan withCuts(Plan plan, const Job& job, const std::vector<ProductCut>& cuts);

} // namespace westrum
