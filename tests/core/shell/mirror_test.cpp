#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/shell/shape.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

/// A surface and its mirror image are the same thing held before a mirror, whatever it was measured by.
class MirrorTest : public QObject {
    Q_OBJECT

    /// The region as a mirror shows it, its lower left at the given point.
    static Region reflected(Region region, double axis) {
        for (Ring& ring : region.rings) {
            for (Point& p : ring) p.x = axis - p.x;
            std::reverse(ring.begin(), ring.end());
        }
        return region;
    }
    static double apart(const Region& a, const Region& b) {
        return areaMm2(difference(a, b)) + areaMm2(difference(b, a));
    }
    /// An empty text if the image is true, else what is wrong with it.
    static QString compare(const Surface& s) {
        const Surface image = mirrored(s);
        const MeasuredOutline a = outlineOf(s.measurement), b = outlineOf(image.measurement);
        if (!a.measured() || !b.measured()) return QStringLiteral("not measured");
        const double axis = boundsOf(a.frame).high.x + boundsOf(b.frame).low.x;
        if (apart(reflected(a.outline, axis), b.outline) > 50) return QStringLiteral("outline");
        if (a.remarks.size() != b.remarks.size()) return QStringLiteral("remarks");
        const SurfaceShape as = shapeOf(s, a), bs = shapeOf(image, b);
        if (as.openings.size() != bs.openings.size()) return QStringLiteral("number of openings");
        for (std::size_t k = 0; k < as.openings.size(); ++k) {
            Ring hole = as.openings[k].shape, other = bs.openings[k].shape;
            std::reverse(hole.begin(), hole.end());
            std::reverse(other.begin(), other.end());
            if (apart(reflected({{hole}}, axis), {{other}}) > 5) return QStringLiteral("opening %1").arg(k);
        }
        for (std::size_t k = 0; k < as.zones.size(); ++k)
            if (apart(reflected(as.zones[k].shape, axis), bs.zones[k].shape) > 5) return QStringLiteral("zone");
        if (as.supports.size() != bs.supports.size()) return QStringLiteral("number of supports");
        Region left, right;
        for (const PlacedSupport& p : as.supports) left = unionOf(left, reflected(p.shape, axis));
        for (const PlacedSupport& p : bs.supports) right = unionOf(right, p.shape);
        if (apart(left, right) > 5) return QStringLiteral("supports");
        // Twice before the mirror it is itself.
        const Surface back = mirrored(image);
        if (apart(outlineOf(back.measurement).outline, a.outline) > 50) return QStringLiteral("twice");
        if (back.edges != s.edges && !s.edges.empty()) return QStringLiteral("edges twice");
        return {};
    }
    static Region unionOf(const Region& a, const Region& b) {
        std::vector<Ring> all = a.rings;
        all.insert(all.end(), b.rings.begin(), b.rings.end());
        return westrum::unionOf(all);
    }

    static Surface furnished(Measurement m) {
        Surface s;
        s.id = s.name = "wall";
        s.kind = SurfaceKind::LeftWall;
        s.hand = Hand::Left;
        s.measurement = std::move(m);
        Opening window{.name = "Window"};
        window.place = {.side = 0, .fromSide = mm(220), .cross = 1, .fromCross = mm(260)};
        window.width = mm(300);
        window.height = mm(160);
        Opening odd{.name = "Odd", .shape = OpeningShape::Polygon};
        odd.place = {.side = 0, .fromSide = mm(200), .cross = 1, .fromCross = mm(700)};
        odd.corners = {{mm(0), mm(0)}, {mm(200), mm(0)}, {mm(140), mm(150)}}; // no width is said of a polygon
        s.openings = {window, odd};
        Zone zone{.name = "Cupboard"};
        zone.place = {.side = 0, .fromSide = mm(0), .cross = 1, .fromCross = mm(100)};
        zone.width = mm(250);
        zone.height = mm(180);
        s.zones = {zone};
        s.supports = {{.name = "Rib", .position = mm(250), .width = mm(40), .count = 3, .spacing = mm(300)}};
        return s;
    }

private slots:
    void everyFormHasATrueImage() {
        // A rake at one end only: 1900 along the foot, 1700 along the top.
        Measurement raked;
        raked.form = OutlineForm::FourSides;
        raked.readings = {mm(1900), mm(800), mm(1700), mm(std::hypot(200, 800)), {}, mm(std::hypot(1900, 800))};
        QCOMPARE(compare(furnished(raked)), QString());
        // An L whose inner corner is a notch's end.
        Measurement ell;
        ell.form = OutlineForm::Polygon;
        ell.polygon.sides = {mm(1900), mm(900), mm(700), mm(300), mm(1200), mm(600)};
        ell.polygon.diagonals = {
            {1, 3, mm(std::hypot(700, 900))}, {1, 4, mm(std::hypot(700, 600))}, {0, 4, mm(std::hypot(1200, 600))}};
        ell.notches = {notch(0, 300, 260, 90), notch(1, 200, 150, 60), notch(4, 100, 220, 70)};
        ell.cornerRadii = {{}, {}, mm(40), {}, {}, mm(90)};
        QCOMPARE(compare(furnished(ell)), QString());
        // Drawn with eight sides, more than any list of the other forms holds (it once wrote past them).
        Measurement drawn;
        drawn.form = OutlineForm::Drawn;
        drawn.drawn = {{0, 0}, {1900, 0}, {1900, 500}, {1750, 700}, {1500, 850}, {900, 880}, {400, 800}, {60, 600}};
        drawn.notches = {notch(0, 150, 400, 60)};
        drawn.steps = {{"Well", 0, mm(90), mm(70)}};
        QCOMPARE(compare(furnished(drawn)), QString());
        // From two points, gone round the other way, with a line not used.
        Measurement two;
        two.form = OutlineForm::TwoPoint;
        two.fixedPoints.base = mm(1500);
        const std::vector<Point> corners{{-100, 900}, {600, 1100}, {1800, 1000}, {2000, 500}, {1900, 80}, {-50, 60}};
        two.fixedPoints.rows.clear();
        for (const Point& p : corners) {
            two.fixedPoints.rows.push_back(
                {Reading{{}, {std::hypot(p.x, p.y)}}, Reading{{}, {std::hypot(p.x - 1500, p.y)}}, false});
            if (two.fixedPoints.rows.size() == 2) two.fixedPoints.rows.emplace_back();
        }
        Surface fixed = furnished(two);
        fixed.openings.clear(); // whose sides lean too much for these places
        fixed.zones.clear();
        QCOMPARE(compare(fixed), QString());
        // Stations.
        Measurement arch;
        arch.form = OutlineForm::Stations;
        arch.stations.rows = {{mm(0), mm(900), {}}, {mm(600), mm(980), {}}, {mm(2000), mm(870), {}}};
        QCOMPARE(compare(furnished(arch)), QString());
    }

    void anyQuadrilateralHasATrueImage() {
        std::mt19937 dice(3);
        for (int round = 0; round < 60; ++round) {
            Surface s = furnished(anyFloor(dice));
            s.measurement.notches = {notch(static_cast<int>(dice() % 4), 200 + dice() % 300, 200, 90)};
            QVERIFY2(compare(s).isEmpty(), qPrintable(QStringLiteral("%1: %2").arg(round).arg(compare(s))));
        }
    }

    void aGapThatWidensKeepsItsEnds() {
        Surface s = furnished(rectangle(2000, 900));
        // 5 mm at the rear end of the foot, 12 at the front: before the mirror the rear is where going round ends.
        s.edges = {{.kind = EdgeKind::MovementGap, .allowance = mm(5), .gapAtEnd = mm(12)}};
        const Edge edge = mirrored(s).edge(0);
        QCOMPARE(edge.allowance->length.value, 12.0);
        QCOMPARE(edge.gapAtEnd->length.value, 5.0);
    }

    void whatIsSaidOfCornersGoesWithThem() {
        Surface s = furnished(rectangle(2000, 900));
        s.measurement.polygon.turns = {CornerTurn::Unsaid, CornerTurn::Unsaid, CornerTurn::Inwards};
        // Of five corners, corner 2 becomes corner 1 - 2 = -1: the last.
        QVERIFY(mirrored(s).measurement.polygon.turns.at(4) == CornerTurn::Inwards);
    }
};
WESTRUM_TEST(MirrorTest)
#include "mirror_test.moc"
