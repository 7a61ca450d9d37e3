#include "app/stages/buildup/standing_room.h"

#include "app/drawing/theme.h"

#include <algorithm>

namespace westrum {
namespace {

constexpr double kWords = 40; ///< height of the lines above the drawing

struct Extent {
    Point low, high;
};
Extent extentOf(const HeadroomPlan& h) {
    const double half = h.cell.value / 2;
    Extent e{h.places.front().at, h.places.front().at};
    for (const HeadAt& place : h.places) {
        e.low = {std::min(e.low.x, place.at.x), std::min(e.low.y, place.at.y)};
        e.high = {std::max(e.high.x, place.at.x), std::max(e.high.y, place.at.y)};
    }
    return {e.low - Point{half, half}, e.high + Point{half, half}};
}

const HeadAt& least(const HeadroomPlan& h) {
    return *std::min_element(h.places.begin(), h.places.end(),
                             [](const HeadAt& a, const HeadAt& b) { return a.head < b.head; });
}

} // namespace

StandingRoom::StandingRoom(const HeadroomPlan& headroom, const QRectF& box) : headroom_(headroom), box_(box) {
    if (headroom.places.empty()) return;
    const Extent e = extentOf(headroom);
    low_ = e.low;
    wide_ = e.high.y - e.low.y;
    scale_ = std::min(box.width() / (e.high.x - e.low.x), (box.height() - kWords) / wide_);
}

double StandingRoom::heightFor(const HeadroomPlan& headroom, double width) {
    if (headroom.places.empty()) return 0;
    const Extent e = extentOf(headroom);
    return kWords + std::min(width * (e.high.y - e.low.y) / (e.high.x - e.low.x), width);
}

QRectF StandingRoom::cellOf(const HeadAt& place) const {
    const double side = headroom_.cell.value;
    const double x = place.at.x - side / 2 - low_.x, y = wide_ - (place.at.y + side / 2 - low_.y);
    return {box_.left() + x * scale_, box_.top() + kWords + y * scale_, side * scale_, side * scale_};
}

void StandingRoom::paint(QPainter& p, const Figures& figures, bool person) const {
    if (headroom_.places.empty()) return;
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing, false);
    const auto [low, high] = std::minmax_element(headroom_.places.begin(), headroom_.places.end(),
                                                 [](const HeadAt& a, const HeadAt& b) { return a.head < b.head; });
    const double span = std::max(1.0, (high->head - low->head).value);
    for (const HeadAt& place : headroom_.places) {
        QColor colour = place.enough ? t.agreed : t.pencil;
        // The higher, the lighter.
        colour.setAlphaF(static_cast<float>(0.5 - 0.3 * (place.head - low->head).value / span));
        p.fillRect(cellOf(place), colour);
    }
    const QRectF where = cellOf(least(headroom_));
    p.setPen(QPen(t.graphite, 1.6));
    p.drawRect(where.adjusted(0, 0, -1, -1));
    p.restore();
    p.setFont(textFont(0.85));
    p.setPen(t.graphite);
    const double line = kWords / 2 - 2;
    p.drawText(QRectF(box_.left(), box_.top(), box_.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
               person ? tr("upright on %1").arg(figures.percent(headroom_.shareEnough())) : tr("over the floor"));
    p.setPen(t.muted);
    p.drawText(QRectF(box_.left(), box_.top() + line, box_.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
               tr("least %1").arg(figures.length(least(headroom_).head)));
}

QString StandingRoom::told(QPointF at, const Figures& figures) const {
    for (const HeadAt& place : headroom_.places)
        if (cellOf(place).contains(at))
            return tr("%1 of headroom here, at worst %2; %3 from the rear")
                .arg(figures.length(place.head), figures.length(place.worst), figures.length({place.at.x}));
    return {};
}

} // namespace westrum
