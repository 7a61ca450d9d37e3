#include "core/catalogue/layers.h"
#include "core/fitting/steps.h"

#include <algorithm>

namespace westrum {
void layUnderlay(const LayerFacts& layer, std::vector<FitStep>& steps) {
    const UnderlayTakeoff& t = layer.take->strips;
    if (t.strips.empty()) return;
    steps.push_back({.key = "underlay",
                     .kind = StepKind::LayUnderlay,
                     .facts = {{"strips", static_cast<std::int64_t>(t.strips.size())},
                               {"total", t.totalLength},
                               {"joints", std::int64_t{t.joints}},
                               {"along", std::int64_t{t.alongX ? 1 : 0}}},
                     .caution = Caution::KneelAndLift});
}

void underlaySteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    // Under a floating floor it is laid after their base was checked.
    if (std::none_of(facts.layers.begin(), facts.layers.end(),
                     [](const LayerFacts& l) { return l.floats && l.setOut->laid(); }))
        layUnderlay(layer, steps);
}

void barrierSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const UnderlayTakeoff& t = layer.take->strips;
    steps.push_back({.key = "lay",
                     .kind = StepKind::LayBarrier,
                     .facts = {{"product", layer.product->name},
                               {"strips", static_cast<std::int64_t>(t.strips.size())},
                               {"total", t.totalLength},
                               {"joints", std::int64_t{t.joints}},
                               {"lap", barrierOf(*layer.product).lap}}});
}

void insulationSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    steps.push_back(
        {.key = "fit",
         .kind = StepKind::FitInsulation,
         .facts = {{"product", layer.product->name},
                   {"area", layer.take->area.value},
                   {"count", static_cast<std::int64_t>(layer.take->boards.size()) * layer.take->boardLayers},
                   {"gives", std::int64_t{squashOf(*layer.product) > 0 ? 1 : 0}},
                   {"between", static_cast<std::int64_t>(valueOf(*layer.rules, insulationRules(), "between"))}},
         .caution = Caution::SharpBlades});
}

void battenSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    Mm total;
    for (const Mm l : layer.take->lengths) total = total + l;
    steps.push_back({.key = "fix",
                     .kind = StepKind::FixBattens,
                     .facts = {{"product", layer.product->name},
                               {"count", static_cast<std::int64_t>(layer.take->lengths.size())},
                               {"total", total}},
                     .caution = Caution::DrillIntoBody});
}

void adhesiveSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const Adhesive a = adhesiveOf(*layer.product);
    steps.push_back({.key = "spread",
                     .kind = StepKind::SpreadAdhesive,
                     .facts = {{"product", layer.product->name},
                               {"amount", layer.take->amount},
                               {"minutes", static_cast<std::int64_t>(a.openMinutes)},
                               {"coldest", static_cast<std::int64_t>(a.coldest)},
                               {"warmest", static_cast<std::int64_t>(a.warmest)},
                               {"flash", static_cast<std::int64_t>(a.flashMinutes)},
                               {"bays", std::int64_t{layer.take->bays ? layer.take->bays->count : 0}},
                               {"each", layer.take->bays ? layer.take->bays->each.value : 0.0},
                               {"bayMinutes", layer.take->bays ? layer.take->bays->minutes : 0.0}},
                     .caution = Caution::Solvents,
                     .wait = Wait{WaitKind::Cure, a.cureHours}});
}

void coatingSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const Coating c = coatingOf(*layer.product);
    for (int n = 1; n <= c.coats; ++n)
        steps.push_back({.key = "coat-" + std::to_string(n),
                         .kind = StepKind::Coat,
                         .facts = {{"product", layer.product->name},
                                   {"coat", std::int64_t{n}},
                                   {"coats", std::int64_t{c.coats}},
                                   {"amount", layer.take->amount / c.coats},
                                   {"waterproof", std::int64_t{c.waterproof ? 1 : 0}}},
                         .caution = n == 1 ? std::optional(Caution::Solvents) : std::nullopt,
                         .wait = Wait{n < c.coats ? WaitKind::Recoat : WaitKind::Cure, c.recoatHours}});
}

} // namespace westrum
