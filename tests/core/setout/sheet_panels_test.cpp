#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/setout/sheet_panels.h"
#include "tests/support/registry.h"
#include "tests/support/surfaces.h"

#include <numbers>

using namespace westrum;
using namespace westrum::test;

namespace {

SheetGoods sheet(double thickness = 6, bool grain = true) {
    return {.length = {2440},
            .width = {1220},
            .thickness = {thickness},
            .kerf = {3},
            .edgeTrim = {5},
            .grain = grain,
            .solid = false,
            .massKgPerM2 = 4};
}

SetOutRequest wall(Region region, const std::vector<double>& posts = {}) {
    SetOutRequest r;
    r.outline = std::move(region);
    r.supports = supportsAt(posts, false);
    return r;
}

std::vector<double> jointsOf(const SetOut& s) {
    std::vector<double> x;
    for (const Joint& j : s.joints) x.push_back(j.from.x);
    std::sort(x.begin(), x.end());
    return x;
}

} // namespace

class SheetPanelsTest : public QObject {
    Q_OBJECT
private slots:
    void jointsLandOnSupports() {
        // 3600 long, sheets give 2430: two panels. Posts at 1100, 1700 and 2300: the one at 1700 leaves the fairest
        // two.
        const SetOut s = setOutPanels(wall(sheetOfSize(3600, 900), {500, 1100, 1700, 2300, 2900}), sheet(), {});
        QCOMPARE(s.pieces.size(), 2U);
        QCOMPARE(s.joints.size(), 1U);
        QVERIFY(s.joints[0].onSupport);
        QCOMPARE(s.joints[0].from.x, 1700.0);
        // Half of the gap of 2 comes off either panel, and 3 at the walls.
        QCOMPARE(s.pieces[0].length.value, 1700.0 - 1 - 3);
        QCOMPARE(s.figures.jointsOffSupport, 0);
    }

    void noMorePanelsThanTheSheetAsksFor() {
        // 4 posts, but one panel does.
        QCOMPARE(setOutPanels(wall(sheetOfSize(2400, 900), {600, 1200, 1800}), sheet(), {}).pieces.size(), 1U);
        // Grain across: panels are 1210 wide at most, so 2400 takes two.
        PanelRules across;
        across.grainAcross = true;
        const SetOut s = setOutPanels(wall(sheetOfSize(2400, 900), {600, 1200, 1800}), sheet(), across);
        QCOMPARE(s.pieces.size(), 2U);
        QVERIFY(s.grainAcross);
        // Without a grain it is taken as it needs fewer.
        QCOMPARE(setOutPanels(wall(sheetOfSize(2400, 900)), sheet(6, false), across).pieces.size(), 1U);
    }

    void outerPanelsAreEvenWhereThatTakesNoMore() {
        // 5400 long: three panels. Posts every 450: joints at 1800 and 3600 are even about the centre of 2700.
        std::vector<double> posts;
        for (double x = 450; x < 5400; x += 450) posts.push_back(x);
        const auto joints = jointsOf(setOutPanels(wall(sheetOfSize(5400, 900), posts), sheet(), {}));
        QVERIFY((joints == std::vector<double>{1800, 3600}));
    }

    void jointsTakeTheirGapOutOfThePanels() {
        // Sheets give 1200, joints 2: three panels reach 3 x 1200 + 2 x 2 = 3604, and not a tenth further.
        const auto partsOver = [](double length) {
            const Parting p = partLength({0, length, 1200, 2, length / 2, 150, false}, {});
            double before = 0;
            for (std::size_t i = 0; i <= p.joints.size(); ++i) {
                const double next = i < p.joints.size() ? p.joints[i] : length;
                const double gaps = (i > 0 ? 1 : 0) + (i < p.joints.size() ? 1 : 0);
                if (next - before - gaps > 1200 + 1e-6) return -1; // longer than a sheet
                before = next;
            }
            return static_cast<int>(p.joints.size()) + 1;
        };
        QCOMPARE(partsOver(3600), 3);
        QCOMPARE(partsOver(3604), 3);
        QCOMPARE(partsOver(3604.1), 4);
        QCOMPARE(partsOver(1200), 1);
    }

    void noStripIsPartedOffBesideAWidePanel() {
        // 2450 long, sheets give 2430. Posts at 20, 2420 and 1225: the one in the middle, not a strip of 20.
        const SetOut s = setOutPanels(wall(sheetOfSize(2450, 900), {20, 1225, 2420}), sheet(), {});
        QVERIFY((jointsOf(s) == std::vector<double>{1225}));
        // Only posts beside the ends: equal parts, and the joint asks for a support.
        const SetOut off = setOutPanels(wall(sheetOfSize(2450, 900), {20, 2420}), sheet(), {});
        QVERIFY((jointsOf(off) == std::vector<double>{1225}));
        const auto said = [](const SetOut& o, RemarkKind kind) {
            return std::find_if(o.remarks.begin(), o.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
        };
        QVERIFY(said(off, RemarkKind::JointsOffSupport) != off.remarks.end());
        QVERIFY(said(off, RemarkKind::PanelSlivers) == off.remarks.end());
        // By hand it may be as narrow as one likes, and is told: 44 left of 2450 less gaps.
        SetOutRequest byHand = wall(sheetOfSize(2450, 900), {20, 1225, 2420});
        byHand.joints = {2420};
        const SetOut hand = setOutPanels(byHand, sheet(), {});
        const auto sliver = said(hand, RemarkKind::PanelSlivers);
        QVERIFY(sliver != hand.remarks.end() && sliver->fix && sliver->fix->key == "leastPanel");
    }

    void partingIsTheBestOfAllPartings() {
        // Against every choice of places for two joints.
        std::mt19937 dice(11);
        for (int round = 0; round < 100; ++round) {
            const double high = 2600 + dice() % 2400, longest = 1200 + dice() % 600;
            std::vector<double> places;
            for (double x = 150 + dice() % 300; x < high; x += 200 + dice() % 300) places.push_back(x);
            const Parting p = partLength({0, high, longest, 0, high / 2, 150, false}, places);
            double last = 0, shortest = high;
            for (const double j : p.joints) {
                QVERIFY(j - last <= longest + 1e-6);
                shortest = std::min(shortest, j - last);
                last = j;
            }
            QVERIFY(high - last <= longest + 1e-6);
            shortest = std::min(shortest, high - last);
            if (!p.onPlaces || p.joints.size() != 2) continue;
            for (const double a : places)
                for (const double b : places) {
                    if (b <= a || a > longest || b - a > longest || high - b > longest) continue;
                    QVERIFY(std::min({a, b - a, high - b}) <= std::max(shortest, 150.0) + 1e-6);
                }
        }
    }

    void jointsMovedByHandStayAndAreJudged() {
        SetOutRequest r = wall(sheetOfSize(3600, 900), {1100, 1700, 2300});
        r.joints = {1300};
        const SetOut s = setOutPanels(r, sheet(), {});
        QCOMPARE(jointsOf(s).front(), 1300.0);
        QVERIFY(s.joints[0].byHand && !s.joints[0].onSupport);
        QVERIFY(has(s, RemarkKind::JointsOffSupport));
        r.joints = {900}; // the rest of 2700 does not come out of a sheet
        QVERIFY(has(setOutPanels(r, sheet(), {}), RemarkKind::PanelTooLarge));
        r.joints = {-50, 1700, 9000}; // outside: left out
        QCOMPARE(setOutPanels(r, sheet(), {}).pieces.size(), 2U);
    }

    void panelsPassTheDoor() {
        SetOutRequest r = wall(sheetOfSize(2400, 1200), {400, 800, 1200, 1600, 2000});
        QCOMPARE(setOutPanels(r, sheet(), {}).pieces.size(), 1U);
        r.widestThroughDoor = Mm{1000};
        r.door = "side door";
        const SetOut s = setOutPanels(r, sheet(), {});
        for (const Piece& p : s.pieces) QVERIFY(std::min(p.length, p.width).value <= 1000);
        QVERIFY(s.pieces.size() > 1 && !has(s, RemarkKind::PanelPastDoor));
        r.joints = {1100}; // by hand against it
        QVERIFY(has(setOutPanels(r, sheet(), {}), RemarkKind::PanelPastDoor));
    }

    /// A car takes 1500 x 800: of 2400 x 1200 in one sheet, panels no longer than 1500 and no wider than 800.
    void panelsLieInTheCar() {
        SetOutRequest r = wall(sheetOfSize(2400, 1200), {400, 800, 1200, 1600, 2000});
        r.loadLength = Mm{1500};
        r.loadWidth = Mm{800};
        SetOut s = setOutPanels(r, sheet(), {});
        QVERIFY(s.pieces.size() >= 4 && !has(s, RemarkKind::PanelPastLoad));
        for (const Piece& p : s.pieces) {
            QVERIFY(std::max(p.length, p.width).value <= 1500 + 1e-6);
            QVERIFY(std::min(p.length, p.width).value <= 800 + 1e-6);
        }
        std::swap(r.loadLength, r.loadWidth); // it may lie either way
        QCOMPARE(setOutPanels(r, sheet(), {}).pieces.size(), s.pieces.size());
        r.loadLength = Mm{2500};
        r.loadWidth = Mm{1300};
        QCOMPARE(setOutPanels(r, sheet(), {}).pieces.size(), 1U);
        r.loadLength = Mm{1000};
        r.joints = {1700}; // by hand against it
        QVERIFY(has(setOutPanels(r, sheet(), {}), RemarkKind::PanelPastLoad));
    }

    /// A hatch of 400 x 300 that keeps its lid with a gap of 4 all round: 392 x 292, with a hole of 30 in its middle.
    /// What is sawn out serves as nothing else then. With a gap of 2 a blade of 3 takes more; and a joint through it
    /// parts it.
    void whatIsSawnOutIsKeptAsALid() {
        const auto mm = [](double length) { return MaybeReading(Reading{{}, {length}}); };
        Opening hatch{.name = "Hatch", .kind = OpeningKind::Hatch, .lid = mm(4), .finger = mm(30)};
        SetOutRequest r =
            wall(difference(sheetOfSize(2000, 900), {{rectangle(700, 250, 400, 300)}}), {600, 1000, 1400});
        OpeningFact fact = openingAt(OpeningKind::Hatch, 700, 250, 400, 300, Treatment::CutBefore, 0);
        fact.name = "Hatch";
        const auto lay = [&] {
            fact.lid = lidOf(hatch, fact.placed);
            r.openings = {fact};
            return setOutPanels(r, sheet(), {});
        };
        SetOut s = lay();
        QCOMPARE(s.lids.size(), 1U);
        QCOMPARE(s.lids[0].lid.length, Mm{392});
        QCOMPARE(s.lids[0].lid.width, Mm{292});
        QVERIFY(std::abs(areaMm2(s.lids[0].lid.shape) - (392 * 292 - std::numbers::pi * 15 * 15)) < 3);
        QVERIFY(s.cutouts.empty() && !has(s, RemarkKind::LidUnderKerf) && !has(s, RemarkKind::LidInPieces));
        hatch.lid = mm(2);
        QVERIFY(has(lay(), RemarkKind::LidUnderKerf));
        hatch.lid = mm(4);
        hatch.finger = mm(200);
        QVERIFY(has(lay(), RemarkKind::FingerTooLarge));
        hatch.finger.reset();
        r.joints = {900};
        s = lay();
        QVERIFY(s.lids.empty() && has(s, RemarkKind::LidInPieces));
        r.joints.clear();
        hatch.lid = mm(160); // nothing is left of it
        QVERIFY(!lidOf(hatch, fact.placed));
        hatch.lid = mm(4);
        hatch.treatment = Treatment::CoverAndRout; // the router leaves nothing
        QVERIFY(!lidOf(hatch, fact.placed));
        hatch.lid.reset();
        hatch.treatment = Treatment::CutBefore;
        QVERIFY(lay().lids.empty() && !lay().cutouts.empty());
    }

    void aWindowLeavesALid() {
        // 600 x 400 sawn out: less a kerf of 3 and the gap of 3 on each side, 588 x 388 serve again.
        SetOutRequest r = wall(difference(sheetOfSize(2000, 900), {{rectangle(700, 250, 600, 400)}}));
        r.openings = {openingAt(OpeningKind::Window, 700, 250, 600, 400, Treatment::CutBefore, 4)};
        PanelRules rules;
        const SetOut s = setOutPanels(r, sheet(), rules);
        QCOMPARE(s.cutouts.size(), 1U);
        QCOMPARE(s.cutouts[0].opening, 4);
        // The gap is kept round the opening too: the hole in the panel is 606 x 406.
        QCOMPARE(s.cutouts[0].length.value, 606.0 - 12);
        QCOMPARE(s.cutouts[0].width.value, 406.0 - 12);
        QVERIFY(s.pieces[0].notched);
        // Rounded corners are not there: 0.2929 of a radius of 100 goes off all round, of a round hole all but a
        // square.
        const auto sawnOut = [&](Ring hole) {
            std::reverse(hole.begin(), hole.end());
            Region panel = sheetOfSize(1500, 900);
            panel.rings.push_back(std::move(hole));
            return setOutPanels(wall(std::move(panel)), sheet(), {}).cutouts.at(0);
        };
        const double lost = sawnOut(westrum::rectangle(300, 200, 600, 400)).length.value;
        const Cutout rounded = sawnOut(roundedRectangle(300, 200, 600, 400, 100, 96));
        QVERIFY(std::abs(lost - rounded.length.value - 2 * 29.29) < 1.5);
        const Cutout round = sawnOut(circle({600, 450}, 300, 96));
        QVERIFY(std::abs(round.length.value - (600 * std::sqrt(0.5) - (600 - lost))) < 1.5);
        QVERIFY(std::abs(round.length.value - round.width.value) < 0.5);
    }

    void spansBendsAndSolidTimberAreChecked() {
        QCOMPARE(longestSpan({4}).value, 300.0);
        QCOMPARE(longestSpan({6}).value, 400.0);
        QCOMPARE(longestSpan({9}).value, 600.0);
        QVERIFY(
            has(setOutPanels(wall(sheetOfSize(1800, 900), {400, 900, 1400}), sheet(6), {}), RemarkKind::SpanTooWide));
        QVERIFY(
            !has(setOutPanels(wall(sheetOfSize(1800, 900), {400, 900, 1400}), sheet(9), {}), RemarkKind::SpanTooWide));
        // 6 mm bends to 1000, two of 3 mm to 400; a wall of 700 radius and 900 high takes ceil(900 / sqrt(8 x 700 x
        // 2)).
        QCOMPARE(leastBendRadius({6}, true).value, 1000.0);
        QCOMPARE(leastBendRadius({3}, true).value, 400.0);
        QVERIFY(leastBendRadius({6}, false) > leastBendRadius({6}, true));
        SetOutRequest bent = wall(sheetOfSize(1800, 900));
        bent.bendRadius = Mm{700};
        const SetOut s = setOutPanels(bent, sheet(6), {});
        const Remark* tight = remark(s, RemarkKind::BendTooTight);
        QVERIFY(tight && tight->fix && tight->fix->value == 9.0);
        PanelRules strips;
        strips.strips = 9;
        const SetOut parted = setOutPanels(bent, sheet(6), strips);
        QVERIFY(!has(parted, RemarkKind::BendTooTight));
        QCOMPARE(parted.pieces.size(), 9U);
        // A solid top 640 wide moves by 1 %: 6.4 mm.
        SheetGoods top = sheet(26);
        top.solid = true;
        PanelRules flush;
        flush.gap = {0};
        const SetOut solid = setOutPanels(wall(sheetOfSize(1400, 640)), top, flush);
        QVERIFY(has(solid, RemarkKind::SolidMoves));
        QCOMPARE(solidMovement({640}).value, 6.4);
    }

    void panelsOverWiringComeOffAgain() {
        SetOutRequest r = wall(sheetOfSize(3600, 900), {1100, 1700, 2300});
        r.wiring = {Region{{rectangle(2500, 100, 400, 80)}}};
        const SetOut s = setOutPanels(r, sheet(), {});
        QVERIFY(!s.pieces[0].removable && s.pieces[1].removable);
    }

    void furnitureFirstLeavesTheHiddenPartBare() {
        SetOutRequest r = wall(sheetOfSize(3000, 900));
        r.hidden = {Region{{rectangle(0, 0, 1000, 900)}}};
        PanelRules rules;
        rules.hiddenBare = true;
        rules.gap = {0};
        rules.bearing = {60};
        // Bare but for 60 mm along the one edge where something is seen, up to the walls at the others: 3000 x 900 less
        // (1000 - 60) x 900.
        double area = 0;
        for (const Piece& p : setOutPanels(r, sheet(), rules).pieces) area += areaMm2(p.shape);
        const double expected = 3000.0 * 900 - 940.0 * 900;
        QVERIFY(std::abs(area - expected) < 2 * 900 + 10); // less a joint's gap at most
        // In the middle of the wall it is reached under from all sides: less (600 - 120) x (300 - 120).
        r.hidden = {Region{{rectangle(1200, 300, 600, 300)}}};
        double all = 0;
        const SetOut middle = setOutPanels(r, sheet(), rules);
        for (const Piece& p : middle.pieces) all += areaMm2(p.shape);
        QVERIFY(std::abs(all - (3000.0 * 900 - 480.0 * 180)) < 2 * 900 + 10);
    }

    void whatCannotBeIsSaidInRemarks() {
        PanelRules gap;
        gap.gap = {500};
        QVERIFY(has(setOutPanels(wall(sheetOfSize(2000, 900)), sheet(), gap), RemarkKind::NothingLeftInsideGap));
        QVERIFY(has(setOutPanels(wall(sheetOfSize(5000, 900)), sheet(), {}), RemarkKind::NoSupports));
        SheetGoods tiny = sheet();
        tiny.length = {100};
        tiny.width = {100};
        tiny.edgeTrim = {60}; // nothing is left of it
        QVERIFY(has(setOutPanels(wall(sheetOfSize(5000, 900)), tiny, {}), RemarkKind::PanelTooLarge));
        tiny.edgeTrim = {5};
        QVERIFY(has(setOutPanels(wall(sheetOfSize(20000, 20000)), tiny, {}), RemarkKind::TooManyPieces));
    }
};
WESTRUM_TEST(SheetPanelsTest)

#include "sheet_panels_test.moc"
