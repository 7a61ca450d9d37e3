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

bool comesInOneLot(const PriceBook& book, const std::string& product, bool usually) {
    bool any = false;
    for (const Offer& o : book.offers) {
        if (o.product != product || o.state == OfferState::Withdrawn) continue;
        if (o.lot == LotRule::One) return true;
        any = any || o.lot == LotRule::Any;
    }
    return usually && !any;
}

} // namespace westrum
