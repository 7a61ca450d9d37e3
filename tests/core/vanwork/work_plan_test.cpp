#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/vanwork/today.h"
#include "core/vanwork/work_plan.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <random>

using namespace westrum;

namespace {

const Job& demo() {
    static const Job job = demoJob();
    return job;
}
const Plan& demoPlan() {
    static const Plan p = plan(demo());
    return p;
}

/// A piece of work by hand.
WorkItem piece(const char* id, double minutes, WorkPlace place = WorkPlace::Van) {
    WorkItem w;
    w.id = id;
    w.surface = "wall";
    w.place = place;
    w.needs.place = place;
    w.needs.minutes = w.left = minutes;
    return w;
}

/// Saturdays from nine to one, two people, from 13 March 2027 on; nothing is known of the weather but what is said.
WorkQuestion saturdays() {
    WorkQuestion q;
    q.settings.week = {};
    q.settings.week[5] = {{540, 780, 2}};
    q.now = {{2027, 3, 13}, 480};
    return q;
}

CivilDate dayOf(const WorkPlan& p, int item) { return p.clock.moment(p.parts(item).front().start).day; }

} // namespace

/// The work in time.
class WorkPlanTest : public QObject {
    Q_OBJECT
private slots:
    /// Glue of 3 h 20 sets for 24 h, the trim takes an hour and follows: 40 min are left on the first Saturday, but it
    /// has not set; it comes a week later, at nine. In the van it is warm; a yard piece waits for a dry day.
    void aWeekendByHand() {
        WorkQuestion q = saturdays();
        q.net.items = {piece("glue", 200), piece("trim", 60), piece("saw", 60, WorkPlace::Yard)};
        q.net.items[0].needs.split = false;
        q.net.items[0].needs.minC = 15;
        q.net.items[2].needs.dry = q.net.items[2].needs.light = true;
        q.net.links = {{0, 1, 1440}};
        q.settings.forecast.days[{2027, 3, 13}] = {.dryChance = 0.1};
        WorkPlan p = planVan(q, {.iterations = 50});
        QVERIFY(!brokenRule(p.problem, p.schedule));
        QCOMPARE(p.clock.moment(p.parts(0).front().start), (WorkClock::Moment{{2027, 3, 13}, 540}));
        QCOMPARE(p.clock.moment(p.parts(1).front().start), (WorkClock::Moment{{2027, 3, 20}, 540}));
        QCOMPARE(dayOf(p, 2), (CivilDate{2027, 3, 20}));
        QCOMPARE(*p.done(), (CivilDate{2027, 3, 20}));
        // Under a tarpaulin it is sawn at once.
        q.settings.site.tarpaulin = true;
        QCOMPARE(dayOf(planVan(q, {.iterations = 50}), 2), (CivilDate{2027, 3, 13}));
        // Unheated, March is too cold for the glue: it waits until a month whose days reach 15 degrees.
        q.settings.site.heated = false;
        p = planVan(q, {.iterations = 50});
        QVERIFY(dayOf(p, 0) >= (CivilDate{2027, 4, 1}));
        QVERIFY(p.problem.windows[0].degC < 15);
    }

    /// A piece that begins before the clocks change and sets over it sets for real hours.
    void aCureAcrossTheChangeOfTheClocks() {
        WorkQuestion q = saturdays();
        q.settings.week[6] = {{0, 1439, 1}};
        q.now = {{2027, 3, 27}, 480};
        q.net.items = {piece("glue", 240), piece("trim", 60)};
        q.net.links = {{0, 1, 24 * 60}};
        const WorkPlan p = planVan(q, {.iterations = 20});
        // Glued until 13:00 on Saturday; 24 h later it is 14:00 by the new time.
        QCOMPARE(p.clock.moment(p.parts(1).front().start), (WorkClock::Moment{{2027, 3, 28}, 14 * 60}));
    }

    void pinsAreKeptAndRefusedWithAReason() {
        WorkQuestion q = saturdays();
        q.net.items = {piece("saw", 60, WorkPlace::Yard), piece("fit", 180), piece("trim", 60)};
        q.net.items[0].needs.dry = true;
        q.net.links = {{0, 1, 0, WorkRule::CeilingBeforeWalls}, {1, 2, 0}};
        q.settings.forecast.days[{2027, 3, 27}] = {.dryChance = 0.1};
        const WorkPlan p = planVan(q, {.iterations = 50});
        QVERIFY(!pinTrouble(q, p, 0, {2027, 3, 20}));
        WorkQuestion pinned = q;
        pinned.settings.pins["saw"] = {2027, 3, 20};
        const WorkPlan moved = planVan(pinned, {.iterations = 50});
        QCOMPARE(dayOf(moved, 0), (CivilDate{2027, 3, 20}));
        QCOMPARE(dayOf(moved, 1), (CivilDate{2027, 3, 20})); // the rest goes with it
        QCOMPARE(dayOf(planNear(pinned, p), 0), (CivilDate{2027, 3, 20}));
        const auto why = [&](int item, CivilDate day) { return pinTrouble(q, p, item, day); };
        QCOMPARE(why(0, {2027, 3, 27})->why, PinTrouble::Wet);
        QCOMPARE(why(0, {2027, 3, 21})->why, PinTrouble::NobodyThere);
        QCOMPARE(why(0, {2027, 3, 6})->why, PinTrouble::Past);
        // All three take five hours, a Saturday has four: the trim waits for what is fitted on the same day.
        QVERIFY(!why(1, {2027, 3, 13}));
        WorkQuestion late = q;
        late.settings.pins["fit"] = {2027, 4, 3};
        const WorkPlan then = planVan(late, {.iterations = 50});
        const auto trouble = pinTrouble(late, then, 2, {2027, 3, 20});
        QVERIFY(trouble && trouble->why == PinTrouble::WaitsFor && trouble->item == 1 && !trouble->rule);
        late.settings.pins = {{"saw", {2027, 4, 3}}};
        const auto rule = pinTrouble(late, planVan(late, {.iterations = 50}), 1, {2027, 3, 20});
        QVERIFY(rule && rule->why == PinTrouble::WaitsFor && rule->rule == WorkRule::CeilingBeforeWalls);
        WorkQuestion done = q;
        done.net.items[0].left = 0;
        QCOMPARE(pinTrouble(done, planVan(done, {.iterations = 5}), 0, {2027, 3, 20})->why, PinTrouble::AlreadyDone);
    }

    /// Each says why, and the rest is planned all the same.
    void whatHasNoPlaceSaysWhy() {
        const auto fault = [](WorkQuestion q) { return planVan(q, {.iterations = 5}).fault(0); };
        WorkQuestion q = saturdays();
        q.net.items = {piece("a", 60, WorkPlace::Yard), piece("b", 60)};
        q.net.items[0].needs.dry = true;
        for (int d = 0; d < kMostDays + 10; ++d)
            q.settings.forecast.days[CivilDate{2027, 3, 13} + d] = {.dryChance = 0.0};
        QCOMPARE(fault(q), WorkFault::NeverDry);
        QVERIFY(!planVan(q, {.iterations = 5}).parts(1).empty());
        q = saturdays();
        q.net.items = {piece("a", 60)};
        q.net.items[0].needs.hands = 2;
        q.settings.week[5][0].people = 1;
        QCOMPARE(fault(q), WorkFault::TooFewPeople);
        q = saturdays();
        q.net.items = {piece("a", 300)};
        q.net.items[0].needs.split = false;
        QCOMPARE(fault(q), WorkFault::TooLong);
        q = saturdays();
        q.net.items = {piece("a", 60), piece("b", 60)};
        q.net.links = {{0, 1, 0}, {1, 0, 0}};
        QCOMPARE(fault(q), WorkFault::Circular);
        q = saturdays();
        q.settings.week = {};
        q.net.items = {piece("a", 60)};
        QVERIFY(fault(q).has_value());
    }

    /// Today: from now until the end, in the order of the plan; what sets overnight is begun last; what rain keeps out.
    void todayIsFilledAndEndsWithWhatSets() {
        WorkQuestion q = saturdays();
        q.settings.week[5] = {{540, 960, 1}};
        q.net.items = {piece("glue", 60), piece("saw", 60, WorkPlace::Yard), piece("clean", 90), piece("after", 60)};
        q.net.items[0].wait = 1440;
        q.net.items[1].needs.dry = true;
        q.net.links = {{0, 3, 1440}};
        const WorkPlan p = planVan(q, {.iterations = 50});
        TodayIs today = expectedToday(q.settings, {{2027, 3, 13}, 570});
        QCOMPARE(today.until, 960);
        QCOMPARE(today.people, 1);
        TodayPlan t = todayOf(q, p, today);
        QCOMPARE(t.work.size(), std::size_t{3}); // not what waits for the glue
        QCOMPARE(t.last, 2);
        QCOMPARE(t.work[2].item, 0);
        QCOMPARE(t.work[2].to, 960); // at the end of the day
        QCOMPARE(t.work[0].from, 570);
        today.dry = false;
        t = todayOf(q, p, today);
        QVERIFY(std::none_of(t.work.begin(), t.work.end(), [](const TodayWork& w) { return w.item == 1; }));
        QCOMPARE(t.cannot, std::vector<int>{1});
        // Half an hour: the cleaning is begun.
        today.dry = true;
        today.until = 600;
        t = todayOf(q, p, today);
        QVERIFY(t.work.size() == 1 && !t.work[0].whole);
        // Too cold in the van for the glue, as it is measured.
        today.until = 960;
        q.net.items[0].needs.minC = 15;
        const WorkPlan again = planVan(q, {.iterations = 50});
        today.insideC = 9;
        t = todayOf(q, again, today);
        QVERIFY(std::none_of(t.work.begin(), t.work.end(), [](const TodayWork& w) { return w.item == 0; }));
        QCOMPARE(mayOpen(q.net.items[0].needs, 9, {}), OpenFault::TooCold);
        QVERIFY(!mayOpen(q.net.items[0].needs, 16, 60));
        QCOMPARE(mayOpen(q.net.items[0].needs, 16, 90), OpenFault::TooDamp);
    }

    /// The example from its first trip to its last trim: sound, the same each time, and never better than its bound.
    void theExampleIsPlannedSoundly() {
        const WorkQuestion q = workQuestion(demo(), demoPlan(), demoNow());
        const WorkPlan a = planVan(q, {.iterations = 60}), b = planVan(q, {.iterations = 60});
        QVERIFY(a == b);
        QVERIFY(a.schedule.unplaced.empty());
        const auto broken = brokenRule(a.problem, a.schedule);
        QVERIFY2(!broken, broken ? broken->c_str() : "");
        QVERIFY(a.schedule.bound <= a.schedule.finish);
        const WorkPlan first = planVan(q, {.iterations = 1});
        QVERIFY(a.schedule.finish <= first.schedule.finish);
        // Half of it ticked on its days, and planned anew from there: nothing done moves, and the end is no later.
        Job job = demo();
        const int half = a.schedule.finish / 2;
        for (std::size_t i = 0; i < q.net.items.size(); ++i) {
            const auto& parts = a.parts(static_cast<int>(i));
            if (parts.empty() || parts.back().end > half) continue;
            const WorkClock::Moment from = a.clock.moment(parts.front().start), to = a.clock.moment(parts.back().end);
            const WorkedTime when{to.day, from.day == to.day ? from.minute : 0, to.minute};
            for (const StepRef& ref : q.net.items[i].steps) {
                job.logs[ref.surface].done.insert(ref.key);
                job.logs[ref.surface].when[ref.key] = when;
            }
            if (q.net.items[i].steps.empty()) job.work.done[q.net.items[i].id] = when;
        }
        const WorkQuestion on = workQuestion(job, demoPlan(), a.clock.moment(half));
        const WorkPlan rest = planVan(on, {.iterations = 200});
        QVERIFY(!brokenRule(rest.problem, rest.schedule));
        for (std::size_t i = 0; i < on.net.items.size(); ++i)
            for (const WorkPart& part : rest.parts(static_cast<int>(i)))
                QVERIFY(on.net.items[i].left <= 0 || on.net.items[i].kind == WorkKind::Gate || part.start >= rest.now);
        QVERIFY(dayNumber(*rest.done()) <= dayNumber(*first.done()) + 14);
        const WorkChance c = chanceOfVan(q, a, 60);
        QVERIFY(c.by(a.schedule.finish) < 0.5); // nearly every plan is too hopeful
        QVERIFY(std::is_sorted(c.finishes.begin(), c.finishes.end()));
    }

    /// Whatever the day, today never takes more hands than there are, begins nothing before what it waits for has set,
    /// and ends in time.
    void todayKeepsTheRulesOfAnyDay() {
        std::mt19937 dice(11);
        for (int run = 0; run < 120; ++run) {
            WorkQuestion q = saturdays();
            q.settings.week.fill({{540, 1020, 2}});
            const int n = 4 + static_cast<int>(dice() % 16);
            for (int i = 0; i < n; ++i) {
                WorkItem w = piece(("w" + std::to_string(i)).c_str(), 10 + static_cast<double>(dice() % 200),
                                   dice() % 3 == 0 ? WorkPlace::Yard : WorkPlace::Van);
                w.needs.hands = dice() % 4 == 0 ? 2 : 1;
                w.needs.split = dice() % 2 == 0;
                w.needs.dry = w.place == WorkPlace::Yard && dice() % 2 == 0;
                w.wait = dice() % 3 == 0 ? 600 : 0;
                q.net.items.push_back(w);
                if (i > 0 && dice() % 2 == 0) {
                    const int before = static_cast<int>(dice() % static_cast<unsigned>(i));
                    q.net.links.push_back({before, i, q.net.items[static_cast<std::size_t>(before)].wait});
                }
            }
            const WorkPlan p = planVan(q, {.iterations = 5});
            TodayIs today{.now = {{2027, 3, 13}, 540 + static_cast<int>(dice() % 200)}, .until = 0};
            today.until = today.now.minute + 30 + static_cast<int>(dice() % 400);
            today.people = 1 + static_cast<int>(dice() % 3);
            today.dry = dice() % 2 == 0;
            const TodayPlan t = todayOf(q, p, today);
            std::vector<const TodayWork*> byItem(q.net.items.size(), nullptr);
            for (const TodayWork& w : t.work) {
                QVERIFY(w.from >= today.now.minute && w.to <= today.until && w.to > w.from);
                const WorkItem& item = q.net.items[static_cast<std::size_t>(w.item)];
                QVERIFY(today.dry || !item.needs.dry);
                QVERIFY(item.needs.hands <= today.people);
                QVERIFY(w.whole || item.needs.split);
                byItem[static_cast<std::size_t>(w.item)] = &w;
            }
            for (const WorkLink& l : q.net.links)
                if (const TodayWork* then = byItem[static_cast<std::size_t>(l.then)]) {
                    const TodayWork* first = byItem[static_cast<std::size_t>(l.first)];
                    QVERIFY(first && first->whole && then->from >= first->to + l.wait);
                }
            for (int minute = today.now.minute; minute < today.until; minute += 7) {
                int hands = 0;
                for (const TodayWork& w : t.work) // what is not broken off; parts of others are not told one by one
                    if (w.from <= minute && w.to > minute && !q.net.items[static_cast<std::size_t>(w.item)].needs.split)
                        hands += q.net.items[static_cast<std::size_t>(w.item)].needs.hands;
                QVERIFY(hands <= today.people);
            }
        }
    }

    /// Any mixture of rules, sites and days off: what is placed keeps every rule, and what is not says why.
    void anyRulesAndDaysArePlannedOrTold() {
        std::mt19937 dice(3);
        for (int run = 0; run < 40; ++run) {
            Job job = demo();
            for (int r = 0; r < kWorkRules; ++r)
                if (static_cast<WorkRule>(r) != WorkRule::CoatsBeforeFitting)
                    job.work.rules[static_cast<WorkRule>(r)] = static_cast<RuleWay>(dice() % 3);
            job.work.site.heated = dice() % 2 == 0;
            job.work.site.tarpaulin = dice() % 2 == 0;
            job.work.site.latitudeDeg = static_cast<double>(dice() % 140) - 70;
            job.work.practised = dice() % 2 == 0;
            for (WorkDay& day : job.work.week)
                if (dice() % 3 == 0) day.clear();
            const WorkQuestion q = workQuestion(job, demoPlan(), demoNow());
            const WorkPlan p = planVan(q, {.iterations = 1});
            const auto broken = brokenRule(p.problem, p.schedule);
            QVERIFY2(!broken, broken ? broken->c_str() : "");
            std::size_t placed = 0;
            for (const auto& parts : p.schedule.parts) placed += parts.empty() ? 0 : 1;
            QCOMPARE(placed + p.schedule.unplaced.size(), p.problem.tasks.size());
            if (p.schedule.unplaced.empty()) QVERIFY(p.done().has_value());
        }
    }

    /// Two thousand pieces in a chain of chains: planned, and told if they do not fit.
    void twoThousandPieces() {
        WorkQuestion q = saturdays();
        q.settings.week.fill({{540, 1020, 2}});
        for (int i = 0; i < 2000; ++i) {
            q.net.items.push_back(piece(("p" + std::to_string(i)).c_str(), 20));
            if (i >= 40) q.net.links.push_back({i - 40, i, 30});
        }
        const WorkPlan p = planVan(q, {.iterations = 1});
        QVERIFY(p.schedule.unplaced.empty());
        QVERIFY(p.schedule.finish >= 2000 * 20 / 2);
    }
};

WESTRUM_TEST(WorkPlanTest)
#include "work_plan_test.moc"
