#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/setout/tiling.h"
#include "tests/support/registry.h"
#include "tests/support/surfaces.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Tile tile(double w = 150, double h = 150, double joint = 2) {
    return {
        .width = {w}, .height = {h}, .thickness = {6}, .joint = {joint}, .kerf = {2}, .perPack = 10, .packMass = {3}};
}

SetOutRequest wall(Region region) {
    SetOutRequest r;
    r.outline = std::move(region);
    return r;
}

TileRules plain() {
    TileRules rules;
    rules.gap = {0};
    return rules;
}

int whole(const SetOut& s) {
    return static_cast<int>(
        std::count_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.kind == PieceKind::Whole; }));
}

} // namespace

class TilingTest : public QObject {
    Q_OBJECT
private slots:
    void aSplashbackCentredOnATileAndOnAJoint() {
        // 1240 in tiles of 150 with joints of 2. On a tile: (1240 - 150) / 2 = 545 to each side; three of 152 are 456,
        // 89 are left, less a joint 87: seven whole and two of 87. On a joint: 619 to each side, four of 152 are 608
        // but the last joint is not needed: 11 are left.
        // 600 high: on a tile (600 - 150) / 2 = 225, less 152 are 73, less a joint 71; on a joint 299 - 152 = 147.
        const auto edges = [](TileStart x, TileStart y) {
            TileRules rules = plain();
            rules.startX = x;
            rules.startY = y;
            const SetOut s = setOutTiles(wall(sheetOfSize(1240, 600)), tile(), rules);
            return std::pair(s.firstColumn.value, s.firstRow.value);
        };
        QCOMPARE(edges(TileStart::TileCentred, TileStart::TileCentred), std::pair(87.0, 71.0));
        QCOMPARE(edges(TileStart::JointCentred, TileStart::JointCentred), std::pair(11.0, 147.0));
        TileRules rules = plain();
        rules.startY = TileStart::JointCentred;
        const SetOut s = setOutTiles(wall(sheetOfSize(1240, 600)), tile(), rules);
        QCOMPARE(s.firstColumn.value, 87.0);
        QCOMPARE(s.lastColumn.value, 87.0);
        QCOMPARE(s.firstRow.value, 147.0);
        QCOMPARE(whole(s), 14);
        QCOMPARE(s.pieces.size(), 36U); // 9 columns in 4 rows
        QVERIFY(s.slivers == 0);
    }

    void aRestNoWiderThanTheJointIsNoTile() {
        // Five tiles and four joints are 758: nothing is cut along. 4 x 152 - 2 = 606 high on a joint: nothing either.
        TileRules rules = plain();
        rules.startY = TileStart::JointCentred;
        const SetOut s = setOutTiles(wall(sheetOfSize(758, 606)), tile(), rules);
        QCOMPARE(s.pieces.size(), 20U);
        QCOMPARE(whole(s), 20);
        QCOMPARE(s.figures.stock, 20);
    }

    void tilesAreCountedOnAPolygonWithASocket() {
        const Region net = difference(sheetOfSize(1240, 600), {{roundedRectangle(300, 250, 80, 80, 6)}});
        // The lower left tile lies at 12, -5: columns go on 12 mm short of a whole one, a joint of the rows lies at -6.
        SetOutRequest r = wall(net);
        r.runsOnFrom = -12;
        r.datum = DatumLine{{0, -6}, {1240, -6}};
        TileRules rules = plain();
        rules.startX = rules.startY = TileStart::RunsOn;
        const SetOut grid = setOutTiles(r, tile(), rules);
        QCOMPARE(whole(grid), 12);
        QCOMPARE(grid.pieces.size(), 12U + 28U);
        rules.bond = Bond::Half;
        const SetOut bond = setOutTiles(r, tile(150, 75), rules);
        QCOMPARE(whole(bond), 42);
        QCOMPARE(bond.pieces.size(), 42U + 34U);
    }

    void whatIsLeftOfACutTileServesTheNext() {
        // Columns of 70 at the left and 70 at the right of a wall of one whole column between: 70 + 2 + 70 <= 150, so
        // one tile gives both pieces of a row.
        TileRules rules = plain();
        const SetOut s = setOutTiles(wall(sheetOfSize(70 + 2 + 150 + 2 + 70, 3 * 152 - 2)), tile(), rules);
        QCOMPARE(s.pieces.size(), 9U);
        QCOMPARE(whole(s), 3);
        QCOMPARE(s.stock.size(), 6U); // 3 whole and 3 shared
        rules.reuse = false;
        QCOMPARE(setOutTiles(wall(sheetOfSize(294, 454)), tile(), rules).stock.size(), 9U);
        // With a kerf of 11 the two no longer fit: 70 + 11 + 70 = 151.
        Tile thick = tile();
        thick.kerf = {11};
        QCOMPARE(setOutTiles(wall(sheetOfSize(294, 454)), thick, plain()).stock.size(), 9U);
    }

    void bondsShiftEveryOtherRow() {
        TileRules rules = plain();
        rules.startX = rules.startY = TileStart::LowCorner;
        const auto lefts = [&](Bond bond) {
            rules.bond = bond;
            std::vector<double> x;
            for (const Piece& p : setOutTiles(wall(sheetOfSize(1518, 302 + 152)), tile(), rules).pieces)
                if (p.kind == PieceKind::Whole) {
                    const auto row = static_cast<std::size_t>(p.row);
                    if (x.size() <= row) x.push_back(boundsOf(p.shape).low.x);
                }
            return x;
        };
        QVERIFY((lefts(Bond::Grid) == std::vector<double>{0, 0, 0}));
        QVERIFY((lefts(Bond::Half) == std::vector<double>{0, 76, 0}));
        const auto third = lefts(Bond::Third);
        QVERIFY(std::abs(third[1] - 152 / 3.0) < 1e-9 && std::abs(third[2] - 304 / 3.0) < 1e-9);
    }

    void rowsKeepTheHeightOfTheDatum() {
        SetOutRequest r = wall(sheetOfSize(800, 900));
        r.datum = DatumLine{{0, 400}, {800, 400}};
        TileRules rules = plain();
        rules.startY = TileStart::RunsOn;
        const SetOut s = setOutTiles(r, tile(), rules);
        // A joint lies on it: one row ends at 399, the next begins at 401.
        QVERIFY(
            std::any_of(s.rows.begin(), s.rows.end(), [](const Row& row) { return std::abs(row.low - 401) < 1e-9; }));
        r.datum.reset();
        QVERIFY(has(setOutTiles(r, tile(), rules), RemarkKind::DatumMissing));
    }

    void aRunGoesOnRoundTheCorner() {
        // The neighbour's last tile was cut to 60: the first one here shows the other 90.
        SetOutRequest r = wall(sheetOfSize(800, 900));
        r.runsOnFrom = 60;
        TileRules rules = plain();
        rules.startX = TileStart::RunsOn;
        QCOMPARE(setOutTiles(r, tile(), rules).firstColumn.value, 90.0);
        r.runsOnFrom = 0; // it ended with a whole one
        QCOMPARE(setOutTiles(r, tile(), rules).firstColumn.value, 150.0);
        r.runsOnFrom.reset();
        QVERIFY(has(setOutTiles(r, tile(), rules), RemarkKind::NothingToRunOn));
    }

    void aBorderRowIsLetIn() {
        TileRules rules = plain();
        rules.startY = TileStart::LowCorner;
        rules.borderHeight = {50};
        rules.borderAfter = 2;
        const SetOut s = setOutTiles(wall(sheetOfSize(758, 660)), tile(), rules);
        QCOMPARE(s.rows[1].width(), 150.0);
        QCOMPARE(s.rows[2].width(), 50.0);
        QCOMPARE(s.rows[3].low, 2 * 152.0 + 52);
    }

    /// From the last corner down: the top row is whole whatever is let in below it. 660 - 5 = 655 is the upper edge of
    /// what is tiled (no gap: 660); above the border rows end at 660 and 508, the border of 50 lies under them.
    void aBorderRowBelowLeavesTheLastCornerWhole() {
        TileRules rules = plain();
        rules.startY = TileStart::HighCorner;
        rules.borderHeight = {50};
        rules.borderAfter = 2;
        const SetOut s = setOutTiles(wall(sheetOfSize(758, 660)), tile(), rules);
        QVERIFY(s.rows.size() > 3);
        QVERIFY(std::abs(s.rows.back().high - boundsOf(s.net).high.y) < 1e-6);
        QVERIFY(std::abs(s.rows.back().width() - 150) < 1e-6 && s.rows[2].width() == 50.0);
        QVERIFY(std::abs(s.rows[3].low - s.rows[2].high - 2) < 1e-6);
        // A border above the line changes nothing below it: a tile stays in the middle.
        rules.startY = TileStart::TileCentred;
        rules.borderAfter = 3;
        const SetOut centred = setOutTiles(wall(sheetOfSize(758, 1000)), tile(), rules);
        const double middle = (boundsOf(centred.net).low.y + boundsOf(centred.net).high.y) / 2;
        QVERIFY(std::any_of(centred.rows.begin(), centred.rows.end(), [&](const Row& r) {
            return std::abs((r.low + r.high) / 2 - middle) < 1e-6 && std::abs(r.width() - 150) < 1e-6;
        }));
        QVERIFY(centred.figures.offCentre.value < 1e-6);
    }

    void cutsUnderTheRuleAreTold() {
        TileRules rules = plain();
        rules.startX = TileStart::LowCorner;
        const SetOut s = setOutTiles(wall(sheetOfSize(5 * 152 + 30, 454)), tile(), rules);
        QCOMPARE(s.slivers, 3); // a column of 30 in three rows
        QVERIFY(has(s, RemarkKind::CutTileSliver));
        rules.leastCut = 0.1;
        QCOMPARE(setOutTiles(wall(sheetOfSize(790, 454)), tile(), rules).slivers, 0);
    }

    void groutFillsTheJointsOfAllThatIsTiled() {
        // 1 m2 of chips of 23.17 with joints of 2, 4 deep: a pitch of 25.17, share 1 - (23.17 / 25.17)2 = 0.15260,
        // x 4 x 1.6 = 0.9766 kg; the mesh they come on has no joints of its own.
        SetOut tiled;
        tiled.net = {{westrum::rectangle(0, 0, 1000, 1000)}};
        tiled.jointWidth = {2};
        Tile mosaic{.width = {300}, .height = {300}, .thickness = {4}, .joint = {2}};
        mosaic.chipWidth = mosaic.chipHeight = {23.17};
        QVERIFY(std::abs(groutFor(tiled, mosaic).value - 0.9766) < 1e-4);
        // 150 x 150, joint 2, 6 deep: share 1 - (150 / 152)2 = 0.026143 of the whole square metre: 0.25097 kg.
        const Tile tile{.width = {150}, .height = {150}, .thickness = {6}, .joint = {2}};
        QVERIFY(std::abs(groutFor(tiled, tile).value - 0.25097) < 1e-5);
        // A window is not tiled; a set-out of a wall says the same as its area.
        tiled.net.rings.push_back({{0, 0}, {0, 500}, {500, 500}, {500, 0}});
        QVERIFY(std::abs(groutFor(tiled, tile).value - 0.75 * 0.25097) < 1e-5);
    }

    void groutIsOverstatedByTheFormula() {
        // 150 x 150, joint 2, 6 deep, 1.8 kg/dm3: joints take 1 - 22500 / 23104 = 2.614 % of the area.
        QVERIFY(std::abs(groutKgPerM2({150}, {150}, {2}, {6}, 1.8) - 0.282341) < 1e-6);
        QVERIFY(std::abs(groutByFormulaKgPerM2({150}, {150}, {2}, {6}, 1.8) - 0.288) < 1e-9);
    }

    void whatCannotBeIsSaidInRemarks() {
        QVERIFY(has(setOutTiles(wall(sheetOfSize(90, 80)), tile(), plain()), RemarkKind::TileLargerThanSurface));
        QVERIFY(has(setOutTiles(wall(sheetOfSize(20000, 20000)), tile(20, 20), plain()), RemarkKind::TooManyPieces));
        TileRules gap;
        gap.gap = {600};
        QVERIFY(has(setOutTiles(wall(sheetOfSize(1000, 900)), tile(), gap), RemarkKind::NothingLeftInsideGap));
        SetOutRequest r = wall(sheetOfSize(500, 500));
        r.product = {"t", "tiles", "T", "", {}, {{"width", 15}, {"height", 15}}};
        r.rules = {{"joint", 16}};
        const SetOut s = findFamily("tiles")->setOut(r, {});
        QVERIFY(!s.laid() && has(s, RemarkKind::FieldOutOfRange));
    }

    /// Of all ways tried none has more even edges, or needs fewer tiles, than those suggested for it.
    void suggestionsEqualTryingEverything() {
        std::mt19937 dice(3);
        for (int round = 0; round < 6; ++round) {
            SetOutRequest r = wall(sheetOfSize(500 + dice() % 900, 400 + dice() % 600));
            r.product = {"t", "tiles", "T", "", {}, {{"width", 80.0 + dice() % 120}, {"height", 60.0 + dice() % 90}}};
            const auto all = findFamily("tiles")->choices(r, {});
            const auto suggested = suggestStarts(all, 12);
            QVERIFY(!suggested.empty());
            int fewest = 1 << 20;
            for (const StartChoice& c : all)
                if (c.stock > 0 && (c.fair || !suggested.front().choice.fair))
                    fewest = std::min(fewest, (c.stock + 11) / 12);
            bool found = false;
            for (const Suggestion& s : suggested) found = found || (s.choice.stock + 11) / 12 == fewest;
            QVERIFY(found);
        }
    }
};
WESTRUM_TEST(TilingTest)

#include "tiling_test.moc"
