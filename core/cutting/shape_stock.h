#pragma once

#include "core/cutting/shapes.h"

#include <optional>
#include <vector>

namespace westrum {

/// Something to place shapes on: a roll by the metre, a sheet, or an offcut of any shape.
struct ShapeStock {
    double widthMm{};                 ///< across; of an offcut that of its bounds
    std::optional<double> lengthMm{}; ///< none: a roll, as long as it takes
    Region offcut{};                  ///< its outline from 0, 0 on; empty: all of width and length
    std::optional<int> count{};       ///< how many there are; none: any number can be bought
    friend bool operator==(const ShapeStock&, const ShapeStock&) = default;
};

/// Stock of an offcut of any shape, moved so that its bounds start at 0, 0.
ShapeStock offcutStock(const Region& outline);

/// Shapes to be placed on several items of stock, which are used in the order given: the rack first.
struct StockedShapes {
    std::vector<ShapeStock> stock;
    double gapMm{};
    PatternRepeat repeat{};
    std::vector<ShapePiece> pieces;
    friend bool operator==(const StockedShapes&, const StockedShapes&) = default;
};

/// One item of stock and what lies on it; the plan's pieces are places in the whole list.
struct UsedShapeStock {
    std::size_t stock{};
    ShapesPlan plan;
    friend bool operator==(const UsedShapeStock&, const UsedShapeStock&) = default;
};

struct StockedPlan {
    std::vector<UsedShapeStock> used;
    std::vector<std::size_t> unplaced; ///< pieces that found no room, one for each
    friend bool operator==(const StockedPlan&, const StockedPlan&) = default;
};

/// Faults as of placeShapes(); a piece is too large if it fits none of the stock. `index` of a stock fault is its place.
CuttingFaults faultsOf(const StockedShapes& problem);

/// Fills one item of stock after another, each as full as can be found, until every piece lies somewhere. Each item
/// gets an equal share of the effort, the last one all that is left.
/// @param problem  without faults
StockedPlan placeOnStock(const StockedShapes& problem, const Effort& effort);

} // namespace westrum
