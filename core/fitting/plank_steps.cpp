#include "core/fitting/steps.h"

#include "core/setout/plank_floor.h"

namespace westrum {

void plankSteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& setOut = *layer.setOut;
    const Mm gap = plankRulesOf(*layer.rules).gap;
    steps.push_back({.key = "delivery",
                     .kind = StepKind::CheckDelivery,
                     .facts = {{"packs", std::int64_t{layer.purchase ? layer.purchase->packs : 0}}}});
    steps.push_back({.key = "acclimatise",
                     .kind = StepKind::Acclimatise,
                     .facts = {{"restLow", std::int64_t{kRestLowC}},
                               {"restHigh", std::int64_t{kRestHighC}},
                               {"layLow", std::int64_t{kLayLowC}},
                               {"layHigh", std::int64_t{kLayHighC}}},
                     .wait = Wait{WaitKind::Rest, kAcclimatiseHours}});
    steps.push_back({.key = "base",
                     .kind = StepKind::CheckBase,
                     .facts = {{"gap", gap}},
                     .caution = facts.overhead ? Caution::DrillIntoBody : Caution::KnowWhatIsBehind});
    // The underlay goes onto the checked base, though it is a layer of its own.
    for (const LayerFacts& below : facts.layers)
        if (below.role == LayerRole::Underlay) layUnderlay(below, steps);
    const int rows = static_cast<int>(setOut.rows.size());
    for (int r = 0; r < rows; ++r) {
        const StepKind kind = r == 0 ? StepKind::FirstRow : r + 1 == rows ? StepKind::LastRow : StepKind::Row;
        FitStep step{.key = "row-" + std::to_string(r + 1), .kind = kind};
        step.facts = {{"row", std::int64_t{r + 1}},
                      {"width", Mm{setOut.rows[static_cast<std::size_t>(r)].width()}},
                      {"ripped", r == 0 ? setOut.startOffset : Mm{0}}};
        for (std::size_t i = 0; i < setOut.pieces.size(); ++i)
            if (setOut.pieces[i].row == r) step.pieces.push_back(static_cast<int>(i));
        if (r == 0 || kind == StepKind::LastRow) step.caution = Caution::SawAndDust;
        steps.push_back(std::move(step));
    }
    carryHatches(facts, layer, steps);
}

void carryHatches(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    for (std::size_t o = 0; o < facts.openings.size(); ++o) {
        std::vector<int> pieces;
        for (const CarriedPiece& c : layer.setOut->carried)
            if (c.opening == static_cast<int>(o)) pieces.push_back(c.piece);
        if (!pieces.empty())
            steps.push_back({.key = "hatch-" + std::to_string(o + 1),
                             .kind = StepKind::CarryHatch,
                             .facts = {{"opening", facts.openings[o].name}},
                             .pieces = std::move(pieces),
                             .caution = Caution::SawAndDust});
    }
}

} // namespace westrum
