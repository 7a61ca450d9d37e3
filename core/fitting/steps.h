#pragma once

#include "core/setout/set_out.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/units/remark.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

enum class StepKind { CheckDelivery, Acclimatise, CheckBase, LayUnderlay, FirstRow, Row, LastRow, Trims };
enum class Caution { SawAndDust, KneelAndLift, KnowWhatIsBehind };

/// One step of the fitting, in order; its sentence is put together at the edge from kind and facts.
struct FitStep {
    std::string key; ///< stays the same while the step means the same: ticks hang on it
    StepKind kind{};
    Facts facts;
    std::vector<int> pieces; ///< of the row, in laying order
    std::optional<Caution> caution;
    friend bool operator==(const FitStep&, const FitStep&) = default;
};

/// Conditioning of floating floors, typical figures (the label rules): hours in the room, and the temperatures between
/// which planks rest and are laid. Source: docs/formulae.md#planks.
inline constexpr int kAcclimatiseHours = 48;
inline constexpr int kRestLowC = 18, kRestHighC = 27, kLayLowC = 13, kLayHighC = 30;

struct FitFacts {
    int packs{};
    std::optional<UnderlayTakeoff> underlay;
    Mm gap;
    Mm edgeLength; ///< of the whole outline, to be trimmed
};

std::vector<FitStep> fitSteps(const SetOut& setOut, const FitFacts& facts);

} // namespace westrum
