#include "core/cutting/shape_rows.h"

#include <algorithm>
#include <cmath>

namespace westrum {

namespace {

constexpr double kFuzzMm = 1e-6;

} // namespace

Point ShapeRows::place(int form) {
    const Bounds& b = forms_.form(form).bounds;
    const std::size_t piece = forms_.form(form).piece;
    const PatternRepeat repeat =
        piece < problem_.pieces.size() && problem_.pieces[piece].offPattern ? PatternRepeat{} : problem_.repeat;
    // Few pieces: every corner that the boxes make. Many: columns, one after another.
    if (taken_.size() < 200) {
        std::vector<double> xs{0};
        std::vector<double> ys{0};
        for (const Bounds& r : taken_) {
            xs.push_back(r.high.x + problem_.gapMm);
            ys.push_back(r.high.y + problem_.gapMm);
        }
        std::sort(xs.begin(), xs.end());
        std::sort(ys.begin(), ys.end());
        for (const double x : xs)
            for (const double y : ys)
                if (const auto p = fitted({x - b.low.x, y - b.low.y}, b, repeat)) return taken(*p, b);
    }
    while (true) {
        if (const auto p = fitted({columnX_ - b.low.x, columnY_ - b.low.y}, b, repeat)) {
            columnY_ = p->y + b.high.y + problem_.gapMm;
            columnHigh_ = std::max(columnHigh_, p->x + b.high.x + problem_.gapMm);
            return taken(*p, b);
        }
        double end = columnHigh_;
        if (columnY_ == 0) { // not even at the column's foot: beyond whatever lies there
            for (const Bounds& r : taken_)
                if (r.high.x > columnX_ - kFuzzMm) end = std::max(end, r.high.x + problem_.gapMm);
            end = std::max(end, columnX_ + 1);
        }
        columnX_ = end;
        columnY_ = 0;
    }
}

/// The place, moved up to the pattern's next point, if nothing is in the way.
std::optional<Point> ShapeRows::fitted(Point p, const Bounds& b, const PatternRepeat& repeat) const {
    if (repeat.alongMm > 0)
        p.x = repeat.phase.x + std::ceil((p.x - repeat.phase.x) / repeat.alongMm - 1e-9) * repeat.alongMm;
    if (repeat.acrossMm > 0)
        p.y = repeat.phase.y + std::ceil((p.y - repeat.phase.y) / repeat.acrossMm - 1e-9) * repeat.acrossMm;
    const Bounds box{p + b.low, p + b.high};
    if (box.high.y > problem_.widthMm + kShapeToleranceMm || box.low.x < -kFuzzMm || box.low.y < -kFuzzMm)
        return std::nullopt;
    const double gap = problem_.gapMm - kFuzzMm;
    for (const Bounds& r : taken_)
        if (box.low.x < r.high.x + gap && box.high.x > r.low.x - gap && box.low.y < r.high.y + gap &&
            box.high.y > r.low.y - gap)
            return std::nullopt;
    return p;
}

} // namespace westrum
