#include "core/buildup/stack_up.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace westrum {

Stack stackOf(std::span<const StackLayer> layers, Mm ribDepth) {
    Stack stack;
    Mm room = ribDepth; // between ribs and the battens on them
    for (const StackLayer& l : layers)
        if (l.batten && !l.beside) room = room + l.thickness;
    Mm insulation;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        const StackLayer& l = layers[i];
        const Mm effective = l.thickness * (1 - l.squash);
        const Mm depth = l.between ? room : l.batten && l.beside ? ribDepth : Mm{0};
        const Mm adds{std::max(0.0, (effective - depth).value)};
        if (depth.value > 0 && adds.value > 1e-9)
            stack.remarks.push_back({Severity::Warning,
                                     {"", Part::Layer, static_cast<int>(i)},
                                     RemarkKind::LayerTooDeep,
                                     {{"layer", l.name}, {"length", effective}, {"limit", depth}, {"over", adds}},
                                     {}});
        stack.adds.push_back(adds);
        stack.total = stack.total + adds;
        if (adds.value > 0) {
            stack.tolerance = stack.tolerance + l.tolerance;
            stack.toleranceSquares += l.tolerance.value * l.tolerance.value;
        }
        if (l.bolted) stack.grip = stack.grip + adds;
        if (l.insulation) insulation = insulation + effective;
    }
    stack.toMetal = ribDepth + stack.total;
    stack.lampDepth = {std::max(0.0, (stack.toMetal - insulation).value)};
    return stack;
}

std::vector<StackLayer> stackLayers(const Finish& finish, const Catalogue& catalogue) {
    std::vector<StackLayer> layers;
    for (const Layer& layer : finish.layers) {
        StackLayer l;
        const Product* product = catalogue.find(layer.product);
        const ProductFamily* family = product ? productFamily(product->family) : nullptr;
        if (family) {
            l.thickness = thicknessOf(*product);
            l.tolerance = toleranceOf(*product);
            l.squash = squashOf(*product);
            l.bolted = layer.bolted;
            l.insulation = family->role == LayerRole::Insulation;
            l.batten = family->role == LayerRole::Batten;
            l.between = l.insulation && valueOf(layer.rules, family->layerRules, "between") != 0;
            l.beside = l.batten && valueOf(layer.rules, family->layerRules, "beside") != 0;
            l.name = product->name;
        }
        layers.push_back(std::move(l));
    }
    return layers;
}

HeadroomLeft headroomLeft(std::span<const Mm> heights, const Stack& floor, const Stack& ceiling,
                          std::optional<Mm> person, Mm clearance) {
    assert(!heights.empty());
    HeadroomLeft left;
    left.head = *std::min_element(heights.begin(), heights.end()) - floor.total - ceiling.total;
    left.worst = left.head - floor.tolerance - ceiling.tolerance;
    left.probable = left.head - Mm{std::sqrt(floor.toleranceSquares + ceiling.toleranceSquares)};
    if (person) left.standsUpright = left.worst >= *person + clearance;
    return left;
}

ThresholdStep thresholdStep(const Stack& floor, Mm sill, Mm limit, double rampAngleRad) {
    const Mm step = floor.total - sill;
    return {step, std::abs(step.value) > limit.value, Mm{std::abs(step.value) / std::tan(rampAngleRad)}};
}

} // namespace westrum
