#include "core/plan/hand_place.h"

#include "core/catalogue/family.h"

#include "core/cutting/shapes.h"
#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kTouchMm = 0.02;

ShapePiece asPiece(const Region& shape) {
    ShapePiece piece{.outline = shape.rings.front()};
    piece.holes.assign(shape.rings.begin() + 1, shape.rings.end());
    return piece;
}

/// Whether two shapes keep the gap.
bool apart(const Region& a, const Region& b, double gapMm) {
    const Bounds x = boundsOf(a), y = boundsOf(b);
    if (x.low.x >= y.high.x + gapMm - kTouchMm || y.low.x >= x.high.x + gapMm - kTouchMm ||
        x.low.y >= y.high.y + gapMm - kTouchMm || y.low.y >= x.high.y + gapMm - kTouchMm)
        return true;
    ShapesProblem two{.widthMm = kAbsurdCutMm, .gapMm = gapMm, .pieces = {asPiece(a), asPiece(b)}};
    return clashMm(two, {0, 0, {}}, {1, 0, {}}) <= kShapeToleranceMm;
}

/// Along a bar a piece goes between those that are pinned, in the order in which their middles lie.
HandPlace placeOnBar(const CutProblem& problem, const CutItem& on, const Bounds& size, const std::string& key,
                     Point wanted) {
    const double trim = barOf(problem.product).endTrim.value;
    double at = trim, taken = trim + size.width();
    for (const LyingPiece& l : on.pieces) {
        if (!l.pinned || l.key == key) continue;
        taken += boundsOf(l.shape).width() + on.kerfMm;
        if (l.at.x + boundsOf(l.shape).width() / 2 <= wanted.x + size.width() / 2)
            at += boundsOf(l.shape).width() + on.kerfMm;
    }
    return {taken <= on.lengthMm - trim + kTouchMm, {at, 0}};
}

/// The candidates within reach, nearest first, snapped ones before the free one; six of them and that.
void keepNearest(std::vector<double>& list, double to, double reachMm) {
    std::erase_if(list, [&](double v) { return std::abs(v - to) > reachMm; });
    std::sort(list.begin(), list.end(), [&](double a, double b) {
        return std::pair(a == to, std::abs(a - to)) < std::pair(b == to, std::abs(b - to));
    });
    if (list.size() > 6) list.resize(6);
    if (std::find(list.begin(), list.end(), to) == list.end()) list.push_back(to);
}

} // namespace

std::vector<double> turnsOf(const CutProblem& problem, const CutPiece& piece) {
    constexpr double kQuarter = std::numbers::pi / 2;
    switch (problem.form) {
    case StockForm::Lengths: return {0};
    case StockForm::Sheets:
        return piece.mayTurn || !sheetOf(problem.product).grain ? std::vector<double>{0, kQuarter}
                                                                : std::vector<double>{0};
    case StockForm::Roll: {
        const RollTurning turning = rollOf(problem.product).turning;
        if (piece.mayTurn || turning == RollTurning::Quarter || turning == RollTurning::Any)
            return {0, kQuarter, 2 * kQuarter, 3 * kQuarter};
        return turning == RollTurning::HalfTurn ? std::vector<double>{0, 2 * kQuarter} : std::vector<double>{0};
    }
    }
    return {0};
}

HandPlace placeByHand(const CutProblem& problem, const ProductCut& cut, std::size_t item, int piece, double rotationRad,
                      Point wanted, double reachMm) {
    const CutItem& on = cut.items[item];
    if (on.locked || on.decided || piece < 0) return {false, wanted};
    const Region shape = shapeAt(cut.pieces[std::size_t(piece)].shape, rotationRad, {});
    const Bounds size = boundsOf(shape);
    const std::string& key = cut.pieces[std::size_t(piece)].key;
    double gap = 0, trim = 0;
    if (problem.form == StockForm::Roll) gap = rollOf(problem.product).gap.value;
    if (problem.form == StockForm::Sheets) {
        gap = sheetOf(problem.product).kerf.value;
        trim = sheetOf(problem.product).edgeTrim.value;
    }
    if (problem.form == StockForm::Lengths) return placeOnBar(problem, on, size, key, wanted);

    // A roll has no end: what is put beyond it makes it longer.
    const bool endless = problem.form == StockForm::Roll && !on.rack && on.shape.empty();
    const double right = endless ? kAbsurdCutMm : on.lengthMm - trim, top = on.widthMm - trim;
    const Region missing =
        on.shape.empty() ? Region{} : difference({{rectangle(0, 0, on.lengthMm, on.widthMm)}}, on.shape);
    const auto fits = [&](Point at) {
        if (at.x < trim - kTouchMm || at.y < trim - kTouchMm || at.x + size.width() > right + kTouchMm ||
            at.y + size.height() > top + kTouchMm)
            return false;
        const Region here = moved(shape, at);
        if (!missing.empty() && areaMm2(intersection(here, missing)) > 1) return false;
        return std::all_of(on.pieces.begin(), on.pieces.end(),
                           [&](const LyingPiece& l) { return !l.pinned || l.key == key || apart(here, l.shape, gap); });
    };
    std::vector<double> xs{wanted.x, trim}, ys{wanted.y, trim, top - size.height()};
    if (!endless) xs.push_back(right - size.width());
    for (const LyingPiece& l : on.pieces) {
        if (l.key == key) continue;
        const Bounds b = boundsOf(l.shape);
        for (const double x : {b.high.x + gap, b.low.x - gap - size.width(), b.low.x, b.high.x - size.width()})
            xs.push_back(x);
        for (const double y : {b.high.y + gap, b.low.y - gap - size.height(), b.low.y, b.high.y - size.height()})
            ys.push_back(y);
    }
    keepNearest(xs, wanted.x, reachMm);
    keepNearest(ys, wanted.y, reachMm);
    HandPlace best{false, wanted};
    double bestDistance = 0;
    for (const double x : xs)
        for (const double y : ys) {
            const double d = distance({x, y}, wanted) + (x == wanted.x ? reachMm : 0) + (y == wanted.y ? reachMm : 0);
            if ((best.fits && d >= bestDistance) || !fits({x, y})) continue;
            best = {true, {x, y}};
            bestDistance = d;
        }
    if (!best.fits || problem.form != StockForm::Roll || rollOf(problem.product).repeatAlong.value > 0) return best;
    // Against shapes that are no rectangles it slides until it touches, towards the beginning of the roll.
    const auto clear = [&](Point at) {
        const Region here = moved(shape, at);
        return fits(at) && std::all_of(on.pieces.begin(), on.pieces.end(),
                                       [&](const LyingPiece& l) { return l.key == key || apart(here, l.shape, gap); });
    };
    if (!clear(best.at) || clear(best.at - Point{reachMm, 0})) return best;
    double low = 0, high = reachMm;
    for (int i = 0; i < 12; ++i) {
        const double middle = (low + high) / 2;
        (clear(best.at - Point{middle, 0}) ? low : high) = middle;
    }
    best.at.x -= low;
    return best;
}

} // namespace westrum
