#include "core/plan/take_again.h"

#include "core/plan/quick_plan.h"
#include "core/plan/trim_cover.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <thread>

namespace westrum {
namespace {

/// Searches of set-outs are cut short: differences of units come from shapes, not from the last percent.
constexpr double kCare = 0.3;
constexpr unsigned kMostHands = 4; ///< that try at a time

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

/// One reading to be tried.
struct Trial {
    std::size_t surface;
    std::string key;
};

std::vector<Trial> trialsOf(const Job& job, const Plan& before) {
    std::vector<Trial> trials;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const Surface& surface = job.surfaces[i];
        if (!job.face(surface.id) || !before.surfaces[i].measured.measured()) continue;
        for (const std::string& key : readingKeys(surface.measurement))
            if (const MaybeReading* reading = findReading(surface, key);
                reading && *reading && (*reading)->length.value > 2 * kLikelyErrorMm)
                trials.push_back({i, key});
    }
    return trials;
}

/// Tries readings one after the other, on what is known of the plan as it is.
class Trier {
public:
    Trier(const Job& job, const Plan& before, const KnownCuts& known)
        : job_(job),
          before_(before),
          tried_(job),
          known_(known),
          asPlanned_(known.size()),
          gaps_(coveredGaps(job, before)) {}

    /// The worse way in which the reading may be off; nothing if it costs nothing, or was stopped.
    std::optional<CostlyReading> run(const Trial& t, const std::stop_token& stop) {
        const Reading reading = **findReading(job_.surfaces[t.surface], t.key);
        std::optional<CostlyReading> worst;
        for (const double off : {kLikelyErrorMm, -kLikelyErrorMm}) {
            findReading(tried_.surfaces[t.surface], t.key)->value().length = reading.length + Mm{off};
            std::vector<ProductCut> cuts;
            const std::optional<Plan> after = cutQuickly(tried_, planner_, known_, cuts, stop);
            known_.resize(asPlanned_);
            if (!after) return std::nullopt;
            CostlyReading c{job_.surfaces[t.surface].id, t.key, Mm{off}, {}, brought(before_, *after), 0};
            if (!c.brings)
                c.brings = gapLeft(job_, gaps_, t.surface, before_.surfaces[t.surface].measured,
                                   after->surfaces[t.surface].measured);
            if (before_.totals.cost && after->totals.cost && after->totals.cost->minor > before_.totals.cost->minor)
                c.more = Money{after->totals.cost->minor - before_.totals.cost->minor, job_.currency};
            c.harm = (c.more ? static_cast<double>(c.more->minor) : 0) + (c.brings ? kRemarkHarm : 0);
            if (c.harm > 0 && (!worst || c.harm > worst->harm)) worst = std::move(c);
        }
        *findReading(tried_.surfaces[t.surface], t.key) = reading;
        return worst;
    }

private:
    const Job& job_;
    const Plan& before_;
    Job tried_;
    Planner planner_{kCare};
    KnownCuts known_;
    std::size_t asPlanned_;
    std::vector<CoveredGap> gaps_;
};

} // namespace

std::vector<CostlyReading> costlyReadings(const Job& job, const std::stop_token& stop,
                                          const std::function<void(double)>& progress) {
    Planner planner(kCare);
    KnownCuts known;
    std::vector<ProductCut> cuts;
    const std::optional<Plan> before = cutQuickly(job, planner, known, cuts, stop);
    if (!before) return {};
    const std::vector<Trial> trials = trialsOf(job, *before);
    // Each is tried on its own, so that it does not matter who does which.
    std::vector<std::optional<CostlyReading>> found(trials.size());
    std::atomic<std::size_t> next{0};
    const auto work = [&](bool tells) {
        Trier trier(job, *before, known);
        for (std::size_t k = next++; k < trials.size() && !stop.stop_requested(); k = next++) {
            if (tells && progress) progress(static_cast<double>(k) / static_cast<double>(trials.size()));
            found[k] = trier.run(trials[k], stop);
        }
    };
    {
        std::vector<std::jthread> others;
        const unsigned hands = std::clamp(std::thread::hardware_concurrency(), 1U, kMostHands);
        for (unsigned k = 1; k < hands && k < trials.size(); ++k) others.emplace_back(work, false);
        work(true);
    }
    if (stop.stop_requested()) return {};
    std::vector<CostlyReading> costly;
    for (std::optional<CostlyReading>& c : found)
        if (c) costly.push_back(std::move(*c));
    std::stable_sort(costly.begin(), costly.end(),
                     [](const CostlyReading& a, const CostlyReading& b) { return a.harm > b.harm; });
    return costly;
}

} // namespace westrum
