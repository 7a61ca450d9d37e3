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

/// Stock without pieces.
ShapesProblem emptyOn(const StockedShapes& whole, const ShapeStock& stock) {
    ShapesProblem problem{
        .widthMm = stock.widthMm, .gapMm = whole.gapMm, .repeat = whole.repeat, .lengthMm = stock.lengthMm};
    if (!stock.offcut.empty()) {
        // What the offcut's bounds hold and the offcut does not is forbidden.
        const double w = stock.lengthMm.value_or(0);
        for (Region& missing : partsOf(difference({{rectangle(0, 0, w, stock.widthMm)}}, stock.offcut)))
            problem.forbidden.push_back(std::move(missing));
    }
    return problem;
}

/// @param left    of each piece, what has no place yet and is not fixed anywhere
/// @param fixed   on this item
Part partOf(const StockedShapes& whole, const ShapeStock& stock, const std::vector<int>& left,
            const std::vector<PlacedShape>& fixed) {
    Part part{emptyOn(whole, stock), {}};
    for (std::size_t i = 0; i < left.size(); ++i) {
        const int here =
            int(std::count_if(fixed.begin(), fixed.end(), [&](const PlacedShape& f) { return f.piece == i; }));
        const int more = fits(whole.pieces[i], stock) ? std::max(0, left[i]) : 0;
        if (here + more == 0) continue;
        for (const PlacedShape& f : fixed)
            if (f.piece == i) part.problem.fixed.push_back({part.place.size(), f.rotationRad, f.at});
        part.problem.pieces.push_back(whole.pieces[i]);
        part.problem.pieces.back().count = here + more;
        part.place.push_back(i);
    }
    return part;
}

} // namespace

ShapeStock offcutStock(const Region& outline) {
    const Bounds b = boundsOf(outline);
    ShapeStock stock{
        .widthMm = b.height(), .lengthMm = b.width(), .offcut = moved(outline, Point{} - b.low), .count = 1};
    return stock;
}

CuttingFaults faultsOf(const StockedShapes& problem) {
    for (const auto& [stock, placed] : problem.fixed)
        if (stock >= problem.stock.size() || placed.piece >= problem.pieces.size())
            return {{CuttingFault::LockedUnknown, 0}};
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
    faults = faultsOf(
        ShapesProblem{.widthMm = widest, .gapMm = problem.gapMm, .pieces = problem.pieces, .repeat = problem.repeat});
    if (!faults.empty()) return faults;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i)
        if (std::none_of(problem.stock.begin(), problem.stock.end(), [&](const ShapeStock& stock) {
                return stock.count.value_or(1) > 0 && fits(problem.pieces[i], stock);
            }))
            faults.push_back({CuttingFault::PieceTooLarge, i});
    for (std::size_t s = 0; s < problem.stock.size() && faults.empty(); ++s) {
        const ShapesProblem own = problemOn(problem, s);
        if (own.fixed.empty()) continue;
        for (const CuttingFaultAt& at : faultsOf(own))
            if (at.fault == CuttingFault::LockedDoesNotFit || at.fault == CuttingFault::LockedUnknown)
                faults.push_back({at.fault, s});
    }
    return faults;
}

ShapesProblem problemOn(const StockedShapes& problem, std::size_t stock) {
    ShapesProblem own = emptyOn(problem, problem.stock[stock]);
    own.pieces = problem.pieces;
    for (const auto& [on, placed] : problem.fixed)
        if (on == stock) own.fixed.push_back(placed);
    return own;
}

StockedPlan placeOnStock(const StockedShapes& problem, const Effort& effort,
                         const std::function<void(const StockedPlan&)>& progress) {
    StockedPlan plan;
    std::vector<int> left;
    for (const ShapePiece& piece : problem.pieces) left.push_back(piece.count);
    for (const auto& [stock, placed] : problem.fixed) --left[placed.piece];
    const auto anyLeft = [&] { return std::any_of(left.begin(), left.end(), [](int n) { return n > 0; }); };
    const auto leftOver = [](const std::vector<int>& counts) {
        std::vector<std::size_t> list;
        for (std::size_t i = 0; i < counts.size(); ++i) list.insert(list.end(), std::size_t(std::max(0, counts[i])), i);
        return list;
    };
    const double share = 1.0 / double(problem.stock.size());
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const ShapeStock& stock = problem.stock[s];
        const double end = share * double(s + 1);
        const double start = share * double(s);
        for (int n = 0; n < std::min(stock.count.value_or(kMostItems), kMostItems); ++n) {
            std::vector<PlacedShape> fixed;
            for (const auto& [on, placed] : problem.fixed)
                if (on == s && n == 0) fixed.push_back(placed);
            if (!anyLeft() && fixed.empty()) break;
            const Part part = partOf(problem, stock, left, fixed);
            if (part.problem.pieces.empty()) break;
            Effort own = effort;
            own.seed = effort.seed + s * 1000 + std::uint64_t(n);
            own.iterations = std::int64_t(double(effort.iterations) * share);
            if (effort.iterations > 0) own.iterations = std::max<std::int64_t>(own.iterations, 1);
            if (effort.timeSpent) // of sheets that can be bought in any number, each gets half of what is left
                own.timeSpent = [spent = effort.timeSpent, from = std::max(start, effort.timeSpent()), end,
                                 half = stock.lengthMm && !stock.count ? 0.5 : 1.0] {
                    const double gone = spent();
                    return gone >= 1 ? gone : (gone - from) / std::max(1e-9, (end - from) * half);
                };
            // Numbers of the part become those of the whole list; counts what is left after it.
            const auto inWhole = [&](ShapesPlan found, std::vector<int>& counts) {
                for (std::size_t i = 0; i < found.placements.size(); ++i) {
                    found.placements[i].piece = part.place[found.placements[i].piece];
                    if (i >= fixed.size()) --counts[found.placements[i].piece];
                }
                found.unplaced.clear(); // they go on to the next item
                return found;
            };
            const auto tell = [&](const ShapesPlan& better) {
                std::vector<int> counts = left;
                StockedPlan now = plan;
                now.used.push_back({s, inWhole(better, counts)});
                now.unplaced = leftOver(counts);
                progress(now);
            };
            ShapesPlan found =
                placeShapes(part.problem, own, progress ? tell : std::function<void(const ShapesPlan&)>{});
            if (found.placements.empty()) break;
            plan.used.push_back({s, inWhole(std::move(found), left)});
        }
    }
    plan.unplaced = leftOver(left);
    return plan;
}

} // namespace westrum
