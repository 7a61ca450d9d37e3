#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buildup/stack_up.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

namespace {

StackLayer layer(double mm, double tolerance = 0, double squash = 0) {
    return {.thickness = {mm}, .tolerance = {tolerance}, .squash = squash};
}

Product product(const std::string& id, const std::string& family, FieldValues fields) {
    return {id, family, id, "Yard", {}, std::move(fields)};
}

} // namespace

class StackUpTest : public QObject {
    Q_OBJECT
private slots:
    void aFloorAddsUpAsItIsTroddenDown() {
        // 25 batten + 12 ply + 2 mat that gives way by a tenth + 7 planks = 25 + 12 + 1.8 + 7 = 45.8 mm
        const std::vector<StackLayer> floor{layer(25, 0.5), layer(12, 0.3), layer(2, 0, 0.1), layer(7, 0.2)};
        const Stack s = stackOf(floor, {});
        QCOMPARE(s.total.value, 45.8);
        QCOMPARE(s.adds[2].value, 1.8);
        QCOMPARE(s.tolerance.value, 1.0);
        QVERIFY(s.remarks.empty());
    }

    void boltsGripOnlyWhatTheyPassThrough() {
        std::vector<StackLayer> floor{layer(25), layer(12), layer(2, 0, 0.1), layer(7)};
        for (const std::size_t i : {0U, 1U, 3U}) floor[i].bolted = true;
        QCOMPARE(stackOf(floor, {}).grip.value, 44.0); // 25 + 12 + 7
    }

    void insulationBetweenRibsTakesNoHeadroom() {
        // 20 mm into ribs 27 deep: nothing of it stands out. Lamps find 27 + 9 - 20 = 16 mm, 36 where it is cut away.
        StackLayer wool = layer(20);
        wool.between = wool.insulation = true;
        const std::vector<StackLayer> layers{wool, layer(9)};
        const Stack s = stackOf(layers, {27});
        QCOMPARE(s.total.value, 9.0);
        QCOMPARE(s.toMetal.value, 36.0);
        QCOMPARE(s.lampDepth.value, 16.0);
        QVERIFY(s.remarks.empty());
    }

    void thirtyIntoTwentySevenIsTold() {
        StackLayer foam = layer(30);
        foam.between = foam.insulation = true;
        foam.name = "Foam 30";
        const std::vector<StackLayer> layers{foam, layer(9)};
        const Stack s = stackOf(layers, {27});
        QCOMPARE(s.total.value, 12.0); // the 3 mm that stand out, and the board
        QCOMPARE(s.remarks.size(), 1U);
        QVERIFY(s.remarks[0].kind == RemarkKind::LayerTooDeep && s.remarks[0].place.index == 0);
    }

    void battensOnTheRibsMakeRoomBesideThemDoNot() {
        StackLayer foam = layer(44), batten = layer(20);
        foam.between = foam.insulation = true;
        batten.batten = true;
        // Ribs 27 + battens 20 = 47 mm of room for 44 mm of foam: only the battens take headroom.
        std::vector<StackLayer> layers{foam, batten};
        QCOMPARE(stackOf(layers, {27}).total.value, 20.0);
        QVERIFY(stackOf(layers, {27}).remarks.empty());
        // Beside the ribs they take none, but then 44 mm of foam stand 17 mm out of ribs of 27.
        layers[1].beside = true;
        QCOMPARE(stackOf(layers, {27}).total.value, 17.0);
        QCOMPARE(stackOf(layers, {27}).remarks.size(), 1U);
    }

    void headroomCountsTheLowestPlaceAndAllTolerances() {
        // Bare 1884 at the lowest, floor 45.8, ceiling 40 * 0.75 + 3.6 + 9 = 42.6: 1795.6 is left. The tolerances add
        // up to 1.0 + 2.5: at worst 1792.1. Likely: root of .25+.09+.04+4+.04+.09 = 2.124: 1793.48.
        const std::vector<StackLayer> floor{layer(25, 0.5), layer(12, 0.3), layer(2, 0, 0.1), layer(7, 0.2)};
        const std::vector<StackLayer> ceiling{layer(40, 2, 0.25), layer(3.6, 0.2), layer(9, 0.3)};
        const std::vector<Mm> heights{{1890}, {1884}, {1896}};
        const HeadroomLeft left = headroomLeft(heights, stackOf(floor, {}), stackOf(ceiling, {}), Mm{1780}, {20});
        QCOMPARE(left.head.value, 1795.6);
        QCOMPARE(left.worst.value, 1792.1);
        QVERIFY(std::abs(left.probable.value - 1793.476) < 0.001);
        QVERIFY(left.standsUpright == false); // 1780 + 20 = 1800
        QVERIFY(!headroomLeft(heights, {}, {}, std::nullopt, {20}).standsUpright);
    }

    void aStepUpToFiveMillimetresNeedsNoStrip() {
        Stack floor;
        floor.total = {25};
        QVERIFY(!thresholdStep(floor, {20}, {5}, kRampAngleRad).needsTransition);
        const ThresholdStep proud = thresholdStep(floor, {45}, {5}, kRampAngleRad);
        QVERIFY(proud.needsTransition);
        QCOMPARE(proud.step.value, -20.0);
        QVERIFY(std::abs(proud.rampRun.value - 74.641) < 0.001); // 20 / tan 15 degrees
    }

    /// The order of layers never changes what they add up to; a thicker layer never leaves more headroom.
    void orderDoesNotMatterAndThickerIsNeverThinner() {
        std::mt19937 dice(7);
        for (int round = 0; round < 200; ++round) {
            std::vector<StackLayer> layers;
            for (unsigned i = 0; i < 1 + dice() % 6; ++i) {
                StackLayer l = layer(1 + dice() % 400 / 10.0, 0.1 * (dice() % 9), 0.05 * (dice() % 5));
                l.between = l.insulation = dice() % 4 == 0;
                l.batten = !l.between && dice() % 4 == 0;
                l.beside = l.batten && dice() % 2 == 0;
                layers.push_back(l);
            }
            const Mm ribs{static_cast<double>(dice() % 60)};
            const Stack before = stackOf(layers, ribs);
            std::vector<StackLayer> mixed = layers;
            std::shuffle(mixed.begin(), mixed.end(), dice);
            QVERIFY(std::abs(stackOf(mixed, ribs).total.value - before.total.value) < 1e-9);
            double sum = 0;
            for (const Mm a : before.adds) sum += a.value;
            QVERIFY(std::abs(sum - before.total.value) < 1e-9 && before.lampDepth.value >= 0);
            StackLayer& one = layers[dice() % layers.size()];
            if (one.batten) continue; // a thicker batten may make room for insulation
            one.thickness = one.thickness + Mm{5};
            QVERIFY(stackOf(layers, ribs).total.value >= before.total.value - 1e-9);
        }
    }

    void layersKnowTheirPlace() {
        Catalogue c;
        c.products = {product("film", "barrier", {}),
                      product("wool", "insulation", {}),
                      product("strip", "battens", {}),
                      product("ply", "sheet", {{"thickness", 12}}),
                      product("mat", "underlay", {}),
                      product("oak", "planks", {}),
                      product("oil", "coating", {{"coats", 3}, {"dryThickness", 0.1}})};
        Finish f;
        for (const char* id : {"film", "wool", "strip", "ply", "mat", "oak", "oil"})
            f.layers.push_back({id, {}, {}, false});
        QCOMPARE(faceLayer(f, c), 5);
        QCOMPARE(layerOfRole(f, c, LayerRole::Underlay), 4);
        QCOMPARE(placeFor(f, c, LayerRole::Barrier), 1);
        QCOMPARE(placeFor(f, c, LayerRole::Adhesive), 3); // before the first finish
        QCOMPARE(placeFor(f, c, LayerRole::Coating), 7);
        QCOMPARE(faceLayer({}, c), -1);
        const auto stacked = stackLayers(f, c);
        QVERIFY(stacked[1].between && stacked[2].batten && !stacked[2].beside);
        QVERIFY(std::abs(stacked[6].thickness.value - 0.3) < 1e-12); // three coats of a tenth
        f.layers[0].product = "gone";
        QCOMPARE(stackLayers(f, c)[0].thickness.value, 0.0);
    }
};
WESTRUM_TEST(StackUpTest)

#include "stack_up_test.moc"
