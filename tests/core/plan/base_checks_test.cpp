#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/base_checks.h"
#include "core/plan/plan.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Product of(const std::string& id, const std::string& family, FieldValues fields = {}) {
    return {id, family, id, "Yard", Money{1000, Currency{}}, std::move(fields)};
}

Support battens(bool along, double first, int count, double apart) {
    return {"Strip", SupportKind::Batten, along, mm(first), mm(40), count, mm(apart), {}};
}

/// A wall or ceiling of 2000 x 1000 on battens.
Job wall(SurfaceKind kind, std::vector<Support> supports, const std::vector<std::string>& layers) {
    Job job;
    job.catalogue.products = {
        of("board", "boards", {{"cover", 90}, {"overall", 98}, {"length", 2400}, {"thickness", 9}}),
        of("ply", "sheet", {{"length", 2440}, {"width", 1220}, {"thickness", 6}}),
        of("strip", "battens", {{"length", 2400}, {"width", 40}, {"thickness", 20}}),
        of("wool", "insulation", {{"thickness", 40}, {"squash", 0.2}}),
        of("film", "barrier"),
        of("glue", "adhesive"),
        of("felt", "roll"),
        of("coat", "coating", {{"waterproof", 1}})};
    Surface s;
    s.id = s.name = "wall";
    s.kind = kind;
    s.measurement = rectangle(2000, 1000);
    s.supports = std::move(supports);
    job.surfaces.push_back(s);
    for (const std::string& id : layers) job.finishes["wall"].now().layers.push_back({id, {}, {}, false});
    return job;
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

double screwsOf(const Plan& p, int layer) {
    double n = 0;
    for (const Need& need : p.needs)
        if (need.serves == Serves::Screws && need.layer == layer) n += need.amount;
    return n;
}

} // namespace

/// What layers ask of the base below them.
class BaseChecksTest : public QObject {
    Q_OBJECT
private slots:
    void boardsAlongTheirBattensHangOnNothing() {
        Job job = wall(SurfaceKind::Ceiling, {battens(true, 50, 3, 450)}, {"strip", "board"});
        const Plan along = plan(job);
        const Remark* r = told(along, RemarkKind::RunsAlongSupports);
        QVERIFY(r && r->severity == Severity::Error && r->fix && r->fix->kind == FixKind::TurnBattens);
        // Turned: from 50 at either end of 2000, no more than 450 apart: 1900 / 450, five spaces of 380.
        job.surfaces[0] = withBattensTurned(job.surfaces[0], along.surfaces[0].measured);
        QCOMPARE(job.surfaces[0].supports.size(), 1UL);
        const Support& row = job.surfaces[0].supports[0];
        QVERIFY(!row.along);
        QCOMPARE(row.count, 6);
        QCOMPARE(row.position->length.value, 50.0);
        QCOMPARE(row.spacing->length.value, 380.0);
        const Plan across = plan(job);
        QVERIFY(!told(across, RemarkKind::RunsAlongSupports));
        // Every board has a screw where it crosses a batten, joints one on either side.
        int crossings = 0;
        for (const Piece& p : across.surfaces[0].setOut().pieces)
            for (double x = 50; x < 2000; x += 380) {
                const Bounds b = boundsOf(p.shape);
                crossings += x > b.low.x - 1 && x < b.high.x + 1 ? 1 : 0;
            }
        QCOMPARE(screwsOf(across, 1), static_cast<double>(crossings));
        // Ribs behind the battens count for nothing, and are no reason to be quiet.
        job = wall(SurfaceKind::Ceiling, {battens(true, 50, 3, 450)}, {"strip", "board"});
        job.surfaces[0].supports.push_back({"Bow", SupportKind::Rib, false, mm(300), mm(60), 3, mm(600), mm(25)});
        QVERIFY(told(plan(job), RemarkKind::RunsAlongSupports));
    }

    void freeEdgesAndLoneBattensAreJudged() {
        // 6 mm carries 400 between supports and 133.3 beyond the last one.
        const auto remarksOf = [](std::vector<Support> supports) {
            return plan(wall(SurfaceKind::LeftWall, std::move(supports), {"ply"}));
        };
        const Plan bare = remarksOf({});
        const Remark* none = told(bare, RemarkKind::PanelsUnsupported);
        QVERIFY(none && lengthIn(*none, "limit") == Mm{400});
        QCOMPARE(lengthIn(*none, "length").value, 994.0); // the shorter way, its gaps off
        QVERIFY(told(remarksOf({battens(false, 1000, 1, 0)}), RemarkKind::PanelsUnsupported));
        // Along at 300, 500, 700: 297 stand free above and below.
        const Plan free = remarksOf({battens(true, 300, 3, 200)});
        const Remark* edge = told(free, RemarkKind::EdgeOverhangs);
        QVERIFY(edge);
        QCOMPARE(lengthIn(*edge, "length").value, 297.0);
        QVERIFY(std::abs(lengthIn(*edge, "limit").value - 133.333) < 0.01);
        // At 100, 500, 900: nothing to say. On the van's floor, or on a bed of glue, none is needed.
        const Plan held = remarksOf({battens(true, 100, 3, 400)});
        QVERIFY(!told(held, RemarkKind::EdgeOverhangs) && !told(held, RemarkKind::PanelsUnsupported));
        QVERIFY(!told(plan(wall(SurfaceKind::Floor, {}, {"ply"})), RemarkKind::PanelsUnsupported));
        QVERIFY(!told(plan(wall(SurfaceKind::LeftWall, {}, {"glue", "ply"})), RemarkKind::PanelsUnsupported));
    }

    void whatMayLieOnWhat() {
        // Felt glued onto wool; a sheet between them is offered.
        const Plan soft = plan(wall(SurfaceKind::LeftWall, {}, {"wool", "glue", "felt"}));
        const Remark* loose = told(soft, RemarkKind::LooseBelow);
        QVERIFY(loose && loose->fix && loose->fix->kind == FixKind::AddLayer && loose->fix->key == "ply");
        QCOMPARE(loose->fix->value, 1.0);
        QVERIFY(!told(plan(wall(SurfaceKind::LeftWall, {}, {"wool", "ply", "glue", "felt"})), RemarkKind::LooseBelow));
        // A wet cell wants a barrier over wool and a waterproof coat below what is seen; a living room does not.
        Job wet = wall(SurfaceKind::WetCellWall, {}, {"wool", "ply"});
        QVERIFY(!told(plan(wet), RemarkKind::BarrierMissing));
        wet.surfaces[0].area.kind = AreaKind::WetCell;
        const Plan damp = plan(wet);
        QCOMPARE(told(damp, RemarkKind::BarrierMissing)->fix->key, std::string("film"));
        QCOMPARE(told(damp, RemarkKind::WaterproofMissing)->fix->key, std::string("coat"));
        QCOMPARE(told(damp, RemarkKind::WaterproofMissing)->fix->value, 2.0); // on the panel
        // Under tiles, and under their mortar: 0 ply, 1 the coat.
        Job tiled = wall(SurfaceKind::WetCellWall, {}, {"ply", "glue", "tile"});
        tiled.catalogue.products.push_back(of("tile", "tiles", {{"width", 150}, {"height", 150}}));
        tiled.surfaces[0].area.kind = AreaKind::WetCell;
        QCOMPARE(told(plan(tiled), RemarkKind::WaterproofMissing)->fix->value, 1.0);
        wet.finishes["wall"].now().layers = {
            {"wool", {}, {}, false}, {"film", {}, {}, false}, {"ply", {}, {}, false}, {"coat", {}, {}, false}};
        const Plan dry = plan(wet);
        QVERIFY(!told(dry, RemarkKind::BarrierMissing) && !told(dry, RemarkKind::WaterproofMissing));
    }

    void aWindowPartsABatten() {
        // A batten at 500 over a window from 300 to 800: 300 below it and 200 above.
        Job job = wall(SurfaceKind::LeftWall, {battens(false, 1000, 1, 0)}, {"strip"});
        Opening window;
        window.name = "Window";
        window.kind = OpeningKind::Window;
        window.width = mm(600);
        window.height = mm(500);
        window.place = {0, mm(300), 3, mm(700), false};
        job.surfaces[0].openings.push_back(window);
        const Plan p = plan(job);
        std::vector<double> lengths;
        for (const Mm l : p.surfaces[0].layers[0].take.lengths) lengths.push_back(l.value);
        std::sort(lengths.begin(), lengths.end());
        QCOMPARE(lengths.size(), 2UL);
        QVERIFY(std::abs(lengths[0] - 200) < 0.01 && std::abs(lengths[1] - 300) < 0.01);
        // Screws are along what is left of it, not across the window.
        QVERIFY(std::abs(p.surfaces[0].layers[0].area.value - 0.04 * 0.5) < 1e-6);
    }
};

WESTRUM_TEST(BaseChecksTest)
#include "base_checks_test.moc"
