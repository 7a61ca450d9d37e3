#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/takeoff/fixing_places.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <random>

using namespace westrum;
using westrum::rectangle;

namespace {

Holder across(double x, double from, double to, double width = 40, SupportKind kind = SupportKind::Batten) {
    return {.along = false, .centre = x, .half = width / 2, .from = from, .to = to, .kind = kind};
}
Holder along(double y, double from, double to, double width = 40) {
    return {.along = true, .centre = y, .half = width / 2, .from = from, .to = to, .kind = SupportKind::Batten};
}

std::vector<Point> held(const PlacedFixings& placed, std::optional<FixingAt> where = {}) {
    std::vector<Point> points;
    for (const FixingPlace& f : placed.places)
        if (f.holds && (!where || f.where == *where)) points.push_back(f.at);
    std::sort(points.begin(), points.end());
    return points;
}
long long loose(const PlacedFixings& placed) {
    return std::count_if(placed.places.begin(), placed.places.end(), [](const FixingPlace& f) { return !f.holds; });
}

/// Every point of one list has one of the other near it, and as many there are.
bool same(std::vector<Point> a, const std::vector<Point>& b, double within = 0.01) {
    if (a.size() != b.size()) return false;
    for (const Point& p : b) {
        const auto near = std::find_if(a.begin(), a.end(), [&](const Point& q) { return distance(p, q) <= within; });
        if (near == a.end()) return false;
        a.erase(near);
    }
    return true;
}

Ring bowed(int parts) {
    Ring ring{{0, 0}, {2000, 0}};
    for (int i = 0; i <= parts; ++i) {
        const double x = 2000.0 * (parts - i) / parts, t = (x - 1000) / 1000;
        ring.push_back({x, 800 + 60 * (1 - t * t)});
    }
    return ring;
}

Region mirrored(Region r) {
    for (Ring& ring : r.rings) {
        for (Point& p : ring) p.x = -p.x;
        std::reverse(ring.begin(), ring.end());
    }
    return r;
}
std::vector<Holder> mirrored(std::vector<Holder> all) {
    for (Holder& h : all) {
        if (h.along) {
            std::swap(h.from, h.to);
            h.from = -h.from;
            h.to = -h.to;
        } else
            h.centre = -h.centre;
    }
    return all;
}

/// A panel as vans have them - a corner or a notch missing, a round corner, a hole - and battens behind it.
struct Case {
    Region panel;
    std::vector<Holder> holders;
};
Case anyPanel(std::mt19937& dice) {
    const auto between = [&](double low, double high) {
        return std::floor(low + (high - low) * (dice() % 997) / 997.0);
    };
    const double w = between(400, 2400), h = between(300, 1200);
    Case c{{{rectangle(0, 0, w, h)}}, {}};
    if (dice() % 2) c.panel = difference(c.panel, {{rectangle(w - w / 4, h - h / 3, w, h)}});
    if (dice() % 2) c.panel = difference(c.panel, {{rectangle(w / 3, -10, w / 5, h / 4)}});
    if (dice() % 2) c.panel = difference(c.panel, {{circle({w / 4, h / 2}, h / 7, 48)}});
    if (dice() % 3 == 0) c.panel = {{roundedRectangle(0, 0, w, h, 120, 96)}};
    const int n = static_cast<int>(dice() % 5);
    for (int i = 0; i < n; ++i) c.holders.push_back(across(between(0, w), 0, h, between(20, 60)));
    if (dice() % 2) c.holders.push_back(along(between(0, h), 0, w, between(20, 60)));
    return c;
}

} // namespace

class FixingPlacesTest : public QObject {
    Q_OBJECT
private slots:
    void aPanelIsHeldWhereItsBattensAre() {
        // 1230 x 630 over battens of 40 at both ends and in the middle. The ends: 600 / 200 = 3 spaces, 4 places each,
        // corners among them; the long edges cross the middle batten once each; along it 600 / 300: one more. 11.
        // Of the six spaces of a long edge the places at 200, 400, 800 and 1000 have nothing behind them.
        const Region panel{{rectangle(0, 0, 1230, 630)}};
        const std::vector<Holder> battens{across(20, 0, 630), across(615, 0, 630), across(1210, 0, 630)};
        const PlacedFixings placed = placeOnPanel(panel, {}, battens);
        QCOMPARE(held(placed).size(), 11UL);
        QCOMPARE(loose(placed), 8);
        QVERIFY(same(held(placed, FixingAt::Field), {{615, 315}}));
        QVERIFY(same(held(placed, FixingAt::Edge), {{15, 15},
                                                    {15, 215},
                                                    {15, 415},
                                                    {15, 615},
                                                    {615, 15},
                                                    {615, 615},
                                                    {1215, 15},
                                                    {1215, 215},
                                                    {1215, 415},
                                                    {1215, 615}}));
        // Nothing known behind it: all its edge counts, 2 x 6 + 2 x 3, as it always did.
        QCOMPARE(held(placeOnPanel(panel, {}, {})).size(), 18UL);
        QCOMPARE(fixingsOfPanel(panel, {15}, {200}, {}, {300}).edge, 18);
    }

    void anEdgesFixingsMoveInOntoTheBattenThatRunsAlongIt() {
        // The batten lies from 25 to 65 above the lower edge: the line moves from 15 to 35, 10 into it.
        const Region panel{{rectangle(0, 0, 1000, 500)}};
        const std::vector<Holder> one{along(45, 0, 1000)};
        for (const Point& p : held(placeOnPanel(panel, {}, one), FixingAt::Edge)) QCOMPARE(p.y, 35.0);
        // One that lies 80 in is out of reach: it is held along the field instead, by 970 / 300 = 4 spaces; where the
        // side edges cross it, once each.
        const std::vector<Holder> far{along(100, 0, 1000)};
        const PlacedFixings placed = placeOnPanel(panel, {}, far);
        QCOMPARE(held(placed, FixingAt::Field).size(), 3UL);
        QVERIFY(same(held(placed, FixingAt::Edge), {{15, 100}, {985, 100}}));
    }

    void holesOfTheBodyAreUsed() {
        // A rib with holes from 30 on, 100 apart. At the lower edge 15 -> 30, in the field 315 -> 330; at the upper
        // edge 615 the next holes are at 530, too far, and at 630, off the panel.
        const Region panel{{rectangle(0, 0, 1230, 630)}};
        std::vector<Holder> ribs{across(615, 0, 700, 40, SupportKind::Rib)};
        for (double y = 30; y < 700; y += 100) ribs[0].holes.push_back(y);
        const PlacedFixings placed = placeOnPanel(panel, {}, ribs);
        QVERIFY(same(held(placed), {{615, 30}, {615, 330}, {615, 615}}));
        for (const FixingPlace& f : placed.places)
            if (f.holds) QCOMPARE(f.bodyHole, f.at.y < 600);
        // Holes in what was cut out of it hold nothing.
        Ring window = rectangle(500, 250, 230, 150);
        std::reverse(window.begin(), window.end());
        const PlacedFixings round = placeOnPanel({{rectangle(0, 0, 1230, 630), window}}, {}, ribs);
        for (const FixingPlace& f : round.places) QVERIFY(f.at.y < 250 || f.at.y > 400 || f.at.x < 500 || f.at.x > 730);
    }

    void nothingIsDrilledIntoCables() {
        const Region panel{{rectangle(0, 0, 1230, 630)}};
        const std::vector<Holder> batten{across(615, 0, 630)};
        FixingRules rules;
        rules.keepOut = {{{rectangle(595, 265, 60, 100)}}};
        const PlacedFixings shifted = placeOnPanel(panel, rules, batten);
        QCOMPARE(shifted.leftOut, 0);
        const std::vector<Point> field = held(shifted, FixingAt::Field);
        QCOMPARE(field.size(), 1UL);
        QCOMPARE(field[0].x, 615.0); // along the batten, the least way out: 50 and a step
        QVERIFY(std::abs(field[0].y - 315) >= 50 && std::abs(field[0].y - 315) < 56);
        // Wires behind all of it: nothing holds it, and that is told.
        rules.keepOut = {{{rectangle(-10, -10, 1300, 700)}}};
        const PlacedFixings none = placeOnPanel(panel, rules, batten);
        QVERIFY(held(none).empty());
        QCOMPARE(none.leftOut, 3);
    }

    void boardsAreHeldWhereTheyCross() {
        const Region board{{rectangle(0, 100, 2000, 120)}};
        const std::vector<Holder> ribs{across(50, 0, 900), across(700, 0, 900), across(1950, 0, 160)};
        // Wide: two beside each other, a quarter in; the last rib ends in its middle and carries it no more.
        QVERIFY(same(held(placeOnBar(board, true, 2, {}, ribs)), {{50, 130}, {50, 190}, {700, 130}, {700, 190}}));
        QVERIFY(same(held(placeOnBar(board, true, 1, {}, ribs)), {{50, 160}, {700, 160}}));
        // One that none of the known supports carries is told so, place by place.
        const std::vector<Holder> elsewhere{across(5000, 0, 900)};
        QVERIFY(held(placeOnBar(board, true, 1, {}, elsewhere)).empty());
        QVERIFY(loose(placeOnBar(board, true, 1, {}, elsewhere)) > 0);
        // Nothing known: 50 from its ends, 1900 / 400 = 5 spaces.
        FixingRules rules;
        rules.field = {400};
        QCOMPARE(held(placeOnBar(board, true, 1, rules, {})).size(), 6UL);
        // A hole of the body within its width is used.
        std::vector<Holder> holed = ribs;
        holed[1].holes = {20, 140, 260};
        QVERIFY(same(held(placeOnBar(board, true, 1, {}, holed)), {{50, 160}, {700, 140}}));
    }

    void clipsStandAsTheyAreCounted() {
        for (const Region& panel : {Region{{rectangle(0, 0, 1000, 600)}}, Region{{bowed(40)}},
                                    Region{{roundedRectangle(0, 0, 900, 500, 140, 96)}}}) {
            int counted = 0;
            for (const ClippedSide& side : clippedSides(panel, {200})) counted += side.clips.count;
            QCOMPARE(static_cast<int>(placeClips(panel, {200}).size()), counted);
        }
    }

    void theWayItIsToldChangesNothing() {
        std::mt19937 dice(7);
        for (int n = 0; n < 200; ++n) {
            const Case c = anyPanel(dice);
            const PlacedFixings placed = placeOnPanel(c.panel, {}, c.holders);
            for (const FixingPlace& f : placed.places) QVERIFY(contains(c.panel, f.at));
            Region begun = c.panel;
            for (Ring& ring : begun.rings)
                std::rotate(ring.begin(), ring.begin() + static_cast<long>(dice() % ring.size()), ring.end());
            std::vector<Holder> shuffled = c.holders;
            std::shuffle(shuffled.begin(), shuffled.end(), dice);
            QVERIFY2(same(held(placed), held(placeOnPanel(begun, {}, shuffled))), qPrintable(QString::number(n)));
            std::vector<Point> there = held(placeOnPanel(mirrored(c.panel), {}, mirrored(c.holders)));
            for (Point& p : there) p.x = -p.x;
            QVERIFY2(same(held(placed), there, 0.1), qPrintable(QString::number(n)));
            // Somewhere else the same.
            Region away = c.panel;
            for (Ring& ring : away.rings)
                for (Point& p : ring) p = p + Point{400, -250};
            std::vector<Holder> along = c.holders;
            for (Holder& h : along) {
                h.centre += h.along ? -250 : 400;
                h.from += h.along ? 400 : -250;
                h.to += h.along ? 400 : -250;
            }
            std::vector<Point> moved = held(placeOnPanel(away, {}, along));
            for (Point& p : moved) p = p - Point{400, -250};
            QVERIFY2(same(held(placed), moved, 0.1), qPrintable(QString::number(n)));
        }
    }

    void aCurveIsOneRunHoweverFinelyItIsDivided() {
        const std::vector<Holder> ribs{across(300, 0, 900), across(1000, 0, 900), across(1700, 0, 900)};
        const std::vector<Point> few = held(placeOnPanel({{bowed(12)}}, {}, ribs));
        QCOMPARE(few.size(), 12UL); // each rib: below, above and 785 or 829 / 300: two between
        for (const int parts : {40, 160, 900}) QVERIFY(same(few, held(placeOnPanel({{bowed(parts)}}, {}, ribs)), 1.5));
    }

    void movingASupportMovesWhatItCarries() {
        const Region panel{{rectangle(0, 0, 2400, 1200)}};
        std::vector<Holder> battens;
        for (const double x : {30.0, 600.0, 1200.0, 1800.0, 2370.0}) battens.push_back(across(x, 0, 1200));
        const PlacedFixings before = placeOnPanel(panel, {}, battens);
        battens[2].centre = 1290;
        const PlacedFixings after = placeOnPanel(panel, {}, battens);
        const auto others = [](const PlacedFixings& p) {
            std::vector<Point> points;
            for (const FixingPlace& f : p.places)
                if (f.holds && f.holder != 2) points.push_back(f.at);
            return points;
        };
        QVERIFY(same(others(before), others(after)));
        QCOMPARE(held(before).size(), held(after).size());
    }

    void strangePanels() {
        QVERIFY(placeOnPanel({}, {}, {}).places.empty());
        QVERIFY(placeOnPanel({{{{0, 0}, {100, 0}}}}, {}, {}).places.empty()); // a line
        // Narrower than its own inset; a hole as large as the panel allows; a support that lies elsewhere.
        for (const Region& panel : {Region{{rectangle(0, 0, 20, 400)}}, Region{{{{0, 0}, {900, 3}, {0, 6}}}}})
            for (const FixingPlace& f : placeOnPanel(panel, {}, {}).places)
                QVERIFY(std::isfinite(f.at.x) && std::isfinite(f.at.y));
        const std::vector<Holder> elsewhere{across(5000, 0, 300)};
        QVERIFY(held(placeOnPanel({{rectangle(0, 0, 800, 300)}}, {}, elsewhere)).empty());
        // A door card asked for a fixing every 10 mm.
        FixingRules dense;
        dense.edge = dense.field = {10};
        QVERIFY(placeOnPanel({{rectangle(0, 0, 900, 1100)}}, dense, {}).places.size() > 380);
    }
};

WESTRUM_TEST(FixingPlacesTest)

#include "fixing_places_test.moc"
