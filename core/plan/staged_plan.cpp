#include "core/plan/staged_plan.h"

#include "core/plan/balance.h"

namespace westrum {

StagedPlan::Answer StagedPlan::plan(const Job& job, const Cuts& cuts, const std::stop_token& stop) {
    bool anew = surfaces_.renew(surfacesInput(job), [&](const SurfacesInput& in) -> std::optional<SurfaceStage> {
        SurfaceStage stage = planner_.surfaces(in, stop);
        if (stage.stopped) return std::nullopt;
        return stage;
    });
    if (stop.stop_requested()) return {};
    problems_.renew({surfaces_.value, cuttingInput(job)},
                    [](const CuttingOf& in) { return std::optional(cutProblems(*in.surfaces, in.job)); });
    anew |= purchases_.renew({surfaces_.value, cuts, purchasesInput(job)}, [](const PurchasesOf& in) {
        std::vector<ProductCut> all;
        for (const auto& cut : in.cuts) all.push_back(*cut);
        return std::optional(purchasesOf(*in.surfaces, all, in.job));
    });
    anew |= balance_.renew({surfaces_.value, purchases_.value, balanceInput(job)}, [](const BalanceOf& in) {
        return std::optional(balanceOf(*in.surfaces, *in.purchases, in.job));
    });
    if (anew || !plan_)
        plan_ = std::make_shared<const Plan>(planOf(*surfaces_.value, *purchases_.value, *balance_.value));
    return {plan_, surfaces_.value, problems_.value};
}

} // namespace westrum
