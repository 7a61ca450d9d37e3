#pragma once

#include "core/cutting/shape_forms.h"

#include <optional>
#include <vector>

namespace westrum {

/// Places by bounding boxes: each piece as near to the start of the roll as it goes without touching another's box, the
/// gap and the pattern repeat kept. Quick, valid, not good.
class ShapeRows {
public:
    ShapeRows(const ShapesProblem& problem, const ShapeForms& forms) : problem_(problem), forms_(forms) {}

    /// Something lies here already.
    void block(const Bounds& bounds, Point at) { taken_.push_back({bounds.low + at, bounds.high + at}); }
    /// Where a form goes; from now on it lies there.
    Point place(int form);

private:
    [[nodiscard]] std::optional<Point> fitted(Point p, const Bounds& b, const PatternRepeat& repeat) const;
    Point taken(Point p, const Bounds& b) {
        block(b, p);
        return p;
    }

    const ShapesProblem& problem_;
    const ShapeForms& forms_;
    std::vector<Bounds> taken_;
    double columnX_ = 0;
    double columnY_ = 0;
    double columnHigh_ = 0;
};

} // namespace westrum
