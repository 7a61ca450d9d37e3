#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/fitting/efforts.h"
#include "core/plan/plan.h"
#include "formats/demo.h"
#include "tests/support/job_dealer.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <map>
#include <set>

using namespace westrum;
using namespace westrum::test;

namespace {

Product product(const std::string& id, const std::string& family, FieldValues fields = {}) {
    Product p{.id = id, .family = family, .name = id};
    p.fields = std::move(fields);
    return p;
}

/// One surface of a kind, 1200 x 700, with these layers of these products.
Job jobOf(SurfaceKind kind, std::vector<Product> products, std::vector<Layer> layers) {
    Job job;
    job.catalogue.products = std::move(products);
    Surface s;
    s.id = s.name = "it";
    s.kind = kind;
    s.measurement = test::rectangle(1200, 700);
    job.surfaces.push_back(std::move(s));
    job.finishes["it"].now().layers = std::move(layers);
    return job;
}

std::vector<FitStep> steps(const Job& job) { return plan(job).surface("it")->steps; }

std::ptrdiff_t at(const std::vector<FitStep>& all, StepKind kind) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const FitStep& s) { return s.kind == kind; });
    return found == all.end() ? -1 : found - all.begin();
}

Opening socket(double x, double y) {
    Opening o;
    o.name = "socket";
    o.kind = OpeningKind::Socket;
    o.shape = OpeningShape::Round;
    o.width = Reading{"60", {60}};
    o.place = {0, Reading{"", {y}}, 3, Reading{"", {x}}, true};
    return o;
}

} // namespace

/// What comes before what on one surface, and how long it takes.
class FitOrderTest : public QObject {
    Q_OBJECT
private slots:
    /// A tin is the last thing opened: cut, dry fitted, cleaned and looked behind before. On the example, and on small
    /// jobs of all families.
    void nothingIsOpenedBeforeAllIsReady() {
        int opened = 0;
        std::vector<Job> jobs{demoJob()};
        for (unsigned seed = 1; seed <= jobsDealt(100); ++seed) jobs.push_back(JobDealer(seed).deal());
        for (const Job& job : jobs) {
            const Plan whole = plan(job, {}, 0.05);
            for (const SurfacePlan& s : whole.surfaces)
                for (std::size_t i = 0; i < s.steps.size(); ++i) {
                    if (!s.steps[i].effort.opens) continue;
                    ++opened;
                    // The layer that is laid into it, up to the next thing opened.
                    std::size_t end = i + 1;
                    while (end < s.steps.size() && !s.steps[end].effort.opens) ++end;
                    QVERIFY(i + 1 < s.steps.size() && s.steps[i + 1].effort.follows);
                    const int laid = s.steps[i + 1].layer;
                    for (std::size_t k = i + 1; k < end; ++k) {
                        QVERIFY2(s.steps[k].layer != laid || !s.steps[k].effort.prepares, s.steps[k].key.c_str());
                        QVERIFY2(!s.steps[k].key.starts_with("before/"), s.surface.c_str());
                    }
                }
        }
        QVERIFY2(opened > 60, QByteArray::number(opened).constData());
    }

    /// 1.2 x 0.7 m: carpet 0.5 h a m2 and 0.25 h for its one piece: 0.42 + 0.25 = 0.67 h, 40.2 min in all; glue 0.15 h
    /// a m2: 0.126 h, 7.56 min, all in its one step.
    void theStepsOfALayerShareItsHours() {
        const Job job = jobOf(SurfaceKind::LeftWall, {product("glue", "adhesive"), product("carpet", "roll")},
                              {{"glue", {}, {}, false}, {"carpet", {}, {}, false}});
        const auto all = steps(job);
        double glue = 0, carpet = 0;
        for (const FitStep& s : all)
            (s.layer == 0 ? glue : s.layer == 1 ? carpet : carpet) += s.layer >= 0 ? s.effort.minutes : 0;
        QVERIFY(std::abs(glue - 7.56) < 1e-6);
        QVERIFY(std::abs(carpet - 40.2) < 1e-6);
        // The table's minutes: cut 5 + 8 = 13, clean 5 + 3 x 0.84 = 7.52, stick 5 + 10 x 0.84 = 13.4, trim 10 + 2 x
        // 0.84 = 11.68; 45.6 together. Of 40.2 the cut takes 13 / 45.6: 11.4605 min.
        const auto cut = all[static_cast<std::size_t>(at(all, StepKind::CutLinings))];
        QVERIFY(std::abs(cut.effort.minutes - 40.2 * 13 / 45.6) < 1e-6);
        // The first piece takes three times as long: twice its 8 minutes more, in the same share.
        QVERIFY(std::abs(cut.effort.firstMore - 40.2 * 16 / 45.6) < 1e-6);
    }

    /// Over all families of the example, with its areas and pieces.
    void hoursAreTheSumOfTheirSteps() {
        Job job = demoJob();
        job.work.hours["boards"] = {1, 0}; // one's own
        const Plan whole = plan(job);
        std::set<std::string> families;
        for (const SurfacePlan& s : whole.surfaces) {
            std::map<int, double> minutes;
            for (const FitStep& step : s.steps) minutes[step.layer] += step.effort.minutes;
            for (const auto& [place, sum] : minutes) {
                if (place < 0) continue;
                const LayerPlan& l = s.layers[static_cast<std::size_t>(place)];
                const double hours =
                    hoursFor(l.family, l.area.value, static_cast<int>(l.setOut.pieces.size()), job.work.hours);
                families.insert(l.family);
                if (hours > 0) QVERIFY2(std::abs(sum - hours * 60) < 1e-6, (s.surface + l.family).c_str());
            }
        }
        QVERIFY(families.size() >= 9);
    }

    /// What is cut out for sockets is cut on the bench; they are fitted once the coat is dry.
    void socketsAreDrilledBeforeAndFittedAfter() {
        Job job = jobOf(SurfaceKind::LeftWall,
                        {product("ply", "sheet", {{"length", 3000}, {"width", 1500}}), product("paint", "coating")},
                        {{"ply", {}, {}, false}, {"paint", {}, {}, false}});
        job.surfaces[0].openings = {socket(300, 300), socket(600, 300)};
        auto all = steps(job);
        QVERIFY(at(all, StepKind::MakeTemplate) < at(all, StepKind::CutPanels));
        QVERIFY(at(all, StepKind::CutPanels) < at(all, StepKind::DryFitPanels));
        QVERIFY(at(all, StepKind::CutOpenings) > at(all, StepKind::DryFitPanels));
        QVERIFY(at(all, StepKind::CutOpenings) < at(all, StepKind::FixPanel));
        QVERIFY(at(all, StepKind::FitFittings) > at(all, StepKind::Coat));
        QVERIFY(at(all, StepKind::FitFittings) < at(all, StepKind::Trims));
        // One school coats what lies on trestles, the other what is up.
        QVERIFY(at(all, StepKind::Coat) < at(all, StepKind::FixPanel));
        QCOMPARE(all[static_cast<std::size_t>(at(all, StepKind::Coat))].effort.place, WorkPlace::Yard);
        const auto keys = [](std::vector<FitStep> list) {
            std::set<std::string> found;
            for (const FitStep& s : list) found.insert(s.key);
            return found;
        };
        const auto before = keys(all);
        job.work.rules[WorkRule::CoatsBeforeFitting] = RuleWay::Turned;
        all = steps(job);
        QVERIFY(at(all, StepKind::Coat) > at(all, StepKind::FixPanel));
        QVERIFY(at(all, StepKind::FitFittings) > at(all, StepKind::Coat));
        QCOMPARE(all[static_cast<std::size_t>(at(all, StepKind::Coat))].effort.place, WorkPlace::Van);
        QVERIFY(keys(all) == before); // ticks stay with their steps
        // What keeps water out of a wall that is up is never put on before.
        Job wet = job;
        wet.work.rules.clear();
        wet.catalogue.products[1].fields["waterproof"] = 1;
        all = steps(wet);
        QVERIFY(at(all, StepKind::Coat) > at(all, StepKind::FixPanel));
    }

    void panelsAreWrappedBeforeTheyGoUp() {
        const Job job = jobOf(SurfaceKind::LeftWall,
                              {product("ply", "sheet", {{"length", 3000}, {"width", 1500}}),
                               product("glue", "adhesive"), product("suede", "roll")},
                              {{"ply", {}, {}, false}, {"glue", {}, {}, false}, {"suede", {{"face", 1}}, {}, false}});
        const auto all = steps(job);
        QVERIFY(at(all, StepKind::DryFitPanels) < at(all, StepKind::SpreadAdhesive));
        QCOMPARE(at(all, StepKind::WrapPanels), at(all, StepKind::SpreadAdhesive) + 1);
        QVERIFY(at(all, StepKind::WrapPanels) < at(all, StepKind::FixPanel));
        // At a table, so that the van is not full of fumes.
        const FitStep& spread = all[static_cast<std::size_t>(at(all, StepKind::SpreadAdhesive))];
        QCOMPARE(spread.effort.place, WorkPlace::Workshop);
        QVERIFY(!spread.effort.fumes);
    }

    /// 2.4 m boards overhead take two, the same on a wall one; 1.2 x 0.7 m of carpet is one person's, 2.4 m2 is not.
    void twoPairsOfHands() {
        const std::vector<Product> boards{product("larch", "boards", {{"length", 2500}})};
        Job ceiling = jobOf(SurfaceKind::Ceiling, boards, {{"larch", {}, {}, false}});
        ceiling.surfaces[0].measurement = test::rectangle(2400, 700);
        const auto up = steps(ceiling);
        QVERIFY(at(up, StepKind::FirstBoard) >= 0);
        QCOMPARE(up[static_cast<std::size_t>(at(up, StepKind::FirstBoard))].effort.hands, 2);
        Job wall = ceiling;
        wall.surfaces[0].kind = SurfaceKind::LeftWall;
        const auto side = steps(wall);
        QCOMPARE(side[static_cast<std::size_t>(at(side, StepKind::FirstBoard))].effort.hands, 1);
        Job carpet = jobOf(SurfaceKind::LeftWall, {product("carpet", "roll")}, {{"carpet", {}, {}, false}});
        QCOMPARE(steps(carpet)[static_cast<std::size_t>(at(steps(carpet), StepKind::StickLining))].effort.hands, 1);
        carpet.surfaces[0].measurement = test::rectangle(2400, 1000);
        QCOMPARE(steps(carpet)[static_cast<std::size_t>(at(steps(carpet), StepKind::StickLining))].effort.hands, 2);
    }

    /// What a person types stands for all steps of the kind, and leaves the others theirs: two panels at 10 min to set
    /// up and 20 min a piece take 10 + 40; a fixed panel 7 instead of its share.
    void whatAPersonTypesGoesBeforeTheTable() {
        Job job = jobOf(SurfaceKind::LeftWall, {product("ply", "sheet")}, {{"ply", {}, {}, false}});
        job.surfaces.front().measurement = test::rectangle(3000, 700);
        const std::vector<FitStep> usual = steps(job);
        const auto of = [](const std::vector<FitStep>& all, StepKind kind) {
            return all[static_cast<std::size_t>(at(all, kind))].effort;
        };
        job.work.efforts[StepKind::CutPanels] = {.once = 10, .each = 20, .dry = false};
        job.work.efforts[StepKind::DryFitPanels] = {.hands = 2, .minC = 12};
        const std::vector<FitStep> own = steps(job);
        QCOMPARE(own.size(), usual.size());
        QCOMPARE(of(own, StepKind::CutPanels).minutes, 50.0);
        QCOMPARE(of(own, StepKind::CutPanels).firstMore, 40.0); // the first piece three times as long
        QVERIFY(!of(own, StepKind::CutPanels).dry && of(own, StepKind::CutPanels).light);
        QCOMPARE(of(own, StepKind::DryFitPanels).hands, 2);
        QCOMPARE(of(own, StepKind::DryFitPanels).minC, std::optional(12.0));
        for (std::size_t i = 0; i < own.size(); ++i)
            if (own[i].kind != StepKind::CutPanels) QCOMPARE(own[i].effort.minutes, usual[i].effort.minutes);
        // What a label says goes before both.
        Job glued =
            jobOf(SurfaceKind::LeftWall, {product("can", "adhesive", {{"coldest", 16}}), product("felt", "roll")},
                  {{"can", {}, {}, false}, {"felt", {}, {}, false}});
        glued.work.efforts[StepKind::SpreadAdhesive] = {.hands = 2, .minC = 5};
        const StepEffort opened = of(steps(glued), StepKind::SpreadAdhesive);
        QCOMPARE(opened.minC, std::optional(16.0));
        QCOMPARE(opened.hands, 2);
    }

    void theLabelGoesBeforeTheTable() {
        const auto spread = [](FieldValues label) {
            const auto all = steps(jobOf(SurfaceKind::LeftWall,
                                         {product("glue", "adhesive", std::move(label)), product("carpet", "roll")},
                                         {{"glue", {}, {}, false}, {"carpet", {}, {}, false}}));
            return all[static_cast<std::size_t>(at(all, StepKind::SpreadAdhesive))];
        };
        const FitStep warm = spread({{"coldest", 12}, {"warmest", 28}, {"flash", 10}, {"cure", 36}});
        QCOMPARE(warm.effort.minC, std::optional(12.0));
        QCOMPARE(warm.effort.maxC, std::optional(28.0));
        QCOMPARE(warm.wait->hours, 36.0);
        QCOMPARE(warm.effort.fumes, std::optional(kFumesMinutes));
        QVERIFY(!spread({{"flash", 0}}).effort.fumes); // mortar
    }

    /// Every kind of step has its row, with tools or none, and no row is negative.
    void theTableIsWhole() {
        std::set<StepKind> kinds;
        for (const EffortRow& row : effortTable()) {
            QVERIFY(kinds.insert(row.kind).second);
            QVERIFY(row.once >= 0 && row.each >= 0 && row.once + row.each > 0);
        }
        for (int k = 0; k <= static_cast<int>(StepKind::RunBead); ++k)
            QVERIFY2(kinds.contains(static_cast<StepKind>(k)), std::to_string(k).c_str());
    }
};

WESTRUM_TEST(FitOrderTest)
#include "fit_order_test.moc"
