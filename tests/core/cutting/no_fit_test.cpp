#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/no_fit.h"
#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "tests/support/any_outline.h"
#include "tests/support/registry.h"

using namespace westrum;

namespace {

Ring box(double w, double h) { return {{0, 0}, {w, 0}, {w, h}, {0, h}}; }

/// Of the boundary of the region.
double awayFromEdge(const Region& region, Point p) {
    double least = 1e9;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point from = ring[i];
            const Point along = ring[(i + 1) % ring.size()] - from;
            const double t = std::clamp(dot(p - from, along) / std::max(1e-12, dot(along, along)), 0.0, 1.0);
            least = std::min(least, distance(p, from + along * t));
        }
    return least;
}

} // namespace

class NoFitTest : public QObject {
    Q_OBJECT

private slots:
    void ofTwoBoxes() {
        // A 100 x 50, B 20 x 10: B's corner may not lie within (-20, -10) .. (100, 50).
        const NoFit fit(convexParts({{box(100, 50)}}), convexParts({{box(20, 10)}}));
        QCOMPARE(fit.bounds(), (Bounds{{-20, -10}, {100, 50}}));
        QCOMPARE(fit.depth({100, 20}), 0.0);
        QCOMPARE(fit.depth({-20, 20}), 0.0);
        QVERIFY(std::abs(fit.depth({97, 20}) - 3) < 1e-3); // 3 mm to the right it only touches
        Point exit;
        fit.depth({40, 48}, exit);
        QVERIFY(distance(exit, {40, 50}) < 1e-3);
    }

    void theWayOut() {
        // A box of 50 x 50 in a frame's window of 20 to 80: free where its corner lies from 20 to 30. Below 30 by 2 it
        // is free, above by 3 it is 3 too far; either way out of the region is down.
        const Region frame = difference({{box(100, 100)}}, {{{{20, 20}, {80, 20}, {80, 80}, {20, 80}}}});
        const NoFit fit(convexParts(frame), convexParts({{box(50, 50)}}));
        for (const double above : {-2.0, 3.0}) {
            const auto near = fit.nearest({25, 30 + above});
            QVERIFY(near);
            QVERIFY(std::abs(near->depth - above) < 1e-3);
            QVERIFY(distance(near->exit, {25, 30}) < 1e-3);
            QVERIFY(distance(near->out, {0, -1}) < 1e-3);
        }
        QVERIFY(!fit.nearest({25, 400}));
    }

    void theFirstBoxesHoleIsKept() {
        // A frame 100 x 100 with a window 60 x 60; a box of 50 x 50 fits the window, one of 70 x 70 does not.
        const Region frame = difference({{box(100, 100)}}, {{{{20, 20}, {80, 20}, {80, 80}, {20, 80}}}});
        QCOMPARE(NoFit(convexParts(frame), convexParts({{box(50, 50)}})).depth({25, 25}), 0.0);
        QVERIFY(NoFit(convexParts(frame), convexParts({{box(70, 70)}})).depth({15, 15}) > 1);
    }

    /// The region says the same as an intersection of the shapes themselves.
    void tellsOverlaps() {
        std::mt19937 dice(9);
        for (int round = 0; round < 40; ++round) {
            const Region a{{test::anyOutline(dice, 200)}};
            const Region b{{test::anyOutline(dice, 150)}};
            const NoFit fit(convexParts(a), convexParts(b));
            for (int n = 0; n < 40; ++n) {
                const Point at{double(dice() % 700) - 350, double(dice() % 700) - 350};
                const double shared = areaMm2(intersection(a, moved(b, at)));
                const double depth = fit.depth(at);
                if (shared > 1) QVERIFY2(depth > 0, qPrintable(QString::number(shared)));
                if (depth > 0.5) QVERIFY2(shared > 0, qPrintable(QString::number(depth)));
            }
        }
    }

    /// What a glance tells of many places at once is what it tells of each, however the region is turned.
    void glancesAtMany() {
        std::mt19937 dice(12);
        const NoFit fit(convexParts({{test::anyOutline(dice, 200)}}), convexParts({{test::anyOutline(dice, 150)}}));
        const Point from{120, -40};
        constexpr double kWeight = 2.5;
        int same = 0;
        int told = 0;
        for (const double angle : {0.0, 0.7, 3.0}) {
            const Turn turn{std::cos(angle), std::sin(angle)};
            std::vector<Four> x(50);
            std::vector<Four> y(50);
            std::vector<Four> sums(50, Four{10, 10, 10, 10});
            for (std::size_t i = 0; i < 200; ++i) {
                x[i / 4][i % 4] = float(dice() % 900) - 450;
                y[i / 4][i % 4] = float(dice() % 900) - 450;
            }
            fit.glance(x, y, from, turn, kWeight, sums);
            for (std::size_t i = 0; i < 200; ++i) {
                const Point place = turn(Point{double(x[i / 4][i % 4]), double(y[i / 4][i % 4])} - from);
                const double sum = double(sums[i / 4][i % 4]) - 10;
                QVERIFY(sum <= kWeight * fit.depth(place) + 0.001);
                same += int(std::abs(sum - kWeight * fit.glance(place).atLeast) < 0.001);
                told += int(sum > 0);
            }
        }
        QVERIFY(same > 595); // of 600: a place on the line between two cells may be taken to be in either
        QVERIFY(told > 100);
    }

    /// Depths are those to the region's edge, gone through one by one; a glance never tells too much; a step beyond the
    /// nearest point of the edge is free and a step before it is not.
    void agreesWithItsEdge() {
        std::mt19937 dice(4);
        int inside = 0;
        int outside = 0;
        for (int round = 0; round < 30; ++round) {
            const std::vector<GridRing> a = convexParts({{test::anyOutline(dice, 200)}});
            const std::vector<GridRing> b = convexParts({{test::anyOutline(dice, 150)}});
            const NoFit fit(a, b);
            std::vector<GridRing> turned = b;
            for (GridRing& ring : turned)
                for (GridPoint& p : ring) p = {-p.x, -p.y};
            const Region region = sumOfParts(a, turned);
            for (int n = 0; n < 100; ++n) {
                const Point at{double(dice() % 7000) / 10 - 350, double(dice() % 7000) / 10 - 350};
                const double away = awayFromEdge(region, at);
                const double depth = fit.depth(at);
                const NoFit::Glance seen = fit.glance(at);
                QVERIFY(seen.cell >= 0 || depth == 0);
                QVERIFY(seen.cell < 0 || seen.atLeast <= depth);
                if (depth > 0) QVERIFY(depth > away - 0.01 && depth < away + 0.1 * fit.bounds().width());
                const auto near = fit.nearest(at);
                QVERIFY(near || depth == 0);
                if (!near || std::abs(near->depth) < 0.1) continue;
                QVERIFY(std::abs(dot(near->out, near->out) - 1) < 1e-6);
                QVERIFY(distance(near->exit - near->out * near->depth, at) < 0.01);
                QVERIFY(awayFromEdge(region, near->exit) < 0.01);
                if (near->depth > away + 0.01) continue; // deep: not the nearest edge
                ++(near->depth > 0 ? inside : outside);
                QVERIFY(fit.depth(near->exit - near->out * 0.02) > 0);
                QCOMPARE(fit.depth(near->exit + near->out * 0.02), 0.0);
            }
        }
        QVERIFY(inside > 300);
        QVERIFY(outside > 30);
    }
};

WESTRUM_TEST(NoFitTest)
#include "no_fit_test.moc"
