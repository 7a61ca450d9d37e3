#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/takeoff/bonding.h"

#include "core/cutting/effort.h"
#include "core/geometry/boolean.h"
#include "tests/support/registry.h"

#include <array>
#include <vector>

using namespace westrum;

class BondingTest : public QObject {
    Q_OBJECT
private slots:
    void litresAreTheSumOverTheCoats() {
        // 24.5 m2: 9 m2 a litre on the bare face, then twice 12, and 5 % stays in the tray:
        // (24.5/9 + 24.5/12 + 24.5/12) x 1.05 = 7.1458 l.
        QVERIFY(std::abs(litresFor({24.5}, std::vector{9.0, 12.0, 12.0}, 0.05) - 7.145833) < 1e-6);
        QCOMPARE(litresFor({24}, std::vector{12.0, 12.0}, 0), 4.0);
        QCOMPARE(litresFor({0}, std::vector{12.0}, 0.1), 0.0);
        QCOMPARE(litresFor({5}, std::vector<double>{}, 0.1), 0.0); // no coat, no paint
    }

    void bothFacesAndEveryCoatCount() {
        // 3 m2, the back of a carpet at 220 g/m2 once, ply at 150 g/m2 twice and half as much again for its pores:
        //   220 + 2 x 150 x 1.5 = 670 g/m2;  3 x 670 = 2010 g, and a tenth of it lost: 2211 g
        const std::array faces{GluedFace{0.22}, GluedFace{0.15, 2, 1.5}};
        QCOMPARE(adhesiveFor({3}, faces, 0.1).value, 2.211);
        QCOMPARE(adhesiveFor({0}, faces, 0.1).value, 0.0);
    }

    void bayIsCoatedAndClosedInTheOpenTime() {
        // Two coats at 0.5 m2/min take 4 min a m2, closing at 2 m2/min half a minute: 4.5 min a m2.
        //   20 min open, 2 of them drying: 18 min for 4 m2. A wall of 9 m2 is laid in three bays of 3 m2,
        //   each 3 x 4.5 + 2 = 15.5 min
        const auto bays =
            baysFor({9}, 2, {.spreadM2PerMinute = 0.5, .closeM2PerMinute = 2, .openMinutes = 20, .flashMinutes = 2});
        QVERIFY(bays.has_value());
        QCOMPARE(bays->largest.value, 4.0);
        QCOMPARE(bays->count, 3);
        QCOMPARE(bays->each.value, 3.0);
        QCOMPARE(bays->minutes, 15.5);
    }

    void exactlyOneBayIsOne() {
        // One coat at 0.25 m2/min: 4 min a m2; 12 min open: 3 m2, and there are 3.
        const auto bays = baysFor({3}, 1, {.spreadM2PerMinute = 0.25, .closeM2PerMinute = {}, .openMinutes = 12});
        QCOMPARE(bays->count, 1);
    }

    void dryingLongerThanOpenHasNoBays() {
        QVERIFY(
            !baysFor({3}, 1, {.spreadM2PerMinute = 1, .closeM2PerMinute = {}, .openMinutes = 10, .flashMinutes = 10}));
    }

    void stripsAreEqualAndCoverTheSurface() {
        // A wall with an arch taken out of its foot: every strip has its share of what is left, and nothing twice.
        Dice dice(11);
        for (int round = 0; round < 40; ++round) {
            const double w = dice.between(800, 4000), h = dice.between(500, 2000);
            const Region wall{{rectangle(0, 0, w, h)}};
            const Region arch{
                {rectangle(dice.between(0, w / 2), 0, dice.between(100, w / 2), dice.between(50, h / 2))}};
            const Region left = difference(wall, arch);
            const int count = 1 + static_cast<int>(dice.below(7));
            const bool alongX = dice.below(2) == 0;
            const std::vector<Region> strips = equalStrips(left, count, alongX);
            QCOMPARE(strips.size(), static_cast<std::size_t>(count));
            double before = -1e9, sum = 0;
            for (const Region& strip : strips) {
                const double area = areaMm2(strip);
                QVERIFY2(std::abs(area - areaMm2(left) / count) < 20, qPrintable(QString::number(area)));
                sum += area;
                const Bounds b = boundsOf(strip);
                QVERIFY((alongX ? b.low.x : b.low.y) >= before - 0.01); // in laying order
                before = alongX ? b.high.x : b.high.y;
            }
            QVERIFY(std::abs(sum - areaMm2(left)) < 5);
        }
    }
};

WESTRUM_TEST(BondingTest)
#include "bonding_test.moc"
