#include "app/stages/fit/chance_curve.h"

#include "app/drawing/theme.h"
#include "formats/work_words.h"

#include <QDate>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace westrum {

ChanceCurve::ChanceCurve(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("chanceCurve"));
    setAccessibleName(tr("When it is done"));
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::SizeHorCursor);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void ChanceCurve::show(std::shared_ptr<const WorkAnswer> answer, double accepted, const Figures& figures) {
    answer_ = std::move(answer);
    accepted_ = accepted;
    figures_ = figures;
    if (answer_ && answer_->chance && !answer_->chance->finishes.empty()) {
        const auto& all = answer_->chance->finishes;
        constexpr int kAround = 5; // days to either side
        first_ = answer_->plan.clock.moment(std::min(all.front(), answer_->plan.schedule.finish)).day + -kAround;
        last_ = answer_->plan.clock.moment(answer_->chance->at(0.99)).day + kAround;
    }
    update();
}

QRectF ChanceCurve::frame() const { return {1, 1, width() - 2.0, height() - 20.0}; }

double ChanceCurve::xOf(const CivilDate& day) const {
    const double days = std::max(1, dayNumber(last_) - dayNumber(first_));
    return frame().left() + (dayNumber(day) - dayNumber(first_)) / days * frame().width();
}

double ChanceCurve::by(const CivilDate& day) const { return answer_->chance->by(answer_->plan.clock.at(day + 1, 0)); }

std::optional<CivilDate> ChanceCurve::marked() const {
    if (!answer_ || !answer_->chance || answer_->chance->finishes.empty()) return std::nullopt;
    return answer_->plan.clock.moment(answer_->chance->at(accepted_) - 1).day;
}

void ChanceCurve::choose(const CivilDate& day) {
    const double chance = std::clamp(by(day), 0.01, 0.99);
    if (std::abs(chance - accepted_) > 1e-9) emit chosen(chance);
}

void ChanceCurve::chooseAt(double x) {
    if (!marked()) return;
    const double days = dayNumber(last_) - dayNumber(first_);
    const int n = static_cast<int>(std::floor((x - frame().left()) / frame().width() * days + 0.5));
    choose(first_ + std::clamp(n, 0, static_cast<int>(days)));
}

void ChanceCurve::mousePressEvent(QMouseEvent* event) { chooseAt(event->position().x()); }

void ChanceCurve::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) chooseAt(event->position().x());
}

void ChanceCurve::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (by == 0 || !marked()) return QWidget::keyPressEvent(event);
    // To the next day that changes it.
    const double before = this->by(*marked());
    for (CivilDate day = *marked() + by; day >= first_ && day <= last_; day = day + by)
        if (std::abs(this->by(day) - before) > 1e-9) return choose(day);
}

void ChanceCurve::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF f = frame();
    p.setPen(QPen(hasFocus() ? t.chalk : t.faint, 1));
    p.setBrush(t.raised);
    p.drawRect(f);
    const auto mark = marked();
    if (!mark) {
        p.setPen(t.muted);
        p.drawText(f, Qt::AlignCenter, tr("Working out how sure the date is…"));
        return;
    }
    QPainterPath curve;
    const auto yOf = [&](double share) { return f.bottom() - 3 - share * (f.height() - 8); };
    for (CivilDate day = first_; day <= last_; day = day + 1) {
        const QPointF at(xOf(day), yOf(by(day)));
        if (day == first_)
            curve.moveTo(at);
        else
            curve.lineTo(at);
    }
    // What is fair to promise: from four runs in five on.
    const double fair = xOf(answer_->plan.clock.moment(answer_->chance->at(0.8) - 1).day);
    p.fillRect(QRectF(QPointF(fair, f.top() + 1), QPointF(f.right() - 1, f.bottom() - 1)), t.agreedWash);
    p.setPen(QPen(t.graphite, 1.8));
    p.setBrush(Qt::NoBrush);
    p.drawPath(curve);
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    const int days = dayNumber(last_) - dayNumber(first_), step = days > 60 ? 28 : days > 25 ? 14 : 7;
    for (CivilDate day = first_; day <= last_; day = day + 1) {
        if (weekdayOf(day) != 5 || (dayNumber(day) - dayNumber(first_)) / 7 % (step / 7) != 0) continue;
        p.drawText(QRectF(xOf(day) - 50, f.bottom() + 2, 100, 16), Qt::AlignCenter,
                   QLocale().toString(QDate(day.year, day.month, day.day), tr("d MMM")));
    }
    // Drawn last: the mark and what it says.
    const double x = xOf(*mark);
    p.setPen(QPen(t.chalk, 2));
    p.drawLine(QPointF(x, f.top()), QPointF(x, f.bottom()));
    QPainterPath head;
    head.addPolygon(QPolygonF{{x - 6, f.top()}, {x + 6, f.top()}, {x, f.top() + 8}});
    p.fillPath(head, t.chalk);
    const QString text = tr("%1: %2").arg(dayText(*mark), figures_.percent(by(*mark)));
    p.setFont(textFont(1.0, true));
    const double wants = QFontMetricsF(p.font()).horizontalAdvance(text) + 12;
    const bool left = x + wants + 8 > f.right();
    const QRectF label(left ? x - wants - 6 : x + 6, f.center().y() - 10, wants, 20);
    p.setPen(Qt::NoPen);
    p.setBrush(t.raised);
    p.drawRoundedRect(label, 3, 3);
    p.setPen(t.chalk);
    p.drawText(label, Qt::AlignCenter, text);
}

} // namespace westrum
