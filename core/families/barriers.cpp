#include "core/families/barriers.h"

#include "core/families/strips.h"

namespace westrum {
namespace {

constexpr double kTapeRound = 1; // share of the outline that it is taped along

/// Lines along which neighbouring strips lap.
double lapsOf(const UnderlayTakeoff& strips) {
    double laps = 0;
    for (std::size_t i = 1; i < strips.strips.size(); ++i)
        laps += std::min(strips.strips[i - 1].length, strips.strips[i].length).value;
    return laps;
}

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Barrier b = barrierOf(f.product);
    if (lapTooWide(f.product, b.lap, b.rollWidth, remarks)) return;
    layer.take = takeOffBarrier(f.outline, b);
    reckonStrips(f.product, {b.rollWidth, b.rollLength, b.lap, b.thickness, b.massKgPerM2}, layer);
}

void needs(const NeedFacts& f, std::vector<Need>& found) {
    addNeed(found, Serves::BarrierTape, (lapsOf(f.take->strips) + kTapeRound * f.edges.value) / 1000);
}

} // namespace

Family barrierFamily() {
    return {.product = {.id = "barrier",
                        .tradeName = "barrier",
                        .role = LayerRole::Barrier,
                        .soldBy = SoldBy::Roll,
                        .fields = barrierFields(),
                        .quantity = Quantity::Length},
            .hours = {0.15, 0},
            .takeOff = takeOff,
            .needs = needs,
            .steps = barrierSteps};
}

} // namespace westrum
