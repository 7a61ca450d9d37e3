#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/vanwork/work_plan.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <map>
#include <set>

using namespace westrum;

namespace {

/// The example and its plan, as it is made once.
const Job& demo() {
    static const Job job = demoJob();
    return job;
}
const Plan& demoPlan() {
    static const Plan p = plan(demo());
    return p;
}

const WorkItem& item(const WorkNet& net, std::string_view id) {
    const int i = net.find(id);
    if (i < 0) qFatal("no such work: %s", std::string(id).c_str());
    return net.items[static_cast<std::size_t>(i)];
}

/// The first piece of work that covers a surface for good.
int coverOf(const WorkNet& net, const std::string& surface) {
    for (std::size_t i = 0; i < net.items.size(); ++i)
        if (net.items[i].covers && !net.items[i].steps.empty() && net.items[i].steps.front().surface == surface)
            return static_cast<int>(i);
    return -1;
}

/// Whether one comes before the other by any chain of waits.
bool comesBefore(const WorkNet& net, int first, int then) {
    std::vector<bool> reached(net.items.size());
    std::vector<int> open{first};
    while (!open.empty()) {
        const int at = open.back();
        open.pop_back();
        for (const WorkLink& l : net.links)
            if (l.first == at && !reached[static_cast<std::size_t>(l.then)]) {
                reached[static_cast<std::size_t>(l.then)] = true;
                open.push_back(l.then);
            }
    }
    return reached[static_cast<std::size_t>(then)];
}

} // namespace

/// The work of a van as pieces, and what waits for what.
class WorkNetTest : public QObject {
    Q_OBJECT
private slots:
    void everyStepIsInOnePieceOfWork() {
        const WorkNet net = workNet(demo(), demoPlan());
        std::map<StepRef, int> times;
        std::set<std::string> ids;
        for (const WorkItem& w : net.items) {
            QVERIFY2(ids.insert(w.id).second, w.id.c_str());
            QCOMPARE(w.steps.size(), w.kinds.size());
            for (const StepRef& ref : w.steps) ++times[ref];
        }
        std::size_t steps = 0;
        for (const SurfacePlan& s : demoPlan().surfaces)
            for (const FitStep& step : s.steps) {
                ++steps;
                QCOMPARE(times[(StepRef{s.surface, step.key})], 1);
            }
        QCOMPARE(times.size(), steps);
        // Minutes go nowhere: a first-timer takes twice the sum of all steps, and more for the first of a kind.
        double planned = 0, first = 0, left = 0;
        std::set<StepKind> begun;
        for (const SurfacePlan& s : demoPlan().surfaces)
            for (const FitStep& step : s.steps) {
                planned += step.effort.minutes;
                if (begun.insert(step.kind).second) first += step.effort.firstMore;
            }
        for (const WorkItem& w : net.items)
            if (!w.steps.empty()) left += w.left;
        QVERIFY(std::abs(left - 2 * (planned + first)) < 1e-6);
    }

    /// All panels of a product are cut in one sitting, after each surface's template and before its dry fit.
    void aProductIsCutInOneSitting() {
        const WorkNet net = workNet(demo(), demoPlan());
        const WorkItem& cut = item(net, "cut/birch-ply-6");
        QVERIFY(cut.steps.size() >= 2);
        QVERIFY(cut.needs.dry && cut.needs.light && cut.place == WorkPlace::Yard);
        const int at = net.find("cut/birch-ply-6");
        for (const StepRef& ref : cut.steps) {
            const std::string base = ref.key.substr(0, ref.key.find('/'));
            for (std::size_t i = 0; i < net.items.size(); ++i)
                for (const StepRef& other : net.items[i].steps) {
                    if (other.surface != ref.surface) continue;
                    if (other.key == base + "/template") QVERIFY(comesBefore(net, static_cast<int>(i), at));
                    if (other.key == base + "/dry-fit") QVERIFY(comesBefore(net, at, static_cast<int>(i)));
                }
        }
    }

    void rulesPartSurfaces() {
        Job job = demo();
        WorkNet net = workNet(job, demoPlan());
        const auto before = [&](const char* a, const char* b) {
            return comesBefore(net, coverOf(net, a), coverOf(net, b));
        };
        QVERIFY(before("ceiling", "left-upper") && !before("left-upper", "ceiling"));
        QVERIFY(before("left-upper", "bulkhead"));
        QVERIFY(before("left-lower", "sliding-door") || coverOf(net, "sliding-door") < 0);
        QVERIFY(net.find("protect/floor") >= 0); // others work over it
        const int protect = net.find("protect/floor");
        QVERIFY(comesBefore(net, protect, coverOf(net, "left-lower")));
        job.work.rules = {{WorkRule::CeilingBeforeWalls, RuleWay::Turned},
                          {WorkRule::FloorBeforeWalls, RuleWay::Turned}};
        net = workNet(job, demoPlan());
        QVERIFY(before("left-upper", "ceiling") && !before("ceiling", "left-upper"));
        QVERIFY(before("left-lower", "floor"));
        QCOMPARE(net.find("protect/floor"), -1);
        job.work.rules = {{WorkRule::CeilingBeforeWalls, RuleWay::Off}};
        net = workNet(job, demoPlan());
        QVERIFY(!before("ceiling", "left-upper") && !before("left-upper", "ceiling"));
    }

    /// No rule that is turned by itself goes round. Two may: walls before the ceiling, and the floor before the walls
    /// but after the doors, which come after everything; that is told.
    void noRuleTurnedByItselfWaitsForItself() {
        Job job = demo();
        const auto circular = [&] {
            const WorkPlan p = planVan(workQuestion(job, demoPlan(), demoNow()), {.iterations = 1});
            return std::count_if(p.schedule.unplaced.begin(), p.schedule.unplaced.end(),
                                 [](const WorkUnplaced& u) { return u.fault == WorkFault::Circular; });
        };
        for (int r = 0; r < kWorkRules; ++r) {
            job.work.rules = {{static_cast<WorkRule>(r), RuleWay::Turned}};
            QVERIFY2(circular() == 0, std::to_string(r).c_str());
        }
        // Furniture that comes first holds the floor by its gate.
        job.work.rules = {{WorkRule::FloorBeforeFurniture, RuleWay::Turned}};
        job.work.gates = {{WorkGate::FurnitureIn, {.expected = CivilDate{2027, 5, 8}, .passed = {}}}};
        const WorkQuestion q = workQuestion(job, demoPlan(), demoNow());
        const WorkPlan p = planVan(q, {.iterations = 1});
        QVERIFY(p.clock.moment(p.parts(coverOf(q.net, "floor")).front().start).day >= (CivilDate{2027, 5, 8}));
    }

    /// What is bought is fetched before it is used; once all of a supplier is bought, no trip is left.
    void tripsComeFirst() {
        Job job = demo();
        WorkNet net = workNet(job, demoPlan());
        const int trip = net.find("trip/Lockside Building Yard");
        QVERIFY(trip >= 0);
        const int insulation = net.find("ceiling/insulation/fit");
        QVERIFY(insulation >= 0 && comesBefore(net, trip, insulation));
        QVERIFY(net.find("delivery/Ferry Wholesale") >= 0); // he is paid for bringing it
        for (const Purchase& p : demoPlan().purchases)
            job.bought[p.size.empty() ? p.product : p.product + "/" + p.size] = {};
        net = workNet(job, demoPlan());
        for (const WorkItem& w : net.items) QVERIFY(w.kind != WorkKind::Trip && w.kind != WorkKind::Delivery);
    }

    /// A wall waits for its wiring; what nobody expects is no hindrance.
    /// Work on the walls of a wet cell is done by one at a time, and never two of it at once.
    void inAWetCellOneWorksAlone() {
        const WorkQuestion q = workQuestion(demo(), demoPlan(), demoNow());
        const WorkPlan p = planVan(q, {.iterations = 20});
        std::vector<WorkPart> narrow;
        for (std::size_t i = 0; i < q.net.items.size(); ++i) {
            const Surface* s = demo().surface(q.net.items[i].surface);
            const bool wet = s && (s->kind == SurfaceKind::WetCellWall || s->area.kind == AreaKind::WetCell);
            QCOMPARE(q.net.items[i].narrow != 0,
                     wet && q.net.items[i].kind == WorkKind::Surface && q.net.items[i].place == WorkPlace::Van);
            if (q.net.items[i].narrow != 0)
                for (const WorkPart& part : p.parts(static_cast<int>(i))) narrow.push_back(part);
        }
        QVERIFY(narrow.size() > 2);
        std::sort(narrow.begin(), narrow.end(), [](const WorkPart& a, const WorkPart& b) { return a.start < b.start; });
        for (std::size_t i = 0; i + 1 < narrow.size(); ++i) QVERIFY(narrow[i].end <= narrow[i + 1].start);
        QVERIFY(!brokenRule(p.problem, p.schedule));
    }

    void gatesHoldWhatIsBehindThem() {
        Job job = demo();
        job.work.gates = {{WorkGate::FirstFix, {.expected = CivilDate{2027, 6, 5}, .passed = {}}}};
        WorkPlan p = planVan(workQuestion(job, demoPlan(), demoNow()), {.iterations = 1});
        const WorkNet net = workNet(job, demoPlan());
        const int cover = coverOf(net, "left-upper");
        QVERIFY(!p.parts(cover).empty());
        QVERIFY(p.clock.moment(p.parts(cover).front().start).day >= (CivilDate{2027, 6, 5}));
        job.work.gates[WorkGate::FirstFix].passed = CivilDate{2027, 3, 13};
        p = planVan(workQuestion(job, demoPlan(), demoNow()), {.iterations = 1});
        const WorkNet open = workNet(job, demoPlan());
        QVERIFY(p.clock.moment(p.parts(coverOf(open, "left-upper")).front().start).day < (CivilDate{2027, 6, 5}));
        // One that is late and not ticked is not there before tomorrow.
        job.work.gates[WorkGate::FirstFix] = {.expected = CivilDate{2027, 3, 1}, .passed = {}};
        const WorkQuestion q = workQuestion(job, demoPlan(), demoNow());
        p = planVan(q, {.iterations = 1});
        const int gate = q.net.find("gate/1");
        QVERIFY(gate >= 0);
        QCOMPARE(p.clock.moment(p.parts(gate).back().end).day, (CivilDate{2027, 3, 14}));
    }

    /// Ticked steps take their minutes with them; a piece whose steps are all ticked lies where it was done, or nowhere
    /// if nobody wrote down when: old ticks hold.
    void ticksHold() {
        Job job = demo();
        const WorkNet before = workNet(job, demoPlan());
        const WorkItem& rows = item(before, "ceiling/insulation/fit");
        FitLog& log = job.logs["ceiling"];
        for (const StepRef& ref : rows.steps) log.done.insert(ref.key);
        const WorkQuestion old = workQuestion(job, demoPlan(), demoNow());
        QCOMPARE(item(old.net, rows.id).left, 0.0);
        const WorkPlan p = planVan(old, {.iterations = 1});
        QVERIFY(p.parts(old.net.find(rows.id)).empty() && !p.fault(old.net.find(rows.id)));
        for (const StepRef& ref : rows.steps) log.when[ref.key] = {{2027, 3, 12}, 600, 720};
        const WorkQuestion told = workQuestion(job, demoPlan(), demoNow());
        const WorkPlan q = planVan(told, {.iterations = 1});
        const auto& parts = q.parts(told.net.find(rows.id));
        QCOMPARE(parts.size(), std::size_t{1});
        QCOMPARE(q.clock.moment(parts[0].start), (WorkClock::Moment{{2027, 3, 12}, 600}));
        QVERIFY(!brokenRule(q.problem, q.schedule));
        // Half of it.
        log.done.erase(rows.steps.back().key);
        const double left = item(workNet(job, demoPlan()), rows.id).left;
        QVERIFY(left > 0 && left < rows.left);
    }

    void anEmptyJobHasNoWork() {
        const Job job;
        const Plan none = plan(job);
        QVERIFY(workNet(job, none).items.empty());
        const WorkPlan p = planVan(workQuestion(job, none, demoNow()), {.iterations = 10});
        QVERIFY(p.schedule.parts.empty() && !p.done());
    }
};

WESTRUM_TEST(WorkNetTest)
#include "work_net_test.moc"
