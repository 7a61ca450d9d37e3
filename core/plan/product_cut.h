#pragma once

#include "core/catalogue/product.h"
#include "core/catalogue/stock.h"
#include "core/cutting/effort.h"
#include "core/cutting/fault.h"
#include "core/cutting/leftovers.h"
#include "core/plan/cut_list.h"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// One piece that is wanted of a product, wherever it comes from.
struct CutPiece {
    std::string key; ///< stays the same while the piece is the same, through every edit elsewhere
    std::string name;
    std::string surface; ///< id; empty: of none
    Region shape;        ///< as it is to be cut, its bounds from 0, 0; length along x
    Region place;        ///< where it lies on the surface, if that is known
    bool mayTurn = false;
    std::string together;
    bool offPattern = false;        ///< it may lie anywhere on a pattern
    Point patternAt{};              ///< of its lower left corner from a point of the pattern, where the product has one
    std::vector<Ring> folds, marks; ///< in the frame of `shape`
    [[nodiscard]] double lengthMm() const { return boundsOf(shape).width(); }
    [[nodiscard]] double widthMm() const { return boundsOf(shape).height(); }
    friend bool operator==(const CutPiece&, const CutPiece&) = default;
};

/// Stock that may be cut.
struct CutStock {
    std::string id; ///< of its StockEntry; empty: as the product is sold
    std::string name;
    double lengthMm{}; ///< along x; 0: a roll of any length
    double widthMm{};
    Region shape; ///< of an offcut that is no rectangle, its bounds from 0, 0
    bool rack = false;
    std::optional<Money> price; ///< of one; of a roll: of a metre
    std::optional<int> count;
    friend bool operator==(const CutStock&, const CutStock&) = default;
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
    friend bool operator==(const CutStep&, const CutStep&) = default;
};

/// A piece as it lies on an item of stock.
struct LyingPiece {
    int piece = -1; ///< place in ProductCut::pieces; -1: cut for an earlier list, no longer wanted as it is
    std::string key, name;
    Point at;             ///< lower left of its bounds, on the stock
    double rotationRad{}; ///< by which it is turned
    Region shape;         ///< as it lies
    bool pinned = false, cut = false;
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

/// A piece or stock that cannot take part, and why.
struct CutTrouble {
    CuttingFault fault{};
    std::string name;
    std::string key; ///< of the piece; empty for stock and for the whole
    friend bool operator==(const CutTrouble&, const CutTrouble&) = default;
};

/// All that a product's cutting depends on.
struct CutProblem {
    Product product;
    StockForm form{};
    std::vector<CutPiece> pieces;
    std::vector<CutStock> stock;
    std::vector<KeptItem> kept;
    std::vector<CutItem> decided; ///< by the set-out
    int leastDecided = 0;         ///< no set-out under its rules takes fewer; 0: not known
    std::vector<CutTrouble> troubles;
    std::uint64_t seed = 1;
    friend bool operator==(const CutProblem&, const CutProblem&) = default;
};

/// What it takes. Lengths: in mm along the bars; else in mm2.
struct CutFigures {
    double bought{}; ///< items opened, those from the rack not among them
    double fromRack{};
    double used{}; ///< in pieces
    double kept{}; ///< leftovers worth keeping
    [[nodiscard]] double waste() const { return bought + fromRack - used - kept; }
    friend bool operator==(const CutFigures&, const CutFigures&) = default;
};

/// How one product is cut.
struct ProductCut {
    std::string product; ///< id
    StockForm form{};
    std::vector<CutPiece> pieces;
    std::vector<CutItem> items;
    std::vector<int> unplaced; ///< pieces for which there is no stock
    std::vector<CutTrouble> troubles;
    CutFigures figures;
    std::optional<Money> cost; ///< of what must be bought; nothing without a price
    int itemsToBuy = 0;        ///< without a roll's
    int leastItems = 0;        ///< no plan can buy fewer; 0: not known
    std::optional<Money> leastCost;
    double rollMm{};      ///< of roll that is used
    double rollToBuyMm{}; ///< the same in whole steps
    double leastRollMm{}; ///< no plan can use less
    bool proven = false;  ///< no plan can be better
    friend bool operator==(const ProductCut&, const ProductCut&) = default;
};

/// Works the cutting out. A piece that cannot be cut, or a pin that cannot be kept, is told among the troubles, and all
/// the rest is planned without it.
/// @param progress  called with each better plan, never from two threads at once
ProductCut cutProduct(const CutProblem& problem, const Effort& effort,
                      const std::function<void(const ProductCut&)>& progress = {});

/// A shape turned and moved so that the lower left of its bounds lies at a point.
Region shapeAt(const Region& shape, double rotationRad, Point at);

/// A line of a piece (fold, mark) as it lies on the stock.
Ring onStock(const CutPiece& piece, const LyingPiece& lies, const Ring& line);

/// Begins the id of stock that is an offcut of a plank which a set-out opens.
inline constexpr std::string_view kOffcutOf = "offcut/";
/// The id, as stock, of what is left of a decided plank; `left` is its place among the plank's leftovers.
std::string offcutId(const CutItem& plank, std::size_t left);

/// From what size on a leftover of this form is kept: a bar of 300 mm; of anything flat 300 x 150 mm.
KeepRule keepRuleOf(StockForm form);

} // namespace westrum
