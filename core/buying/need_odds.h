#pragma once

#include "core/cutting/effort.h"

#include <span>
#include <vector>

namespace westrum {

/// How often a product was needed in what number, over many variations of what may go wrong.
class NeedOdds {
public:
    /// @param needs  one for each variation, in any order
    explicit NeedOdds(std::vector<double> needs);

    [[nodiscard]] std::size_t tries() const { return needs_.size(); }
    /// Share of the variations in which `amount` does not suffice; 0 without any.
    [[nodiscard]] double chanceShort(double amount) const;
    /// The least whole number of packs of this size whose chance of not being enough is at most `risk`.
    /// @param perPack  > 0  @param most  gives up there: no number of packs, 0
    [[nodiscard]] int packsFor(double risk, double perPack, int most = 10000) const;
    /// Needs that a share of the variations stays within, 0 to 1.
    [[nodiscard]] double within(double share) const;
    friend bool operator==(const NeedOdds&, const NeedOdds&) = default;

private:
    std::vector<double> needs_; ///< rising
};

/// A reading that is off by chance: normally distributed. @param sigma  >= 0
double offByChance(Dice& dice, double sigma);

/// How many tries at `cuts` cuts are spoiled before all have succeeded, each try failing with a chance of its own.
/// @pre 0 <= spoil < 1
int spoiledTries(Dice& dice, int cuts, double spoil);

} // namespace westrum
