#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/setout/board_joints.h"
#include "core/units/count.h"
#include "tests/support/registry.h"

#include <functional>
#include <limits>
#include <random>

using namespace westrum;

namespace {

std::vector<Run> rowsOf(int rows, double length) {
    std::vector<Run> runs;
    for (int r = 0; r < rows; ++r) runs.push_back({r, 0, length});
    return runs;
}

/// Least cost of cutting the pieces, by trying every board for each of them.
std::int64_t leastBarCost(std::vector<double> pieces, const std::vector<StockLength>& stock, double kerf) {
    std::sort(pieces.begin(), pieces.end(), std::greater<>());
    std::int64_t best = std::numeric_limits<std::int64_t>::max();
    std::vector<double> room;
    const std::function<void(std::size_t, std::int64_t)> place = [&](std::size_t i, std::int64_t cost) {
        if (cost >= best) return;
        if (i == pieces.size()) {
            best = cost;
            return;
        }
        for (std::size_t b = 0; b < room.size(); ++b) {
            if (room[b] + 1e-9 < pieces[i] + kerf) continue;
            bool same = false; // boards with equal room are alike
            for (std::size_t a = 0; a < b; ++a) same = same || std::abs(room[a] - room[b]) < 1e-9;
            if (same) continue;
            room[b] -= pieces[i] + kerf;
            place(i + 1, cost);
            room[b] += pieces[i] + kerf;
        }
        for (const StockLength& s : stock) {
            if (s.length.value + 1e-9 < pieces[i]) continue;
            room.push_back(s.length.value - pieces[i]);
            place(i + 1, cost + s.cost);
            room.pop_back();
        }
    };
    place(0, 0);
    return best;
}

/// Least cost over every choice of one joint at most in each row, neighbours' joints `bays` supports apart.
std::int64_t leastJointedCost(int rows, double length, const JointRules& rules) {
    std::int64_t best = std::numeric_limits<std::int64_t>::max();
    std::vector<int> joint; // -1: whole
    const std::function<void()> choose = [&] {
        if (static_cast<int>(joint.size()) == rows) {
            std::vector<double> pieces;
            for (const int j : joint) {
                const double at = j < 0 ? 0 : rules.supports[static_cast<std::size_t>(j)];
                if (j >= 0) pieces.push_back(at);
                pieces.push_back(length - at);
            }
            best = std::min(best, leastBarCost(pieces, rules.lengths, rules.kerf));
            return;
        }
        double longest = 0;
        for (const StockLength& l : rules.lengths) longest = std::max(longest, l.length.value);
        for (int j = -1; j < static_cast<int>(rules.supports.size()); ++j) {
            if (j < 0 && length > longest) continue;
            if (j >= 0) {
                const double at = rules.supports[static_cast<std::size_t>(j)];
                if (std::max(at, length - at) > longest) continue;
                if (!joint.empty() && joint.back() >= 0 && std::abs(joint.back() - j) < rules.staggerBays) continue;
            }
            joint.push_back(j);
            choose();
            joint.pop_back();
        }
    };
    choose();
    return best;
}

} // namespace

class BoardJointsTest : public QObject {
    Q_OBJECT
private slots:
    void aKerfIsLostBetweenPiecesNotAfterTheLast() {
        // Three pieces of 799 and two kerfs of 3 are 2403: too much for 2400. With 798 they are exactly 2400.
        const std::vector<StockLength> stock{{{2400}, 1}};
        const std::vector<double> tight{798, 798, 798}, over{799, 799, 799};
        QCOMPARE(barCost(tight, stock, 3).boards, 1);
        QCOMPARE(barCost(over, stock, 3).boards, 2);
    }

    void nineFullRowsOutOfTheCheaperLengths() {
        // Two of 1150 and a kerf are 2303 of 2400 at 780; nine rows take four of them and a half: 4 x 780 + 780 = 3900.
        JointRules rules;
        rules.lengths = {{{2400}, 780}, {{3000}, 960}};
        rules.kerf = 3;
        QCOMPARE(planJoints(rowsOf(9, 1150), rules).cost, 3900);
    }

    void whereNoStockReachesRowsAreJoinedOnSupports() {
        // 3400 out of 2400: a joint on 1000 to 2400. Two places take turns, so that neighbours never share one.
        JointRules rules;
        rules.lengths = {{{2400}, 1}};
        rules.supports = {400, 1000, 1600, 2200, 2800};
        rules.kerf = 3;
        rules.jointing = Jointing::Alternating;
        const JointPlan plan = planJoints(rowsOf(6, 3400), rules);
        QCOMPARE(plan.longerThanStock.size(), 6U);
        QCOMPARE(plan.offSupport, 0);
        QCOMPARE(plan.inLine, 0);
        for (std::size_t r = 0; r < 6; ++r) QCOMPARE(plan.joints[r].size(), 1U);
        for (std::size_t r = 1; r < 6; ++r) QVERIFY(plan.joints[r] != plan.joints[r - 1]);
        rules.jointing = Jointing::FewestBoards;
        QCOMPARE(planJoints(rowsOf(6, 3400), rules).cost, 9);
    }

    void withoutSupportsJointsAreMadeAnywayAndTold() {
        JointRules rules;
        rules.lengths = {{{2400}, 1}};
        rules.kerf = 3;
        rules.endLeast = 300;
        const JointPlan plan = planJoints(rowsOf(4, 3000), rules);
        QVERIFY(plan.offSupport >= 4);
        for (const auto& joints : plan.joints) QVERIFY(!joints.empty());
    }

    /// As many boards as it says it takes, and none fewer than its bound: against every choice there is.
    void theFewestBoardsAreTheFewestThereCanBe() {
        std::mt19937 dice(19);
        int checked = 0;
        for (int round = 0; round < 60; ++round) {
            JointRules rules;
            rules.kerf = dice() % 5;
            const double length = 1400 + dice() % 1400;
            rules.lengths = {{{1200.0 + dice() % 900}, static_cast<std::int64_t>(600 + dice() % 300)}};
            if (dice() % 2)
                rules.lengths.push_back({{2000.0 + dice() % 900}, static_cast<std::int64_t>(900 + dice() % 400)});
            for (double at = 300 + dice() % 200; at < length - 100; at += 350 + dice() % 250)
                rules.supports.push_back(at);
            rules.mostJoints = 1;
            rules.jointing = Jointing::FewestBoards;
            rules.effort = 100000;
            const int rows = 2 + static_cast<int>(dice() % 2);
            const std::int64_t least = leastJointedCost(rows, length, rules);
            const JointPlan plan = planJoints(rowsOf(rows, length), rules);
            if (least == std::numeric_limits<std::int64_t>::max()) {
                QVERIFY(plan.offSupport > 0 || plan.inLine > 0); // it cannot be done by the rules, and that is told
                continue;
            }
            ++checked;
            QCOMPARE(plan.inLine, 0);
            QCOMPARE(plan.cost, least);
            QCOMPARE(plan.leastCost, least);
        }
        QVERIFY(checked > 25);
    }

    /// First fit never does worse than its bound says it could, and never better.
    void theBoundIsABound() {
        std::mt19937 dice(23);
        for (int round = 0; round < 40; ++round) {
            std::vector<double> pieces;
            for (unsigned i = 0; i < 2 + dice() % 5; ++i) pieces.push_back(150 + dice() % 900);
            const std::vector<StockLength> stock{{{1200}, 3}, {{1900}, 5}};
            const BarCost found = barCost(pieces, stock, 3);
            const std::int64_t least = leastBarCost(pieces, stock, 3);
            QVERIFY(found.least <= least && least <= found.cost);
        }
    }
};
WESTRUM_TEST(BoardJointsTest)

#include "board_joints_test.moc"
