#include "core/families/family.h"

#include <algorithm>
#include <map>

namespace westrum {

namespace {

/// What must be seen to before it is hidden.
void beforeCovering(const FitFacts& facts, std::vector<FitStep>& steps) {
    const auto add = [&](const char* key, StepKind kind, Facts given = {}, std::optional<Caution> caution = {}) {
        steps.push_back(
            {.key = std::string("before/") + key, .kind = kind, .facts = std::move(given), .caution = caution});
    };
    const auto covered = std::count_if(facts.openings.begin(), facts.openings.end(),
                                       [](const OpeningName& o) { return o.treatment != Treatment::CutBefore; });
    add("cables", StepKind::CablesTested);
    if (facts.wiring) add("pipes", StepKind::PipesTested);
    add("backing", StepKind::BackingIn);
    if (facts.supports > 0) add("supports", StepKind::SupportsRecorded, {{"count", std::int64_t{facts.supports}}});
    if (std::any_of(facts.layers.begin(), facts.layers.end(),
                    [](const LayerFacts& l) { return l.role == LayerRole::Barrier; }))
        add("barrier", StepKind::BarrierTaped);
    if (covered > 0) add("tails", StepKind::TailsThrough, {{"count", static_cast<std::int64_t>(covered)}});
}

bool covers(const LayerFacts& layer) { return layer.role == LayerRole::Finish; }

} // namespace

std::vector<FitStep> fitSteps(FitFacts facts) {
    for (LayerFacts& layer : facts.layers)
        if (const Family* family = familyOf(layer.product->family)) {
            layer.fixing = family->fixing;
            layer.role = family->product.role;
            layer.floats = family->laid.floats;
        }
    std::vector<FitStep> steps;
    std::map<std::string, int> seen; // layers of each family so far
    // A floating floor over nothing but its underlay hides nothing that was not checked with its base.
    const bool hides = std::any_of(facts.layers.begin(), facts.layers.end(),
                                   [](const LayerFacts& l) { return covers(l) && !l.floats; });
    bool listed = !hides;
    for (const LayerFacts& layer : facts.layers) {
        if (covers(layer) && !layer.setOut->laid()) continue;
        if (covers(layer) && !listed) {
            beforeCovering(facts, steps);
            listed = true;
        }
        const Family* family = familyOf(layer.product->family);
        if (!family || !family->steps) continue;
        const std::size_t from = steps.size();
        family->steps(facts, layer, steps);
        const int nth = seen[layer.product->family]++;
        for (std::size_t i = from; i < steps.size(); ++i) {
            steps[i].layer = layer.layer;
            if (!family->laid.plainKeys || nth > 0)
                steps[i].key =
                    layer.product->family + (nth > 0 ? std::to_string(nth + 1) : std::string()) + "/" + steps[i].key;
        }
    }
    const bool anything = std::any_of(facts.layers.begin(), facts.layers.end(),
                                      [](const LayerFacts& l) { return l.seen && l.setOut->laid(); });
    if (anything) {
        Mm gap;
        for (const LayerFacts& l : facts.layers)
            if (const SetOutFamily* f = findFamily(l.product->family); f && l.seen && findField(f->ruleFields, "gap"))
                gap = {valueOf(*l.rules, f->ruleFields, "gap")};
        steps.push_back(
            {.key = "trims", .kind = StepKind::Trims, .facts = {{"length", facts.edgeLength}, {"gap", gap}}});
    }
    return steps;
}

} // namespace westrum
