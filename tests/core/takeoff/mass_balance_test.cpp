#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/takeoff/mass_balance.h"

#include "core/cutting/effort.h"
#include "tests/support/registry.h"

#include <array>
#include <vector>

using namespace westrum;

class MassBalanceTest : public QObject {
    Q_OBJECT
    VanWheels wheels_{.wheelbase = {3000}, .track = {1600}, .frontBefore = {900}, .rearBefore = {700}};

private slots:
    void massIsSharedByItsLever() {
        // 60 kg at two thirds of the way to the rear axle: 40 kg there, 20 kg in front.
        // 400 mm right of the middle of a track of 1600: half and a quarter of it: 45 kg right, 15 kg left.
        const std::array one{PlacedMass{{60}, {2000}, {400}}};
        const MassBalance b = balanceOf(one, wheels_);
        QCOMPARE(b.rearAdded.value, 40.0);
        QCOMPARE(b.frontAdded.value, 20.0);
        QCOMPARE(b.rightAdded.value, 45.0);
        QCOMPARE(b.leftAdded.value, 15.0);
        QCOMPARE(b.rear.value, 740.0);
        QVERIFY(b.within()); // nobody said a limit
    }

    void whatHangsBehindTheRearAxleLiftsTheFront() {
        // 30 kg 600 mm behind it: 30 x 3600 / 3000 = 36 kg on it, 6 kg off the front.
        const std::array one{PlacedMass{{30}, {3600}, {}}};
        const MassBalance b = balanceOf(one, wheels_);
        QCOMPARE(b.rearAdded.value, 36.0);
        QCOMPARE(b.frontAdded.value, -6.0);
    }

    void eachLimitIsHeldByItself() {
        wheels_.rearLimit = Kg{735};
        wheels_.grossLimit = Kg{1660};
        const std::array one{PlacedMass{{60}, {2000}, {}}}; // 740 kg behind, 1660 in all
        const MassBalance b = balanceOf(one, wheels_);
        QVERIFY(b.rearOver);
        QVERIFY(!b.grossOver); // exactly the limit is within it
        QVERIFY(!b.within());
    }

    void takingOutAndPuttingBackIsNothing() {
        const std::array both{PlacedMass{{25}, {1000}, {300}}, PlacedMass{{-25}, {1000}, {300}}};
        const MassBalance b = balanceOf(both, wheels_);
        QCOMPARE(b.added.value, 0.0);
        QCOMPARE(b.rearAdded.value, 0.0);
        QVERIFY(!b.centre);
    }

    void sharesAddUpWhateverLiesWhere() {
        Dice dice(4);
        for (int round = 0; round < 200; ++round) {
            std::vector<PlacedMass> all;
            for (std::size_t i = 0; i < 1 + dice.below(30); ++i)
                all.push_back({{dice.between(-20, 80)}, {dice.between(-900, 4500)}, {dice.between(-1000, 1000)}});
            const MassBalance b = balanceOf(all, wheels_);
            QVERIFY(std::abs((b.frontAdded + b.rearAdded - b.added).value) < 1e-9);
            QVERIFY(std::abs((b.leftAdded + b.rightAdded - b.added).value) < 1e-9);
            // The whole of it at its centre does the same.
            if (!b.centre || std::abs(b.added.value) < 1) continue;
            const std::array lump{PlacedMass{b.added, {b.centre->x}, {b.centre->y}}};
            QVERIFY(std::abs((balanceOf(lump, wheels_).rearAdded - b.rearAdded).value) < 1e-6);
        }
    }
};

WESTRUM_TEST(MassBalanceTest)
#include "mass_balance_test.moc"
