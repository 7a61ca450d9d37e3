#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/lengths.h"
#include "tests/support/registry.h"

#include <limits>
#include <map>
#include <random>

using namespace westrum;

namespace {

constexpr double kNan = std::numeric_limits<double>::quiet_NaN();

/// Enough for these problems, and the same on every machine.
Effort someEffort(std::int64_t iterations = 60) { return {.seed = 1, .iterations = iterations}; }

/// The rules of cutting lengths, restated: every piece as often as wanted, no bar fuller than it is long, no more
/// bars of a kind than there are, the cost that of the bars, the bound not above it.
QString brokenRule(const LengthsProblem& problem, const LengthsPlan& plan) {
    std::vector<int> cutOf(problem.pieces.size(), 0);
    std::vector<int> bars(problem.stock.size(), 0);
    double cost = 0;
    for (const CutBar& bar : plan.bars) {
        double used = 0;
        for (const std::size_t i : bar.pieces) {
            ++cutOf[i];
            used += problem.pieces[i].lengthMm;
        }
        used += problem.kerfMm * (double(bar.pieces.size()) - 1);
        if (used > problem.stock[bar.stock].lengthMm - 2 * problem.endTrimMm + 1e-6) return QStringLiteral("too full");
        ++bars[bar.stock];
        cost += problem.stock[bar.stock].price;
    }
    for (const std::size_t i : plan.unplaced) ++cutOf[i];
    for (std::size_t i = 0; i < cutOf.size(); ++i)
        if (cutOf[i] != problem.pieces[i].count) return QStringLiteral("piece %1: %2 cut").arg(i).arg(cutOf[i]);
    for (std::size_t s = 0; s < bars.size(); ++s)
        if (bars[s] > problem.stock[s].count.value_or(1 << 30)) return QStringLiteral("more bars than there are");
    if (std::abs(cost - plan.cost) > 1e-6) return QStringLiteral("cost");
    if (plan.lowerBoundCost > plan.cost + 1e-6) return QStringLiteral("bound above cost");
    if (plan.proven && std::abs(plan.lowerBoundCost - plan.cost) > 1e-6) return QStringLiteral("not proved");
    return {};
}

} // namespace

class LengthsTest : public QObject {
    Q_OBJECT

private slots:
    void whatFitsOneBarTakesOne() {
        // 1200 + 1200 + 1190 and two kerfs of 3 are 3596 of 3600: one bar, 4 less a third kerf are left: 1.
        const LengthsProblem problem{.kerfMm = 3, .stock = {{3600, 5}}, .pieces = {{1200, 2}, {1190, 1}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.bars.size(), 1UL);
        QCOMPARE(plan.cost, 5.0);
        QVERIFY(plan.proven);
        QCOMPARE(leftoverMm(problem, plan.bars[0]), 1.0);
    }

    void theLastKerfNeedsNoWood() {
        // 1800 + 3 + 1797 are 3600 to the mm: no kerf is needed behind the last piece.
        const LengthsProblem problem{.kerfMm = 3, .stock = {{3600, 5}}, .pieces = {{1800, 1}, {1797, 1}}};
        QCOMPARE(cutLengths(problem, someEffort()).bars.size(), 1UL);
        // With a trim of 1 at both ends it is 2 too long.
        LengthsProblem trimmed = problem;
        trimmed.endTrimMm = 1;
        QCOMPARE(cutLengths(trimmed, someEffort()).bars.size(), 2UL);
    }

    void theCheaperMixtureIsFound() {
        // Four pieces of 1900. A bar of 2000 at 3.00 takes one, one of 4000 at 5.00 takes two: 2 x 5 beats 4 x 3.
        // With a fifth piece 2 x 5 + 3 = 13 beats 3 x 5 and 5 x 3.
        LengthsProblem problem{.stock = {{2000, 3}, {4000, 5}}, .pieces = {{1900, 4}}};
        QCOMPARE(cutLengths(problem, someEffort()).cost, 10.0);
        problem.pieces[0].count = 5;
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.cost, 13.0);
        QVERIFY(plan.proven);
    }

    void areaAloneWouldPromiseTooMuch() {
        // Seven pieces of 1100 from bars of 3000: 7700 mm would be three bars by length, but a bar holds two: four.
        const LengthsPlan plan = cutLengths({.stock = {{3000, 1}}, .pieces = {{1100, 7}}}, someEffort());
        QCOMPARE(plan.cost, 4.0);
        QVERIFY(plan.proven);
    }

    void theRackIsUsedFirst() {
        // An offcut of 1500 costs nothing: the two pieces of 1400 need it and one new bar of 2000.
        const LengthsProblem problem{.stock = {{2000, 4}, {1500, 0, 1}}, .pieces = {{1400, 2}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.cost, 4.0);
        QVERIFY(plan.proven);
        QVERIFY(std::any_of(plan.bars.begin(), plan.bars.end(), [](const CutBar& b) { return b.stock == 1; }));
    }

    void whatCountedStockCannotHoldIsSaid() {
        const LengthsProblem problem{.stock = {{1000, 1, 2}}, .pieces = {{600, 3}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.unplaced.size(), 1UL);
        QVERIFY(!plan.proven);
        QCOMPARE(brokenRule(problem, plan), QString());
    }

    void aBarAlreadyCutStays() {
        // Bar 0 was cut with one piece of 1000 although it would hold three: the other two take another bar.
        LengthsProblem problem{.stock = {{3000, 2}}, .pieces = {{1000, 3}}};
        problem.locked = {{.stock = 0, .pieces = {0}, .locked = true}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.bars.size(), 2UL);
        QCOMPARE(plan.bars[0], problem.locked[0]);
        QCOMPARE(brokenRule(problem, plan), QString());
    }

    void equalCostsKeepOneLongLeftover() {
        // 2 x 1000 + 2 x 500 from bars of 2000: two bars whatever happens, 1000 left over in all. In one piece it is
        // 1000 (1000 + 1000 and 500 + 500), spread it would be 500 twice.
        const LengthsProblem problem{.stock = {{2000, 1}}, .pieces = {{1000, 2}, {500, 2}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.bars.size(), 2UL);
        double longest = 0;
        for (const CutBar& bar : plan.bars) longest = std::max(longest, leftoverMm(problem, bar));
        QCOMPARE(longest, 1000.0);
    }

    void faultsAreAllTold() {
        const LengthsProblem problem{.kerfMm = -1,
                                     .stock = {{0, 1}, {1000, kNan}},
                                     .pieces = {{kNan, 1}, {0, 1}, {100, -1}, {5000, 1}, {1e7, 1}}};
        const CuttingFaults expected{{CuttingFault::KerfNegative},          {CuttingFault::StockNotPositive, 0},
                                     {CuttingFault::StockPriceNegative, 1}, {CuttingFault::PieceNotPositive, 0},
                                     {CuttingFault::PieceNotPositive, 1},   {CuttingFault::PieceCountNegative, 2},
                                     {CuttingFault::PieceTooLarge, 3},      {CuttingFault::PieceAbsurd, 4}};
        QCOMPARE(faultsOf(problem), expected);
        QCOMPARE(faultsOf(LengthsProblem{}), (CuttingFaults{{CuttingFault::NoPieces}, {CuttingFault::NoStock}}));
        LengthsProblem locked{.stock = {{1000, 1, 1}}, .pieces = {{600, 2}}};
        locked.locked = {{0, {0, 0}, true}, {0, {}, true}, {7, {}, true}};
        QCOMPARE(faultsOf(locked), (CuttingFaults{{CuttingFault::LockedDoesNotFit, 0},
                                                  {CuttingFault::LockedUnknown, 1},
                                                  {CuttingFault::LockedUnknown, 2}}));
    }

    void aKerfWiderThanAPieceIsStillSawn() {
        const LengthsProblem problem{.kerfMm = 500, .stock = {{1000, 1}}, .pieces = {{200, 3}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(plan.bars.size(), 2UL); // 200 + 500 + 200 are 900: two on a bar
        QCOMPARE(brokenRule(problem, plan), QString());
    }

    /// Bars cut up without waste are put together again: the optimum is known.
    void whatWasWholeIsFoundAgain() {
        std::mt19937 dice(7);
        int found = 0;
        for (int round = 0; round < 12; ++round) {
            LengthsProblem problem{.kerfMm = double(dice() % 4), .stock = {{3000, 3}}};
            const int bars = 4 + int(dice() % 6);
            for (int b = 0; b < bars; ++b) {
                double left = 3000;
                while (left > 900) {
                    const double length = 200 + dice() % 600;
                    problem.pieces.push_back({length, 1});
                    left -= length + problem.kerfMm;
                }
                problem.pieces.push_back({left, 1});
            }
            const LengthsPlan plan = cutLengths(problem, someEffort(300));
            QCOMPARE(brokenRule(problem, plan), QString());
            QVERIFY2(plan.lowerBoundCost <= bars * 3 + 1e-9, qPrintable(QString::number(round)));
            found += plan.cost <= bars * 3 + 1e-9;
        }
        QVERIFY2(found >= 11, qPrintable(QString::number(found)));
    }

    /// Rules and a bound that is never above what exhaustive search finds for small problems.
    void rulesHoldForAnyProblem() {
        std::mt19937 dice(11);
        for (int round = 0; round < 60; ++round) {
            LengthsProblem problem{.kerfMm = double(dice() % 9) / 2, .endTrimMm = double(dice() % 3)};
            const int kinds = 1 + int(dice() % 3);
            for (int s = 0; s < kinds; ++s) {
                const double length = 1500 + dice() % 3000;
                problem.stock.push_back({length, std::round(length * (80 + dice() % 40)) / 1e5});
                if (dice() % 4 == 0) problem.stock.back().count = int(dice() % 4);
            }
            problem.stock.push_back({2400, 2.4});
            const int pieces = 1 + int(dice() % 12);
            for (int i = 0; i < pieces; ++i)
                problem.pieces.push_back({50 + double(dice() % 22000) / 10, 1 + int(dice() % 3)});
            QVERIFY(faultsOf(problem).empty());
            const LengthsPlan plan = cutLengths(problem, someEffort(20));
            QVERIFY2(brokenRule(problem, plan).isEmpty(), qPrintable(brokenRule(problem, plan)));
            QVERIFY(plan.unplaced.empty());
            // One bar for each piece is never cheaper than the plan.
            double one = 0;
            for (const LengthPiece& piece : problem.pieces) one += 2.4 * piece.count;
            QVERIFY(plan.cost <= one + 1e-9);
            // Same seed and iterations, same answer.
            QCOMPARE(cutLengths(problem, someEffort(20)), plan);
        }
    }

    void lengthsThatAreNoWholeUnitsStillFit() {
        // Thirds of a mm: nothing divides them. Three of 1000/3 and no kerf are 1000 to within rounding.
        const LengthsProblem problem{.stock = {{1000, 1}}, .pieces = {{1000.0 / 3, 3}, {333.3333, 3}}};
        const LengthsPlan plan = cutLengths(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY(plan.bars.size() <= 3);
        QVERIFY(plan.lowerBoundCost <= 2.0);
    }

    void aStopIsHeeded() {
        std::stop_source stop;
        stop.request_stop();
        LengthsProblem problem{.stock = {{3000, 1}}};
        for (int i = 0; i < 200; ++i) problem.pieces.push_back({300.0 + i * 7, 1});
        const LengthsPlan plan = cutLengths(problem, {.stop = stop.get_token()});
        QCOMPARE(brokenRule(problem, plan), QString());
    }
};

WESTRUM_TEST(LengthsTest)
#include "lengths_test.moc"
