#pragma once

#include "core/cutting/shapes.h"

#include <functional>
#include <optional>
#include <utility>
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
    /// Pieces that stay where a person put them, each on the first item of one kind of stock.
    std::vector<std::pair<std::size_t, PlacedShape>> fixed;
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

/// Faults as of placeShapes(); a piece is too large if it fits none of the stock. `index` of a fault of
/// the stock or of what is fixed on it is the stock's place.
CuttingFaults faultsOf(const StockedShapes& problem);

/// Fills one item of stock after another, each as full as can be found, until every piece lies somewhere. Each item
/// gets an equal share of the effort, the last one all that is left.
/// @param problem   without faults
/// @param progress  called with each better plan, never from two threads at once
StockedPlan placeOnStock(const StockedShapes& problem, const Effort& effort,
                         const std::function<void(const StockedPlan&)>& progress = {});

/// The item of stock by itself, with all pieces of the problem and what is fixed on it: for checks and leftovers.
ShapesProblem problemOn(const StockedShapes& problem, std::size_t stock);

} // namespace westrum
