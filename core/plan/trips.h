#pragma once

#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace westrum {

/// Stock too long or too wide for the car that fetches it, and where the yard may part it without hurting a piece.
struct RoughCut {
    std::string product;        ///< id
    std::string size;           ///< name of its stock, where it has several
    int items = 1;              ///< that are parted alike
    Mm length, width;           ///< of one
    std::vector<double> across; ///< mm from its left end; empty: it cannot be parted so that it fits
    friend bool operator==(const RoughCut&, const RoughCut&) = default;
};

/// Of everything that is bought to be cut: as few cuts right across as make all parts fit the load space, each between
/// pieces. Nothing where the load space is not measured. Widths that do not fit are told with no cut.
/// @param loadLength, loadWidth  of the car, as passageOf() gives them
std::vector<RoughCut> roughCuts(std::span<const ProductCut> cuts, std::optional<Mm> loadLength,
                                std::optional<Mm> loadWidth);

/// What is fetched from one supplier.
struct Trip {
    std::string supplier;
    std::vector<std::size_t> lines; ///< places of the plan's purchases
    Kg mass;                        ///< of all that is bought there
    std::optional<Money> cost;      ///< goods and delivery; nothing if a price is missing
    bool brought = false;           ///< he is paid for bringing it
};
/// Supplier by supplier in the alphabet, each with its lines in the plan's order.
std::vector<Trip> tripsOf(const Job& job, const Plan& plan);

} // namespace westrum
