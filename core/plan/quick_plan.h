#pragma once

#include "core/plan/cut_problems.h"
#include "core/plan/product_cut.h"
#include "core/plan/surface_stage.h"

#include <cstdint>
#include <optional>
#include <stop_token>
#include <string>
#include <utility>
#include <vector>

namespace westrum {

/// What was cut before: most products are the same in every variation of a job.
using KnownCuts = std::vector<std::pair<CutProblem, ProductCut>>;

/// The plan with everything cut, at once and roughly; nothing if stopped.
/// @param known  is added to  @param cuts  receives what the plan was made with
/// @param closer  id of a product that is cut with more iterations than one
std::optional<Plan> cutQuickly(const Job& job, Planner& planner, KnownCuts& known, std::vector<ProductCut>& cuts,
                               const std::stop_token& stop, const std::string& closer = {},
                               std::int64_t iterations = 1);

} // namespace westrum
