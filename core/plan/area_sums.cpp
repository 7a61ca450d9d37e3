#include "core/plan/area_sums.h"

#include "core/families/family.h"

#include <algorithm>

namespace westrum {

std::vector<AreaSum> sumsByArea(const Job& job, const Plan& plan, const std::vector<SurfaceCost>& surfaces) {
    std::vector<AreaSum> sums;
    AreaSum none{.area = {}, .cost = Money{0, job.currency}};
    bool any = false;
    const auto sumOf = [&](const Area& area) -> AreaSum& {
        if (area.kind == AreaKind::Unsaid) {
            any = true;
            return none;
        }
        const auto same = std::find_if(sums.begin(), sums.end(), [&](const AreaSum& s) { return s.area == area; });
        if (same != sums.end()) return *same;
        sums.push_back({.area = area, .cost = Money{0, job.currency}});
        return sums.back();
    };
    for (const Surface& s : job.surfaces) {
        const SurfacePlan* planned = plan.surface(s.id);
        if (!planned || !planned->measured.measured()) continue;
        AreaSum& sum = sumOf(s.area);
        ++sum.surfaces;
        for (const LayerPlan& l : planned->layers)
            sum.hours += hoursFor(l.family, l.area.value, static_cast<int>(l.setOut.pieces.size()), job.work.hours);
    }
    for (const SurfaceCost& c : surfaces) {
        const Surface* s = job.surface(c.surface);
        AreaSum& sum = sumOf(s ? s->area : Area{});
        if (sum.cost && c.cost)
            sum.cost->minor += c.cost->minor;
        else
            sum.cost.reset();
        sum.mass = sum.mass + c.mass;
        sum.surface = sum.surface + c.area;
    }
    if (any) sums.push_back(none);
    return sums;
}

} // namespace westrum
