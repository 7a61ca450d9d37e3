#pragma once

#include "core/buildup/relief_cut.h"
#include "core/catalogue/product.h"
#include "core/geometry/polygon.h"
#include "core/shell/datum.h"
#include "core/shell/shape.h"
#include "core/units/quantity.h"
#include "core/units/remark.h"

#include <cstdint>
#include <functional>
#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// Where along its stock a piece was cut.
enum class PieceKind {
    Whole,  ///< a whole plank
    First,  ///< starts a row; has the plank's right-hand end
    Last,   ///< ends a row; has the plank's left-hand end
    Single, ///< fills a run alone; both ends stand at an edge
    Inner,  ///< between two joints of its row, sawn at one end at least
    Cut     ///< of a tile or panel: less than the whole
};

/// Which edges of a piece are as the factory made them; the others are sawn. `left` to `right` runs along the row in
/// laying direction, `near` is the long edge towards the first row.
struct FactoryEdges {
    bool left{}, right{}, near{}, far{};
    friend bool operator==(const FactoryEdges&, const FactoryEdges&) = default;
};

/// One piece as it lies on the surface.
struct Piece {
    PieceName name; ///< "3.2": third row, second piece
    int row{};      ///< from 0
    int inRow{};    ///< from 0, in laying order
    int stock = -1; ///< place in SetOut::stock; -1: the cutting finds its stock
    PieceKind kind{};
    Region shape;      ///< in surface coordinates
    Mm length;         ///< along the row, as cut before any notch is taken out
    Mm width;          ///< across the row; less than the stock's width where the row is ripped
    Mm narrowest;      ///< least width over a stretch of at least 20 mm
    bool notched{};    ///< a cut-out or a slanting edge bites into it
    bool fromOffcut{}; ///< its stock was opened for an earlier piece
    FactoryEdges factory;
    FactoryEdges wants{};    ///< of a panel: sides that are to lie on the sheet's own edges, as it lies on the surface
    Mm ripAtStart, ripAtEnd; ///< width to saw where the cut begins and ends, tongue included; 0: as it comes
    Mm ripFrom{}, ripTo{};   ///< where that is along the piece: a taper may run out of the board before its end
    /// Of a plank or board that is shaped: what is sawn out of it besides its ends and its rip, on the stock, its near
    /// left corner at 0, 0. Rows that run across are reckoned turned over: they show it from behind.
    Region cutAway{};
    bool feature{};   ///< the place for the finest plank: whole, and where it is seen most
    bool removable{}; ///< comes off again: something runs behind it
    // Of soft finishes.
    Region cut;                  ///< as it is cut, allowances and all, in surface coordinates; empty: as its shape
    std::vector<Ring> folds;     ///< lines along which it is turned
    std::vector<Ring> snips;     ///< relief cuts, from the edge inwards
    std::vector<Ring> marks;     ///< what is cut out later, once it is on; notches that meet
    std::optional<Point> pile{}; ///< the way of its nap, if another than the set-out's
    bool offPattern{};           ///< it may lie anywhere on a pattern
    bool aside{};                ///< strips and the like, not shown beside the rest
    int unit{};                  ///< the cushion that a panel belongs to, from 1; 0: none
    friend bool operator==(const Piece&, const Piece&) = default;
};

enum class CutKind { Cross, Rip, Shape };
/// One cut on a stock unit. `at` is from the left-hand end (Cross) or from the near long edge (Rip).
struct Cut {
    CutKind kind{};
    Mm at;
    friend bool operator==(const Cut&, const Cut&) = default;
};

struct Offcut {
    Mm length;
    Mm width;
    bool ripped{}; ///< a strip left from ripping
    friend bool operator==(const Offcut&, const Offcut&) = default;
};

/// One plank (sheet, length) opened, in the order in which it is first needed.
struct StockUnit {
    std::vector<int>
        pieces; ///< from its left-hand end; the far strip of a plank ripped in two comes after the near one
    std::vector<Cut> cuts;
    std::vector<Offcut> offcuts; ///< what is left, 1 mm and more
    int pack{};                  ///< the pack it is taken from, from 1; 0: not sold in packs
    bool rippedInTwo{};          ///< serves the first and the last row, split along
    friend bool operator==(const StockUnit&, const StockUnit&) = default;
};

/// One row: its extent across the surface and the visible width of what is laid in it. Rows that share a taper are
/// wider at one end than at the other.
struct Row {
    double low{}, high{};
    double lowAtEnd = low, highAtEnd = high; ///< at the far end of the rows
    [[nodiscard]] double width() const { return high - low; }
    [[nodiscard]] double widthAtEnd() const { return highAtEnd - lowAtEnd; }
    [[nodiscard]] bool tapered() const { return low != lowAtEnd || high != highAtEnd; }
    friend bool operator==(const Row&, const Row&) = default;
};

/// Where two pieces meet end to end, or panel to panel.
struct Joint {
    Point from, to;
    bool onSupport{};
    bool byHand{};
    friend bool operator==(const Joint&, const Joint&) = default;
};

/// What is sawn out of a piece and large enough to serve again: a lid, a splashback, a small panel.
struct Cutout {
    int opening{}; ///< place in Surface::openings
    int piece{};
    Mm length, width; ///< of the largest rectangle in it
    friend bool operator==(const Cutout&, const Cutout&) = default;
};

/// What is sawn out of a panel and kept as the lid of its opening.
struct KeptLid {
    int opening{};    ///< place in Surface::openings
    std::string name; ///< of the opening
    int piece{};
    Lid lid;
    friend bool operator==(const KeptLid&, const KeptLid&) = default;
};

/// The part of a piece that lies on a hatch: cut out with it, so that the lines run on over the hatch.
struct CarriedPiece {
    int opening{};
    int piece{};
    Region shape;
    friend bool operator==(const CarriedPiece&, const CarriedPiece&) = default;
};

/// What a good fitter weighs. Lower is better in all but `narrowestEdge`.
struct Judgement {
    Mm narrowestEdge; ///< of the pieces along the edges that are parallel to a joint
    Mm unevenness;    ///< difference of opposite edges, the larger of both directions
    Mm offCentre;     ///< from the layout's middle line to the centre it should have
    int slivers{};    ///< pieces narrower than a third of a module
    int jointsOffSupport{};
    int jointsInLine{}; ///< end joints too near one in the next row
    int pieces{};
    Mm cutLength; ///< to be sawn
    int stock{};  ///< units that it takes: proven enough, perhaps not least
    int leastStock{};
    int linesMissed{}; ///< neighbours whose lines do not run through
    friend bool operator==(const Judgement&, const Judgement&) = default;
};

/// What a soft finish takes besides its cloth.
enum class SundryKind { Zip, Thread, PipingCord, Staples, FoamGlue, LiningCloth };
struct Sundry {
    SundryKind kind{};
    double amount{}; ///< mm; of staples pieces; of glue and lining m2
    friend bool operator==(const Sundry&, const Sundry&) = default;
};

/// How a finish lies on a surface.
struct SetOut {
    bool rowsAcross = false; ///< rows run in y, and `rows` are extents in x
    Region net;              ///< what is covered: the outline less the movement gap
    std::vector<Row> rows;   ///< in laying order
    std::vector<Piece> pieces;
    std::vector<StockUnit> stock;
    double startLine{};         ///< coordinate across the rows of the line between first and second row
    Mm startOffset;             ///< ripped off the first row; 0 for a full first row
    Mm firstRow, lastRow;       ///< visible widths
    int leastStock{};           ///< no layout under the rules and this start needs fewer units cut crosswise
    int stockWithoutRipReuse{}; ///< what is needed if no plank is ripped for two rows
    int slivers{};              ///< pieces beside cut-outs narrower than a third of the stock's width
    Mm firstColumn, lastColumn; ///< of a grid: visible widths at its other two edges
    double module{};            ///< distance of row lines, joint included; 0: none
    Mm jointWidth;              ///< left free between pieces
    std::vector<Joint> joints;
    std::vector<Cutout> cutouts;
    std::vector<KeptLid> lids;
    std::vector<CarriedPiece> carried;
    bool grainAcross = false;          ///< of sheets: the grain runs in y
    std::optional<double> centreLine;  ///< across the rows: the line that the layout should be centred on
    std::optional<double> startColumn; ///< of a grid: coordinate along the rows of its start line
    Mm columnOffset;
    double columnModule{};
    int taperBoards{};         ///< that share a taper; 0: no side tapers
    std::optional<Point> pile; ///< of a lining: unit vector along the roll, the way that its nap lies
    Point patternAt;           ///< a point of the pattern lies here
    std::vector<Sundry> sundries;
    Mm cushionHeight;                        ///< of upholstery
    std::vector<ReliefCut> reliefs;          ///< of a lining, those by hand that reach into it
    std::optional<ReliefCut> proposedRelief; ///< where one would be hidden, if it stretches too little
    Judgement figures;
    std::vector<Remark> remarks;
    [[nodiscard]] bool laid() const { return !pieces.empty(); }
    [[nodiscard]] M2 laidArea() const;
    friend bool operator==(const SetOut&, const SetOut&) = default;
};

/// What one way of laying it would give. The start lines among them are the columns of the start strip.
struct StartChoice {
    Mm startOffset;
    int rows{};
    Mm firstRow, lastRow;
    int stock{}; ///< units needed; 0 if it cannot be laid
    int slivers{};
    bool fair{};          ///< both edge rows at least a third of the stock's width
    bool onStrip = true;  ///< a start line under the rules as they are; else another rule changes too
    FieldValues change{}; ///< the rules to set
    Judgement figures{};
    friend bool operator==(const StartChoice&, const StartChoice&) = default;
};

enum class SuggestionReason { EqualEdges, FewestUnits, FewestSlivers, FewestPieces, WidestEdge, OnSupports };
/// A start line worth taking, with the figures for its sentence.
struct Suggestion {
    SuggestionReason reason{};
    StartChoice choice;
    friend bool operator==(const Suggestion&, const Suggestion&) = default;
};

/// A length in which boards are sold or stand on the rack, and what one costs.
struct StockLength {
    Mm length;
    std::int64_t cost = 1; ///< minor units; equal for all: boards are counted
    friend bool operator==(const StockLength&, const StockLength&) = default;
};

/// An opening as a set-out sees it.
struct OpeningFact {
    PlacedOpening placed;
    OpeningKind kind{};
    Treatment treatment{};
    std::string name;
    OpeningEdge edge{};
    std::optional<Mm> turnIn{}; ///< of a reveal
    std::optional<Lid> lid{};
    friend bool operator==(const OpeningFact&, const OpeningFact&) = default;
};

/// One side of the outline as a set-out sees it.
struct SideFact {
    Ring line; ///< from its first to its last point, the surface on its left
    EdgeKind kind{};
    std::optional<Mm> allowance; ///< movement gap or turn-in said for this side alone
    bool factory = false;        ///< wants the sheet's own edge
    friend bool operator==(const SideFact&, const SideFact&) = default;
};

/// Who listens to a search changes nothing of what it finds: all are equal.
struct Progress {
    std::function<void(double)> call{};
    explicit operator bool() const { return static_cast<bool>(call); }
    void operator()(double share) const { call(share); }
    friend bool operator==(const Progress&, const Progress&) { return true; }
};

/// All that a set-out depends on.
struct SetOutRequest {
    Region outline;  ///< to be covered: less the openings that are cut before fitting
    Product product; ///< fields have passed checkFields()
    FieldValues rules;
    // What lies on the surface, in its coordinates.
    std::vector<PlacedSupport> supports{};
    std::vector<SideFact> sides{}; ///< of the frame, in order round it
    std::vector<OpeningFact> openings{};
    std::vector<Region> hidden{}, wiring{}; ///< zones
    std::optional<double> visibleCentreX{}, visibleCentreY{};
    std::optional<DatumLine> datum{};
    std::vector<double> joints{};       ///< set by hand
    std::vector<ReliefCut> reliefs{};   ///< the same
    std::vector<StockLength> lengths{}; ///< besides what the product is sold as
    std::optional<Mm> widestThroughDoor{};
    std::string door{};                      ///< its name
    std::optional<Mm> loadLength, loadWidth; ///< of the car, where panels are to lie in it
    /// Of tiles that go on round a corner: what of a pitch the neighbour's last tile has used up already.
    std::optional<double> runsOnFrom{};
    /// Told by a search for choices how far it is, from 0 to 1; may be empty.
    Progress progress{};
    std::optional<Mm> bendRadius{};   ///< of a surface curved across (in y)
    bool lies = false;                ///< the surface lies rather than stands
    bool onFloor = false;             ///< the van's own floor is below it
    bool backed = false;              ///< it lies on something all over: the van's floor, another sheet, a bed of glue
    std::optional<double> stretch{};  ///< of one bent both ways: what covers it must stretch by this share
    FieldValues cover{};              ///< of foam: the rules of the cloth over it; empty: none
    Mm foamThickness, boardThickness; ///< of cloth: of the foam and of the board below it
    std::vector<Region> panels{};     ///< of the layer below, each covered by itself
    double care = 1;                  ///< of the search that its family usually makes, this share
    friend bool operator==(const SetOutRequest&, const SetOutRequest&) = default;
};

/// How a finish family is set out: part of its entry in core/families/.
struct SetOutFamily {
    std::string_view id; ///< as in Product::family
    std::span<const Field> ruleFields;
    SetOut (*setOut)(const SetOutRequest&, const std::stop_token&);
    /// Every way worth telling apart: start lines in order of offset, then other rules; empty when stopped or when
    /// nothing can be laid.
    std::vector<StartChoice> (*choices)(const SetOutRequest&, const std::stop_token&);
    /// The rules that put the start line at an offset, and the other one of a grid; null where there is none.
    FieldValues (*startAt)(Mm offset) = nullptr;
    FieldValues (*columnAt)(Mm offset) = nullptr;
    /// The rules that every choice on the strip sets itself: what they are does not change the choices.
    std::span<const std::string_view> startRules{};
};

/// Marks the whole piece nearest the middle of what is seen as the place for the finest plank.
void markFeature(SetOut& setOut, Point seen);

/// The parts of pieces that lie on hatches which are covered and routed: they go with the hatch.
std::vector<CarriedPiece> carriedPieces(const SetOut& setOut, std::span<const OpeningFact> openings);

/// The region that, drawn in by `gap` all round, is what is covered: the outline less the hidden zones, each drawn in
/// by `bearing`, if they are left bare. Along a side with a movement gap of its own it lies as much further out or in
/// as that gap is less or more.
Region toCover(const SetOutRequest& request, bool leaveBare, Mm bearing, Mm gap);

/// The centres of the supports that run across the rows, rising: joints of rows land there.
/// @param rowsAcross  rows run in y: supports that run along count
std::vector<double> supportsAcross(const SetOutRequest& request, bool rowsAcross);

/// The best start lines, best first, at most one for each reason; none that is worse in every figure than another.
/// @param unitsPerPack  packs are what is paid for: starts that need the same packs count as equal at first
std::vector<Suggestion> suggestStarts(std::span<const StartChoice> starts, int unitsPerPack);

} // namespace westrum
