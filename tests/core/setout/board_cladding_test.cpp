#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/setout/board_cladding.h"
#include "core/setout/lamp_rows.h"
#include "tests/support/registry.h"
#include "tests/support/surfaces.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Board board(double cover = 96, double overall = 104, double length = 3000) {
    return {
        .length = {length}, .overall = {overall}, .cover = {cover}, .thickness = {9}, .kerf = {3}, .massKgPerM2 = 4};
}

SetOutRequest surface(Region region) {
    SetOutRequest r;
    r.outline = std::move(region);
    return r;
}

} // namespace

class BoardCladdingTest : public QObject {
    Q_OBJECT
private slots:
    void aBoardOnTheCentreLeavesFairEdges() {
        // Width 1798, gaps of 5: 1788 to cover in covers of 96. On a board: (1788 - 96) / 2 = 846 to each side, 8 whole
        // boards of 768 and 78 at the edge: 19 rows. On a joint: 894, 9 whole boards of 864 and 30: 20 rows.
        BoardRules rules;
        SetOut s = setOutBoards(surface(sheetOfSize(2000, 1798)), board(), rules);
        QCOMPARE(s.rows.size(), 19U);
        QCOMPARE(s.firstRow.value, 78.0);
        QCOMPARE(s.lastRow.value, 78.0);
        QCOMPARE(s.figures.offCentre.value, 0.0);
        rules.start = BoardStart::JointCentred;
        s = setOutBoards(surface(sheetOfSize(2000, 1798)), board(), rules);
        QCOMPARE(s.rows.size(), 20U);
        QCOMPARE(s.firstRow.value, 30.0);
        QVERIFY(has(s, RemarkKind::EdgeBelowThird)); // 30 < 32
    }

    void edgeBoardsAreRippedByTheirSide() {
        // Visible 78 on both sides. Tongues point to the last row: its tongue is off, 78; the first keeps its own: 86.
        const SetOut s = setOutBoards(surface(sheetOfSize(2000, 1798)), board(), {});
        QCOMPARE(s.pieces.front().ripAtStart.value, 86.0);
        QCOMPARE(s.pieces.back().ripAtStart.value, 78.0);
        QCOMPARE(s.pieces[1].ripAtStart.value, 0.0);
        BoardRules other;
        other.tongueTowardsLast = false;
        QCOMPARE(setOutBoards(surface(sheetOfSize(2000, 1798)), board(), other).pieces.front().ripAtStart.value, 78.0);
    }

    /// A wall that rises from 30 to 150 over the last board's lower edge, on boards of cover 80 and overall 88, 2000
    /// long: all of a board is seen from (80 - 30) / 120 x 2000 = 833 on, and there the saw runs out of it.
    void aTaperRunsOutOfItsBoard() {
        BoardRules rules;
        rules.gap = {0};
        rules.start = BoardStart::FirstEdge;
        const Region wall{{{{0, 0}, {2000, 0}, {2000, 470}, {0, 350}}}};
        const SetOut s = setOutBoards(surface(wall), board(80, 88), rules);
        const auto last = std::find_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.row == 4; });
        QVERIFY(last != s.pieces.end());
        QVERIFY2(std::abs(last->ripAtStart.value - 30) < 1e-6, qPrintable(QString::number(last->ripAtStart.value)));
        QVERIFY(std::abs(last->ripAtEnd.value - 88) < 1e-6);
        QVERIFY(last->ripFrom.value == 0 && std::abs(last->ripTo.value - 50.0 / 120 * 2000) < 0.01);
        // The same wall from its other end: the cut begins where it ended.
        const Region turned{{{{0, 0}, {2000, 0}, {2000, 350}, {0, 470}}}};
        const SetOut back = setOutBoards(surface(turned), board(80, 88), rules);
        const auto same =
            std::find_if(back.pieces.begin(), back.pieces.end(), [](const Piece& p) { return p.row == 4; });
        QVERIFY(same != back.pieces.end() && std::abs(same->ripFrom.value - (2000 - 50.0 / 120 * 2000)) < 0.01);
        QVERIFY(std::abs(same->ripTo.value - 2000) < 1e-6 && std::abs(same->ripAtEnd.value - 30) < 1e-6);
    }

    /// A notch of 300 x 30 in the lower edge of the third board (cover 80, tongue 8 towards the last row): from 500 to
    /// 800, 30 in from its groove. With tongues towards the first row it goes through the tongue: 38.
    void aNotchIsToldOnItsBoard() {
        BoardRules rules;
        rules.gap = {0};
        rules.start = BoardStart::FirstEdge;
        const Region wall{
            {{{0, 0}, {2000, 0}, {2000, 400}, {0, 400}}, {{500, 160}, {500, 190}, {800, 190}, {800, 160}}}};
        for (const bool towardsLast : {true, false}) {
            rules.tongueTowardsLast = towardsLast;
            const SetOut s = setOutBoards(surface(wall), board(80, 88), rules);
            const auto third =
                std::find_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.row == 2; });
            QVERIFY(third != s.pieces.end() && third->notched);
            const Bounds b = boundsOf(third->cutAway);
            QVERIFY(std::abs(b.low.x - 500) < 0.01 && std::abs(b.high.x - 800) < 0.01);
            QVERIFY(std::abs(b.low.y) < 0.01 && std::abs(b.high.y - (towardsLast ? 30 : 38)) < 0.01);
        }
    }

    void fifteenCoversExactlyRipNothing() {
        BoardRules rules;
        rules.gap = {0};
        const SetOut s = setOutBoards(surface(sheetOfSize(1000, 1440)), board(), rules); // 15 x 96
        QCOMPARE(s.rows.size(), 15U);
        for (const Piece& p : s.pieces) QCOMPARE(p.ripAtStart.value, 0.0);
    }

    void theVisiblePartHasItsOwnCentre() {
        SetOutRequest r = surface(sheetOfSize(2000, 1000));
        r.visibleCentreY = 620; // the lower part is hidden
        BoardRules rules;
        rules.start = BoardStart::JointCentred;
        const auto joinsAt = [&](double y) {
            const SetOut s = setOutBoards(r, board(), rules);
            return std::any_of(s.rows.begin(), s.rows.end(),
                               [&](const Row& row) { return std::abs(row.high - y) < 1e-9; });
        };
        QVERIFY(joinsAt(620));
        rules.centre = CentreRule::Surface;
        QVERIFY(joinsAt(500) && !joinsAt(620));
        // Between two roof vents whose middles lie at 400 and 480.
        rules.centre = CentreRule::TwoOpenings;
        r.openings = {openingAt(OpeningKind::RoofVent, 300, 300, 200, 200),
                      openingAt(OpeningKind::RoofVent, 1300, 380, 200, 200)};
        QVERIFY(joinsAt(440));
        r.openings.pop_back();
        QVERIFY(has(setOutBoards(r, board(), rules), RemarkKind::CentreOpeningsMissing));
    }

    void aTaperIsSharedByTheLastBoards() {
        // 1445 at one end, 1417 at the other; covers of 96, four boards share: 12 whole rows are 1152, so each of the
        // four shows (1445 - 1152) / 4 = 73.25 at one end and (1417 - 1152) / 4 = 66.25 at the other.
        const Taper t = taperOver(1445, 1417, 96, 4, 48);
        QCOMPARE(t.rows, 16);
        QCOMPARE(t.atWide.value, 73.25);
        QCOMPARE(t.atNarrow.value, 66.25);
        QVERIFY(t.fair && t.leastBoards == 3);
        QVERIFY(!taperOver(1445, 1417, 96, 1, 48).fair); // 5 mm at one end, nothing at the other

        BoardRules rules;
        rules.gap = {0};
        rules.start = BoardStart::FirstEdge;
        rules.taperBoards = 4;
        const Region tapered{{{{0, 0}, {2000, 0}, {2000, 1417}, {0, 1445}}}};
        const SetOut s = setOutBoards(surface(tapered), board(), rules);
        QCOMPARE(s.rows.size(), 16U);
        for (std::size_t r = 12; r < 16; ++r) {
            const Piece& p = s.pieces[r];
            const double tongue = 0; // tongues point to the last row: nothing is added
            QVERIFY(std::abs(p.ripAtStart.value - 73.25 - tongue) < 1e-6);
            QVERIFY(std::abs(p.ripAtEnd.value - 66.25 - tongue) < 1e-6);
        }
        QVERIFY(has(s, RemarkKind::TaperLosesLock) && !has(s, RemarkKind::TaperTooNarrow));
        // In one board it ends in nothing, and how many would do is said: (1417 - 1344) / 2 = 36.5 > 32.
        rules.taperBoards = 1;
        const SetOut one = setOutBoards(surface(tapered), board(), rules);
        const Remark* narrow = remark(one, RemarkKind::TaperTooNarrow);
        QVERIFY(narrow && narrow->fix && narrow->fix->value == 2.0);
    }

    void linesRunThroughFromTheDatum() {
        // The datum crosses this wall at 400 on the left and 410 on the right, 2000 apart: a joint lies along it.
        SetOutRequest r = surface(sheetOfSize(2000, 900));
        r.datum = DatumLine{{0, 400}, {2000, 410}};
        BoardRules rules;
        rules.start = BoardStart::Datum;
        const SetOut s = setOutBoards(r, board(), rules);
        bool lies = false;
        for (const Piece& p : s.pieces)
            for (const Point c : p.shape.rings.front()) lies = lies || std::abs(c.y - (400 + c.x * 10 / 2000)) < 1e-6;
        QVERIFY(lies);
        // A wall further on, whose datum lies elsewhere in its own coordinates, has its joints on the same lines.
        SetOutRequest next = surface(sheetOfSize(700, 500));
        next.datum = DatumLine{{0, -150}, {700, -150}}; // passes below it
        const SetOut t = setOutBoards(next, board(), rules);
        for (std::size_t i = 1; i < t.rows.size(); ++i) {
            const double from = (t.rows[i].low + 150) / 96;
            QVERIFY(std::abs(from - std::round(from)) < 1e-9);
        }
        next.datum.reset();
        QVERIFY(has(setOutBoards(next, board(), rules), RemarkKind::DatumMissing));
    }

    void aMitredReturnMakesBoardsLonger() {
        // 9 mm boards onto a strip at 45 degrees: each end is longer by 9 tan 22.5 = 3.728 mm.
        BoardRules rules;
        const double square = setOutBoards(surface(sheetOfSize(2000, 500)), board(), rules).pieces[0].length.value;
        rules.returns = BoardReturn::Mitred;
        const double mitred = setOutBoards(surface(sheetOfSize(2000, 500)), board(), rules).pieces[0].length.value;
        QVERIFY(std::abs(mitred - square - 2 * 3.7279) < 1e-3);
        rules.returns = BoardReturn::Coped;
        QCOMPARE(setOutBoards(surface(sheetOfSize(2000, 500)), board(), rules).pieces[0].length.value, square + 18);
    }

    void boardsFitRoundOpeningsOrCoverThem() {
        const Region whole = sheetOfSize(2000, 960);
        SetOutRequest cut = surface(difference(whole, {{rectangle(800, 400, 400, 200)}}));
        SetOutRequest covered = surface(whole);
        const SetOut round = setOutBoards(cut, board(), {}), over = setOutBoards(covered, board(), {});
        QVERIFY(round.pieces.size() > over.pieces.size()); // rows beside the opening are two pieces
        QVERIFY(std::any_of(round.pieces.begin(), round.pieces.end(), [](const Piece& p) { return p.notched; }));
        QVERIFY(std::none_of(over.pieces.begin(), over.pieces.end(), [](const Piece& p) { return p.notched; }));
    }

    void lampsLieOnRowsEvenInWhatIsSeen() {
        // Rows of 100 on a ceiling of 1000 centred on a board: middles at 100, 200 ... 900. Lamps at 235 and 790 go to
        // 200 and 800: both 300 from the centre at 500. Along, they are centred on 1000: from 700 and 1400, by -50.
        SetOutRequest r = surface(sheetOfSize(2000, 1000));
        r.openings = {openingAt(OpeningKind::Lamp, 665, 200, 70, 70, Treatment::CoverAndRout, 0),
                      openingAt(OpeningKind::Lamp, 1365, 755, 70, 70, Treatment::CoverAndRout, 1)};
        BoardRules rules;
        rules.gap = {0};
        const SetOut s = setOutBoards(r, board(100, 108), rules);
        QVERIFY(has(s, RemarkKind::LampOffRow));
        const auto places = lampsOnRows(s, r.openings, 1000);
        QCOMPARE(places.size(), 2U);
        QCOMPARE(places[0].centre.y, 200.0);
        QCOMPARE(places[1].centre.y, 800.0);
        QCOMPARE(places[0].centre.x, 650.0);
        QCOMPARE(places[1].centre.x, 1350.0);
        QVERIFY(lampsOnRows(SetOut{}, r.openings, 1000).empty());
    }

    void whatCannotBeIsSaidInRemarks() {
        QVERIFY(has(setOutBoards(surface(sheetOfSize(2000, 60)), board(), {}), RemarkKind::BoardWiderThanSurface));
        BoardRules rules;
        rules.gap = {700};
        QVERIFY(has(setOutBoards(surface(sheetOfSize(2000, 900)), board(), rules), RemarkKind::NothingLeftInsideGap));
        const SetOut longRows = setOutBoards(surface(sheetOfSize(4200, 900)), board(), {});
        QVERIFY(has(longRows, RemarkKind::RunLongerThanStock) && has(longRows, RemarkKind::NoSupports));
        QVERIFY(longRows.laid()); // all the same
        QVERIFY(
            has(setOutBoards(surface(sheetOfSize(20000, 20000)), board(20, 24, 200), {}), RemarkKind::TooManyPieces));
        // A cover wider than the board is no board.
        const Product odd{"odd", "boards", "Odd", "", {}, {{"cover", 120}, {"overall", 100}}};
        SetOutRequest r = surface(sheetOfSize(2000, 900));
        r.product = odd;
        const SetOut s = findFamily("boards")->setOut(r, {});
        QVERIFY(!s.laid() && has(s, RemarkKind::FieldOutOfRange));
        // A very thin triangle is laid as far as it goes.
        QVERIFY(setOutBoards(surface({{{{0, 0}, {3000, 0}, {0, 40}}}}), board(), {}).rows.size() <= 1);
    }

    /// Suggestions: as good as the best of all choices in what they are suggested for.
    void noChoiceIsBetterThanWhatIsSuggested() {
        std::mt19937 dice(5);
        for (int round = 0; round < 6; ++round) {
            SetOutRequest r = surface(anySurface(dice));
            r.product = {"b", "boards", "B",
                         "",  {},       {{"cover", 60.0 + dice() % 60}, {"overall", 130}, {"length", 2600}}};
            r.supports = supportsAt({300, 900, 1500, 2100, 2700, 3300}, false);
            const auto all = findFamily("boards")->choices(r, {});
            QVERIFY(!all.empty());
            for (const Suggestion& s : suggestStarts(all, 1)) {
                const bool fairOnes = s.choice.fair;
                for (const StartChoice& c : all) {
                    if (c.stock <= 0 || (fairOnes && !c.fair)) continue;
                    switch (s.reason) {
                    case SuggestionReason::EqualEdges:
                        QVERIFY(std::lround(s.choice.figures.unevenness.value) <=
                                std::max<long>(2, std::lround(c.figures.unevenness.value)));
                        break;
                    case SuggestionReason::FewestUnits: QVERIFY(s.choice.stock <= c.stock); break;
                    case SuggestionReason::FewestSlivers: QVERIFY(s.choice.slivers <= c.slivers); break;
                    default: break;
                    }
                }
                // And doing it gives what was promised.
                SetOutRequest then = r;
                for (const auto& [key, value] : s.choice.change) then.rules[key] = value;
                const SetOut done = findFamily("boards")->setOut(then, {});
                QCOMPARE(done.figures.slivers, s.choice.slivers);
                QCOMPARE(done.firstRow.value, s.choice.firstRow.value);
                QCOMPARE(done.figures.stock, s.choice.stock);
            }
        }
    }
};
WESTRUM_TEST(BoardCladdingTest)

#include "board_cladding_test.moc"
