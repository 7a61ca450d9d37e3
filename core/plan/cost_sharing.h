#pragma once

#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <span>

namespace westrum {

/// Fills in the shares of every purchase: what each surface consumes of it, pays of it and carries of its mass. What
/// is left of a unit belongs to those who cut from it, a unit that nobody touched to all (see shareCost()). Costs of a
/// purchase's shares add up to its cost, to the last minor unit; masses to its laid mass.
/// @param cuts  of the products that the purchases were made from; empty before anything is cut
void shareCosts(const Job& job, const SurfaceStage& surfaces, std::span<const ProductCut> cuts, PurchaseStage& stage);

/// Adds the job's spares to the purchases, which have none yet.
void buySpares(const Job& job, std::vector<Purchase>& purchases);

/// What a surface comes to: its shares of all purchases.
struct SurfaceCost {
    std::string surface;       ///< id; empty: of no surface
    std::optional<Money> cost; ///< nothing if a price is missing
    Kg mass;
    M2 area; ///< of what is seen of it
};
/// One for each surface that has a share, in the job's order, what belongs to none last.
std::vector<SurfaceCost> costBySurface(const Currency& currency, const SurfaceStage& surfaces,
                                       const PurchaseStage& purchases);
std::vector<SurfaceCost> costBySurface(const Job& job, const Plan& plan);

} // namespace westrum
