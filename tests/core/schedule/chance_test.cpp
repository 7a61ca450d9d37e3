#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/schedule/chance.h"
#include "tests/support/registry.h"

#include <cmath>

using namespace westrum;

namespace {

constexpr int kDay = 1440;

/// So many days from nine to five.
WorkProblem days(int n) {
    WorkProblem p;
    for (int d = 0; d < n; ++d) p.windows.push_back({d * kDay + 540, d * kDay + 1020, 2});
    return p;
}

WorkRisk riskOf(const WorkProblem& p, double spread, double dry) {
    WorkRisk risk{.spread = std::vector<double>(p.tasks.size(), spread),
                  .dry = std::vector<double>(p.windows.size(), dry),
                  .day = {}};
    for (std::size_t w = 0; w < p.windows.size(); ++w) risk.day.push_back(static_cast<int>(w));
    return risk;
}

} // namespace

/// How sure a date is.
class ChanceTest : public QObject {
    Q_OBJECT
private slots:
    /// Nothing can come otherwise: every run ends as planned.
    void withoutRiskEveryRunIsThePlan() {
        WorkProblem p = days(5);
        p.tasks = {{.id = "a", .minutes = 300}, {.id = "b", .minutes = 300}};
        p.before = {{0, 1, 0}};
        const WorkSchedule plan = planWork(p, {.iterations = 100});
        const WorkChance c = chanceOf(p, plan, riskOf(p, 0, 1), 50, 7);
        QCOMPARE(c.finishes.size(), std::size_t{50});
        QCOMPARE(c.finishes.front(), plan.finish);
        QCOMPARE(c.finishes.back(), plan.finish);
        QCOMPARE(c.by(plan.finish), 1.0);
        QCOMPARE(c.by(plan.finish - 1), 0.0);
        QVERIFY(c.delays.empty());
    }

    /// An hour outside that must be dry; each day is with 60 %. Done on the first day in 60 %, by the second in
    /// 1 - 0.4^2 = 84 %, by the third in 93.6 %; over 4000 runs within 2.5 points.
    void dryDaysFollowTheirChance() {
        WorkProblem p = days(12);
        p.tasks = {{.id = "saw", .minutes = 60, .inside = false, .dry = true}};
        const WorkSchedule plan = planWork(p, {.iterations = 10});
        const WorkChance c = chanceOf(p, plan, riskOf(p, 0, 0.6), 4000, 3);
        for (const auto& [day, share] : {std::pair{1, 0.6}, {2, 0.84}, {3, 0.936}})
            QVERIFY2(std::abs(c.by(day * kDay) - share) < 0.025, std::to_string(c.by(day * kDay)).c_str());
        QCOMPARE(c.at(0.5), 540 + 60);
        QCOMPARE(c.at(0.8), kDay + 540 + 60);
        // What was late was late by the weather, in the 40 % that were.
        QCOMPARE(c.delays.size(), std::size_t{1});
        QCOMPARE(c.delays[0].by, DelayBy::Weather);
        QVERIFY(std::abs(c.delays[0].share - 0.4) < 0.025);
    }

    /// Both windows of a day have its weather: with one dry day in two a piece that takes both is done on the first day
    /// in half of the runs, not in a quarter.
    void windowsOfADayShareItsWeather() {
        WorkProblem p;
        for (int d = 0; d < 10; ++d) {
            p.windows.push_back({d * kDay + 540, d * kDay + 720, 1});
            p.windows.push_back({d * kDay + 780, d * kDay + 960, 1});
        }
        p.tasks = {{.id = "saw", .minutes = 360, .inside = false, .split = true, .dry = true}};
        const WorkSchedule plan = planWork(p, {.iterations = 10});
        WorkRisk risk = riskOf(p, 0, 0.5);
        for (std::size_t w = 0; w < risk.day.size(); ++w) risk.day[w] = static_cast<int>(w / 2);
        const WorkChance c = chanceOf(p, plan, risk, 4000, 11);
        QVERIFY2(std::abs(c.by(kDay) - 0.5) < 0.025, std::to_string(c.by(kDay)).c_str());
    }

    /// The minutes of one task, log-normal round 100 with a spread of 0.4: below 100 in half of the runs, below
    /// 100 e^0.4 = 149 in 84.1 %.
    void minutesSpreadAsTheyShould() {
        WorkProblem p = days(3);
        p.tasks = {{.id = "a", .minutes = 100, .split = true}};
        const WorkSchedule plan = planWork(p, {.iterations = 10});
        const WorkChance c = chanceOf(p, plan, riskOf(p, 0.4, 1), 4000, 5);
        QVERIFY(std::abs(c.by(540 + 100) - 0.5) < 0.03);
        QVERIFY(std::abs(c.by(540 + 149) - 0.841) < 0.025);
        QCOMPARE(c.delays.size(), std::size_t{1});
        QCOMPARE(c.delays[0].by, DelayBy::Itself);
    }

    /// What is done stays where it was, and the same seed gives the same answer.
    void whatIsDoneDoesNotMoveAndSeedsRepeat() {
        WorkProblem p = days(6);
        p.tasks = {{.id = "a", .minutes = 60, .done = {{540, 600}}}, {.id = "b", .minutes = 240, .split = true}};
        p.before = {{0, 1, kDay}};
        const WorkSchedule plan = planWork(p, {.iterations = 10});
        const WorkChance c = chanceOf(p, plan, riskOf(p, 0.5, 1), 300, 9),
                         again = chanceOf(p, plan, riskOf(p, 0.5, 1), 300, 9);
        QVERIFY(c == again);
        QVERIFY(c.finishes.front() >= 600 + kDay); // the wait after it holds in every run
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(chanceOf(p, plan, riskOf(p, 0.5, 1), 300, 9, stop.get_token()).finishes.empty());
        QCOMPARE(WorkChance{}.by(100), 0.0);
    }

    /// What may not be broken off is not lost however slowly it goes: it fills its longest window.
    void whatMayNotBeBrokenOffAlwaysFindsAPlace() {
        WorkProblem p = days(20);
        p.tasks = {{.id = "glue", .minutes = 400, .split = false}};
        const WorkSchedule plan = planWork(p, {.iterations = 10});
        const WorkChance c = chanceOf(p, plan, riskOf(p, 1.2, 1), 500, 2);
        QVERIFY(c.finishes.back() <= 1020);
    }
};

WESTRUM_TEST(ChanceTest)
#include "chance_test.moc"
