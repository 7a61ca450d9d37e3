#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/shape_stock.h"
#include "core/geometry/boolean.h"
#include "tests/support/registry.h"

using namespace westrum;

class ShapeStockTest : public QObject {
    Q_OBJECT

    static Ring box(double w, double h) { return {{0, 0}, {w, 0}, {w, h}, {0, h}}; }
    static Effort someEffort() { return {.seed = 1, .iterations = 3000}; }

    static QString brokenRule(const StockedShapes& problem, const StockedPlan& plan) {
        std::vector<int> placed(problem.pieces.size(), 0);
        for (const UsedShapeStock& used : plan.used) {
            const ShapeStock& stock = problem.stock[used.stock];
            for (const PlacedShape& p : used.plan.placements) {
                ++placed[p.piece];
                const Region lies = lying(problem.pieces[p.piece], p);
                const Bounds b = boundsOf(lies);
                if (b.high.x > stock.lengthMm.value_or(1e9) + 0.1 || b.high.y > stock.widthMm + 0.1)
                    return QStringLiteral("beyond the stock");
                if (!stock.offcut.empty() && areaMm2(difference(inset(lies, 0.1), stock.offcut)) > 1)
                    return QStringLiteral("beyond the offcut");
            }
        }
        for (const std::size_t i : plan.unplaced) ++placed[i];
        for (std::size_t i = 0; i < placed.size(); ++i)
            if (placed[i] != problem.pieces[i].count) return QStringLiteral("piece %1: %2").arg(i).arg(placed[i]);
        return {};
    }

private slots:
    void theRackIsFilledBeforeTheRoll() {
        // An L-shaped offcut of 1000 x 1000 without a quarter takes three of 490 x 490; the other two need the roll.
        StockedShapes problem{.pieces = {{.outline = box(490, 490), .count = 5}}};
        problem.stock = {offcutStock({{{{100, 100}, {1100, 100}, {1100, 600}, {600, 600}, {600, 1100}, {100, 1100}}}}),
                         {.widthMm = 1000}};
        QVERIFY(faultsOf(problem).empty());
        const StockedPlan plan = placeOnStock(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QCOMPARE(plan.used.size(), 2UL);
        QCOMPARE(plan.used[0].stock, 0UL);
        QCOMPARE(plan.used[0].plan.placements.size(), 3UL);
        QVERIFY(plan.used[1].plan.lengthMm < 490.1); // side by side
        QVERIFY(plan.unplaced.empty());
    }

    void sheetsAreTakenOneAfterAnother() {
        // Nine of 600 x 600: four lie on a sheet of 1250 x 1250, so three sheets.
        StockedShapes problem{.gapMm = 3, .pieces = {{.outline = box(600, 600), .count = 9}}};
        problem.stock = {{.widthMm = 1250, .lengthMm = 1250}};
        const StockedPlan plan = placeOnStock(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QCOMPARE(plan.used.size(), 3UL);
        // With two sheets only, one piece is left over.
        problem.stock[0].count = 2;
        const StockedPlan less = placeOnStock(problem, someEffort());
        QCOMPARE(brokenRule(problem, less), QString());
        QCOMPARE(less.unplaced, std::vector<std::size_t>{0});
    }

    void whatFitsOnlyOneKindGoesThere() {
        // The long piece fits the roll only, the small one the offcut.
        StockedShapes problem{.pieces = {{.outline = box(1500, 300)}, {.outline = box(200, 200)}}};
        problem.stock = {offcutStock({{box(300, 300)}}), {.widthMm = 1000}};
        const StockedPlan plan = placeOnStock(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QCOMPARE(plan.used[0].plan.placements[0].piece, 1UL);
        QCOMPARE(plan.used[1].plan.placements[0].piece, 0UL);
    }

    void faultsAreTold() {
        StockedShapes problem{.pieces = {{.outline = box(1500, 300)}}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::NoStock}}));
        problem.stock = {{.widthMm = -1}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::StockNotPositive, 0}}));
        problem.stock = {{.widthMm = 1000, .lengthMm = 1200}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::PieceTooLarge, 0}}));
    }

    void whatIsFixedStaysOnItsItem() {
        // One piece is put on the roll though it would fit the offcut, which comes first.
        StockedShapes problem{.pieces = {{.outline = box(200, 200), .count = 3}}};
        problem.stock = {offcutStock({{box(450, 200)}}), {.widthMm = 1000}};
        problem.fixed = {{1, {0, 0, {600, 700}}}};
        QVERIFY(faultsOf(problem).empty());
        const StockedPlan plan = placeOnStock(problem, someEffort());
        QCOMPARE(plan.used.size(), 2UL);
        QCOMPARE(plan.used[0].plan.placements.size(), 2UL); // the two others fill the offcut
        QCOMPARE(plan.used[1].plan.placements.size(), 1UL);
        QCOMPARE(plan.used[1].plan.placements[0].at, (Point{600, 700}));
        QVERIFY(plan.unplaced.empty());
        // Off the item, or over another: a fault that names the stock.
        problem.fixed = {{0, {0, 0, {300, 0}}}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::LockedDoesNotFit, 0}}));
        problem.fixed = {{1, {0, 0, {0, 0}}}, {1, {0, 0, {100, 100}}}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::LockedDoesNotFit, 1}}));
        problem.fixed = {{7, {0, 0, {0, 0}}}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::LockedUnknown, 0}}));
    }

    void everyBetterPlanIsTold() {
        StockedShapes problem{
            .pieces = {{.outline = box(300, 300), .count = 2}, {.outline = box(700, 180), .count = 5}}};
        problem.stock = {offcutStock({{box(320, 320)}}), {.widthMm = 1000}};
        int told = 0;
        const StockedPlan plan = placeOnStock(problem, someEffort(), [&](const StockedPlan& better) {
            ++told;
            std::size_t there = better.unplaced.size();
            for (const UsedShapeStock& used : better.used) there += used.plan.placements.size();
            QCOMPARE(there, 7UL); // none is ever missing
        });
        QVERIFY(told >= 2);
        QCOMPARE(brokenRule(problem, plan), QString());
    }
};

WESTRUM_TEST(ShapeStockTest)
#include "shape_stock_test.moc"
