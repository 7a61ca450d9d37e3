#pragma once

#include "core/catalogue/stock.h"
#include "core/cutting/leftovers.h"
#include "core/geometry/polygon.h"
#include "core/setout/set_out.h"
#include "core/units/piece_name.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// One piece that is wanted of a product, wherever it comes from.
struct CutPiece {
    std::string key; ///< stays the same while the piece is the same, through every edit elsewhere
    PieceName name;
    std::string surface; ///< id; empty: of none
    Region shape;        ///< as it is to be cut, its bounds from 0, 0; length along x
    Region place;        ///< where it lies on the surface, if that is known
    bool mayTurn = false;
    std::string together;
    bool offPattern = false;        ///< it may lie anywhere on a pattern
    Point patternAt{};              ///< of its lower left corner from a point of the pattern, where the product has one
    std::vector<Ring> folds, marks; ///< in the frame of `shape`
    bool weighed = false;           ///< its layer has its mass already
    /// Holes that are drilled in it before it goes up: middles in the frame of `shape`, and their diameters.
    struct Drill {
        Point at;
        Mm diameter;
        friend bool operator==(const Drill&, const Drill&) = default;
    };
    std::vector<Drill> drills{};
    Region cutAway{};     ///< of a plank or board: what is sawn out of it besides, in the frame of `shape`
    bool seenBehind{};    ///< its frame shows it from behind
    FactoryEdges wants{}; ///< sides that are to lie on the stock's own edges, in the frame of `shape`
    [[nodiscard]] double lengthMm() const { return boundsOf(shape).width(); }
    [[nodiscard]] double widthMm() const { return boundsOf(shape).height(); }
    friend bool operator==(const CutPiece&, const CutPiece&) = default;
};

/// One stroke of saw, blade or scissors. Distances are those that a tape shows which lies along the whole item.
struct CutStep {
    enum class Kind {
        Across,   ///< at `atMm` from the item's left end, from `fromMm` to `toMm` across it
        Along,    ///< at `atMm` from its lower edge, from `fromMm` to `toMm` along it
        ByOutline ///< round a piece that lies from `fromMm` to `toMm` along the item
    };
    Kind kind{};
    double atMm{};
    double fromMm{}, toMm{};
    double partAtMm{};      ///< the same cut, measured from the edge of the part in hand
    std::vector<int> frees; ///< pieces that it makes free: places in CutItem::pieces
    /// By an outline: what goes, from the piece's left end and its lower edge.
    std::vector<Bounds> notches{};
    bool seenBehind{}; ///< as CutPiece::seenBehind
    friend bool operator==(const CutStep&, const CutStep&) = default;
};

/// A piece as it lies on an item of stock.
struct LyingPiece {
    int piece = -1; ///< place in ProductCut::pieces; -1: cut for an earlier list, no longer wanted as it is
    std::string key;
    PieceName name;
    Point at;             ///< lower left of its bounds, on the stock
    double rotationRad{}; ///< by which it is turned
    Region shape;         ///< as it lies
    bool pinned = false, cut = false;
    FactoryEdges onEdge{}; ///< of the sides that it wants there: those that do lie on the stock's own edge
    friend bool operator==(const LyingPiece&, const LyingPiece&) = default;
};

/// One bar, sheet or run of a roll, and what is cut from it.
struct CutItem {
    std::string stock; ///< id of its stock
    std::string name;
    double lengthMm{}, widthMm{};
    Region shape; ///< of an offcut that is no rectangle
    bool rack = false, locked = false;
    bool decided = false; ///< by the set-out: what lies on it is changed there
    double kerfMm{};
    std::optional<Money> price;
    std::vector<LyingPiece> pieces;
    std::vector<LeftRectangle> left; ///< worth keeping
    std::vector<CutStep> order;
    friend bool operator==(const CutItem&, const CutItem&) = default;
};

/// What a family wants cut of one of its products: pieces that the cutting lays out, and items on which the set-out has
/// laid them already.
struct WantedPieces {
    std::vector<CutPiece> pieces;
    std::vector<CutItem> decided; ///< `piece` of what lies on them is a place in `pieces`
    int leastDecided = 0;         ///< no set-out under its rules takes fewer; 0: not known
};

/// A piece, its lines too, moved so that its bounds start at 0, 0.
void toOrigin(CutPiece& piece);

/// The stroke round what is sawn out of a piece. @param item  place of the piece in CutItem::pieces  @param at  where
/// it lies
CutStep outlineStep(const CutPiece& piece, int item, Point at);

/// Lines of a shape, each closed, to be marked on the rectangle that a saw cuts.
std::vector<Ring> outlineMarks(const Region& shape);

/// From what size on a leftover of this form is kept: a bar of 300 mm; of anything flat 300 x 150 mm.
KeepRule keepRuleOf(StockForm form);

} // namespace westrum
