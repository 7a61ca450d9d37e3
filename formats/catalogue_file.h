#pragma once

#include "core/catalogue/product.h"
#include "core/units/remark.h"

#include <QByteArray>
#include <QString>

#include <string>
#include <vector>

namespace westrum {

inline constexpr qsizetype kLargestCatalogue = 8 * 1024 * 1024;
inline constexpr std::size_t kMostProducts = 2000;

/// What is wrong with a line of a catalogue; the other lines are read.
struct CatalogueFault {
    enum class Kind {
        Empty,
        TooLarge,
        NoHeading, ///< the first line does not name the columns id, family and name
        TooFewCells,
        UnknownFamily, ///< `text`
        NoName,
        BadNumber,     ///< `text` in the column `column`
        OutOfRange,    ///< the same
        BadPrice,      ///< `text`
        OtherCurrency, ///< `text`
        TooMany,
    };
    Kind kind{};
    int line = 0;
    QString text{};
    QString column{};
};

struct CatalogueReading {
    std::vector<Product> products; ///< the sound lines, in order; ids unique among them
    std::vector<CatalogueFault> faults;
};

/// Reads products: one a line, columns by their heading in any order; docs/formats/catalogue.md. A product without an
/// id gets one from its name that `known` does not have; one with a known id is to replace it.
/// @param currency  of the prices: others are a fault of their line
CatalogueReading readCatalogue(const QByteArray& bytes, const Currency& currency, const Catalogue& known);

/// All products, one a line, with every family's fields as columns; harmless in a spreadsheet.
QByteArray catalogueAsCsv(const Catalogue& catalogue);

QString sentence(const CatalogueFault& fault);

} // namespace westrum
