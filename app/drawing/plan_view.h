#pragma once

#include "core/geometry/polygon.h"

#include <QPainterPath>
#include <QPointF>
#include <QRectF>

namespace westrum {

/// Maps surface coordinates (mm, y up) to the screen (y down), true to scale, centred in a rectangle.
class PlanView {
public:
    PlanView() = default;
    PlanView(const Bounds& shown, const QRectF& into);
    /// At a scale, the origin at 0,0: for a painter that has been moved and turned.
    static PlanView scaled(double pixelsPerMm) {
        PlanView v;
        v.scale_ = pixelsPerMm;
        return v;
    }

    [[nodiscard]] QPointF map(Point p) const { return {offset_.x() + p.x * scale_, offset_.y() - p.y * scale_}; }
    [[nodiscard]] Point unmap(QPointF p) const {
        return {(p.x() - offset_.x()) / scale_, (offset_.y() - p.y()) / scale_};
    }
    [[nodiscard]] double scale() const { return scale_; } ///< pixels to the millimetre
    [[nodiscard]] QPainterPath path(const Ring& ring) const;
    [[nodiscard]] QPainterPath path(const Region& region) const;

private:
    double scale_ = 1;
    QPointF offset_;
};

} // namespace westrum
