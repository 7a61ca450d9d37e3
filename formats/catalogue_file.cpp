#include "formats/catalogue_file.h"

#include "core/catalogue/family.h"
#include "core/units/parse.h"
#include "core/units/print.h"
#include "formats/csv.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>
#include <set>

namespace westrum {
namespace {

struct CatalogueWords {
    Q_DECLARE_TR_FUNCTIONS(CatalogueWords)
};

QString fromView(std::string_view s) { return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size())); }

/// Every field key of any family, in the order of the tables.
std::vector<std::string_view> fieldColumns() {
    std::vector<std::string_view> keys;
    for (const ProductFamily* family : productFamilies())
        for (const Field& field : family->fields)
            if (std::find(keys.begin(), keys.end(), field.key) == keys.end()) keys.push_back(field.key);
    return keys;
}

/// Small letters, digits and dashes, as ids are written.
std::string idFrom(const QString& name) {
    std::string id;
    for (const QChar c : name.toLower())
        if (c.unicode() < 0x80 && c.isLetterOrNumber())
            id += static_cast<char>(c.unicode());
        else if (!id.empty() && id.back() != '-')
            id += '-';
    while (!id.empty() && id.back() == '-') id.pop_back();
    return id.empty() ? "product" : id;
}

/// A text that was made harmless for a spreadsheet, as it was before.
QString unescaped(const QString& cell) {
    return cell.size() > 1 && cell.front() == QLatin1Char('\'') ? cell.mid(1) : cell;
}

class Reader {
public:
    Reader(const Currency& currency, const Catalogue& known) : currency_(currency), known_(known) {}

    CatalogueReading read(const QString& all) {
        CsvReader rows(all, csvSeparator(all.section(QLatin1Char('\n'), 0, 0)));
        for (CsvRow row; rows.next(row);) {
            const int number = row.line;
            const QStringList& cells = row.cells;
            if (heading_.isEmpty()) {
                for (const QString& c : cells) heading_ << c.trimmed();
                if (!heading_.contains(QStringLiteral("family")) || !heading_.contains(QStringLiteral("name"))) {
                    fault(CatalogueFault::Kind::NoHeading, number);
                    return std::move(out_);
                }
                continue;
            }
            if (out_.products.size() >= kMostProducts) {
                fault(CatalogueFault::Kind::TooMany, number);
                break;
            }
            product(cells, number);
        }
        if (heading_.isEmpty()) fault(CatalogueFault::Kind::Empty, 0);
        return std::move(out_);
    }

private:
    void fault(CatalogueFault::Kind kind, int line, const QString& text = {}, const QString& column = {}) {
        if (out_.faults.size() < 200) out_.faults.push_back({kind, line, text.left(40), column});
    }

    void product(const QStringList& cells, int line) {
        using Kind = CatalogueFault::Kind;
        const auto cell = [&](const QString& column) {
            const qsizetype at = heading_.indexOf(column);
            return at < 0 || at >= cells.size() ? QString() : unescaped(cells[at]);
        };
        if (cells.size() < 2) return fault(Kind::TooFewCells, line);
        Product p;
        p.family = cell(QStringLiteral("family")).toStdString();
        const ProductFamily* family = productFamily(p.family);
        if (!family) return fault(Kind::UnknownFamily, line, cell(QStringLiteral("family")));
        p.name = cell(QStringLiteral("name")).left(200).toStdString();
        if (p.name.empty()) return fault(Kind::NoName, line);
        p.supplier = cell(QStringLiteral("supplier")).left(200).toStdString();
        const QString priced = cell(QStringLiteral("currency"));
        if (const QString price = cell(QStringLiteral("price")); !price.isEmpty()) {
            if (!priced.isEmpty() && priced.toStdString() != currency_.name())
                return fault(Kind::OtherCurrency, line, priced);
            const auto money = parseMoney(price.toStdString(), currency_);
            if (!money) return fault(Kind::BadPrice, line, price);
            p.packPrice = money.value();
        }
        for (const Field& field : family->fields) {
            const QString text = cell(fromView(field.key));
            if (text.isEmpty()) continue;
            const auto value = parseNumber(text.toStdString());
            if (!value) return fault(Kind::BadNumber, line, text, fromView(field.key));
            if (!checkFields({{std::string(field.key), value.value()}}, std::span(&field, 1), "", {}).empty())
                return fault(Kind::OutOfRange, line, text, fromView(field.key));
            p.fields[std::string(field.key)] = value.value();
        }
        p.id = idFrom(cell(QStringLiteral("id")));
        if (cell(QStringLiteral("id")).isEmpty()) {
            const std::string wanted = idFrom(QString::fromStdString(p.name));
            p.id = wanted;
            for (int n = 2; known_.find(p.id) || ids_.contains(p.id); ++n) p.id = wanted + "-" + std::to_string(n);
        }
        if (!ids_.insert(p.id).second) { // the later line of two with one id is the newer
            std::erase_if(out_.products, [&](const Product& q) { return q.id == p.id; });
        }
        out_.products.push_back(std::move(p));
    }

    Currency currency_;
    const Catalogue& known_;
    QStringList heading_;
    std::set<std::string> ids_;
    CatalogueReading out_;
};

} // namespace

CatalogueReading readCatalogue(const QByteArray& bytes, const Currency& currency, const Catalogue& known) {
    CatalogueReading none;
    if (bytes.size() > kLargestCatalogue) none.faults.push_back({CatalogueFault::Kind::TooLarge});
    if (bytes.trimmed().isEmpty()) none.faults.push_back({CatalogueFault::Kind::Empty});
    if (!none.faults.empty()) return none;
    return Reader(currency, known).read(QString::fromUtf8(bytes.startsWith("\xEF\xBB\xBF") ? bytes.mid(3) : bytes));
}

QByteArray catalogueAsCsv(const Catalogue& catalogue) {
    const std::vector<std::string_view> keys = fieldColumns();
    QByteArray out = "id,family,name,supplier,price,currency";
    for (const std::string_view key : keys) out += ',' + QByteArray(key.data(), static_cast<qsizetype>(key.size()));
    out += "\r\n";
    for (const Product& p : catalogue.products) {
        out += csvCell(QString::fromStdString(p.id)) + ',' + csvCell(QString::fromStdString(p.family)) + ',' +
               csvCell(QString::fromStdString(p.name)) + ',' + csvCell(QString::fromStdString(p.supplier)) + ',';
        if (p.packPrice)
            out += QByteArray::fromStdString(printMoney(*p.packPrice, '.', false)).replace("\xE2\x80\xAF", "") + ',' +
                   p.packPrice->currency.name().c_str();
        else
            out += ',';
        const std::span<const Field> fields = fieldsOfFamily(p.family);
        for (const std::string_view key : keys) {
            out += ',';
            if (const Field* field = findField(fields, key))
                out += QByteArray::number(valueOf(p.fields, *field), 'g', 15);
        }
        out += "\r\n";
    }
    return out;
}

QString sentence(const CatalogueFault& fault) {
    using Kind = CatalogueFault::Kind;
    const auto at = [&](const QString& text) { return CatalogueWords::tr("Line %1: %2").arg(fault.line).arg(text); };
    switch (fault.kind) {
    case Kind::Empty: return CatalogueWords::tr("The file is empty.");
    case Kind::TooLarge: return CatalogueWords::tr("The file is larger than any catalogue can be (8 MB).");
    case Kind::NoHeading:
        return CatalogueWords::tr("The first line must name the columns, “family” and “name” among them.");
    case Kind::TooFewCells: return at(CatalogueWords::tr("there are too few cells."));
    case Kind::UnknownFamily: return at(CatalogueWords::tr("“%1” is no family of products here.").arg(fault.text));
    case Kind::NoName: return at(CatalogueWords::tr("the product has no name."));
    case Kind::BadNumber: return at(CatalogueWords::tr("“%1” under “%2” is no number.").arg(fault.text, fault.column));
    case Kind::OutOfRange:
        return at(CatalogueWords::tr("“%1” under “%2” is beyond what is possible.").arg(fault.text, fault.column));
    case Kind::BadPrice: return at(CatalogueWords::tr("“%1” is no price.").arg(fault.text));
    case Kind::OtherCurrency:
        return at(CatalogueWords::tr("the price is in %1, which this job does not use.").arg(fault.text));
    case Kind::TooMany: return at(CatalogueWords::tr("a catalogue holds no more products than this."));
    }
    return {};
}

} // namespace westrum
