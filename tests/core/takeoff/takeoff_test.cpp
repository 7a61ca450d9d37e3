#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buying/purchase.h"
#include "core/families/family.h"
#include "core/fitting/steps.h"
#include "core/setout/plank_floor.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/takeoff/whole_strips.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {
Region box(double w, double h) { return {{{{0, 0}, {w, 0}, {w, h}, {0, h}}}}; }
} // namespace

class TakeoffTest : public QObject {
    Q_OBJECT
private slots:
    void planksPacksAndBothWastes() {
        // 2400 x 1000, planks 1200 x 200, no gap, no stagger: 2 in each of 5 rows, nothing is cut.
        const Product product = plankProduct(1200, 200, 4, 5000);
        const SetOut s = setOutPlanks(box(2400, 1000), plankOf(product), {.gap = {0}, .stagger = {0}});
        const PlankTakeoff t = takeOffPlanks(s, plankOf(product));
        QCOMPARE(t.planks, 10);
        QCOMPARE(t.cutPlanks, 0);
        QVERIFY(std::abs(t.laidArea.value - 2.4) < 1e-9);
        const Purchase p = buyPlanks(product, t);
        QCOMPARE(p.packs, 3); // 3 x 4 = 12
        QCOMPARE(p.unitsLeft(), 2);
        QCOMPARE(p.cost->minor, 15000);
        QVERIFY(std::abs(p.wasteOfBought().value - 0.48) < 1e-9); // two spare planks of 0.24 m2
        QVERIFY(std::abs(p.wasteOfConsumed().value) < 1e-9);
        // A pack of 4 x 0.24 = 0.96 m2 weighs 18 kg: 18.75 kg/m2 on 2.4 m2.
        QVERIFY(std::abs(p.laidMass.value - 45) < 1e-9);
        QVERIFY(std::abs(p.boughtMass.value - 54) < 1e-9);
    }

    void withoutAPriceThereIsNoCost() {
        Product product = plankProduct(1200, 200, 4, 5000);
        product.packPrice.reset();
        const SetOut s = setOutPlanks(box(2400, 1000), plankOf(product), {.gap = {0}});
        QVERIFY(!buyPlanks(product, takeOffPlanks(s, plankOf(product))).cost);
    }

    void underlayTakesTheWayWithLessOffTheRoll() {
        // 3640 x 1785 and rolls of 1000: along two strips of 3640 = 7280; across four strips of 1785 = 7140.
        const Underlay roll{
            .rollWidth = {1000}, .rollLength = {5000}, .lap = {0}, .thickness = {2}, .massKgPerM2 = 0.4};
        const UnderlayTakeoff t = takeOffUnderlay(box(3640, 1785), roll);
        QVERIFY(!t.alongX);
        QCOMPARE(t.strips.size(), std::size_t{4});
        QVERIFY(std::abs(t.totalLength.value - 7140) < 1e-6);
        const Product product{
            "u", "underlay", "Roll", "", Money{1500, Currency{}}, {{"rollWidth", 1000}, {"rollLength", 5000}}};
        const Purchase p = buyStrips(product, underlayOf(product), t);
        QCOMPARE(p.packs, 2);
        QVERIFY(std::abs(p.lengthLeft.value - 2860) < 1e-6);
        QCOMPARE(p.cost->minor, 3000);
    }

    /// Three strips of 3000 off rolls of 5000: two would do by length, but then one strip is pieced: three rolls.
    /// Another surface with two strips of 2000 fills their ends.
    void stripsComeWholeOffTheirRolls() {
        QCOMPARE(rollsFor({{3000}, {3000}, {3000}}, {}, {5000}), (StripsOnRolls{3, 0}));
        // Six of 2000 and one of 4000: 16000 on rolls of 6000 are three, none pieced: 2+2+2, 2+2, 4 + 2.
        QCOMPARE(rollsFor({{2000}, {2000}, {4000}, {2000}, {2000}, {2000}, {2000}}, {}, {6000}).rolls, 3);
        // One of 12000 is longer than a roll: two whole ones, 2000 off a third, two joints; 4000 more fits beside that.
        QCOMPARE(rollsFor({{12000}, {3000}}, {}, {5000}), (StripsOnRolls{3, 2}));
        // Patches may be taken as they come: 1000 fits the end of a roll, 3000 does not.
        QCOMPARE(rollsFor({{3500}}, {1000}, {5000}).rolls, 1);
        QCOMPARE(rollsFor({{3500}}, {3000}, {5000}).rolls, 2);
        // First-fit puts 5 3 | 4 4 | 3 3 | 2; the search finds three rolls of 8.
        QCOMPARE(rollsFor({{5000}, {4000}, {4000}, {3000}, {3000}, {3000}, {2000}}, {}, {8000}).rolls, 3);

        const Underlay roll{.rollWidth = {1000}, .rollLength = {5000}, .lap = {0}, .massKgPerM2 = 1};
        const UnderlayTakeoff big = takeOffUnderlay(box(3000, 3000), roll),
                              small = takeOffUnderlay(box(2000, 2000), roll);
        const Product product{
            "u", "underlay", "Roll", "", Money{1500, Currency{}}, {{"rollWidth", 1000}, {"rollLength", 5000}}};
        const Purchase a = buyStrips(product, underlayOf(product), big),
                       b = buyStrips(product, underlayOf(product), small);
        QCOMPARE(a.packs, 3);
        QVERIFY(std::abs(a.lengthLeft.value - 6000) < 1e-6);
        QCOMPARE(b.packs, 1);
        const Purchase both = boughtTogether(a, b);
        QCOMPARE(both.packs, 3);
        QVERIFY(std::abs(both.lengthNeeded.value - 13000) < 1e-6 && std::abs(both.lengthLeft.value - 2000) < 1e-6);
    }

    /// 2400 x 1900 off rolls of 1000 x 2500: along two strips of 2400, a roll each; across three of 1900, a roll each.
    void theDirectionTakesFewerRolls() {
        const Underlay roll{.rollWidth = {1000}, .rollLength = {2500}, .lap = {0}};
        QVERIFY(takeOffUnderlay(box(2400, 1900), roll).alongX);
        // Off rolls of 4000 two strips of 1900 share one: 2 rolls either way, and 4800 is less than 5700.
        QVERIFY(takeOffUnderlay(box(2400, 1900), {.rollWidth = {1000}, .rollLength = {4000}, .lap = {0}}).alongX);
        // 3000 x 2000 off rolls of 2000: along each strip has a joint; across three whole ones.
        const UnderlayTakeoff t =
            takeOffUnderlay(box(3000, 2000), {.rollWidth = {1000}, .rollLength = {2000}, .lap = {0}});
        QVERIFY(!t.alongX);
        QCOMPARE(t.joints, 0);
    }

    void lapsAreLaidTwice() {
        // 1900 wide with rolls of 1000 lapped 100: exactly two strips, 0.1 m lapped over 3 m.
        const Underlay roll{
            .rollWidth = {1000}, .rollLength = {10000}, .lap = {100}, .thickness = {2}, .massKgPerM2 = 1};
        const UnderlayTakeoff t = takeOffUnderlay(box(3000, 1900), roll);
        QVERIFY(t.alongX);
        QCOMPARE(t.strips.size(), std::size_t{2});
        QVERIFY(std::abs(t.laidMass.value - (3 * 1.9 + 0.3)) < 1e-9);
    }

    void aStripIsOnlyAsLongAsTheFloorIsThere() {
        // The upper metre of an L is only 1000 long.
        const Region l{{{{0, 0}, {3000, 0}, {3000, 1000}, {1000, 1000}, {1000, 2000}, {0, 2000}}}};
        const UnderlayTakeoff t = takeOffUnderlay(l, {.rollWidth = {1000}, .rollLength = {9000}, .lap = {0}});
        QVERIFY(std::abs(t.totalLength.value - 4000) < 1e-6);
    }

    void theChanceOfRunningShortByHand() {
        // No spare, 3 cuts, each spoils one time in ten: enough only if all three go well, 0.9^3 = 0.729.
        QVERIFY(std::abs(chanceOfRunningShort(10, 3, 10, 0.1) - 0.271) < 1e-12);
        // One spare: also if exactly one of the first three tries spoils: + 3 x 0.1 x 0.9^3 = 0.2187.
        QVERIFY(std::abs(chanceOfRunningShort(10, 3, 11, 0.1) - (1 - 0.729 - 0.2187)) < 1e-12);
        QCOMPARE(chanceOfRunningShort(10, 3, 9, 0.1), 1.0);
        QCOMPARE(chanceOfRunningShort(10, 0, 10, 0.1), 0.0);
        QCOMPARE(chanceOfRunningShort(10, 3, 10, 0.0), 0.0);
        double before = 1;
        for (int total = 10; total < 30; ++total) {
            const double now = chanceOfRunningShort(10, 8, total, 1.0 / 15);
            QVERIFY(now <= before + 1e-12);
            before = now;
        }
    }

    void theStepsGoInLayingOrderWithTheirCautions() {
        const Product plank = plankProduct(1285, 192, 8, 2000);
        const Product mat{"mat", "underlay", "Mat", "Yard", {}, {}};
        const SetOut s = setOutPlanks(box(3000, 1760), plankOf(plank), {.gap = {10}, .startOffset = {90}});
        const Purchase four{.product = "plank", .size = {}, .family = "planks", .packs = 4};
        LayerTakeoff strips;
        strips.strips = takeOffUnderlay(box(3000, 1760), underlayOf(mat));
        const FieldValues rules{{"gap", 10}};
        FitFacts facts;
        const SetOut none;
        facts.layers = {{&mat, &none, &strips, &rules, nullptr, false, 0},
                        {&plank, &s, &strips, &rules, &four, true, 1}};
        facts.edgeLength = {9520};
        const auto steps = fitSteps(facts);
        QCOMPARE(static_cast<int>(steps.front().kind), static_cast<int>(StepKind::CheckDelivery));
        QCOMPARE(static_cast<int>(steps.back().kind), static_cast<int>(StepKind::Trims));
        QCOMPARE(steps.size(), 5 + s.rows.size());
        int at = -1;
        std::size_t pieces = 0;
        std::set<std::string> keys;
        for (const FitStep& step : steps) {
            QVERIFY(keys.insert(step.key).second);
            for (int id : step.pieces) {
                QCOMPARE(id, at + 1); // every piece once, in order
                at = id;
                ++pieces;
            }
            if (step.kind == StepKind::FirstRow || step.kind == StepKind::LastRow)
                QVERIFY(step.caution == Caution::SawAndDust);
        }
        QCOMPARE(pieces, s.pieces.size());
        QVERIFY(fitSteps({}).empty());
    }
};
WESTRUM_TEST(TakeoffTest)

#include "takeoff_test.moc"
