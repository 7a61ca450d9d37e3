#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buying/need_odds.h"

#include "core/buying/purchase.h"
#include "tests/support/registry.h"

#include <cmath>

using namespace westrum;

class NeedOddsTest : public QObject {
    Q_OBJECT
private slots:
    void chanceIsTheShareThatNeedsMore() {
        const NeedOdds odds({18, 20, 17, 19, 18});
        QCOMPARE(odds.chanceShort(18), 0.4); // 19 and 20 of five
        QCOMPARE(odds.chanceShort(20), 0.0);
        QCOMPARE(odds.chanceShort(16), 1.0);
        // In packs of nine: 18 fail twice in five, 27 never.
        QCOMPARE(odds.packsFor(0.4, 9), 2);
        QCOMPARE(odds.packsFor(0.39, 9), 3);
        QCOMPARE(odds.packsFor(0.0, 1, 19), 0); // no number of packs up to 19 will do
        QCOMPARE(odds.within(0.5), 18.0);
    }

    void nothingTriedNothingFeared() { QCOMPARE(NeedOdds({}).chanceShort(0), 0.0); }

    void readingsScatterAsSaid() {
        Dice dice(21);
        double sum = 0, squares = 0;
        constexpr int n = 40000;
        for (int i = 0; i < n; ++i) {
            const double e = offByChance(dice, 2);
            sum += e;
            squares += e * e;
        }
        QVERIFY(std::abs(sum / n) < 0.05);                    // no bias
        QVERIFY(std::abs(std::sqrt(squares / n) - 2) < 0.05); // and as wide as asked
    }

    void triesAgreeWithTheFormula() {
        // 26 planks, 14 of them cut, one cut in thirty spoiled, 29 in hand: tried often, the chance of the formula.
        Dice dice(5);
        std::vector<double> needs;
        for (int i = 0; i < 60000; ++i) needs.push_back(26 + spoiledTries(dice, 14, 1.0 / 30));
        const NeedOdds odds(needs);
        for (const int have : {26, 27, 28, 29})
            QVERIFY(std::abs(odds.chanceShort(have) - chanceOfRunningShort(26, 14, have, 1.0 / 30)) < 0.01);
    }

    void moreNeverRunsShortMoreOften() {
        Dice dice(9);
        for (int round = 0; round < 50; ++round) {
            std::vector<double> needs;
            for (std::size_t i = 0; i < 1 + dice.below(60); ++i) needs.push_back(dice.between(0, 40));
            const NeedOdds odds(needs);
            for (double have = 0; have < 41; have += 0.5)
                QVERIFY(odds.chanceShort(have + 0.5) <= odds.chanceShort(have));
            const int packs = odds.packsFor(0.1, 3);
            QVERIFY(odds.chanceShort(packs * 3.0) <= 0.1);
            if (packs > 1) QVERIFY(odds.chanceShort((packs - 1) * 3.0) > 0.1);
        }
    }
};

WESTRUM_TEST(NeedOddsTest)
#include "need_odds_test.moc"
