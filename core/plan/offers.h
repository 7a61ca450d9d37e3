#pragma once

#include "core/plan/plan.h"

namespace westrum {

/// Says of every purchase from whom it comes, and where there is a choice of offers, sizes and deliveries buys what
/// needs at least cost (see cheapestPurchases()): lines are rewritten, parted where several sizes serve one need,
/// deliveries added. What is seen comes in one lot, from one supplier, unless an offer says otherwise (see
/// comesInOneLot()). @pre no spares yet
void chooseOffers(const Job& job, PurchaseStage& stage);

} // namespace westrum
