#pragma once

#include <cstdint>
#include <optional>
#include <vector>

namespace westrum {

/// One way to buy a product.
struct BuyOption {
    int product{}, supplier{}; ///< places in the request
    double amount{};           ///< in one, in the need's unit; > 0
    std::int64_t priceMinor{}; ///< of one
};

struct SupplierTerms {
    std::int64_t deliveryMinor{};
    std::optional<std::int64_t> freeFromMinor{}; ///< goods for so much: delivered for nothing
};

/// What is needed, and from whom it can be had.
struct BuyRequest {
    std::vector<double> needs; ///< by product; > 0
    std::vector<bool> oneLot;  ///< by product: all of it from one supplier
    std::vector<SupplierTerms> suppliers;
    std::vector<BuyOption> options;
};

struct BuyAnswer {
    std::vector<int> counts;     ///< by option
    std::vector<bool> delivered; ///< by supplier: asked to bring something, and paid for it
    std::int64_t costMinor{};    ///< goods and deliveries
    std::int64_t leastMinor{};   ///< no answer can cost less
    [[nodiscard]] bool proven() const { return leastMinor >= costMinor; }
};

/// The cheapest purchases that meet every need, deliveries counted, with a bound (see cheapestBySets()); where that
/// leaves a gap and the options are few, by a mixed-integer programme too (GLPK, branch and cut). Products that no
/// option serves are left out. Nothing if there are no options at all. Source: docs/formulae.md#buying
std::optional<BuyAnswer> cheapestPurchases(const BuyRequest& request);

} // namespace westrum
