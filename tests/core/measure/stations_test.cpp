#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/measure/stations.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>

using namespace westrum;

class StationsTest : public QObject {
    Q_OBJECT

    static bool near(double a, double b, double by = 1e-6) { return std::abs(a - b) <= by; }

private slots:
    void straightJoinsAreTrapezoids() {
        // 0, 300, 0 over 1000: two triangles of 500 x 300 / 2; each edge root(500^2 + 300^2).
        const StationCurve c{{0, 500, 1000}, {0, 300, 0}};
        QVERIFY(near(areaUnder(c).value, 0.15));
        QVERIFY(near(lengthAlong(c).value, 2 * std::hypot(500, 300)));
        QCOMPARE(flattened(c).size(), std::size_t{3});
        QVERIFY(near(heightAt(c, 250), 150));
    }

    void theSmoothCurveHasTheSlopesOfTheRule() {
        // Secants 0.6 and -0.6: level at the top; at the ends ((2 x 500 + 500) x 0.6 + 500 x 0.6) / 1000 = 1.2.
        const StationCurve c{{0, 500, 1000}, {0, 300, 0}, StationJoin::Smooth};
        const std::vector<double> d = stationSlopes(c);
        QVERIFY(near(d[0], 1.2) && near(d[1], 0) && near(d[2], -1.2));
        // A bay: 500 x 150 + 500^2 x 1.2 / 12 = 100 000 mm2.
        QVERIFY(near(areaUnder(c).value, 0.2));
        QVERIFY(near(heightAt(c, 0), 0) && near(heightAt(c, 500), 300));
        QVERIFY(heightAt(c, 250) > 150);
    }

    void atAStepItDoesNotSwingOver() {
        // Level, a step up, level: an ordinary spline dips below 100 and rises above 400.
        const StationCurve c{{0, 400, 500, 900}, {100, 100, 400, 400}, StationJoin::Smooth};
        for (Point p : flattened(c)) QVERIFY2(p.y >= 100 - 1e-9 && p.y <= 400 + 1e-9, qPrintable(QString::number(p.y)));
    }

    void twoStationsAreAStraightLine() {
        const StationCurve c{{0, 1200}, {700, 760}, StationJoin::Smooth};
        QVERIFY(near(areaUnder(c).value, 1.2 * 0.73));
        QVERIFY(near(lengthAlong(c).value, std::hypot(1200, 60)));
    }

    void aQuarterCircleIsFoundAgain() {
        // Offsets of a circle of radius 1000 every 50 mm: the arc to x = 700 is 1000 asin 0.7 long.
        StationCurve c;
        c.join = StationJoin::Smooth;
        for (int x = 0; x <= 700; x += 50) {
            c.at.push_back(x);
            c.offset.push_back(std::sqrt(1e6 - x * x));
        }
        const double arc = 1000 * std::asin(0.7);
        QVERIFY(near(lengthAlong(c).value, arc, 0.5));
    }

    /// For any stations: the flattened curve has the area and length of the true one, and stays between neighbours.
    void flatteningKeepsAreaLengthAndBounds() {
        std::mt19937 dice(7);
        for (int round = 0; round < 100; ++round) {
            StationCurve c;
            c.join = StationJoin::Smooth;
            double x = 0;
            for (int i = 0, n = 2 + static_cast<int>(dice() % 12); i < n; ++i) {
                c.at.push_back(x);
                c.offset.push_back(dice() % 1500);
                x += 20 + dice() % 600;
            }
            const std::vector<Point> points = flattened(c, 0.05);
            double area = 0, length = 0;
            for (std::size_t i = 1; i < points.size(); ++i) {
                area += (points[i].x - points[i - 1].x) * (points[i].y + points[i - 1].y) / 2;
                length += distance(points[i - 1], points[i]);
            }
            QVERIFY(near(area / 1e6, areaUnder(c).value, 0.05 * x / 1e6));
            QVERIFY2(near(length, lengthAlong(c).value, 1.0), qPrintable(QString::number(round)));
            for (std::size_t k = 0; k + 1 < c.at.size(); ++k) {
                const double middle = heightAt(c, (c.at[k] + c.at[k + 1]) / 2);
                QVERIFY(middle >= std::min(c.offset[k], c.offset[k + 1]) - 1e-6);
                QVERIFY(middle <= std::max(c.offset[k], c.offset[k + 1]) + 1e-6);
            }
        }
    }
};
WESTRUM_TEST(StationsTest)

#include "stations_test.moc"
