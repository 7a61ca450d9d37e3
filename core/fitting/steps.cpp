#include "core/fitting/steps.h"

namespace westrum {

std::vector<FitStep> fitSteps(const SetOut& setOut, const FitFacts& facts) {
    std::vector<FitStep> steps;
    if (!setOut.laid()) return steps;
    steps.push_back({"delivery", StepKind::CheckDelivery, {{"packs", std::int64_t{facts.packs}}}, {}, {}});
    steps.push_back({"acclimatise",
                     StepKind::Acclimatise,
                     {{"hours", std::int64_t{kAcclimatiseHours}},
                      {"restLow", std::int64_t{kRestLowC}},
                      {"restHigh", std::int64_t{kRestHighC}},
                      {"layLow", std::int64_t{kLayLowC}},
                      {"layHigh", std::int64_t{kLayHighC}}},
                     {},
                     {}});
    steps.push_back({"base", StepKind::CheckBase, {{"gap", facts.gap}}, {}, Caution::KnowWhatIsBehind});
    if (facts.underlay)
        steps.push_back({"underlay",
                         StepKind::LayUnderlay,
                         {{"strips", static_cast<std::int64_t>(facts.underlay->strips.size())},
                          {"total", facts.underlay->totalLength},
                          {"along", std::int64_t{facts.underlay->alongX ? 1 : 0}}},
                         {},
                         Caution::KneelAndLift});
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
    steps.push_back({"trims", StepKind::Trims, {{"length", facts.edgeLength}, {"gap", facts.gap}}, {}, {}});
    return steps;
}

} // namespace westrum
