#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/area_sums.h"
#include "core/plan/base_plan.h"
#include "core/plan/box_plan.h"
#include "core/plan/cut_problems.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <cmath>
#include <numbers>

using namespace westrum;
using namespace westrum::test;

namespace {

Product of(const std::string& id, const std::string& family, FieldValues fields = {}) {
    return {id, family, id, "Yard", Money{1000, Currency{}}, std::move(fields)};
}

Support support(SupportKind kind, bool along, double first, int count, double apart, double width = 40) {
    Support s;
    s.name = kind == SupportKind::Rib ? "Rib" : "Strip";
    s.kind = kind;
    s.along = along;
    s.position = mm(first);
    s.width = mm(width);
    s.count = count;
    s.spacing = mm(apart);
    return s;
}

/// A wall of 2400 x 1200 with the layers of a build-up.
Job wall(std::vector<Support> supports, const std::vector<std::string>& layers) {
    Job job;
    job.catalogue.products = {
        of("board", "boards", {{"cover", 90}, {"overall", 98}, {"length", 2400}, {"thickness", 9}}),
        of("ply4", "sheet", {{"length", 2440}, {"width", 1220}, {"thickness", 4}, {"grain", 0}}),
        of("ply9", "sheet", {{"length", 2440}, {"width", 1220}, {"thickness", 9}, {"grain", 0}}),
        of("strip", "battens", {{"length", 2400}, {"width", 40}, {"thickness", 20}}),
        of("packer-2", "sundries", {{"serves", 21}, {"length", 2}, {"perPack", 10}}),
        of("packer-5", "sundries", {{"serves", 21}, {"length", 5}, {"perPack", 10}})};
    Surface s;
    s.id = s.name = "wall";
    s.kind = SurfaceKind::LeftWall;
    s.measurement = test::rectangle(2400, 1200);
    s.supports = std::move(supports);
    job.surfaces.push_back(s);
    for (const std::string& id : layers) job.finishes["wall"].now().layers.push_back({id, {}, {}, false});
    return job;
}

/// The plan with its cutting, searched a little.
Plan withCutsOf(const Job& job) {
    const Plan bare = plan(job);
    std::vector<ProductCut> cuts;
    for (const CutProblem& problem : cutProblems(job, bare))
        cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 400}));
    return withCuts(bare, job, cuts);
}

Opening socket(double x, double y, OpeningKind kind = OpeningKind::Socket) {
    Opening o;
    o.name = "Socket";
    o.kind = kind;
    o.shape = OpeningShape::Round;
    o.width = mm(60);
    o.place = {.side = 0, .fromSide = mm(y), .cross = 3, .fromCross = mm(x), .toCentre = true};
    return o;
}

const Remark* told(const Plan& p, RemarkKind kind) {
    const auto found =
        std::find_if(p.remarks.begin(), p.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
    return found == p.remarks.end() ? nullptr : &*found;
}
Mm lengthIn(const Remark& r, const std::string& key) {
    for (const auto& [name, value] : r.facts)
        if (name == key) return std::get<Mm>(value);
    return {-1};
}
double bought(const Plan& p, Serves serves) {
    double n = 0;
    for (const Need& need : p.needs) n += need.serves == serves ? need.amount : 0;
    return n;
}

} // namespace

class BasePlanTest : public QObject {
    Q_OBJECT
private slots:
    void battensFollowTheSpanOfWhatLiesOnThem() {
        // 4 mm carries 300, 9 mm 600. Between 50 and 2350 there are 2300: 8 spaces of 287.5, or 4 of 575.
        const auto battens = [](const char* sheet) {
            const Job job = wall({support(SupportKind::Batten, false, 50, 2, 2300)}, {"strip", sheet});
            const Plan p = plan(job);
            const auto demand = battenDemand(job.finish("wall"), p.surfaces[0], job.catalogue);
            return battensBySpan(p.surfaces[0].measured, demand->along, demand->width, demand->span, demand->joints,
                                 "B");
        };
        const auto thin = battens("ply4"), thick = battens("ply9");
        QCOMPARE(thin.size(), 1UL);
        QCOMPARE(thin[0].count, 9);
        QCOMPARE(thin[0].spacing->length, Mm{287.5});
        QCOMPARE(thick[0].count, 5);
        QCOMPARE(thick[0].position->length, Mm{50});
        QVERIFY(!thick[0].along && thick[0].width->length == Mm{40});
        // A joint at 1000 has a batten below it: 950 are two spaces of 475, 1350 three of 450.
        const Job job = wall({}, {});
        const MeasuredOutline outline = outlineOf(job.surfaces[0].measurement);
        const std::vector<double> joints{1000};
        const auto jointed = battensBySpan(outline, false, {40}, {600}, joints, "B");
        std::vector<double> at;
        for (const Support& s : jointed)
            for (int k = 0; k < s.count; ++k)
                at.push_back(s.position->length.value + (s.spacing ? s.spacing->length.value * k : 0));
        QCOMPARE(at, (std::vector<double>{50, 525, 1000, 1450, 1900, 2350}));
        QVERIFY(battensBySpan(outline, false, {40}, {0}, {}, "B").empty());
    }

    void anOptionHasBattensOfItsOwn() {
        // Measured: two. The option's own nine take their place: in what is bought, in the fixings, on the map.
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900), support(SupportKind::Batten, true, 50, 2, 1100)},
                       {"strip", "ply4"});
        const Plan few = plan(job);
        QCOMPARE(few.surfaces[0].layers[0].take.lengths.size(), 2UL);
        job.finishes["wall"].now().layers[0].battens = {support(SupportKind::Batten, true, 50, 5, 275)};
        const Plan many = plan(job);
        QCOMPARE(many.surfaces[0].layers[0].take.lengths.size(), 5UL);
        QCOMPARE(many.surfaces[0].layers[0].fixings.size(), 15UL); // each crosses three ribs
        QVERIFY(many.surfaces[0].layers[1].fixings.size() > few.surfaces[0].layers[1].fixings.size());
        QCOMPARE(job.surfaces[0].supports.size(), 2UL); // what was measured stays
    }

    void packersAreCountedBoughtAndScrewedThrough() {
        // Ribs at 300, 1200, 2100, battens at 50 and 1150 along. How far the ribs stand in: 0 4 0 and 0 4 0. One plane
        // at 4: four packers of 4, of which 2 + 2 is the stack nearest: eight of 2 mm. The battens' screws there: 20 +
        // 4 + 8.
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900), support(SupportKind::Batten, true, 50, 2, 1100)},
                       {"strip", "ply9"});
        Packing& packing = job.surfaces[0].packing;
        packing.to = PackTo::Plane;
        packing.fromLine = false;
        for (int b = 0; b < 2; ++b)
            for (int r = 0; r < 3; ++r) packing.readings.push_back({1, b, 0, r, 0, mm(r == 1 ? 4 : 0)});
        const Plan p = plan(job);
        const PackedBattens& packed = p.surfaces[0].packed;
        QCOMPARE(packed.crossings.size(), 6UL);
        QVERIFY(std::abs(packed.sum.value - 16) < 1e-6);
        QVERIFY(packed.worst.value < 1e-6);
        QCOMPARE(bought(p, Serves::Packers), 8.0);
        int deep = 0;
        for (const Fixing& f : p.surfaces[0].layers[0].fixings) deep += f.least == Mm{32} ? 1 : 0;
        QCOMPARE(deep, 4);
        // What they take of the room on average, 16 / 6, the section has too.
        Job flat = job;
        flat.surfaces[0].packing = {};
        QVERIFY(std::abs((p.surfaces[0].stack.total - plan(flat).surfaces[0].stack.total).value - 16.0 / 6) < 1e-6);
        // Read from a line down to the ribs it is the same the other way round.
        for (CrossingReading& r : packing.readings) r.reading->length = Mm{30} - r.reading->length;
        packing.fromLine = true;
        QVERIFY(std::abs(plan(job).surfaces[0].packed.sum.value - 16) < 1e-6);
        // Mirrored, the rows are counted from the other end.
        Job other = job;
        other.surfaces[0].packing.readings[0].reading = mm(22);
        const double sum = plan(other).surfaces[0].packed.sum.value;
        other.surfaces[0] = mirrored(other.surfaces[0]);
        QVERIFY(std::abs(plan(other).surfaces[0].packed.sum.value - sum) < 1e-6);
        // One reading missing is told, the others stand.
        packing.readings.pop_back();
        QVERIFY(told(plan(job), RemarkKind::PackingIncomplete));
        // A crossing that stands out by 40 packs all the others.
        packing.readings.push_back({1, 1, 0, 2, 0, mm(-10)});
        const Plan out = plan(job);
        QVERIFY(told(out, RemarkKind::PackingStandsOut) && told(out, RemarkKind::PackerTooThick));
        std::erase_if(job.catalogue.products, [](const Product& s) { return s.id.starts_with("packer"); });
        QVERIFY(told(plan(job), RemarkKind::PackersMissing));
    }

    void aBattenThatLiesAlongItsRibIsPackedAtStations() {
        // 1200 long: from 50 to 1150 two spaces of 550: three stations on each of two ribs. Read 3 3 3 and 3 0 3 in:
        // one packer of 3 in the middle of the second, of which 2 is the nearest: 1 is left out of flat.
        Job job =
            wall({support(SupportKind::Rib, false, 300, 2, 900), support(SupportKind::Batten, false, 300, 2, 900)},
                 {"strip", "ply9"});
        Packing& packing = job.surfaces[0].packing;
        packing.to = PackTo::Plane;
        packing.fromLine = false;
        for (int b = 0; b < 2; ++b)
            for (int k = 0; k < 3; ++k) packing.readings.push_back({1, b, 0, b, k, mm(b == 1 && k == 1 ? 0 : 3)});
        const Plan p = plan(job);
        const PackedBattens& packed = p.surfaces[0].packed;
        QCOMPARE(packed.crossings.size(), 6UL);
        QVERIFY(packed.crossings[4].at == (Point{1200, 600}));
        QVERIFY(std::abs(packed.sum.value - 3) < 1e-6 && std::abs(packed.worst.value - 1) < 1e-6);
        QCOMPARE(bought(p, Serves::Packers), 1.0);
        // The screw in the middle passes 2 mm more than those at the ends: 20 + 2 + 8.
        for (const Fixing& f : p.surfaces[0].layers[0].fixings)
            if (std::abs(f.place.at.x - 1200) < 1)
                QVERIFY(std::abs(f.place.at.y - 600) > 500 ? f.least == Mm{28} : f.least >= Mm{28});
        // Mirrored it is the other batten.
        job.surfaces[0] = mirrored(job.surfaces[0]);
        const PackedBattens other = plan(job).surfaces[0].packed;
        QVERIFY(std::abs(other.sum.value - 3) < 1e-6);
        for (const auto& c : other.crossings)
            if (c.packer.value > 1) QVERIFY(c.at == (Point{1200, 600}));
    }

    void aSocketOverABattenIsShifted() {
        // A hole of 60 at 620: from 590 to 650, the batten from 580 to 620. To clear it by 5 it goes 35 to the front.
        Job job = wall({support(SupportKind::Batten, false, 600, 1, 1)}, {"strip", "ply9"});
        job.surfaces[0].openings = {socket(620, 600)};
        const Plan p = plan(job);
        const Remark* r = told(p, RemarkKind::OpeningOnSupport);
        QVERIFY(r && r->fix && r->fix->kind == FixKind::ShiftOpening);
        QVERIFY(std::abs(lengthIn(*r, "length").value - 30) < 1e-6);
        QCOMPARE(lengthIn(*r, "x"), Mm{35});
        QCOMPARE(r->fix->key, std::string("35 0"));
        job.surfaces[0].openings = {socket(655, 600)};
        QVERIFY(!told(plan(job), RemarkKind::OpeningOnSupport));
        // Mirrored it is to go the other way.
        job.surfaces[0].openings = {socket(620, 600)};
        job.surfaces[0] = mirrored(job.surfaces[0]);
        const Plan m = plan(job);
        QCOMPARE(lengthIn(*told(m, RemarkKind::OpeningOnSupport), "x"), Mm{-35});
    }

    void anOpeningKeepsClearOfEdgesJointsAndOthers() {
        Job job = wall({}, {"ply9"});
        job.surfaces[0].openings = {socket(50, 600)}; // its rim 20 from the edge, 30 are wanted
        const Plan nearEdge = plan(job);
        const Remark* edge = told(nearEdge, RemarkKind::OpeningTooNear);
        QVERIFY(edge && std::abs(lengthIn(*edge, "length").value - 20) < 0.1);
        QCOMPARE(lengthIn(*edge, "x"), Mm{10});
        // A hob by its label.
        job.surfaces[0].openings = {socket(130, 600, OpeningKind::Hob)};
        QVERIFY(!told(plan(job), RemarkKind::OpeningTooNear));
        job.surfaces[0].openings[0].clear = mm(150);
        QCOMPARE(lengthIn(*told(plan(job), RemarkKind::OpeningTooNear), "x"), Mm{50});
        // All of a kind.
        job.surfaces[0].openings[0].clear.reset();
        job.clearances[OpeningKind::Hob] = {110};
        QVERIFY(told(plan(job), RemarkKind::OpeningTooNear));
        // Two of them 20 apart; a window is where the body has it, and is kept clear of nothing.
        job.surfaces[0].openings = {socket(600, 600), socket(680, 600)};
        QVERIFY(std::abs(lengthIn(*told(plan(job), RemarkKind::OpeningTooNear), "length").value - 20) < 0.3);
        job.surfaces[0].openings = {socket(40, 600, OpeningKind::Window)};
        QVERIFY(!told(plan(job), RemarkKind::OpeningTooNear));
        // A joint of the panels through it.
        job.surfaces[0].openings = {socket(1200, 600)};
        job.finishes["wall"].now().layers[0].joints = {1190};
        const Plan through = plan(job);
        const Remark* joint = told(through, RemarkKind::OpeningTooNear);
        QVERIFY(joint && lengthIn(*joint, "length") == Mm{0});
        QVERIFY(joint->fix);
        // No shift helps where all is full.
        job.surfaces[0].measurement = test::rectangle(100, 100);
        job.surfaces[0].openings = {socket(50, 50)};
        QVERIFY(told(plan(job), RemarkKind::OpeningTooNear) && !told(plan(job), RemarkKind::OpeningTooNear)->fix);
    }

    /// In a corner both ways at once: the rim 20 from the side and 15 from below, 30 wanted: 10 along and 15 up, as the
    /// corner of the two lines lies.
    void outOfACornerItIsShiftedBothWays() {
        Job job = wall({}, {"ply9"});
        job.surfaces[0].openings = {socket(50, 45)};
        const Plan p = plan(job);
        const Remark* r = told(p, RemarkKind::OpeningTooNear);
        QVERIFY(r && std::abs(lengthIn(*r, "length").value - 15) < 0.1);
        QCOMPARE(lengthIn(*r, "x"), Mm{10});
        QCOMPARE(lengthIn(*r, "y"), Mm{15});
        QCOMPARE(r->fix->key, std::string("10 15"));
        job.surfaces[0].openings = {socket(60, 60)};
        QVERIFY(!told(plan(job), RemarkKind::OpeningTooNear));
    }

    /// Corners rounded by 400 about (400, 400): a hole of 60 at (155, 155) stands 400 - 245 root 2 - 30 = 23.52 from
    /// the curve, though 125 from either side; at (160, 160) it is 30.59.
    void aCurvedEdgeIsKeptClearOfToo() {
        Job job = wall({}, {"ply9"});
        job.surfaces[0].measurement.cornerRadii.assign(4, mm(400));
        job.surfaces[0].openings = {socket(155, 155)};
        const Plan p = plan(job);
        const Remark* r = told(p, RemarkKind::OpeningTooNear);
        QVERIFY(r);
        QVERIFY2(std::abs(lengthIn(*r, "length").value - (370 - 245 * std::sqrt(2.0))) < 0.2,
                 std::to_string(lengthIn(*r, "length").value).c_str());
        job.surfaces[0].openings = {socket(160, 160)};
        QVERIFY(!told(plan(job), RemarkKind::OpeningTooNear));
    }

    void somethingHeavyWantsTimberBehindIt() {
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900)}, {"ply9"});
        Zone cupboard{.name = "Cupboard", .kind = ZoneKind::Heavy};
        cupboard.place = {.side = 0, .fromSide = mm(800), .cross = 3, .fromCross = mm(400)};
        cupboard.width = mm(700);
        cupboard.height = mm(200);
        job.surfaces[0].zones = {cupboard};
        const Plan p = plan(job);
        const Remark* r = told(p, RemarkKind::BackingMissing);
        QVERIFY(r && r->fix && r->fix->kind == FixKind::AddBacking);
        // It is held by machine screws then, and comes off no sooner for it.
        QVERIFY(bought(p, Serves::RivetNuts) > 0);
        QVERIFY(!p.surfaces[0].layers[0].setOut.pieces[0].removable);
        job.surfaces[0] = withBacking(job.surfaces[0], p.surfaces[0].measured, p.surfaces[0].shape, 0, "Backing");
        QCOMPARE(job.surfaces[0].supports.back().position->length, Mm{900}); // the zone's middle, across the ribs
        QVERIFY(job.surfaces[0].supports.back().along);
        QVERIFY(!told(plan(job), RemarkKind::BackingMissing));
    }

    void lampsStandEvenInWhatIsSeen() {
        // Two rows of three on 2400 x 1200: at 400, 1200, 2000, on 300 and 900.
        Job job = wall({}, {"ply9"});
        for (const double y : {100.0, 500.0}) {
            Opening row = socket(100, y, OpeningKind::Lamp);
            row.count = 3;
            row.pitch = mm(200);
            row.even = true;
            job.surfaces[0].openings.push_back(row);
        }
        const Plan p = plan(job);
        QVERIFY(told(p, RemarkKind::LampsOffCentre));
        const auto rows = evenLamps(job.surfaces[0], p.surfaces[0]);
        QCOMPARE(rows.size(), 2UL);
        QVERIFY(rows[0].first == (Point{400, 300}) && rows[1].first == (Point{400, 900}));
        QCOMPARE(rows[0].pitch, Mm{800});
        // A cupboard over the first 600 of the upper half: that row has 1800 left, 600 apart from 900 on.
        Zone hidden{.name = "Locker"};
        hidden.place = {.side = 0, .fromSide = mm(600), .cross = 3, .fromCross = mm(0)};
        hidden.width = mm(600);
        hidden.height = mm(600);
        job.surfaces[0].zones = {hidden};
        const auto left = evenLamps(job.surfaces[0], plan(job).surfaces[0]);
        QVERIFY(left[1].first == (Point{900, 900}) && left[1].pitch == Mm{600});
        QVERIFY(left[0].first == (Point{400, 300}));
        // On boards each row falls onto the middle of one.
        job.finishes["wall"].now().layers = {{"board", {}, {}, false}};
        const Plan boarded = plan(job);
        const auto& rowsOf = boarded.surfaces[0].setOut().rows;
        for (const LampRow& lamp : evenLamps(job.surfaces[0], boarded.surfaces[0]))
            QVERIFY(std::any_of(rowsOf.begin(), rowsOf.end(),
                                [&](const Row& r) { return std::abs((r.low + r.high) / 2 - lamp.first.y) < 1e-6; }));
    }

    void aPanelsDrillMarksAreItsFixings() {
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900)}, {"ply9"});
        const SurfaceStage stage = plan(job);
        const auto problems = cutProblems(job, stage);
        std::size_t drilled = 0;
        for (const CutPiece& piece : problems.at(0).pieces) {
            drilled += piece.drills.size();
            for (const CutPiece::Drill& d : piece.drills) QVERIFY(contains(piece.shape, d.at));
        }
        std::size_t held = 0;
        for (const Fixing& f : stage.surfaces[0].layers[0].fixings) held += f.place.holds ? 1 : 0;
        QVERIFY(held > 0);
        QCOMPARE(drilled, held);
        QCOMPARE(bought(plan(job), Serves::Screws), static_cast<double>(held));
        // The step says as many.
        for (const FitStep& step : stage.surfaces[0].steps)
            if (step.kind == StepKind::FixPanel)
                for (const auto& [name, value] : step.facts)
                    if (name == "count") QCOMPARE(std::get<std::int64_t>(value), static_cast<std::int64_t>(held));
    }

    void areasOfTheVanAddUpToAllOfIt() {
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900)}, {"ply9"});
        Surface other = job.surfaces[0];
        other.id = other.name = "other";
        job.surfaces[0].area.kind = AreaKind::Garage;
        other.area.kind = AreaKind::Living;
        other.measurement = test::rectangle(1200, 1200);
        job.surfaces.push_back(other);
        job.finishes["other"] = job.finishes["wall"];
        const Plan p = plan(job);
        const auto sums = sumsByArea(job, p, costBySurface(job, p));
        QCOMPARE(sums[0].area.kind, AreaKind::Garage);
        QCOMPARE(sums[1].area.kind, AreaKind::Living);
        double hours = 0;
        for (const AreaSum& a : sums) hours += a.hours;
        // Sheets: 0.3 h a square metre and 0.35 a panel; 2394 x 1194 and 1194 x 1194 inside their gaps, one panel each.
        QVERIFY(std::abs(sums[0].hours - (0.3 * 2.394 * 1.194 + 0.35)) < 1e-6);
        QVERIFY(std::abs(hours - (0.3 * (2.394 + 1.194) * 1.194 + 0.7)) < 1e-6);
        // Planks are priced by the pack: what both areas pay is the bill, to the cent.
        job.catalogue.products.push_back(plankProduct(1200, 180, 8, 4017));
        for (auto& [surface, options] : job.finishes) options.now().layers = {{"plank", {}, {}, false}};
        const Plan laid = plan(job);
        QVERIFY(laid.totals.cost.has_value());
        std::int64_t cost = 0;
        double mass = 0;
        for (const AreaSum& a : sumsByArea(job, laid, costBySurface(job, laid))) {
            QVERIFY(a.cost.has_value());
            cost += a.cost->minor;
            mass += a.mass.value;
        }
        QVERIFY(cost > 0);
        QCOMPARE(cost, laid.totals.cost->minor);
        QVERIFY(std::abs(mass - laid.totals.laidMass.value) < 1e-6);
    }

    void whatIsNoPlainAreaIsReckonedByWhatItIs() {
        // Three ribs of 40 on 2400 x 1200: 2.88 - 0.144 = 2.736 m2 between them. A quarter of it: 0.684 m2, off a roll
        // 1 m wide 684 mm. Along the ribs: 3 x 1200, 25 side by side on that roll: 144 mm.
        Job job = wall({support(SupportKind::Rib, false, 300, 3, 900)}, {"film", "wool"});
        job.catalogue.products.push_back(
            of("film", "barrier", {{"rollWidth", 1000}, {"rollLength", 10000}, {"massPerArea", 2}}));
        job.catalogue.products.push_back(
            of("wool", "insulation",
               {{"thickness", 20}, {"length", 1000}, {"width", 500}, {"perPack", 10}, {"massPerArea", 0.5}}));
        Layer& film = job.finishes["wall"].now().layers[0];
        film.rules["share"] = 0.25;
        const LayerPlan patches = plan(job).surfaces[0].layers[0];
        QVERIFY(std::abs(patches.area.value - 0.684) < 1e-6);
        QVERIFY(std::abs(patches.take.strips.totalLength.value - 684) < 1e-6);
        QVERIFY(std::abs(patches.mass.value - 1.368) < 1e-6);
        film.rules = {{"onRibs", 1}};
        const LayerPlan strips = plan(job).surfaces[0].layers[0];
        QVERIFY(std::abs(strips.take.strips.totalLength.value - 144) < 1e-6);
        QVERIFY(std::abs(strips.area.value - 0.144) < 1e-6);
        // Insulation between them: 2.736 m2; 50 deep of 20 mm batts three layers of that, as they do not give way; 30 l
        // in a door besides: 1.5 m2 more.
        Layer& wool = job.finishes["wall"].now().layers[1];
        QVERIFY(std::abs(plan(job).surfaces[0].layers[1].take.amount - 2.736) < 1e-6);
        wool.rules = {{"fill", 50}, {"cavity", 30}};
        const LayerPlan filled = plan(job).surfaces[0].layers[1];
        QVERIFY(std::abs(filled.take.amount - (2.736 * 3 + 1.5)) < 1e-6);
        // Of what gives way, pressed in, 2.5 layers.
        job.catalogue.products.back().fields["squash"] = 0.2;
        job.finishes["wall"].now().layers[1].rules["pressed"] = 1;
        QVERIFY(std::abs(plan(job).surfaces[0].layers[1].take.amount - (2.736 * 2.5 + 1.5)) < 1e-6);
        QVERIFY(std::abs(filled.mass.value - filled.take.amount * 0.5) < 1e-6);
        QVERIFY(std::abs(filled.area.value - 2.736) < 1e-6); // it covers no more
    }

    /// A wall of 2400 x 1200, ribs of 40 at 500, 1060 and 1620: bays 480, 520, 520 and 760 wide. Off batts of 1000 x
    /// 600 the first takes two pieces of 480 x 600, one batt; the next two 520 x 1000 and 520 x 200 each; the last two
    /// of 760 x 600, whose rests of 240 x 600 give the two short ones: 1 + 2 + 2 = 5 batts, three packs. By area it
    /// were 4.6.
    void battsAreLaidOutInTheirBays() {
        Job job = wall({support(SupportKind::Rib, false, 500, 3, 560)}, {"wool"});
        job.catalogue.products.push_back(
            of("wool", "insulation", {{"thickness", 20}, {"length", 1000}, {"width", 600}, {"perPack", 2}}));
        const Plan p = withCutsOf(job);
        const LayerPlan& wool = p.surfaces[0].layers[0];
        QCOMPARE(wool.take.boards.size(), std::size_t{8});
        double area = 0;
        for (const Region& piece : wool.take.boards) {
            const Bounds b = boundsOf(piece);
            QVERIFY(std::max(b.width(), b.height()) <= 1000 + 1e-6 && std::min(b.width(), b.height()) <= 600 + 1e-6);
            area += areaMm2(piece) / 1e6;
        }
        QVERIFY(std::abs(area - (2.4 - 0.12) * 1.2) < 1e-6);
        const auto line =
            std::find_if(p.purchases.begin(), p.purchases.end(), [](const Purchase& b) { return b.product == "wool"; });
        QVERIFY(line != p.purchases.end());
        QCOMPARE(line->unitsNeeded, 5);
        QCOMPARE(line->packs, 3);
        QVERIFY(std::abs(line->laidMass.value - wool.mass.value) < 1e-9);
        QVERIFY(std::abs(line->laidArea.value - wool.area.value) < 1e-9);

        // Two bays of 500 x 2000 off batts of 1200 x 600: 1200 and 800 of each, four batts; by area less than three.
        Job narrow = wall({support(SupportKind::Rib, false, 520, 1, 0)}, {"wool"});
        narrow.surfaces[0].measurement = rectangle(1040, 2000);
        narrow.catalogue.products.push_back(
            of("wool", "insulation", {{"thickness", 20}, {"length", 1200}, {"width", 600}, {"perPack", 1}}));
        const Plan q = withCutsOf(narrow);
        QCOMPARE(q.purchases.back().unitsNeeded, 4);
        // Under a slanting upper edge ribs end along it: their bays are two all the same.
        Job slanted = narrow;
        slanted.surfaces[0].measurement = fourSides(1040, 2000, 1040.2, 1980, 2254.24);
        QCOMPARE(plan(slanted).surfaces[0].layers[0].take.boards.size(), std::size_t{4});
        // Pressed in, of what gives way: 2 m2 are 2.78 batts, three; asked of what does not, it is told and four stay.
        narrow.finishes["wall"].now().layers[0].rules["pressed"] = 1;
        QVERIFY(told(withCutsOf(narrow), RemarkKind::BattsTooStiff));
        QCOMPARE(withCutsOf(narrow).purchases.back().unitsNeeded, 4);
        narrow.catalogue.products.back().fields["squash"] = 0.3;
        QVERIFY(!told(withCutsOf(narrow), RemarkKind::BattsTooStiff));
        QCOMPARE(withCutsOf(narrow).purchases.back().unitsNeeded, 3);
    }

    void aBoxOverAWheelArchIsFourSurfacesAndANotch() {
        // 880 x 340 x 250 of 12 mm, upright: top 880 x 250, face 880 x 328, ends 238 x 328.
        ArchBox box;
        box.id = "box";
        box.floor = "floor";
        box.length = mm(880);
        box.height = mm(340);
        box.depth = mm(250);
        box.thickness = mm(12);
        box.product = "ply";
        BoxParts parts = *boxParts(box).parts;
        QCOMPARE(parts.topDepth, 250.0);
        QCOMPARE(parts.faceHeight, 328.0);
        QCOMPARE(parts.endDepth, 238.0);
        QCOMPARE(parts.faceFromLevelRad, std::numbers::pi / 2);
        // Leaning in by 34 over its height: to the underside of the top by 34 x 328 / 340 = 32.8.
        box.rake = mm(34);
        parts = *boxParts(box).parts;
        QVERIFY(std::abs(parts.topDepth - 217.2) < 1e-9);
        QVERIFY(std::abs(parts.faceHeight - std::hypot(328, 32.8)) < 1e-9);
        QVERIFY(std::abs(parts.endDepth - parts.endDepthAbove - 32.8) < 1e-9);

        Job job;
        job.catalogue.products = {of("ply", "sheet", {{"length", 2440}, {"width", 1220}, {"thickness", 12}})};
        Surface floor;
        floor.id = floor.name = "floor";
        floor.measurement = test::rectangle(3000, 1700);
        floor.measurement.notches = {notch(2, 900, 700, 200)};
        job.surfaces = {floor};
        const auto name = [](SurfaceKind, Hand, int n) { return "arch " + std::to_string(n); };
        putArchBox(job, box, name);
        QCOMPARE(job.surfaces.size(), 5UL);
        QCOMPARE(job.surfaces[0].measurement.notches[0].length->length, Mm{880});
        QCOMPARE(job.surfaces[0].measurement.notches[0].depth->length, Mm{250});
        const Plan p = plan(job);
        // Outside: the face leans, sqrt(340^2 + 34^2); the ends are as deep as the box at the floor.
        const SurfacePlan* face = p.surface(job.archBoxes[0].face);
        QVERIFY(std::abs(boundsOf(face->measured.outline).height() - std::hypot(340, 34)) < 0.1);
        for (const std::string& end : {job.archBoxes[0].rearEnd, job.archBoxes[0].frontEnd}) {
            QVERIFY(!p.surface(end)->measured.inDoubt());
            QVERIFY(std::abs(areaMm2(p.surface(end)->measured.outline) - (250 + 216) / 2.0 * 340) < 60);
            QCOMPARE(job.surface(end)->hand, Hand::Left);
        }
        // Its four panels are cut with the rest.
        QCOMPARE(cutProblems(job, p).at(0).pieces.size(), 4UL);
        // One figure changes: all of it follows, no surface comes twice.
        ArchBox longer = job.archBoxes[0];
        longer.length = mm(920);
        putArchBox(job, longer, name);
        QCOMPARE(job.surfaces.size(), 5UL);
        QCOMPARE(boundsOf(plan(job).surface(longer.top)->measured.outline).width(), 920.0);
        // What makes no box is told, and changes no surface.
        for (const auto& [figure, value, fault] : {std::tuple{&ArchBox::rake, 260.0, BoxFault::RakeBeyondDepth},
                                                   {&ArchBox::thickness, 400.0, BoxFault::TooThick},
                                                   {&ArchBox::height, 0.0, BoxFault::HeightMissing}}) {
            ArchBox wrong = longer;
            wrong.*figure = mm(value);
            QVERIFY(boxParts(wrong).fault == fault);
            Job bad = job;
            putArchBox(bad, wrong, name);
            QVERIFY(bad.surfaces == job.surfaces);
            QVERIFY(told(plan(bad), RemarkKind::ArchBoxImpossible));
        }
    }
};

WESTRUM_TEST(BasePlanTest)

#include "base_plan_test.moc"
