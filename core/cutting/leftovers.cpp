#include "core/cutting/leftovers.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {

namespace {

constexpr double kCellMm = 10;
constexpr double kFuzzMm = 1e-6;

bool worthKeeping(double width, double height, const KeepRule& rule) {
    return std::max(width, height) >= rule.leastLengthMm - kFuzzMm &&
           std::min(width, height) >= rule.leastWidthMm - kFuzzMm;
}

/// Cells of a roll, each free or touched by something.
class Cells {
public:
    Cells(double lengthMm, double widthMm)
        : columns_(int(lengthMm / kCellMm)),
          rows_(int(widthMm / kCellMm)),
          taken_(std::size_t(columns_) * std::size_t(rows_), 0) {}

    /// Every cell that comes within `gap` of the region's solid part is taken: cells whose middle lies in it, and those
    /// along its edges.
    void take(const Region& region, double gapMm) {
        const Bounds b = boundsOf(region);
        const int top = std::min(rows_ - 1, int((b.high.y + gapMm) / kCellMm));
        for (int row = std::max(0, int((b.low.y - gapMm) / kCellMm)); row <= top; ++row) {
            const double y = (row + 0.5) * kCellMm;
            std::vector<double> crossings;
            for (const Ring& ring : region.rings)
                for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
                    if ((ring[i].y <= y) != (ring[j].y <= y))
                        crossings.push_back(ring[j].x +
                                            (ring[i].x - ring[j].x) * (y - ring[j].y) / (ring[i].y - ring[j].y));
            std::sort(crossings.begin(), crossings.end());
            for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) takeRow(row, crossings[i], crossings[i + 1]);
        }
        const double reach = gapMm + kCellMm * 0.75; // the farthest a cell's middle is from an edge that touches it
        for (const Ring& ring : region.rings)
            for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
                const double length = distance(ring[i], ring[j]);
                const int steps = std::max(1, int(length / (kCellMm / 2)));
                for (int s = 0; s <= steps; ++s) takeRound(ring[j] + (ring[i] - ring[j]) * (double(s) / steps), reach);
            }
    }

    /// The largest free rectangle that is worth keeping; it is then taken. Empty: none.
    LeftRectangle takeLargest(const KeepRule& rule) {
        LeftRectangle best;
        std::vector<int> height(std::size_t(columns_), 0); // free cells below and including this row
        for (int row = 0; row < rows_; ++row) {
            for (int c = 0; c < columns_; ++c) height[std::size_t(c)] = at(c, row) ? 0 : height[std::size_t(c)] + 1;
            std::vector<int> open; // columns of rising height
            for (int c = 0; c <= columns_; ++c) {
                const int h = c < columns_ ? height[std::size_t(c)] : 0;
                while (!open.empty() && height[std::size_t(open.back())] >= h) {
                    const int tall = height[std::size_t(open.back())];
                    open.pop_back();
                    const int from = open.empty() ? 0 : open.back() + 1;
                    const double w = (c - from) * kCellMm;
                    const double t = tall * kCellMm;
                    if (w * t > best.widthMm * best.heightMm && worthKeeping(w, t, rule))
                        best = {from * kCellMm, (row + 1) * kCellMm - t, w, t};
                }
                open.push_back(c);
            }
        }
        const int top = int(std::lround((best.y + best.heightMm) / kCellMm));
        for (int row = int(std::lround(best.y / kCellMm)); row < top; ++row)
            takeRow(row, best.x, best.x + best.widthMm);
        return best;
    }

private:
    char& at(int column, int row) { return taken_[std::size_t(row) * std::size_t(columns_) + std::size_t(column)]; }
    void takeRow(int row, double from, double to) {
        const int last = std::min(columns_ - 1, int(std::ceil(to / kCellMm)) - 1);
        for (int c = std::max(0, int(from / kCellMm)); c <= last; ++c) at(c, row) = 1;
    }
    void takeRound(Point p, double reach) {
        for (int row = std::max(0, int((p.y - reach) / kCellMm)); row < rows_ && row * kCellMm < p.y + reach; ++row)
            for (int c = std::max(0, int((p.x - reach) / kCellMm)); c < columns_ && c * kCellMm < p.x + reach; ++c)
                if (std::abs((c + 0.5) * kCellMm - p.x) < reach && std::abs((row + 0.5) * kCellMm - p.y) < reach)
                    at(c, row) = 1;
    }

    int columns_;
    int rows_;
    std::vector<char> taken_;
};

} // namespace

std::vector<double> leftoversWorthKeeping(const LengthsProblem& problem, const LengthsPlan& plan,
                                          const KeepRule& rule) {
    std::vector<double> list;
    for (const CutBar& bar : plan.bars) {
        const double left = leftoverMm(problem, bar);
        list.push_back(left >= rule.leastLengthMm - kFuzzMm ? left : 0);
    }
    return list;
}

std::vector<LeftRectangle> leftoversWorthKeeping(const SheetsProblem& problem, const CutSheet& sheet,
                                                 const KeepRule& rule) {
    std::vector<LeftRectangle> list;
    const auto cuts = cutsOf(problem, sheet);
    if (!cuts) return list;
    for (const SheetPart& part : cuts->parts)
        if (part.offcut && worthKeeping(part.widthMm, part.heightMm, rule))
            list.push_back({part.x, part.y, part.widthMm, part.heightMm});
    std::stable_sort(list.begin(), list.end(), [](const LeftRectangle& a, const LeftRectangle& b) {
        return a.widthMm * a.heightMm > b.widthMm * b.heightMm;
    });
    return list;
}

std::vector<LeftRectangle> leftoversWorthKeeping(const ShapesProblem& problem, const ShapesPlan& plan,
                                                 const KeepRule& rule) {
    constexpr double kMostCells = 4e6;
    std::vector<LeftRectangle> list;
    if (plan.lengthMm * problem.widthMm / (kCellMm * kCellMm) > kMostCells) return list;
    Cells cells(plan.lengthMm, problem.widthMm);
    for (const PlacedShape& placed : plan.placements)
        cells.take(lying(problem.pieces[placed.piece], placed), problem.gapMm);
    for (const Region& flaw : problem.forbidden) cells.take(flaw, 0);
    for (int n = 0; n < 50; ++n) {
        const LeftRectangle next = cells.takeLargest(rule);
        if (next.widthMm <= 0) break;
        list.push_back(next);
    }
    return list;
}

LeftRectangle largestRectangle(const Region& region, const KeepRule& rule) {
    if (region.empty()) return {};
    const Bounds b = boundsOf(region);
    const double w = b.width(), h = b.height();
    const Region own = moved(region, Point{} - b.low);
    ShapesProblem problem{.widthMm = h};
    for (Region& missing : partsOf(difference({{rectangle(0, 0, w, h)}}, own)))
        problem.forbidden.push_back(std::move(missing));
    const auto found = leftoversWorthKeeping(problem, ShapesPlan{.lengthMm = w}, rule);
    return found.empty() ? LeftRectangle{} : found.front();
}

} // namespace westrum
