#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buying/pack_sizes.h"

#include "core/cutting/effort.h"
#include "tests/support/registry.h"

#include <array>
#include <functional>

using namespace westrum;

class PackSizesTest : public QObject {
    Q_OBJECT
private slots:
    void mixtureCanBeCheapestOfAll() {
        // 2.2 l from 0.5 l at 8.00, 1 l at 14.50 and 2.5 l at 36.50:
        //   one of 2.5: 36.50;  2 x 1 + 0.5 = 2.5 l: 37.00;  1 + 3 x 0.5 = 2.5 l: 38.50;  so the large one
        // 2.6 l: 3 x 1: 43.50;  2.5 + 0.5: 44.50;  2 x 1 + 2 x 0.5 = 3 l: 45.00;  so three of one litre
        const std::array tins{PackSize{0.5, 800}, PackSize{1, 1450}, PackSize{2.5, 3650}};
        QCOMPARE(leastCostPacks(2.2, tins)->counts, (std::vector{0, 0, 1}));
        const PackChoice more = *leastCostPacks(2.6, tins);
        QCOMPARE(more.counts, (std::vector{0, 3, 0}));
        QCOMPARE(more.costMinor, 4350);
        QCOMPARE(more.amount, 3.0);
    }

    void needMetExactlyBuysNoMore() {
        const std::array tins{PackSize{0.75, 1000}};
        QCOMPARE(leastCostPacks(2.25, tins)->packs(), 3);
        QCOMPARE(leastCostPacks(2.2501, tins)->packs(), 4);
        QCOMPARE(leastCostPacks(0, tins)->packs(), 0);
    }

    void atOnePriceFewerPacksWin() {
        const std::array tins{PackSize{1, 1000}, PackSize{2, 2000}};
        QCOMPARE(leastCostPacks(2, tins)->counts, (std::vector{0, 1}));
    }

    void noSizesNoAnswer() { QVERIFY(!leastCostPacks(1, {})); }

    void farMoreThanAnyPackIsBoughtInBulk() {
        // 100 000 l: 25 l at 100.00 is the cheapest kind, 4 000 of them and nothing else.
        const std::array tins{PackSize{2.5, 1250}, PackSize{25, 10000}};
        const PackChoice c = *leastCostPacks(100000, tins);
        QCOMPARE(c.counts, (std::vector{0, 4000}));
    }

    void noOtherChoiceIsCheaper() {
        // Against every choice there is, of up to so many of each.
        Dice dice(7);
        for (int round = 0; round < 300; ++round) {
            std::vector<PackSize> sizes;
            for (std::size_t i = 0; i < 1 + dice.below(3); ++i)
                sizes.push_back({0.25 * static_cast<double>(1 + dice.below(12)),
                                 100 + static_cast<std::int64_t>(dice.below(3000))});
            const double need = dice.between(0.1, 6);
            std::int64_t least = -1;
            const std::function<void(std::size_t, double, std::int64_t)> every = [&](std::size_t i, double held,
                                                                                     std::int64_t cost) {
                if (held >= need && (least < 0 || cost < least)) least = cost;
                if (i == sizes.size()) return;
                for (int k = 0; k <= 24 && held + k * sizes[i].amount <= need + sizes[i].amount; ++k)
                    every(i + 1, held + k * sizes[i].amount, cost + k * sizes[i].priceMinor);
            };
            every(0, 0, 0);
            const auto got = leastCostPacks(need, sizes);
            QVERIFY(got.has_value());
            QCOMPARE(got->costMinor, least);
            QVERIFY(got->amount >= need - 1e-4);
        }
    }
};

WESTRUM_TEST(PackSizesTest)
#include "pack_sizes_test.moc"
