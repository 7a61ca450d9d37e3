#pragma once

#include "core/plan/take_again.h"
#include "formats/words.h"

namespace westrum {

/// "Left wall, lower, side b: 4 mm longer would cost 38.90 EUR more."
QString takeAgainSentence(const Job& job, const CostlyReading& reading, const Figures& figures);

} // namespace westrum
