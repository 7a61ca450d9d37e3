#include "core/families/underlays.h"

#include "core/families/strips.h"

namespace westrum {
namespace {

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Underlay u = underlayOf(f.product);
    if (lapTooWide(f.product, u.lap, u.rollWidth, remarks)) return;
    layer.take.strips = takeOffUnderlay(f.outline, u);
    layer.take.area = layer.take.strips.laidArea;
    reckonStrips(f.product, u, layer);
}

} // namespace

Family underlayFamily() {
    return {.product = {.id = "underlay",
                        .tradeName = "underlay",
                        .role = LayerRole::Underlay,
                        .soldBy = SoldBy::Roll,
                        .fields = underlayFields(),
                        .quantity = Quantity::Length,
                        .porous = [](const Product&) { return true; }},
            .hours = {0.06, 0},
            .laid = {.plainKeys = true},
            .takeOff = takeOff,
            .steps = underlaySteps};
}

} // namespace westrum
