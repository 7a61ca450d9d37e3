#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>

using namespace westrum;

namespace {
Ring box(double x, double y, double w, double h) { return {{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}; }
bool near(double a, double b, double by = 1e-6) { return std::abs(a - b) <= by; }
} // namespace

class GeometryTest : public QObject {
    Q_OBJECT
private slots:
    void areaIsPositiveCounterClockwise() {
        QCOMPARE(signedArea(box(0, 0, 2000, 1000)), 2e6);
        Ring clockwise = box(0, 0, 2000, 1000);
        std::reverse(clockwise.begin(), clockwise.end());
        QCOMPARE(signedArea(clockwise), -2e6);
        QCOMPARE(perimeter(box(0, 0, 2000, 1000)), 6000.0);
    }

    void aCrossedOutlineIsSeen() {
        QVERIFY(!crossesItself(box(0, 0, 10, 10)));
        QVERIFY(crossesItself({{0, 0}, {10, 10}, {10, 0}, {0, 10}}));
    }

    void differenceLeavesTheRestCounterClockwise() {
        // A 740 x 228 wheel arch out of a 3640 x 1785 floor.
        const Region floor = difference({{box(0, 0, 3640, 1785)}}, {{box(820, -1, 740, 229)}});
        QCOMPARE(floor.rings.size(), std::size_t{1});
        QVERIFY(near(areaMm2(floor), 3640.0 * 1785 - 740.0 * 228));
        const Region holed = difference({{box(0, 0, 100, 100)}}, {{box(40, 40, 20, 20)}});
        QCOMPARE(holed.rings.size(), std::size_t{2});
        QVERIFY(near(areaMm2(holed), 10000 - 400));
        QCOMPARE(partsOf(holed).size(), std::size_t{1});
    }

    void insetKeepsCornersMitred() {
        QVERIFY(near(areaMm2(inset({{box(0, 0, 2600, 1420)}}, 8)), 2584.0 * 1404));
        // An L keeps its inner corner square: 3000 x 1760 less 1300 x 860, moved in by 10.
        const Region l = difference({{box(0, 0, 3000, 1760)}}, {{box(1700, 900, 1301, 861)}});
        QVERIFY(near(areaMm2(inset(l, 10)), 4067200, 1));
        QVERIFY(inset({{box(0, 0, 20, 20)}}, 10).empty());
        QVERIFY(!inset({{box(0, 0, 20, 20)}}, 0).empty());
    }

    void bandsComeApartAtNotches() {
        const Region floor = difference({{box(0, 0, 3000, 1700)}}, {{box(1500, -1, 800, 231)}});
        const auto low = bandOf(floor, 0, 150);
        QCOMPARE(low.size(), std::size_t{2});
        QVERIFY(near(boundsOf(low[0]).high.x, 1500));
        QVERIFY(near(boundsOf(low[1]).low.x, 2300));
        QCOMPARE(bandOf(floor, 230, 400).size(), std::size_t{1});
        QVERIFY(bandOf(floor, 2000, 2100).empty());
        QVERIFY(bandOf(floor, 200, 100).empty());
    }

    void transposingTwiceIsNothing() {
        const Region l = difference({{box(0, 0, 3000, 1760)}}, {{box(1700, 900, 1301, 861)}});
        QVERIFY(transposed(transposed(l)) == l);
        QVERIFY(near(areaMm2(transposed(l)), areaMm2(l)));
        QCOMPARE(boundsOf(transposed(l)).width(), boundsOf(l).height());
    }

    void aCircleAndARoundedWindow() {
        QVERIFY(near(signedArea(circle({0, 0}, 160)) / (std::numbers::pi * 160 * 160), 1, 1e-6));
        // 900 x 450 with radius 60: less the corners' (4 - pi) r2.
        const double want = 900.0 * 450 - (4 - std::numbers::pi) * 3600;
        QVERIFY(near(signedArea(roundedRectangle(600, 700, 900, 450, 60)), want, 0.01));
        // The radius cannot be more than half the shorter side.
        QVERIFY(near(signedArea(roundedRectangle(0, 0, 100, 40, 500)), 60.0 * 40 + std::numbers::pi * 400, 0.01));
    }

    void overlappingOpeningsCountOnceAndTakeTheirEdge() {
        // Two openings 600 x 400 and 400 x 300 share 200 x 200 of a 2000 x 1000 wall.
        const NetArea net = netAreaOf(box(0, 0, 2000, 1000), {box(300, 300, 600, 400), box(700, 200, 400, 300)});
        QVERIFY(near(net.grossArea.value, 2.0));
        QVERIFY(near(net.netArea.value, 2.0 - (0.24 + 0.12 - 0.04)));
        QVERIFY(near(net.openingEdge.value, 2600, 1e-3));
        // One that hangs over the top edge takes 600 mm of it off.
        const NetArea over = netAreaOf(box(0, 0, 2000, 1000), {box(500, 800, 600, 400)});
        QVERIFY(near(over.edgeLeft[2].value, 1400, 1e-3));
        QVERIFY(near(over.edgeLength[2].value, 2000));
        QVERIFY(near(over.openingEdge.value, 200 + 600 + 200, 1e-3));
    }

    void cuttingAShapeInTwoLosesNothing() {
        std::mt19937 dice(5);
        for (int round = 0; round < 300; ++round) {
            Ring ring = box(0, 0, 500 + dice() % 3000, 500 + dice() % 1500);
            ring[2].x -= dice() % 200;
            ring[3].y += dice() % 100;
            Region shape{{ring}};
            shape = difference(shape, {{box(dice() % 300, dice() % 300, 50 + dice() % 300, 50 + dice() % 300)}});
            const double x = boundsOf(shape).low.x + boundsOf(shape).width() * (dice() % 100) / 100.0;
            const double left = areaMm2(clippedInX(shape, boundsOf(shape).low.x, x));
            const double right = areaMm2(clippedInX(shape, x, boundsOf(shape).high.x));
            QVERIFY2(near(left + right, areaMm2(shape), 0.05), qPrintable(QString::number(round)));
        }
    }

    /// Left of a line it runs on past both ends, right of it it ends square with the line; round a bend without a gap.
    void stripsFollowALine() {
        const Region left = stripAlong({{0, 0}, {100, 0}}, 10), right = stripAlong({{0, 0}, {100, 0}}, -10);
        QVERIFY(std::abs(areaMm2(left) - 120 * 10) < 0.01);
        QVERIFY(std::abs(areaMm2(right) - 100 * 10) < 0.01);
        QVERIFY(boundsOf(left).low.y > -0.01 && boundsOf(right).high.y < 0.01);
        // A quarter circle of 200, taken on its outer side: 20 wide, a ring's quarter.
        Ring arc;
        for (int k = 0; k <= 90; ++k)
            arc.push_back({200 * std::cos(k * 0.0174532925), 200 * std::sin(k * 0.0174532925)});
        const double ring = 3.14159265 / 4 * (220 * 220 - 200 * 200);
        QVERIFY(std::abs(areaMm2(stripAlong(arc, -20)) - ring) < 0.005 * ring);
        QVERIFY(stripAlong({{5, 5}}, 10).empty() && stripAlong({{5, 5}, {5, 5}}, 10).empty());
    }

    void cornersAreRoundedAndNarrowPartsKept() {
        const Region square{{rectangle(0, 0, 200, 100)}};
        QVERIFY(std::abs(areaMm2(rounded(square, 20)) - (200 * 100 - (4 - 3.14159265) * 400)) < 60);
        QCOMPARE(rounded(square, 0), square);
        // Only outward corners: the inner one of an L stays sharp.
        const Region l = difference({{rectangle(0, 0, 200, 200)}}, {{rectangle(100, 100, 200, 200)}});
        QVERIFY(std::abs(areaMm2(rounded(l, 20)) - (30000 - 5 * (1 - 3.14159265 / 4) * 400)) < 75);
        // A tongue narrower than two radii is not eaten.
        const Region tongue = unionOf(square, {{rectangle(200, 40, 300, 20)}});
        QVERIFY(areaMm2(rounded(tongue, 20)) > areaMm2(square));
    }

    void unionsOfRegionsKeepTheirHoles() {
        const Region frame = difference({{rectangle(0, 0, 100, 100)}}, {{rectangle(30, 30, 40, 40)}});
        QVERIFY(std::abs(areaMm2(unionOf(frame, {{rectangle(100, 0, 50, 100)}})) - (8400 + 5000)) < 0.01);
        QVERIFY(std::abs(areaMm2(unionOf(frame, {{rectangle(30, 30, 20, 40)}})) - 9200) < 0.01);
    }
};
WESTRUM_TEST(GeometryTest)

#include "geometry_test.moc"
