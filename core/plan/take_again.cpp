#include "core/plan/take_again.h"

#include "core/plan/quick_plan.h"
#include "core/plan/trim_cover.h"

#include <algorithm>
#include <cmath>

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

/// How far a side lies outside of where it was planned, at its worse end.
double outside(const Ring& planned, const Ring& is) {
    const Point way = planned.back() - planned.front();
    const double length = std::hypot(way.x, way.y);
    if (length < 1e-6) return 0;
    const Point outwards{way.y / length, -way.x / length};
    return std::max(dot(is.front() - planned.front(), outwards), dot(is.back() - planned.back(), outwards));
}

/// What is cut by a reading leaves its gap wider where the surface goes on further: the worst one that its trim does
/// not reach over any more.
std::optional<Remark> gapLeft(const Job& job, const std::vector<CoveredGap>& gaps, std::size_t surface,
                              const MeasuredOutline& planned, const MeasuredOutline& is) {
    std::optional<CoveredGap> worst;
    for (const CoveredGap& gap : gaps) {
        const auto side = static_cast<std::size_t>(gap.side);
        if (gap.surface != surface || gap.gap > gap.cover || side >= planned.sides.size() || side >= is.sides.size())
            continue;
        CoveredGap wider = gap;
        wider.gap = gap.gap + Mm{std::max(0.0, outside(planned.sides[side], is.sides[side]))};
        if (wider.gap > wider.cover + Mm{0.05} && (!worst || wider.gap - wider.cover > worst->gap - worst->cover))
            worst = wider;
    }
    return worst ? std::optional(beyondTrim(job, *worst)) : std::nullopt;
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
    const std::vector<CoveredGap> gaps = coveredGaps(job, before);
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
                if (!c.brings)
                    c.brings = gapLeft(job, gaps, i, before.surfaces[i].measured, after->surfaces[i].measured);
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
