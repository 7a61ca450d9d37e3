#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cut_problems.h"
#include "core/shell/ties.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <numbers>
#include <set>

using namespace westrum;
using namespace westrum::test;

namespace {

constexpr double kDegree = std::numbers::pi / 180;

struct Space {
    double x{}, y{}, z{};
};
double dotOf(Space a, Space b) { return a.x * b.x + a.y * b.y + a.z * b.z; }

/// The cut's line across a face as a saw set like this makes it: as it rises by one up the face, it moves away from the
/// corner by the tangent of the mitre, where the bottom edge is the longer one.
Space cutLine(Space run, Space up, const SawSetting& s) {
    const double t = std::tan(s.mitreRad) * (s.longEdge == LongEdge::Top ? -1 : 1);
    const Space d{run.x * t + up.x, run.y * t + up.y, run.z * t + up.z};
    const double l = std::sqrt(dotOf(d, d));
    return {d.x / l, d.y / l, d.z / l};
}

Product trim(const std::string& id, Profile profile, FieldValues more = {}) {
    Product p{.id = id, .family = "trim", .name = id};
    p.fields = {{"profile", static_cast<double>(profile)},
                {"length", 2400},
                {"width", 20},
                {"thickness", 12},
                {"kerf", 3},
                {"endTrim", 0}};
    for (const auto& [key, value] : more) p.fields[key] = value;
    p.packPrice = Money{500, {}};
    return p;
}

Product panel() {
    Product p{.id = "ply", .family = "sheet", .name = "Ply"};
    p.fields = {{"thickness", 6}, {"length", 3050}, {"width", 1525}};
    return p;
}

/// A floor of planks, 3000 x 1800, and whatever is said to stand round it, clad in panels unless bare.
Job box() {
    Job job = jobWith(rectangle(3000, 1800), plankProduct(1220, 180, 10, 4000), {});
    job.catalogue.products.push_back(panel());
    return job;
}

Surface& add(Job& job, const std::string& id, SurfaceKind kind, double length, double height, bool clad = true) {
    Surface s;
    s.id = s.name = id;
    s.kind = kind;
    s.measurement = rectangle(length, height);
    job.surfaces.push_back(std::move(s));
    if (clad) job.finishes[id].now().layers = {{"ply", {}, {}, false}};
    return job.surfaces.back();
}

std::vector<const TrimRun*> runsOf(const Plan& p, const std::string& surface, int side) {
    std::vector<const TrimRun*> found;
    for (const TrimRun& r : p.trims.runs)
        if (r.surface == surface && r.side == side) found.push_back(&r);
    return found;
}

const TrimRun& only(const Plan& p, const std::string& surface, int side) {
    const auto found = runsOf(p, surface, side);
    if (found.size() != 1) qFatal("%zu runs at side %d of %s", found.size(), side, surface.c_str());
    return *found.front();
}

} // namespace

/// What closes the edges, how its ends are cut, and how long it gets.
class EdgeTrimsTest : public QObject {
    Q_OBJECT
private slots:
    /// Two boards cut as told meet: the cut lies along one line on both faces, and each is bevelled by half of what
    /// the faces lack of lying straight on.
    void cutsMeetInSpace() {
        std::mt19937 dice(5);
        int tried = 0;
        for (int round = 0; round < 400; ++round) {
            const auto between = [&](double low, double high) { return low + (high - low) * (dice() % 10000) / 1e4; };
            const double plan = between(25, 335) * kDegree;
            if (std::abs(plan - std::numbers::pi) < 5 * kDegree) continue;
            const double t1 = between(30, 150) * kDegree, t2 = between(30, 150) * kDegree;
            const CornerSetting c = compoundMitre({plan, t1, t2});
            const Space run1{1, 0, 0}, run2{std::cos(plan), std::sin(plan), 0};
            const Space up1{0, std::cos(t1), std::sin(t1)};
            const Space up2{std::cos(t2) * std::sin(plan), -std::cos(t2) * std::cos(plan), std::sin(t2)};
            const Space a = cutLine(run1, up1, c.first), b = cutLine(run2, up2, c.second);
            QVERIFY2(std::abs(std::abs(dotOf(a, b)) - 1) < 1e-9, qPrintable(QString::number(round)));
            // The angle between the faces, square to that line.
            const auto square = [&](Space run) {
                const double k = dotOf(run, a);
                const Space s{run.x - a.x * k, run.y - a.y * k, run.z - a.z * k};
                const double l = std::sqrt(dotOf(s, s));
                return Space{s.x / l, s.y / l, s.z / l};
            };
            const double between1 = std::acos(std::clamp(dotOf(square(run1), square(run2)), -1.0, 1.0));
            QVERIFY(std::abs(c.first.bevelRad - std::abs(std::numbers::pi / 2 - between1 / 2)) < 1e-6);
            QVERIFY(std::abs(c.second.bevelRad - c.first.bevelRad) < 1e-9);
            ++tried;
        }
        QVERIFY(tried > 300);
    }

    /// A window of 500 x 300 bound with edging: 1600 round it. Moved so that it reaches the panel's own edge, 300 of it
    /// in, no edging runs there: 500 + 2 x 300 = 1100.
    void edgingStopsAtTheSurfacesOwnEdge() {
        Job job = box();
        job.catalogue.products.push_back(trim("edging", Profile::BoundEdge, {{"length", 10000}, {"leastRadius", 5}}));
        Surface& wall = add(job, "wall", SurfaceKind::LeftWall, 2000, 1200);
        Opening o{.name = "Window", .kind = OpeningKind::Window};
        o.edge = OpeningEdge::Bound;
        o.place.fromSide = mm(400);
        o.place.fromCross = mm(700);
        o.width = mm(500);
        o.height = mm(300);
        wall.openings = {o};
        const auto edging = [&] { return plan(job).trims.lengthOf("edging").value; };
        QVERIFY2(std::abs(edging() - 1600) < 0.1, qPrintable(QString::number(edging())));
        job.surfaces.back().openings[0].place.fromSide = mm(0); // its lower edge is the wall's
        QVERIFY2(std::abs(edging() - 1100) < 0.1, qPrintable(QString::number(edging())));
    }

    /// Skirting round a door well of 500 x 184 where nothing stands runs for 684 that are not needed: said to be free,
    /// its edges have none.
    void aWellWithFreeEdgesHasNoSkirting() {
        Job job = box();
        job.catalogue.products.push_back(trim("skirting", Profile::Skirting));
        job.surfaces[0].measurement.steps = {{"Well", 1, mm(500), mm(184)}};
        const double with = plan(job).trims.lengthOf("skirting").value;
        job.surfaces[0].measurement.steps[0].edges = EdgeKind::Free;
        const double without = plan(job).trims.lengthOf("skirting").value;
        QVERIFY2(std::abs(with - without - 684) < 30, qPrintable(QString::number(with - without))); // and mitres
        QVERIFY(std::abs(with - 2 * (3000 + 1800)) < 30);
    }

    /// Skirting of another height in the garage only: what is said of an edge goes before its surface, that before its
    /// area, that before the table.
    void anAreaHasTrimsOfItsOwn() {
        Job job = box();
        job.catalogue.products.push_back(trim("low", Profile::Skirting));
        job.catalogue.products.push_back(trim("high", Profile::Skirting, {{"width", 60}}));
        job.surfaces[0].area.kind = AreaKind::Garage;
        job.surfaces[0].edges.resize(4);
        const auto product = [&](int side) { return only(plan(job), "floor", side).product; };
        QCOMPARE(product(0), std::string("low")); // the first of its profile
        job.areaTrims = {{{AreaKind::Living, {}}, EdgeMeeting::FloorAtWall, "high"}};
        QCOMPARE(product(0), std::string("low")); // another area's
        job.areaTrims[0].area.kind = AreaKind::Garage;
        QCOMPARE(product(0), std::string("high"));
        QCOMPARE(product(2), std::string("high"));
        job.surfaces[0].edges[2].trim = "low";
        QCOMPARE(product(2), std::string("low"));
        QVERIFY(only(plan(job), "floor", 2).overruled && !only(plan(job), "floor", 0).overruled);
        job.areaTrims[0].meeting = EdgeMeeting::CeilingAtWall; // other edges
        QCOMPARE(product(0), std::string("low"));
        job.areaTrims = {{{AreaKind::Garage, {}}, EdgeMeeting::FloorAtWall, std::string(kNoTrim)}};
        QVERIFY(runsOf(plan(job), "floor", 0).empty());
    }

    /// A corner drawn square and gauged at 100 degrees is cut at 50 from both sides, whichever of the two sides says
    /// so. Nothing is longer for it: inside corners are measured along the wall.
    void aGaugedCornerGoesBeforeTheDrawnOne() {
        Job job = box();
        job.catalogue.products.push_back(trim("low", Profile::Skirting));
        job.surfaces[0].edges.resize(4);
        const auto mitres = [&] {
            const Plan p = plan(job);
            return std::pair(only(p, "floor", 0).pieces.back().end.saw, only(p, "floor", 1).pieces.front().start.saw);
        };
        const auto [a, b] = mitres();
        const double drawn = std::max(a.mitreRad, a.bevelRad);
        QVERIFY(std::abs(drawn - 45 * kDegree) < 1e-6);
        for (const bool first : {true, false}) {
            job.surfaces[0].edges[0].endDeg = first ? std::optional(100.0) : std::nullopt;
            job.surfaces[0].edges[1].startDeg = first ? std::nullopt : std::optional(100.0);
            const auto [c, d] = mitres();
            QVERIFY(std::abs(std::max(c.mitreRad, c.bevelRad) - 40 * kDegree) < 1e-6); // (180 - 100) / 2
            QVERIFY(std::abs(std::max(d.mitreRad, d.bevelRad) - 40 * kDegree) < 1e-6);
            const TrimJoint joint = only(plan(job), "floor", 0).pieces.back().end;
            QVERIFY(std::abs(joint.planRad - 100 * kDegree) < 1e-9 && joint.crooked && joint.inside);
        }
        // The other corners are as they were.
        QVERIFY(!only(plan(job), "floor", 0).pieces.front().start.crooked);
    }

    /// A free edge's trim, 12 thick, ends at something that stands at 120 degrees: its front goes on by 12 tan 30
    /// = 6.93. At 60 its back is the longer one, and it is as long as the line.
    void anEndHasAnAngleOfItsOwn() {
        Job job = box();
        job.catalogue.products.push_back(trim("nose", Profile::DSection));
        Surface& shelf = add(job, "shelf", SurfaceKind::Shelf, 900, 300);
        shelf.edges.resize(4);
        shelf.edges[0].kind = EdgeKind::Free;
        const auto piece = [&] { return only(plan(job), "shelf", 0).pieces.front(); };
        QCOMPARE(piece().length, Mm{900});
        QVERIFY(piece().end.end == TrimEnd::Square);
        job.surfaces.back().edges[0].endDeg = 120;
        const double depth = 20; // it lies flat: as wide as it is
        QVERIFY(piece().end.end == TrimEnd::Angled);
        QVERIFY(std::abs(piece().end.saw.mitreRad - 30 * kDegree) < 1e-9);
        QVERIFY2(std::abs(piece().length.value - 900 - depth * std::tan(30 * kDegree)) < 1e-6,
                 std::to_string(piece().length.value).c_str());
        QVERIFY(piece().start.end == TrimEnd::Square);
        job.surfaces.back().edges[0].endDeg = 60;
        QVERIFY(std::abs(piece().length.value - 900) < 1e-6);
        job.surfaces.back().edges[0].endDeg = 90.5; // as good as square
        QVERIFY(piece().end.end == TrimEnd::Square);
        job.surfaces.back().edges[0].startDeg = 120;
        const Surface other = mirrored(job.surfaces.back());
        QCOMPARE(other.edges[0].endDeg, std::optional(120.0)); // mirrored, its ends change places
        QCOMPARE(other.edges[0].startDeg, std::optional(90.5));
    }

    /// Two panels on posts 600 apart with a cover strip 44 wide over their joint at 1700: each panel is held 15 in from
    /// its edge and 1 from the joint's middle, so the strip is drilled 16 to either side of it, at the heights of the
    /// panels' own fixings; and those holes of the panels are larger.
    void aStripIsDrilledOverItsPanelsHoles() {
        Job job = box();
        job.catalogue.products.push_back(trim("cover", Profile::CoverStrip, {{"width", 44}}));
        Surface& wall = add(job, "wall", SurfaceKind::LeftWall, 3600, 900);
        for (const double at : {500.0, 1100.0, 1700.0, 2300.0, 2900.0}) {
            Support s;
            s.name = "post";
            s.kind = SupportKind::Batten;
            s.position = mm(at);
            s.width = mm(60);
            wall.supports.push_back(s);
        }
        job.finishes["wall"].now().layers[0].rules["panelJoint"] = 2;
        job.catalogue.products[1].fields["length"] = 2440;
        const Plan p = plan(job);
        const TrimRun* strip = nullptr;
        for (const TrimRun& r : p.trims.runs)
            if (r.surface == "wall" && r.meeting == EdgeMeeting::PanelJoint) strip = &r;
        QVERIFY(strip && strip->pieces.size() == 1);
        const std::vector<Point>& drills = strip->pieces[0].drills;
        std::size_t under = 0;
        for (const Fixing& f : p.surface("wall")->faceLayer()->fixings)
            if (f.underStrip && f.place.holds) {
                ++under;
                QCOMPARE(std::abs(f.place.at.x - 1700), 16.0);
                QCOMPARE(drillFor(f), Mm{7.5});
            }
        QVERIFY(under >= 8);
        QCOMPARE(drills.size(), under);
        for (const Point& d : drills) QVERIFY(std::abs(std::abs(d.y) - 16) < 1e-6);
        // On the bar they lie where the strip has them, drilled to the screw.
        for (const CutProblem& problem : cutProblems(job, p))
            if (problem.product.id == "cover") {
                QCOMPARE(problem.pieces.size(), std::size_t{1});
                QCOMPARE(problem.pieces[0].drills.size(), under);
                QCOMPARE(problem.pieces[0].drills[0].diameter, Mm{4.5});
                for (const CutPiece::Drill& d : problem.pieces[0].drills)
                    QVERIFY(std::abs(std::abs(d.at.y - 22) - 16) < 1e-6);
            }
    }

    void equalLeansFollowTheBookFormula() {
        for (const double plan : {60.0, 90.0, 120.0})
            for (const double tilt : {40.0, 75.0, 90.0}) {
                const CornerSetting c = compoundMitre({plan * kDegree, tilt * kDegree, tilt * kDegree});
                QVERIFY(std::abs(std::tan(c.first.mitreRad) - std::cos(tilt * kDegree) / std::tan(plan * kDegree / 2)) <
                        1e-9);
                QVERIFY(std::abs(std::sin(c.first.bevelRad) - std::sin(tilt * kDegree) * std::cos(plan * kDegree / 2)) <
                        1e-9);
            }
        QCOMPARE(plainMitre(90 * kDegree), 45 * kDegree);
        QCOMPARE(plainMitre(270 * kDegree), 45 * kDegree);
    }

    /// Corners at which nothing turns, or which fold back on themselves, still give finite settings.
    void flatAndFoldedCorners() {
        for (const double plan : {0.0, 180.0, 360.0})
            for (const double t1 : {0.0, 60.0, 90.0, 180.0})
                for (const double t2 : {0.0, 90.0, 120.0}) {
                    const CornerSetting c = compoundMitre({plan * kDegree, t1 * kDegree, t2 * kDegree});
                    for (const SawSetting& s : {c.first, c.second})
                        QVERIFY(std::isfinite(s.mitreRad) && std::isfinite(s.bevelRad) && s.mitreRad >= 0);
                    QCOMPARE(c.widthRatio.has_value(), t1 != 0 && t1 != 180 && t2 != 0);
                }
        QVERIFY(compoundMitre({180 * kDegree, 90 * kDegree, 90 * kDegree}).first.square());
    }

    void aFillerNarrowsEvenly() {
        const Filler f = taperedFiller({1000}, {10}, {40}, {{0}, {500}, {1000}});
        QCOMPARE(f.wide, (std::vector<Mm>{{10}, {25}, {40}}));
        QVERIFY(std::abs(f.cutEdge.value - std::hypot(1000, 30)) < 1e-9);
        QVERIFY(std::abs(f.offcut.value - 0.015) < 1e-12); // half of 1000 x 30
    }

    /// 3000 x 1800 with an arch of 800 x 250 in side AB, one strip for all edges: inside corners are mitred within the
    /// edge's length, at the two outside corners of the arch each piece gains the strip's 12 mm.
    void aSkirtingGoesRoundTheFloorAndItsArch() {
        Job job = box();
        job.surfaces[0].measurement.notches = {notch(0, 1000, 800, 250)};
        job.catalogue.products.push_back(trim("skirt", Profile::Skirting));
        const Plan p = plan(job);
        std::multiset<double> lengths;
        for (const TrimRun& r : p.trims.runs)
            for (const TrimPiece& piece : r.pieces) lengths.insert(std::round(piece.length.value));
        QCOMPARE(lengths.count(1000), 1UL);
        QCOMPARE(lengths.count(1200), 1UL);
        QCOMPARE(lengths.count(262), 2UL);
        QCOMPARE(lengths.count(824), 1UL);
        QCOMPARE(lengths.count(1800), 2UL);
        // The far side is longer than the stock: two pieces, the first longer by the scarf.
        const TrimRun& far = only(p, "floor", 2);
        QCOMPARE(far.pieces.size(), 2UL);
        QVERIFY(std::abs((far.pieces[0].length + far.pieces[1].length).value - 3012) < 1e-6);
        QCOMPARE(far.pieces[0].end.end, TrimEnd::Scarfed);
        QVERIFY(!far.pieces[0].end.onSupport);
        // At the arch's outer corner the saw stands at 45 degrees upright: a bevel, no mitre.
        for (const TrimRun& r : p.trims.runs) {
            if (r.side >= 0 || r.length.value < 700) continue;
            QCOMPARE(r.pieces[0].start.end, TrimEnd::Mitred);
            QVERIFY(!r.pieces[0].start.inside);
            QVERIFY(std::abs(r.pieces[0].start.saw.bevelRad - 45 * kDegree) < 1e-9);
            QVERIFY(r.pieces[0].start.saw.mitreRad < 1e-9);
        }
        const auto all = cutProblems(job, p);
        QVERIFY(std::any_of(all.begin(), all.end(), [&](const CutProblem& c) {
            return c.product.id == "skirt" && c.pieces.size() == lengths.size();
        }));
    }

    void theTableChoosesByWhatMeets() {
        Job job = box();
        for (int k = 0; k < kProfiles; ++k)
            job.catalogue.products.push_back(trim("t" + std::to_string(k), static_cast<Profile>(k)));
        add(job, "wall", SurfaceKind::LeftWall, 3000, 1200);
        add(job, "door", SurfaceKind::RearDoor, 1800, 1500, false);
        add(job, "ceiling", SurfaceKind::Ceiling, 3000, 1800);
        add(job, "wet", SurfaceKind::WetCellWall, 800, 1800);
        add(job, "arch", SurfaceKind::ArchTop, 800, 250);
        add(job, "archface", SurfaceKind::ArchFace, 800, 300);
        meet(job.surfaces, "floor", 2, "wall", 0);
        meet(job.surfaces, "floor", 3, "door", 0);
        meet(job.surfaces, "wall", 2, "ceiling", 0);
        meet(job.surfaces, "wall", 1, "wet", 3);
        meet(job.surfaces, "arch", 0, "archface", 2);
        for (Surface& s : job.surfaces) {
            s.edges.resize(4);
            if (s.id == "ceiling") s.edges[1].kind = EdgeKind::Free;
            if (s.id == "wet") s.edges[1].kind = EdgeKind::DoorReveal;
            if (s.id == "archface") s.edges[0].kind = EdgeKind::UnderTrim;
        }
        const Plan p = plan(job);
        QCOMPARE(only(p, "floor", 2).profile, Profile::Skirting);
        QCOMPARE(only(p, "floor", 2).neighbour, std::string("wall"));
        QCOMPARE(only(p, "floor", 3).profile, Profile::Threshold);
        QCOMPARE(only(p, "floor", 0).profile, Profile::Skirting); // nothing said: a floor ends at something upright
        QCOMPARE(only(p, "ceiling", 0).profile, Profile::Quadrant);
        QCOMPARE(only(p, "ceiling", 1).profile, Profile::DSection);
        QCOMPARE(only(p, "wall", 1).profile, Profile::SealantBead);
        QCOMPARE(only(p, "wet", 1).profile, Profile::PushOnEdging);
        QCOMPARE(only(p, "arch", 0).profile, Profile::Angle);
        QCOMPARE(only(p, "archface", 0).profile, Profile::CoverStrip);
        // A shared edge is trimmed once, whoever was listed first.
        QVERIFY(runsOf(p, "wall", 0).empty() && runsOf(p, "wall", 2).empty() && runsOf(p, "wet", 3).empty());
        QCOMPARE(only(p, "floor", 3).product, std::string("t5"));
    }

    void whatIsSaidOfAnEdgeGoesBeforeTheSurfaceAndTheTable() {
        Job job = box();
        job.catalogue.products.push_back(trim("skirt", Profile::Skirting));
        job.catalogue.products.push_back(trim("strip", Profile::CoverStrip));
        job.surfaces[0].edges.resize(4);
        job.surfaces[0].edges[1].trim = "strip";
        job.surfaces[0].edges[2].trim = kNoTrim;
        Plan p = plan(job);
        QCOMPARE(only(p, "floor", 0).product, std::string("skirt"));
        QCOMPARE(only(p, "floor", 1).product, std::string("strip"));
        QVERIFY(only(p, "floor", 1).overruled);
        QVERIFY(runsOf(p, "floor", 2).empty());
        job.finishes["floor"].now().trim = "strip";
        p = plan(job);
        QCOMPARE(only(p, "floor", 0).product, std::string("strip"));
        job.finishes["floor"].now().trim = kNoTrim;
        p = plan(job);
        QVERIFY(runsOf(p, "floor", 0).empty());
        QCOMPARE(only(p, "floor", 1).product, std::string("strip"));
    }

    /// A wall that leans 200 mm in over its 1200 tilts the skirting on it: the cut at its corner follows.
    void leaningWallsTiltTheSaw() {
        Job job = box();
        job.catalogue.products.push_back(trim("skirt", Profile::Skirting));
        add(job, "left", SurfaceKind::LeftWall, 3000, 1200).lean = mm(200);
        add(job, "rear", SurfaceKind::Bulkhead, 1800, 1200);
        meet(job.surfaces, "floor", 2, "left", 0);
        meet(job.surfaces, "floor", 1, "rear", 0);
        const Plan p = plan(job);
        const TrimPiece& rear = only(p, "floor", 1).pieces.back();
        const double tilt = std::acos(200.0 / 1200);
        const CornerSetting book = compoundMitre({90 * kDegree, 90 * kDegree, tilt});
        QCOMPARE(rear.end.end, TrimEnd::Mitred);
        QVERIFY(std::abs(rear.end.saw.mitreRad - book.first.mitreRad) < 1e-9);
        QVERIFY(std::abs(only(p, "floor", 2).pieces[0].start.saw.bevelRad - book.second.bevelRad) < 1e-9);
        // Leaning away, the other long edge is the longer one, and the piece gains by it.
        job.surfaces[1].leansOut = true;
        const TrimPiece out = only(plan(job), "floor", 1).pieces.back();
        QCOMPARE(out.end.saw.longEdge, LongEdge::Top);
        QVERIFY(std::abs((out.length - rear.length).value - 20 * std::tan(out.end.saw.mitreRad)) < 1e-6);
    }

    void cornersAreCopedButtedOrBlockedAsTheTrimSays() {
        Job job = box();
        job.catalogue.products.push_back(trim("skirt", Profile::Skirting, {{"inside", 1}}));
        const auto ends = [&](double inside) {
            job.catalogue.products.back().fields["inside"] = inside;
            const Plan p = plan(job);
            const TrimPiece& piece = only(p, "floor", 1).pieces.front();
            return std::tuple(piece.start.end, piece.end.end, piece.length.value);
        };
        QCOMPARE(ends(0), std::tuple(TrimEnd::Mitred, TrimEnd::Mitred, 1800.0));
        QCOMPARE(ends(1), std::tuple(TrimEnd::Coped, TrimEnd::Butted, 1800.0));
        QCOMPARE(ends(2), std::tuple(TrimEnd::Butted, TrimEnd::Butted, 1788.0));   // stops at the first one's face
        QCOMPARE(ends(3), std::tuple(TrimEnd::Blocked, TrimEnd::Blocked, 1760.0)); // a block 20 wide at either end
    }

    void aSkirtingStopsAtADoorwayOfTheWall() {
        // The wall's foot is 3000 long and meets the floor's side 2; its doorway begins 400 from its left end and is
        // 700 wide. On the floor, which owns the edge and runs the other way, 1900 and 400 are left, whoever is listed
        // first.
        for (const bool wallFirst : {false, true}) {
            Job job = box();
            job.catalogue.products.push_back(trim("skirt", Profile::Skirting));
            Surface& wall = add(job, "wall", SurfaceKind::LeftWall, 3000, 1500);
            Opening door;
            door.name = "Doorway";
            door.place.side = 0;
            door.place.fromSide = mm(0);
            door.place.fromCross = mm(400);
            door.width = mm(700);
            door.height = mm(1200);
            wall.openings.push_back(door);
            wall.edges.resize(4);
            wall.edges[0] = {EdgeKind::Meets, "floor", 2, {}, {}, {}};
            job.surfaces[0].edges.resize(4);
            job.surfaces[0].edges[2] = {EdgeKind::Meets, "wall", 0, {}, {}, {}};
            if (wallFirst) std::reverse(job.surfaces.begin(), job.surfaces.end());
            const Plan p = plan(job);
            std::multiset<double> lengths;
            for (const TrimRun* r : runsOf(p, "floor", 2)) lengths.insert(std::round(r->length.value));
            QVERIFY2((lengths == std::multiset<double>{400, 1900}),
                     qPrintable(QString::number(lengths.size()) + QStringLiteral(" runs")));
        }
    }

    void runsBreakAtOpeningsAndJoinOnSupports() {
        Job job = box();
        job.catalogue.products.push_back(trim("strip", Profile::CoverStrip));
        Surface& wall = add(job, "wall", SurfaceKind::LeftWall, 5000, 1200);
        wall.edges.resize(4);
        wall.edges[2].kind = EdgeKind::UnderTrim;
        Opening o;
        o.place.side = 0;
        o.place.fromSide = mm(900);
        o.place.fromCross = mm(3000);
        o.width = mm(600);
        o.height = mm(300); // up to the upper edge
        wall.openings.push_back(o);
        wall.supports = {{"rib", SupportKind::Rib, false, mm(700), mm(40), 4, mm(700), {}}};
        job.finishes["floor"].now().trim = kNoTrim;
        const Plan p = plan(job);
        const auto runs = runsOf(p, "wall", 2);
        QCOMPARE(runs.size(), 2UL);
        double total = 0;
        for (const TrimRun* r : runs) total += r->length.value;
        QVERIFY(std::abs(total - 4400) < 1e-6);
        // 3000 of the longer part from 2400 lengths: joined on the rib at 2100 or 1400 from its end, never in the air.
        const TrimRun& longer = runs[0]->length > runs[1]->length ? *runs[0] : *runs[1];
        QVERIFY(longer.pieces.size() >= 2);
        for (std::size_t k = 1; k < longer.pieces.size(); ++k) QVERIFY(longer.pieces[k].start.onSupport);
    }

    void aGapThatWidensIsFilled() {
        Job job = box();
        job.catalogue.products.push_back(trim("strip", Profile::CoverStrip));
        job.surfaces[0].edges.resize(4);
        job.surfaces[0].edges[1] = {
            .kind = EdgeKind::UnderTrim, .allowance = mm(8), .gapAtEnd = mm(20), .trim = "strip"};
        const Plan p = plan(job);
        const TrimRun& run = only(p, "floor", 1);
        QVERIFY(run.filler);
        QCOMPARE(run.filler->wide.front(), Mm{8});
        QCOMPARE(run.filler->wide.back(), Mm{20});
    }

    void stiffTrimsDoNotBendAndSoftOnesOnlySoFar() {
        Job job = box();
        Measurement m;
        m.form = OutlineForm::Stations;
        m.stations.rows = {{mm(0), mm(600), {}},
                           {mm(300), mm(780), {}},
                           {mm(600), mm(820), {}},
                           {mm(900), mm(780), {}},
                           {mm(1200), mm(600), {}}};
        job.surfaces[0].measurement = m;
        const auto kinds = [&](double radius) {
            job.catalogue.products.resize(2);
            job.catalogue.products.push_back(trim("skirt", Profile::Skirting, {{"leastRadius", radius}}));
            std::set<RemarkKind> all;
            for (const Remark& r : plan(job).trims.remarks) all.insert(r.kind);
            return all;
        };
        QVERIFY(kinds(0).contains(RemarkKind::TrimTooStiff));
        QVERIFY(kinds(2500).contains(RemarkKind::TrimBendTooTight));
        QVERIFY(kinds(50).empty());
    }

    /// Both pieces of a corner are told the same corner; what is mitred or coped on one side is not square on the other
    /// unless it runs through; whatever stands round the floor, and however it leans.
    void bothPiecesOfACornerAgree() {
        std::mt19937 dice(17);
        int corners = 0;
        for (int round = 0; round < 40; ++round) {
            Job job = jobWith(anyFloor(dice), plankProduct(1220, 180, 10, 4000), {});
            job.catalogue.products.push_back(panel());
            job.catalogue.products.push_back(
                trim("skirt", Profile::Skirting, {{"inside", dice() % 2}, {"outside", 0}}));
            for (int side = 0; side < 4; ++side) {
                const std::string id = "wall" + std::to_string(side);
                Surface& s = add(job, id, SurfaceKind::LeftWall, 2000, 1100 + dice() % 300, dice() % 2 == 0);
                if (dice() % 2) s.lean = mm(dice() % 250);
                s.leansOut = dice() % 2 == 0;
                meet(job.surfaces, "floor", side, id, 0);
            }
            const Plan p = plan(job);
            for (std::size_t r = 0; r < p.trims.runs.size(); ++r) {
                const TrimJoint& end = p.trims.runs[r].pieces.back().end;
                if (end.run < 0) continue;
                const TrimRun& next = p.trims.runs[static_cast<std::size_t>(end.run)];
                const TrimJoint& start = next.pieces.front().start;
                ++corners;
                QCOMPARE(start.run, static_cast<int>(r));
                QVERIFY(std::abs(start.planRad - end.planRad) < 1e-9);
                QCOMPARE(start.inside, end.inside);
                QVERIFY(distance(start.at, end.at) < 1e-6);
                if (end.end == TrimEnd::Mitred) {
                    QCOMPARE(start.end, TrimEnd::Mitred);
                    QVERIFY(std::abs(start.saw.bevelRad - end.saw.bevelRad) < 1e-9);
                } else {
                    QCOMPARE(end.end, TrimEnd::Butted);
                    QCOMPARE(start.end, TrimEnd::Coped);
                    QVERIFY(end.saw.square());
                }
            }
        }
        QVERIFY(corners > 150);
    }

    /// Openings with bound edges and reveals, and joints under cover strips, are runs of their own.
    void openingsAndPanelJointsAreClosed() {
        Job job = box();
        job.catalogue.products.push_back(trim("bound", Profile::BoundEdge, {{"length", 10000}, {"leastRadius", 5}}));
        job.catalogue.products.push_back(
            trim("edging", Profile::PushOnEdging, {{"length", 10000}, {"leastRadius", 5}}));
        job.catalogue.products.push_back(trim("strip", Profile::CoverStrip));
        Surface& wall = add(job, "wall", SurfaceKind::LeftWall, 4000, 1000);
        job.finishes["wall"].now().layers[0].rules = {{"panelJoint", 2}};
        job.finishes["floor"].now().trim = kNoTrim;
        for (const OpeningEdge edge : {OpeningEdge::Bound, OpeningEdge::Reveal, OpeningEdge::TrimRing}) {
            Opening o;
            o.place.fromSide = mm(300);
            o.place.fromCross = mm(300 + 900 * static_cast<int>(edge));
            o.width = mm(400);
            o.height = mm(250);
            o.edge = edge;
            wall.openings.push_back(o);
        }
        const Plan p = plan(job);
        std::multiset<std::string> products;
        for (const TrimRun& r : p.trims.runs) {
            products.insert(r.product);
            if (r.product == "bound" || r.product == "edging") QVERIFY(std::abs(r.length.value - 1300) < 0.01);
            if (r.product == "strip") QVERIFY(std::abs(r.length.value - 1000) < 10);
        }
        QCOMPARE(products.count("bound"), 1UL);
        QCOMPARE(products.count("edging"), 1UL); // the ring of the third comes with its window
        QCOMPARE(products.count("strip"), p.surface("wall")->setOut().joints.size());
        QVERIFY(products.count("strip") >= 1);
        // Their steps come with the surface: what is run on, what is sawn.
        std::set<StepKind> kinds;
        for (const FitStep& s : p.surface("wall")->steps) kinds.insert(s.kind);
        QVERIFY(kinds.contains(StepKind::FitEdging) && kinds.contains(StepKind::FitTrim));
    }

    void whatCannotBeTrimmedIsTold() {
        Job job = box();
        Plan p = plan(job);
        QVERIFY(std::any_of(p.trims.remarks.begin(), p.trims.remarks.end(),
                            [](const Remark& r) { return r.kind == RemarkKind::TrimProfileMissing; }));
        // Stock of nothing but its squared ends.
        job.catalogue.products.push_back(trim("skirt", Profile::Skirting, {{"length", 100}, {"endTrim", 45}}));
        p = plan(job);
        QVERIFY(std::any_of(p.trims.remarks.begin(), p.trims.remarks.end(),
                            [](const Remark& r) { return r.kind == RemarkKind::TrimStockTooShort; }));
        // An edge that meets a surface which is gone, and one of a surface that was never measured.
        job.surfaces[0].edges.resize(4);
        job.surfaces[0].edges[0] = {.kind = EdgeKind::Meets, .surface = "gone", .side = 9};
        QVERIFY(runsOf(plan(job), "floor", 0).empty());
    }

    /// Round any floor with arches and wells, whatever the corners are made like, the runs make up the outline, and no
    /// piece is longer than its stock gives.
    void runsMakeUpTheOutline() {
        std::mt19937 dice(21);
        int laid = 0;
        for (int round = 0; round < 40; ++round) {
            Job job = jobWith(anyFloor(dice), plankProduct(1220, 180, 10, 4000), {});
            job.catalogue.products.push_back(
                trim("skirt", Profile::Skirting, {{"inside", dice() % 4}, {"outside", dice() % 4}}));
            const Plan p = plan(job);
            const SurfacePlan& s = *p.surface("floor");
            if (!s.measured.measured()) continue;
            ++laid;
            double total = 0, skipped = 0;
            for (const TrimRun& r : p.trims.runs) {
                total += r.length.value;
                double path = 0;
                for (const TrimPiece& piece : r.pieces) {
                    QVERIFY(piece.length.value <= 2400 + 1e-6 && piece.length.value > 0);
                    for (std::size_t i = 1; i < piece.path.size(); ++i)
                        path += distance(piece.path[i - 1], piece.path[i]);
                }
                QVERIFY(std::abs(path - r.length.value) < 0.01);
            }
            const Ring& ring = s.measured.outline.rings.front();
            for (std::size_t i = 0; i < ring.size(); ++i)
                if (const double edge = distance(ring[i], ring[(i + 1) % ring.size()]); edge < 30) skipped += edge;
            QVERIFY2(std::abs(total - perimeter(ring)) <= skipped + 0.5,
                     qPrintable(QStringLiteral("round %1: %2 of %3").arg(round).arg(total).arg(perimeter(ring))));
        }
        QVERIFY(laid > 20);
    }
};

WESTRUM_TEST(EdgeTrimsTest)
#include "edge_trims_test.moc"
