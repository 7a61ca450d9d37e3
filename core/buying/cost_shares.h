#pragma once

#include "core/units/money.h"

#include <span>
#include <utility>
#include <vector>

namespace westrum {

/// One unit of stock that was bought (a plank, a sheet, a run of a roll, a length), and who cuts from it.
struct SharedUnit {
    double size{};                             ///< mm2, mm, litres: the same for all units of a product
    std::vector<std::pair<int, double>> taken; ///< place of the surface, and what its pieces take of the unit
};

/// How what was paid for a product is shared among surfaces.
struct CostShares {
    std::vector<double> consumed; ///< by surface: what its pieces take, and its share of what is left of each unit
    std::vector<Money> share;     ///< by surface; the sum is the total to the last minor unit
};

/// A unit's offcut belongs to those who cut from it, in proportion to what they take; a unit that nobody touched
/// belongs to all, in proportion to what they consumed. Where nothing at all is consumed all bear it alike.
/// Whole minor units are given by the largest remainder, the first of equals first.
/// @param surfaces  how many there are, >= 1  @param total  what all units cost together
/// Source: docs/formulae.md#shares
CostShares shareCost(int surfaces, std::span<const SharedUnit> units, Money total);

/// An amount in parts as their weights are to each other, whole minor units, largest remainder first. The parts add up
/// to the amount. @pre weights >= 0; all zero: equal parts
std::vector<Money> inParts(Money total, std::span<const double> weights);

} // namespace westrum
