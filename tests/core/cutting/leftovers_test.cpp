#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/leftovers.h"
#include "core/geometry/boolean.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class LeftoversTest : public QObject {
    Q_OBJECT

    static Ring box(double x, double y, double w, double h) { return {{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}; }

private slots:
    void theEndOfABarIsKeptFromTheRulesLengthOn() {
        // 1500 and a kerf of 3 from 2000: 497 are left. 1800 leaves 197, too short for a rule of 300.
        const LengthsProblem problem{.kerfMm = 3, .stock = {{2000, 1}}, .pieces = {{1500, 1}, {1800, 1}}};
        LengthsPlan plan;
        plan.bars = {{0, {0}}, {0, {1}}};
        QCOMPARE(leftoversWorthKeeping(problem, plan, {}), (std::vector<double>{497, 0}));
        QCOMPARE(leftoversWorthKeeping(problem, plan, {.leastLengthMm = 100}), (std::vector<double>{497, 197}));
    }

    void theOffcutsOfASheetComeOffWhole() {
        // 1000 x 600 in the corner of 2400 x 1200 with a kerf of 4: either 1396 x 1200 and 1000 x 596, or the other
        // way; both cuts are whole, and together they leave the sheet less piece and kerfs.
        const SheetsProblem problem{.kerfMm = 4, .stock = {{2400, 1200, 1}}, .pieces = {{1000, 600, 1}}};
        const CutSheet sheet{.stock = 0, .pieces = {{0, 0, 0, false}}};
        const auto left = leftoversWorthKeeping(problem, sheet, {});
        QCOMPARE(left.size(), 2UL);
        QVERIFY(left[0].widthMm * left[0].heightMm > left[1].widthMm * left[1].heightMm);
        for (const LeftRectangle& r : left) {
            QVERIFY(r.x + r.widthMm <= 2400 && r.y + r.heightMm <= 1200);
            QVERIFY(r.x >= 1004 || r.y >= 604); // beside the piece and the kerf
        }
    }

    void aWindowIsALeftover() {
        // A wall 1200 x 800 with a window 600 x 400 from (300, 200): 600 x 400, less what the cells round off.
        ShapesProblem problem{.widthMm = 800};
        problem.pieces = {{.outline = box(0, 0, 1200, 800), .holes = {box(300, 200, 600, 400)}}};
        ShapesPlan plan;
        plan.placements = {{0, 0, {}}};
        plan.lengthMm = 1200;
        const auto left = leftoversWorthKeeping(problem, plan, {});
        QCOMPARE(left.size(), 1UL);
        QVERIFY(left[0].widthMm > 560 && left[0].widthMm <= 600 && left[0].heightMm > 360 && left[0].heightMm <= 400);
        QVERIFY(leftoversWorthKeeping(problem, plan, {.leastLengthMm = 700}).empty());
    }

    /// Nothing named as free touches a piece, and no two of them overlap.
    void whatIsNamedIsReallyFree() {
        std::mt19937 dice(17);
        for (int round = 0; round < 30; ++round) {
            ShapesProblem problem{.widthMm = 1500, .gapMm = double(dice() % 2) * 5};
            ShapesPlan plan;
            plan.lengthMm = 3000;
            for (int i = 0; i < 6; ++i) {
                const double w = 150 + dice() % 500;
                const double h = 150 + dice() % 500;
                problem.pieces.push_back({.outline = {{0, 0}, {w, 20}, {w * 0.8, h}, {30, h * 0.7}}});
                plan.placements.push_back({std::size_t(i),
                                           double(dice() % 628) / 100,
                                           {400 + double(dice() % 2000), 400 + double(dice() % 700)}});
            }
            const auto left = leftoversWorthKeeping(problem, plan, {});
            QVERIFY(!left.empty());
            for (std::size_t i = 0; i < left.size(); ++i) {
                const Region r{{box(left[i].x, left[i].y, left[i].widthMm, left[i].heightMm)}};
                QVERIFY(left[i].x >= 0 && left[i].x + left[i].widthMm <= 3000 && left[i].y + left[i].heightMm <= 1500);
                for (const PlacedShape& p : plan.placements)
                    QVERIFY(areaMm2(intersection(r, lying(problem.pieces[p.piece], p))) < 1e-6);
                for (std::size_t j = 0; j < i; ++j)
                    QVERIFY(areaMm2(intersection(r, {{box(left[j].x, left[j].y, left[j].widthMm, left[j].heightMm)}})) <
                            1e-6);
            }
        }
    }

    void theLargestRectangleOfAnOffcut() {
        // Of a right-angled triangle of 1000 x 800 the largest rectangle is half as long and half as high.
        const Region triangle{{{{50, 20}, {1050, 20}, {50, 820}}}};
        const LeftRectangle r = largestRectangle(triangle, {0, 0});
        QVERIFY(r.widthMm * r.heightMm > 500 * 400 * 0.93 && r.widthMm * r.heightMm <= 500 * 400);
        QVERIFY(r.x >= 0 && r.y >= 0 && (r.x + r.widthMm) / 1000 + (r.y + r.heightMm) / 800 <= 1);
        // Of an L the longer leg.
        const Region ell{{{{0, 0}, {900, 0}, {900, 200}, {300, 200}, {300, 600}, {0, 600}}}};
        const LeftRectangle leg = largestRectangle(ell, {0, 0});
        QVERIFY(leg.widthMm * leg.heightMm >= 300 * 600 * 0.9 && leg.widthMm * leg.heightMm <= 900 * 200);
        QCOMPARE(largestRectangle({}, {}), LeftRectangle{});
        QCOMPARE(largestRectangle({{box(0, 0, 200, 100)}}, {300, 150}), LeftRectangle{}); // not worth keeping
    }
};

WESTRUM_TEST(LeftoversTest)
#include "leftovers_test.moc"
