#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// A size in which something is sold: a tin, a cartridge, a pack.
struct PackSize {
    double amount{};           ///< litres, kg, metres or pieces in one; > 0
    std::int64_t priceMinor{}; ///< of one, in minor units; >= 0
};

/// How many of each size, in the order asked.
struct PackChoice {
    std::vector<int> counts;
    double amount{};
    std::int64_t costMinor{};
    [[nodiscard]] int packs() const;
    friend bool operator==(const PackChoice&, const PackChoice&) = default;
};

/// The cheapest packs that together hold at least `need`; of equally cheap ones the fewest, then those that hold most.
/// Exact. Nothing if there are no sizes.
/// @param need  >= 0, in the sizes' unit
/// 1.648 l from 0.375 at 11.90, 0.75 at 18.90 and 2.5 at 49.90: one of 0.375 and two of 0.75, 49.70.
std::optional<PackChoice> leastCostPacks(double need, std::span<const PackSize> sizes);

} // namespace westrum
