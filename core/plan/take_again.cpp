#include "core/plan/take_again.h"

#include "core/plan/quick_plan.h"

#include <algorithm>

namespace westrum {
namespace {

/// As far as a few millimetres are concerned, the same remark: figures in it may differ.
bool alike(const Remark& a, const Remark& b) {
    return a.kind == b.kind && a.place.surface == b.place.surface && a.place.layer == b.place.layer;
}

/// The worst remark that is new. What readings say of each other is left out: a reading that is off is no news then.
std::optional<Remark> brought(const Plan& before, const Plan& after) {
    std::optional<Remark> worst;
    for (const Remark& r : after.remarks) {
        if (r.severity == Severity::Note || r.place.part == Part::Reading || r.kind == RemarkKind::SharedEdgesDiffer)
            continue;
        if (std::any_of(before.remarks.begin(), before.remarks.end(), [&](const Remark& b) { return alike(r, b); }))
            continue;
        if (!worst || r.severity > worst->severity) worst = r;
    }
    return worst;
}

} // namespace

std::vector<CostlyReading> costlyReadings(const Job& job, const std::stop_token& stop,
                                          const std::function<void(double)>& progress) {
    std::vector<CostlyReading> found;
    // Searches of set-outs are cut short: differences of units come from shapes, not from the last percent.
    Planner planner(0.3);
    KnownCuts known;
    const auto planned = [&](const Job& as) {
        std::vector<ProductCut> cuts;
        return cutQuickly(as, planner, known, cuts, stop);
    };
    const std::optional<Plan> first = planned(job);
    if (!first) return {};
    const Plan& before = *first;
    const std::size_t asPlanned = known.size();
    Job tried = job;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const Surface& surface = job.surfaces[i];
        if (!job.face(surface.id) || !before.surfaces[i].measured.measured()) continue;
        for (const std::string& key : readingKeys(surface.measurement)) {
            const MaybeReading* reading = findReading(surface, key);
            if (!reading || !*reading || (*reading)->length.value <= 2 * kLikelyErrorMm) continue;
            if (progress) progress(static_cast<double>(i) / static_cast<double>(job.surfaces.size()));
            std::optional<CostlyReading> worst;
            for (const double off : {kLikelyErrorMm, -kLikelyErrorMm}) {
                findReading(tried.surfaces[i], key)->value().length = (*reading)->length + Mm{off};
                const std::optional<Plan> after = planned(tried);
                if (!after) return {};
                known.resize(asPlanned);
                CostlyReading c{surface.id, key, Mm{off}, {}, brought(before, *after), 0};
                if (before.totals.cost && after->totals.cost && after->totals.cost->minor > before.totals.cost->minor)
                    c.more = Money{after->totals.cost->minor - before.totals.cost->minor, job.currency};
                c.harm = (c.more ? static_cast<double>(c.more->minor) : 0) + (c.brings ? kRemarkHarm : 0);
                if (c.harm > 0 && (!worst || c.harm > worst->harm)) worst = std::move(c);
            }
            *findReading(tried.surfaces[i], key) = *reading;
            if (worst) found.push_back(std::move(*worst));
        }
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const CostlyReading& a, const CostlyReading& b) { return a.harm > b.harm; });
    return found;
}

} // namespace westrum
