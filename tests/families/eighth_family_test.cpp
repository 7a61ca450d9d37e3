#include <QtTest>

#include "app/stages/setout/set_out_bench.h"
#include "app/stages/setout/start_strip.h"
#include "core/plan/cut_problems.h"
#include "core/plan/odds.h"
#include "core/plan/options.h"
#include "formats/catalogue_file.h"
#include "formats/plan_file.h"
#include "tests/app/bench.h"
#include "tests/families/cork_tiles.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// A family that lives in one folder and one line of a table goes through everything that the shipped ones go through.
class EighthFamilyTest : public QObject {
    Q_OBJECT
    static Product cork() {
        Product p{.id = "cork", .family = "cork", .name = "Siskin cork"};
        p.packPrice = Money{4200, {}};
        return p;
    }
    /// A floor of 1500 x 850 in tiles of 600 x 300, ten to a pack of 42.00.
    static Job job(double startOffset = 0) {
        Job j;
        j.catalogue.products = {cork()};
        Surface floor;
        floor.id = floor.name = "floor";
        floor.kind = SurfaceKind::Floor;
        floor.measurement = test::rectangle(1500, 850);
        j.surfaces = {floor};
        j.finishes["floor"].now().layers = {{.product = "cork", .rules = {{"startOffset", startOffset}}}};
        return j;
    }
    static Plan cutAndBought(const Job& j, std::vector<ProductCut>& cuts) {
        const Plan p = plan(j);
        for (const CutProblem& problem : cutProblems(j, p))
            cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 200}));
        return withCuts(p, j, cuts);
    }

private slots:
    void itIsSetOut() {
        // 850 / 300: rows of 300, 300 and 250; 1500 / 600: tiles of 600, 600 and 300.
        const SetOut s = plan(job()).surface("floor")->setOut();
        QCOMPARE(s.pieces.size(), std::size_t{9});
        QCOMPARE(s.firstRow.value, 300.0);
        QCOMPARE(s.lastRow.value, 250.0);
        // 25 off the first row: 275, 300, 275.
        const SetOut even = plan(job(25)).surface("floor")->setOut();
        QCOMPARE(even.firstRow.value, 275.0);
        QCOMPARE(even.lastRow.value, 275.0);
        const Starts starts = startsOf(job(), "floor");
        QCOMPARE(starts.choices.size(), std::size_t{300});
        QCOMPARE(starts.suggestions.front().choice.startOffset.value, 25.0);
    }

    void itIsCutBoughtAndShared() {
        // Four whole tiles; two of 600 x 250; three ends of 300 wide, two of which make one tile, of 300, 300 and 250
        // high: 4 + 2 + 2 = 8 tiles, one pack of ten, two left whole.
        std::vector<ProductCut> cuts;
        const Job j = job();
        const Plan p = cutAndBought(j, cuts);
        QCOMPARE(cuts.size(), std::size_t{1});
        QCOMPARE(cuts[0].itemsToBuy, 8);
        QVERIFY(cuts[0].unplaced.empty());
        const Purchase& bought = p.purchases.front();
        QCOMPARE(bought.unitsNeeded, 8);
        QCOMPARE(bought.packs, 1);
        QCOMPARE(bought.unitsLeft(), 2);
        QCOMPARE(p.totals.cost->minor, 4200);
        // 1.275 m2 of 1.9 kg.
        QVERIFY(std::abs(bought.laidMass.value - 1.275 * 1.9) < 1e-9);
        QVERIFY(std::abs(p.balance.added.value - 1.275 * 1.9) < 1e-9);
        QCOMPARE(bought.shares.size(), std::size_t{1});
        QCOMPARE(bought.shares[0].cost->minor, 4200);
        QCOMPARE(plain(itemsText("cork", 8)), QStringLiteral("8 tiles"));
        QCOMPARE(plain(packsText(bought)), QStringLiteral("1 pack"));
        const auto odds = oddsOf(j, p, cuts, 4);
        QCOMPARE(odds.size(), p.purchases.size());
        QCOMPARE(odds[0].have, 10.0);
    }

    void itIsFittedTimedAndCompared() {
        const Plan p = plan(job());
        const auto& steps = p.surface("floor")->steps;
        const auto has = [&](const char* key) {
            return std::any_of(steps.begin(), steps.end(), [&](const FitStep& s) { return s.key == key; });
        };
        QVERIFY(has("cork/lay") && has("cork/cut") && has("before/cables"));
        // 1.275 m2 of 0.7 h and nine pieces of 0.03 h.
        QVERIFY(std::abs(hoursFor("cork", 1.275, 9) - 1.1625) < 1e-9);
        const auto figures = optionFigures(job(), "floor");
        QVERIFY(std::abs(figures.front().hours - 1.1625) < 1e-9);
        QCOMPARE(figures.front().suits, (Suitability{1, 1, 2, 1, 1}));
        QCOMPARE(figures.front().cost->minor, 4200);
        // Knife work: four ends of 300 wide and a row of 600 + 600 + 300, so far 2 x 300 + 1500 mm of it.
        const auto blades =
            std::find_if(p.needs.begin(), p.needs.end(), [](const Need& n) { return n.serves == Serves::Blades; });
        QVERIFY(blades != p.needs.end() && std::abs(blades->amount - 2.1) < 1e-9);
    }

    void itGoesThroughFiles() {
        const Job j = job(25);
        const Result<Job, FileFaults> again = readJob(writeJob(j));
        QVERIFY(again.has_value());
        QVERIFY(again.value() == j);
        const CatalogueReading read = readCatalogue(catalogueAsCsv(j.catalogue), j.currency, {});
        QVERIFY(read.faults.empty());
        QCOMPARE(read.products.size(), std::size_t{1});
        QVERIFY(read.products[0].family == "cork");
        std::vector<ProductCut> cuts;
        QVERIFY(planAsText(j, cutAndBought(j, cuts), figuresFor(j)).contains(QStringLiteral("Siskin cork")));
    }

    void itIsChosenAndMovedInTheWindow() {
        Job demo = demoJob();
        demo.catalogue.products.push_back(cork());
        Bench b(demo);
        b.document.setCurrentSurface("floor");
        b.go(MainWindow::SetOut);
        auto* finish = b.find<QComboBox>("product");
        QVERIFY(finish);
        const int at = finish->findData(QStringLiteral("cork"));
        QVERIFY(at >= 0);
        finish->setCurrentIndex(at);
        emit finish->activated(at);
        QVERIFY(settle(b.document));
        QCOMPARE(b.document.job().face("floor")->product, std::string("cork"));
        QVERIFY(b.document.plan()->surface("floor")->setOut().laid());
        // Its start line is dragged by the grip that the family offers, and the strip below follows.
        auto* bench = b.window->findChild<SetOutBench*>();
        const QPointF handle = bench->startHandle();
        QVERIFY(!handle.isNull());
        const double first = b.document.plan()->surface("floor")->setOut().firstRow.value;
        QTest::keyClick(bench, Qt::Key_Down, Qt::ShiftModifier);
        QVERIFY(settle(b.document));
        QCOMPARE(b.document.plan()->surface("floor")->setOut().firstRow.value, first - 10);
        QVERIFY(b.window->findChild<StartStrip*>()->isVisible());
        QVERIFY(!b.document.starts()->choices.empty());
        auto* shown = b.find<QLabel>("setOutFigures");
        QVERIFY(shown && shown->text().contains(QStringLiteral("to cut")));
    }
};
WESTRUM_TEST(EighthFamilyTest)

#include "eighth_family_test.moc"
