#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/measure/quad.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using R = QuadReading;

namespace {

QuadReadings readings(double ab, double bc, double cd, double da, std::optional<double> ac, std::optional<double> bd) {
    QuadReadings r;
    r.mm = {ab, bc, cd, da, ac, bd};
    return r;
}

/// The readings of a known shape.
QuadReadings readOff(const std::array<Point, 4>& c) {
    return readings(distance(c[0], c[1]), distance(c[1], c[2]), distance(c[2], c[3]), distance(c[3], c[0]),
                    distance(c[0], c[2]), distance(c[1], c[3]));
}

std::array<Point, 4> anyShape(std::mt19937& dice) {
    const auto off = [&] { return static_cast<double>(dice() % 120) - 60; };
    const double length = 1000 + dice() % 4000, width = 800 + dice() % 1500;
    return {{{0, 0}, {length, 0}, {length + off(), width + off()}, {off(), width + off()}}};
}

} // namespace

class QuadTest : public QObject {
    Q_OBJECT
private slots:
    void threeFourFive() {
        // Sides 4000 and 3000, diagonal 5000: a rectangle of 12 m2.
        const QuadFit fit = fitQuad(readings(4000, 3000, 4000, 3000, 5000, {}));
        QVERIFY(!fit.impossible);
        QVERIFY(distance(fit.corners[2], {4000, 3000}) < 1e-9);
        QVERIFY(std::abs(fit.area.value - 12) < 1e-12);
        QVERIFY(!fit.residual[0]);
    }

    void eitherDiagonalGivesTheSameShape() {
        std::mt19937 dice(11);
        for (int round = 0; round < 200; ++round) {
            const auto shape = anyShape(dice);
            QuadReadings all = readOff(shape);
            QuadReadings withAc = all, withBd = all;
            withAc.mm[5].reset();
            withBd.mm[4].reset();
            for (const QuadReadings& r : {all, withAc, withBd}) {
                const QuadFit fit = fitQuad(r);
                QVERIFY(!fit.impossible);
                for (std::size_t k = 0; k < 4; ++k)
                    QVERIFY2(distance(fit.corners[k], shape[k]) < 1e-5, qPrintable(QString::number(round)));
            }
        }
    }

    void aWrongDiagonalShowsWholeInItsMisclosureOnly() {
        // 3000 x 1800 exactly: diagonals 3498.57. One is read 40 mm too long.
        const double d = std::hypot(3000, 1800);
        const QuadFit fit = fitQuad(readings(3000, 1800, 3000, 1800, d + 40, d));
        QVERIFY(std::abs(*fit.misclosure[4] - 40) < 1e-6);
        // The adjustment spreads it: not even a third of it is left as a residual anywhere.
        QVERIFY(fit.largestResidual < 40.0 / 3);
    }

    void leastSquaresIsLeast() {
        // No nearby shape fits the readings better than the adjusted one.
        std::mt19937 dice(17);
        const QuadReadings r = readings(3640, 1785, 3628, 1792, 4049, 4058);
        const QuadFit fit = fitQuad(r);
        const auto misfit = [&](const std::array<Point, 4>& c) {
            const QuadReadings d = readOff(c);
            double sum = 0;
            for (std::size_t k = 0; k < kQuadReadings; ++k) sum += (*r.mm[k] - *d.mm[k]) * (*r.mm[k] - *d.mm[k]);
            return sum;
        };
        const double best = misfit(fit.corners);
        for (int round = 0; round < 500; ++round) {
            auto c = fit.corners;
            for (std::size_t k = 1; k < 4; ++k)
                c[k] = c[k] + Point{(dice() % 200 - 100.0) / 500, k == 1 ? 0 : (dice() % 200 - 100.0) / 500};
            QVERIFY(misfit(c) >= best - 1e-9);
        }
    }

    void whatCannotCloseSaysWhichReading() {
        // 3640 + 1785 = 5425 < 5490.
        const QuadFit fit = fitQuad(readings(3640, 1785, 3628, 1792, 5490, {}));
        QVERIFY(fit.impossible.has_value());
        QCOMPARE(static_cast<int>(fit.impossible->longest), static_cast<int>(R::AC));
        QVERIFY(std::abs(fit.impossible->gap - 65) < 1e-9);
        QVERIFY(fitQuad(readings(9000, 1785, 3628, 1792, {}, 4058)).impossible.has_value());
    }
};
WESTRUM_TEST(QuadTest)

#include "quad_test.moc"
