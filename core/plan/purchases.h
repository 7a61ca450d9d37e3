#pragma once

#include "core/plan/inputs.h"
#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <span>

namespace westrum {

/// The second stage: what set-outs and quantities buy, small things, what the cutting buys; then from whom, the spares,
/// each surface's shares, and the totals. Pure.
/// @param cuts  of the products that are cut to size; empty before anything is cut
PurchaseStage purchasesOf(const SurfaceStage& surfaces, std::span<const ProductCut> cuts, const PurchasesInput& input);

} // namespace westrum
