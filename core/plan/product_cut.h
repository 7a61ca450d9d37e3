#pragma once

#include "core/catalogue/product.h"
#include "core/catalogue/stock.h"
#include "core/cutting/effort.h"
#include "core/cutting/fault.h"
#include "core/families/cut_pieces.h"
#include "core/plan/cut_list.h"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

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

/// A piece or stock that cannot take part, and why.
struct CutTrouble {
    CuttingFault fault{};
    PieceName name;  ///< of a piece, or what its stock is called
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
    int leastDecided = 0;         ///< as in WantedPieces
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

} // namespace westrum
