#pragma once

#include "core/units/money.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

enum class OfferState { Sold, OutOfStock, Withdrawn };

/// Whether all of a product must come from one lot, and so from one supplier.
enum class LotRule {
    Usual, ///< as its family has it: what is seen, in one
    One,
    Any
};

/// A product as somebody sells it, besides what the catalogue says.
struct Offer {
    std::string product; ///< id
    std::string supplier;
    double size = 0; ///< what is in one, in the product's own measure: pieces, litres, kg, m; 0: as in the catalogue
    Money price;     ///< of one
    bool taxIncluded = true;
    double tax = 0; ///< share to be added where it is not
    OfferState state{};
    LotRule lot{};
    std::string date; ///< of the price, as it was given
    friend bool operator==(const Offer&, const Offer&) = default;
};

/// What a supplier asks for bringing it.
struct Supplier {
    std::string name;
    std::optional<Money> delivery; ///< once, whatever is bought; nothing: none
    std::optional<Money> freeFrom; ///< for so much of goods it costs nothing
    friend bool operator==(const Supplier&, const Supplier&) = default;
};

struct PriceBook {
    std::vector<Offer> offers;
    std::vector<Supplier> suppliers;
    std::map<std::string, double> rates; ///< by currency code: what one of it is in the job's
    [[nodiscard]] const Supplier* supplier(const std::string& name) const {
        for (const Supplier& s : suppliers)
            if (s.name == name) return &s;
        return nullptr;
    }
    friend bool operator==(const PriceBook&, const PriceBook&) = default;
};

/// An offer's price in the job's currency, tax and all; nothing if its currency has no rate.
std::optional<Money> priceOf(const Offer& offer, const Currency& currency, const PriceBook& book);

/// Whether a product comes in one lot: one offer that says so binds all of them; else one that says it need not.
bool comesInOneLot(const PriceBook& book, const std::string& product, bool usually);

inline constexpr std::size_t kMostOffers = 100000;

} // namespace westrum
