#include "core/buying/price_book.h"

#include <cmath>

namespace westrum {

std::optional<Money> priceOf(const Offer& offer, const Currency& currency, const PriceBook& book) {
    double minor = static_cast<double>(offer.price.minor) * (offer.taxIncluded ? 1 : 1 + offer.tax);
    if (offer.price.currency != currency) {
        const auto rate = book.rates.find(offer.price.currency.name());
        if (rate == book.rates.end() || !(rate->second > 0)) return std::nullopt;
        minor *= rate->second * std::pow(10, currency.decimals - offer.price.currency.decimals);
    }
    if (!(std::abs(minor) <= static_cast<double>(kMostMinorUnits))) return std::nullopt;
    return Money{std::llround(minor), currency};
}

} // namespace westrum
