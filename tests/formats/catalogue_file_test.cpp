#include <QtTest>

#include "core/catalogue/family.h"
#include "formats/catalogue_file.h"
#include "formats/csv.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

namespace {

using Kind = CatalogueFault::Kind;

CatalogueReading read(const QByteArray& csv, const Catalogue& known = {}) {
    return readCatalogue(csv, Currency{}, known);
}

} // namespace

class CatalogueFileTest : public QObject {
    Q_OBJECT
private slots:
    void theExamplesCatalogueComesBackAsItWent() {
        const Catalogue all = demoJob().catalogue;
        const CatalogueReading back = read(catalogueAsCsv(all), all);
        QVERIFY(back.faults.empty());
        QCOMPARE(back.products.size(), all.products.size());
        for (std::size_t i = 0; i < all.products.size(); ++i) {
            const Product &was = all.products[i], &is = back.products[i];
            QCOMPARE(is.id, was.id);
            QCOMPARE(is.name, was.name);
            QVERIFY(is.packPrice == was.packPrice);
            for (const Field& f : fieldsOfFamily(was.family)) QCOMPARE(valueOf(is.fields, f), valueOf(was.fields, f));
        }
    }

    void aNameOfTwoLinesIsReadWhole() {
        // As our own writer quotes it, and as spreadsheets do.
        Catalogue all = demoJob().catalogue;
        all.products[0].name = "Heron click\nvinyl, \"pale\" oak";
        const CatalogueReading back = read(catalogueAsCsv(all), all);
        QVERIFY(back.faults.empty());
        QCOMPARE(back.products.size(), all.products.size());
        QCOMPARE(back.products[0].name, all.products[0].name);
        all.products[0].name = "'s Heron"; // an apostrophe of its own stays
        QCOMPARE(read(catalogueAsCsv(all), all).products[0].name, all.products[0].name);
        // A quote that is never closed is a character, and an inch mark inside a cell another.
        CsvReader rows(QStringLiteral("a,\"b\nc,72 1/2\" wide\n\n\"d\r\ne\",f"), QLatin1Char(','));
        CsvRow row;
        QVERIFY(rows.next(row) && row.line == 1);
        QCOMPARE(row.cells, (QStringList{QStringLiteral("a"), QStringLiteral("\"b")}));
        QVERIFY(rows.next(row) && row.line == 2);
        QCOMPARE(row.cells, (QStringList{QStringLiteral("c"), QStringLiteral("72 1/2\" wide")}));
        QVERIFY(rows.next(row) && row.line == 4);
        QCOMPARE(row.cells, (QStringList{QStringLiteral("d\r\ne"), QStringLiteral("f")}));
        QVERIFY(!rows.next(row));
    }

    void theExampleHasFiveOfEveryFamilyToChooseFrom() {
        for (const ProductFamily* each : productFamilies()) {
            const ProductFamily& family = *each;
            const auto& all = demoJob().catalogue.products;
            const auto n =
                std::count_if(all.begin(), all.end(), [&](const Product& p) { return p.family == family.id; });
            QVERIFY2(family.id == "roll" || n >= 5, std::string(family.id).c_str());
            for (const Product& p : all)
                if (p.family == family.id)
                    QVERIFY2(checkFields(p.fields, family.fields, p.name, {}).empty(), p.id.c_str());
        }
    }

    void columnsComeInAnyOrderAndSeparator() {
        const CatalogueReading r = read("name;thickness;family;price;width\nPly nine;9;sheet;\"54,80\";1500\n");
        QCOMPARE(r.products.size(), 1U);
        QCOMPARE(r.products[0].id, std::string("ply-nine"));
        QCOMPARE(r.products[0].fields.at("thickness"), 9.0);
        QCOMPARE(r.products[0].packPrice->minor, 5480);
        QVERIFY(!r.products[0].fields.contains("length")); // its default
    }

    void aNewProductTakesAFreeIdAndAKnownOneItsPlace() {
        Catalogue known;
        known.products = {{"ply", "sheet", "Ply", "", {}, {}}};
        QCOMPARE(read("name,family\nPly,sheet\nPly,sheet\n", known).products[1].id, std::string("ply-3"));
        QCOMPARE(read("id,name,family\nply,Ply 2,sheet\n", known).products[0].id, std::string("ply"));
    }

    void aWrongLineIsToldAndTheOthersTaken() {
        const CatalogueReading r = read("family,name,price,currency,thickness\n"
                                        "sheet,Good,10,EUR,6\n"
                                        "cork,Odd,1,EUR,2\n"
                                        "sheet,,1,EUR,2\n"
                                        "sheet,Thick,1,EUR,lots\n"
                                        "sheet,Thick,1,EUR,900\n"
                                        "sheet,Dear,much,EUR,6\n"
                                        "sheet,Far,1,USD,6\n"
                                        "sheet\n"
                                        "sheet,Also good,,,\n");
        QCOMPARE(r.products.size(), 2U);
        const std::vector<Kind> expected{Kind::UnknownFamily, Kind::NoName,        Kind::BadNumber,  Kind::OutOfRange,
                                         Kind::BadPrice,      Kind::OtherCurrency, Kind::TooFewCells};
        QCOMPARE(r.faults.size(), expected.size());
        for (std::size_t i = 0; i < expected.size(); ++i) {
            QVERIFY(r.faults[i].kind == expected[i]);
            QCOMPARE(r.faults[i].line, static_cast<int>(i) + 3);
            QVERIFY(sentence(r.faults[i]).startsWith(QStringLiteral("Line %1").arg(i + 3)));
        }
    }

    void whatIsNoCatalogueIsRefusedInASentence() {
        for (const auto& [bytes, kind] : {std::pair<QByteArray, Kind>{"", Kind::Empty},
                                          {"\n\n", Kind::Empty},
                                          {"a,b,c\n1,2,3\n", Kind::NoHeading},
                                          {QByteArray(kLargestCatalogue + 1, 'x'), Kind::TooLarge}}) {
            const CatalogueReading r = read(bytes);
            QVERIFY(r.products.empty() && r.faults.size() == 1);
            QVERIFY(r.faults[0].kind == kind && !sentence(r.faults[0]).isEmpty());
        }
        QByteArray many = "family,name\n";
        for (std::size_t i = 0; i < kMostProducts + 50; ++i) many += "sheet,P" + QByteArray::number(i) + "\n";
        const CatalogueReading r = read(many);
        QCOMPARE(r.products.size(), kMostProducts);
        QVERIFY(r.faults.back().kind == Kind::TooMany);
    }

    void formulasAreHarmlessOnTheWayOutAndWholeOnTheWayBack() {
        Catalogue c;
        c.products = {{"a", "sheet", "=SUM(A1:A9)", "+cmd|x", {}, {}}, {"b", "sheet", "'quoted'", "@home", {}, {}}};
        const QByteArray csv = catalogueAsCsv(c);
        for (const QByteArray& cell : csv.split(','))
            QVERIFY(!cell.startsWith('=') && !cell.startsWith('+') && !cell.startsWith('@'));
        const CatalogueReading back = read(csv);
        QCOMPARE(back.products[0].name, std::string("=SUM(A1:A9)"));
        QCOMPARE(back.products[0].supplier, std::string("+cmd|x"));
    }

    /// Any bytes: a list of products that pass their own checks, or faults; never anything else.
    void noBytesAreTooMuch() {
        std::mt19937 dice(71);
        const QByteArray good = catalogueAsCsv(demoJob().catalogue);
        for (int round = 0; round < 300; ++round) {
            QByteArray bytes = good.left(static_cast<qsizetype>(dice() % 4000));
            for (unsigned i = 0; i < 1 + dice() % 20; ++i)
                if (!bytes.isEmpty())
                    bytes[static_cast<qsizetype>(dice() % static_cast<unsigned>(bytes.size()))] =
                        static_cast<char>(dice());
            for (const Product& p : read(bytes).products) {
                QVERIFY(productFamily(p.family) && !p.name.empty() && !p.id.empty());
                QVERIFY(checkFields(p.fields, fieldsOfFamily(p.family), "", {}).empty());
            }
        }
    }
};
WESTRUM_TEST(CatalogueFileTest)

#include "catalogue_file_test.moc"
