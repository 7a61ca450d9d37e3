#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/demo.h"
#include "formats/price_file.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class PriceFileTest : public QObject {
    Q_OBJECT
    Catalogue catalogue_ = demoJob().catalogue;
    PriceReading read(const QByteArray& bytes) { return readPrices(bytes, {}, catalogue_); }
    static PriceFault::Kind only(const PriceReading& r) { return r.faults.at(0).kind; }

private slots:
    void linesAreReadByIdOrName() {
        const PriceReading r = read("Product;Price;Supplier;size;tax %;tax included;state;currency;date\n"
                                    "heron-oak;41,20;Yard;0;;;;;2026-11-01\n"
                                    "Heron click vinyl, pale oak;30.00;Overseas;12;20;no;out of stock;GBP;\n");
        QCOMPARE(r.faulty, 0UL);
        QCOMPARE(r.offers.size(), 2UL);
        QCOMPARE(r.offers[0].product, std::string("heron-oak"));
        QCOMPARE(r.offers[0].price.minor, 4120);
        QVERIFY(r.offers[0].taxIncluded && r.offers[0].state == OfferState::Sold);
        QCOMPARE(r.offers[1].product, std::string("heron-oak"));
        QCOMPARE(r.offers[1].size, 12.0);
        QCOMPARE(r.offers[1].tax, 0.2);
        QVERIFY(!r.offers[1].taxIncluded && r.offers[1].state == OfferState::OutOfStock);
        QCOMPARE(r.offers[1].price.currency.name(), std::string("GBP"));
    }

    void whatIsSavedComesBackAndIsHarmless() {
        PriceBook book;
        book.offers = {
            {.product = "heron-oak", .supplier = "=cmd|calc", .size = 2.5, .price = {4120, {}}, .date = "-1+1"},
            {.product = "reed-mat",
             .supplier = "Yard, \"the\" other",
             .price = {99900, {}},
             .taxIncluded = false,
             .tax = 0.19,
             .lot = LotRule::Any},
            {.product = "reed-mat", .supplier = "Third", .price = {1, {}}, .lot = LotRule::One}};
        const QByteArray csv = pricesAsCsv(book, catalogue_);
        QVERIFY(csv.contains("'=cmd|calc") && csv.contains("'-1+1"));
        const PriceReading r = read(csv);
        QCOMPARE(r.faulty, 0UL);
        QVERIFY(r.offers == book.offers);
    }

    void aWrongLineIsToldAndTheOthersTaken() {
        const PriceReading r = read("product,supplier,price,currency,size\n"
                                    "nothing,Yard,1.00,,\n"
                                    "heron-oak,,1.00,,\n"
                                    "heron-oak,Yard,dear,,\n"
                                    "heron-oak,Yard,-3,,\n"
                                    "heron-oak,Yard,1.00,QQ,\n"
                                    "heron-oak,Yard,1.00,,much\n"
                                    "heron-oak,Yard,1.00,,\n"
                                    "heron-oak,Yard,2.00,,\n");
        QCOMPARE(r.offers.size(), 1UL);
        QCOMPARE(r.faulty, 7UL);
        const std::vector<PriceFault::Kind> kinds{
            PriceFault::Kind::UnknownProduct, PriceFault::Kind::NoSupplier,      PriceFault::Kind::BadPrice,
            PriceFault::Kind::BadPrice,       PriceFault::Kind::UnknownCurrency, PriceFault::Kind::BadNumber,
            PriceFault::Kind::Twice};
        for (std::size_t i = 0; i < kinds.size(); ++i) {
            QCOMPARE(r.faults[i].kind, kinds[i]);
            QVERIFY(!sentence(r.faults[i]).isEmpty());
        }
    }

    void hostileListsAreSentences() {
        QCOMPARE(only(read("")), PriceFault::Kind::Empty);
        QCOMPARE(only(read("a,b,c\n1,2,3\n")), PriceFault::Kind::NoHeading);
        QCOMPARE(only(read(QByteArray(kLargestPriceFile + 1, 'x'))), PriceFault::Kind::TooLarge);
        // Other encodings: Latin-1, and UTF-16 with its mark.
        Catalogue named;
        named.products = {{"x", "sheet", "Pl\xC3\xA4ttli", "", {}, {}}};
        QCOMPARE(readPrices("product,supplier,price\nPl\xE4ttli,Y,1\n", {}, named).offers.size(), 1UL);
        const QString wide = QStringLiteral("product,supplier,price\nPlättli,Y,1\n");
        QByteArray utf16("\xFF\xFE");
        utf16.append(reinterpret_cast<const char*>(wide.utf16()), wide.size() * 2);
        QCOMPARE(readPrices(utf16, {}, named).offers.size(), 1UL);
        std::mt19937 dice(3);
        for (int round = 0; round < 300; ++round) {
            QByteArray bytes = "product,price,supplier\n";
            for (std::size_t i = 0, n = dice() % 200; i < n; ++i) bytes.append(static_cast<char>(dice() % 256));
            (void)read(bytes);
        }
    }

    void aHundredThousandLinesAreReadAndNoMore() {
        QByteArray bytes = "product,supplier,price,size\n";
        for (int i = 0; i < 100005; ++i) bytes += "heron-oak,Yard,1.00," + QByteArray::number(i) + '\n';
        const PriceReading r = read(bytes);
        QCOMPARE(r.offers.size(), kMostOffers);
        QCOMPARE(r.faults.back().kind, PriceFault::Kind::TooMany);
    }

    void changesAreReviewedBeforeTheyAreTaken() {
        PriceBook book;
        const Offer oak{.product = "heron-oak", .supplier = "Yard", .price = {4000, {}}, .date = "1"};
        const Offer mat{.product = "reed-mat", .supplier = "Yard", .price = {2000, {}}};
        book.offers = {oak, mat};
        Offer dearer = oak, gone = mat, fresh = mat;
        dearer.price.minor = 4400;
        gone.state = OfferState::Withdrawn;
        fresh.supplier = "Other";
        Offer same = oak;
        same.date = "2";
        QVERIFY(reviewPrices(book, {same}).empty());
        const auto changes = reviewPrices(book, {dearer, gone, fresh});
        QCOMPARE(changes.size(), 3UL);
        QCOMPARE(changes[0].kind, PriceChange::Kind::Dearer);
        QCOMPARE(changes[0].before->price.minor, 4000);
        QCOMPARE(changes[1].kind, PriceChange::Kind::Gone);
        QCOMPARE(changes[2].kind, PriceChange::Kind::New);
        const PriceBook after = withPrices(book, {dearer, gone, fresh});
        QCOMPARE(after.offers.size(), 3UL);
        QVERIFY(reviewPrices(after, {dearer, gone, fresh}).empty());
    }
};

WESTRUM_TEST(PriceFileTest)
#include "price_file_test.moc"
