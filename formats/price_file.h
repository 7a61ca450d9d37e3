#pragma once

#include "core/buying/price_book.h"
#include "core/catalogue/product.h"

#include <QByteArray>
#include <QString>

#include <string>
#include <vector>

namespace westrum {

inline constexpr qsizetype kLargestPriceFile = 32 * 1024 * 1024;

/// What is wrong with a line of a list of prices; the other lines are read.
struct PriceFault {
    enum class Kind {
        Empty,
        TooLarge,
        NoHeading,      ///< the first line does not name the columns product and price
        UnknownProduct, ///< `text`
        NoSupplier,
        BadPrice,        ///< `text`
        UnknownCurrency, ///< `text`
        BadNumber,       ///< `text` in the column `column`
        Twice,           ///< the same product, supplier and size as an earlier line
        TooMany,
    };
    Kind kind{};
    int line = 0;
    QString text{};
    QString column{};
};

struct PriceReading {
    std::vector<Offer> offers;      ///< the sound lines, in order
    std::vector<PriceFault> faults; ///< at most a hundred are kept, the count is whole
    std::size_t faulty = 0;
};

/// Reads prices: one a line, columns by their heading in any order (docs/formats/prices.md). UTF-8, UTF-16 with its
/// mark, else Latin-1. A product is known by its id or its name.
/// @param currency  of prices that name none
PriceReading readPrices(const QByteArray& bytes, const Currency& currency, const Catalogue& catalogue);

/// All offers, one a line; harmless in a spreadsheet.
QByteArray pricesAsCsv(const PriceBook& book, const Catalogue& catalogue);

QString sentence(const PriceFault& fault);

/// What a list of prices changes in a book.
struct PriceChange {
    enum class Kind { New, Dearer, Cheaper, Gone, Back, Same };
    Kind kind{};
    Offer now;
    std::optional<Offer> before;
};
/// One for each offer that is new or differs, in the order of the list; what stays as it is is left out.
std::vector<PriceChange> reviewPrices(const PriceBook& book, const std::vector<Offer>& incoming);
/// The book with these offers in place of those of the same product, supplier and size.
PriceBook withPrices(PriceBook book, const std::vector<Offer>& offers);

} // namespace westrum
