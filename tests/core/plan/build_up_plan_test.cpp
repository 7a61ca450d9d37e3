#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/catalogue/hard_finishes.h"
#include "core/plan/cut_problems.h"
#include "core/plan/options.h"
#include "core/plan/plan.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Product of(const std::string& id, const std::string& family, std::int64_t price, FieldValues fields) {
    return {id, family, id, "Yard", Money{price, Currency{}}, std::move(fields)};
}

/// Two walls of 2000 x 1000 that meet, and a catalogue with one product of each kind.
Job walls() {
    Job job;
    job.catalogue.products = {
        of("board", "boards", 500,
           {{"cover", 90}, {"overall", 98}, {"length", 2400}, {"thickness", 9}, {"massPerArea", 4}}),
        of("ply", "sheet", 4000, {{"length", 2440}, {"width", 1220}, {"thickness", 6}, {"massPerArea", 4}}),
        of("tile", "tiles", 2000,
           {{"width", 150}, {"height", 150}, {"perPack", 20}, {"packMass", 6}, {"thickness", 6}}),
        of("film", "barrier", 1000, {{"rollWidth", 1100}, {"rollLength", 5000}, {"lap", 100}, {"massPerArea", 0.2}}),
        of("wool", "insulation", 3000,
           {{"length", 1000}, {"width", 500}, {"perPack", 4}, {"thickness", 20}, {"massPerArea", 0.5}}),
        of("strip", "battens", 200, {{"length", 2400}, {"width", 40}, {"thickness", 9}, {"mass", 0.6}}),
        of("paint", "coating", 1500,
           {{"coats", 2}, {"spreading", 10}, {"tin", 0.75}, {"dryMass", 0.6}, {"dryThickness", 0.05}}),
        of("glue", "adhesive", 900, {{"rate", 0.5}, {"container", 1}, {"dryShare", 0.4}, {"bed", 0.2}})};
    for (const char* id : {"left", "right"}) {
        Surface s;
        s.id = s.name = id;
        s.kind = SurfaceKind::LeftWall;
        s.measurement = rectangle(2000, 1000);
        job.surfaces.push_back(s);
    }
    // The left end (side 3) of the right wall meets the right end (side 1) of the left one.
    job.surfaces[0].edges.resize(4);
    job.surfaces[1].edges.resize(4);
    job.surfaces[0].edges[1] = {EdgeKind::Meets, "right", 3, {}};
    job.surfaces[1].edges[3] = {EdgeKind::Meets, "left", 1, {}};
    return job;
}

void lay(Job& job, const std::string& surface, const std::vector<Layer>& layers) {
    job.finishes[surface].now().layers = layers;
}

Layer of(const std::string& product, FieldValues rules = {}) { return {product, std::move(rules), {}, false}; }

bool told(const Plan& p, RemarkKind kind) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
}

} // namespace

class BuildUpPlanTest : public QObject {
    Q_OBJECT
private slots:
    void everyLayerIsTakenOffByItsKind() {
        Job job = walls();
        job.surfaces[0].supports = {{"Rib", SupportKind::Rib, false, mm(500), mm(100), 2, mm(1000), mm(27)},
                                    {"Strip", SupportKind::Batten, true, mm(250), mm(40), 2, mm(500), {}}};
        lay(job, "left", {of("film"), of("wool"), of("strip"), of("board"), of("paint")});
        const Plan p = plan(job);
        const SurfacePlan& s = *p.surface("left");
        QCOMPARE(s.face, 3);
        // One strip of film 2000 long covers 1000 of height with a roll of 1100.
        QCOMPARE(s.layers[0].take.strips.totalLength.value, 2000.0);
        // Wool: 2 m2 less two ribs of 100 x 1000 and two battens of 2000 x 40 (less where they cross): 1.656 m2, in
        // nine bays.
        QVERIFY(std::abs(s.layers[1].take.amount - (2 - 0.2 - 0.16 + 0.016)) < 1e-6);
        QVERIFY(!s.layers[1].purchase && s.layers[1].take.boards.size() >= 9);
        QCOMPARE(s.layers[2].take.lengths.size(), 2U);
        // Paint: two coats on 2 m2 at 10 m2 a litre: 0.4 l, one tin; dry 0.24 kg.
        QVERIFY(std::abs(s.layers[4].take.amount - 0.4) < 1e-9);
        QVERIFY(std::abs(s.layers[4].mass.value - 0.24) < 1e-9);
        // 20 mm of wool between ribs of 27 adds nothing: 0.2 + 9 + 9 + 0.1.
        QVERIFY(std::abs(s.stack.total.value - 18.3) < 1e-9);
        // What is cut to size is bought by the cutting: boards and battens stand in its problems.
        const auto problems = cutProblems(job, p);
        QCOMPARE(problems.size(), 3U);
        QCOMPARE(problems[0].product.id, std::string("board"));
        QCOMPARE(problems[0].pieces.size(), s.setOut().pieces.size());
        QCOMPARE(problems[1].product.id, std::string("wool"));
        QCOMPARE(problems[1].pieces.size(), s.layers[1].take.boards.size());
        QCOMPARE(problems[2].pieces.size(), 2U);
        // Battens weigh: 4 m of 0.6 kg each 2.4 m.
        QVERIFY(std::abs(s.layers[2].mass.value - 1.0) < 1e-9);
    }

    void bareWoodDrinksTheFirstCoat() {
        // 2 m2, two coats at 10 m2 a litre. On metal 0.4 l; on ply the first takes half as much again: 0.3 + 0.2;
        // 10 % stays in the tray: 0.55 l, of which 0.5 x 0.6 kg dry on the wall. Over a primer ply drinks no more.
        Job job = walls();
        Product& paint = *std::find_if(job.catalogue.products.begin(), job.catalogue.products.end(),
                                       [](const Product& p) { return p.id == "paint"; });
        paint.fields["porous"] = 0.5;
        paint.fields["waste"] = 0.1;
        lay(job, "left", {of("ply"), of("paint"), of("paint")});
        lay(job, "right", {of("paint")});
        const Plan p = plan(job);
        const auto& left = p.surface("left")->layers;
        QVERIFY(std::abs(left[1].take.amount - 0.55) < 1e-9);
        QVERIFY(std::abs(left[1].mass.value - 0.3) < 1e-9);
        QVERIFY(std::abs(left[2].take.amount - 0.44) < 1e-9);
        QVERIFY(std::abs(p.surface("right")->layers[0].take.amount - 0.44) < 1e-9);
    }

    void containersAreBoughtTogether() {
        // 0.4 l for either wall: together 0.8 l are two tins of 0.75, though either takes one.
        Job job = walls();
        for (const char* s : {"left", "right"}) lay(job, s, {of("ply"), of("paint")});
        const Plan p = plan(job);
        const auto paint = std::find_if(p.purchases.begin(), p.purchases.end(),
                                        [](const Purchase& b) { return b.product == "paint"; });
        QCOMPARE(paint->packs, 2);
        QVERIFY(std::abs(paint->amount - 0.8) < 1e-9);
        QCOMPARE(paint->cost->minor, 3000);
    }

    void theOrderOfSurfacesChangesNothing() {
        Job job = walls();
        lay(job, "left", {of("film"), of("ply"), of("tile")});
        lay(job, "right", {of("wool"), of("board"), of("paint")});
        Job other = job;
        std::swap(other.surfaces[0], other.surfaces[1]);
        const Plan a = plan(job), b = plan(other);
        QVERIFY(a.purchases == b.purchases);
        QVERIFY(a.totals == b.totals);
    }

    void whatFurnitureHidesIsLeftBareByEveryLayer() {
        // A cupboard 800 wide from the left end and the foot, 600 high, before a wall of 2000 x 1000. Ply reaches under
        // it by 50 along its two seen edges: bare are 750 x 550, so glue and paint cover 2 - 0.4125 = 1.5875 m2.
        Job job = walls();
        Zone cupboard;
        cupboard.name = "Cupboard";
        cupboard.width = mm(800);
        cupboard.height = mm(600);
        cupboard.place = {0, mm(0), 3, mm(0), false};
        job.surfaces[0].zones = {cupboard};
        lay(job, "left", {of("glue"), of("ply", {{"hidden", 1}, {"bearing", 50}, {"gap", 0}}), of("paint")});
        const Plan bare = plan(job);
        const auto& left = bare.surface("left")->layers;
        for (const std::size_t i : {0, 2})
            QVERIFY2(std::abs(left[i].area.value - 1.5875) < 1e-4, left[i].product.c_str());
        QVERIFY(std::abs(left[1].area.value - 1.5875) < 1e-4);
        // Covered behind it too, all of it counts.
        lay(job, "left", {of("glue"), of("ply", {{"gap", 0}}), of("paint")});
        const Plan whole = plan(job);
        for (const LayerPlan& l : whole.surface("left")->layers) QVERIFY(std::abs(l.area.value - 2) < 1e-4);
    }

    void panelsUnderTilesAreSetOutToo() {
        Job job = walls();
        lay(job, "left", {of("ply"), of("glue"), of("tile")});
        const SurfacePlan s = *plan(job).surface("left");
        QCOMPARE(s.face, 2);
        QVERIFY(s.layers[0].setOut.laid() && s.layers[2].setOut.laid());
        // Tiles are grouted: so much of it is needed on this surface.
        const Plan whole = plan(job);
        QVERIFY(std::any_of(whole.needs.begin(), whole.needs.end(), [](const Need& n) {
            return n.serves == Serves::Grout && n.surface == "left" && n.layer == 2 && n.amount > 0.3;
        }));
        // Its panels are cut out of ply: keys tell the layer below from the one that is seen.
        const auto problems = cutProblems(job, plan(job));
        QVERIFY(problems[0].pieces[0].key.find("@0") != std::string::npos);
    }

    void tilesRunOnFromTheWallBefore() {
        Job job = walls();
        lay(job, "left",
            {of("tile", {{"startX", 2}, {"gap", 0}})}); // from the left corner: 13 x 152 = 1976, the last shows 24
        lay(job, "right", {of("tile", {{"startX", 5}, {"gap", 0}})});
        const Plan p = plan(job);
        QCOMPARE(p.surface("left")->setOut().lastColumn.value, 24.0);
        QCOMPARE(p.surface("right")->setOut().firstColumn.value, 126.0);
        // In a ring somebody begins: no end of asking, and the one that finds nothing to run on from says so.
        job.surfaces[0].edges[3] = {EdgeKind::Meets, "right", 1, {}};
        job.finishes["left"].now().layers[0].rules["startX"] = 5;
        QVERIFY(told(plan(job), RemarkKind::NothingToRunOn));
    }

    void linesThatMissTheNeighbourAreTold() {
        Job job = walls();
        lay(job, "left", {of("board", {{"start", 2}})});
        lay(job, "right", {of("board", {{"start", 2}})});
        QVERIFY(!told(plan(job), RemarkKind::LinesMissNeighbour));
        job.finishes["right"].now().layers[0].rules = {{"start", 4}, {"startOffset", 40}};
        const Plan p = plan(job);
        QVERIFY(told(p, RemarkKind::LinesMissNeighbour));
        QCOMPARE(p.surface("left")->setOut().figures.linesMissed, 1);
        // From the datum both lie on the same lines, wherever their lower edges are.
        job.datum = {mm(700), mm(700)};
        job.surfaces[1].heightRear = job.surfaces[1].heightFront = mm(330);
        for (const char* s : {"left", "right"}) job.finishes[s].now().layers[0].rules = {{"start", 5}};
        job.surfaces[1].measurement = rectangle(2000, 670);
        QVERIFY(!told(plan(job), RemarkKind::DatumMissing));
        const auto above = [&](const char* surface, double lower) {
            const Row r = plan(job).surface(surface)->setOut().rows[3];
            return std::fmod(r.low + lower - 700 + 9000, 90);
        };
        QVERIFY(std::abs(above("left", 0) - above("right", 330)) < 1e-6);
    }

    void headroomAndThresholdsComeFromTheThickest() {
        Job job = walls();
        job.surfaces[0].kind = SurfaceKind::Floor;
        job.surfaces[1].kind = SurfaceKind::Ceiling;
        lay(job, "left", {of("ply")});
        lay(job, "right", {of("board")});
        QVERIFY(!plan(job).headroom);
        job.headroom = {mm(1850), mm(1840), {}, mm(1815)};
        job.access.doors = {{"side door", mm(1000), mm(1600), mm(40)}};
        const Plan p = plan(job);
        QCOMPARE(p.headroom->left.head.value, 1825.0); // 1840 - 6 - 9
        QVERIFY(p.headroom->left.standsUpright == false && told(p, RemarkKind::HeadroomShort));
        QCOMPARE(p.thresholds.front().step.step.value, -34.0);
        QVERIFY(told(p, RemarkKind::DoorStep));
    }

    /// Two floors, of 6 mm ply and of a 9 mm board: each door steps up onto its own, and one that says nothing onto the
    /// first. 6 - 40 = -34 wants a strip, 9 - 12 = -3 does not.
    void eachDoorOpensOntoItsOwnFloor() {
        Job job = walls();
        job.surfaces[0].kind = job.surfaces[1].kind = SurfaceKind::Floor;
        lay(job, "left", {of("ply")});
        lay(job, "right", {of("board")});
        job.access.doors = {{.name = "side", .sill = mm(40)},
                            {.name = "rear", .sill = mm(12), .floor = "right"},
                            {.name = "gone", .sill = mm(40), .floor = "no longer there"}};
        const Plan p = plan(job);
        QCOMPARE(p.thresholds.size(), std::size_t{3});
        QCOMPARE(p.thresholds[0].floor, std::string("left"));
        QCOMPARE(p.thresholds[0].step.step.value, -34.0);
        QCOMPARE(p.thresholds[1].floor, std::string("right"));
        QCOMPARE(p.thresholds[1].step.step.value, -3.0);
        QVERIFY(p.thresholds[0].step.needsTransition && !p.thresholds[1].step.needsTransition);
        QCOMPARE(p.thresholds[2].floor, std::string("left")); // what is gone says nothing
    }

    void hatchesKeepTheLinesOfTheFloor() {
        Job job = jobWith(rectangle(3000, 1500), plankProduct(1200, 200, 10, 1000), {{"gap", 0}});
        Opening hatch;
        hatch.name = "Tank hatch";
        hatch.kind = OpeningKind::Hatch;
        hatch.treatment = Treatment::CoverAndRout;
        hatch.place = {0, mm(300), 3, mm(1000), false};
        hatch.width = mm(500);
        hatch.height = mm(400);
        job.surfaces[0].openings.push_back(hatch);
        const SurfacePlan s = *plan(job).surface("floor");
        // The floor is laid as if there were no hatch; the parts on its lid make up its 0.2 m2.
        double area = 0;
        for (const CarriedPiece& c : s.setOut().carried) area += areaMm2(c.shape);
        QVERIFY(std::abs(area - 500 * 400) < 10);
        QVERIFY(std::any_of(s.steps.begin(), s.steps.end(),
                            [](const FitStep& f) { return f.kind == StepKind::CarryHatch; }));
    }

    void packsAreMixedAndTheFinestPlankIsSeen() {
        Job job = jobWith(rectangle(3600, 1800), plankProduct(1200, 180, 10, 1000),
                          {{"gap", 0}, {"mixPacks", 2}, {"feature", 1}});
        const SetOut s = plan(job).surface("floor")->setOut();
        std::map<int, int> taken;
        for (const StockUnit& u : s.stock) ++taken[u.pack];
        for (const auto& [pack, planks] : taken) QVERIFY(pack >= 1 && planks <= 10);
        QVERIFY(s.stock[0].pack != s.stock[1].pack);
        QCOMPARE(std::count_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.feature; }), 1);
        for (const Piece& p : s.pieces)
            if (p.feature) QVERIFY(p.kind == PieceKind::Whole && std::abs(boundsOf(p.shape).low.y - 900) < 360);
    }

    void furnitureFirstTakesFewerPlanks() {
        Job job = jobWith(rectangle(3600, 1800), plankProduct(1200, 180, 10, 1000), {{"gap", 0}});
        Zone kitchen;
        kitchen.name = "Kitchen";
        kitchen.place = {0, mm(0), 3, mm(0), false};
        kitchen.width = mm(1500);
        kitchen.height = mm(600);
        job.surfaces[0].zones.push_back(kitchen);
        const auto planks = [&] { return plan(job).surface("floor")->setOut().stock.size(); };
        const auto all = planks();
        face(job).rules["hidden"] = 1;
        QVERIFY(planks() < all);
    }

    void optionsAreHeldAgainstEachOther() {
        Job job = walls();
        lay(job, "left", {of("ply"), of("paint")});
        FinishOptions& o = job.finishes["left"];
        o.options.push_back({"boards", {of("board")}, {}});
        o.options.push_back({"nothing", {}, {}});
        const auto figures = optionFigures(job, "left");
        QCOMPARE(figures.size(), 3U);
        QVERIFY(std::abs(figures[0].thickness.value - 6.1) < 1e-9);
        QCOMPARE(figures[1].thickness.value, 9.0);
        QVERIFY(figures[0].planned && figures[1].planned && !figures[2].planned);
        // Ply: one sheet at 40.00 and a tin at 15.00. Boards: as many as the cutting takes, at 5.00.
        QCOMPARE(figures[0].cost->minor, 5500);
        QCOMPARE(figures[1].cost->minor % 500, 0);
        QCOMPARE(figures[2].cost->minor, 0);
        QVERIFY(std::abs(figures[1].mass.value - 4 * 1.99 * 0.99) < 0.01);
        // Which one is chosen does not change what any of them comes to.
        o.chosen = 1;
        QVERIFY(optionFigures(job, "left") == figures);
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(optionFigures(job, "left", stop.get_token()).empty());
        QVERIFY(optionFigures(job, "nowhere").size() <= 1);
    }

    void whatIsSawnOutServesALoosePiece() {
        Job job = walls();
        Opening window;
        window.name = "Window";
        window.place = {0, mm(250), 3, mm(600), false};
        window.width = mm(800);
        window.height = mm(500);
        job.surfaces[0].openings.push_back(window);
        lay(job, "left", {of("ply")});
        LoosePiece lid;
        lid.id = lid.name = "lid";
        lid.length = mm(700);
        lid.width = mm(400);
        job.cutLists["ply"].pieces.push_back(lid);
        const auto problems = cutProblems(job, plan(job));
        const ProductCut cut = cutProduct(problems[0], {.seed = 1, .iterations = 2000});
        QCOMPARE(cut.itemsToBuy, 1); // the wall's panel; the lid comes out of its window
        QVERIFY(cut.unplaced.empty());
        QVERIFY(std::any_of(cut.items.begin(), cut.items.end(),
                            [](const CutItem& i) { return i.rack && !i.pieces.empty(); }));
    }

    void aLayerOfNothingKnownIsToldAndTheRestPlanned() {
        Job job = walls();
        lay(job, "left", {of("gone"), of("board"), of("strip")});
        const Plan p = plan(job);
        QVERIFY(told(p, RemarkKind::ProductMissing) && told(p, RemarkKind::NoBattens));
        QVERIFY(p.surface("left")->setOut().laid());
        job.catalogue.products[0].fields["cover"] = 0;
        QVERIFY(told(plan(job), RemarkKind::FieldOutOfRange));
        job.catalogue.products[0].fields["cover"] = 99; // more than its overall width
        QVERIFY(told(plan(job), RemarkKind::FieldOutOfRange) && !plan(job).surface("left")->setOut().laid());
    }

    /// Bought or cut, nothing of any layer is lost: what is laid never weighs or covers more than what is taken.
    void stepsTellEveryPieceOfWhatIsLaid() {
        Job job = walls();
        job.surfaces[0].zones.push_back(
            {"Cables", ZoneKind::Wiring, {0, mm(100), 3, mm(100), false}, mm(500), mm(100)});
        lay(job, "left", {of("film"), of("wool"), of("ply", {{"panelJoint", 2}}), of("glue"), of("tile"), of("paint")});
        const SurfacePlan s = *plan(job).surface("left");
        std::set<std::string> keys;
        std::set<int> panels;
        for (const FitStep& step : s.steps) {
            QVERIFY2(keys.insert(step.key).second, step.key.c_str());
            if (step.kind == StepKind::FixPanel) panels.insert(step.pieces.begin(), step.pieces.end());
        }
        QCOMPARE(panels.size(), s.layers[2].setOut.pieces.size());
        const auto at = [&](StepKind kind) {
            return std::find_if(s.steps.begin(), s.steps.end(), [&](const FitStep& f) { return f.kind == kind; }) -
                   s.steps.begin();
        };
        // Barrier, panels cut, then what must be in before it is covered, panels fixed, then tiles, then grout, paint
        // and trims.
        QVERIFY(at(StepKind::LayBarrier) < at(StepKind::CablesTested));
        QVERIFY(at(StepKind::CutPanels) < at(StepKind::CablesTested) &&
                at(StepKind::CablesTested) < at(StepKind::FixPanel));
        QVERIFY(at(StepKind::BarrierTaped) < at(StepKind::FixPanel));
        QVERIFY(at(StepKind::CutPanels) < at(StepKind::LayTiles) && at(StepKind::LayTiles) < at(StepKind::GroutTiles));
        QVERIFY(at(StepKind::GroutTiles) < at(StepKind::Coat) && s.steps.back().kind == StepKind::Trims);
        for (const StepKind dusty : {StepKind::CutPanels, StepKind::SpreadAdhesive, StepKind::CheckBacking})
            QVERIFY(s.steps[static_cast<std::size_t>(at(dusty))].caution.has_value());
    }
};
WESTRUM_TEST(BuildUpPlanTest)

#include "build_up_plan_test.moc"
