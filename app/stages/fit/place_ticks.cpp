#include "app/stages/fit/place_ticks.h"

#include "app/drawing/theme.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace westrum {

PlaceTicks::PlaceTicks(Region outline, std::vector<Place> places, QWidget* parent)
    : QWidget(parent), outline_(std::move(outline)), places_(std::move(places)) {
    setObjectName(QStringLiteral("places"));
    setAccessibleName(tr("Places to tick, one by one"));
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(130);
}

void PlaceTicks::setDone(const std::set<std::string>& done) {
    done_ = done;
    update();
}

int PlaceTicks::missing() const {
    int n = 0;
    for (std::size_t i = 0; i < places_.size(); ++i) n += isDone(i) ? 0 : 1;
    return n;
}

PlanView PlaceTicks::view() const {
    return {boundsOf(outline_), QRectF(34, 8, std::min(width() - 44.0, 460.0), height() - 32.0)};
}

QPointF PlaceTicks::spot(std::size_t place) const { return view().map(places_[place].at); }

void PlaceTicks::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(hasFocus() ? t.chalk : t.graphite, 1.4));
    p.setBrush(t.raised);
    p.drawPath(view().path(outline_));
    for (std::size_t i = 0; i < places_.size(); ++i) {
        const bool done = isDone(i);
        const QPointF at = spot(i);
        p.setPen(QPen(done ? t.agreed : t.pencil, 1.4));
        p.setBrush(done ? t.agreed : t.raised);
        if (places_[i].square)
            p.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8));
        else
            p.drawEllipse(at, 4, 4);
        if (hasFocus() && i == hand_) {
            p.setPen(QPen(t.chalk, 1.6));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(at, 7, 7);
        }
    }
    p.setFont(textFont(0.9));
    const int open = missing();
    p.setPen(open > 0 ? t.pencil : t.agreed);
    p.drawText(QRectF(34, height() - 20, width() - 40, 18), Qt::AlignVCenter,
               open > 0 ? tr("%1 of %n place(s) not ticked; press each as it is done", nullptr,
                             static_cast<int>(places_.size()))
                              .arg(open)
                        : tr("every place is ticked"));
}

void PlaceTicks::mousePressEvent(QMouseEvent* event) {
    constexpr double kReach = 12;
    std::size_t nearest = places_.size();
    double best = kReach;
    for (std::size_t i = 0; i < places_.size(); ++i)
        if (const double d = QLineF(spot(i), event->position()).length(); d < best) {
            best = d;
            nearest = i;
        }
    if (nearest == places_.size()) return;
    hand_ = nearest;
    emit pressed(places_[nearest].key, !isDone(nearest));
}

void PlaceTicks::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (by != 0 && !places_.empty()) {
        hand_ =
            (hand_ + places_.size() + static_cast<std::size_t>(by + static_cast<int>(places_.size()))) % places_.size();
        update();
    } else if (event->key() == Qt::Key_Space && !places_.empty())
        emit pressed(places_[hand_].key, !isDone(hand_));
    else
        QWidget::keyPressEvent(event);
}

} // namespace westrum
