#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/shape_search.h"
#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "tests/support/registry.h"

#include <cmath>
#include <numbers>
#include <random>

using namespace westrum;

namespace {

Ring box(double w, double h) { return {{0, 0}, {w, 0}, {w, h}, {0, h}}; }

ShapesProblem boxes(double width, std::vector<std::pair<double, double>> sizes) {
    ShapesProblem problem{.widthMm = width};
    for (const auto& [w, h] : sizes) problem.pieces.push_back({.outline = box(w, h)});
    return problem;
}

/// A search over all pieces of a problem, one of each, all lying at 0, 0.
struct Searched {
    explicit Searched(const ShapesProblem& p) : problem(p), forms(problem), search(problem, forms, all(), {}, 1) {
        ShapeLayout layout;
        for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
            layout.form.push_back(forms.formsOf(i)[0]);
            layout.at.push_back({});
        }
        search.setLayout(layout);
    }
    [[nodiscard]] std::vector<std::size_t> all() const {
        std::vector<std::size_t> list;
        for (std::size_t i = 0; i < problem.pieces.size(); ++i) list.push_back(i);
        return list;
    }
    /// The pieces one behind the other, each so far behind the one before.
    [[nodiscard]] ShapeLayout columns(double apart) const {
        ShapeLayout layout = search.layout();
        for (std::size_t i = 0; i < layout.at.size(); ++i) layout.at[i] = {double(i) * apart, 0};
        return layout;
    }
    bool separate(double length, int patience = 100) {
        std::int64_t moves = 0;
        return search.separate(length, patience, {.seed = 1, .iterations = 20000}, moves);
    }
    ShapesProblem problem;
    ShapeForms forms;
    ShapeSearch search;
};

} // namespace

class ShapeSearchTest : public QObject {
    Q_OBJECT

private slots:
    void piecesOnTopOfEachOtherAreParted() {
        // Four boxes of 300 x 500, all in one corner, on 600 x 1000: they fill it and must find their quarters.
        Searched s(boxes(1000, {{300, 500}, {300, 500}, {300, 500}, {300, 500}}));
        QVERIFY(s.separate(600.2));
        QVERIFY(s.search.lengthOf(s.search.layout()) <= 600.21);
        for (std::size_t i = 0; i < 4; ++i)
            for (std::size_t j = 0; j < i; ++j)
                QVERIFY(clashMm(s.problem, {i, 0, s.search.layout().at[i]}, {j, 0, s.search.layout().at[j]}) <=
                        kShapeToleranceMm);
    }

    void piecesGoWhereTheyTouchTwo() {
        // A box of 800 x 1000 cut from two corners to the middle of one side: there is one way to lie in it, exact to
        // the hundredth.
        ShapesProblem problem{.widthMm = 1000};
        problem.pieces.push_back({.outline = {{0, 0}, {400, 1000}, {0, 1000}}});
        problem.pieces.push_back({.outline = {{0, 0}, {0, 1000}, {-400, 1000}}});
        problem.pieces.push_back({.outline = {{0, 0}, {800, 0}, {400, 1000}}});
        Searched s(problem);
        s.search.scatter(800.02);
        QVERIFY(s.separate(800.02, 30));
        const std::vector<Point> wanted{{0, 0}, {800, 0}, {0, 0}};
        for (std::size_t i = 0; i < 3; ++i) QVERIFY(distance(s.search.layout().at[i], wanted[i]) < 0.05);
    }

    void whatCannotBePartedIsGivenUp() {
        Searched s(boxes(1000, {{300, 600}, {300, 600}}));
        QVERIFY(!s.separate(500, 10)); // one is 300 long, and across there is room for one only
        QVERIFY(s.search.overlap() > 0);
    }

    void pushedInsideEverythingLiesWithinTheRoll() {
        Searched s(boxes(1000, {{300, 600}, {200, 100}, {700, 900}}));
        ShapeLayout far = s.search.layout();
        far.at = {{5000, -300}, {-80, 2000}, {650, 650}};
        s.search.setLayout(far);
        s.search.pushInside(900);
        for (std::size_t i = 0; i < 3; ++i) {
            const Bounds b = boundsOf(lying(s.problem.pieces[i], {i, 0, s.search.layout().at[i]}));
            QVERIFY(b.low.x >= 0 && b.low.y >= 0 && b.high.x <= 900 && b.high.y <= 1000);
        }
    }

    void swappedPiecesExchangeTheirMiddles() {
        // Only two pieces, so it is these that change places: middles 150, 300 and 750, 200 before.
        Searched s(boxes(1000, {{300, 600}, {500, 400}}));
        ShapeLayout layout = s.search.layout();
        layout.at = {{0, 0}, {500, 0}};
        s.search.disturbance = {.exchange = 0, .turn = 0, .shuffle = 0, .carry = 0};
        s.search.setLayout(layout);
        s.search.disturb(1000);
        QCOMPARE(s.search.layout().at[0], (Point{600, 0})); // 750 - 150; 200 - 300 is below the edge: 0
        QCOMPARE(s.search.layout().at[1], (Point{0, 100})); // 150 - 250 is before the start: 0; 300 - 200
    }

    void shorteningMovesWhatLiesBeyondTheLine() {
        Searched s(boxes(1000, {{300, 600}, {300, 600}, {300, 600}}));
        ShapeLayout layout = s.search.layout();
        layout.at = {{0, 0}, {400, 0}, {800, 0}};
        s.search.setLayout(layout);
        s.search.shortenAt(50);
        double last = -1;
        int moved = 0;
        for (std::size_t i = 0; i < 3; ++i) {
            const double before = layout.at[i].x;
            const double now = s.search.layout().at[i].x;
            QVERIFY(now == before || now == before - 50);
            QVERIFY(now > last); // the order stays, and once one has moved all behind it have
            if (moved > 0) QVERIFY(now != before);
            moved += now != before;
            last = now;
        }
    }

    void aPartOfTheRollIsShuffled() {
        // Six columns; those in the part chosen change places among themselves: the places stay the same set.
        Searched s(boxes(1000, std::vector<std::pair<double, double>>(6, {100, 1000})));
        const ShapeLayout layout = s.columns(100);
        s.search.disturbance = {.exchange = 0, .turn = 0, .shuffle = 1, .carry = 0};
        int changed = 0;
        for (int n = 0; n < 20; ++n) {
            s.search.setLayout(layout);
            s.search.disturb(600);
            std::vector<double> places;
            for (const Point p : s.search.layout().at) places.push_back(p.x);
            changed += s.search.layout().at != layout.at;
            std::sort(places.begin(), places.end());
            QCOMPARE(places, (std::vector<double>{0, 100, 200, 300, 400, 500}));
        }
        QVERIFY(changed > 5);
    }

    void aRowGivesWayAtOnce() {
        // Five boxes of 100, each a little over the next, on 501: no piece has to be taken up.
        Searched s(boxes(100, std::vector<std::pair<double, double>>(5, {100, 100})));
        s.search.setLayout(s.columns(99));
        std::int64_t moves = 0;
        QVERIFY(s.search.separate(501, 0, {.seed = 1, .iterations = 1000}, moves));
        QCOMPARE(moves, 0);
        for (std::size_t i = 0; i + 1 < 5; ++i)
            QVERIFY(s.search.layout().at[i + 1].x - s.search.layout().at[i].x > 100 - kShapeToleranceMm);
        QVERIFY(s.search.lengthOf(s.search.layout()) <= 501);
    }

    void aPatternIsKeptWhilePiecesGiveWay() {
        // The same row, but each may lie only at multiples of 50: two boxes of 80 on 200 end up 100 apart.
        ShapesProblem problem = boxes(100, {{80, 100}, {80, 100}});
        problem.repeat = {.alongMm = 50};
        Searched s(problem);
        ShapeLayout layout = s.search.layout();
        layout.at = {{0, 0}, {50, 0}};
        s.search.setLayout(layout);
        QVERIFY(s.separate(200));
        for (const Point p : s.search.layout().at) QCOMPARE(std::remainder(p.x, 50), 0.0);
        QVERIFY(std::abs(s.search.layout().at[0].x - s.search.layout().at[1].x) >= 100);
    }

    void twoPartsOfTheRollChangePlaces() {
        // Six columns: behind one another they lie as before, but for two neighbouring runs that are exchanged.
        Searched s(boxes(1000, std::vector<std::pair<double, double>>(6, {100, 1000})));
        const ShapeLayout layout = s.columns(100);
        s.search.disturbance = {.exchange = 1, .turn = 0, .shuffle = 0, .carry = 0};
        int changed = 0;
        for (int n = 0; n < 20; ++n) {
            s.search.setLayout(layout);
            s.search.disturb(600);
            std::vector<int> order{0, 1, 2, 3, 4, 5};
            std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
                return s.search.layout().at[std::size_t(a)].x < s.search.layout().at[std::size_t(b)].x;
            });
            bool known = false;
            for (int a = 0; a < 6; ++a)
                for (int b = a; b <= 6; ++b)
                    for (int c = b; c <= 6; ++c) {
                        std::vector<int> wanted{0, 1, 2, 3, 4, 5};
                        std::rotate(wanted.begin() + a, wanted.begin() + b, wanted.begin() + c);
                        known = known || wanted == order;
                    }
            QVERIFY(known);
            changed += order != std::vector<int>{0, 1, 2, 3, 4, 5};
        }
        QVERIFY(changed > 5);
    }

    void whatIsHopelessIsGivenUpEarly() {
        // Two boxes of 600 by 600 on 1000 by 1000: whatever is done, they share 200 by 200.
        Searched s(boxes(1000, {{600, 600}, {600, 600}}));
        std::int64_t moves = 0;
        QVERIFY(!s.search.separate(1000, 100, Effort{.iterations = 100000}, moves));
        QVERIFY(moves > 100);
        QVERIFY(s.search.early() && *s.search.early() > 150);
        s.search.hopelessMm = 150;
        moves = 0;
        QVERIFY(!s.search.separate(1000, 100, Effort{.iterations = 100000}, moves));
        QCOMPARE(moves, std::int64_t(5 * 2)); // five rounds
    }

    void aPartOfTheRollIsTurnedByHalf() {
        // Eight pieces on both sides of the roll; half of them may not be turned: those only change sides.
        const ShapePiece slanted{.outline = {{0, 0}, {100, 0}, {100, 300}, {0, 240}}};
        ShapesProblem problem{.widthMm = 1000, .pieces = std::vector<ShapePiece>(8, slanted)};
        for (std::size_t i = 0; i < 8; i += 2) problem.pieces[i].rotationsRad = {0, std::numbers::pi};
        Searched s(problem);
        ShapeLayout layout = s.search.layout();
        const auto middle = [&](const ShapeLayout& l, std::size_t i) {
            const Bounds& b = s.forms.form(l.form[i]).bounds;
            return l.at[i] + (b.low + b.high) * 0.5;
        };
        for (std::size_t i = 0; i < 8; ++i) layout.at[i] = {500 + double(i / 2) * 150, i % 2 == 0 ? 50.0 : 600.0};
        s.search.disturbance = {.exchange = 0, .turn = 1, .shuffle = 0, .carry = 0};
        int turned = 0;
        for (int n = 0; n < 20; ++n) {
            s.search.setLayout(layout);
            s.search.disturb(2000);
            for (std::size_t i = 0; i < 8; ++i) {
                const Point was = middle(layout, i), now = middle(s.search.layout(), i);
                const bool moved = distance(was, now) > 1e-6;
                QCOMPARE(s.forms.form(s.search.layout().form[i]).rotationRad,
                         moved && i % 2 == 0 ? std::numbers::pi : 0.0);
                if (moved) QVERIFY(std::abs(was.y + now.y - 1000) < 1e-6);
                turned += moved;
            }
        }
        QVERIFY(turned > 20);
    }

    void whatLiesInAHoleGoesWithItsPiece() {
        ShapesProblem problem = boxes(1000, {{600, 600}, {500, 700}, {50, 50}});
        problem.pieces[0].holes = {{{200, 200}, {400, 200}, {400, 400}, {200, 400}}};
        Searched s(problem);
        ShapeLayout layout = s.search.layout();
        layout.at = {{0, 100}, {700, 100}, {260, 370}};
        s.search.disturbance = {.exchange = 0, .turn = 0, .shuffle = 0, .carry = 1};
        int together = 0;
        for (int n = 0; n < 30; ++n) {
            s.search.setLayout(layout);
            s.search.disturb(1300);
            const ShapeLayout& now = s.search.layout();
            if (now.at[0] == layout.at[0] || now.at[1] == layout.at[1]) continue; // others changed places
            QCOMPARE(now.at[2] - now.at[0], layout.at[2] - layout.at[0]);
            ++together;
        }
        QVERIFY(together > 5);
    }

    void scatteredPiecesLieInsideTheRollAndAGroupTogether() {
        ShapesProblem problem = boxes(800, std::vector<std::pair<double, double>>(12, {300, 120}));
        for (ShapePiece& piece : problem.pieces) piece.rotationsRad = {0, std::numbers::pi / 2};
        Searched s(problem);
        for (std::size_t i = 0; i < 4; ++i) s.problem.pieces[i].group = 0;
        s.search.groupSpanMm = {450}; // and a group lies together
        std::size_t upright = 0;
        for (int n = 0; n < 10; ++n) {
            s.search.scatter(900);
            double first = 900;
            double last = 0;
            for (std::size_t i = 0; i < 12; ++i) {
                const Bounds& b = s.forms.form(s.search.layout().form[i]).bounds;
                const Point low = s.search.layout().at[i] + b.low, high = s.search.layout().at[i] + b.high;
                QVERIFY(low.x >= -1e-9 && low.y >= -1e-9 && high.x <= 900 + 1e-9 && high.y <= 800 + 1e-9);
                upright += b.height() > b.width();
                if (i < 4) first = std::min(first, low.x), last = std::max(last, high.x);
            }
            QVERIFY(last - first <= 450 + 1e-9);
        }
        QVERIFY(upright > 30 && upright < 90);
    }

    void quarterTurnsAreExact() {
        const Ring ring{{0, 0}, {123.456, 0}, {0, 7.5}};
        QCOMPARE(turned(ring, std::numbers::pi / 2), (Ring{{0, 0}, {0, 123.456}, {-7.5, 0}}));
        QCOMPARE(turned(ring, std::numbers::pi), (Ring{{0, 0}, {-123.456, 0}, {0, -7.5}}));
    }

    void theSumOfConvexRings() {
        // A box 4 x 2 and a box 1 x 3: 5 x 5. A box and a triangle: areas and perimeters tell (mixed volumes).
        const auto grid = [](const Ring& ring) {
            GridRing result;
            for (const Point p : ring) result.push_back(toGrid(p));
            return result;
        };
        const GridRing sum = convexSum(grid(box(4, 2)), grid(box(1, 3)));
        Ring ring;
        for (const GridPoint p : sum) ring.push_back(fromGrid(p));
        QCOMPARE(signedArea(ring), 25.0);
        QCOMPARE(boundsOf(ring), (Bounds{{0, 0}, {5, 5}}));
        // The sum with itself turned by half is twice as wide every way: four times the area for a box.
        const Region doubled = sumOfParts({grid(box(4, 2))}, {grid(box(4, 2))});
        QCOMPARE(areaMm2(doubled), 32.0);
    }

    void grownRegionsKeepTheirDistance() {
        // A box 100 x 100 grown by 5: mitred 110 x 110; rounded the corners are missing, less than (4 - pi) 25.
        const Region mitred = grown({{box(100, 100)}}, 5);
        QVERIFY(std::abs(areaMm2(mitred) - 12100) < 0.1);
        const Region rounded = grown({{box(100, 100)}}, 5, Corners::Rounded);
        const double exact = 12100 - (4 - std::numbers::pi) * 25;
        QVERIFY(areaMm2(rounded) <= exact + 0.1 && areaMm2(rounded) > exact - 5);
        // Shrunk by more than half of it nothing is left.
        QVERIFY(grown({{box(100, 100)}}, -51).empty());
    }

    void theBoundCountsWhatCrossesTheMiddle() {
        // Two boxes of 300 x 600 on 1000: by area 360, but both cross the middle line: 600.
        QCOMPARE(shortestLengthMm(boxes(1000, {{300, 600}, {300, 600}})), 600.0);
        // At 400 high they can lie beside each other: the longest counts.
        QCOMPARE(shortestLengthMm(boxes(1000, {{300, 400}, {300, 400}})), 300.0);
        // A frame whose window is low does not count its window: nothing that crosses could lie in it.
        ShapesProblem frame = boxes(1000, {{300, 600}});
        frame.pieces[0].holes = {{{100, 200}, {200, 200}, {200, 400}, {100, 400}}};
        QCOMPARE(shortestLengthMm(frame), 300.0);
    }
};

WESTRUM_TEST(ShapeSearchTest)
#include "shape_search_test.moc"
