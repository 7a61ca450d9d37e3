#pragma once

#include "core/buying/price_book.h"
#include "core/catalogue/product.h"

#include <cstdint>
#include <string>
#include <vector>

namespace westrum {

/// A supplier's list of prices, asked for anew. What it says is reviewed before it is taken in.
class PriceFeed {
public:
    virtual ~PriceFeed() = default;
    /// Everything that the supplier sells now, what he no longer has among it.
    [[nodiscard]] virtual std::vector<Offer> fetch() = 0;
};

/// A stand-in: sells what a catalogue has, a little dearer or cheaper at each fetch, with one in twelve out of stock
/// and one in twenty withdrawn. The same seed gives the same prices.
class SimulatedPriceFeed final : public PriceFeed {
public:
    SimulatedPriceFeed(Catalogue catalogue, std::string supplier, std::string date, std::uint64_t seed);
    [[nodiscard]] std::vector<Offer> fetch() override;

private:
    Catalogue catalogue_;
    std::string supplier_, date_;
    std::uint64_t state_;
};

} // namespace westrum
