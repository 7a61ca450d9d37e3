#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/setout/row_starts.h"
#include "tests/support/registry.h"

#include <functional>
#include <random>

using namespace westrum;

namespace {

/// The least planks by trying every whole-millimetre first piece of every run, with the best sharing by augmenting
/// paths: slow, plain, and nothing in common with the search it checks.
class BruteForce {
public:
    BruteForce(std::vector<Run> runs, int plank, int kerf, int stagger, int endLeast, bool free)
        : runs_(std::move(runs)),
          plank_(plank),
          kerf_(kerf),
          stagger_(stagger),
          endLeast_(endLeast),
          free_(free),
          first_(runs_.size()),
          whole_(runs_.size()),
          last_(runs_.size()) {}

    /// -1 if the rules cannot be kept.
    int least() {
        layFrom(0);
        return best_;
    }

private:
    void layFrom(std::size_t i) {
        if (i == runs_.size()) {
            int planks = -pairs();
            for (std::size_t k = 0; k < runs_.size(); ++k) planks += whole_[k] + 2;
            if (best_ < 0 || planks < best_) best_ = planks;
            return;
        }
        const int length = static_cast<int>(runs_[i].length);
        for (int a = std::max(1, endLeast_); a <= plank_; ++a)
            for (int m = 0; a + m * plank_ < length; ++m) {
                const int b = length - a - m * plank_;
                if (b < std::max(1, endLeast_) || b > plank_) continue;
                first_[i] = a;
                whole_[i] = m;
                last_[i] = b;
                if (staggered(i)) layFrom(i + 1);
            }
    }
    [[nodiscard]] bool staggered(std::size_t i) const {
        for (std::size_t q = 0; q < i; ++q) {
            if (runs_[q].row != runs_[i].row - 1 || runs_[q].start >= runs_[i].end() ||
                runs_[i].start >= runs_[q].end())
                continue;
            for (int t = 0; t <= whole_[i]; ++t)
                for (int u = 0; u <= whole_[q]; ++u)
                    if (std::abs(runs_[i].start + first_[i] + t * plank_ - runs_[q].start - first_[q] - u * plank_) <
                        stagger_)
                        return false;
        }
        return true;
    }
    [[nodiscard]] int pairs() const {
        const std::size_t n = runs_.size();
        std::vector<int> ownerOfFirst(n, -1);
        int count = 0;
        for (std::size_t end = 0; end < n; ++end) {
            std::vector<bool> seen(n, false);
            const std::function<bool(std::size_t)> augment = [&](std::size_t e) {
                for (std::size_t s = 0; s < n; ++s) {
                    if (seen[s] || first_[s] + last_[e] + kerf_ > plank_ || (!free_ && s <= e)) continue;
                    seen[s] = true;
                    if (ownerOfFirst[s] < 0 || augment(static_cast<std::size_t>(ownerOfFirst[s]))) {
                        ownerOfFirst[s] = static_cast<int>(e);
                        return true;
                    }
                }
                return false;
            };
            if (augment(end)) ++count;
        }
        return count;
    }

    std::vector<Run> runs_;
    int plank_, kerf_, stagger_, endLeast_;
    bool free_;
    std::vector<int> first_, whole_, last_;
    int best_ = -1;
};

std::vector<Run> equalRuns(int rows, double length) {
    std::vector<Run> runs;
    for (int r = 0; r < rows; ++r) runs.push_back({r, 0, length});
    return runs;
}

int planks(const std::vector<Run>& runs, const RowRules& rules) {
    const RowPlan plan = planRows(runs, rules);
    return plan.feasible() ? plan.planks : -1;
}

} // namespace

class RowStartsTest : public QObject {
    Q_OBJECT

    /// Everything that must hold of a plan, whatever the runs.
    static QString fault(const std::vector<Run>& runs, const RowRules& rules, const RowPlan& plan) {
        std::vector<double> usedOn(plan.cutPlanks.size(), 0);
        int pieces = 0, wholes = 0;
        for (std::size_t i = 0; i < runs.size(); ++i) {
            const RunLayout& l = plan.runs[i];
            wholes += l.wholes;
            if (std::abs(l.first + l.wholes * rules.plankLength + l.last - runs[i].length) > 1e-6)
                return QStringLiteral("run %1 is not filled").arg(i);
            if (l.isSingle()) {
                ++pieces;
                continue;
            }
            pieces += 2;
            if (l.first < rules.endLeast - 1e-6 || l.last < rules.endLeast - 1e-6)
                return QStringLiteral("short end in run %1").arg(i);
            for (std::size_t q = 0; q < i; ++q) {
                if (runs[q].row != runs[i].row - 1 || plan.runs[q].isSingle() || runs[q].start >= runs[i].end() ||
                    runs[i].start >= runs[q].end())
                    continue;
                for (int t = 0; t <= l.wholes; ++t)
                    for (int u = 0; u <= plan.runs[q].wholes; ++u) {
                        const double ours = runs[i].start + l.first + t * rules.plankLength;
                        const double theirs = runs[q].start + plan.runs[q].first + u * rules.plankLength;
                        if (std::abs(ours - theirs) < rules.stagger - 1e-6)
                            return QStringLiteral("joints of runs %1 and %2 too near").arg(q).arg(i);
                    }
            }
        }
        for (const CutPlank& plank : plan.cutPlanks) {
            double used = -rules.kerf;
            int lasts = 0, firsts = 0;
            for (const CutPlank::Part& part : plank.parts) {
                const RunLayout& l = plan.runs[static_cast<std::size_t>(part.run)];
                used += rules.kerf + (part.piece == RunPiece::Last ? l.last : l.first);
                lasts += part.piece == RunPiece::Last;
                firsts += part.piece == RunPiece::First;
                --pieces;
            }
            if (used > rules.plankLength + 1e-6) return QStringLiteral("a plank is overfull");
            if (lasts > 1 || firsts > 1) return QStringLiteral("a plank has only two ends");
            if (rules.working == Working::AsYouGo && lasts == 1 && firsts == 1 &&
                plank.parts.back().run <= plank.parts.front().run)
                return QStringLiteral("an offcut is used before it is there");
        }
        if (pieces != 0) return QStringLiteral("a piece has no plank, or two");
        if (plan.planks != wholes + static_cast<int>(plan.cutPlanks.size())) return QStringLiteral("planks miscounted");
        if (plan.leastPossible > plan.planks) return QStringLiteral("the bound is above what was found");
        return {};
    }

private slots:
    void aRowOfTwoPlanksAndABit() {
        // 2000 = 300 + 1200 + 500 with planks of 1200: one whole, and both ends out of a second (300 + 3 + 500 <=
        // 1200).
        const RowPlan plan =
            planRows(equalRuns(1, 2000), {.plankLength = 1200, .kerf = 3, .stagger = 300, .endLeast = 300});
        QCOMPARE(plan.planks, 2);
        QVERIFY(plan.provenLeast());
    }

    void asYouGoTheOwnOffcutCannotStartItsRow() {
        // As above, but the first piece is laid before the last one is cut: 800 + 1200 is two planks all the same,
        // 1300 needs two planks either way, 2500 = 300 + 2 x 1200 - 200 ... three.
        const RowRules rules{
            .plankLength = 1200, .kerf = 3, .stagger = 300, .endLeast = 300, .working = Working::AsYouGo};
        QCOMPARE(planks(equalRuns(1, 2000), rules), 2);
        QCOMPARE(planks(equalRuns(1, 1300), rules), 2);
        QCOMPARE(planks(equalRuns(1, 2500), rules), 3);
    }

    void exactMultiplesTakeWholePlanksOnly() {
        const RowPlan plan =
            planRows(equalRuns(1, 2400), {.plankLength = 1200, .kerf = 3, .stagger = 300, .endLeast = 300});
        QCOMPARE(plan.planks, 2);
        QCOMPARE(plan.runs[0].first, 1200.0);
        QCOMPARE(plan.runs[0].last, 1200.0);
    }

    void shortRunsShareAPlank() {
        // Four pieces of 390 beside notches: 3 x 390 + 2 x 3 = 1176 <= 1200, so three come out of one plank.
        std::vector<Run> runs;
        for (int i = 0; i < 4; ++i) runs.push_back({i, 0, 390});
        QCOMPARE(planks(runs, {.plankLength = 1200, .kerf = 3, .stagger = 300, .endLeast = 300}), 2);
        // And none of them has a joint to stagger.
        QCOMPARE(planRows(runs, {.plankLength = 1200, .kerf = 3, .stagger = 2000, .endLeast = 300}).runs.size(),
                 std::size_t{4});
    }

    void threeRowsShareInARing() {
        // Runs 1065, 1065, 1065 and 864 with planks of 600: by hand 166 + 600 + 299 in row 3, 299 + 600 + 166 in row 1,
        // 432 + 432 in row 4; the ends share planks 432 + 2 + 166, 299 + 2 + 299 and 166 + 2 + 432, each full to the
        // millimetre. Row 2 takes two planks more: 2 wholes + 3 + 2 = 7. Row 1 waits for row 3, row 3 for row 4.
        std::vector<Run> runs{{0, 0, 1065}, {1, 0, 1065}, {2, 0, 1065}, {3, 0, 864}};
        const RowRules rules{.plankLength = 600, .kerf = 2, .stagger = 200, .endLeast = 150};
        const RowPlan plan = planRows(runs, rules);
        QCOMPARE(plan.planks, 7);
        QCOMPARE(fault(runs, rules, plan), QString());
    }

    void impossibleRulesGiveNoPlan() {
        // 1300 in two pieces of at least 700 each: 1400 > 1300.
        QVERIFY(
            !planRows(equalRuns(1, 1300), {.plankLength = 1200, .kerf = 3, .stagger = 0, .endLeast = 700}).feasible());
        // Joints of neighbouring rows can be at most half a plank apart in the round.
        QVERIFY(
            !planRows(equalRuns(3, 6000), {.plankLength = 1200, .kerf = 3, .stagger = 601, .endLeast = 0}).feasible());
        QVERIFY(planRows({}, {.plankLength = 1200}).runs.empty());
    }

    void theCountsEqualBruteForce() {
        std::mt19937 dice(7);
        for (int round = 0; round < 400; ++round) {
            const int plank = 5 + static_cast<int>(dice() % 6), kerf = static_cast<int>(dice() % 2);
            const int stagger = static_cast<int>(dice() % static_cast<unsigned>(plank / 2 + 1)),
                      endLeast = 1 + static_cast<int>(dice() % 2);
            const int usual = plank + 1 + static_cast<int>(dice() % static_cast<unsigned>(plank + 4));
            std::vector<Run> runs;
            for (int r = 0, rows = 2 + static_cast<int>(dice() % 3); r < rows; ++r) {
                if (dice() % 4 == 0)
                    runs.push_back({r, double(dice() % 3),
                                    double(plank + 1 + static_cast<int>(dice() % static_cast<unsigned>(plank)))});
                else
                    runs.push_back({r, 0, double(usual)});
            }
            if (runs.size() < 4 && dice() % 4 == 0)
                runs.push_back({runs.back().row, runs.back().end() + 2, double(plank + 2)});
            for (const bool free : {false, true}) {
                const int want = BruteForce(runs, plank, kerf, stagger, endLeast, free).least();
                const RowRules rules{.plankLength = double(plank),
                                     .kerf = double(kerf),
                                     .stagger = double(stagger),
                                     .endLeast = double(endLeast),
                                     .working = free ? Working::PlannedAhead : Working::AsYouGo};
                const RowPlan plan = planRows(runs, rules);
                QVERIFY2((plan.feasible() ? plan.planks : -1) == want,
                         qPrintable(QStringLiteral("seed 7, round %1: want %2").arg(round).arg(want)));
                if (plan.feasible()) {
                    QVERIFY(plan.provenLeast());
                    const QString wrong = fault(runs, rules, plan);
                    QVERIFY2(wrong.isEmpty(), qPrintable(QStringLiteral("round %1: %2").arg(round).arg(wrong)));
                }
            }
        }
    }

    void everyPlanOfARealFloorKeepsTheRules() {
        std::mt19937 dice(23);
        int feasible = 0;
        for (int round = 0; round < 60; ++round) {
            std::vector<Run> runs;
            const double length = 1500 + dice() % 2600;
            for (int r = 0; r < 6 + static_cast<int>(dice() % 6); ++r) {
                if (dice() % 5 == 0) {
                    runs.push_back({r, 0, 500.0 + dice() % 400});
                    runs.push_back({r, 1400, length - 1400});
                } else {
                    runs.push_back({r, double(dice() % 4), length + dice() % 5});
                }
            }
            for (const Working working : {Working::AsYouGo, Working::PlannedAhead}) {
                const RowRules rules{
                    .plankLength = 1220, .kerf = 3, .stagger = 300, .endLeast = 250, .working = working};
                const RowPlan plan = planRows(runs, rules);
                if (!plan.feasible()) continue;
                ++feasible;
                const QString wrong = fault(runs, rules, plan);
                QVERIFY2(wrong.isEmpty(), qPrintable(QStringLiteral("seed 23, round %1: %2").arg(round).arg(wrong)));
            }
        }
        QVERIFY(feasible > 60);
    }

    void littleEffortGivesSoundPlansAndTrueBounds() {
        // What a short search proves must hold against a long one, and what it lays must keep the rules.
        std::mt19937 dice(61);
        for (int round = 0; round < 40; ++round) {
            const double length = 1500 + dice() % 2600;
            std::vector<Run> runs;
            for (int r = 0; r < 7 + static_cast<int>(dice() % 4); ++r) runs.push_back({r, 0, length - 3.0 * r});
            RowRules rules{.plankLength = 1220, .kerf = 3, .stagger = 300, .endLeast = 250};
            rules.effort = 6000;
            const RowPlan full = planRows(runs, rules);
            for (const int effort : {20, 300}) {
                rules.effort = effort;
                const RowPlan quick = planRows(runs, rules);
                if (!quick.feasible()) continue;
                const QString wrong = fault(runs, rules, quick);
                QVERIFY2(wrong.isEmpty(), qPrintable(QStringLiteral("seed 61, round %1: %2").arg(round).arg(wrong)));
                if (!full.feasible()) continue;
                QVERIFY2(quick.leastPossible <= full.planks, qPrintable(QString::number(round)));
                QVERIFY2(full.leastPossible <= quick.planks, qPrintable(QString::number(round)));
            }
        }
    }

    void planningAheadNeverTakesMore() {
        for (double length = 1500; length < 4200; length += 83) {
            RowRules rules{
                .plankLength = 1220, .kerf = 3, .stagger = 300, .endLeast = 300, .working = Working::AsYouGo};
            const int asYouGo = planks(equalRuns(8, length), rules);
            rules.working = Working::PlannedAhead;
            const int ahead = planks(equalRuns(8, length), rules);
            QVERIFY2(ahead <= asYouGo, qPrintable(QString::number(length)));
        }
    }

    void theSameQuestionHasTheSameAnswer() {
        const RowRules rules{.plankLength = 1220, .kerf = 3, .stagger = 300, .endLeast = 300};
        const RowPlan one = planRows(equalRuns(9, 1866), rules), two = planRows(equalRuns(9, 1866), rules);
        QCOMPARE(one.planks, two.planks);
        for (std::size_t i = 0; i < one.runs.size(); ++i) QCOMPARE(one.runs[i].first, two.runs[i].first);
    }

    void itCanBeStopped() {
        std::stop_source source;
        source.request_stop();
        QVERIFY(!planRows(equalRuns(9, 1866), {.plankLength = 1220, .kerf = 3, .stagger = 300, .endLeast = 300},
                          source.get_token())
                     .feasible());
    }
};
WESTRUM_TEST(RowStartsTest)

#include "row_starts_test.moc"
