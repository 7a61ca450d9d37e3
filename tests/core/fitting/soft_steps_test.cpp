#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/plan.h"
#include "core/shell/ties.h"
#include "core/takeoff/fixings.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <set>

using namespace westrum;
using namespace westrum::test;

namespace {

Product product(const std::string& id, const std::string& family, FieldValues fields = {}) {
    Product p{.id = id, .family = family, .name = id};
    p.fields = std::move(fields);
    return p;
}

/// One surface of a kind with these layers of these products.
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

const FitStep* step(const std::vector<FitStep>& all, StepKind kind) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const FitStep& s) { return s.kind == kind; });
    return found == all.end() ? nullptr : &*found;
}

double figure(const FitStep& s, std::string_view name) {
    for (const auto& [key, value] : s.facts)
        if (key == name) {
            if (const auto* l = std::get_if<Mm>(&value)) return l->value;
            if (const auto* n = std::get_if<std::int64_t>(&value)) return static_cast<double>(*n);
            if (const auto* d = std::get_if<double>(&value)) return *d;
        }
    return -1;
}

} // namespace

/// How linings, cushions and trims are fitted, and what care stands with each step.
class SoftStepsTest : public QObject {
    Q_OBJECT
private slots:
    void carpetIsStuckTrimmedAndKeptOffAirbags() {
        const Job wall = jobOf(SurfaceKind::LeftWall, {product("carpet", "roll")}, {{"carpet", {}, {}, false}});
        const auto onWall = steps(wall);
        QVERIFY(step(onWall, StepKind::StickLining)->caution == Caution::Solvents);
        QVERIFY(step(onWall, StepKind::CutLinings)->caution == Caution::SharpBlades);
        QVERIFY(step(onWall, StepKind::TrimLining)->caution == Caution::HotTools); // a hot knife on synthetics
        QVERIFY(!step(onWall, StepKind::CleanFace)->caution);
        QVERIFY(!step(onWall, StepKind::CloseSeams)); // one piece has none
        // In a pillar a curtain airbag may lie: said before anything is glued.
        Job pillar = wall;
        pillar.surfaces[0].kind = SurfaceKind::Pillar;
        QVERIFY(step(steps(pillar), StepKind::CleanFace)->caution == Caution::AirbagZones);
        Job cab = wall;
        cab.surfaces[0].area.kind = AreaKind::Cab;
        QVERIFY(step(steps(cab), StepKind::CleanFace)->caution == Caution::AirbagZones);
        // Before it is covered, what it hides is seen to.
        QVERIFY(step(onWall, StepKind::CablesTested) && step(onWall, StepKind::BackingIn));
    }

    void vinylRestsIsLaidInHalvesAndStoodUp() {
        const Job job = jobOf(SurfaceKind::Floor, {product("vinyl", "roll", {{"lining", 2}, {"rollWidth", 600}})},
                              {{"vinyl", {{"upstand", 80}, {"seam", 1}}, {}, false}});
        const auto all = steps(job);
        QVERIFY((step(all, StepKind::RestVinyl)->wait == Wait{WaitKind::Rest, 24}));
        QVERIFY((step(all, StepKind::LayVinyl)->wait == Wait{WaitKind::Cure, 24}));
        QVERIFY(step(all, StepKind::LayVinyl) && !step(all, StepKind::StickLining));
        QCOMPARE(figure(*step(all, StepKind::TurnUpstand), "height"), 80.0);
        const FitStep* seams = step(all, StepKind::CloseSeams);
        QVERIFY(seams && figure(*seams, "lapped") == 1 && figure(*seams, "count") >= 1);
        // In working order: it rests, is cut, is laid, and trimmed last.
        const auto at = [&](StepKind k) { return step(all, k) - all.data(); };
        QVERIFY(at(StepKind::RestVinyl) < at(StepKind::CutLinings));
        QVERIFY(at(StepKind::CutLinings) < at(StepKind::LayVinyl));
        QVERIFY(at(StepKind::LayVinyl) < at(StepKind::TrimLining));
    }

    /// Round 1194 x 694, clips 50 from the corners and 200 apart at most: 7 along 1094, 4 along 594, twice.
    void wrappedPanelsAreClipped() {
        const Job job = jobOf(SurfaceKind::LeftWall,
                              {product("ply", "sheet", {{"length", 3000}, {"width", 1500}}), product("suede", "roll")},
                              {{"ply", {{"gap", 3}}, {}, false}, {"suede", {{"face", 1}, {"clips", 200}}, {}, false}});
        const auto all = steps(job);
        QCOMPARE(figure(*step(all, StepKind::ClipPanels), "clips"), 2 * 7 + 2 * 4.0);
        QVERIFY(step(all, StepKind::ClipPanels)->caution == Caution::DrillIntoBody);
        // The places: along 1194 the first at 50, then every (1194 - 100) / 6.
        QCOMPARE(figure(*step(all, StepKind::ClipPanels), "first"), 50.0);
        QVERIFY(std::abs(figure(*step(all, StepKind::ClipPanels), "spacing") - 1094 / 6.0) < 0.01 ||
                std::abs(figure(*step(all, StepKind::ClipPanels), "spacing") - 594 / 3.0) < 0.01);
        QVERIFY(step(all, StepKind::WrapPanels)->caution == Caution::Solvents);
        QVERIFY(clippedSides({{westrum::rectangle(0, 0, 90, 90)}}, {200}).empty()); // too small for any
    }

    void cushionsAreSewnFilledAndKeptFromFire() {
        const Job job = jobOf(SurfaceKind::BenchTop, {product("foam", "foam"), product("cloth", "cloth")},
                              {{"foam", {}, {}, false}, {"cloth", {{"piping", 2}}, {}, false}});
        const auto all = steps(job);
        QVERIFY(step(all, StepKind::CutFoam)->caution == Caution::FoamFire);
        QVERIFY(step(all, StepKind::FillCushions)->caution == Caution::FoamFire);
        QVERIFY(step(all, StepKind::SewZip) && step(all, StepKind::SewPiping) && step(all, StepKind::SewCushions));
        QCOMPARE(figure(*step(all, StepKind::SewZip), "length"), 1190.0 + 50); // the upper side, 5 short at both ends
        QVERIFY(!step(all, StepKind::StapleCover));
        Job wrapped = job;
        wrapped.finishes["it"].now().layers[1].rules = {{"style", 2}};
        QVERIFY(step(steps(wrapped), StepKind::StapleCover) && !step(steps(wrapped), StepKind::SewCushions));
    }

    void trimsAreStepsOfTheSurfaceThatOwnsThem() {
        Job job = jobOf(SurfaceKind::Floor,
                        {product("carpet", "roll"), product("cove", "trim", {{"profile", 8}, {"inside", 1}}),
                         product("bead", "trim", {{"profile", 9}, {"length", 10000}})},
                        {{"carpet", {}, {}, false}});
        auto all = steps(job);
        const FitStep* cove = step(all, StepKind::FitTrim);
        QVERIFY(cove && cove->caution == Caution::SawAndDust);
        QCOMPARE(figure(*cove, "pieces"), 4.0);
        QCOMPARE(figure(*cove, "coped"), 4.0); // each corner is coped once
        QCOMPARE(figure(*cove, "length"), 3800.0);
        job.surfaces[0].edges.resize(4);
        for (Edge& e : job.surfaces[0].edges) e.trim = "bead";
        all = steps(job);
        QVERIFY(!step(all, StepKind::FitTrim));
        QVERIFY(step(all, StepKind::RunBead)->caution == Caution::Solvents);
        // Keys of steps differ, so that each tick stays with its step.
        std::set<std::string> keys;
        for (const FitStep& s : all) QVERIFY2(keys.insert(s.key).second, s.key.c_str());
    }
};

WESTRUM_TEST(SoftStepsTest)
#include "soft_steps_test.moc"
