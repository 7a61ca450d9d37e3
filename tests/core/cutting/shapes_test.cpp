#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/shapes.h"
#include "core/geometry/boolean.h"
#include "core/geometry/convex_parts.h"
#include "core/geometry/net_area.h"
#include "tests/support/any_outline.h"
#include "tests/support/registry.h"

#include <limits>
#include <numbers>
#include <random>

using namespace westrum;

namespace {

constexpr double kQuarter = std::numbers::pi / 2;

Effort someEffort(std::int64_t iterations = 3000) { return {.seed = 1, .iterations = iterations}; }

Ring box(double w, double h) { return {{0, 0}, {w, 0}, {w, h}, {0, h}}; }

ShapePiece piece(Ring outline, int count = 1, std::vector<double> rotations = {0}) {
    return {.outline = std::move(outline), .rotationsRad = std::move(rotations), .count = count};
}

double overlapMm2(const Region& a, const Region& b) { return areaMm2(intersection(a, b)); }

/// The rules of a roll, restated with booleans of the pieces themselves: within the roll, apart by the gap (the pieces
/// grown by it would overlap otherwise), each as often as wanted, the length that of the farthest.
QString brokenRule(const ShapesProblem& problem, const ShapesPlan& plan) {
    std::vector<int> placed(problem.pieces.size(), 0);
    std::vector<Region> regions;
    double length = 0;
    for (const PlacedShape& p : plan.placements) {
        ++placed[p.piece];
        regions.push_back(lying(problem.pieces[p.piece], p));
        const Bounds b = boundsOf(regions.back());
        length = std::max(length, b.high.x);
        const double slack = kShapeToleranceMm;
        if (b.low.x < -slack || b.low.y < -slack || b.high.y > problem.widthMm + slack)
            return QStringLiteral("beyond the roll");
    }
    for (std::size_t i = 0; i < placed.size(); ++i)
        if (placed[i] != problem.pieces[i].count) return QStringLiteral("piece %1: %2 times").arg(i).arg(placed[i]);
    // Moved in by the tolerance no two may share anything; grown by the gap less the tolerance neither.
    for (std::size_t i = 0; i < regions.size(); ++i) {
        const Region mine = problem.gapMm > 0.1 ? grown(regions[i], problem.gapMm - kShapeToleranceMm, Corners::Rounded)
                                                : inset(regions[i], kShapeToleranceMm);
        for (std::size_t j = 0; j < regions.size(); ++j)
            if (i != j && overlapMm2(mine, problem.gapMm > 0.1 ? regions[j] : inset(regions[j], 0.001)) > 0.01)
                return QStringLiteral("%1 and %2 are too near").arg(i).arg(j);
        for (const Region& flaw : problem.forbidden)
            if (overlapMm2(inset(regions[i], kShapeToleranceMm), flaw) > 0.01) return QStringLiteral("on a flaw");
    }
    if (std::abs(length - plan.lengthMm) > 0.01) return QStringLiteral("length");
    if (plan.lowerBoundMm > plan.lengthMm + 1e-6) return QStringLiteral("bound above length");
    return {};
}

} // namespace

class ShapesTest : public QObject {
    Q_OBJECT

private slots:
    void convexPartsAreConvexAndAddUp() {
        std::mt19937 dice(2);
        for (int round = 0; round < 200; ++round) {
            Region region{{test::anyOutline(dice, 300)}};
            if (round % 3 == 0) region = difference(region, {{circle({0, 0}, 60, 16)}});
            double sum = 0;
            for (const GridRing& part : convexParts(region)) {
                Ring ring;
                for (const GridPoint p : part) ring.push_back(fromGrid(p));
                sum += signedArea(ring);
                for (std::size_t i = 0; i < ring.size(); ++i)
                    QVERIFY(cross(ring[(i + 1) % ring.size()] - ring[i],
                                  ring[(i + 2) % ring.size()] - ring[(i + 1) % ring.size()]) >= 0);
            }
            QVERIFY2(std::abs(sum - areaMm2(region)) < 2, qPrintable(QString::number(round)));
        }
    }

    void twoTrianglesMakeABox() {
        // Halves of 400 x 1000 on a roll 1000 wide: turned against each other they take 400, one after the other 800.
        const ShapesProblem problem{.widthMm = 1000,
                                    .pieces = {piece({{0, 0}, {400, 0}, {0, 1000}}, 2, {0, 2 * kQuarter})}};
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY2(plan.lengthMm < 400.1, qPrintable(QString::number(plan.lengthMm)));
        QVERIFY(plan.proven);
        // With one nap direction they cannot be turned: 800 less what their slopes let them slide.
        ShapesProblem nap = problem;
        nap.pieces[0].rotationsRad = {0};
        const ShapesPlan apart = placeShapes(nap, someEffort());
        QCOMPARE(brokenRule(nap, apart), QString());
        QVERIFY(apart.lengthMm > 700);
    }

    void aWindowGivesAPillarCover() {
        // A wall of 1000 x 800 with a window of 500 x 400 fills the roll; the cover of 450 x 350 lies in the window.
        ShapesProblem problem{.widthMm = 800, .gapMm = 5, .pieces = {piece(box(1000, 800)), piece(box(450, 350))}};
        problem.pieces[0].holes = {{{250, 200}, {750, 200}, {750, 600}, {250, 600}}};
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY(plan.lengthMm < 1000.1);
    }

    void theGapIsKept() {
        // Two of 300 x 1000 with a gap of 8 on a roll 1000 wide: 608.
        const ShapesProblem problem{.widthMm = 1000, .gapMm = 8, .pieces = {piece(box(300, 1000), 2)}};
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY(std::abs(plan.lengthMm - 608) < 0.1);
        QVERIFY(plan.proven); // both cross the middle line
    }

    void aRepeatHoldsPiecesToItsPoints() {
        // A pattern every 320 along and 200 across: four pieces of 300 x 190, two beside each other on 400, two rows:
        // the second row starts at 320, and ends at 620.
        ShapesProblem problem{.widthMm = 400, .pieces = {piece(box(300, 190), 4)}};
        problem.repeat = {.alongMm = 320, .acrossMm = 200, .phase = {}};
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        for (const PlacedShape& p : plan.placements) {
            QVERIFY(std::abs(std::remainder(p.at.x, 320)) < 0.02);
            QVERIFY(std::abs(std::remainder(p.at.y, 200)) < 0.02);
        }
        QVERIFY(std::abs(plan.lengthMm - 620) < 0.1);
    }

    void aFlawIsLeftOut() {
        // A seam right across from 500 to 520: pieces of 400 lie before and behind it, the third from 920.
        ShapesProblem problem{.widthMm = 1000, .pieces = {piece(box(400, 1000), 3)}};
        problem.forbidden = {{{{{500, 0}, {520, 0}, {520, 1000}, {500, 1000}}}}};
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY2(std::abs(plan.lengthMm - 1320) < 0.1, qPrintable(QString::number(plan.lengthMm)));
    }

    void whatIsCutOrPinnedStays() {
        ShapesProblem problem{.widthMm = 1000, .pieces = {piece(box(400, 600), 3)}};
        problem.fixed = {{.piece = 0, .rotationRad = 0, .at = {300, 200}}};
        QVERIFY(faultsOf(problem).empty());
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QCOMPARE(plan.placements[0], problem.fixed[0]);
        problem.fixed.push_back({.piece = 0, .rotationRad = 0, .at = {500, 200}});
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::LockedDoesNotFit, 1}}));
    }

    void stockThatEndsTakesWhatItCan() {
        // 1000 x 1000 takes four of 480 x 480; of six two are left over. A piece longer than the stock is a fault.
        ShapesProblem problem{.widthMm = 1000, .pieces = {piece(box(480, 480), 6)}};
        problem.lengthMm = 1000;
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(plan.unplaced, (std::vector<std::size_t>{0, 0}));
        QCOMPARE(plan.placements.size(), 4UL);
        QVERIFY(plan.lengthMm <= 1000 + kShapeToleranceMm);
        problem.pieces.push_back(piece(box(1100, 100)));
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::PieceTooLarge, 1}}));
    }

    void aGroupStaysSideBySide() {
        // Six small pieces of group 0 among twelve large ones: they lie within little more than their own length.
        ShapesProblem problem{.widthMm = 1000, .pieces = {piece(box(300, 480), 12), piece(box(200, 300), 6)}};
        problem.pieces[1].group = 0;
        const ShapesPlan plan = placeShapes(problem, someEffort(8000));
        QCOMPARE(brokenRule(problem, plan), QString());
        double low = 1e9;
        double high = 0;
        for (const PlacedShape& p : plan.placements)
            if (p.piece == 1) {
                low = std::min(low, p.at.x);
                high = std::max(high, p.at.x + 200);
            }
        QVERIFY2(high - low < 480, qPrintable(QString::number(high - low))); // two columns of three: 400
    }

    void faultsAreAllTold() {
        ShapesProblem problem{.widthMm = 500};
        problem.pieces = {piece({{0, 0}, {100, 100}, {100, 0}, {0, 100}}), // crosses itself
                          piece({{0, 0}, {10, 0}}),
                          piece({{0, 0}, {std::numeric_limits<double>::quiet_NaN(), 0}, {1, 1}}),
                          piece(box(100, 600)),
                          piece(box(1e7, 1)),
                          piece(box(10, 10), 1, {})};
        problem.pieces.push_back(piece(box(100, 100)));
        problem.pieces.back().holes = {{{200, 200}, {210, 200}, {210, 210}}};
        QCOMPARE(faultsOf(problem), (CuttingFaults{{CuttingFault::PieceCrosses, 0},
                                                   {CuttingFault::PieceNotPositive, 1},
                                                   {CuttingFault::PieceAbsurd, 2},
                                                   {CuttingFault::PieceTooLarge, 3},
                                                   {CuttingFault::PieceAbsurd, 4},
                                                   {CuttingFault::PieceNoRotation, 5},
                                                   {CuttingFault::PieceHoleOutside, 6}}));
        QCOMPARE(faultsOf(ShapesProblem{}),
                 (CuttingFaults{{CuttingFault::NoPieces}, {CuttingFault::StockNotPositive}}));
    }

    void cornersThatRepeatAndTurnDoNoHarm() {
        // The same box with doubled corners, and one that runs clockwise.
        const ShapesProblem problem{.widthMm = 100,
                                    .pieces = {piece({{0, 0}, {0, 0}, {50, 0}, {50, 100}, {50, 100}, {0, 100}}),
                                               piece({{0, 100}, {50, 100}, {50, 0}, {0, 0}})}};
        QVERIFY(faultsOf(problem).empty());
        const ShapesPlan plan = placeShapes(problem, someEffort());
        QCOMPARE(brokenRule(problem, plan), QString());
        QVERIFY(plan.lengthMm < 100.1);
    }

    void rulesHoldForAnyProblem() {
        std::mt19937 dice(4);
        for (int round = 0; round < 10; ++round) {
            ShapesProblem problem{.widthMm = 900 + double(dice() % 600), .gapMm = double(dice() % 3) * 4};
            const int pieces = 2 + int(dice() % 8);
            for (int i = 0; i < pieces; ++i) {
                problem.pieces.push_back(piece(test::anyOutline(dice, 120 + dice() % 250), 1 + int(dice() % 2)));
                if (dice() % 2 == 0) problem.pieces.back().rotationsRad = {0, 2 * kQuarter};
                if (dice() % 4 == 0) problem.pieces.back().rotationsRad = {0, 0.7, 2.1};
            }
            QVERIFY(faultsOf(problem).empty());
            double before = std::numeric_limits<double>::infinity();
            const ShapesPlan plan = placeShapes(problem, someEffort(1500), [&](const ShapesPlan& better) {
                QVERIFY(better.lengthMm < before); // each plan told is better than the one before
                before = better.lengthMm;
            });
            QVERIFY2(brokenRule(problem, plan).isEmpty(), qPrintable(brokenRule(problem, plan)));
            QCOMPARE(placeShapes(problem, someEffort(1500)), plan);
        }
    }

    void aStopIsHeeded() {
        std::stop_source stop;
        stop.request_stop();
        const ShapesProblem problem{.widthMm = 1000, .pieces = {piece(box(300, 480), 40)}};
        const ShapesPlan plan = placeShapes(problem, {.stop = stop.get_token()});
        QCOMPARE(brokenRule(problem, plan), QString());
    }

    void whatIsFixedFarOutCountsInTheLength() {
        // 100 x 100 fixed at 900: the roll is 1000 long and no plan can use less, though the rest would fit into 300.
        ShapesProblem problem{.widthMm = 400,
                              .pieces = {{.outline = {{0, 0}, {100, 0}, {100, 100}, {0, 100}}, .count = 4}}};
        problem.fixed = {{0, 0, {900, 0}}};
        const ShapesPlan plan = placeShapes(problem, {.iterations = 500});
        QVERIFY(std::abs(plan.lengthMm - 1000) < 1e-6);
        QVERIFY(plan.proven);
    }

    void theGapToACornerIsMeasuredAsItLies() {
        // The corner of a box lies exactly 5 from a slanting edge: the gap of 5 is kept, one of 6 lacks 1.
        ShapesProblem problem{.widthMm = 1000, .gapMm = 5};
        problem.pieces = {{.outline = {{0, 0}, {400, 0}, {0, 300}}}, {.outline = {{0, 0}, {50, 0}, {50, 50}, {0, 50}}}};
        const Point onEdge{200, 150}, outwards{0.6, 0.8}; // of the edge from (400, 0) to (0, 300)
        const PlacedShape wedge{0, 0, {}};
        PlacedShape box{1, 0, onEdge + outwards * 5};
        QVERIFY(clashMm(problem, wedge, box) < kShapeToleranceMm);
        problem.gapMm = 6;
        QVERIFY(std::abs(clashMm(problem, wedge, box) - 1) < 0.05);
        box.at = onEdge - outwards * 20;
        QVERIFY(clashMm(problem, wedge, box) > 20);
    }

    void aLayoutThatIsFoundMayBeFixedAsItLies() {
        // Slanting strips side by side, as the first layout puts them: all of it may stay.
        ShapesProblem problem{.widthMm = 1400, .gapMm = 5};
        problem.pieces = {{.outline = {{0, 0}, {190, 0}, {150, 1320}, {30, 1320}}, .count = 4},
                          {.outline = {{0, 0}, {500, 0}, {250, 400}}, .count = 5}};
        for (const std::int64_t iterations : {1, 300, 3000}) {
            ShapesPlan plan = placeShapes(problem, {.iterations = iterations});
            ShapesProblem again = problem;
            again.fixed = plan.placements;
            QVERIFY(faultsOf(again).empty());
        }
    }
};

WESTRUM_TEST(ShapesTest)
#include "shapes_test.moc"
