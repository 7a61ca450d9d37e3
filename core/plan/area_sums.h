#pragma once

#include "core/plan/cost_sharing.h"

#include <vector>

namespace westrum {

/// What one area of the van comes to: the sums of its surfaces.
struct AreaSum {
    Area area;                 ///< of its surfaces; what belongs to no surface has AreaKind::Unsaid
    std::optional<Money> cost; ///< nothing if a price is missing
    Kg mass;
    M2 surface;     ///< of what is seen
    double hours{}; ///< of laying, a practised person's
    int surfaces{};
};
/// One for each area that the job names, in its order, what has none last. Costs add up to what all surfaces pay, hours
/// to those of all layers. @param surfaces  costBySurface() of the same plan
std::vector<AreaSum> sumsByArea(const Job& job, const Plan& plan, const std::vector<SurfaceCost>& surfaces);

} // namespace westrum
