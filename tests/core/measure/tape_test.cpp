#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/measure/developed.h"
#include "core/measure/distance_network.h"
#include "core/measure/slips.h"
#include "core/measure/two_point.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>

using namespace westrum;

/// Tapes from two points, between corners, and along curves.
class TapeTest : public QObject {
    Q_OBJECT

    static bool near(double a, double b, double by = 1e-6) { return std::abs(a - b) <= by; }

    /// A convex polygon with all its sides and the diagonals from corner 0, and one more.
    static std::vector<CornerDistance> readingsOf(const std::vector<Point>& corners, bool spare) {
        const int n = static_cast<int>(corners.size());
        std::vector<CornerDistance> all;
        const auto add = [&](int a, int b) {
            all.push_back({a, b, distance(corners[static_cast<std::size_t>(a)], corners[static_cast<std::size_t>(b)])});
        };
        for (int k = 0; k < n; ++k) add(k, (k + 1) % n);
        for (int k = 2; k < n - 1; ++k) add(0, k);
        if (spare)
            for (int k = 1; k + 2 < n; ++k) add(k, k + 2);
        return all;
    }
    static std::vector<Point> anyPolygon(std::mt19937& dice, int n) {
        std::vector<Point> corners;
        const double a = 800 + dice() % 1500, b = 500 + dice() % 1000;
        for (int k = 0; k < n; ++k) {
            const double angle = 2 * std::numbers::pi * (k + (dice() % 100) / 300.0) / n;
            corners.push_back({a * std::cos(angle), b * std::sin(angle)});
        }
        return corners;
    }

private slots:
    void threeFourFive() {
        // Base 3 m; 4 m from A and 5 m from B: straight above A.
        const auto c = cornersFromTwoPoints(3000, {{4000, 5000}, {4000, 5000, true}});
        QVERIFY(near(c[0].at.x, 0) && near(c[0].at.y, 4000));
        QVERIFY(near(c[1].at.y, -4000));
        QVERIFY(c[0].meeting == TapeMeeting::Sound);
    }

    void tapesThatHardlyMeetAreFlagged() {
        // 1000 + 1999 falls 1 mm short of 3000: they meet on the base. 10 mm short they do not.
        const auto c = cornersFromTwoPoints(3000, {{1000, 1999}, {1000, 1990}, {4000, 2500}, {1510, 1510}});
        QVERIFY(c[0].meeting == TapeMeeting::Weak && near(c[0].at.y, 0));
        QVERIFY(c[1].meeting == TapeMeeting::Impossible && near(c[1].shortBy, 10));
        QVERIFY(c[2].meeting == TapeMeeting::Sound);
        // 1510 from both: the tapes meet at 2 asin(1500 / 1510) = 166.8 degrees.
        QVERIFY(c[3].meeting == TapeMeeting::Weak);
    }

    void chordAndRiseGiveTheArc() {
        // Half a circle of radius 500: chord 1000, rise 500, arc 500 pi. Beyond it, chord 0.6 R x 2 ... still right.
        QVERIFY(near(arcLengthOf({1000, 500}), 500 * std::numbers::pi));
        QVERIFY(near(radiusOf({1000, 500}), 500));
        // 3/4 of a circle of radius 100: chord 100 root 2, rise 100 + 100 / root 2.
        QVERIFY(near(arcLengthOf({100 * std::sqrt(2.0), 100 + 100 / std::sqrt(2.0)}), 150 * std::numbers::pi));
        const Developed d = developed({{300, 0}, {1000, 500}, {200, 0}});
        QVERIFY(near(d.width.value, 500 + 500 * std::numbers::pi));
        QVERIFY(near(d.chordShortfall.value, 500 * std::numbers::pi - 1000));
        QCOMPARE(d.leastRadius->value, 500.0);
        QVERIFY(!developed({{300, 0}}).leastRadius);
    }

    void aThickSheetInsideACurveIsCutNarrower() {
        // 10 mm inside a half circle of radius 500: its middle lies on radius 495.
        const std::vector<ProfilePart> half{{1000, 500}};
        QVERIFY(near(cutWidth(half, {10}, CurveSide::Inside).value, 495 * std::numbers::pi));
        QVERIFY(near(cutWidth(half, {10}, CurveSide::Outside).value, 505 * std::numbers::pi));
    }

    void aPatchOfASphereStretchesByItsSquare() {
        // Half-diagonal 500 on radius 2500: 500^2 / (6 x 2500^2) = 0.67 %.
        QVERIFY(near(stretchOfDoubleCurve({600}, {800}, {2500}, {2500}), 0.04 / 6, 1e-9));
    }

    void anLShapeIsHeldByDiagonalsInsideIt() {
        // 2000 x 1500 with a corner of 800 x 600 cut away; corner 3 turns inwards.
        const std::vector<Point> l{{0, 0}, {2000, 0}, {2000, 900}, {1200, 900}, {1200, 1500}, {0, 1500}};
        const NetworkFit fit = fitNetwork(6, readingsOf(l, false));
        QVERIFY(fit.state == NetworkState::Solved);
        QCOMPARE(fit.spareReadings, 0);
        for (std::size_t k = 0; k < l.size(); ++k) QVERIFY(distance(fit.corners[k], l[k]) < 1e-6);
    }

    void whatDoesNotHoldIsNamed() {
        const std::vector<Point> square{{0, 0}, {1000, 0}, {1000, 1000}, {0, 1000}};
        std::vector<CornerDistance> readings = readingsOf(square, false);
        readings.pop_back(); // the diagonal
        QVERIFY(fitNetwork(4, readings).state == NetworkState::Undetermined);
        readings = readingsOf(square, false);
        readings[1].mm = 4000; // longer than side and diagonal together
        const NetworkFit open = fitNetwork(4, readings);
        QVERIFY(open.state == NetworkState::CannotClose);
        QCOMPARE(open.at, 1);
        readings.erase(readings.begin());
        QVERIFY(fitNetwork(4, readings).state == NetworkState::Undetermined);
    }

    void anyPolygonComesBackFromItsReadings() {
        std::mt19937 dice(11);
        for (int round = 0; round < 60; ++round) {
            const int n = 4 + static_cast<int>(dice() % 6);
            const std::vector<Point> corners = anyPolygon(dice, n);
            const std::vector<CornerDistance> readings = readingsOf(corners, true);
            const NetworkFit fit = fitNetwork(n, readings);
            QVERIFY(fit.state == NetworkState::Solved && fit.spareReadings > 0);
            QVERIFY(near(signedArea(fit.corners), signedArea(corners), 0.01));
            for (const double r : fit.residual) QVERIFY(std::abs(r) < 1e-6);
        }
    }

    void aGrossErrorAmongSpareReadingsIsFoundAndMeasured() {
        // With at least two spare readings checking it, a reading 100 mm too long is named, and so is the 100.
        std::mt19937 dice(12);
        int named = 0;
        const int rounds = 40;
        for (int round = 0; round < rounds; ++round) {
            const int n = 6;
            const std::vector<Point> corners = anyPolygon(dice, n);
            std::vector<CornerDistance> readings = readingsOf(corners, true);
            const std::size_t wrong = dice() % readings.size();
            readings[wrong].mm += 100;
            const NetworkFit fit = fitNetwork(n, readings);
            if (fit.state != NetworkState::Solved) continue;
            QVERIFY(near(*fit.misclosure[wrong], 100, 0.5));
            // Where other readings would explain it as well, it is among those named, and none is accused alone.
            const SlipFinding finding = findSlip(fit.corners, readings);
            QVERIFY(finding.wrong());
            if (finding.proved) QCOMPARE(finding.suspects[0].reading, static_cast<int>(wrong));
            for (const Suspect& s : finding.suspects)
                named += s.reading == static_cast<int>(wrong) && near(s.slip, 100, 0.5);
        }
        QVERIFY2(named >= rounds * 3 / 4, qPrintable(QString::number(named)));
    }

    void oneSpareReadingProvesAnErrorButNotWhich() {
        const std::vector<Point> square{{0, 0}, {1000, 0}, {1000, 1000}, {0, 1000}};
        std::vector<CornerDistance> readings = readingsOf(square, true); // both diagonals: one spare
        readings[4].mm += 40;
        const NetworkFit fit = fitNetwork(4, readings);
        QCOMPARE(fit.spareReadings, 1);
        const SlipFinding finding = findSlip(fit.corners, readings);
        QVERIFY(finding.wrong() && !finding.proved);
        // All six readings explain it; three are named. A slip of 40 in a diagonal leaves the square a square.
        QCOMPARE(finding.suspects.size() + static_cast<std::size_t>(finding.others), std::size_t{6});
        QVERIFY(finding.suspects[0].reading == 4 || finding.suspects[1].reading == 4);
        QVERIFY(!finding.decides); // both diagonals are read: nothing is left to tape but the suspect once more
        QVERIFY(near(*fit.misclosure[4], 40, 0.01));
        QVERIFY(near(fit.residual[4], 10, 0.3)); // a quarter of it
    }
};
WESTRUM_TEST(TapeTest)

#include "tape_test.moc"
