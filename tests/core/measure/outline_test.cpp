#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/measure/cutouts.h"
#include "core/measure/measurement.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// Outlines of every form, from readings to region.
class OutlineTest : public QObject {
    Q_OBJECT

    static bool near(double a, double b, double by = 1e-6) { return std::abs(a - b) <= by; }
    static bool has(const MeasuredOutline& out, RemarkKind kind) {
        return std::any_of(out.remarks.begin(), out.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
    }
    static Measurement stationsOf(const std::vector<std::pair<double, double>>& rows, bool smooth = false) {
        Measurement m;
        m.form = OutlineForm::Stations;
        m.stations.smooth = smooth;
        m.stations.rows.clear();
        for (const auto& [x, y] : rows) m.stations.rows.push_back({mm(x), mm(y), {}});
        return m;
    }

private slots:
    void aPentagonByThreeTriangles() {
        // A house: 2000 wide, walls 1000, ridge 1500 in the middle.
        Measurement m;
        m.form = OutlineForm::Polygon;
        const double slope = std::hypot(1000, 500), cross = std::hypot(2000, 1000), up = std::hypot(1000, 1500);
        m.polygon.sides = {mm(2000), mm(1000), mm(slope), mm(slope), mm(1000)};
        m.polygon.diagonals = {{0, 2, mm(cross)}, {0, 3, mm(up)}};
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(out.measured());
        QVERIFY(near(areaMm2(out.outline), 2000 * 1000 + 2000 * 500 / 2, 0.1));
        QCOMPARE(out.sides.size(), std::size_t{5});
        QVERIFY(near(out.sideLength(2).value, slope, 1e-6));
        m.polygon.diagonals[1].length.reset();
        QVERIFY(has(outlineOf(m), RemarkKind::DiagonalMissing));
        m.polygon.diagonals.push_back({1, 4, mm(cross)});
        m.polygon.diagonals[1].length = mm(up);
        m.polygon.sides[2] = mm(slope + 90);
        // One spare reading: something is wrong, and it is said that it cannot be said what.
        QVERIFY(has(outlineOf(m), RemarkKind::OneReadingWrong) || has(outlineOf(m), RemarkKind::ReadingsDisagree));
    }

    void stationsGiveAWallWithACurvedTop() {
        const MeasuredOutline out = outlineOf(stationsOf({{0, 900}, {1000, 1000}, {2000, 900}}));
        QVERIFY(near(areaMm2(out.outline), 2000 * 950, 0.1));
        QCOMPARE(out.sides.size(), std::size_t{4});
        QVERIFY(near(out.sideLength(0).value, 2000));
        QVERIFY(near(out.sideLength(2).value, 2 * std::hypot(1000, 100)));
        QVERIFY(!sideLine(out, 2)); // no straight side
        QVERIFY(near(sideLine(out, 0)->length(), 2000));
    }

    void anArchFaceMeetsItsBaseline() {
        const MeasuredOutline out = outlineOf(stationsOf({{0, 0}, {400, 300}, {800, 0}}, true));
        QVERIFY(out.measured());
        QVERIFY(near(out.sideLength(1).value, 0) && near(out.sideLength(3).value, 0));
    }

    void badStationsAreAnswered() {
        QVERIFY(has(outlineOf(stationsOf({{0, 900}, {1000, 1000}, {900, 900}})), RemarkKind::StationsNotRising));
        QVERIFY(has(outlineOf(stationsOf({{0, 900}})), RemarkKind::ReadingMissing));
        Measurement gap = stationsOf({{0, 900}, {1000, 1000}, {2000, 900}});
        gap.stations.rows[1].offset.reset();
        QVERIFY(has(outlineOf(gap), RemarkKind::ReadingMissing));
        QVERIFY(!outlineOf(gap).measured());
        // A line left empty is no mistake.
        gap.stations.rows[1].at.reset();
        QVERIFY(near(areaMm2(outlineOf(gap).outline), 2000 * 900, 0.1));
    }

    void threeHundredStationsAreNoMatter() {
        std::vector<std::pair<double, double>> rows;
        for (int i = 0; i < 300; ++i) rows.emplace_back(i * 12.0, 900 + 40 * std::sin(i / 25.0));
        const MeasuredOutline out = outlineOf(stationsOf(rows, true));
        QVERIFY(out.measured());
        QVERIFY(out.outline.rings.front().size() >= 300);
    }

    void fixedPointsGiveACornerEach() {
        Measurement m;
        m.form = OutlineForm::TwoPoint;
        m.fixedPoints.base = mm(1500);
        m.fixedPoints.rows.clear();
        // Corners at (-100, 200), (1600, 200), (1600, 900), (-100, 900) from A 0,0 and B 1500,0.
        for (const Point p : {Point{-100, 200}, {1600, 200}, {1600, 900}, {-100, 900}})
            m.fixedPoints.rows.push_back({mm(std::hypot(p.x, p.y)), mm(std::hypot(p.x - 1500, p.y)), false});
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(near(areaMm2(out.outline), 1700 * 700, 0.1));
        // The lower left corner is the origin; A lies where it was taken from there.
        QVERIFY(distance(out.fixedA, {100, -200}) < 1e-6);
        std::swap(m.fixedPoints.rows[0], m.fixedPoints.rows[1]);
        QVERIFY(has(outlineOf(m), RemarkKind::OutlineCrosses));
        m.fixedPoints.rows[0].fromA = mm(10);
        QVERIFY(has(outlineOf(m), RemarkKind::TapesDoNotMeet));
    }

    void aBowedWallGetsItsWidthFromChordAndRise() {
        Measurement m = rectangle(3300, 0);
        m.readings[1].reset();
        m.curve.curving = Curving::Single;
        m.curve.parts = {{mm(1450), mm(62)}};
        // R 4269.91, arc 1457.06 (docs/formulae.md#developed).
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(near(boundsOf(out.outline).height(), 1457.059118, 1e-4));
        QVERIFY(near(out.leastRadius->value, 4269.91129, 1e-4));
        // Taped along the curve as well, they must agree.
        m.readings[1] = mm(1459);
        QVERIFY(!has(outlineOf(m), RemarkKind::CurveDisagrees));
        m.readings[1] = mm(1490);
        QVERIFY(has(outlineOf(m), RemarkKind::CurveDisagrees));
        QVERIFY(near(boundsOf(outlineOf(m).outline).height(), 1490));
        m.readings[1].reset();
        m.curve.parts = {{{}, {}}};
        QVERIFY(has(outlineOf(m), RemarkKind::CurveUnmeasured));
    }

    void doubleCurvatureSaysHowFarALiningStretches() {
        Measurement m = rectangle(800, 600);
        m.curve.curving = Curving::Double;
        m.curve.parts = {{mm(600), mm(18.1)}}; // R about 2495
        QVERIFY(has(outlineOf(m), RemarkKind::StretchUnknown));
        m.curve.alongChord = mm(800);
        m.curve.alongRise = mm(32.3); // R about 2493
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(has(out, RemarkKind::DoubleCurve));
        QVERIFY(near(*out.stretch, 0.0067, 0.0001));
    }

    void roundedCornersTakeTheirSliverAway() {
        Measurement m = rectangle(1000, 800);
        m.cornerRadii = {mm(100), {}, mm(50), {}};
        // Each corner of radius r loses r^2 (1 - pi / 4).
        const double lost = (100 * 100 + 50 * 50) * (1 - std::numbers::pi / 4);
        QVERIFY(near(areaMm2(outlineOf(m).outline), 800000 - lost, 15));
        // Two corners share a side as they like: on 1000 x 500 one may have 400, its square neighbours none.
        Measurement low = rectangle(1000, 500);
        low.cornerRadii = {mm(400), {}, {}, {}};
        QVERIFY(outlineOf(low).remarks.empty());
        QVERIFY(near(areaMm2(outlineOf(low).outline), 500000 - 160000 * (1 - std::numbers::pi / 4), 40));
        // With 300 beside it both want more of the 500 than there is: each gets half at most, and both are told.
        low.cornerRadii = {mm(400), {}, {}, mm(300)};
        const MeasuredOutline both = outlineOf(low);
        QCOMPARE(std::count_if(both.remarks.begin(), both.remarks.end(),
                               [](const Remark& r) { return r.kind == RemarkKind::RadiusTooLarge; }),
                 2);
        m.cornerRadii[0] = mm(900);
        QVERIFY(has(outlineOf(m), RemarkKind::RadiusTooLarge));
        m.cornerRadii[0] = mm(-5);
        QVERIFY(has(outlineOf(m), RemarkKind::ReadingNotPositive));
    }

    void cutOutsKeepToStraightSides() {
        Measurement m = stationsOf({{0, 900}, {1000, 1000}, {2000, 900}}, true);
        m.notches = {notch(2, 100, 200, 50)};
        QVERIFY(has(outlineOf(m), RemarkKind::CutoutSideCurved));
        m.notches = {notch(0, 100, 200, 50)};
        QVERIFY(!has(outlineOf(m), RemarkKind::CutoutSideCurved));
        m.steps = {{"Well", 2, mm(100), mm(100)}};
        QVERIFY(has(outlineOf(m), RemarkKind::CutoutSideCurved));
    }

    void aNotchAtACornerEndsWhereTheSideDoes() {
        // 2000 x 1000 whose right end leans out by 500: a notch of 300 x 200 up to that corner takes the lean with it,
        // 300 x 200 + 200 x 100 / 2, and leaves no horn.
        Measurement m;
        m.form = OutlineForm::FourSides;
        m.readings = {mm(2000), mm(std::hypot(500, 1000)), mm(2500), mm(1000), {}, mm(std::hypot(2000, 1000))};
        const double whole = (2000 + 2500) / 2.0 * 1000;
        m.notches = {notch(0, 1700, 300, 200)};
        QVERIFY(near(areaMm2(outlineOf(m).outline), whole - 300 * 200 - 200 * 100 / 2.0, 2));
        QCOMPARE(outlineOf(m).outline.rings.size(), std::size_t{1});
        // Away from the corner it is a plain rectangle.
        m.notches = {notch(0, 1500, 300, 200)};
        QVERIFY(near(areaMm2(outlineOf(m).outline), whole - 300 * 200, 2));
        // Leaning inwards: what lies beyond the side is no part of the surface.
        Measurement in;
        in.form = OutlineForm::FourSides;
        in.readings = {mm(2500), mm(std::hypot(500, 1000)), mm(2000), mm(1000), {}, mm(std::hypot(2500, 1000))};
        in.notches = {notch(0, 2200, 300, 200)};
        QVERIFY(near(areaMm2(outlineOf(in).outline), whole - (300 * 200 - 200 * 100 / 2.0), 2));
        // At an inner corner of an L the surface goes on beyond the side's end: nothing of that is cut.
        Measurement ell;
        ell.form = OutlineForm::Drawn;
        ell.drawn = {{0, 0}, {2000, 0}, {2000, 600}, {1200, 600}, {1200, 1000}, {0, 1000}};
        const int inner = 2;                       // from 2000,600 to the inner corner at 1200,600
        ell.notches = {notch(inner, 0, 300, 100)}; // counted from its left end, which is the inner corner
        QVERIFY(near(areaMm2(outlineOf(ell).outline), 2000 * 600 + 1200 * 400 - 300 * 100, 2));
    }

    void straightSidesBetweenArcsStaySides() {
        // 1200 x 800 with corners of radius 150, as a drawing gives it: four straight sides and four curves.
        Ring ring;
        const auto arc = [&](Point centre, double from) {
            for (int i = 0; i <= 24; ++i) {
                const double a = from + i * std::numbers::pi / 48;
                ring.push_back(centre + Point{std::cos(a), std::sin(a)} * 150);
            }
        };
        arc({1050, 150}, -std::numbers::pi / 2);
        arc({1050, 650}, 0);
        arc({150, 650}, std::numbers::pi / 2);
        arc({150, 150}, std::numbers::pi);
        const std::vector<Ring> sides = drawnSides(drawnOutline(ring));
        QCOMPARE(sides.size(), std::size_t{8});
        QCOMPARE(std::count_if(sides.begin(), sides.end(), [](const Ring& s) { return s.size() == 2; }), 4);
        // A circle has none.
        ring.clear();
        for (int i = 0; i < 200; ++i)
            ring.push_back(Point{std::cos(i * std::numbers::pi / 100), std::sin(i * std::numbers::pi / 100)} * 400);
        for (const Ring& s : drawnSides(drawnOutline(ring))) QVERIFY(s.size() > 2);
    }

    void aPartOfTheProfileThatIsMissingIsTold() {
        Measurement m = rectangle(2000, 0);
        m.readings[1].reset();
        m.curve.curving = Curving::Single;
        m.curve.parts = {{mm(600), {}}, {{}, mm(30)}};
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(!out.measured());
        QVERIFY(std::any_of(out.remarks.begin(), out.remarks.end(), [](const Remark& r) {
            return r.kind == RemarkKind::ReadingMissing && r.place.key == "p1";
        }));
        m.curve.parts[1].length = mm(400);
        QVERIFY(outlineOf(m).measured() && outlineOf(m).remarks.empty());
    }

    void tinyAndHugeSurfacesAreAnsweredNotTaken() {
        QVERIFY(has(outlineOf(rectangle(1, 1000)), RemarkKind::ReadingAbsurd));
        QVERIFY(has(outlineOf(rectangle(20001, 1000)), RemarkKind::ReadingAbsurd));
        QVERIFY(outlineOf(rectangle(20000, 20000)).measured());
        QVERIFY(outlineOf(rectangle(5, 5)).measured());
    }

    void everyKeyFindsItsReading() {
        Measurement m;
        m.curve.curving = Curving::Double;
        m.cornerRadii.resize(4);
        for (const OutlineForm form : {OutlineForm::Rectangle, OutlineForm::FourSides, OutlineForm::Polygon,
                                       OutlineForm::Stations, OutlineForm::TwoPoint}) {
            m.form = form;
            std::set<MaybeReading*> places;
            for (const std::string& key : readingKeys(m)) {
                MaybeReading* place = findReading(m, key);
                QVERIFY2(place, key.c_str());
                QVERIFY2(places.insert(place).second, key.c_str());
            }
        }
        for (const char* key : {"", "Q", "S99", "x-1", "x", "D99999999999999999999", "AB2", "R4"})
            QVERIFY2(!findReading(m, key), key);
    }
};
WESTRUM_TEST(OutlineTest)

#include "outline_test.moc"
