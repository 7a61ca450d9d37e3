#include "app/drawing/plan_view.h"

#include <algorithm>

namespace westrum {

PlanView::PlanView(const Bounds& shown, const QRectF& into) {
    const double width = std::max(1.0, shown.width());
    const double height = std::max(1.0, shown.height());
    scale_ = std::max(1e-6, std::min(into.width() / width, into.height() / height));
    const double left = into.center().x() - width * scale_ / 2;
    const double bottom = into.center().y() + height * scale_ / 2;
    offset_ = {left - shown.low.x * scale_, bottom + shown.low.y * scale_};
}

QPainterPath PlanView::path(const Ring& ring) const {
    QPainterPath path;
    if (ring.empty()) return path;
    path.moveTo(map(ring.front()));
    for (std::size_t i = 1; i < ring.size(); ++i) path.lineTo(map(ring[i]));
    path.closeSubpath();
    return path;
}

QPainterPath PlanView::path(const Region& region) const {
    QPainterPath all;
    all.setFillRule(Qt::WindingFill);
    for (const Ring& ring : region.rings) all.addPath(path(ring));
    return all;
}

} // namespace westrum
