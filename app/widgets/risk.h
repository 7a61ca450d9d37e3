#pragma once

#include "core/plan/plan.h"

namespace westrum {

/// The purchase that is likeliest to run short while it is cut; null if none can.
inline const Purchase* riskiest(const Plan& plan, double spoilChance) {
    const Purchase* worst = nullptr;
    double most = 0;
    for (const Purchase& p : plan.purchases) {
        if (p.quantity == Quantity::Length || p.measuredOut()) continue;
        const double risk = chanceOfRunningShort(p.unitsNeeded, plan.cutUnits(p.product), p.unitsAtHand(), spoilChance);
        if (risk <= most) continue;
        most = risk;
        worst = &p;
    }
    return worst;
}

} // namespace westrum
