#include "core/cutting/shape_stock.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {

namespace {

constexpr int kMostItems = 1000; // of one kind of stock

/// The pieces that are left, on one item of stock; `place` gives each its place in the whole list.
struct Part {
    ShapesProblem problem;
    std::vector<std::size_t> place;
};

bool fits(const ShapePiece& piece, const ShapeStock& stock) {
    return std::any_of(piece.rotationsRad.begin(), piece.rotationsRad.end(), [&](double rotation) {
        const Bounds b = boundsOf(lying(piece, {0, rotation, {}}));
        return b.height() <= stock.widthMm + kShapeToleranceMm &&
               b.width() <= stock.lengthMm.value_or(kAbsurdCutMm) + kShapeToleranceMm;
    });
}

Part partOf(const StockedShapes& whole, const ShapeStock& stock, const std::vector<int>& left) {
    Part part;
    part.problem.widthMm = stock.widthMm;
    part.problem.lengthMm = stock.lengthMm;
    part.problem.gapMm = whole.gapMm;
    part.problem.repeat = whole.repeat;
    if (!stock.offcut.empty()) {
        // What the offcut's bounds hold and the offcut does not is forbidden.
        const double w = stock.lengthMm.value_or(0);
        for (Region& missing : partsOf(difference({{{{0, 0}, {w, 0}, {w, stock.widthMm}, {0, stock.widthMm}}}}, stock.offcut)))
            part.problem.forbidden.push_back(std::move(missing));
    }
    for (std::size_t i = 0; i < left.size(); ++i) {
        if (left[i] <= 0 || !fits(whole.pieces[i], stock)) continue;
        part.problem.pieces.push_back(whole.pieces[i]);
        part.problem.pieces.back().count = left[i];
        part.place.push_back(i);
    }
    return part;
}

} // namespace

ShapeStock offcutStock(const Region& outline) {
    const Bounds b = boundsOf(outline);
    ShapeStock stock{.widthMm = b.height(), .lengthMm = b.width(), .offcut = outline, .count = 1};
    for (Ring& ring : stock.offcut.rings)
        for (Point& p : ring) p = p - b.low;
    return stock;
}

CuttingFaults faultsOf(const StockedShapes& problem) {
    CuttingFaults faults;
    if (problem.stock.empty()) faults.push_back({CuttingFault::NoStock});
    double widest = 0;
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const ShapeStock& stock = problem.stock[s];
        const double length = stock.lengthMm.value_or(1);
        if (!std::isfinite(stock.widthMm) || stock.widthMm <= 0 || !std::isfinite(length) || length <= 0)
            faults.push_back({CuttingFault::StockNotPositive, s});
        else if (std::max(stock.widthMm, length) > kAbsurdCutMm)
            faults.push_back({CuttingFault::StockAbsurd, s});
        else
            widest = std::max(widest, stock.widthMm);
    }
    if (!faults.empty()) return faults;
    // Everything but the stock's length is judged as on a roll of the greatest width.
    faults = faultsOf(ShapesProblem{.widthMm = widest, .gapMm = problem.gapMm, .pieces = problem.pieces, .repeat = problem.repeat});
    if (!faults.empty()) return faults;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i)
        if (std::none_of(problem.stock.begin(), problem.stock.end(), [&](const ShapeStock& stock) {
                return stock.count.value_or(1) > 0 && fits(problem.pieces[i], stock);
            }))
            faults.push_back({CuttingFault::PieceTooLarge, i});
    return faults;
}

StockedPlan placeOnStock(const StockedShapes& problem, const Effort& effort) {
    StockedPlan plan;
    std::vector<int> left;
    for (const ShapePiece& piece : problem.pieces) left.push_back(piece.count);
    const auto anyLeft = [&] { return std::any_of(left.begin(), left.end(), [](int n) { return n > 0; }); };
    const double share = 1.0 / double(problem.stock.size());
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const ShapeStock& stock = problem.stock[s];
        const double end = share * double(s + 1);
        const double start = share * double(s);
        for (int n = 0; n < std::min(stock.count.value_or(kMostItems), kMostItems) && anyLeft(); ++n) {
            const Part part = partOf(problem, stock, left);
            if (part.problem.pieces.empty()) break;
            Effort own = effort;
            own.seed = effort.seed + s * 1000 + std::uint64_t(n);
            own.iterations = std::int64_t(double(effort.iterations) * share);
            if (effort.iterations > 0) own.iterations = std::max<std::int64_t>(own.iterations, 1);
            if (effort.timeSpent) // of sheets that can be bought in any number, each gets half of what is left
                own.timeSpent = [spent = effort.timeSpent, from = std::max(start, effort.timeSpent()), end,
                                 half = stock.lengthMm && !stock.count ? 0.5 : 1.0] {
                    return (spent() - from) / std::max(1e-9, (end - from) * half);
                };
            ShapesPlan found = placeShapes(part.problem, own);
            if (found.placements.empty()) break;
            for (PlacedShape& placed : found.placements) {
                placed.piece = part.place[placed.piece];
                --left[placed.piece];
            }
            found.unplaced.clear(); // they go on to the next item
            plan.used.push_back({s, std::move(found)});
        }
    }
    for (std::size_t i = 0; i < left.size(); ++i) plan.unplaced.insert(plan.unplaced.end(), std::size_t(std::max(0, left[i])), i);
    return plan;
}

} // namespace westrum
