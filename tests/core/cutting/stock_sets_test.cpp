#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/bar_packer.h"
#include "core/cutting/bar_relaxation.h"
#include "core/cutting/knapsack.h"
#include "core/cutting/stock_sets.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

namespace {

const std::function<bool()> kNeverOver = [] { return false; };

/// Whether the pieces fit the bars, by trying everything: for a handful of pieces.
bool fits(std::vector<std::int64_t> pieces, std::vector<std::int64_t> room) {
    if (pieces.empty()) return true;
    const std::int64_t piece = pieces.back();
    pieces.pop_back();
    for (std::size_t b = 0; b < room.size(); ++b) {
        if (room[b] < piece || (b > 0 && room[b] == room[b - 1])) continue;
        room[b] -= piece;
        if (fits(pieces, room)) return true;
        room[b] += piece;
    }
    return false;
}

bool fits(const BarInstance& in, const StockSet& bars) {
    std::vector<std::int64_t> pieces;
    std::vector<std::int64_t> room;
    for (std::size_t i = 0; i < in.size.size(); ++i) pieces.insert(pieces.end(), std::size_t(in.demand[i]), in.size[i]);
    for (std::size_t k = 0; k < bars.size(); ++k) room.insert(room.end(), std::size_t(bars[k]), in.capacity[k]);
    std::reverse(pieces.begin(), pieces.end()); // the longest is tried first
    return fits(pieces, room);
}

BarInstance anyInstance(std::mt19937& dice) {
    BarInstance in;
    in.capacity = {40 + std::int64_t(dice() % 20), 70 + std::int64_t(dice() % 30)};
    const std::int64_t longest = in.capacity[0];
    std::int64_t size = longest;
    while (in.size.size() < 5 && size > 8) {
        size -= 1 + std::int64_t(dice() % 10);
        in.size.push_back(size);
        in.demand.push_back(1 + int(dice() % 2));
    }
    return in;
}

} // namespace

class StockSetsTest : public QObject {
    Q_OBJECT

private slots:
    void theKnapsackTakesTheMostWorth() {
        // Sizes 5, 4, 3 worth 10, 7, 4, two of each; room 12: 5 + 4 + 3 are worth 21, 4 + 4 + 3 only 18, 5 + 5 only
        // 20.
        Knapsack knapsack({5, 4, 3}, {2, 2, 2}, 12);
        knapsack.fill({10, 7, 4});
        QCOMPARE(knapsack.best(12), 21.0);
        QCOMPARE(knapsack.pattern(12), (std::vector<int>{1, 1, 1}));
        QCOMPARE(knapsack.best(10), 20.0);
        QCOMPARE(knapsack.best(2), 0.0);
    }

    void theKnapsackIsRightForAnyWorths() {
        std::mt19937 dice(8);
        for (int round = 0; round < 100; ++round) {
            std::vector<std::int64_t> size;
            std::vector<int> most;
            std::vector<double> worth;
            for (int i = 0; i < 4; ++i) {
                size.push_back(3 + std::int64_t(dice() % 20));
                most.push_back(int(dice() % 4));
                worth.push_back(double(dice() % 50));
            }
            Knapsack knapsack(size, most, 60);
            knapsack.fill(worth);
            double best = 0;
            for (int a = 0; a <= most[0]; ++a)
                for (int b = 0; b <= most[1]; ++b)
                    for (int c = 0; c <= most[2]; ++c)
                        for (int d = 0; d <= most[3]; ++d)
                            if (a * size[0] + b * size[1] + c * size[2] + d * size[3] <= 60)
                                best = std::max(best, a * worth[0] + b * worth[1] + c * worth[2] + d * worth[3]);
            QCOMPARE(knapsack.best(60), best);
            const std::vector<int> pattern = knapsack.pattern(60);
            double sum = 0;
            std::int64_t used = 0;
            for (std::size_t i = 0; i < 4; ++i) {
                QVERIFY(pattern[i] <= most[i]);
                sum += pattern[i] * worth[i];
                used += pattern[i] * size[i];
            }
            QCOMPARE(sum, best);
            QVERIFY(used <= 60);
        }
    }

    void setsComeInOrderOfCost() {
        // Bars of 20 at 3 and of 50 at 7, 100 to be carried: 2 x 50 cost 14; 5 x 20 cost 15; 50 + 3 x 20 cost 16.
        StockSets sets({3, 7}, {20, 50}, {9, 9});
        sets.cuts.push_back({.value = {20, 50}, .need = 100});
        QCOMPARE(*sets.cheapest(100), (StockSet{0, 2}));
        sets.tried.push_back({0, 2});
        QCOMPARE(*sets.cheapest(100), (StockSet{5, 0}));
        sets.tried.push_back({5, 0});
        QCOMPARE(*sets.cheapest(100), (StockSet{3, 1}));
        QVERIFY(!sets.cheapest(16)); // nothing else costs less than that
        QVERIFY(sets.complete());
        QCOMPARE(sets.costOf({3, 1}), 16.0);
    }

    void whatIsFreeIsAlwaysThere() {
        StockSets sets({0, 5}, {30, 50}, {2, 9});
        sets.cuts.push_back({.value = {30, 50}, .need = 100});
        QCOMPARE(*sets.cheapest(100), (StockSet{2, 1})); // 2 x 30 from the rack, 40 more take one of 50
    }

    /// Against all sets of up to six of each of three kinds.
    void theCheapestIsTheCheapest() {
        std::mt19937 dice(12);
        for (int round = 0; round < 60; ++round) {
            const std::vector<double> price{1 + double(dice() % 9), 1 + double(dice() % 9), 1 + double(dice() % 9)};
            StockSets sets(price, {1, 1, 1}, {6, 6, 6});
            for (int c = 0; c < 2; ++c)
                sets.cuts.push_back(
                    {{double(dice() % 9), 1 + double(dice() % 9), double(dice() % 9)}, double(dice() % 40)});
            double best = 1e9;
            for (int a = 0; a <= 6; ++a)
                for (int b = 0; b <= 6; ++b)
                    for (int c = 0; c <= 6; ++c)
                        if (sets.cuts[0].allows({a, b, c}) && sets.cuts[1].allows({a, b, c}))
                            best = std::min(best, sets.costOf({a, b, c}));
            const auto found = sets.cheapest(1e9);
            QCOMPARE(found.has_value(), best < 1e9);
            if (found) QVERIFY(std::abs(sets.costOf(*found) - best) < 1e-9);
        }
    }

    void aSetThatCarriesAllIsNeverRuledOut() {
        std::mt19937 dice(21);
        int ruledOut = 0;
        int kept = 0;
        for (int round = 0; round < 60; ++round) {
            const BarInstance in = anyInstance(dice);
            BarRelaxation relaxation(in);
            std::vector<StockCut> cuts;
            for (int a = 0; a <= 4; ++a)
                for (int b = 0; b <= 3; ++b)
                    if (auto cut = relaxation.cutAgainst({a, b})) {
                        QVERIFY(!cut->allows({a, b}));
                        cuts.push_back(std::move(*cut));
                        ++ruledOut;
                    }
            for (int a = 0; a <= 4; ++a)
                for (int b = 0; b <= 3; ++b) {
                    if (!fits(in, {a, b})) continue;
                    ++kept;
                    for (const StockCut& cut : cuts) QVERIFY(cut.allows({a, b}));
                }
        }
        QVERIFY(ruledOut > 100 && kept > 100); // both happened
    }

    void thePackerFindsWhatThereIs() {
        std::mt19937 dice(22);
        Dice shake(1);
        for (int round = 0; round < 60; ++round) {
            const BarInstance in = anyInstance(dice);
            for (int a = 0; a <= 4; ++a)
                for (int b = 0; b <= 2; ++b) {
                    BarPacker packer(in, {a, b});
                    const auto found = packer.attempt(shake, 100000, kNeverOver);
                    QCOMPARE(found.has_value(), fits(in, {a, b}));
                    QCOMPARE(packer.impossible(), !found.has_value());
                    if (!found) continue;
                    std::vector<int> carried(in.size.size(), 0);
                    for (const PackedBar& bar : *found) {
                        std::int64_t used = 0;
                        for (std::size_t i = 0; i < carried.size(); ++i) {
                            carried[i] += bar.pieces[i];
                            used += bar.pieces[i] * in.size[i];
                        }
                        QVERIFY(used <= in.capacity[bar.kind]);
                    }
                    QCOMPARE(carried, in.demand);
                }
        }
    }

    void aPackerGivenUpProvesNothing() {
        BarInstance in{.capacity = {100}, .size = {51, 47, 40, 33, 30, 24, 19}, .demand = {3, 3, 3, 3, 3, 3, 3}};
        BarPacker packer(in, {8});
        Dice shake(1);
        QVERIFY(!packer.attempt(shake, 1000000, [] { return true; }));
        QVERIFY(!packer.impossible());
    }
};

WESTRUM_TEST(StockSetsTest)
#include "stock_sets_test.moc"
