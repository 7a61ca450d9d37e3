#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/fault.h"

#include <functional>
#include <optional>
#include <vector>

namespace westrum {

/// A kind of sheet to cut from. All sizes in mm; x runs along `widthMm`, y along `heightMm`.
struct SheetStock {
    double widthMm{};
    double heightMm{};
    double price{};             ///< of one, in any unit of money; 0 for what lies on the rack already
    std::optional<int> count{}; ///< how many there are; none: any number can be bought
    friend bool operator==(const SheetStock&, const SheetStock&) = default;
};

struct SheetPiece {
    double widthMm{};
    double heightMm{};
    int count = 1;
    bool mayTurn = false; ///< by a quarter turn; false: the grain forbids it
    friend bool operator==(const SheetPiece&, const SheetPiece&) = default;
};

struct PlacedRectangle {
    std::size_t piece{}; ///< place in the list of pieces
    double x{};          ///< of its corner nearest to 0, 0
    double y{};
    bool turned = false;
    friend bool operator==(const PlacedRectangle&, const PlacedRectangle&) = default;
};

/// One sheet and what is cut from it.
struct CutSheet {
    std::size_t stock{}; ///< place in the list of stock
    std::vector<PlacedRectangle> pieces;
    bool locked = false; ///< already cut: nothing is added
    friend bool operator==(const CutSheet&, const CutSheet&) = default;
};

struct SheetsProblem {
    double kerfMm{};
    double edgeTrimMm{}; ///< taken off all four edges of every sheet, the saw's kerf included
    std::vector<SheetStock> stock;
    std::vector<SheetPiece> pieces;
    /// Sheets that are in the plan whatever happens: a locked one stays as it is, on another the pieces stay where they
    /// are pinned and more are placed round them.
    std::vector<CutSheet> fixed;
    friend bool operator==(const SheetsProblem&, const SheetsProblem&) = default;
};

struct SheetsPlan {
    std::vector<CutSheet> sheets; ///< the fixed ones first, in their order
    double cost{};
    double lowerBoundCost{}; ///< no plan can cost less
    bool proven = false;
    std::vector<std::size_t> unplaced; ///< pieces left over because the counted stock is used up
    friend bool operator==(const SheetsPlan&, const SheetsPlan&) = default;
};

/// All that is wrong with a problem.
CuttingFaults faultsOf(const SheetsProblem& problem);

/// Cuts rectangles from sheets at the least cost so that every sheet comes apart by cuts right across what is in hand
/// (guillotine cuts), in any number of stages, each at least a kerf wide.
///
/// Method: a set of sheets is aimed at, cheaper than the best plan so far. It is packed by ruin and recreate over the
/// trees of cuts: a part of one or two sheets is emptied and filled again, pieces and strips of pieces that match in
/// size joined beforehand, until nothing is left over. The bound comes from dual feasible functions (Fekete and
/// Schepers, 2001) and from the pieces' slices across the sheet (the relaxation of strip heights), rounded up to a
/// set of whole sheets. An iteration is one ruin and recreate.
/// @param problem   without faults
/// @param progress  called with each better plan, from this thread
SheetsPlan cutSheets(const SheetsProblem& problem, const Effort& effort,
                     const std::function<void(const SheetsPlan&)>& progress = {});

/// One cut right across the part in hand.
struct SheetCut {
    int part{};         ///< number of the part that is cut: 0 is the sheet, later ones as their cuts make them
    bool along{};       ///< true: the cut runs along x, its distance is from the part's lower edge; else from its left
    double atMm{};      ///< from that edge of the part to the near side of the kerf
    double sheetAtMm{}; ///< the same, from the sheet's own lower or left edge
    int near = -1;      ///< number of the part on the near side, which is `atMm` wide
    int far = -1;       ///< number of the part on the far side; -1: nothing is left there
};

/// A part that a sheet comes apart into: a piece, an offcut, or a stage on the way.
struct SheetPart {
    double x{}, y{}, widthMm{}, heightMm{};
    std::optional<std::size_t> piece{}; ///< place in the sheet's list of pieces, when this part is finished
    bool offcut = false;                ///< no piece lies in it
};

struct SheetCuts {
    std::vector<SheetCut> cuts; ///< in order
    std::vector<SheetPart> parts;
    int turns = 0; ///< how often the saw changes between along and across
};

/// The cuts that part a sheet, in an order a person can follow: all parallel cuts of a part one after the other before
/// its strips are cut. None: it cannot come apart by cuts right across.
std::optional<SheetCuts> cutsOf(const SheetsProblem& problem, const CutSheet& sheet);

} // namespace westrum
