#include "formats/price_file.h"

#include "core/units/parse.h"
#include "core/units/print.h"
#include "formats/csv.h"

#include <QCoreApplication>
#include <QStringDecoder>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace westrum {
namespace {

struct PriceWords {
    Q_DECLARE_TR_FUNCTIONS(PriceWords)
};

constexpr std::size_t kMostFaults = 100;

QString decoded(const QByteArray& bytes) {
    if (bytes.startsWith("\xFF\xFE") || bytes.startsWith("\xFE\xFF")) {
        QStringDecoder utf16(QStringDecoder::Utf16);
        return utf16(bytes);
    }
    QStringDecoder utf8(QStringDecoder::Utf8);
    const QString text = utf8(bytes);
    return utf8.hasError() ? QString::fromLatin1(bytes) : text;
}

/// A text that was made harmless for a spreadsheet, as it was before.
QString unescaped(const QString& cell) {
    return cell.size() > 1 && cell.front() == QLatin1Char('\'') ? cell.mid(1) : cell;
}

std::string keyOf(const Offer& o) {
    return o.product + '\n' + o.supplier + '\n' + std::to_string(std::llround(o.size * 1000));
}

const char* wordOf(LotRule l) { return l == LotRule::One ? "one" : l == LotRule::Any ? "any" : ""; }

const char* wordOf(OfferState s) {
    return s == OfferState::Sold ? "sold" : s == OfferState::OutOfStock ? "out of stock" : "withdrawn";
}

class Reader {
public:
    Reader(const Currency& currency, const Catalogue& catalogue) : currency_(currency) {
        for (const Product& p : catalogue.products) {
            names_.emplace(QString::fromStdString(p.name).toLower(), p.id);
            ids_.insert(p.id);
        }
    }

    PriceReading read(const QString& all) {
        CsvReader rows(all, csvSeparator(all.section(QLatin1Char('\n'), 0, 0)));
        for (CsvRow row; rows.next(row);) {
            const int number = row.line;
            const QStringList& cells = row.cells;
            if (columns_.empty()) {
                for (int i = 0; i < cells.size(); ++i) columns_.emplace(cells[i].toLower(), i);
                if (columns_.contains(QStringLiteral("product")) && columns_.contains(QStringLiteral("price")))
                    continue;
                fault(PriceFault::Kind::NoHeading, number);
                break;
            }
            if (reading_.offers.size() >= kMostOffers) {
                fault(PriceFault::Kind::TooMany, number);
                break;
            }
            offer(cells, number);
        }
        return std::move(reading_);
    }

private:
    void fault(PriceFault::Kind kind, int line, const QString& text = {}, const QString& column = {}) {
        ++reading_.faulty;
        if (reading_.faults.size() < kMostFaults) reading_.faults.push_back({kind, line, text.left(60), column});
    }
    QString cell(const QStringList& cells, const char* column) const {
        const auto at = columns_.find(QString::fromLatin1(column));
        return at == columns_.end() || at->second >= cells.size() ? QString() : unescaped(cells[at->second]);
    }
    /// A number of a column; nothing, and a fault, if it is none. An empty cell is `otherwise`.
    std::optional<double> number(const QStringList& cells, const char* column, double otherwise, double most,
                                 int line) {
        const QString text = cell(cells, column);
        if (text.isEmpty()) return otherwise;
        const auto n = parseNumber(text.toStdString());
        if (n && n.value() >= 0 && n.value() <= most) return n.value();
        fault(PriceFault::Kind::BadNumber, line, text, QString::fromLatin1(column));
        return std::nullopt;
    }

    void offer(const QStringList& cells, int line) {
        Offer o;
        const QString product = cell(cells, "product");
        if (ids_.contains(product.toStdString()))
            o.product = product.toStdString();
        else if (const auto named = names_.find(product.toLower()); named != names_.end())
            o.product = named->second;
        else
            return fault(PriceFault::Kind::UnknownProduct, line, product);
        o.supplier = cell(cells, "supplier").toStdString();
        if (o.supplier.empty()) return fault(PriceFault::Kind::NoSupplier, line);
        const QString code = cell(cells, "currency");
        const auto currency = code.isEmpty() ? std::optional(currency_) : currencyOf(code.toUpper().toStdString());
        if (!currency) return fault(PriceFault::Kind::UnknownCurrency, line, code);
        const QString price = cell(cells, "price");
        const auto money = parseMoney(price.toStdString(), *currency);
        if (!money) return fault(PriceFault::Kind::BadPrice, line, price);
        o.price = money.value();
        const auto size = number(cells, "size", 0, 1e6, line), tax = number(cells, "tax %", 0, 200, line);
        if (!size || !tax) return;
        o.size = *size;
        o.tax = *tax / 100;
        const QString included = cell(cells, "tax included").toLower();
        o.taxIncluded = included != QStringLiteral("no") && included != QStringLiteral("0");
        const QString state = cell(cells, "state").toLower();
        for (const OfferState s : {OfferState::OutOfStock, OfferState::Withdrawn})
            if (state == QLatin1String(wordOf(s))) o.state = s;
        const QString lot = cell(cells, "lot").toLower();
        for (const LotRule l : {LotRule::One, LotRule::Any})
            if (lot == QLatin1String(wordOf(l))) o.lot = l;
        o.date = cell(cells, "date").left(40).toStdString();
        if (!seen_.insert(keyOf(o)).second) return fault(PriceFault::Kind::Twice, line, product);
        reading_.offers.push_back(std::move(o));
    }

    Currency currency_;
    std::map<QString, std::string> names_;
    std::set<std::string> ids_, seen_;
    std::map<QString, int> columns_;
    PriceReading reading_;
};

} // namespace

PriceReading readPrices(const QByteArray& bytes, const Currency& currency, const Catalogue& catalogue) {
    PriceReading refused;
    refused.faulty = 1;
    if (bytes.size() > kLargestPriceFile) {
        refused.faults.push_back({PriceFault::Kind::TooLarge, 0, {}, {}});
        return refused;
    }
    const QString text = decoded(bytes);
    if (text.trimmed().isEmpty()) {
        refused.faults.push_back({PriceFault::Kind::Empty, 0, {}, {}});
        return refused;
    }
    return Reader(currency, catalogue).read(text);
}

QByteArray pricesAsCsv(const PriceBook& book, const Catalogue& catalogue) {
    QByteArray out = "product,name,supplier,size,price,currency,tax %,tax included,state,lot,date\n";
    for (const Offer& o : book.offers) {
        const Product* p = catalogue.find(o.product);
        out += csvCell(QString::fromStdString(o.product)) + ',' +
               csvCell(p ? QString::fromStdString(p->name) : QString()) + ',' +
               csvCell(QString::fromStdString(o.supplier)) + ',' + csvNumber(o.size, 3) + ',' +
               QByteArray::fromStdString(printMoney(o.price, '.', false)).replace("\xE2\x80\xAF", "") + ',' +
               QByteArray::fromStdString(o.price.currency.name()) + ',' + csvNumber(o.tax * 100, 2) + ',' +
               (o.taxIncluded ? "yes" : "no") + ',' + wordOf(o.state) + ',' + wordOf(o.lot) + ',' +
               csvCell(QString::fromStdString(o.date)) + '\n';
    }
    return out;
}

QString sentence(const PriceFault& f) {
    switch (f.kind) {
    case PriceFault::Kind::Empty: return PriceWords::tr("The list is empty.");
    case PriceFault::Kind::TooLarge: return PriceWords::tr("The list is too large.");
    case PriceFault::Kind::NoHeading:
        return PriceWords::tr("Its first line does not name the columns: product and price at least.");
    case PriceFault::Kind::UnknownProduct:
        return PriceWords::tr("Line %1: no product is called “%2”.").arg(f.line).arg(f.text);
    case PriceFault::Kind::NoSupplier: return PriceWords::tr("Line %1 names no supplier.").arg(f.line);
    case PriceFault::Kind::BadPrice: return PriceWords::tr("Line %1: “%2” is no price.").arg(f.line).arg(f.text);
    case PriceFault::Kind::UnknownCurrency:
        return PriceWords::tr("Line %1: “%2” is no currency.").arg(f.line).arg(f.text);
    case PriceFault::Kind::BadNumber:
        return PriceWords::tr("Line %1: “%2” is no number for the column %3.").arg(f.line).arg(f.text, f.column);
    case PriceFault::Kind::Twice:
        return PriceWords::tr("Line %1 repeats an earlier one of %2.").arg(f.line).arg(f.text);
    case PriceFault::Kind::TooMany: return PriceWords::tr("More than %1 lines: the rest is left.").arg(kMostOffers);
    }
    return {};
}

std::vector<PriceChange> reviewPrices(const PriceBook& book, const std::vector<Offer>& incoming) {
    std::map<std::string, const Offer*> known;
    for (const Offer& o : book.offers) known[keyOf(o)] = &o;
    std::vector<PriceChange> changes;
    for (const Offer& o : incoming) {
        const auto was = known.find(keyOf(o));
        if (was == known.end()) {
            changes.push_back({PriceChange::Kind::New, o, {}});
            continue;
        }
        const Offer& before = *was->second;
        Offer dated = before; // another date alone is no change
        dated.date = o.date;
        if (dated == o) continue;
        PriceChange c{PriceChange::Kind::Same, o, before};
        if (o.state != OfferState::Sold && before.state == OfferState::Sold)
            c.kind = PriceChange::Kind::Gone;
        else if (o.state == OfferState::Sold && before.state != OfferState::Sold)
            c.kind = PriceChange::Kind::Back;
        else if (o.price.currency == before.price.currency && o.price.minor != before.price.minor)
            c.kind = o.price.minor > before.price.minor ? PriceChange::Kind::Dearer : PriceChange::Kind::Cheaper;
        changes.push_back(std::move(c));
    }
    return changes;
}

PriceBook withPrices(PriceBook book, const std::vector<Offer>& offers) {
    std::map<std::string, std::size_t> known;
    for (std::size_t i = 0; i < book.offers.size(); ++i) known[keyOf(book.offers[i])] = i;
    for (const Offer& o : offers) {
        const auto was = known.find(keyOf(o));
        if (was != known.end())
            book.offers[was->second] = o;
        else if (book.offers.size() < kMostOffers) {
            known[keyOf(o)] = book.offers.size();
            book.offers.push_back(o);
        }
    }
    return book;
}

} // namespace westrum
