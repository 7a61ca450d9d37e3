#pragma once

#include "core/plan/job.h"

namespace westrum {

// What each computation reads of a job: a job of which everything else is left as a new one has it, so that the
// computation cannot read more than its input names. Equal input: the old answer stands. Unequal: it is out of date,
// whatever was edited.

/// Of the first stage: what was measured, the build-ups chosen, their products, and the lengths that a set-out may
/// choose among.
struct SurfacesInput {
    Job read;
    friend bool operator==(const SurfacesInput&, const SurfacesInput&) = default;
};
SurfacesInput surfacesInput(const Job& job);

/// Of what is to be cut, besides the first stage: the lists that a person added, and the seed of the searches.
struct CuttingInput {
    Job read;
    friend bool operator==(const CuttingInput&, const CuttingInput&) = default;
};
CuttingInput cuttingInput(const Job& job);

/// Of the second stage, besides the first and the cuts: prices, offers, spares, and how often a cut is spoilt.
struct PurchasesInput {
    Job read;
    friend bool operator==(const PurchasesInput&, const PurchasesInput&) = default;
};
PurchasesInput purchasesInput(const Job& job);

/// Of the third stage, besides the others: where surfaces stand, the van's own masses, and what is ticked as done.
struct BalanceInput {
    Job read;
    friend bool operator==(const BalanceInput&, const BalanceInput&) = default;
};
BalanceInput balanceInput(const Job& job);

/// Of how often what is bought would not do: all that the first stage and the cutting read, and the chance of a spoilt
/// cut.
struct OddsInput {
    Job read;
    friend bool operator==(const OddsInput&, const OddsInput&) = default;
};
OddsInput oddsInput(const Job& job);

/// Of what other ways of laying would buy or come to: all that is planned, cut and paid by, and every option.
struct ComparisonInput {
    Job read;
    friend bool operator==(const ComparisonInput&, const ComparisonInput&) = default;
};
ComparisonInput comparisonInput(const Job& job);

} // namespace westrum
