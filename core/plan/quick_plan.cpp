#include "core/plan/quick_plan.h"

#include <algorithm>

namespace westrum {

std::optional<Plan> cutQuickly(const Job& job, Planner& planner, KnownCuts& known, std::vector<ProductCut>& cuts,
                               const std::stop_token& stop, const std::string& closer, std::int64_t iterations) {
    const SurfaceStage surfaces = planner.surfaces(surfacesInput(job), stop);
    if (stop.stop_requested()) return std::nullopt;
    for (const CutProblem& problem : cutProblems(job, surfaces)) {
        const auto same = std::find_if(known.begin(), known.end(), [&](const auto& k) { return k.first == problem; });
        if (same != known.end()) {
            cuts.push_back(same->second);
            continue;
        }
        Effort effort;
        effort.seed = problem.seed;
        effort.iterations = problem.product.id == closer ? iterations : 1;
        effort.stop = stop;
        cuts.push_back(cutProduct(problem, effort));
        if (stop.stop_requested()) return std::nullopt;
        known.emplace_back(problem, cuts.back());
    }
    return withCuts(surfaces, job, cuts);
}

} // namespace westrum
