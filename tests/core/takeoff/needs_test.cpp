#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/plan/plan.h"
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
        return needsOf({&product_, &rules_, &setOut_, &take_, &shape_, through, into, {6000}});
    }

private slots:
    void init() {
        shape_ = {};
        setOut_ = {};
        take_ = {};
        rules_ = {};
        product_ = {.id = "x", .family = "sheet", .name = "x"};
    }

    void panelIsScrewedRoundItsEdgeAndAlongItsBatten() {
        // 1230 x 630 with the screws 15 mm in: 1200 / 200 = 6 spaces and 600 / 200 = 3, twice each: 18, corners shared.
        // A batten in the middle: 600 / 300 = 2 spaces, one screw between those of the edges.
        Piece panel;
        panel.shape = {{westrum::rectangle(0, 0, 1230, 630)}};
        setOut_.pieces = {panel};
        shape_.supports = {{0, 615, false, {}}, {0, 300, true, {}}};
        const std::vector<Need> n = needs({6}, Mm{20});
        QCOMPARE(n.size(), 1UL);
        QCOMPARE(n[0].amount, 19.0);
        // 6 mm of ply into 20 mm of batten: 6 + 12 = 18 mm to hold, 6 + 20 - 4 = 22 mm to stay short of the skin.
        QCOMPARE(n[0].least, Mm{18});
        QCOMPARE(n[0].most, Mm{22});
        // With rivet nuts each place takes a nut, a washer and a machine screw: 6 + 1.6 + 6.5 + 3 = 17.1 mm or more.
        rules_["fixWith"] = 1;
        const std::vector<Need> bolted = needs({6}, {});
        QCOMPARE(amountOf(bolted, Serves::RivetNuts), 19.0);
        QCOMPARE(amountOf(bolted, Serves::Washers), 19.0);
        QCOMPARE(bolted[1].serves, Serves::MachineScrews);
        QVERIFY(std::abs(bolted[1].least->value - 17.1) < 1e-9 && !bolted[1].most);
        rules_["fixWith"] = 5; // glued: nothing
        QVERIFY(needs({6}, {}).empty());
    }

    void boardsAreFixedWhereTheyCrossSupports() {
        product_.family = "boards";
        product_.fields = {{"cover", 90}};
        for (const double x : {100.0, 700.0, 1300.0}) shape_.supports.push_back({0, x, false, {}});
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
