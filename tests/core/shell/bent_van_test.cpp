#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/plan.h"
#include "core/setout/edge_trims.h"
#include "core/shell/datum.h"
#include "core/shell/holes.h"
#include "core/shell/unfold.h"
#include "tests/support/crooked_van.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <numbers>

using namespace westrum;
using namespace westrum::test;

namespace {

bool near(double a, double b, double by) { return std::abs(a - b) <= by; }

/// 4000 x 1800 on the floor, walls 1900 high, and a roof that is bowed by 60 over its 1800: its radius is
/// (900^2 + 60^2) / 120 = 6780, it turns by 4 atan(120 / 1800) = 0.26627, and is 1805.33 long.
struct BowedVan : CrookedVan {
    explicit BowedVan(std::mt19937& dice) : CrookedVan(dice, 0, 0) {
        const auto size = [&](std::size_t i, double a, double b) {
            const double d = std::hypot(a, b);
            surfaces[i].measurement.readings = {mm(a), mm(b), mm(a), mm(b), Reading{{}, {d}}, Reading{{}, {d}}};
        };
        size(0, 4000, 1800);
        size(2, 4000, 1900);
        size(3, 4000, 1900);
        size(4, 1800, 1900);
        size(5, 1800, 1900);
        Measurement roof;
        roof.form = OutlineForm::Rectangle;
        roof.readings[0] = mm(4000);
        roof.curve = {Curving::Single, {{mm(1800), mm(60)}}, {}, {}};
        surfaces[1].measurement = roof;
    }
    Headroom headroom;
    [[nodiscard]] FoldUp closed() {
        outlines.clear();
        for (const Surface& s : surfaces) outlines.push_back(outlineOf(s.measurement));
        return foldUp(tied(), headroom);
    }
    [[nodiscard]] std::vector<TiedSurface> tied() const {
        std::vector<TiedSurface> all;
        for (std::size_t i = 0; i < surfaces.size(); ++i) all.push_back({&surfaces[i], &outlines[i]});
        return all;
    }
};

bool isNamed(const FoldUp& fold, const std::string& surface, const std::string& key) {
    for (std::size_t k = 0; k < std::min(fold.suspects.size(), kMostNamed); ++k)
        if (fold.suspects[k].surface == surface && fold.suspects[k].key == key) return true;
    return false;
}

QString told(const FoldUp& fold) {
    QString all;
    for (const VanSuspect& s : fold.suspects)
        all += QStringLiteral("%1 %2 off by %3; ")
                   .arg(QString::fromStdString(s.surface), QString::fromStdString(s.key))
                   .arg(s.slip().value);
    return all + (fold.proved ? QStringLiteral("proved") : QString());
}

Opening hole(const std::string& name, double across, double up, double width, double height) {
    Opening o;
    o.name = o.hole = name;
    o.place = {.side = 0, .fromSide = mm(up), .cross = 3, .fromCross = mm(across)};
    o.width = mm(width);
    o.height = mm(height);
    return o;
}

} // namespace

class BentVanTest : public QObject {
    Q_OBJECT

private slots:
    void aBowedRoofStandsInStrips() {
        std::mt19937 dice(1);
        BowedVan van(dice);
        const FoldUp fold = van.closed();
        QVERIFY2(fold.suspects.empty(), qPrintable(told(fold)));
        QVERIFY2(fold.corners.front().gap.value < 0.1, qPrintable(QString::number(fold.corners.front().gap.value)));
        const Pose& roof = *fold.poses[1];
        const double arc = 6780 * 4 * std::atan(120.0 / 1800);
        // Its middle stands 60 over the walls; a quarter across, 450 from the middle, root(6780^2 - 450^2) - 6720 =
        // 45.05 over them.
        const VanPoint middle = roof.map({2000, arc / 2});
        QVERIFY(near(middle.x, 2000, 0.2) && near(middle.y, 900, 0.2) && near(middle.z, 1960, 0.2));
        const auto quarter = roof.at(1000, 450);
        QVERIFY(quarter.has_value());
        QVERIFY2(near(roof.map(*quarter).z, 1945.05, 0.2), qPrintable(QString::number(roof.map(*quarter).z)));
        // It meets its walls at a right angle and half of its turn: 97.6 degrees.
        for (const Hinge& h : fold.hinges)
            if (h.surface == "ceiling" && (h.side == 0 || h.side == 2))
                QVERIFY2(near(h.angleRad, std::numbers::pi / 2 + 0.1331, 0.004),
                         qPrintable(QString::number(h.angleRad)));
        QVERIFY(near(roof.facing({2000, arc / 2}).z, -1, 1e-4)); // straight down in its middle
    }

    void aFigureOfTheBowIsToldRatherThanTheWalls() {
        std::mt19937 dice(2);
        BowedVan van(dice);
        // The chord typed as 1840: the roof would be 40 wider than the tops of bulkhead and rear.
        van.surfaces[1].measurement.curve.parts[0].length = mm(1840);
        FoldUp fold = van.closed();
        QVERIFY2(!fold.suspects.empty() && fold.suspects[0].key == "p0", qPrintable(told(fold)));
        QVERIFY2(near(fold.suspects[0].implied.value, 1800, 3), qPrintable(told(fold)));
        // The rise typed as 160 tells itself by the bare height under it: 1960, not 2060.
        van.surfaces[1].measurement.curve.parts[0] = {mm(1800), mm(160)};
        van.headroom = {mm(1960), mm(1960), mm(1960), {}};
        fold = van.closed();
        QVERIFY2(isNamed(fold, "ceiling", "h0"), qPrintable(told(fold)));
        // And one bare height of three that is 90 off is told as what it is.
        van.surfaces[1].measurement.curve.parts[0] = {mm(1800), mm(60)};
        van.headroom = {mm(1960), mm(2050), mm(1960), {}};
        fold = van.closed();
        QVERIFY2(!fold.suspects.empty() && fold.suspects[0].key == kHeadroomMiddle, qPrintable(told(fold)));
        QVERIFY2(near(fold.suspects[0].slip().value, 90, 4), qPrintable(told(fold)));
    }

    /// A height over the floor is a reading like others: typed 60 too high, it is named, not the tapes around it.
    void aHeightIsAReadingToo() {
        std::mt19937 dice(3);
        BowedVan van(dice);
        van.surfaces[2].heightRear = van.surfaces[2].heightFront = mm(0);
        van.surfaces[3].heightRear = mm(60);
        van.surfaces[3].heightFront = mm(0);
        const FoldUp fold = van.closed();
        QVERIFY2(!fold.suspects.empty() && fold.suspects[0].surface == "right" && fold.suspects[0].key == "heightRear",
                 qPrintable(told(fold)));
    }

    /// A wall of straight 1200, then an arc of chord 500 and rise 50 towards the roof: the datum 1400 over the floor
    /// crosses it on the arc, higher up along it than plumb. By hand: R = (250^2 + 50^2) / 100 = 650, the arc turns by
    /// 4 atan(0.2) = 0.789582; from where it begins it rises R sin(t): sin(t) = 200 / 650, t = 0.312748, along it
    /// 203.286.
    void theDatumGoesUpTheStrips() {
        std::mt19937 dice(4);
        BowedVan van(dice);
        van.surfaces.erase(van.surfaces.begin() + 3, van.surfaces.end());
        van.surfaces.erase(van.surfaces.begin() + 1);
        for (Surface& s : van.surfaces)
            for (Edge& e : s.edges)
                if (e.surface != "floor" && e.surface != "left") e = {};
        Surface& left = van.surfaces[1];
        left.measurement.form = OutlineForm::Rectangle;
        left.measurement.readings = {mm(4000)};
        left.measurement.curve = {Curving::Single, {{mm(1200), {}}, {mm(500), mm(50)}}, {}, {}};
        const double turn = 4 * std::atan(0.2), arc = 650 * turn;
        // Where its upper edge stands inside of its foot: R (1 - cos).
        left.lean = Reading{{}, {650 * (1 - std::cos(turn))}};
        const FoldUp fold = van.closed();
        QVERIFY(fold.poses[1].has_value());
        const Datum datum{mm(1400), mm(1400)};
        const FloorFrame frame = floorFrameOf(van.tied(), fold);
        const auto line = datumOn(left, van.outlines[1], datum, frame);
        QVERIFY(line.has_value());
        const double by = 1200 + 650 * std::asin(200.0 / 650);
        QVERIFY2(near(line->left.y, by, 1) && near(line->right.y, by, 1), qPrintable(QString::number(line->left.y)));
        QVERIFY(near(fold.poses[1]->map({1000, line->left.y}).z, 1400, 1));
        QVERIFY(near(fold.poses[1]->map({1000, 1200 + arc}).z, 1200 + 650 * std::sin(turn), 1));
    }

    /// A bulkhead with door, window and flap, measured from the living side and from the cab: seen from there, left is
    /// right. What is 40 off from one side is named by itself.
    void aHoleIsSeenFromBothSides() {
        std::mt19937 dice(5);
        BowedVan van(dice);
        Surface cab = van.surfaces[4];
        cab.id = cab.name = "cab";
        for (Edge& e : cab.edges) e = {};
        van.surfaces[4].openings = {hole("door", 200, 100, 600, 1500), hole("window", 1000, 900, 500, 400),
                                    hole("flap", 1100, 200, 300, 250)};
        cab.openings = {hole("window", 1800 - 1500, 900, 500, 400), hole("flap", 1800 - 1400, 200, 300, 250),
                        hole("door", 1800 - 800, 100, 600, 1500)};
        van.surfaces.push_back(cab);
        FoldUp fold = van.closed();
        QVERIFY2(fold.suspects.empty() && holeRemarks(van.tied()).empty(), qPrintable(told(fold)));
        // It hangs behind the bulkhead and looks the other way.
        QVERIFY(fold.poses[6] && near(fold.poses[6]->inwards.x, 1, 1e-3));
        QVERIFY(near(length(fold.poses[6]->map({0, 0}) - fold.poses[4]->map({1800, 0})), 0, 1));

        Opening& window = van.surfaces[6].openings[0];
        window.place.fromCross = mm(340);
        fold = van.closed();
        QVERIFY2(!fold.suspects.empty() && fold.suspects[0].slip().value > 0, qPrintable(told(fold)));
        QVERIFY2(isNamed(fold, "cab", "o0.cross") && near(fold.suspects[0].slip().value, 40, 3),
                 qPrintable(told(fold)));
        window.place.fromCross = mm(300);
        // A door of 600 that is 630 from the other side: nobody can say which, but that they differ.
        van.surfaces[6].openings[2].width = mm(630);
        van.surfaces[6].openings[2].place.fromCross = mm(1800 - 815);
        std::ignore = van.closed();
        const std::vector<Remark> remarks = holeRemarks(van.tied());
        QCOMPARE(remarks.size(), std::size_t{1});
        QVERIFY(remarks[0].kind == RemarkKind::HoleSidesDiffer && remarks[0].place.surface == "bulkhead");
        // Dimensioned from an upright side its width is the other one's height: no difference.
        Opening& flap = van.surfaces[6].openings[1];
        flap.place = {.side = 3, .fromSide = mm(400), .cross = 0, .fromCross = mm(200)};
        std::swap(flap.width, flap.height);
        van.surfaces[6].openings[2] = hole("door", 1800 - 800, 100, 600, 1500);
        fold = van.closed();
        QVERIFY2(fold.suspects.empty() && holeRemarks(van.tied()).empty(), qPrintable(told(fold)));
    }

    /// In whatever order the surfaces stand in the job, they stand in the van alike, and the same reading is named.
    void orderDoesNotMatter() {
        std::mt19937 dice(9);
        CrookedVan van(dice, 15, 2, 60);
        Reading& wrong = *van.surfaces[4].measurement.readings[2];
        wrong.length = wrong.length + Mm{70};
        const FoldUp fold = van.folded();
        CrookedVan shuffled = van;
        std::shuffle(shuffled.surfaces.begin(), shuffled.surfaces.end(), dice);
        const FoldUp other = shuffled.folded();
        for (std::size_t i = 0; i < van.surfaces.size(); ++i)
            for (std::size_t k = 0; k < van.surfaces.size(); ++k) {
                if (shuffled.surfaces[k].id != van.surfaces[i].id) continue;
                for (const Point own : {Point{0, 0}, Point{700, 400}})
                    QVERIFY2(length(fold.poses[i]->map(own) - other.poses[k]->map(own)) < 0.05,
                             van.surfaces[i].id.c_str());
                QVERIFY(near(fold.poses[i]->leanErrorRad, other.poses[k]->leanErrorRad, 1e-5));
            }
        QVERIFY(!fold.suspects.empty() && fold.suspects.size() == other.suspects.size());
        QCOMPARE(other.suspects[0].surface, fold.suspects[0].surface);
        QCOMPARE(other.suspects[0].key, fold.suspects[0].key);
        QVERIFY(near(other.suspects[0].implied.value, fold.suspects[0].implied.value, 0.05));
    }

    void aKeySaysWhichOpeningItIsOf() {
        QCOMPARE(openingOfKey("o12.width"), std::optional(std::size_t{12}));
        for (const char* other : {"o", "o.width", "o1", "offset", "n0.depth", "AB", "o-1.width", ""})
            QVERIFY2(!openingOfKey(other), other);
    }

    void holesThatLieApartDifferentlyAreTold() {
        // Two free panels that stand nowhere: a window 1000 from a flap here, 960 there.
        Surface here = van4(1800), there = van4(1800);
        here.id = "here", there.id = there.name = "there";
        here.openings = {hole("window", 200, 500, 300, 300), hole("flap", 1200, 500, 300, 300)};
        there.openings = {hole("window", 1300, 500, 300, 300), hole("flap", 340, 500, 300, 300)};
        const MeasuredOutline outline = outlineOf(here.measurement);
        const std::vector<TiedSurface> tied{{&here, &outline}, {&there, &outline}};
        const std::vector<Remark> remarks = holeRemarks(tied);
        QCOMPARE(remarks.size(), std::size_t{1});
        QVERIFY(remarks[0].kind == RemarkKind::HolesApartDiffer);
        there.openings[1].place.fromCross = mm(300);
        QVERIFY(holeRemarks(tied).empty());
        there.openings[1].hole.clear(); // its own hole, and nothing to compare
        there.openings[1].place.fromCross = mm(900);
        QVERIFY(holeRemarks(tied).empty());
    }

    /// Unfolded by where they stand, the sides of a true box lie on each other as they do by their lengths alone.
    void theMapIsTheVanLaidFlat() {
        std::mt19937 dice(6);
        BowedVan van(dice);
        const FoldUp fold = van.closed();
        std::vector<Flap> byPose, byLength;
        for (std::size_t i = 0; i < van.surfaces.size(); ++i) {
            byPose.push_back(flapOf(van.surfaces[i], van.outlines[i], &*fold.poses[i]));
            byLength.push_back(flapOf(van.surfaces[i], van.outlines[i]));
        }
        const std::vector<Unfolded> posed = unfold(byPose, 1.6), plain = unfold(byLength, 1.6);
        for (std::size_t i = 0; i < posed.size(); ++i)
            for (const Point& p : byPose[i].frame)
                QVERIFY2(distance(posed[i].map(p), plain[i].map(p)) < 1, qPrintable(QString::number(i)));
        // A wall typed 30 shorter at its foot hangs where it stands, not in the middle of the floor's side.
        van.surfaces[2].measurement.readings[0] = mm(3970);
        van.surfaces[2].measurement.readings[4] = Reading{{}, {std::hypot(3970, 1900)}};
        const FoldUp other = van.closed();
        const Flap wall = flapOf(van.surfaces[2], van.outlines[2], &*other.poses[2]),
                   floor = flapOf(van.surfaces[0], van.outlines[0], &*other.poses[0]);
        const std::vector<Unfolded> places = unfold({floor, wall}, 1.6);
        const VanPoint stands = other.poses[2]->map({0, 0});
        QVERIFY(near(places[1].map({0, 0}).x, places[0].map({stands.x, stands.y}).x, 0.5));
    }

    /// A wall whose top stands 190 inside over 1900 along it carries its trim by acos(0.1) from level, without anybody
    /// having read the lean.
    void theSawFollowsHowTheWallsStand() {
        std::mt19937 dice(7);
        BowedVan van(dice);
        van.surfaces[1].measurement.curve.parts[0].length = mm(1800 - 2 * 190);
        for (const std::size_t end : {std::size_t{4}, std::size_t{5}}) { // bulkhead and rear: narrower at the top
            const double high = std::sqrt(1900.0 * 1900 - 190 * 190);
            van.surfaces[end].measurement.readings = {mm(1800),
                                                      mm(1900),
                                                      mm(1420),
                                                      mm(1900),
                                                      Reading{{}, {std::hypot(1610, high)}},
                                                      Reading{{}, {std::hypot(1610, high)}}};
        }
        const FoldUp fold = van.closed();
        QVERIFY2(fold.suspects.empty(), qPrintable(told(fold)));
        const TrimSurface wall{.surface = &van.surfaces[2], .measured = &van.outlines[2], .pose = &*fold.poses[2]};
        QVERIFY2(near(tiltOf(wall, 0), std::acos(0.1), 0.002), qPrintable(QString::number(tiltOf(wall, 0))));
        QVERIFY(
            near(tiltOf({.surface = &van.surfaces[2], .measured = &van.outlines[2]}, 0), std::numbers::pi / 2, 1e-9));
        // With nothing but the floor to hang on nobody knows how it leans, and no saw is set by a guess.
        BowedVan bare(dice);
        bare.loosen("ceiling");
        bare.loosen("bulkhead");
        bare.loosen("rear");
        const FoldUp guess = bare.closed();
        QVERIFY(fold.poses[2]->leanErrorRad < 0.005 && guess.poses[2]->leanErrorRad > 0.025);
        Pose leaning = *guess.poses[2];
        leaning.inwards = unit(leaning.inwards + VanPoint{0, 0, -0.2});
        QCOMPARE(tiltOf({.surface = &bare.surfaces[2], .measured = &bare.outlines[2], .pose = &leaning}, 0),
                 std::numbers::pi / 2);
        for (const Hinge& h : guess.hinges) QVERIFY(h.errorRad > 0.02);
        for (const Hinge& h : fold.hinges)
            if (h.surface == "floor") QVERIFY(h.errorRad < 0.006);
        // Plumb to within what a tape can tell is plumb.
        QVERIFY(tiltOf({.surface = &van.surfaces[4], .measured = &van.outlines[4], .pose = &*fold.poses[4]}, 0) ==
                std::numbers::pi / 2);
    }

    /// Under a roof bowed by 60 over walls of 1900 somebody of 1900 with 20 of air can stand where it is 1920 high and
    /// more: within root(6780^2 - (6720 + 20)^2) = 735 of the middle, 1470 of 1800.
    void whereOneCanStandFollowsTheRoof() {
        std::mt19937 dice(8);
        BowedVan van(dice);
        Job job;
        job.surfaces = van.surfaces;
        job.headroom.person = mm(1900);
        const Plan made = plan(job);
        QVERIFY(made.headroom && made.headroom->byShape);
        QVERIFY(near(made.headroom->left.head.value, 1960, 0.5)); // along the middle, nothing is laid
        QCOMPARE(made.headroom->cell.value, 200.0);
        for (const HeadAt& h : made.headroom->places) {
            const double off = std::abs(h.at.y - 900);
            QVERIFY(near(h.head.value, 1900 + std::sqrt(6780.0 * 6780 - off * off) - 6720, 0.5));
            QCOMPARE(h.enough, off < 735);
        }
        QCOMPARE(made.headroom->places.size(), std::size_t{180}); // 20 by 9
        QVERIFY(near(made.headroom->shareEnough(), 7.0 / 9, 1e-9));
        // Read as 1950 at the rear and 1960 in the middle, the ceiling is 10 lower there, and 5 between the two.
        job.headroom.rear = mm(1950);
        job.headroom.middle = job.headroom.front = mm(1960);
        const Plan read = plan(job);
        QVERIFY(!read.headroom->byShape);
        QCOMPARE(read.headroom->left.head.value, 1950.0);
        for (const HeadAt& h : read.headroom->places)
            if (near(h.at.y, 900, 1)) {
                if (h.at.x < 400) QVERIFY(near(h.head.value, 1950, 0.1));
                if (near(h.at.x, 1100, 1)) QVERIFY(near(h.head.value, 1950 + 10 * 700.0 / 1600, 0.1));
                if (h.at.x > 2000) QVERIFY(near(h.head.value, 1960, 0.1));
            }
    }

private:
    static Surface van4(double length) {
        Surface s;
        s.id = s.name = "here";
        s.kind = SurfaceKind::WetCellWall;
        s.measurement = test::rectangle(length, 1500);
        return s;
    }
};
WESTRUM_TEST(BentVanTest)
#include "bent_van_test.moc"
