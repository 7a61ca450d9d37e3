#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buying/cost_shares.h"

#include "core/cutting/effort.h"
#include "tests/support/registry.h"

using namespace westrum;

class CostSharesTest : public QObject {
    Q_OBJECT
    static std::vector<std::int64_t> minor(const std::vector<Money>& money) {
        std::vector<std::int64_t> all;
        for (const Money& m : money) all.push_back(m.minor);
        return all;
    }

private slots:
    void offcutBelongsToThoseWhoCutFromTheSheet() {
        // A sheet of 3 m2: the wall takes 1.2, the door 0.8; what is left, 1.0, is theirs as 3 to 2.
        //   1.2 + 0.6 = 1.8 and 0.8 + 0.4 = 1.2. A second sheet is the wall's alone, whatever it takes of it.
        //   Wall 4.8 of 6: of 50.01, 40.008 -> 40.01; door 10.002 -> 10.00
        const std::vector<SharedUnit> sheets{{3, {{0, 1.2}, {1, 0.8}}}, {3, {{0, 0.1}}}};
        const CostShares s = shareCost(2, sheets, {5001, {}});
        QCOMPARE(s.consumed[0], 4.8);
        QCOMPARE(s.consumed[1], 1.2);
        QCOMPARE(minor(s.share), (std::vector<std::int64_t>{4001, 1000}));
    }

    void spareUnitsAreEverybodys() {
        // Three packs bought, one untouched: it is borne as the other two are.
        const std::vector<SharedUnit> packs{{1, {{0, 1.0}}}, {1, {{1, 0.5}}}, {1, {}}};
        QCOMPARE(minor(shareCost(2, packs, {900, {}}).share), (std::vector<std::int64_t>{450, 450}));
    }

    void oddCentsGoToTheLargestRemainders() {
        // 1.00 among three alike: 33.3 each, one cent over: to the first.
        QCOMPARE(minor(inParts({100, {}}, std::vector<double>{1, 1, 1})), (std::vector<std::int64_t>{34, 33, 33}));
        // 1.00 as 1 : 2 : 4: 14.29, 28.57, 57.14: the cent goes where .57 is.
        QCOMPARE(minor(inParts({100, {}}, std::vector<double>{1, 2, 4})), (std::vector<std::int64_t>{14, 29, 57}));
        QCOMPARE(minor(inParts({-100, {}}, std::vector<double>{1, 1, 1})), (std::vector<std::int64_t>{-34, -33, -33}));
        QCOMPARE(minor(inParts({5, {}}, std::vector<double>{0, 0})), (std::vector<std::int64_t>{3, 2}));
    }

    void sharesAddUpToTheCentInAnyOrder() {
        Dice dice(3);
        for (int round = 0; round < 500; ++round) {
            const int surfaces = 1 + static_cast<int>(dice.below(12));
            std::vector<SharedUnit> units;
            for (std::size_t i = 0; i < dice.below(20); ++i) {
                SharedUnit u{dice.between(1, 5), {}};
                for (std::size_t k = 0; k < dice.below(4); ++k)
                    u.taken.emplace_back(static_cast<int>(dice.below(static_cast<std::size_t>(surfaces))),
                                         dice.between(0, 1));
                units.push_back(u);
            }
            const Money total{static_cast<std::int64_t>(dice.below(1000000)), {}};
            const CostShares s = shareCost(surfaces, units, total);
            std::int64_t sum = 0;
            for (const Money& m : s.share) {
                QVERIFY(m.minor >= 0);
                sum += m.minor;
            }
            QCOMPARE(sum, total.minor);
            std::vector<SharedUnit> other = units;
            dice.shuffle(other);
            const CostShares again = shareCost(surfaces, other, total);
            for (std::size_t i = 0; i < s.share.size(); ++i)
                QVERIFY(std::abs(s.share[i].minor - again.share[i].minor) <= 1); // sums round in another order
        }
    }
};

WESTRUM_TEST(CostSharesTest)
#include "cost_shares_test.moc"
