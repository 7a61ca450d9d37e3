#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cut_problems.h"
#include "core/plan/trips.h"
#include "formats/demo.h"
#include "tests/support/cuts.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

/// A sheet of 2500 x 1250 with pieces from `x` on, each so long.
ProductCut sheetWith(const std::vector<std::pair<double, double>>& pieces) {
    ProductCut c{.product = "ply", .form = StockForm::Sheets};
    CutItem item{.stock = {}, .name = "Ply", .lengthMm = 2500, .widthMm = 1250};
    item.kerfMm = 3;
    for (const auto& [x, length] : pieces) {
        LyingPiece l;
        l.shape = {{rectangle(x, 5, length, 600)}};
        item.pieces.push_back(l);
    }
    c.items = {item};
    return c;
}

} // namespace

/// What is fetched, and how it fits the car.
class TripsTest : public QObject {
    Q_OBJECT
private slots:
    void theYardPartsASheetBetweenItsPieces() {
        // Pieces of 800, 700 and 900 end at 805, 1508 and 2411; a car 1800 long: the furthest place within it is
        // 1509.5, and the rest, 990.5, fits.
        const std::vector cuts{sheetWith({{5, 800}, {808, 700}, {1511, 900}})};
        const auto rough = roughCuts(cuts, Mm{1800}, Mm{1300});
        QCOMPARE(rough.size(), 1UL);
        QCOMPARE(rough[0].across, (std::vector<double>{1509.5}));
        // A short car takes two cuts; one shorter than the longest piece cannot.
        QCOMPARE(roughCuts(cuts, Mm{1000}, {})[0].across, (std::vector<double>{806.5, 1509.5}));
        QVERIFY(roughCuts(cuts, Mm{700}, {})[0].across.empty());
        // One that is long enough asks for nothing, one not measured neither.
        QVERIFY(roughCuts(cuts, Mm{2500}, Mm{1300}).empty());
        QVERIFY(roughCuts(cuts, {}, {}).empty());
        // Too wide for the car both ways: told, and no cut across helps.
        QVERIFY(roughCuts(cuts, Mm{3000}, Mm{1200})[0].across.empty());
    }

    void aCutNeverGoesThroughAPiece() {
        // Side by side: a long piece beside two short ones leaves one place only, where all end.
        ProductCut c = sheetWith({{5, 900}, {908, 500}});
        LyingPiece beside;
        beside.shape = {{rectangle(5, 640, 1403, 500)}};
        c.items[0].pieces.push_back(beside);
        QCOMPARE(roughCuts(std::vector{c}, Mm{1600}, {})[0].across, (std::vector<double>{1409.5}));
    }

    void theYardsBladeTakesNothingOffAPiece() {
        // One piece ends at 1432 and the next begins at 1434: there is no room for a blade of 3 between them.
        QVERIFY(roughCuts(std::vector{sheetWith({{5, 1427}, {1434, 900}})}, Mm{1500}, {})[0].across.empty());
        QCOMPARE(roughCuts(std::vector{sheetWith({{5, 1427}, {1435, 900}})}, Mm{1500}, {})[0].across,
                 (std::vector<double>{1433.5}));
        // Stored the other way round a sheet is as long: it does not go into a car of 1500.
        ProductCut turned = sheetWith({{5, 800}});
        std::swap(turned.items[0].lengthMm, turned.items[0].widthMm);
        QCOMPARE(roughCuts(std::vector{turned}, Mm{1500}, Mm{1300}).size(), 1UL);
        QVERIFY(roughCuts(std::vector{turned}, Mm{2500}, Mm{1300}).empty());
    }

    void sheetsPartedAlikeAreOneLine() {
        ProductCut c = sheetWith({{5, 1200}});
        c.items.push_back(c.items[0]);
        const auto rough = roughCuts(std::vector{c}, Mm{2000}, {});
        QCOMPARE(rough.size(), 1UL);
        QCOMPARE(rough[0].items, 2);
    }

    void everyLineIsFetchedOnceAndCostsAddUp() {
        const Job job = demoJob();
        const Plan planned = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, planned))
            cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 1}));
        const Plan p = withCuts(planned, job, cuts);
        std::vector<int> seen(p.purchases.size(), 0);
        std::int64_t cost = 0;
        for (const Trip& t : tripsOf(job, p)) {
            for (const std::size_t i : t.lines) ++seen[i];
            cost += t.cost->minor;
            QVERIFY(!t.supplier.empty() && t.mass.value > 0);
        }
        QVERIFY(std::all_of(seen.begin(), seen.end(), [](int n) { return n == 1; }));
        QCOMPARE(cost, p.totals.cost->minor);
        // Whatever is parted fits afterwards.
        for (const RoughCut& r : roughCuts(cuts, Mm{1700}, {})) {
            double from = 0;
            for (const double x : r.across) {
                QVERIFY(x - from <= 1700.001);
                from = x;
            }
            if (!r.across.empty()) QVERIFY(r.length.value - from <= 1700.001);
        }
    }
};

WESTRUM_TEST(TripsTest)
#include "trips_test.moc"
