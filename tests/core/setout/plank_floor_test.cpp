#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/setout/plank_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Region box(double w, double h) { return {{{{0, 0}, {w, 0}, {w, h}, {0, h}}}}; }

Plank plank(double length, double width) {
    return {.length = {length}, .width = {width}, .thickness = {5}, .perPack = 10, .packMass = {18}};
}

bool has(const SetOut& s, RemarkKind kind) {
    return std::any_of(s.remarks.begin(), s.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
}

double offcutArea(const SetOut& s) {
    double sum = 0;
    for (const StockUnit& u : s.stock)
        for (const Offcut& o : u.offcuts) sum += o.length.value * o.width.value;
    return sum;
}

} // namespace

class PlankFloorTest : public QObject {
    Q_OBJECT
private slots:
    /// A floor and the same with its ends exchanged take as many planks, wherever both are proved to be the fewest;
    /// what is laid is the same area.
    void theHandChangesNothingThatIsProved() {
        std::mt19937 dice(21);
        int proved = 0;
        for (int round = 0; round < 90; ++round) {
            const MeasuredOutline m = outlineOf(anyFloor(dice));
            Region other = m.outline;
            for (Ring& ring : other.rings) {
                for (Point& p : ring) p.x = -p.x;
                std::reverse(ring.begin(), ring.end());
            }
            const Plank goods = plankOf(plankProduct(1285, 192, 9, 3000));
            const PlankRules rules{.gap = {8}, .startOffset = {static_cast<double>(dice() % 150)}};
            const SetOut a = setOutPlanks(m.outline, goods, rules), b = setOutPlanks(other, goods, rules);
            QVERIFY(std::abs(a.laidArea().value - b.laidArea().value) < 1e-6);
            // Before strips of ripped planks serve again: which do, hangs on where the rows' pieces end.
            if (a.stockWithoutRipReuse != a.leastStock || b.stockWithoutRipReuse != b.leastStock) continue;
            ++proved;
            QCOMPARE(a.stockWithoutRipReuse, b.stockWithoutRipReuse);
        }
        QVERIFY2(proved > 20, qPrintable(QString::number(proved)));
    }

    /// A wheel arch of 800 x 240 from 500 on: the plank beside it has the bite told on it, from its own end and its
    /// near edge; whole planks have none.
    void anArchIsToldOnItsPlank() {
        Measurement m = rectangle(3000, 1200);
        m.notches = {notch(0, 500, 800, 240)};
        const Plank goods = plankOf(plankProduct(1285, 200, 9, 3000));
        const SetOut s = setOutPlanks(outlineOf(m).outline, goods, {.gap = {0}});
        double bitten = 0;
        for (const Piece& p : s.pieces) {
            QCOMPARE(p.cutAway.empty(), !p.notched);
            if (!p.notched) continue;
            bitten += areaMm2(p.cutAway);
            QVERIFY(std::abs(areaMm2(p.cutAway) + areaMm2(p.shape) - p.length.value * p.width.value) < 60);
            const Bounds b = boundsOf(p.cutAway), lies = boundsOf(p.shape);
            QVERIFY(b.low.x > -0.01 && b.high.x < p.length.value + 0.01 && b.low.y > -0.01);
            // In the second row the arch goes 40 in from the near edge.
            if (p.row == 1) QVERIFY(std::abs(b.high.y - 40) < 0.01 && b.low.y < 0.01);
            if (p.row == 1 && p.narrowest.value > 0 && lies.low.x < 500 && lies.high.x > 500)
                QVERIFY(std::abs(b.low.x - (500 - lies.low.x)) < 0.01);
        }
        QVERIFY(bitten > 1000);
    }

    void aFullFirstRowLeavesTheRestToTheLast() {
        // 1404 mm to cover with planks of 180: seven rows are 1260, the eighth has 144.
        const auto rows = plankRows(8, 1404, 180, 180);
        QCOMPARE(rows.size(), std::size_t{8});
        QCOMPARE(rows.front().width(), 180.0);
        QVERIFY(std::abs(rows.back().width() - 144) < 1e-9);
        QVERIFY(std::abs(rows.back().high - 1412) < 1e-9);
    }

    void anExactFitHasAFullLastRow() {
        // 8 x 180 = 1440: no row of nothing at the end.
        const auto rows = plankRows(0, 1440, 180, 180);
        QCOMPARE(rows.size(), std::size_t{8});
        QVERIFY(std::abs(rows.back().width() - 180) < 1e-9);
    }

    void oneRowCoversANarrowStrip() {
        const auto rows = plankRows(0, 150, 180, 180);
        QCOMPARE(rows.size(), std::size_t{1});
        QCOMPARE(rows.front().width(), 150.0);
        QCOMPARE(equalEdgeRow(150, 180), 150.0);
        QVERIFY(!fairFirstRows(150, 180));
    }

    void equalEdgesAndTheFairRange() {
        // 1740 mm, planks 192: ten rows; 9 x 192 = 1728 leaves a sliver of 12. Equal: (1740 - 8 x 192) / 2 = 102.
        QVERIFY(std::abs(equalEdgeRow(1740, 192) - 102) < 1e-9);
        const auto fair = fairFirstRows(1740, 192);
        QVERIFY(fair.has_value());
        QVERIFY(std::abs(fair->least - 64) < 1e-9);                   // a third
        QVERIFY(std::abs(fair->most - (1740 - 8 * 192 - 64)) < 1e-9); // the last row keeps a third: 140
    }

    void aSliverIsRemarkedAndASuggestionMendsIt() {
        const Plank p = plank(1285, 192);
        const PlankRules rules{.gap = {10}};
        const SetOut s = setOutPlanks(box(3000, 1760), p, rules);
        QVERIFY(std::abs(s.lastRow.value - 12) < 1e-6);
        QVERIFY(has(s, RemarkKind::EdgeRowSliver));
        const auto starts = plankStarts(box(3000, 1760), p, rules);
        const auto suggestions = suggestStarts(starts, p.perPack);
        QVERIFY(!suggestions.empty());
        QVERIFY(suggestions.front().choice.fair);
        // 90 mm ripped off leaves 102 and 102.
        QCOMPARE(suggestions.front().choice.startOffset.value, 90.0);
        PlankRules mended = rules;
        mended.startOffset = suggestions.front().choice.startOffset;
        QVERIFY(!has(setOutPlanks(box(3000, 1760), p, mended), RemarkKind::EdgeRowSliver));
    }

    void theStripShowsWhatTheSetOutThenGives() {
        const Plank p = plank(1220, 181);
        const Region floor = outlineOf(fourSides(3640, 1785, 3628, 1792, 4049)).outline;
        const auto starts = plankStarts(floor, p, {});
        QCOMPARE(starts.size(), std::size_t{181});
        for (std::size_t i = 0; i < starts.size(); i += 13) {
            PlankRules rules;
            rules.startOffset = starts[i].startOffset;
            const SetOut s = setOutPlanks(floor, p, rules);
            QCOMPARE(static_cast<int>(s.stock.size()), starts[i].stock);
            QCOMPARE(s.firstRow.value, starts[i].firstRow.value);
            QCOMPARE(s.lastRow.value, starts[i].lastRow.value);
            QCOMPARE(s.slivers, starts[i].slivers);
        }
    }

    void aNotchSplitsARowAndBitesIntoTheNext() {
        // Arch 800 x 200 in the first row of 180: the row is split, the second row loses 20 mm beside it.
        Measurement m = rectangle(3000, 1800);
        m.notches = {notch(0, 1000, 800, 200)};
        const SetOut s = setOutPlanks(outlineOf(m).outline, plank(1200, 180), {.gap = {0}, .endLeast = {200}});
        QVERIFY(s.laid());
        double narrowest = 1e9;
        for (const Piece& p : s.pieces) {
            if (p.row == 0) QVERIFY(boundsOf(p.shape).high.x <= 1000 + 1e-6 || boundsOf(p.shape).low.x >= 1800 - 1e-6);
            if (p.row == 1 && p.notched) narrowest = std::min(narrowest, p.narrowest.value);
        }
        QVERIFY(std::abs(narrowest - 160) < 0.01);
        QCOMPARE(s.slivers, 0);
    }

    void aSliverBesideANotchIsCounted() {
        // An arch 210 deep takes 190 - 180 ... of the second row of 180: 360 - 330 = 30 mm are left beside it.
        Measurement m = rectangle(3000, 1800);
        m.notches = {notch(0, 1000, 800, 330)};
        const SetOut s = setOutPlanks(outlineOf(m).outline, plank(1200, 180), {.gap = {0}, .endLeast = {200}});
        QVERIFY(s.slivers >= 1);
        QVERIFY(has(s, RemarkKind::CutoutSliver));
    }

    void rowsAcrossAreRowsAlongOfTheTurnedFloor() {
        Measurement m = rectangle(2600, 900);
        m.steps = {{"Well", 1, mm(400), mm(150)}};
        const Region floor = outlineOf(m).outline;
        const SetOut across =
            setOutPlanks(floor, plank(600, 331), {.across = true, .gap = {8}, .stagger = {150}, .endLeast = {120}});
        const SetOut along =
            setOutPlanks(transposed(floor), plank(600, 331), {.gap = {8}, .stagger = {150}, .endLeast = {120}});
        QCOMPARE(across.stock.size(), along.stock.size());
        QCOMPARE(across.pieces.size(), along.pieces.size());
        for (std::size_t i = 0; i < across.pieces.size(); ++i)
            QVERIFY(std::abs(areaMm2(across.pieces[i].shape) - areaMm2(along.pieces[i].shape)) < 0.01);
    }

    void onePlankRippedServesFirstAndLastRow() {
        // 1500 x 560 with planks 1300 x 200 and no gap: offset 120 leaves a first row of 80, two full, a last of 80:
        // 80 + 80 + 3 <= 200, so the planks of the first row serve the last one too.
        const Plank p = plank(1300, 200);
        PlankRules rules{.gap = {0}, .startOffset = {120}, .stagger = {200}, .endLeast = {100}};
        const SetOut shared = setOutPlanks(box(1500, 560), p, rules);
        rules.ripReuse = false;
        const SetOut apart = setOutPlanks(box(1500, 560), p, rules);
        QVERIFY(shared.stock.size() < apart.stock.size());
        QCOMPARE(shared.stockWithoutRipReuse, static_cast<int>(apart.stock.size()));
        for (const StockUnit& u : shared.stock) {
            if (!u.rippedInTwo) continue;
            bool first = false, last = false;
            for (int id : u.pieces) {
                const Piece& piece = shared.pieces[static_cast<std::size_t>(id)];
                first = first || piece.row == 0;
                last = last || piece.row == 3;
                // The lock stays towards the rows: far edge in the first row, near edge in the last.
                if (piece.row == 0) QVERIFY(piece.factory.far && !piece.factory.near);
                if (piece.row == 3) QVERIFY(piece.factory.near && !piece.factory.far);
            }
            QVERIFY(first && last);
        }
        // 140 and 20 do not fit side by side with a sliver of a third: no sharing when too wide.
        rules.ripReuse = true;
        rules.startOffset = {40};
        const SetOut wide = setOutPlanks(box(1500, 560), p, rules);
        QVERIFY(wide.firstRow.value == 160);
    }

    void badFiguresAreTold() {
        QVERIFY(has(setOutPlanks(box(1500, 560), plank(1300, 200), {.gap = {300}}), RemarkKind::NothingLeftInsideGap));
        QVERIFY(has(setOutPlanks(box(1500, 150), plank(1300, 200), {.gap = {5}}), RemarkKind::PlankWiderThanFloor));
        QVERIFY(
            has(setOutPlanks(box(1500, 560), plank(1300, 200), {.startOffset = {200}}), RemarkKind::FieldOutOfRange));
        QVERIFY(has(setOutPlanks(box(20000, 20000), plank(100, 40), {}), RemarkKind::TooManyPieces));
        const SetOut relaxed = setOutPlanks(box(6000, 2000), plank(1200, 200), {.stagger = {900}});
        QVERIFY(has(relaxed, RemarkKind::RowsCannotBeLaid));
        QVERIFY(relaxed.laid());
        Plank label = plank(1200, 200);
        label.movementGap = {8};
        label.leastStagger = {400};
        const SetOut below = setOutPlanks(box(3000, 1500), label, {.gap = {5}, .stagger = {300}});
        QVERIFY(has(below, RemarkKind::GapBelowProduct));
        QVERIFY(has(below, RemarkKind::EndStaggerBelowLabel));
    }

    /// What holds of every floor: the pieces cover the net area, do not overlap, and with kerfs and offcuts make up
    /// the planks.
    void everySetOutAddsUp() {
        std::mt19937 dice(41);
        int laid = 0;
        for (int round = 0; round < 60; ++round) {
            const Measurement m = anyFloor(dice);
            const Plank p = plank(600 + dice() % 900, 120 + dice() % 150);
            PlankRules rules;
            rules.across = dice() % 3 == 0;
            rules.gap = {double(dice() % 12)};
            rules.startOffset = {double(dice() % 110)};
            rules.stagger = {150};
            rules.endLeast = {150};
            rules.working = dice() % 2 ? Working::AsYouGo : Working::PlannedAhead;
            rules.ripReuse = dice() % 2;
            const QString where = QStringLiteral("seed 41, round %1").arg(round);
            const Region outline = outlineOf(m).outline;
            QVERIFY2(!outline.empty(), qPrintable(where));
            const SetOut s = setOutPlanks(outline, p, rules);
            QVERIFY2(s.laid() || !s.remarks.empty(), qPrintable(where));
            if (!s.laid()) continue;
            ++laid;
            double covered = 0;
            for (const Piece& piece : s.pieces) {
                covered += areaMm2(piece.shape);
                QVERIFY2(piece.length.value <= p.length.value + 1e-6 && piece.width.value <= p.width.value + 1e-6,
                         qPrintable(where));
                QVERIFY2(areaMm2(piece.shape) <= piece.length.value * piece.width.value + 1, qPrintable(where));
            }
            // Bands of less than 1 mm2 are not laid.
            QVERIFY2(std::abs(covered - areaMm2(s.net)) < 1.0 * static_cast<double>(s.rows.size()) + 1,
                     qPrintable(where));
            for (std::size_t a = 0; a < s.pieces.size(); ++a)
                for (std::size_t b = a + 1; b < std::min(s.pieces.size(), a + 4); ++b)
                    QVERIFY2(areaMm2(intersection(s.pieces[a].shape, s.pieces[b].shape)) < 0.01, qPrintable(where));
            // Each piece is on exactly one plank, and that plank knows it.
            std::vector<int> seen(s.pieces.size(), 0);
            for (std::size_t u = 0; u < s.stock.size(); ++u)
                for (int id : s.stock[u].pieces) {
                    ++seen[static_cast<std::size_t>(id)];
                    QCOMPARE(s.pieces[static_cast<std::size_t>(id)].stock, static_cast<int>(u));
                }
            QVERIFY2(std::all_of(seen.begin(), seen.end(), [](int n) { return n == 1; }), qPrintable(where));
            // Pieces, offcuts and kerfs never exceed the planks opened, and what is unaccounted is sawdust and shaping.
            double pieces = 0;
            for (const Piece& piece : s.pieces) pieces += piece.length.value * piece.width.value;
            const double stock = static_cast<double>(s.stock.size()) * p.length.value * p.width.value;
            QVERIFY2(pieces + offcutArea(s) <= stock + 1, qPrintable(where));
            int cuts = 0;
            for (const StockUnit& u : s.stock) cuts += static_cast<int>(u.cuts.size());
            const double sawdust =
                (cuts + static_cast<double>(s.pieces.size())) * (rules.kerf.value + 1) * p.length.value;
            QVERIFY2(pieces + offcutArea(s) + sawdust >= stock, qPrintable(where));
            QVERIFY2(s.leastStock <= s.stockWithoutRipReuse &&
                         static_cast<int>(s.stock.size()) <= s.stockWithoutRipReuse,
                     qPrintable(where));
        }
        QVERIFY(laid > 50);
    }

    void aFactoryEdgeIsWhereTheSawDidNotGo() {
        const SetOut s = setOutPlanks(box(3000, 1760), plank(1285, 192), {.gap = {10}, .startOffset = {90}});
        const int rows = static_cast<int>(s.rows.size());
        for (const Piece& p : s.pieces) {
            if (p.kind == PieceKind::Whole) QVERIFY(p.factory.left && p.factory.right);
            if (p.kind == PieceKind::First) QVERIFY(p.factory.right && !p.factory.left);
            if (p.kind == PieceKind::Last) QVERIFY(p.factory.left && !p.factory.right);
            QCOMPARE(p.factory.near, p.row != 0);
            QCOMPARE(p.factory.far, p.row != rows - 1);
        }
    }

    void suggestionsAreNeverWorseInEverything() {
        std::mt19937 dice(43);
        for (int round = 0; round < 3; ++round) {
            const Region outline = outlineOf(anyFloor(dice)).outline;
            const auto starts = plankStarts(outline, plank(900, 140), {.stagger = {150}, .endLeast = {150}});
            const auto suggestions = suggestStarts(starts, 8);
            QVERIFY(suggestions.size() <= 3);
            const bool anyFair =
                std::any_of(starts.begin(), starts.end(), [](const StartChoice& c) { return c.fair && c.stock > 0; });
            for (std::size_t a = 0; a < suggestions.size(); ++a) {
                QCOMPARE(suggestions[a].choice.fair, anyFair);
                for (std::size_t b = 0; b < a; ++b) {
                    const StartChoice &x = suggestions[a].choice, &y = suggestions[b].choice;
                    QVERIFY(x.stock < y.stock || x.slivers < y.slivers ||
                            std::abs((x.firstRow - x.lastRow).value) < std::abs((y.firstRow - y.lastRow).value) + 1);
                }
            }
        }
    }
};
WESTRUM_TEST(PlankFloorTest)

#include "plank_floor_test.moc"
