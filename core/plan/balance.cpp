#include "core/plan/balance.h"

#include "core/plan/cost_sharing.h"
#include "core/plan/standing.h"

#include <algorithm>

namespace westrum {
namespace {

/// Kg of a surface whose steps are ticked: all of it once all are, before that layer by layer.
double fittedOf(const SurfacePlan& s, const FitLog& log, double all) {
    if (s.steps.empty()) return 0;
    // What only makes ready puts nothing into the van.
    const auto done = [&](const FitStep& step) {
        return step.effort.prepares || step.kind == StepKind::FitFittings || log.done.contains(step.key);
    };
    if (std::none_of(s.steps.begin(), s.steps.end(), [&](const FitStep& x) { return log.done.contains(x.key); }))
        return 0;
    if (std::all_of(s.steps.begin(), s.steps.end(), done)) return all;
    double kg = 0;
    for (std::size_t k = 0; k < s.layers.size(); ++k) {
        int steps = 0, ticked = 0;
        for (const FitStep& step : s.steps) {
            if (step.layer != static_cast<int>(k) || step.effort.prepares) continue;
            ++steps;
            ticked += done(step) ? 1 : 0;
        }
        if (steps > 0 && steps == ticked) kg += s.layers[k].mass.value;
    }
    return std::min(kg, all);
}

/// What all masses do to the axles and sides, and what is over.
void weigh(const VanMass& van, Point middle, BalanceStage& stage) {
    BalancePlan& b = stage.balance;
    std::vector<PlacedMass> masses;
    for (const SurfaceMass& m : b.surfaces)
        masses.push_back(
            {m.mass, {van.wheelbase->length.value - (m.at.x - van.rearAxle->length.value)}, {middle.y - m.at.y}});
    const auto kg = [](const std::optional<double>& v) { return v ? std::optional(Kg{*v}) : std::nullopt; };
    b.wheels = balanceOf(masses, {.wheelbase = van.wheelbase->length,
                                  .track = van.track->length,
                                  .frontBefore = {van.front.value_or(0)},
                                  .rearBefore = {van.rear.value_or(0)},
                                  .frontLimit = van.front ? kg(van.frontLimit) : std::nullopt,
                                  .rearLimit = van.rear ? kg(van.rearLimit) : std::nullopt,
                                  .grossLimit = van.front && van.rear ? kg(van.grossLimit) : std::nullopt});
    const auto over = [&](bool is, int which, Kg now, const std::optional<double>& limit) {
        if (is)
            stage.weighed.push_back({Severity::Error,
                                     {"", Part::Whole},
                                     RemarkKind::AxleOver,
                                     {{"which", std::int64_t{which}}, {"kg", now.value}, {"limit", *limit}},
                                     {}});
    };
    over(b.wheels->frontOver, 0, b.wheels->front, van.frontLimit);
    over(b.wheels->rearOver, 1, b.wheels->rear, van.rearLimit);
    over(b.wheels->grossOver, 2, b.wheels->gross(), van.grossLimit);
    // Half of what it may weigh stands on each side; the bare van is taken to stand evenly.
    if (van.front && van.rear && van.grossLimit) {
        const double half = (*van.front + *van.rear) / 2;
        const double left = half + b.wheels->leftAdded.value, right = half + b.wheels->rightAdded.value;
        if (std::max(left, right) > *van.grossLimit / 2)
            stage.weighed.push_back({Severity::Warning,
                                     {"", Part::Whole},
                                     RemarkKind::SideOver,
                                     {{"right", std::int64_t{right > left ? 1 : 0}},
                                      {"kg", std::max(left, right)},
                                      {"limit", *van.grossLimit / 2}},
                                     {}});
    }
}

} // namespace

BalanceStage balanceOf(const SurfaceStage& plan, const PurchaseStage& purchases, const BalanceInput& input) {
    const Job& job = input.read;
    BalanceStage stage;
    BalancePlan& b = stage.balance;
    static const SurfacePlan none;
    std::vector<const SurfacePlan*> planned;
    for (const Surface& s : job.surfaces) {
        const SurfacePlan* own = plan.surface(s.id);
        planned.push_back(own ? own : &none);
    }
    // The floor stands for what nobody placed.
    Bounds floor{{0, 0}, {0, 0}};
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        if (job.surfaces[i].kind == SurfaceKind::Floor && planned[i]->measured.measured()) {
            floor = boundsOf(planned[i]->measured.frame);
            break;
        }
    const Point middle = (floor.low + floor.high) * 0.5;
    for (const SurfaceCost& c : costBySurface(job.currency, plan, purchases)) {
        SurfaceMass m{c.surface, c.mass, middle, true};
        for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
            if (job.surfaces[i].id != c.surface) continue;
            const SurfacePlan& s = *planned[i];
            b.fitted = b.fitted + Kg{fittedOf(s, job.log(c.surface), c.mass.value)};
            if (!s.measured.measured()) continue;
            if (const auto at = middleFromAbove(job, plan, i)) {
                m.at = *at;
                m.assumed = false;
            } else if (job.surfaces[i].fromRear) {
                m.at.x = job.surfaces[i].fromRear->length.value + boundsOf(s.measured.frame).width() / 2;
            }
        }
        b.added = b.added + m.mass;
        b.surfaces.push_back(std::move(m));
    }
    const VanMass& van = job.mass;
    if (van.allowance && b.added.value > *van.allowance)
        stage.weighed.push_back({Severity::Warning,
                                 {"", Part::Whole},
                                 RemarkKind::AllowancePassed,
                                 {{"kg", b.added.value}, {"limit", *van.allowance}},
                                 {}});
    if (van.wheelbase && van.track && van.rearAxle) weigh(van, middle, stage);
    return stage;
}

} // namespace westrum
