#include "core/plan/plan.h"

#include "core/plan/balance.h"
#include "core/plan/purchases.h"
#include "core/plan/surface_stage.h"

#include <algorithm>

namespace westrum {

const LayerPlan* SurfacePlan::faceLayer() const {
    return face < 0 || face >= static_cast<int>(layers.size()) ? nullptr : &layers[static_cast<std::size_t>(face)];
}

const SetOut& SurfacePlan::setOut() const {
    static const SetOut none;
    const LayerPlan* seen = faceLayer();
    return seen ? seen->setOut : none;
}

const LayerPlan* SurfacePlan::layerOf(std::string_view family) const {
    for (const LayerPlan& l : layers)
        if (l.family == family) return &l;
    return nullptr;
}

const SurfacePlan* SurfaceStage::surface(std::string_view id) const {
    for (const SurfacePlan& s : surfaces)
        if (s.surface == id) return &s;
    return nullptr;
}

int SurfaceStage::cutUnits(std::string_view product) const {
    int cut = 0;
    for (const SurfacePlan& s : surfaces)
        for (const LayerPlan& l : s.layers)
            if (l.product == product)
                for (const StockUnit& u : l.setOut.stock) cut += !u.cuts.empty();
    return cut;
}

bool Plan::hasErrors() const {
    return std::any_of(remarks.begin(), remarks.end(), [](const Remark& r) { return r.severity == Severity::Error; });
}

Plan plan(const Job& job, const std::stop_token& stop, double care) { return Planner(care).plan(job, stop); }

Plan planOf(const SurfaceStage& surfaces, const PurchaseStage& purchases, const BalanceStage& balance) {
    Plan plan{surfaces, purchases, balance, surfaces.found};
    plan.remarks.insert(plan.remarks.end(), purchases.bought.begin(), purchases.bought.end());
    plan.remarks.insert(plan.remarks.end(), balance.weighed.begin(), balance.weighed.end());
    return plan;
}

Plan withCuts(const SurfaceStage& surfaces, const Job& job, std::span<const ProductCut> cuts) {
    const PurchaseStage purchases = purchasesOf(surfaces, cuts, purchasesInput(job));
    return planOf(surfaces, purchases, balanceOf(surfaces, purchases, balanceInput(job)));
}

} // namespace westrum
