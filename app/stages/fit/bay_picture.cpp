#include "app/stages/fit/bay_picture.h"

#include "app/drawing/plan_view.h"
#include "app/drawing/theme.h"

#include <QPainter>

#include <algorithm>

namespace westrum {

BayPicture::BayPicture(std::vector<Region> bays, QWidget* parent) : QWidget(parent), bays_(std::move(bays)) {
    setObjectName(QStringLiteral("bays"));
    setAccessibleName(tr("Bays in laying order"));
    setFixedHeight(118);
    bounds_ = boundsOf(bays_.front());
    for (const Region& bay : bays_) {
        if (bay.empty()) continue;
        const Bounds b = boundsOf(bay);
        bounds_.low = {std::min(bounds_.low.x, b.low.x), std::min(bounds_.low.y, b.low.y)};
        bounds_.high = {std::max(bounds_.high.x, b.high.x), std::max(bounds_.high.y, b.high.y)};
    }
}

void BayPicture::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const PlanView view(bounds_, QRectF(30, 4, std::min(width() - 34.0, 420.0), height() - 8.0));
    p.setFont(textFont(0.9, true));
    for (std::size_t i = 0; i < bays_.size(); ++i) {
        if (bays_[i].empty()) continue;
        const QPainterPath path = view.path(bays_[i]);
        p.setPen(QPen(t.graphite, 1.4));
        p.setBrush(i % 2 == 0 ? t.raised : t.tally);
        p.drawPath(path);
        p.setPen(t.chalk);
        p.drawText(path.boundingRect(), Qt::AlignCenter, QString::number(i + 1));
    }
}

} // namespace westrum
