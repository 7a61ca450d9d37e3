#pragma once

#include "core/plan/plan.h"

namespace westrum {

/// What a purchase needs to be bought, and what is in one of it as the catalogue has it, in the same measure: units,
/// litres, kg, m2, m, or the unit of what it serves.
struct Sought {
    double need{}, own{};
    bool metres{}; ///< sold off the roll: one option for all of it
};
Sought soughtOf(const Purchase& purchase);

/// Whether packs of it that were left can serve: what is counted or measured out, not what is cut to size (that has the
/// rack).
bool servesFromShelf(const Product& product);

/// Takes what this job has in hand (Job::shelf) off what is to be bought: packs, tins, rolls. Units are taken whole. Of
/// a line that nothing is bought of any more the cost is 0, priced or not. @pre no offers chosen, no spares yet
void useShelf(const Job& job, PurchaseStage& stage);

} // namespace westrum
