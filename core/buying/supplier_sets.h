#pragma once

#include "core/buying/buying_plan.h"

namespace westrum {

/// Tries every set of suppliers that charge for bringing: within a set each product is bought by itself, at least cost
/// (leastCostPacks()). Where goods stay below what a supplier brings for nothing, products are moved to it, or a pack
/// more is bought, if that costs less than the delivery. The bound holds for all sets; it is met unless moving goods
/// pays. Of more than ten such suppliers not all sets are tried, and the bound counts no delivery.
/// Nothing if there are no options, or amounts too fine for whole packs to be counted.
std::optional<BuyAnswer> cheapestBySets(const BuyRequest& request);

/// What the counts of an answer cost, deliveries as the suppliers' terms have them: fills `delivered` and `costMinor`.
void reckon(const BuyRequest& request, BuyAnswer& answer);

} // namespace westrum
