#include "app/stages/fit/work_strip.h"

#include "app/drawing/plan_view.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "formats/work_words.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QScrollBar>
#include <QToolTip>
#include <QWheelEvent>

#include <algorithm>

namespace westrum {

WorkStrip::WorkStrip(QWidget* parent) : QAbstractScrollArea(parent) {
    setObjectName(QStringLiteral("workStrip"));
    setAccessibleName(tr("The work in time"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
}

void WorkStrip::show(const Job& job, std::shared_ptr<const Plan> plan, std::shared_ptr<const WorkAnswer> answer,
                     const std::string& current, const Figures& figures) {
    if (plan != plan_) pictures_.clear();
    const std::string id = hand_ >= 0 && answer_ ? item(hand_).id : std::string();
    job_ = job;
    plan_ = std::move(plan);
    answer_ = std::move(answer);
    preview_.reset();
    current_ = current;
    figures_ = figures;
    hand_ = id.empty() || !answer_ ? -1 : answer_->question.net.find(id);
    layOut();
    if (answer_ && !std::exchange(begun_, true)) { // what is ahead, with a little of what was
        constexpr double kBefore = 120;
        horizontalScrollBar()->setValue(static_cast<int>(layout_.xAt(answer_->question.now) - kBefore));
    }
}

void WorkStrip::preview(std::shared_ptr<const WorkAnswer> answer) {
    preview_ = std::move(answer);
    layOut();
}

void WorkStrip::takeInHand(int item) {
    if (hand_ == item) return;
    hand_ = item;
    viewport()->update();
    emit handChanged(item);
}

void WorkStrip::reveal(int item) {
    const StripBar* bar = layout_.firstBarOf(item);
    if (!bar) return;
    const double x = bar->box.left(), y = layout_.rows()[bar->row].y;
    const double room = viewport()->width() - kNames, high = viewport()->height() - kHead - kFoot;
    auto *h = horizontalScrollBar(), *v = verticalScrollBar();
    if (x < h->value() || x > h->value() + room - 40) h->setValue(static_cast<int>(x - room / 3));
    if (y < v->value() || y + 30 > v->value() + high) v->setValue(static_cast<int>(y - high / 3));
}

void WorkStrip::revealRow(const std::string& surface) {
    for (const StripRow& row : layout_.rows()) {
        if (row.kind != StripRow::OfSurface || row.surface != surface) continue;
        const double high = viewport()->height() - kHead - kFoot;
        auto* v = verticalScrollBar();
        if (row.y < v->value() || row.y + row.height > v->value() + high)
            v->setValue(static_cast<int>(row.y + row.height - high));
    }
}

void WorkStrip::layOut() {
    layout_ = answer_ ? StripLayout(job_, shown(), pixelsPerHour_) : StripLayout();
    setRanges();
    viewport()->update();
}

void WorkStrip::setRanges() {
    const double wide = viewport()->width() - kNames, high = viewport()->height() - kHead - kFoot;
    horizontalScrollBar()->setRange(0, std::max(0, static_cast<int>(layout_.width() + 12 - wide)));
    horizontalScrollBar()->setPageStep(std::max(1, static_cast<int>(wide)));
    horizontalScrollBar()->setSingleStep(40);
    verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(layout_.height() - high)));
    verticalScrollBar()->setPageStep(std::max(1, static_cast<int>(high)));
    verticalScrollBar()->setSingleStep(34);
}

void WorkStrip::resizeEvent(QResizeEvent*) { setRanges(); }

QPointF WorkStrip::origin() const {
    return {kNames - horizontalScrollBar()->value(), kHead - verticalScrollBar()->value()};
}

QRectF WorkStrip::barOf(int item) const {
    const StripBar* bar = layout_.firstBarOf(item);
    return bar ? bar->box.translated(origin()) : QRectF();
}

QRectF WorkStrip::dayBox(const CivilDate& day) const {
    const StripDay* d = layout_.find(day);
    return d ? QRectF(origin().x() + d->x, kHead, d->width, viewport()->height() - kHead - kFoot) : QRectF();
}

QRectF WorkStrip::checkBox(int item, std::size_t check) const {
    const StripBar* bar = layout_.firstBarOf(item);
    if (!bar) return {};
    const auto all = checksOf(*bar);
    return check < all.size() ? all[check].translated(origin()) : QRectF();
}

QString WorkStrip::tipOf(int i) const {
    const WorkItem& w = item(i);
    QStringList lines{workTitle(job_, *plan_, w, figures_)};
    const auto& parts = shown().plan.parts(i);
    if (!parts.empty()) {
        const WorkClock::Moment from = shown().plan.clock.moment(parts.front().start),
                                to = shown().plan.clock.moment(parts.back().end);
        lines << (from.day == to.day
                      ? tr("%1, %2 to %3").arg(dayText(from.day), clockText(from.minute), clockText(to.minute))
                      : tr("%1 to %2").arg(dayText(from.day), dayText(to.day)));
    }
    if (w.left > 0)
        lines << (w.needs.hands > 1 ? tr("%1 for two, %2").arg(durationText(w.left), placeText(w.place))
                                    : tr("%1, %2").arg(durationText(w.left), placeText(w.place)));
    if (w.wait > 0) lines << tr("then %1 of waiting").arg(durationText(w.wait));
    if (!w.checks.empty())
        lines << tr("It covers what is behind it: %n thing(s) to look at before.", nullptr,
                    static_cast<int>(w.checks.size()));
    return lines.join(QLatin1Char('\n'));
}

bool WorkStrip::viewportEvent(QEvent* event) {
    if (event->type() == QEvent::ToolTip && answer_) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const StripBar* bar = help->pos().x() < kNames ? nullptr : layout_.barAt(QPointF(help->pos()) - origin());
        QToolTip::showText(help->globalPos(), bar ? tipOf(bar->item) : QString(), viewport());
        return true;
    }
    return QAbstractScrollArea::viewportEvent(event);
}

void WorkStrip::mousePressEvent(QMouseEvent* event) {
    if (!answer_ || event->button() != Qt::LeftButton) return;
    const QPointF at = event->position() - origin();
    if (event->position().x() < kNames) {
        for (const StripRow& row : layout_.rows())
            if (row.kind == StripRow::OfSurface && at.y() >= row.y && at.y() < row.y + row.height)
                emit surfacePicked(row.surface);
        return;
    }
    for (const StripBar& bar : layout_.bars()) {
        if (!bar.first) continue;
        const std::vector<QRectF> checks = checksOf(bar);
        for (std::size_t k = 0; k < checks.size(); ++k)
            if (checks[k].adjusted(-2, -2, 2, 2).contains(at)) {
                emit checkPressed(item(bar.item).checks[k]);
                return;
            }
    }
    const StripBar* bar = layout_.barAt(at);
    takeInHand(bar ? bar->item : -1);
    pressed_ = bar ? bar->item : -1;
    pressedAt_ = event->position();
    dragging_ = false;
}

void WorkStrip::mouseMoveEvent(QMouseEvent* event) {
    if (!answer_) return;
    const bool onBar = event->position().x() >= kNames && layout_.barAt(event->position() - origin());
    viewport()->setCursor(pressed_ >= 0 ? Qt::ClosedHandCursor : onBar ? Qt::OpenHandCursor : Qt::ArrowCursor);
    if (pressed_ < 0) return;
    constexpr double kSlop = 6;
    if (!dragging_ && std::abs(event->position().x() - pressedAt_.x()) < kSlop) return;
    dragging_ = true;
    const StripDay* day = layout_.dayAt(event->position().x() - origin().x());
    if (!day || over_ == day->day) return;
    over_ = day->day;
    emit dragged(pressed_, *over_);
}

void WorkStrip::mouseReleaseEvent(QMouseEvent*) {
    const int item = std::exchange(pressed_, -1);
    const std::optional<CivilDate> day = std::exchange(over_, std::nullopt);
    viewport()->setCursor(Qt::ArrowCursor);
    if (!std::exchange(dragging_, false) || item < 0) return;
    if (day)
        emit dropped(item, *day);
    else
        emit dragGivenUp();
}

void WorkStrip::wheelEvent(QWheelEvent* event) {
    if (!(event->modifiers() & Qt::ControlModifier)) return QAbstractScrollArea::wheelEvent(event);
    zoom(event->angleDelta().y() > 0 ? 1.2 : 1 / 1.2, event->position().x());
}

void WorkStrip::zoom(double factor, double x) {
    const double before = pixelsPerHour_;
    pixelsPerHour_ = std::clamp(pixelsPerHour_ * factor, 5.0, 80.0);
    const double at = horizontalScrollBar()->value() + x - kNames;
    layOut();
    horizontalScrollBar()->setValue(static_cast<int>(at * pixelsPerHour_ / before - (x - kNames)));
}

void WorkStrip::zoomBy(double factor) { zoom(factor, kNames + (viewport()->width() - kNames) / 2.0); }

void WorkStrip::stepHand(int by) {
    std::vector<const StripBar*> bars;
    for (const StripBar& bar : layout_.bars())
        if (bar.first) bars.push_back(&bar);
    if (bars.empty()) return;
    std::stable_sort(bars.begin(), bars.end(),
                     [](const StripBar* a, const StripBar* b) { return a->part.start < b->part.start; });
    const auto now = std::find_if(bars.begin(), bars.end(), [&](const StripBar* b) { return b->item == hand_; });
    const int count = static_cast<int>(bars.size());
    const int place = now == bars.end() ? (by > 0 ? 0 : count - 1) : static_cast<int>(now - bars.begin()) + by;
    takeInHand(bars[static_cast<std::size_t>(std::clamp(place, 0, count - 1))]->item);
    reveal(hand_);
}

void WorkStrip::pushToDay(int by) {
    const StripBar* bar = layout_.firstBarOf(hand_);
    if (!bar) return;
    const CivilDate day = shown().plan.clock.moment(bar->part.start).day;
    const auto& days = layout_.days();
    for (std::size_t d = 0; d < days.size(); ++d) {
        if (days[d].day != day) continue;
        const std::size_t to = d + static_cast<std::size_t>(by);
        if (to < days.size()) emit dropped(hand_, days[to].day);
        return;
    }
}

void WorkStrip::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (!answer_ || by == 0) {
        if (event->key() == Qt::Key_Escape && pressed_ >= 0) {
            pressed_ = -1;
            dragging_ = false;
            over_.reset();
            emit dragGivenUp();
            return;
        }
        return QAbstractScrollArea::keyPressEvent(event);
    }
    if (event->modifiers() & Qt::ShiftModifier)
        pushToDay(by);
    else
        stepHand(by);
}

const QPixmap& WorkStrip::picture(const std::string& surface) {
    const auto known = pictures_.find(surface);
    if (known != pictures_.end()) return known->second;
    constexpr int kWide = 34, kHigh = 20;
    const double ratio = devicePixelRatioF();
    QPixmap map(static_cast<int>(kWide * ratio), static_cast<int>(kHigh * ratio));
    map.setDevicePixelRatio(ratio);
    map.fill(Qt::transparent);
    const SurfacePlan* s = plan_->surface(surface);
    if (s && s->measured.measured()) {
        QPainter p(&map);
        p.setRenderHint(QPainter::Antialiasing);
        const PlanView view(boundsOf(s->measured.outline), QRectF(1, 1, kWide - 2, kHigh - 2));
        const LayerPlan* face = s->faceLayer();
        paintSetOut(p, view, s->measured.outline, s->setOut(), face ? job_.catalogue.find(face->product) : nullptr,
                    figures_, {.names = false, .offcuts = false, .slivers = false});
    }
    return pictures_.emplace(surface, std::move(map)).first->second;
}

} // namespace westrum
