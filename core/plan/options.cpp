#include "core/plan/options.h"

#include "core/plan/cut_problems.h"

#include <algorithm>
#include <set>

namespace westrum {

std::vector<OptionFigures> optionFigures(const Job& job, const std::string& surface, const std::stop_token& stop) {
    const FinishOptions& options = job.options(surface);
    std::set<std::string> products; // of all options: what the others buy is the same whichever is chosen
    for (const Finish& f : options.options) {
        for (const Layer& l : f.layers) products.insert(l.product);
        if (!f.trim.empty() && f.trim != kNoTrim) products.insert(f.trim);
    }
    std::vector<OptionFigures> figures;
    Planner planner;
    Job tried = job;
    for (int k = 0; k < static_cast<int>(options.options.size()); ++k) {
        if (auto at = tried.finishes.find(surface); at != tried.finishes.end()) at->second.chosen = k;
        Plan plan = planner.plan(tried, stop);
        if (stop.stop_requested()) return {};
        OptionFigures f;
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(tried, plan)) {
            if (!products.contains(problem.product.id)) continue;
            Effort effort;
            effort.seed = problem.seed;
            effort.iterations = 1;
            effort.stop = stop;
            cuts.push_back(cutProduct(problem, effort));
            if (stop.stop_requested()) return {};
        }
        plan = withCuts(std::move(plan), tried, cuts);
        const SurfacePlan* s = plan.surface(surface);
        if (s) {
            f.thickness = s->stack.total;
            for (const LayerPlan& l : s->layers) f.mass = f.mass + l.mass;
            f.pieces = s->setOut().figures.pieces;
            f.planned = s->setOut().laid();
            f.warnings = static_cast<int>(std::count_if(s->remarks.begin(), s->remarks.end(),
                                                        [](const Remark& r) { return r.severity != Severity::Note; }));
            if (const LayerPlan* face = s->faceLayer()) {
                if (face->purchase && face->purchase->consumedArea.value > 0)
                    f.wasteShare = face->purchase->wasteOfConsumed().value / face->purchase->consumedArea.value;
                for (const ProductCut& c : cuts)
                    if (c.product == face->product && !face->purchase && c.figures.bought + c.figures.fromRack > 0)
                        f.wasteShare = c.figures.waste() / (c.figures.bought + c.figures.fromRack);
            }
        }
        f.cost = Money{0, job.currency};
        for (const Purchase& p : plan.purchases) {
            if (!products.contains(p.product)) continue;
            if (f.cost && p.cost && p.cost->currency == job.currency)
                f.cost = *f.cost + *p.cost;
            else
                f.cost.reset();
        }
        figures.push_back(f);
    }
    return figures;
}

} // namespace westrum
