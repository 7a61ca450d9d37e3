#pragma once

#include "core/catalogue/family.h"
#include "core/families/cut_pieces.h"
#include "core/families/grips.h"
#include "core/families/layer_plan.h"
#include "core/fitting/steps.h"
#include "core/record/work_settings.h"
#include "core/setout/set_out.h"
#include "core/shell/surface.h"
#include "core/takeoff/needs.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace westrum {

/// What plan, screens and papers must know of how it lies, one fact each.
struct Laid {
    bool unitsBySetOut =
        false; ///< its set-out opens the units that are bought, one by one, and shares pieces out on them
    bool choosesLengths = false; ///< its set-out chooses among the lengths that it is sold in
    bool floats = false;         ///< laid loose on the base: hides nothing that was not checked with it
    bool wrapped = false;        ///< a lining above may wrap its panels one by one
    bool napRunsOn = false;      ///< its nap must run one way from surface to surface
    bool cushion = false;        ///< soft under what covers it
    bool seat = false;           ///< one sits on it
    bool seams = false;          ///< its pieces meet in seams
    bool blade = false;          ///< cut by blade or scissors rather than sawn
    bool lotShows = false;       ///< two lots side by side would show
    bool acrossSupports = false; ///< its rows run across what they are fixed to
    bool lampsOnRows = false;    ///< lamps in it fall onto the middle of a row
    bool centred = true;         ///< it is told how far it lies off its centre line
    bool takesCoatLoose = false; ///< may be coated before it is fitted
    bool plainKeys = false;      ///< keys of its steps go without its name: it was there first, and ticks hang on them
    bool (*stuck)(const FieldValues& rules) = nullptr;         ///< lies on what is below it by glue alone
    bool (*gives)(const Product&) = nullptr;                   ///< under the hand: nothing can be stuck to it
    bool (*keepsDampOut)(const Product&) = nullptr;            ///< no barrier is needed over it
    bool (*keepsWaterOut)(const Product&) = nullptr;           ///< no coat is needed below it where it gets wet
    bool (*takesReliefs)(const FieldValues& rules) = nullptr;  ///< cuts from its edge inwards let it stretch further
    bool (*wraps)(const FieldValues& rules) = nullptr;         ///< covers panels below one by one; null: never
    bool (*jointsCovered)(const FieldValues& rules) = nullptr; ///< by strips; null: never
    /// Whether it is to go on round the corner from a neighbour, and how much of a pitch the neighbour's last one used.
    bool (*runsOn)(const FieldValues& rules) = nullptr;
    double (*usedOfLast)(const Product&, const SetOut& neighbour) = nullptr;
};

/// How its pieces are lettered on a drawing.
enum class Lettering {
    AlongRow, ///< name, and what there is to say, along the row
    Panel,    ///< name and size in the middle
    None,
};

/// How it is drawn. The window maps the style's name to a painter, and an unknown one to the first.
struct Drawn {
    std::string_view style = "wood";
    Lettering lettering = Lettering::AlongRow;
    bool grainLeads = false;   ///< strokes follow the set-out's grain, not its rows
    bool margins = true;       ///< what is cut beyond the edges shows
    bool tellsOffcuts = false; ///< pieces from offcuts and slivers are marked
    bool showsDatum = true;    ///< the van's lines, supports and centre line are drawn over it
    bool showsOpenings = true;
};

/// What a set-out must know of the layers round its own, from the metal inwards.
struct LayersAbout {
    std::span<const Product* const> products; ///< null for one that the catalogue lacks or whose fields are not sound
    std::span<const FieldValues* const> rules;
    std::size_t at = 0;
    std::span<const Region> panelsBelow{}; ///< of the last layer of panels below that may be wrapped
};

/// All that taking off a layer depends on which is not set out.
struct TakeOffFacts {
    const Surface& surface;
    const SurfaceShape& shape;
    const Region& outline; ///< openings not deducted
    const Product& product;
    const Product* below = nullptr; ///< null: the metal
    const Product* above = nullptr; ///< null: nothing
    double spread = 0, close = 0;   ///< the person's speed with adhesive, m2 a minute
};

/// A finish family, or one of what lies below and beside finishes: all that tells it from the others. Whatever is left
/// out does not happen to it. Nobody outside core/families/ compares a family's id.
struct Family {
    ProductFamily product;
    HourRate hours{};
    std::optional<SetOutFamily> setOut{}; ///< nothing: it is measured out, not set out
    std::span<const Field> fixing{};      ///< how it is fixed: rules of a layer besides those of its set-out
    Laid laid{};
    Drawn drawn{};
    /// What it can remark on besides what every product can.
    std::span<const RemarkKind> remarks{};

    /// Tells a set-out's request what it must know of other layers.
    void (*look)(const LayersAbout&, SetOutRequest&) = nullptr;
    /// Area, mass and purchase of what is set out, once its area is that of its pieces; null: mass by area.
    void (*reckon)(const Product&, LayerPlan&) = nullptr;
    /// Quantities of what is not set out.
    void (*takeOff)(const TakeOffFacts&, LayerPlan&, std::vector<Remark>&) = nullptr;
    /// What is to be cut for one layer. @param at  begins the pieces' keys behind the family's own word
    void (*pieces)(const Product&, const std::string& surface, const std::string& at, const LayerPlan&,
                   WantedPieces&) = nullptr;
    /// What is to be cut for the edges of all surfaces.
    void (*edgePieces)(const Product&, const TrimPlan&, WantedPieces&) = nullptr;
    /// Its fixings, each at its place; null: it has none of its own.
    void (*fix)(NeedFacts&, std::vector<Fixing>&) = nullptr;
    /// Small things that it takes; those that its fixings take come by themselves.
    void (*needs)(const NeedFacts&, std::vector<Need>&) = nullptr;
    /// Its steps, in order.
    void (*steps)(const FitFacts&, const LayerFacts&, std::vector<FitStep>&) = nullptr;
    /// What can be moved by hand.
    std::vector<Grip> (*grips)(const GripFacts&) = nullptr;
};

/// The table: the one place that lists families, in the order in which they are shown. Defined in table.cpp.
std::span<const Family> familyTable();

/// By id; null for one unknown.
const Family* familyOf(std::string_view id);

/// Those that are set out.
std::span<const SetOutFamily> setOutFamilies();
const SetOutFamily* findFamily(std::string_view id);

/// How a layer is fixed: rules of it besides those of its set-out. Keys: fixWith, fixEdge, fixField, fixInset, fixCups.
/// Empty for a family that is held by what lies around it, or by adhesive always.
std::span<const Field> fixingRules(std::string_view family);

/// Hours that a layer takes. @param areaM2  that it covers  @param pieces  of a set-out; 0: it is not set out
/// @param own  rates of the person, by family
double hoursFor(std::string_view family, double areaM2, int pieces, const HourRates& own = {});

/// The fixings of a layer, each at its place. @param facts  told how many found none
std::vector<Fixing> fixingsOf(NeedFacts& facts);

/// Small things of a layer: by its fixings, its family, and what upholstery is sewn with. Surface and layer are left to
/// the caller.
std::vector<Need> needsOf(NeedFacts facts);

/// The steps of a surface, layer by layer from the metal inwards; what must be in before anything hides it stands
/// before the first layer that covers.
/// @param own  the person's rates: the steps of a layer share its hours
std::vector<FitStep> fitSteps(FitFacts facts, const HourRates& own = {});

} // namespace westrum
