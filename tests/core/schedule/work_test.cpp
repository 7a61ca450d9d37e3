#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/schedule/daylight.h"
#include "core/schedule/work.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <random>

using namespace westrum;

namespace {

constexpr int kDay = 1440;

/// So many days from nine to five, two people, dry and mild.
std::vector<WorkWindow> days(int n, int people = 2) {
    std::vector<WorkWindow> windows;
    for (int d = 0; d < n; ++d) windows.push_back({d * kDay + 540, d * kDay + 1020, people});
    return windows;
}

WorkTask task(const char* id, int minutes, int hands = 1) {
    WorkTask t;
    t.id = id;
    t.minutes = minutes;
    t.hands = hands;
    return t;
}

WorkSchedule planned(const WorkProblem& p, std::int64_t iterations = 3000) {
    WorkEffort effort;
    effort.iterations = iterations;
    return planWork(p, effort);
}

/// Work as it comes: some of everything, with what waits for what.
WorkProblem anyWork(std::mt19937& dice, int tasks) {
    WorkProblem p;
    for (int d = 0; d < 60; ++d) {
        const int people = dice() % 4 == 0 ? 1 : 2;
        p.windows.push_back({d * kDay + 540, d * kDay + 700 + static_cast<int>(dice() % 5) * 60, people,
                             dice() % 3 != 0, dice() % 5 != 0, 5.0 + dice() % 18, dice() % 4 != 0});
    }
    for (int d = 60; d < 90; ++d) p.windows.push_back({d * kDay + 540, d * kDay + 1020, 2});
    for (int i = 0; i < tasks; ++i) {
        WorkTask t = task("", 20 + 5 * static_cast<int>(dice() % 60), dice() % 4 == 0 ? 2 : 1);
        t.id = "t" + std::to_string(i);
        t.inside = dice() % 3 != 0;
        t.split = dice() % 3 == 0;
        t.dry = dice() % 4 == 0;
        t.light = dice() % 4 == 0;
        if (dice() % 4 == 0) t.minC = 8.0 + dice() % 7;
        t.open = dice() % 9 == 0;
        if (t.inside && dice() % 6 == 0) t.narrow = 1 + static_cast<int>(dice() % 2);
        if (t.inside && dice() % 7 == 0) t.fumes = 30 * static_cast<int>(dice() % 4);
        p.tasks.push_back(t);
    }
    for (int i = 1; i < tasks; ++i)
        if (dice() % 2)
            p.before.push_back(
                {static_cast<int>(dice() % static_cast<unsigned>(i)), i, static_cast<int>(dice() % 4) * 400});
    return p;
}

} // namespace

class WorkTest : public QObject {
    Q_OBJECT
private slots:
    void twoWorkSideBySideAndOneWaitsForTheNight() {
        // Three hours and two hours side by side; what follows the longer waits a day: 540 + 180, + 1440 is the next
        // day at 720, and an hour more: 2220. Nothing is sooner: the chain itself takes so long.
        WorkProblem p;
        p.windows = days(5);
        p.tasks = {task("a", 180), task("b", 120), task("c", 60)};
        p.before = {{0, 2, kDay}};
        const WorkSchedule s = planned(p);
        QCOMPARE(s.finish, kDay + 720 + 60);
        QVERIFY(s.proven());
        QCOMPARE(s.parts[0], (std::vector<WorkPart>{{540, 720}}));
        QCOMPARE(s.parts[1], (std::vector<WorkPart>{{540, 660}}));
        QVERIFY(!brokenRule(p, s));
    }

    void whatMayBeInterruptedGoesOnTheNextDay() {
        // 480 minutes a day: 700 are 480 and 220. What may not begins the next day where less than its length is left.
        WorkProblem p;
        p.windows = days(5, 1);
        p.tasks = {task("long", 700), task("whole", 300)};
        p.tasks[0].split = true;
        const WorkSchedule s = planned(p);
        QVERIFY(!brokenRule(p, s));
        // Of both orders the better: whole first, then 180 of the long one, 480, 40: the third day at 540 + 40.
        QCOMPARE(s.finish, 2 * kDay + 580);
        // No part shorter than half an hour unless less was left: with 470 taken, 10 minutes of a day are no use.
        p.tasks = {task("first", 470), task("then", 40)};
        p.tasks[1].split = true;
        QCOMPARE(planned(p).parts[1], (std::vector<WorkPart>{{kDay + 540, kDay + 580}}));
        p.tasks[0].minutes = 450; // half an hour is left: it is used
        QCOMPARE(planned(p).parts[1], (std::vector<WorkPart>{{990, 1020}, {kDay + 540, kDay + 550}}));
    }

    void rainDarkAndColdAreWaitedFor() {
        WorkProblem p;
        p.windows = days(4);
        p.windows[0].dry = false;
        p.windows[1].light = false;
        p.windows[2].degC = 4;
        p.tasks = {task("saw outside", 60)};
        p.tasks[0].dry = p.tasks[0].light = true;
        p.tasks[0].minC = 5;
        QCOMPARE(planned(p).finish, 3 * kDay + 600);
        p.tasks[0].minC.reset();
        QCOMPARE(planned(p).finish, 2 * kDay + 600);
        p.tasks[0].light = false;
        QCOMPARE(planned(p).finish, kDay + 600);
        p.tasks[0].dry = false;
        QCOMPARE(planned(p).finish, 600);
    }

    /// A trip waits for a day on which shops are open; where none is, it says so.
    void othersMustBeOpen() {
        WorkProblem p;
        p.windows = days(3);
        p.windows[0].open = p.windows[1].open = false;
        p.tasks = {task("trip", 150)};
        p.tasks[0].open = true;
        QCOMPARE(planned(p).finish, 2 * kDay + 690);
        QCOMPARE(planned(p).bound, 2 * kDay + 690);
        p.windows[2].open = false;
        QCOMPARE(planned(p).unplaced.front().fault, WorkFault::NeverOpen);
    }

    /// Two hours each in one narrow place, one after the other though two people are there; a third goes on beside.
    void aNarrowPlaceHoldsOne() {
        WorkProblem p;
        p.windows = days(1);
        p.tasks = {task("one wall", 120), task("the other", 120), task("elsewhere", 120)};
        p.tasks[0].narrow = p.tasks[1].narrow = 1;
        WorkSchedule s = planned(p);
        QCOMPARE(s.finish, 540 + 240);
        QVERIFY(s.parts[0].front().end <= s.parts[1].front().start ||
                s.parts[1].front().end <= s.parts[0].front().start);
        QVERIFY(!brokenRule(p, s));
        p.tasks[1].narrow = 2; // another place
        s = planned(p);
        QVERIFY(!brokenRule(p, s));
        p.tasks[1].narrow = 1;
        s.parts = {{{540, 660}}, {{600, 720}}, {{720, 840}}};
        s.finish = 840;
        QVERIFY(brokenRule(p, s));
    }

    void fumesKeepOthersOutAndTheYardStaysOpen() {
        // An hour with solvents, two hours of air after it: whoever works inside waits, whoever works outside does not.
        WorkProblem p;
        p.windows = days(2);
        p.tasks = {task("spray", 60), task("inside", 60), task("outside", 60)};
        p.tasks[0].fumes = 120;
        p.tasks[2].inside = false;
        p.before = {{1, 0, 0}};
        WorkSchedule s = planned(p);
        QCOMPARE(s.parts[0].front().start, 600);
        QCOMPARE(s.parts[2].front().start, 540);
        p.before = {{0, 1, 0}};
        s = planned(p);
        QCOMPARE(s.parts[1].front().start, 600 + 120);
        QVERIFY(!brokenRule(p, s));
    }

    void noMoreThanItHoldsWorkInside() {
        WorkProblem p;
        p.windows = days(2, 3);
        p.holds = 1;
        p.tasks = {task("a", 60), task("b", 60), task("c", 60)};
        p.tasks[2].inside = false;
        const WorkSchedule s = planned(p);
        QCOMPARE(s.finish, 660);
        QVERIFY(!brokenRule(p, s));
    }

    void whatIsDoneAndWhatIsPinnedStays() {
        WorkProblem p;
        p.windows = days(6);
        p.tasks = {task("done", 120), task("then", 60), task("pinned", 60)};
        p.tasks[0].done = {{2 * kDay + 600, 2 * kDay + 700}}; // took less, and lay elsewhere
        p.tasks[2].pinned = WorkPart{3 * kDay, 4 * kDay};
        p.before = {{0, 1, 30}};
        const WorkSchedule s = planned(p);
        QCOMPARE(s.parts[0], p.tasks[0].done);
        QCOMPARE(s.parts[1].front().start, 2 * kDay + 730);
        QCOMPARE(s.parts[2].front().start, 3 * kDay + 540);
        QVERIFY(!brokenRule(p, s));
    }

    void whatHasNoPlaceSaysWhy() {
        const auto why = [](WorkProblem p, int of = 0) -> std::optional<WorkFault> {
            for (const WorkUnplaced& u : planned(p, 50).unplaced)
                if (u.task == of) return u.fault;
            return std::nullopt;
        };
        WorkProblem p;
        p.windows = days(3);
        p.tasks = {task("a", 60), task("b", 60)};
        QVERIFY(!why(p));
        WorkProblem wet = p;
        wet.tasks[0].dry = true;
        for (WorkWindow& w : wet.windows) w.dry = false;
        wet.before = {{0, 1, 0}};
        QCOMPARE(why(wet), WorkFault::NeverDry);
        QCOMPARE(why(wet, 1), WorkFault::AfterUnplaced);
        WorkProblem dark = p;
        dark.tasks[0].light = true;
        for (WorkWindow& w : dark.windows) w.light = false;
        QCOMPARE(why(dark), WorkFault::NeverLight);
        WorkProblem cold = p;
        cold.tasks[0].minC = 30;
        QCOMPARE(why(cold), WorkFault::NeverWarm);
        WorkProblem crowd = p;
        crowd.tasks[0].hands = 3;
        QCOMPARE(why(crowd), WorkFault::TooFewPeople);
        WorkProblem tall = p;
        tall.tasks[0].minutes = 481;
        QCOMPARE(why(tall), WorkFault::TooLong);
        WorkProblem full = p;
        full.tasks[1].split = true;
        full.tasks[1].minutes = 3000;
        full.before = {{1, 0, 0}};
        QCOMPARE(why(full, 1), WorkFault::AfterTheEnd);
        WorkProblem ring = p;
        ring.before = {{0, 1, 0}, {1, 0, 0}};
        QCOMPARE(why(ring), WorkFault::Circular);
        WorkProblem pinned = p;
        pinned.tasks[0].pinned = WorkPart{0, 500};
        QCOMPARE(why(pinned), WorkFault::Pinned);
        QVERIFY(planWork({}, {}).parts.empty());
        WorkProblem closed = p;
        closed.windows.clear();
        QCOMPARE(why(closed), WorkFault::AfterTheEnd);
    }

    void everyPlanKeepsItsRulesAndItsBound() {
        std::mt19937 dice(11);
        for (int n = 0; n < 60; ++n) {
            const WorkProblem p = anyWork(dice, 2 + static_cast<int>(dice() % 40));
            int told = 0, last = 0;
            WorkEffort effort;
            effort.iterations = 400;
            effort.seed = 5;
            const WorkSchedule s = planWork(p, effort, [&](const WorkSchedule& better) {
                ++told;
                last = better.finish;
                QVERIFY(!brokenRule(p, better));
            });
            const auto broken = brokenRule(p, s);
            QVERIFY2(!broken, broken ? broken->c_str() : "");
            QVERIFY(s.unplaced.empty());
            QVERIFY(told > 0 && last == s.finish);
            QVERIFY(s.bound <= s.finish);
            // The same seed and iterations: the same plan.
            QVERIFY(planWork(p, effort) == s);
        }
    }

    void aSmallProblemIsSolvedByTryingEveryOrder() {
        std::mt19937 dice(2);
        for (int n = 0; n < 10; ++n) {
            const WorkProblem p = anyWork(dice, 6);
            const WorkSchedule s = planned(p, 1);
            // No order of a long search is better.
            WorkProblem more = p;
            for (int k = 0; k < 3; ++k) more.tasks.push_back(task(("idle" + std::to_string(k)).c_str(), 1));
            for (int k = 0; k < 3; ++k) {
                more.tasks[6 + static_cast<std::size_t>(k)].inside = false;
                more.windows.insert(more.windows.begin() + k, WorkWindow{k * 2, k * 2 + 1, 1}); // before all else
            }
            QVERIFY(planned(more, 4000).finish >= s.finish);
        }
    }

    void aSearchIsStopped() {
        std::mt19937 dice(9);
        const WorkProblem p = anyWork(dice, 120);
        std::stop_source stop;
        WorkEffort effort;
        effort.iterations = 1'000'000'000;
        effort.stop = stop.get_token();
        const WorkSchedule s = planWork(p, effort, [&](const WorkSchedule&) { stop.request_stop(); });
        QVERIFY(s.iterations < 1000);
        QVERIFY(!brokenRule(p, s));
    }

    void aBoundThatWasWrongWouldBeFound() {
        // brokenRule() itself: each rule broken once.
        WorkProblem p;
        p.windows = days(2);
        p.tasks = {task("a", 60), task("b", 60)};
        p.before = {{0, 1, 0}};
        const WorkSchedule good = planned(p);
        QVERIFY(!brokenRule(p, good));
        const auto with = [&](const auto& change) {
            WorkSchedule s = good;
            change(s);
            return brokenRule(p, s).has_value();
        };
        QVERIFY(with([](WorkSchedule& s) { s.parts[0] = {{540, 590}}; }));
        QVERIFY(with([](WorkSchedule& s) { s.parts[0] = {{500, 560}}; }));
        QVERIFY(with([](WorkSchedule& s) { s.parts[0] = {{540, 560}, {570, 610}}; }));
        QVERIFY(with([](WorkSchedule& s) { s.parts[1] = {{560, 620}}; }));
        QVERIFY(with([](WorkSchedule& s) { s.finish += 1; }));
        QVERIFY(with([](WorkSchedule& s) { s.bound = s.finish + 1; }));
        QVERIFY(with([](WorkSchedule& s) { s.parts.pop_back(); }));
    }

    void theSunRisesByDateAndPlace() {
        // 52 N 5 E at the equinox: 5:45 and 17:51 UTC; a day of about twelve hours.
        const Daylight spring = daylightOn({2027, 3, 20}, 52, 5);
        QVERIFY(std::abs(*spring.sunrise - 345.1) < 3 && std::abs(*spring.sunset - 1071.2) < 3);
        // Far north in winter never, in summer always; south of the equator it is the other way round.
        QCOMPARE(daylightOn({2026, 12, 21}, 69.6, 18.9).kind, DayKind::NeverRises);
        QCOMPARE(daylightOn({2026, 6, 21}, 69.6, 18.9).kind, DayKind::NeverSets);
        QCOMPARE(daylightOn({2026, 12, 21}, -69.6, 18.9).kind, DayKind::NeverSets);
        // Fifteen degrees further west an hour later.
        QVERIFY(std::abs(*daylightOn({2027, 3, 20}, 52, -10).sunrise - *spring.sunrise - 60) < 0.01);
        QCOMPARE(dayOfYear({2028, 3, 1}), 61); // a leap year
        QCOMPARE(dayOfYear({2027, 3, 1}), 60);
        QVERIFY(isLeapYear(2000) && !isLeapYear(2100));
        for (int year : {2027, 2028})
            for (int m = 1; m <= 12; ++m) {
                const Daylight d = daylightOn({year, m, 15}, 48, 11);
                QVERIFY(*d.sunset - *d.sunrise > 8 * 60 && *d.sunset - *d.sunrise < 16.5 * 60);
            }
    }
};

WESTRUM_TEST(WorkTest)

#include "work_test.moc"
