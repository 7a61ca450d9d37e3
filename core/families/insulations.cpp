#include "core/families/insulations.h"

#include <algorithm>

namespace westrum {
namespace {

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>&) {
    const Insulation i = insulationOf(f.product);
    layer.take = takeOffInsulation(f.shape, valueOf(layer.rules, insulationRules(), "between") != 0);
    // What is bought is reckoned in area as thick as it is sold: deep fillings and cavities by their volume.
    const double thickness = std::max(0.1, i.thickness.value);
    if (const double fill = valueOf(layer.rules, insulationRules(), "fill"); fill > 0)
        layer.take.amount *= fill / thickness;
    layer.take.amount += valueOf(layer.rules, insulationRules(), "cavity") / thickness; // litres / mm = m2
    layer.area = layer.take.area;
    layer.mass = {layer.take.amount * i.massKgPerM2};
    layer.purchase = buyAmount(f.product, layer.take, (areaOf(i.length, i.width) * i.perPack).value, layer.mass);
}

} // namespace

Family insulationFamily() {
    return {.product = {.id = "insulation",
                        .tradeName = "insulation",
                        .role = LayerRole::Insulation,
                        .soldBy = SoldBy::Pack,
                        .fields = insulationFields(),
                        .layerRules = insulationRules(),
                        .quantity = Quantity::Area},
            .hours = {0.2, 0},
            // What does not give way is closed-cell: it needs no barrier of its own.
            .laid = {.gives = [](const Product& p) { return squashOf(p) > 0; },
                     .keepsDampOut = [](const Product& p) { return squashOf(p) <= 0; }},
            .takeOff = takeOff,
            .steps = insulationSteps};
}

} // namespace westrum
