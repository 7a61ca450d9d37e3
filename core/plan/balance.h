#pragma once

#include "core/plan/plan.h"

namespace westrum {

/// Finds what the axles and sides of the van carry with all finishes in it, from the shares of the purchases' masses
/// and where each surface is; what is fitted by the log's ticks; and says where plate or allowance are passed. Replaces
/// what was found before. @pre shareCosts() has been run
void weighVan(const Job& job, Plan& plan);

} // namespace westrum
