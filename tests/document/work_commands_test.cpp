#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/work_commands.h"
#include "formats/demo.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

using namespace westrum;
using namespace westrum::test;

namespace {

bool settleWork(JobDocument& d) {
    d.askWork();
    return QTest::qWaitFor([&] { return d.isWorkSettled(); }, 30000);
}

} // namespace

/// What a person can do to the work in time: each is one step back, and the plan follows.
class WorkCommandsTest : public QObject {
    Q_OBJECT
private slots:
    void eachIsOneStepBackAndForth() {
        JobDocument d;
        d.open(demoJob(), {});
        d.setNow(demoNow());
        QVERIFY(settlePlan(d));
        const Job start = d.job();
        std::vector<Command> all;
        all.push_back(beginWorkOn(d, CivilDate{2027, 4, 3}));
        all.push_back(setWeekday(d, 4, {{600, 720, 1}}));
        all.push_back(setWorkDay(d, {2027, 4, 5}, WorkDay{}));
        all.push_back(setWorkSite(d, {.latitudeDeg = 47}));
        all.push_back(takeForecast(d, {}));
        all.push_back(switchRule(d, WorkRule::FloorBeforeWalls, RuleWay::Turned));
        all.push_back(setGate(d, WorkGate::Watertight, {.expected = CivilDate{2027, 4, 1}, .passed = {}}));
        all.push_back(setPractised(d, true));
        all.push_back(setHours(d, "boards", HourRate{0.8, 0.1}));
        all.push_back(pinWork(d, "ceiling/insulation/fit", CivilDate{2027, 4, 10}));
        all.push_back(acceptChance(d, 0.6));
        all.push_back(tickWorkSteps(d, {{"floor", "barrier/lay"}, {"ceiling", "barrier/lay"}}, true,
                                    WorkedTime{{2027, 3, 13}, 540, 600}));
        all.push_back(tickWork(d, "tidy", WorkedTime{{2027, 3, 13}, 540, 600}));
        for (Command& command : all) {
            QVERIFY2(!command->isObsolete(), qPrintable(command->text()));
            const QString name = command->text();
            push(d, std::move(command));
            QVERIFY2(d.job() != start, qPrintable(name));
            const Job after = d.job();
            d.undoStack().undo();
            QVERIFY2(d.job() == start || d.job().logs != start.logs, qPrintable(name)); // an empty log may stay
            d.undoStack().redo();
            QVERIFY2(d.job() == after, qPrintable(name));
            d.undoStack().undo();
        }
        QVERIFY(d.job().work == start.work);
        QVERIFY(pinWork(d, "nothing", std::nullopt)->isObsolete());
        QVERIFY(setWorkDay(d, {2027, 4, 5}, std::nullopt)->isObsolete());
    }

    /// Ticked at noon: what was to take 40 minutes was done from 11:20; the next one not before that ended.
    void tickingWritesWhenAndHowLong() {
        JobDocument d;
        d.open(demoJob(), {});
        d.setNow(WorkClock::Moment{{2027, 3, 20}, 720});
        QVERIFY(settlePlan(d));
        QVERIFY(workedUntilNow(d, 40) == (WorkedTime{{2027, 3, 20}, 680, 720}));
        push(d, tickStep(d, "ceiling", "insulation/fit", true));
        const WorkedTime first = d.job().log("ceiling").when.at("insulation/fit");
        QCOMPARE(first.to, 720);
        QVERIFY(first.from < 720);
        d.setNow(WorkClock::Moment{{2027, 3, 20}, 730});
        push(d, tickStep(d, "ceiling", "barrier/lay", true));
        QVERIFY((d.job().log("ceiling").when.at("barrier/lay") == WorkedTime{{2027, 3, 20}, 720, 730}));
        // One of a step's places has no time of its own; taken away, the time goes too.
        push(d, tickStep(d, "ceiling", "battens/fix#3", true));
        QVERIFY(d.job().log("ceiling").done.contains("battens/fix#3"));
        QVERIFY(!d.job().log("ceiling").when.contains("battens/fix#3"));
        push(d, tickStep(d, "ceiling", "barrier/lay", false));
        QVERIFY(!d.job().log("ceiling").when.contains("barrier/lay"));
    }

    void thePlanFollowsTheJob() {
        JobDocument d;
        d.setWorkSearch(10, 30);
        d.cutting().setPatience(0.004);
        d.open(demoJob(), {});
        d.setNow(demoNow());
        QVERIFY(settleCuts(d)); // what is bought decides what is fetched
        QVERIFY(settleWork(d));
        const auto before = d.work();
        QVERIFY(before->chance && before->plan.done());
        d.askWork(); // nothing changed: the answer stands
        QCOMPARE(d.work().get(), before.get());
        push(d, beginWorkOn(d, CivilDate{2027, 5, 1}));
        QVERIFY(settlePlan(d));
        QVERIFY(settleWork(d));
        QVERIFY(*d.work()->plan.done() > *before->plan.done());
        // Practised hands take half of it.
        double slow = 0, quick = 0;
        for (const WorkItem& w : d.work()->question.net.items) slow += w.left;
        push(d, setPractised(d, true));
        QVERIFY(settlePlan(d));
        QVERIFY(settleWork(d));
        for (const WorkItem& w : d.work()->question.net.items) quick += w.left;
        QVERIFY(quick < slow * 0.6);
        d.undoStack().undo();
        d.undoStack().undo();
        QVERIFY(settlePlan(d));
        QVERIFY(settleWork(d));
        QVERIFY(d.work()->plan == before->plan); // the same job, the same plan
    }

    /// A rule about coats is a matter of the steps; the ticks stay.
    void coatsMoveWithTheirTicks() {
        JobDocument d;
        d.open(demoJob(), {});
        QVERIFY(settlePlan(d));
        const auto place = [&](const char* key) {
            const auto& steps = d.plan()->surface("ceiling")->steps;
            return std::find_if(steps.begin(), steps.end(), [&](const FitStep& s) { return s.key == key; }) -
                   steps.begin();
        };
        QVERIFY(place("coating/coat-1") < place("boards/row-1"));
        push(d, tickStep(d, "ceiling", "coating/coat-1", true));
        push(d, switchRule(d, WorkRule::CoatsBeforeFitting, RuleWay::Turned));
        QVERIFY(settlePlan(d));
        QVERIFY(place("coating/coat-1") > place("boards/row-19"));
        QVERIFY(d.job().log("ceiling").done.contains("coating/coat-1"));
    }
};

WESTRUM_TEST(WorkCommandsTest)
#include "work_commands_test.moc"
