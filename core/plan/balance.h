#pragma once

#include "core/plan/inputs.h"
#include "core/plan/plan.h"

namespace westrum {

/// The third stage: what the axles and sides of the van carry with all finishes in it, from the shares of the
/// purchases' masses and where each surface is; what is fitted by the log's ticks; and where plate or allowance are
/// passed.
BalanceStage balanceOf(const SurfaceStage& surfaces, const PurchaseStage& purchases, const BalanceInput& input);

} // namespace westrum
