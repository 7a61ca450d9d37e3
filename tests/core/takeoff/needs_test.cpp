#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/families/holding.h"
#include "core/plan/plan.h"
#include "core/setout/lining.h"
#include "core/takeoff/needs.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <array>

using namespace westrum;
using namespace westrum::test;

namespace {

double amountOf(const std::vector<Need>& needs, Serves serves) {
    double all = 0;
    for (const Need& n : needs) all += n.serves == serves ? n.amount : 0;
    return all;
}

Product screw(const char* id, double length) {
    return {.id = id, .family = "sundries", .name = id, .fields = {{"serves", 0}, {"length", length}}};
}

} // namespace

/// From layers to the small things that hold, close and sand them.
class NeedsTest : public QObject {
    Q_OBJECT
    SurfaceShape shape_;
    SetOut setOut_;
    LayerTakeoff take_;
    FieldValues rules_;
    Product product_;

    std::vector<Need> needs(Mm through, std::optional<Mm> into) {
        const Product* product = &product_;
        const FieldValues* rules = &rules_;
        const Holding held = holdingsOf({&product, 1}, {&rules, 1}).front();
        return needsOf({&product_, &rules_, &setOut_, &take_, &shape_, through, into, {6000}, held});
    }
    /// Supports of 40 mm, 3 m long.
    void support(bool along, double at, SupportKind kind) {
        const Ring strip = along ? westrum::rectangle(0, at - 20, 3000, 40) : westrum::rectangle(at - 20, 0, 40, 3000);
        shape_.supports.push_back({0, at, along, kind, {{strip}}});
    }

private slots:
    void init() {
        shape_ = {};
        setOut_ = {};
        take_ = {};
        rules_ = {};
        product_ = {.id = "x", .family = "sheet", .name = "x"};
    }

    void panelIsScrewedWhereItsBattensAre() {
        // 1230 x 630, its screws 15 mm in, over a batten of 40 in the middle: one where either long edge crosses it and
        // 600 / 300 = 2 spaces between them, one more: 3. A rib behind battens holds nothing. A batten that runs along
        // in the middle: one at either end, and 1200 / 300 = 4 spaces, three between; where the two cross, one of each
        // would stand at the same place: 3 + 5 - 1.
        Piece panel;
        panel.shape = {{westrum::rectangle(0, 0, 1230, 630)}};
        setOut_.pieces = {panel};
        support(false, 615, SupportKind::Batten);
        support(false, 300, SupportKind::Rib);
        QCOMPARE(amountOf(needs({6}, Mm{20}), Serves::Screws), 3.0);
        support(true, 315, SupportKind::Batten);
        const std::vector<Need> n = needs({6}, Mm{20});
        QCOMPARE(n.size(), 1UL);
        QCOMPARE(n[0].amount, 7.0);
        // 6 mm of ply into 20 mm of batten: 6 + 12 = 18 mm to hold, 6 + 20 - 4 = 22 mm to stay short of the skin.
        QCOMPARE(n[0].least, Mm{18});
        QCOMPARE(n[0].most, Mm{22});
        // With rivet nuts into the rib each place takes a nut, a machine screw and a washer: 6 + 1.6 + 6.5 + 3 = 17.1
        // mm or more. The rib at 300: both long edges and one between.
        rules_["fixWith"] = 1;
        const std::vector<Need> bolted = needs({6}, {});
        QCOMPARE(amountOf(bolted, Serves::RivetNuts), 3.0);
        QCOMPARE(amountOf(bolted, Serves::Washers), 3.0);
        QCOMPARE(bolted[1].serves, Serves::MachineScrews);
        QVERIFY(std::abs(bolted[1].least->value - 17.1) < 1e-9 && !bolted[1].most);
        rules_["fixWith"] = 5; // glued: nothing
        QVERIFY(needs({6}, {}).empty());
    }

    void eachPanelIsHeldAsItNeeds() {
        // Into sheet metal: one that comes off again, or carries a cupboard, by machine screws in rivet nuts; else by
        // self-drilling screws. Into battens always by screws, with cups where it comes off.
        Piece fixed, comesOff;
        fixed.name = {"1"};
        fixed.shape = {{westrum::rectangle(0, 0, 800, 600)}};
        comesOff.name = {"2"};
        comesOff.shape = {{westrum::rectangle(800, 0, 800, 600)}};
        comesOff.removable = true;
        setOut_.pieces = {fixed, comesOff};
        support(false, 400, SupportKind::Rib);
        support(false, 1200, SupportKind::Rib);
        const std::vector<Need> metal = needs({6}, {});
        QCOMPARE(amountOf(metal, Serves::Screws), 3.0);
        QCOMPARE(amountOf(metal, Serves::RivetNuts), 3.0);
        const std::vector<Region> heavy{{{westrum::rectangle(100, 300, 200, 100)}}};
        NeedFacts facts{&product_, &rules_, &setOut_, &take_, &shape_, {6}, {}, {6000}};
        facts.held = {FixedWith::AsNeeded};
        facts.heavy = heavy;
        QCOMPARE(amountOf(needsOf(facts), Serves::RivetNuts), 6.0);
        // By hand another way.
        const std::map<std::string, int> holders{{"1", static_cast<int>(FixedWith::HookAndLoop)}};
        facts.holders = &holders;
        QCOMPARE(amountOf(needsOf(facts), Serves::RivetNuts), 3.0);
        QVERIFY(std::abs(amountOf(needsOf(facts), Serves::HookAndLoop) - 0.3) < 1e-9);
        support(false, 410, SupportKind::Batten);
        support(false, 1210, SupportKind::Batten);
        const std::vector<Need> wood = needs({6}, Mm{20});
        QCOMPARE(amountOf(wood, Serves::Screws), 6.0);
        QCOMPARE(amountOf(wood, Serves::ScrewCups), 3.0);
    }

    void aScrewIsAsLongAsTheBuildUpAtItsPlace() {
        // 4 mm of panel on strips of 9: 4 + 12 = 16 to hold, 4 + 9 - 4 = 9 to hide. Over the hollow between ribs of 30
        // it may stand out by 8: up to 24. Where the strip crosses a rib it goes on into that: 13 + 8 = 21 to 36.
        support(true, 300, SupportKind::Batten);
        support(false, 500, SupportKind::Rib);
        NeedFacts facts{&product_, &rules_, &setOut_, &take_, &shape_, {4}, Mm{9}, {}};
        facts.hollow = {30};
        const Fixing between = fixingAt(facts, {{900, 300}}, FixedWith::Screws, false);
        QVERIFY(between.least == Mm{16} && between.most == Mm{24});
        const Fixing crossing = fixingAt(facts, {{505, 300}}, FixedWith::Screws, false);
        QVERIFY(crossing.least == Mm{21} && crossing.most == Mm{36});
        // With 3 mm of packers below the strip there, 3 more.
        const std::vector<PackedAt> packers{{{500, 300}, {3}}};
        facts.packers = packers;
        QCOMPARE(fixingAt(facts, {{505, 300}}, FixedWith::Screws, false).least, Mm{24});
        QCOMPARE(fixingAt(facts, {{900, 300}}, FixedWith::Screws, false).least, Mm{16});
        // The strip itself into the rib: 9 + 3 of packers + 8 into the metal.
        NeedFacts strip{&product_, &rules_, &setOut_, &take_, &shape_, {9}, {}, {}};
        strip.packers = packers;
        QCOMPARE(fixingAt(strip, {{500, 300}}, FixedWith::Screws, false).least, Mm{20});
        // Thick battens hide it anywhere: 18 + 12 = 30 to 18 + 40 - 4 = 54.
        NeedFacts thick{&product_, &rules_, &setOut_, &take_, &shape_, {18}, Mm{40}, {}};
        thick.hollow = {30};
        QCOMPARE(fixingAt(thick, {{505, 300}}, FixedWith::Screws, false).most, Mm{54});
    }

    void holesUnderAStripAreDrilledLarger() {
        Fixing f{.by = FixedWith::Screws};
        QCOMPARE(drillFor(f), Mm{4.5});
        f.underStrip = true;
        QCOMPARE(drillFor(f), Mm{7.5});
        QCOMPARE(drillFor({.by = FixedWith::Screws, .washer = true}), Mm{7.5}); // solid wood moves
        QCOMPARE(drillFor({.by = FixedWith::RivetNuts, .washer = true}), Mm{5.5});
        QCOMPARE(drillFor({.by = FixedWith::HookAndLoop}), Mm{0});
        QCOMPARE(drillFor({.place = {.holds = false}, .by = FixedWith::Screws}), Mm{0});
    }

    void aCurveIsOneSideHoweverFinelyItIsDivided() {
        // 2000 x 800 with a top that bows up by 60: below, 1970 / 200 = 10 spaces; the sides, 770 / 200 = 4 each; the
        // bow is about 4.8 longer than straight, 10 spaces: 28 in all, where every short piece of it once had its own.
        const auto bowed = [](int parts) {
            Ring ring{{0, 0}, {2000, 0}};
            for (int i = 0; i <= parts; ++i) {
                const double x = 2000.0 * (parts - i) / parts, t = (x - 1000) / 1000;
                ring.push_back({x, 800 + 60 * (1 - t * t)});
            }
            return ring;
        };
        for (const int parts : {12, 40, 160, 900}) {
            const Region panel{{bowed(parts)}};
            QCOMPARE(fixingsOfPanel(panel, {15}, {200}, {}, {300}).edge, 28);
            // Clips: sides of 800 have 700 between the first and last: 4 + 1; below 1900 / 200: 11; the top the same.
            int clips = 0;
            for (const ClippedSide& side : clippedSides(panel, {200})) clips += side.clips.count;
            QCOMPARE(clips, 5 + 5 + 11 + 11);
        }
        // A square with round corners is one closed run: 4 x 700 + 2 pi 150 = 3742, 15 inside it 3648 round: 19.
        for (const int corners : {24, 48, 200})
            QCOMPARE(fixingsOfPanel({{roundedRectangle(0, 0, 1000, 1000, 150, corners)}}, {15}, {200}, {}, {300}).edge,
                     19);
        // Turned, mirrored or begun at another corner it is the same.
        Ring ring = bowed(40);
        std::rotate(ring.begin(), ring.begin() + 17, ring.end());
        QCOMPARE(fixingsOfPanel({{ring}}, {15}, {200}, {}, {300}).edge, 28);
        for (Point& p : ring) p.x = -p.x;
        std::reverse(ring.begin(), ring.end());
        QCOMPARE(fixingsOfPanel({{ring}}, {15}, {200}, {}, {300}).edge, 28);
    }

    void aBattenBehindAWindowHoldsOnBothSidesOfIt() {
        // 1000 x 800, a hole from 300 to 600 across the batten at x 500: below the hole 300 - 15 - 15 = 270, one space,
        // above it 800 - 600 - 30 = 170, one space: the ends at the edge have their screws, those at the hole get one.
        Ring hole = westrum::rectangle(350, 300, 300, 300);
        std::reverse(hole.begin(), hole.end());
        const Region panel{{westrum::rectangle(0, 0, 1000, 800), hole}};
        const std::array battens{SupportLine{.at = 500}};
        QCOMPARE(fixingsOfPanel(panel, {15}, {200}, battens, {300}).field, 2);
        // One that ends in the middle of the panel holds it at its end too.
        const std::array half{SupportLine{.at = 200, .from = 0, .to = 400}};
        QCOMPARE(fixingsOfPanel(panel, {15}, {200}, half, {300}).field, 2);
    }

    void everyLayerIsHeldInOneWay() {
        Product ply{.id = "ply", .family = "sheet", .name = "ply"}, glue{.id = "g", .family = "adhesive", .name = "g"};
        Product felt{.id = "felt", .family = "roll", .name = "felt"};
        FieldValues none, wrapped{{"face", static_cast<double>(LinedFace::Panels)}};
        const auto held = [&](std::vector<const Product*> products, std::vector<const FieldValues*> rules) {
            return holdingsOf(products, rules);
        };
        QVERIFY(held({&ply}, {&none})[0].by == FixedWith::AsNeeded);
        QVERIFY(held({&glue, &ply}, {&none, &none})[1].by == FixedWith::AdhesiveAlone);
        // Wrapped: the wrapping's clips, counted once, with the lining.
        const auto clips = held({&ply, &glue, &felt}, {&none, &none, &wrapped});
        QVERIFY(clips[0].by == FixedWith::PanelClips && clips[0].byWrapping);
        QVERIFY(clips[2].by == FixedWith::PanelClips);
        // Said otherwise: that, and no clips.
        FieldValues loop{{"fixWith", static_cast<double>(FixedWith::HookAndLoop)}};
        const auto looped = held({&ply, &felt}, {&loop, &wrapped});
        QVERIFY(looped[0].by == FixedWith::HookAndLoop && !looped[0].byWrapping);
        QVERIFY(looped[1].by != FixedWith::PanelClips);
        // Glued, but one panel comes off again: screws with cups for that one.
        product_ = ply;
        Piece fixed, off;
        fixed.shape = {{westrum::rectangle(0, 0, 1230, 630)}};
        off.shape = {{westrum::rectangle(0, 700, 1230, 630)}};
        off.removable = true;
        setOut_.pieces = {fixed, off};
        const std::vector<Need> n = needsOf(
            {&product_, &rules_, &setOut_, &take_, &shape_, {6}, Mm{20}, {6000}, {FixedWith::AdhesiveAlone, false}});
        QCOMPARE(amountOf(n, Serves::Screws), 18.0);
        QCOMPARE(amountOf(n, Serves::ScrewCups), 18.0);
    }

    void boardsAreFixedWhereTheyCrossSupports() {
        product_.family = "boards";
        product_.fields = {{"cover", 90}};
        for (const double x : {100.0, 700.0, 1300.0}) support(false, x, SupportKind::Batten);
        for (const double x : {200.0, 500.0, 800.0}) support(false, x, SupportKind::Rib); // behind the battens
        Piece longOne, shortOne;
        longOne.shape = {{westrum::rectangle(0, 0, 1400, 90)}};
        shortOne.shape = {{westrum::rectangle(650, 90, 750, 90)}};
        setOut_.pieces = {longOne, shortOne};
        QCOMPARE(amountOf(needs({10}, Mm{20}), Serves::Screws), 5.0); // 3 + 2 crossings
        product_.fields["cover"] = 120;                               // two at each
        QCOMPARE(amountOf(needs({10}, Mm{20}), Serves::Screws), 10.0);
        rules_["fixCups"] = 1;
        QCOMPARE(amountOf(needs({10}, Mm{20}), Serves::ScrewCups), 10.0);
    }

    void coatingsAreSandedBetweenCoatsAndMasked() {
        product_.family = "coating";
        product_.fields = {{"coats", 3}};
        take_.area = {4};
        const std::vector<Need> n = needs({}, {});
        QCOMPARE(amountOf(n, Serves::AbrasiveDiscs), 8.0); // twice
        QCOMPARE(amountOf(n, Serves::MaskingTape), 6.0);   // once round
    }

    void theLongestScrewThatStaysInTheBattenIsTaken() {
        const std::array goods{screw("s16", 16), screw("s20", 20), screw("s22", 22), screw("s30", 30)};
        std::vector<const Product*> list;
        for (const Product& p : goods) list.push_back(&p);
        Need need{.serves = Serves::Screws, .amount = 1, .least = Mm{18}, .most = Mm{22}};
        QCOMPARE(productFor(need, list)->id, std::string("s22"));
        need.most.reset(); // into sheet metal: no longer than it must be
        QCOMPARE(productFor(need, list)->id, std::string("s20"));
        need.least = Mm{31};
        QVERIFY(!productFor(need, list));
        need = {.serves = Serves::Washers, .amount = 1};
        QVERIFY(!productFor(need, list));
    }

    void sealantIsBoughtByTheBeadThatACartridgeGives() {
        // Legs of 6 and 6 mm: 18 mm2 of bead; 290 ml give 290 000 / 18 mm = 16.1 m.
        Product bead{.id = "bead", .family = "trim", .name = "bead"};
        bead.fields = {
            {"profile", static_cast<double>(Profile::SealantBead)}, {"width", 6}, {"thickness", 6}, {"cartridge", 290}};
        QVERIFY(std::abs(trimOf(bead).metresOfBead() - 16.111) < 0.001);
        TrimPlan plan;
        plan.runs.push_back({.surface = "wall", .profile = Profile::SealantBead, .product = "bead", .length = {2500}});
        const std::array trims{bead};
        const std::vector<Need> n = needsOfTrims(plan, trims);
        QCOMPARE(n.size(), 1UL);
        QCOMPARE(n[0].amount, 2.5);
        QCOMPARE(n[0].product, std::string("bead"));
        const Purchase p = buySundries(bead, Serves::Sealant, 40, trimOf(bead).metresOfBead(), {});
        QCOMPARE(p.packs, 3); // 40 / 16.1
    }

    void trimsAreGluedOrScrewed() {
        Product strip{.id = "strip", .family = "trim", .name = "strip", .fields = {{"bead", 4}, {"thickness", 8}}};
        TrimPlan plan;
        TrimRun run{.surface = "wall", .profile = Profile::CoverStrip, .product = "strip", .length = {1000}};
        run.pieces.push_back({.name = "a", .length = {1000}});
        plan.runs = {run};
        // A bead 4 mm thick is pi / 4 x 16 = 12.57 mm2: 12.57 ml a metre.
        QVERIFY(std::abs(needsOfTrims(plan, std::array{strip})[0].amount - 12.566) < 0.001);
        strip.fields["fixedBy"] = 1; // 900 mm between the outer ones, 300 apart: 4
        const std::vector<Need> n = needsOfTrims(plan, std::array{strip});
        QCOMPARE(n[0].serves, Serves::Screws);
        QCOMPARE(n[0].amount, 4.0);
        strip.fields["fixedBy"] = 2;
        QVERIFY(needsOfTrims(plan, std::array{strip}).empty());
    }

    void whatTheCatalogueLacksIsToldOnceForTheWholeJob() {
        Job job = jobWith(test::rectangle(4000, 2000), plankProduct(1000, 200, 4, 4000), {});
        Product tile{.id = "tile", .family = "tiles", .name = "Tile"};
        job.catalogue.products = {tile};
        Surface other = job.surfaces[0];
        other.id = other.name = "other";
        job.surfaces.push_back(other);
        for (const char* id : {"floor", "other"}) job.finishes[id].now().layers = {{"tile", {}, {}, false}};
        const Plan p = plan(job);
        const auto told = std::count_if(p.remarks.begin(), p.remarks.end(),
                                        [](const Remark& r) { return r.kind == RemarkKind::NeedUnserved; });
        QCOMPARE(told, 1); // of both floors together
        QVERIFY(amountOf(p.needs, Serves::Grout) > 0);
    }
};

WESTRUM_TEST(NeedsTest)
#include "needs_test.moc"
