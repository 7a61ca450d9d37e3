#pragma once

#include "core/buying/purchase.h"
#include "core/catalogue/family.h"
#include "core/catalogue/product.h"
#include "core/fitting/step_kind.h"
#include "core/setout/edge_trims.h"
#include "core/setout/set_out.h"
#include "core/takeoff/layer_takeoff.h"
#include "core/takeoff/needs.h"
#include "core/units/remark.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

enum class Caution {
    SawAndDust,
    KneelAndLift,
    KnowWhatIsBehind,
    DrillIntoBody,
    Solvents,
    Overhead,
    TileDust,
    SharpBlades,
    HotTools,
    AirbagZones,
    FoamFire
};

/// What has to be waited for with a step.
enum class WaitKind {
    Rest,   ///< before it: what was bought gets used to the room
    Set,    ///< before it: what is there already must be hard
    Recoat, ///< after it, before the next coat
    Cure,   ///< after it, before it is loaded
};
struct Wait {
    WaitKind kind{};
    double hours{};
    friend bool operator==(const Wait&, const Wait&) = default;
};

/// Where a step is done.
enum class WorkPlace {
    Van,
    Yard,     ///< beside it, under the sky
    Workshop, ///< at a table under some roof
    Shop
};

/// What a step takes, in practised hands.
struct StepEffort {
    double minutes{};
    double firstMore{}; ///< on top, where it is the first of its kind in a job
    int hands = 1;
    WorkPlace place = WorkPlace::Van;
    bool prepares = false;           ///< is done before what must be in is looked at, and before anything is opened
    bool opens = false;              ///< something with an open time: what it lays follows at once
    bool follows = false;            ///< goes on with what was opened, while it is fresh
    bool covers = false;             ///< what lies behind is gone for good
    bool split = true;               ///< may be interrupted
    bool dry = false, light = false; ///< what it needs of the day
    bool open = false;               ///< others must be open for it
    std::optional<double> minC, maxC;
    std::optional<int> fumes; ///< nobody else inside, and for so many minutes after
    friend bool operator==(const StepEffort&, const StepEffort&) = default;
};

/// One step of the fitting, in order.
struct FitStep {
    std::string key; ///< stays the same while the step means the same: ticks hang on it
    StepKind kind{};
    Facts facts;
    std::vector<int> pieces; ///< of its layer's set-out, in laying order
    std::optional<Caution> caution;
    int layer = -1; ///< of the build-up
    std::optional<Wait> wait{};
    StepEffort effort{};
    friend bool operator==(const FitStep&, const FitStep&) = default;
};

/// Conditioning of floating floors, typical figures (the label rules): hours in the room, and the temperatures between
/// which planks rest and are laid. Source: docs/formulae.md#planks.
inline constexpr int kAcclimatiseHours = 48;
inline constexpr int kRestLowC = 18, kRestHighC = 27, kLayLowC = 13, kLayHighC = 30;

/// One layer as its steps see it. Pointers are into the plan that is being made.
struct LayerFacts {
    const Product* product{};
    const SetOut* setOut{};
    const LayerTakeoff* take{};
    const FieldValues* rules{};
    const Purchase* purchase{}; ///< null for what the cutting buys
    bool seen{};
    int layer = -1;
    Holding held{};
    std::span<const Fixing> fixings{};
    std::span<const Field> fixing{}; ///< filled in by fitSteps(), as is what follows
    LayerRole role{};
    bool floats{}; ///< laid loose on the base
    M2 area{};     ///< that it covers
};

struct OpeningName {
    std::string name;
    OpeningKind kind{};
    Treatment treatment{};
    int count = 1;
};

/// Something is screwed into it once the face is finished: a lamp, a socket, a vent's trim.
bool isFitting(OpeningKind kind);

/// All that the steps of a surface depend on.
struct FitFacts {
    std::vector<LayerFacts> layers{}; ///< from the metal inwards
    std::vector<OpeningName> openings{};
    Mm edgeLength; ///< of the whole outline, to be trimmed
    int supports{};
    bool wiring{};
    bool overhead{};
    bool lies{};       ///< rather than stands
    bool airbags{};    ///< pillars, headliner, cab: where they may be
    bool coatsFirst{}; ///< boards and panels are coated before they are fitted
    OwnEfforts efforts{};
};

/// How a family is fitted: each appends its steps. For Family::steps.
void plankSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void boardSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void panelSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void foamSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void clothSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void liningSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void tileSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void underlaySteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
/// For each hatch that is covered and routed: the pieces that go on over it.
void carryHatches(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
/// The step itself, wherever it comes in the order.
void layUnderlay(const LayerFacts& layer, std::vector<FitStep>& steps);
void barrierSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void insulationSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void battenSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void adhesiveSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);
void coatingSteps(const FitFacts&, const LayerFacts&, std::vector<FitStep>&);

/// What closes the edges that a surface owns, a step for each trim. @param products  of the family "trim"
void trimSteps(const TrimPlan& trims, const std::string& surface, std::span<const Product> products,
               const OwnEfforts& efforts, std::vector<FitStep>& steps);

} // namespace westrum
