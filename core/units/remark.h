#pragma once

#include "core/units/money.h"
#include "core/units/piece_name.h"
#include "core/units/quantity.h"

#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace westrum {

enum class Severity { Note, Warning, Error };

/// What a remark is about. Each kind has one sentence, put together in formats/words.cpp and finish_words.cpp from the
/// facts.
enum class RemarkKind {
    ReadingMissing,       ///< {reading}
    ReadingNotPositive,   ///< {reading} {length}
    ReadingAbsurd,        ///< {reading} {length} {limit}: more than a van can be
    SidesCannotClose,     ///< {reading} is longer than {others} together
    ReadingsDisagree,     ///< {reading}, {length}, is {misclosure} off what the others imply, {implied}: proved
    SquareAssumed,        ///< no diagonal read
    NotchOutside,         ///< {notch} ends at {length} on a side of {limit}
    NotchTooDeep,         ///< {notch} {length} into a floor {limit} deep
    StepOutside,          ///< {step} {length} on a side of {limit}
    CutoutIncomplete,     ///< {cutout} lacks {reading}
    CutoutSideCurved,     ///< {cutout} is on a curved side, where none can be cut
    RadiusTooLarge,       ///< {reading} {length}: the sides allow {limit}
    DrawnAbsurd,          ///< the drawing is {length} long or high: is the unit right?
    OutlineCrosses,       ///< the sides cross each other
    CurveUnmeasured,      ///< {reading}: neither taped along the curve nor given by chord and rise
    CurveDisagrees,       ///< {reading} taped as {length}, chord and rise say {implied}
    DiagonalMissing,      ///< {corner} is not held by the readings
    ReadingTooLong,       ///< {reading} is longer than the two others of its triangle
    OneReadingWrong,      ///< {reading} by {misclosure}, or {other} by {otherBy}, or {another}, or {count} more
    SeveralReadingsWrong, ///< no single error explains it; facts as above
    VanReadingWrong,      ///< {reading}, {length}, of {on} is {misclosure} off what the van leaves room for: proved
    VanDoesNotClose,      ///< {reading} of {on} by {misclosure}, or {other} of {otherOn} by {otherBy}, or {another} ...
    OutlineEitherWay,     ///< {corner} may turn outwards or inwards: {area} or {otherArea}
    StationsNotRising,    ///< {reading} {length} is not beyond {before}
    TapesDoNotMeet,       ///< {reading} and {other} fall {gap} short of each other
    TapesMeetFlat,        ///< {reading} and {other} meet at a flat or sharp angle
    StretchUnknown,       ///< bent both ways, but not both bends are measured
    DoubleCurve,          ///< bent both ways: what covers it must stretch by {stretch}
    OutlineInPieces,      ///< what was cut out parts the surface in {count}
    OutlineEmpty,         ///< nothing of the surface is left
    OpeningIncomplete,    ///< {opening} lacks {what}
    OpeningOutside,       ///< {opening} lies outside the surface
    OpeningOverEdge,      ///< {opening} hangs over the edge
    OpeningsOverlap,      ///< {opening} and {other}
    OpeningCrossed,       ///< the outline of {opening} crosses itself
    ZoneIncomplete,       ///< {zone} lacks {what}
    ZoneOutside,          ///< {zone} hides nothing of the surface
    AllHidden,            ///< nothing of the surface stays visible
    SupportIncomplete,    ///< {support} lacks {what}
    SupportOutside,       ///< {support} lies outside the surface
    EdgeMeetsNothing,     ///< {edge} meets a surface that is gone
    HoleSidesDiffer,      ///< {opening} is {length} here, {otherLength} seen from {other}: {difference} > {limit}
    HolesApartDiffer,     ///< from {from} to {opening}: {length} here, {otherLength} on {other}: {difference} > {limit}
    SharedEdgesDiffer,    ///< {edge} is {length}, {otherEdge} of {other} is {otherLength}: {difference} > {limit}
    PanelCannotPass,      ///< no panel of {thickness} passes {door}
    ProductMissing,       ///< the surface names a product that the catalogue lacks: {product}
    NoProduct,            ///< no finish chosen yet
    FieldMissing,         ///< {product} {field}
    FieldOutOfRange,      ///< {product} {field} {number} {least} {most}
    PriceMissing,         ///< {product}
    NothingLeftInsideGap, ///< the movement gap eats the surface: {gap}
    GapBelowProduct,      ///< {gap} below the {limit} that the product asks for
    PlankWiderThanFloor,  ///< {width} {limit}: one row, ripped
    TooManyPieces,        ///< {count} {limit}
    RowsCannotBeLaid,     ///< stagger {stagger} and least end {end} cannot both be kept: {got} kept instead
    RowsNotLaid,          ///< no layout was found even without stagger
    EndStaggerBelowLabel, ///< {stagger} below the product's {limit}
    EdgeRowSliver,        ///< {row} {width} narrower than {limit}
    CutoutSliver,         ///< {count} pieces narrower than {limit} beside a cut-out, the narrowest {width}
    NotProvenLeast,       ///< {planks} planks found; fewer than {limit} is impossible
    PackEmpty,            ///< {product} has nothing in a pack
    LayerTooDeep,         ///< {layer} is {length} thick, between the supports there is room for {limit}: {over} over
    HeadroomShort,        ///< {head} left at worst; {person} needs {limit}
    DoorStep,             ///< the floor stands {step} over the sill of {door}: a strip of {length} is wanted
    BoardWiderThanSurface, ///< {width} {limit}: one board, ripped
    TileLargerThanSurface, ///< {width} {limit}: one tile, cut
    EdgeBelowThird,        ///< {edge} {width} narrower than {limit}
    RunLongerThanStock,    ///< {row} {length}: the longest stock gives {limit}
    NoSupports,            ///< joints are wanted on supports, and none are measured
    JointsOffSupport,      ///< {count} of {total} joints lie on no support
    JointsInLine,          ///< {count} joints stand less than {limit} from one in the next row
    TaperTooNarrow, ///< {boards} boards share the taper: {width} at the narrow end, under {limit}; {least} would do
    TaperLosesLock, ///< {boards} boards in mid-field are ripped: re-groove or glue them
    CentreOpeningsMissing,  ///< the centre line through two openings wants {count} of them
    NothingToRunOn,         ///< tiles run on from a neighbour, and no neighbour at the left has tiles
    DatumMissing,           ///< lines from the datum, and no datum crosses this surface
    PanelTooLarge,          ///< {panel} {length} x {width} does not fit the sheet
    PanelPastDoor,          ///< {panel} is {width} at its narrowest; {door} lets {limit} through
    PanelPastLoad,          ///< {panel} is {length} x {width}; the car takes {limitLength} x {limitWidth}
    LidInPieces,            ///< what is sawn out of {opening} is to be its lid, and a joint parts it
    LidUnderKerf,           ///< {opening}: a lid with a gap of {gap}; the blade takes {limit}
    FingerTooLarge,         ///< {opening}: a hole of {length} in a lid of {limit}
    SpanTooWide,            ///< supports {length} apart; {product} carries {limit}
    EdgeOverhangs,          ///< {product} stands {length} beyond its last support, {limit} is what it bears
    PanelsUnsupported,      ///< {product} is to span {length} with {supports} support behind it; it carries {limit}
    PanelSlivers,           ///< {count} of {total} panels under {limit}, the narrowest {width}
    RunsAlongSupports,      ///< {product} runs the same way as all that it is fixed to
    LooseBelow,             ///< {product} is stuck to {below}, which gives way
    BarrierMissing,         ///< {product} where it gets damp, and no barrier on its warm side
    WaterproofMissing,      ///< {product} where it gets wet, and no waterproof coat {on} it or below it
    BendTooTight,           ///< bent to {radius}; {product} bends to {limit}, two of {half} would
    SolidMoves,             ///< {product} moves by {length} over {width}
    CutTileSliver,          ///< {count} cut tiles under {limit}, the narrowest {width}
    LinesMissNeighbour,     ///< lines meet those of {other} {length} off
    LampOffRow,             ///< {opening} lies {length} off the middle of its row
    BattsTooStiff,          ///< offcuts of {product} are to be pressed in, and it does not give way
    NoBattens,              ///< {product} is a layer, and no batten is measured
    CushionNoHeight,        ///< no foam below the cloth, and no height said
    CushionHole,            ///< a cushion cannot be boxed round a hole: {opening}
    CushionThin,            ///< {piece} is only {width} wide
    RollTooNarrow,          ///< {width} of use, less than what two seams take: {limit}
    PieceWiderThanRoll,     ///< {piece} is {width} across, the roll gives {limit}
    NoPanelsBelow,          ///< a lining is to wrap panels, and no layer below is of sheets
    NoGlass,                ///< film for windows, and the surface has none
    StretchBeyondLining,    ///< {share} of stretch is asked for (of strip {piece}), {limit} is there; {seams} more do;
                            ///< {hidden}, {depth}
    ReliefOutside,          ///< relief cut {number} does not reach into the lining
    UndersizeBeyondStretch, ///< cut {share} smaller, and it stretches by {limit}
    PatternMisses,          ///< {piece} is {width} across: its pattern, each {repeat}, cannot meet on {limit} of roll
    RepeatBeyondPiece,      ///< {piece} is {length}, the pattern repeats each {repeat}
    NapDisagrees,           ///< the nap runs another way than on {other}
    TrimProfileMissing,     ///< an edge wants a {profile}, and the catalogue has none
    GapBeyondTrim,          ///< side {edge} has a gap of {gap}; {product} covers {limit}
    TrimStockTooShort,      ///< {product}: a run of {length} cannot be joined from lengths that give {limit}
    TrimBendTooTight,       ///< {product} bends to {limit}, side {edge} to {radius}
    TrimTooStiff,           ///< {product} is stiff, side {edge} bends to {radius}
    NeedUnserved,        ///< the catalogue has nothing that serves as {serves}: {amount}, from {least} to {most} long
    RateMissing,         ///< {currency} is asked for {product} by {supplier}, and no rate is known
    AxleOver,            ///< {which} 0 front, 1 rear, 2 the whole: {kg} of {limit}
    SideOver,            ///< {right} or left: {kg}, half of what is allowed is {limit}
    AllowancePassed,     ///< finishes weigh {kg}, {limit} were allowed
    AdhesiveNeverCloses, ///< {product} dries {flash} minutes and stays open for {open}
    AdhesiveTooCool,     ///< {product} holds up to {limit} degrees; here it gets {heat}
    FixingsLeftOut,      ///< {count} fixings of {product} find no place clear of wiring and covered openings
    PackingIncomplete,   ///< {count} of {total} crossings of battens and ribs have no reading
    PackingStandsOut,    ///< at {batten}, {rib} one crossing stands out: without it {length} less is lost
    PackersMissing,      ///< battens are to be packed, and the catalogue has no packers
    PackerTooThick,      ///< {count} packers over {limit}: two of the thickest there are do not reach {length}
    OpeningTooNear,      ///< {opening} is {length} from {what} ({which}), {limit} is wanted: shift by {shift}
    OpeningOnSupport,    ///< {opening} lies {length} into {support}, {limit} clear of it is wanted: shift by {shift}
    BackingMissing,      ///< something heavy hangs at {zone}, and no batten is behind it
    LampsOffCentre,      ///< {opening}: lamps lie {length} off where they stand even in what is seen
    ArchBoxImpossible,   ///< {box}: {what} makes no box
};
inline constexpr int kRemarkKinds = static_cast<int>(RemarkKind::ArchBoxImpossible) + 1;

/// Where a remark belongs.
enum class Part { Whole, Reading, Notch, Step, Row, Piece, Product, Rule, Opening, Zone, Support, Edge, Layer };
struct Place {
    std::string surface; ///< id; empty for the whole job
    Part part = Part::Whole;
    int index = -1;    ///< notch, step, row, piece, opening ... in its list
    std::string key{}; ///< of the reading
    int layer = -1;    ///< of the build-up, counted from the metal; -1: the one that is seen, or none
    friend bool operator==(const Place&, const Place&) = default;
};

/// One figure of a remark. Lengths and money are printed in the reader's own units.
using FactValue = std::variant<Mm, std::int64_t, double, std::string, Money, PieceName>;
using Facts = std::vector<std::pair<std::string, FactValue>>;

enum class FixKind {
    SetRule,      ///< of the layer that the remark is about
    SetField,     ///< of that layer's product
    TurnBattens,  ///< of that surface: laid the other way
    AddLayer,     ///< a product of the catalogue, by its id in `key`, before the place `value` of the build-up
    TurnCorner,   ///< of a polygon: corner `value` turns inwards (`key` "in") or outwards
    ShiftOpening, ///< opening `place.index` by `key`, "x y" in mm
    AddBacking,   ///< a batten behind the middle of zone `value`
    PlaceLamps,   ///< lamps even in what is seen
    AddDiagonal,  ///< of a polygon: a reading between the corners `key` and `value`
};
/// What settles a remark by one press: a rule or field, and what to set it to.
struct Fix {
    FixKind kind{};
    std::string key;
    double value{};
    friend bool operator==(const Fix&, const Fix&) = default;
};

/// Something a person should know, found while planning; planning goes on.
struct Remark {
    Severity severity{};
    Place place;
    RemarkKind kind{};
    Facts facts;
    std::optional<Fix> fix;
    friend bool operator==(const Remark&, const Remark&) = default;
};

} // namespace westrum
