#pragma once

#include "core/buying/purchase.h"
#include "core/catalogue/family.h"
#include "core/catalogue/product.h"
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

/// What a step is about. Its sentence is put together at the edge from kind, facts and wait.
enum class StepKind {
    CheckDelivery, ///< {packs}
    Acclimatise,   ///< {restLow} {restHigh} {layLow} {layHigh}
    CheckBase,     ///< {gap}
    LayUnderlay,   ///< {strips} {total} {along}
    FirstRow,      ///< {row} {width} {ripped}
    Row,           ///< {row}
    LastRow,       ///< {row} {width}
    Trims,         ///< {length} {gap}
    // Before anything is covered.
    CablesTested,
    PipesTested,
    BackingIn,
    SupportsRecorded, ///< {count}
    BarrierTaped,
    TailsThrough, ///< {count} openings that are covered first
    // Layers below a finish.
    LayBarrier,     ///< {product} {strips} {total} {lap}
    FitInsulation,  ///< {product} {area} {between}
    FixBattens,     ///< {product} {count} {total}
    SpreadAdhesive, ///< {product} {amount} {minutes} {coldest} {warmest} {flash} {bays} {each} {bayMinutes}
    Coat,           ///< {product} {coats} {amount}
    // Boards.
    RestTimber,   ///< {product} {boards}
    SnapLine,     ///< {at} from the first edge to the first joint
    FirstBoard,   ///< {row} {width} {ripStart} {ripEnd}
    BoardRow,     ///< {row} {ripStart} {ripEnd}
    LastBoard,    ///< {row} {ripStart} {ripEnd}
    RoutOpenings, ///< {count}
    CarryHatch,   ///< {opening}
    // Panels.
    CutPanels, ///< {product} {count}
    DryFitPanels,
    FixPanel,    ///< {panel} {length} {width} {removable} {held} {edge} {field} {count} {drilled}; held: FixedWith
    CloseJoints, ///< {count} {total} {style}
    // Tiles.
    CheckBacking,
    TileLines,  ///< {first} {column}
    LayTiles,   ///< {whole}
    CutTiles,   ///< {cut} {tiles}
    GroutTiles, ///< {amount}
    PeelTiles,  ///< {whole}
    // Linings off the roll.
    RestVinyl,  ///< {degrees}
    CutLinings, ///< {product} {count}
    CleanFace,
    CleanGlass,
    StickLining, ///< {count} {share} by which it is cut smaller
    LayVinyl,    ///< {count}
    CloseSeams,  ///< {count} {total} {lap} {lapped}
    TurnUpstand, ///< {height}
    TrimLining,  ///< {allowance} {turnIn}
    WrapPanels,  ///< {count} {turn}
    ClipPanels,  ///< {clips} {apart}; for each side {panel} {side} {first} {spacing} {count}
    LayFilm,     ///< {count}
    // Upholstery.
    CutFoam,      ///< {count} {glue}
    CutCloth,     ///< {product} {count}
    SewZip,       ///< {length}
    SewPiping,    ///< {length} {strips}
    SewCushions,  ///< {cushions} {seam} {thread}
    FillCushions, ///< {ease}
    StapleCover,  ///< {staples} {turn}
    // Edges.
    FitTrim,   ///< {product} {pieces} {length} {mitred} {coped}
    FitEdging, ///< {product} {length}
    RunBead,   ///< {product} {length}
};

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

/// One step of the fitting, in order.
struct FitStep {
    std::string key; ///< stays the same while the step means the same: ticks hang on it
    StepKind kind{};
    Facts facts;
    std::vector<int> pieces; ///< of its layer's set-out, in laying order
    std::optional<Caution> caution;
    int layer = -1; ///< of the build-up
    std::optional<Wait> wait{};
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
};

struct OpeningName {
    std::string name;
    OpeningKind kind{};
    Treatment treatment{};
};

/// All that the steps of a surface depend on.
struct FitFacts {
    std::vector<LayerFacts> layers{}; ///< from the metal inwards
    std::vector<OpeningName> openings{};
    Mm edgeLength; ///< of the whole outline, to be trimmed
    int supports{};
    bool wiring{};
    bool overhead{};
    bool lies{};    ///< rather than stands
    bool airbags{}; ///< pillars, headliner, cab: where they may be
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
               std::vector<FitStep>& steps);

} // namespace westrum
