#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/measure/cutouts.h"
#include "core/plan/plan.h"
#include "core/shell/access.h"
#include "core/shell/datum.h"
#include "core/shell/new_van.h"
#include "core/shell/sketch.h"
#include "core/shell/ties.h"
#include "core/shell/unfold.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>

using namespace westrum;
using namespace westrum::test;

class ShellTest : public QObject {
    Q_OBJECT

    static bool near(double a, double b, double by = 1e-6) { return std::abs(a - b) <= by; }
    static bool has(const std::vector<Remark>& remarks, RemarkKind kind) {
        return std::any_of(remarks.begin(), remarks.end(), [&](const Remark& r) { return r.kind == kind; });
    }
    static Surface wall(double length, double height, const std::string& id = "wall") {
        Surface s;
        s.id = id;
        s.name = id;
        s.kind = SurfaceKind::LeftWall;
        s.measurement = rectangle(length, height);
        return s;
    }
    static SurfaceShape shaped(const Surface& s) { return shapeOf(s, outlineOf(s.measurement)); }
    static Opening window(double fromSide, double fromCross, double w, double h) {
        Opening o;
        o.name = "Window";
        o.place.fromSide = mm(fromSide);
        o.place.fromCross = mm(fromCross);
        o.width = mm(w);
        o.height = mm(h);
        return o;
    }
    static std::vector<Surface> usualVan() {
        return surfacesOf({}, [](SurfaceKind, Hand, int n) { return "surface " + std::to_string(n); });
    }

private slots:
    void anOpeningLiesWhereTheTapeSays() {
        Surface s = wall(3000, 1200);
        s.openings = {window(500, 700, 900, 450)};
        const SurfaceShape shape = shaped(s);
        const Bounds b = boundsOf(shape.openings.at(0).shape);
        QVERIFY(near(b.low.x, 700) && near(b.high.x, 1600) && near(b.low.y, 500) && near(b.high.y, 950));
        QVERIFY(near(areaMm2(shape.net), 3000 * 1200 - 900 * 450, 0.1));
        // From the far side and the top it is the same window: 3000 - 1600 and 1200 - 950.
        s.openings[0].place = {.side = 2, .fromSide = mm(250), .cross = 1, .fromCross = mm(1400)};
        QVERIFY(distance(boundsOf(shaped(s).openings[0].shape).low, b.low) < 1e-6);
        // To its centre.
        s.openings[0].place = {.fromSide = mm(725), .fromCross = mm(1150), .toCentre = true};
        QVERIFY(distance(boundsOf(shaped(s).openings[0].shape).low, b.low) < 1e-6);
        // Covered first, it is not cut out of what is laid.
        s.openings[0].treatment = Treatment::CoverAndRout;
        QVERIFY(near(areaMm2(shaped(s).net), 3000 * 1200, 0.1));
    }

    void movedByHandItsDistancesAreFoundAgain() {
        std::mt19937 dice(3);
        Surface s = wall(0, 0);
        s.measurement = fourSides(3000, 1200, 2990, 1215, std::hypot(3000, 1200));
        const MeasuredOutline m = outlineOf(s.measurement);
        for (int round = 0; round < 50; ++round) {
            Placement p{.side = static_cast<int>(dice() % 4), .toCentre = dice() % 2 == 0};
            p.cross = (p.side + (dice() % 2 ? 1 : 3)) % 4;
            p.fromSide = mm(100 + dice() % 300);
            p.fromCross = mm(100 + dice() % 300);
            const auto box = placedBox(p, 300, 200, m);
            QVERIFY(box);
            const auto back = distancesOf(p, ((*box)[0] + (*box)[2]) * 0.5, 300, 200, m);
            QVERIFY(near(back->fromSide.value, p.fromSide->length.value, 1e-6));
            QVERIFY(near(back->fromCross.value, p.fromCross->length.value, 1e-6));
        }
    }

    void aRowOfLampsHasItsSpacing() {
        Surface s = wall(3000, 1200);
        Opening lamps = window(300, 400, 70, 0);
        lamps.shape = OpeningShape::Round;
        lamps.place.toCentre = true;
        lamps.count = 5;
        lamps.pitch = mm(500);
        s.openings = {lamps};
        const SurfaceShape shape = shaped(s);
        QCOMPARE(shape.openings.size(), std::size_t{5});
        QVERIFY(distance(shape.openings[4].centre, {400 + 4 * 500, 300}) < 1e-6);
        s.openings[0].place.cross = 1; // counted from the right
        QVERIFY(distance(shaped(s).openings[4].centre, {3000 - 400 - 4 * 500, 300}) < 1e-6);
        s.openings[0].count = 7; // the last ones lie beyond the wall
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningOutside));
        s.openings[0].pitch.reset();
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningIncomplete));
    }

    void openingsThatCannotBeAreToldAndLeftOut() {
        Surface s = wall(3000, 1200);
        s.openings = {window(1100, 700, 900, 450)};
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningOverEdge));
        s.openings = {window(2000, 700, 900, 450)};
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningOutside));
        QVERIFY(shaped(s).openings.empty());
        s.openings = {window(100, 700, 900, 450), window(300, 1000, 300, 300)};
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningsOverlap));
        s.openings = {window(100, 700, -5, 450)};
        QVERIFY(has(shaped(s).remarks, RemarkKind::ReadingNotPositive));
        s.openings = {window(100, 700, 900, 450)};
        s.openings[0].place.cross = 2; // parallel to side 0
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningIncomplete));
        Opening bow = window(100, 100, 0, 0);
        bow.shape = OpeningShape::Polygon;
        bow.corners = {{mm(0), mm(0)}, {mm(100), mm(100)}, {mm(100), mm(0)}, {mm(0), mm(100)}};
        s.openings = {bow};
        QVERIFY(has(shaped(s).remarks, RemarkKind::OpeningCrossed));
    }

    /// A wardrobe in one corner, 800 of 3000 long and 700 high: over the other 2200 the whole height of 1200 is seen,
    /// so the line that matters lies at 600, though the box of what is seen is the same. A bench 450 high along 2000
    /// more and it lies at 825.
    void theMiddleIsThatOfMostOfWhatIsSeen() {
        Surface s = wall(3000, 1200);
        Zone z{.name = "Wardrobe"};
        z.place.fromSide = mm(0);
        z.place.fromCross = mm(0);
        z.width = mm(800);
        z.height = mm(700);
        s.zones = {z};
        QVERIFY(near(*shaped(s).visibleCentreY, 600, 0.01));
        z.name = "Bench";
        z.place.fromCross = mm(800);
        z.width = mm(2000);
        z.height = mm(450);
        s.zones.push_back(z);
        QVERIFY(near(*shaped(s).visibleCentreY, 825, 0.01));
    }

    void theVisiblePartHasItsOwnMiddle() {
        Surface s = wall(3000, 1200);
        Zone z{.name = "Kitchen"};
        z.place.fromSide = mm(0);
        z.place.fromCross = mm(0);
        z.width = mm(3000);
        z.height = mm(880);
        s.zones = {z};
        const SurfaceShape shape = shaped(s);
        QVERIFY(near(*shape.visibleCentreY, (880 + 1200) / 2.0));
        QVERIFY(near(areaMm2(shape.visible), 3000 * 320, 0.1));
        s.zones[0].height = mm(1200);
        QVERIFY(has(shaped(s).remarks, RemarkKind::AllHidden));
        s.zones[0].place.fromSide = mm(1300);
        QVERIFY(has(shaped(s).remarks, RemarkKind::ZoneOutside));
    }

    void supportsStandAtTheirSpacing() {
        Surface s = wall(3000, 1200);
        Support ribs{.name = "Rib", .position = mm(200), .width = mm(40), .count = 5, .spacing = mm(600)};
        s.supports = {ribs};
        const SurfaceShape shape = shaped(s);
        QCOMPARE(shape.supports.size(), std::size_t{5});
        QVERIFY(near(shape.supports[4].centre, 2600));
        QVERIFY(near(areaMm2(shape.supports[0].shape), 40 * 1200, 0.1));
        s.supports[0].count = 6; // 3200 is beyond the wall
        QVERIFY(has(shaped(s).remarks, RemarkKind::SupportOutside));
        s.supports[0].along = true;
        s.supports[0].count = 2;
        QVERIFY(near(areaMm2(shaped(s).supports[0].shape), 3000 * 40, 0.1));
    }

    void aMirroredSurfaceIsTheOtherOne() {
        // Whatever was measured: twice mirrored is the same outline, once is the same area the other way round.
        Surface s = wall(0, 0);
        s.hand = Hand::Left;
        s.measurement = fourSides(3000, 1205, 2980, 1190, std::hypot(3000, 1205) + 3);
        s.measurement.readings[5] = mm(std::hypot(2990, 1195));
        s.measurement.notches = {notch(0, 300, 700, 250)};
        s.measurement.steps = {{"Well", 1, mm(200), mm(100)}};
        s.measurement.cornerRadii = {{}, {}, mm(60), {}};
        s.openings = {window(400, 1500, 500, 300)};
        s.supports = {{.name = "Rib", .position = mm(250), .width = mm(40), .count = 3, .spacing = mm(500)}};
        s.edges = {{.kind = EdgeKind::Free}, {.kind = EdgeKind::UnderTrim}};
        const Surface other = mirrored(s);
        QVERIFY(other.kind == SurfaceKind::RightWall && other.hand == Hand::Right);
        const MeasuredOutline a = outlineOf(s.measurement), b = outlineOf(other.measurement);
        QVERIFY(a.measured() && b.measured());
        QVERIFY(near(areaMm2(a.outline), areaMm2(b.outline), 1));
        QVERIFY(near(areaMm2(shapeOf(s, a).net), areaMm2(shapeOf(other, b).net), 1));
        // The notch: 300 from the left of 3000 with 700 becomes 3000 - 300 - 700 = 2000 from the left.
        QVERIFY(near(other.measurement.notches[0].position->length.value, a.sideLength(0).value - 1000, 1e-6));
        QCOMPARE(other.measurement.steps[0].corner, 0);
        QVERIFY(other.measurement.cornerRadii[3].has_value());
        QVERIFY(other.edge(3).kind == EdgeKind::UnderTrim);
        const Surface back = mirrored(other);
        const MeasuredOutline c = outlineOf(back.measurement);
        for (std::size_t k = 0; k < a.frame.size(); ++k) QVERIFY(distance(a.frame[k], c.frame[k]) < 1e-6);
        QVERIFY(distance(shapeOf(back, c).openings[0].centre, shapeOf(s, a).openings[0].centre) < 1e-6);
    }

    void mirroredFormsKeepTheirArea() {
        Surface s = wall(0, 0);
        s.measurement = {};
        s.measurement.form = OutlineForm::Polygon;
        s.measurement.polygon.sides = {mm(1046), mm(1176), mm(411), mm(974), mm(1596)};
        s.measurement.polygon.diagonals = {{0, 2, mm(1585)}, {0, 3, mm(1882)}};
        QVERIFY(outlineOf(s.measurement).measured());
        QVERIFY(
            near(areaMm2(outlineOf(s.measurement).outline), areaMm2(outlineOf(mirrored(s).measurement).outline), 1));
        s.measurement = {};
        s.measurement.form = OutlineForm::Stations;
        s.measurement.stations.rows = {{mm(0), mm(700), {}}, {mm(600), mm(900), {}}, {mm(2000), mm(500), {}}};
        QVERIFY(
            near(areaMm2(outlineOf(s.measurement).outline), areaMm2(outlineOf(mirrored(s).measurement).outline), 5));
        s.measurement = {};
        s.measurement.form = OutlineForm::TwoPoint;
        s.measurement.fixedPoints.base = mm(1500);
        s.measurement.fixedPoints.rows = {
            {mm(200), mm(1600)}, {mm(1700), mm(250)}, {mm(1800), mm(900)}, {mm(900), mm(1700)}};
        QVERIFY(
            near(areaMm2(outlineOf(s.measurement).outline), areaMm2(outlineOf(mirrored(s).measurement).outline), 1));
    }

    void sharedSidesThatDifferAreToldOnce() {
        std::vector<Surface> all{wall(3000, 1800, "floor"), wall(3005, 1200, "left"), wall(3020, 1200, "right")};
        meet(all, "floor", 2, "left", 0);
        meet(all, "floor", 0, "right", 0);
        const auto remarks = [&] {
            std::vector<MeasuredOutline> outlines;
            for (const Surface& s : all) outlines.push_back(outlineOf(s.measurement));
            std::vector<TiedSurface> tied;
            for (std::size_t i = 0; i < all.size(); ++i) tied.push_back({&all[i], &outlines[i]});
            return tieRemarks(tied);
        };
        // 3 x root(2^2 + 2^2) = 8.5 mm: 5 apart is measuring, 20 is not.
        QCOMPARE(remarks().size(), std::size_t{1});
        QVERIFY(remarks()[0].kind == RemarkKind::SharedEdgesDiffer && remarks()[0].place.surface == "floor");
        // Meeting another surface unties the one before at both ends.
        meet(all, "left", 0, "right", 0);
        QVERIFY(all[0].edge(2).kind == EdgeKind::Unsaid && all[0].edge(0).kind == EdgeKind::Unsaid);
        QVERIFY(all[1].edge(0).surface == "right");
        part(all, "right", 0);
        QVERIFY(all[1].edge(0).kind == EdgeKind::Unsaid);
        all[0].edges = {{.kind = EdgeKind::Meets, .surface = "gone", .side = 1}};
        QVERIFY(has(remarks(), RemarkKind::EdgeMeetsNothing));
    }

    void aPanelIsTiltedThroughTheDoor() {
        // Without thickness the diagonal: 3 x 4 m gives 5 m.
        QVERIFY(near(widestThrough({3000}, {4000}, {0}).value, 5000, 0.01));
        // As thick as the door is wide it goes upright only.
        QVERIFY(near(widestThrough({100}, {1000}, {100}).value, 1000, 0.01));
        QVERIFY(near(widestThrough({100}, {1000}, {101}).value, 0));
        // Thicker is never wider, and never narrower than the door is high.
        double before = 1e9;
        for (double t = 0; t <= 300; t += 10) {
            const double w = widestThrough({1050}, {1600}, {t}).value;
            QVERIFY(w <= before + 1e-6 && w >= 1600 - 1e-6);
            // It does fit: some tilt keeps both extents within the door.
            bool fits = false;
            for (int i = 0; i <= 9000 && !fits; ++i) {
                const double v = i * 1.5707963 / 9000;
                fits = w * std::cos(v) + t * std::sin(v) <= 1050.3 && w * std::sin(v) + t * std::cos(v) <= 1600.3;
            }
            QVERIFY(fits);
            before = w;
        }
        Access a;
        a.doors = {{"side", mm(1046), mm(1590)}, {"rear", mm(1538), mm(1704)}, {"unmeasured", {}, {}}};
        a.panelThickness = mm(12);
        QCOMPARE(QString::fromStdString(passageOf(a).door), QStringLiteral("rear"));
        a.panelThickness = mm(1600);
        QVERIFY(has(passageOf(a).remarks, RemarkKind::PanelCannotPass));
    }

    void aNewVanHasAllUsualSurfaces() {
        const std::vector<Surface> all = usualVan();
        QVERIFY(all.size() >= 22);
        std::set<std::string> ids;
        for (const Surface& s : all) {
            QVERIFY(ids.insert(s.id).second && !s.name.empty());
            QVERIFY(s.measurement.empty() && s.ghostLength.value > 0 && s.ghostHeight.value > 0);
        }
        // Ties hold both ways.
        for (const Surface& s : all)
            for (std::size_t k = 0; k < s.edges.size(); ++k)
                if (s.edges[k].kind == EdgeKind::Meets) {
                    const auto other = std::find_if(all.begin(), all.end(),
                                                    [&](const Surface& o) { return o.id == s.edges[k].surface; });
                    QVERIFY(other != all.end());
                    QVERIFY(other->edge(s.edges[k].side).surface == s.id);
                }
        for (const BodyField& f : bodyFields()) {
            const double byDefault = (BodyFigures{}.*f.figure).value;
            QVERIFY(byDefault >= f.least && byDefault <= f.most);
        }
    }

    void theMapUnfoldsFromTheFloor() {
        std::vector<Flap> flaps;
        for (const Surface& s : usualVan()) flaps.push_back(flapOf(s, {}));
        for (const double aspect : {0.4, 0.6, 1.0, 1.8, 3.0}) {
            const std::vector<Unfolded> places = unfold(flaps, aspect);
            QCOMPARE(places.size(), flaps.size());
            QVERIFY(unfold(flaps, aspect) == places);
            // No two cover each other.
            std::vector<Ring> rings;
            for (std::size_t i = 0; i < flaps.size(); ++i) {
                QCOMPARE(places[i].id, flaps[i].id);
                Ring ring;
                for (Point p : flaps[i].frame) {
                    ring.push_back(places[i].map(p));
                    QVERIFY(distance(places[i].unmap(ring.back()), p) < 1e-6);
                }
                QVERIFY(near(signedArea(ring), signedArea(flaps[i].frame), 1)); // turned, never mirrored
                for (const Ring& other : rings)
                    QVERIFY(areaMm2(intersection({{ring}}, {{other}})) < 0.011 * signedArea(ring));
                rings.push_back(std::move(ring));
            }
        }
        // The left wall's foot lies along the floor's left side.
        const std::vector<Unfolded> places = unfold(flaps, 1.8);
        const Point foot = places[1].map((flaps[1].sides[0].front() + flaps[1].sides[0].back()) * 0.5);
        const Point side = places[0].map((flaps[0].sides[2].front() + flaps[0].sides[2].back()) * 0.5);
        QVERIFY(distance(foot, side) < 50);
        QVERIFY(unfold({}, 1).empty());
    }

    void ribsCountFromTheNamedEnd() {
        // The rear end leans back by 200 at its top: a rib 500 from it stands 500 along the foot, not 300.
        Surface s = wall(0, 0);
        s.measurement = {};
        s.measurement.form = OutlineForm::FourSides;
        s.measurement.readings = {mm(2000), mm(900), mm(2200), mm(std::hypot(200, 900)), mm(std::hypot(2000, 900)), {}};
        s.supports = {{.name = "Rib", .position = mm(500), .width = mm(40)}};
        const MeasuredOutline outline = outlineOf(s.measurement);
        QVERIFY(near(boundsOf(outline.frame).low.x, -200, 0.01));
        const SurfaceShape shape = shapeOf(s, outline);
        QVERIFY(near(shape.supports.at(0).centre, 500, 1e-6));
        // Drawn with a notch in its foot, the foot is one line still.
        s.measurement = {};
        s.measurement.form = OutlineForm::Drawn;
        s.measurement.drawn = {{0, 0}, {600, 0}, {600, 150}, {900, 150}, {900, 0}, {2000, 0}, {2000, 900}, {-200, 900}};
        const MeasuredOutline drawn = outlineOf(s.measurement);
        QVERIFY(near(lowerEdge(drawn).from.x, 0) && near(lowerEdge(drawn).to.x, 2000));
        QVERIFY(near(shapeOf(s, drawn).supports.at(0).centre, 500, 1e-6));
    }

    void aDistanceFromASlantedSideIsDrawnAsItIsMeant() {
        // The right end leans in by 300 over 900. A window 200 from it, measured along the foot at its middle's height.
        Surface s = wall(0, 0);
        s.measurement = {};
        s.measurement.form = OutlineForm::FourSides;
        s.measurement.readings = {mm(2000), mm(std::hypot(300, 900)), mm(1700), mm(900), {}, mm(std::hypot(2000, 900))};
        s.openings = {window(300, 200, 400, 300)};
        s.openings[0].place.cross = 1;
        const MeasuredOutline outline = outlineOf(s.measurement);
        // Its middle is 450 up, where the end stands 150 in: its right edge lies at 2000 - 150 - 200.
        QVERIFY(near(boundsOf(shapeOf(s, outline).openings.at(0).shape).high.x, 1650, 1e-6));
        const Sketch sketch = sketchOf(s, outline, {.opening = 0});
        const auto slot = std::find_if(sketch.places.begin(), sketch.places.end(),
                                       [](const ReadingSlot& p) { return p.key == "o0.cross"; });
        QVERIFY(slot != sketch.places.end());
        const Bounds drawn = boundsOf(Ring{slot->from, slot->to});
        QVERIFY(near(drawn.low.x, 1650, 0.01) && near(drawn.high.x, 1850, 0.01) && near(drawn.low.y, 450, 0.01));
    }

    void theDatumFollowsLeanBendRakeAndTie() {
        const Datum level{mm(800), mm(800)};
        const auto on = [&](const Surface& s, const Datum& datum, const FloorFrame& floor) {
            return *datumOn(s, outlineOf(s.measurement), datum, floor);
        };
        // 900 high along itself and leaning by 200 it rises 877.5: 700 plumb is 718 along it.
        Surface leaning = wall(2000, 900);
        leaning.heightRear = mm(100);
        leaning.lean = mm(200);
        QVERIFY(near(on(leaning, level, {Mm{4000}}).left.y, 700 * 900 / std::sqrt(900.0 * 900 - 200 * 200), 1e-6));
        leaning.leansOut = true; // out as in
        QVERIFY(near(on(leaning, level, {Mm{4000}}).left.y, 717.9, 0.1));
        // 500 straight up, then a quarter turn of radius 400 inwards (chord 565.7, rise 117.2): 750 plumb is 250 up the
        // arc, asin(250 / 400) of it: 500 + 400 x 0.6751.
        Surface bent = wall(2000, 1128.3);
        bent.heightRear = mm(50);
        bent.measurement.curve.curving = Curving::Single;
        bent.measurement.curve.parts = {
            {mm(500), {}}, {Reading{{}, {400 * std::numbers::sqrt2}}, Reading{{}, {400 - 200 * std::numbers::sqrt2}}}};
        QVERIFY(near(on(bent, level, {Mm{4000}}).left.y, 500 + 400 * std::asin(250.0 / 400), 0.3));
        // A datum that falls from 900 to 800 over 4000. The wall's foot runs from 1000 to 3000; its rear end rakes back
        // by 200: the line at its left, 200 behind the foot's end, is 5 higher than at the foot.
        const Datum falling{mm(900), mm(800)};
        Surface raked = wall(0, 0);
        raked.measurement = {};
        raked.measurement.form = OutlineForm::FourSides;
        raked.measurement.readings = {
            mm(2000), mm(1000), mm(2200), mm(std::hypot(200, 1000)), mm(std::hypot(2000, 1000)), {}};
        raked.fromRear = mm(1000);
        const DatumLine line = on(raked, falling, {Mm{4000}});
        QVERIFY(near(line.left.x, -200, 0.01) && near(line.left.y, 880, 0.01)); // 800 from the floor's rear
        QVERIFY(near(line.right.x, 2000, 0.01) && near(line.right.y, 825, 0.01));
        // A bulkhead stands where the floor's front side is, unless it is said to stand elsewhere.
        std::vector<Surface> all{wall(4000, 1800, "floor"), wall(1800, 1700, "bulkhead")};
        all[0].kind = SurfaceKind::Floor;
        all[1].kind = SurfaceKind::Bulkhead;
        meet(all, "floor", 1, "bulkhead", 0);
        std::vector<MeasuredOutline> outlines{outlineOf(all[0].measurement), outlineOf(all[1].measurement)};
        const std::vector<TiedSurface> tied{{&all[0], &outlines[0]}, {&all[1], &outlines[1]}};
        const FloorFrame floor = floorFrameOf(tied, foldUp(tied));
        QVERIFY(near(floor.stands.at("bulkhead").fromRear.value, 4000, 0.1));
        QVERIFY(near(on(all[1], falling, floor).left.y, 800, 0.1));
        all[1].fromRear = mm(2000);
        QVERIFY(near(on(all[1], falling, floor).left.y, 850, 0.1));
    }

    void theSketchHasAPlaceForEachReading() {
        Surface s = wall(3000, 1200);
        s.openings = {window(100, 100, 300, 200)};
        for (const OutlineForm form : {OutlineForm::Rectangle, OutlineForm::FourSides, OutlineForm::Polygon,
                                       OutlineForm::Stations, OutlineForm::TwoPoint}) {
            s.measurement = {};
            s.measurement.form = form;
            s.measurement.notches = {{"N", 0, {}, {}, {}}};
            const Sketch sketch = sketchOf(s, outlineOf(s.measurement), {.opening = 0});
            QVERIFY(!sketch.frame.empty() && !sketch.measured);
            std::set<std::string> keys;
            for (const ReadingSlot& slot : sketch.places) {
                QVERIFY2(findReading(s, slot.key), slot.key.c_str());
                QVERIFY2(keys.insert(slot.key).second, slot.key.c_str());
            }
            QVERIFY(keys.contains("o0.width") && keys.contains("o0.cross") && keys.contains("n0.depth"));
            for (const std::string& key : readingKeys(s.measurement)) QVERIFY2(keys.contains(key), key.c_str());
        }
    }

    void theDatumRunsThroughFromWallToWall() {
        // 1200 over the floor at the rear, 1160 at the front, over 4000: 10 mm lower for each metre.
        const Datum datum{mm(1200), mm(1160)};
        Surface left = wall(4000, 900);
        left.hand = Hand::Left;
        left.heightRear = left.heightFront = mm(800);
        const auto line = datumOn(left, outlineOf(left.measurement), datum, {4000});
        QVERIFY(line && near(line->left.y, 400) && near(line->right.y, 360));
        // A pillar of 200 that begins 1000 from the rear carries it on: 1190 and 1188 over the floor.
        Surface pillar = wall(200, 1800);
        pillar.kind = SurfaceKind::Pillar;
        pillar.fromRear = mm(1000);
        const auto on = datumOn(pillar, outlineOf(pillar.measurement), datum, {4000});
        QVERIFY(on && near(on->left.y, 1190) && near(on->right.y, 1188));
        // The right wall runs from front to rear.
        Surface right = left;
        right.hand = Hand::Right;
        const auto back = datumOn(right, outlineOf(right.measurement), datum, {4000});
        QVERIFY(back && near(back->left.y, 360) && near(back->right.y, 400));
        // Above the surface, on a floor, or without a datum there is none.
        Surface low = wall(4000, 300);
        QVERIFY(!datumOn(low, outlineOf(low.measurement), datum, {4000}));
        Surface floor = wall(4000, 1800);
        floor.kind = SurfaceKind::Floor;
        QVERIFY(!datumOn(floor, outlineOf(floor.measurement), datum, {4000}));
        QVERIFY(!datumOn(left, outlineOf(left.measurement), {}, {4000}));
    }

    void planksAreLaidRoundAHatchAndBoughtTogether() {
        // Two floors of 1200 x 400 in planks 1200 x 200 without gap: two planks each, four to a pack: one pack in all.
        Product p = plankProduct(1200, 200, 4, 1000);
        Job job = jobWith(rectangle(1200, 400), p, {{"gap", 0}, {"kerf", 0}});
        Surface second = job.surfaces[0];
        second.id = "second";
        job.surfaces.push_back(second);
        job.finishes["second"] = job.finishes["floor"];
        const Plan both = plan(job);
        QCOMPARE(both.purchases.size(), std::size_t{1});
        QCOMPARE(both.purchases[0].packs, 1);
        QCOMPARE(both.purchases[0].unitsNeeded, 4);
        QCOMPARE(both.totals.cost->minor, 1000);
        QVERIFY(near(both.totals.laidArea.value, 2 * 1.2 * 0.4));
        job.surfaces[0].openings = {window(100, 300, 300, 200)};
        const Plan hatch = plan(job);
        QVERIFY(near(hatch.surface("floor")->setOut().laidArea().value, 1.2 * 0.4 - 0.3 * 0.2, 1e-6));
    }
};
WESTRUM_TEST(ShellTest)

#include "shell_test.moc"
