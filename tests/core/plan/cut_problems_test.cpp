#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/plan/cut_problems.h"
#include "formats/demo.h"
#include "tests/support/cuts.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

class CutProblemsTest : public QObject {
    Q_OBJECT

    static const CutProblem* find(const std::vector<CutProblem>& all, const std::string& product) {
        for (const CutProblem& p : all)
            if (p.product.id == product) return &p;
        return nullptr;
    }
    static Reading reading(double mm) { return {std::to_string(int(mm)), {mm}}; }

private slots:
    void planksComeAsTheSetOutSharesThemOut() {
        const Job job = demoFloor();
        const Plan p = plan(job);
        const auto all = cutProblems(job, p);
        const CutProblem* planks = find(all, job.face("floor")->product);
        QVERIFY(planks);
        const SetOut& setOut = p.surface("floor")->setOut();
        QCOMPARE(planks->decided.size(), setOut.stock.size());
        QCOMPARE(planks->pieces.size(), setOut.pieces.size());
        const ProductCut cut = cutProduct(*planks, {});
        QCOMPARE(cut.itemsToBuy, int(setOut.stock.size()));
        QCOMPARE(cut.leastItems, setOut.leastStock);
        for (const CutItem& item : cut.items) {
            double used = 0;
            for (const LyingPiece& l : item.pieces) {
                const Bounds b = boundsOf(l.shape);
                QVERIFY(b.low.x >= -0.01 && b.high.x <= item.lengthMm + 0.01 && b.high.y <= item.widthMm + 0.01);
                used += areaMm2(l.shape);
            }
            QVERIFY(used <= item.lengthMm * item.widthMm + 1);
        }
    }

    void loosePiecesOfAPlankComeFromTheFloorsOffcuts() {
        Job job = demoFloor();
        const std::string product = job.face("floor")->product;
        const Plan p = plan(job);
        double longest = 0;
        for (const StockUnit& u : p.surface("floor")->setOut().stock)
            for (const Offcut& o : u.offcuts)
                if (!o.ripped) longest = std::max(longest, o.length.value);
        QVERIFY(longest >= 300);
        job.cutLists[product].pieces = {{.id = "p1", .name = "Threshold", .length = reading(longest - 10)}};
        const auto all = cutProblems(job, p);
        const ProductCut cut = cutProduct(*find(all, product), {.iterations = 200});
        int fromOffcut = 0;
        for (const CutItem& item : cut.items)
            if (!item.decided) fromOffcut += item.rack ? 1 : 10;
        QCOMPARE(fromOffcut, 1);
        // It was bought with its plank: nothing is counted twice, and it is a leftover no more.
        QCOMPARE(cut.figures.fromRack, 0.0);
        for (const CutItem& item : cut.items)
            for (const LeftRectangle& left : item.left) QVERIFY(left.widthMm < longest - 0.01);
        QVERIFY(cut.unplaced.empty());
        QCOMPARE(cut.itemsToBuy, int(p.surface("floor")->setOut().stock.size()));
    }

    void aLineThatIsNotReadyIsToldAndTheOthersArePlanned() {
        Job job = demoFloor();
        CutList& list = job.cutLists["dipper-ply"];
        list.pieces = {{.id = "p1", .name = "Lid", .length = reading(500), .width = reading(300)},
                       {.id = "p2", .name = "Half typed", .length = reading(500)}};
        const auto all = cutProblems(job, plan(job));
        const CutProblem* ply = find(all, "dipper-ply");
        QCOMPARE(ply->pieces.size(), 1UL);
        QCOMPARE(ply->troubles.size(), 1UL);
        QCOMPARE(ply->troubles[0].name, std::string("Half typed"));
        list.useOwnStock = false;
        for (StockEntry& s : list.stock) s.used = false;
        const auto without = cutProblems(job, plan(job));
        QVERIFY(find(without, "dipper-ply")->stock.empty());
    }

    void shapesForASawAreSawnOutAsRectangles() {
        Job job = demoFloor();
        LoosePiece shape{.id = "p1", .name = "Gusset"};
        shape.shape = {{{{100, 100}, {500, 100}, {100, 300}}}};
        job.cutLists["dipper-ply"].pieces = {shape};
        const auto all = cutProblems(job, plan(job));
        const CutPiece& piece = find(all, "dipper-ply")->pieces[0];
        QCOMPARE(piece.lengthMm(), 400.0);
        QCOMPARE(piece.widthMm(), 200.0);
        QCOMPARE(piece.marks.size(), 1UL);
        QVERIFY(piece.marks[0].front() == (Point{0, 0})); // marked where it lies in the rectangle
        QCOMPARE(piece.marks[0].size(), 4UL);
    }

    void whatIsCutIsBoughtAndWeighed() {
        const Job job = demoFloor();
        const Plan bare = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, bare)) cuts.push_back(cutProduct(problem, {.iterations = 1}));
        const Plan whole = withCuts(bare, job, cuts);
        std::int64_t extra = 0;
        for (const ProductCut& cut : cuts)
            if (cut.product != job.face("floor")->product) extra += cut.cost->minor;
        QCOMPARE(whole.totals.cost->minor, bare.totals.cost->minor + extra);
        std::int64_t sum = 0;
        for (const Purchase& p : whole.purchases) sum += p.cost->minor;
        QCOMPARE(sum, whole.totals.cost->minor);
        QVERIFY(whole.totals.laidMass > bare.totals.laidMass);
        // Of all finishes together as much lies as their pieces cover, the openings in them out; what is bought covers
        // that and the waste, and weighs something whatever it is.
        double laid = 0;
        for (const SurfacePlan& s : whole.surfaces)
            for (const LayerPlan& l : s.layers)
                if (l.setOut.laid()) laid += l.area.value;
        for (const ProductCut& cut : cuts)
            for (const CutPiece& piece : cut.pieces)
                if (const Family* f = familyOf(job.catalogue.find(cut.product)->family);
                    !piece.weighed && f->product.role == LayerRole::Finish && !f->laid.unitsBySetOut)
                    laid += areaMm2(piece.shape) / 1e6;
        QVERIFY(std::abs(whole.totals.laidArea.value - laid) < 1e-6);
        QVERIFY(whole.totals.boughtArea.value >= whole.totals.consumedArea.value - 1e-9);
        for (const Purchase& p : whole.purchases) {
            double rack = 0; // lies too, and is not bought
            for (const ProductCut& cut : cuts)
                for (const CutItem& item : cut.items)
                    if (cut.product == p.product && item.rack) rack += item.lengthMm * item.widthMm / 1e6;
            if (p.boughtArea.value > 0) QVERIFY2(p.wasteOfBought().value + rack >= -1e-9, p.product.c_str());
            if (p.packs > 0 && !p.serves) QVERIFY2(p.boughtMass.value > 0, p.product.c_str());
        }
    }

    void aPieceOnPlanksIsBoughtByThePack() {
        // Loose pieces that no offcut serves open further planks: packs are counted over floor and pieces together.
        Job job = jobWith(rectangle(2440, 900), plankProduct(1220, 180, 10, 4000),
                          {{"gap", 0}, {"stagger", 0}, {"endLeast", 100}});
        const std::string product = job.face("floor")->product;
        const Plan bare = plan(job);
        const int opened = bare.purchases[0].unitsNeeded;
        QVERIFY(opened > 0);
        LoosePiece step{.id = "p1", .name = "Step", .length = reading(1200), .count = 11};
        job.cutLists[product].pieces = {step};
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, bare))
            cuts.push_back(cutProduct(problem, {.iterations = 100}));
        QCOMPARE(cuts.size(), 1UL);
        QCOMPARE(cuts[0].itemsToBuy, opened + 11);
        const Plan whole = withCuts(bare, job, cuts);
        QCOMPARE(whole.purchases.size(), 1UL);
        QCOMPARE(whole.purchases[0].unitsNeeded, opened + 11);
        QCOMPARE(whole.purchases[0].packs, (opened + 11 + 9) / 10);
        QCOMPARE(whole.totals.cost->minor, 4000 * whole.purchases[0].packs);
    }

    void aMissingPriceLeavesNoTotal() {
        Job job = demoFloor();
        for (Product& p : job.catalogue.products)
            if (p.id == "dipper-ply") p.packPrice.reset();
        const Plan bare = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, bare)) cuts.push_back(cutProduct(problem, {.iterations = 1}));
        QVERIFY(bare.totals.cost.has_value());
        QVERIFY(!withCuts(bare, job, cuts).totals.cost.has_value());
    }

    void aProductWhoseFieldsAreWrongIsToldNotCut() {
        Job job = demoFloor();
        for (Product& p : job.catalogue.products)
            if (p.id == "dipper-ply") p.fields["length"] = -5;
        const auto all = cutProblems(job, plan(job));
        const CutProblem* ply = find(all, "dipper-ply");
        QVERIFY(ply && ply->pieces.empty());
        QVERIFY(ply->troubles[0].fault == CuttingFault::StockNotPositive);
        QVERIFY(cutProduct(*ply, {.iterations = 1}).items.empty());
    }

    void theSameChangeLeavesOtherProblemsAsTheyWere() {
        Job job = demoFloor();
        const Plan p = plan(job);
        const auto before = cutProblems(job, p);
        job.cutLists["dipper-ply"].pieces[0].count = 2;
        const auto after = cutProblems(job, p);
        QCOMPARE(before.size(), after.size());
        for (std::size_t i = 0; i < before.size(); ++i)
            QCOMPARE(before[i] == after[i], before[i].product.id != "dipper-ply");
    }

    void piecesOfOneNameAreNumbered() {
        Job job = demoFloor();
        job.cutLists["dipper-ply"].pieces = {
            {.id = "p7", .name = "Slat", .length = reading(500), .width = reading(60), .count = 3}};
        const auto all = cutProblems(job, plan(job));
        const CutProblem* ply = find(all, "dipper-ply");
        QCOMPARE(ply->pieces.size(), 3UL);
        QCOMPARE(ply->pieces[2].name, std::string("Slat 3"));
        QCOMPARE(ply->pieces[2].key, std::string("loose/p7/3"));
        job.cutLists["dipper-ply"].pieces[0].count = 0;
        const auto none = cutProblems(job, plan(job));
        QVERIFY(!find(none, "dipper-ply") || find(none, "dipper-ply")->pieces.empty());
    }

    void anOffcutOfAnyShapeServesASawByItsLargestRectangle() {
        Job job = demoFloor();
        CutList& list = job.cutLists["dipper-ply"];
        list.stock.clear();
        StockEntry corner{.id = "s1", .name = "corner", .rack = true};
        corner.shape = {{{{0, 0}, {1000, 0}, {0, 800}}}};
        list.stock = {corner};
        const auto all = cutProblems(job, plan(job));
        const CutStock& stock = find(all, "dipper-ply")->stock.back();
        QVERIFY(stock.shape.empty());
        QVERIFY(stock.lengthMm * stock.widthMm > 0.9 * 500 * 400 && stock.lengthMm / 1000 + stock.widthMm / 800 <= 1);
        QCOMPARE(stock.count, std::optional(1));
    }
};

WESTRUM_TEST(CutProblemsTest)
#include "cut_problems_test.moc"
