#include "app/stages/log/day_strip.h"

#include "app/drawing/plan_view.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "formats/record_words.h"
#include "formats/work_words.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>

namespace westrum {

DayStrip::DayStrip(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
    setFixedHeight(kHeight);
    setObjectName(QStringLiteral("dayStrip"));
    setAccessibleName(tr("The day in hand, hour by hour"));
}

void DayStrip::show(const RecordEntry* entry, const Figures& figures) {
    figures_ = figures;
    blocks_.clear();
    setVisible(entry);
    if (!entry) return;
    day_ = entry->when.day;
    surface_ = entry->surface;
    inHand_ = entry->id;
    int first = 24 * 60, last = 0;
    for (const RecordEntry& e : document_.job().record) {
        if (e.when.day != day_) continue;
        const bool took = e.when.to > e.when.from;
        const Surface* s = document_.job().surface(e.surface);
        blocks_.push_back({e.id, e.when.from, e.when.to, took ? 0 : 1, e.kind == EntryKind::PieceSpoilt,
                           s ? QString::fromStdString(s->name) : QString()});
        first = std::min(first, e.when.from);
        last = std::max(last, e.when.to);
    }
    constexpr int kHour = 60;
    first_ = std::max(0, first / kHour * kHour);
    last_ = std::max(first_ + 4 * kHour, (last + kHour - 1) / kHour * kHour);
    update();
}

double DayStrip::xOf(int minute) const {
    const double left = kPicture + 10, right = width() - 10;
    return left + (right - left) * (minute - first_) / std::max(1, last_ - first_);
}

QRectF DayStrip::boxOf(const Block& b) const {
    if (b.row == 0) return {xOf(b.from), 24, std::max(3.0, xOf(b.to) - xOf(b.from)), 26};
    return {xOf(b.to) - 4, 54, 8, 14};
}

std::optional<QPointF> DayStrip::spotOf(std::int64_t id) const {
    for (const Block& b : blocks_)
        if (b.id == id) return boxOf(b).center();
    return std::nullopt;
}

/// The surface that the entry in hand is of, as the map has it.
void DayStrip::paintPicture(QPainter& p) const {
    const Theme& t = Theme::now();
    const Surface* s = document_.job().surface(surface_);
    const SurfacePlan* plan = s ? document_.plan()->surface(surface_) : nullptr;
    if (!plan || !plan->measured.measured()) return;
    const PlanView view(boundsOf(plan->measured.outline), QRectF(4, 22, kPicture - 12, kHeight - 30));
    if (plan->setOut().laid())
        paintSetOut(p, view, plan->measured.outline, plan->setOut(), document_.job().faceProduct(surface_), figures_,
                    {.names = false, .offcuts = false, .slivers = false});
    paintSurfaceParts(p, view, *s, plan->shape, {.supports = false, .names = false});
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.graphite, 1.2));
    p.drawPath(view.path(plan->measured.outline));
}

/// Which surface it was on, where there is room for a word.
void DayStrip::paintWhere(QPainter& p, const Block& b, const QRectF& box) const {
    const Theme& t = Theme::now();
    constexpr double kPad = 4, kLeast = 34;
    p.setFont(textFont(0.78));
    const QString text =
        QFontMetricsF(p.font()).elidedText(b.where, Qt::ElideRight, std::max(0.0, box.width() - 4 * kPad));
    const double wide = QFontMetricsF(p.font()).horizontalAdvance(text) + 2 * kPad;
    if (b.where.isEmpty() || box.width() < kLeast || wide > box.width() - 2) return;
    const QRectF chip(box.left() + kPad, box.center().y() - 8, wide, 16);
    p.setPen(Qt::NoPen);
    p.setBrush(t.raised);
    p.drawRect(chip);
    p.setPen(t.graphite);
    p.drawText(chip, Qt::AlignCenter, text);
}

bool DayStrip::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    for (const Block& b : blocks_) {
        if (!boxOf(b).adjusted(-2, -3, 2, 3).contains(help->pos())) continue;
        for (const RecordEntry& e : document_.job().record)
            if (e.id == b.id)
                QToolTip::showText(help->globalPos(), entryText(document_.job(), *document_.plan(), e, figures_), this);
        return true;
    }
    QToolTip::hideText();
    return true;
}

void DayStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(textFont(0.85, true));
    p.setPen(t.graphite);
    const Surface* s = document_.job().surface(surface_);
    p.drawText(QRectF(4, 2, kPicture - 6, 18), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetricsF(p.font()).elidedText(s ? QString::fromStdString(s->name) : dayText(day_), Qt::ElideRight,
                                                  kPicture - 6));
    paintPicture(p);
    // The hours, as on a rule.
    const QRectF rule(xOf(first_), 4, xOf(last_) - xOf(first_), 16);
    p.setPen(QPen(t.ruleEdge, 1));
    p.setBrush(t.ruleLight);
    p.drawRect(rule);
    p.setFont(textFont(0.72));
    p.setPen(t.graphite);
    constexpr int kHour = 60;
    for (int m = first_; m <= last_; m += kHour) {
        p.drawLine(QPointF(xOf(m), rule.bottom() - 5), QPointF(xOf(m), rule.bottom()));
        if (m < last_)
            p.drawText(QRectF(xOf(m) + 3, rule.top(), 40, 15), Qt::AlignLeft | Qt::AlignVCenter, clockText(m));
    }
    for (const Block& b : blocks_) {
        const bool lit = b.id == inHand_;
        const QColor ink = b.spoilt ? t.pencil : lit ? t.chalk : t.agreed;
        p.setPen(QPen(ink, lit ? 2 : 1));
        p.setBrush(b.row == 0 ? QBrush(ink, lit ? Qt::SolidPattern : Qt::BDiagPattern) : QBrush(lit ? ink : t.raised));
        const QRectF box = boxOf(b);
        if (b.row == 0) {
            p.drawRect(box);
            paintWhere(p, b, box);
        } else
            p.drawEllipse(box.center(), lit ? 5.5 : 4, lit ? 5.5 : 4);
    }
    for (const RecordEntry& e : document_.job().record)
        if (e.id == inHand_) {
            p.setFont(textFont(0.85));
            p.setPen(t.graphite);
            const QRectF room(kPicture + 10, 67, width() - kPicture - 20, 17);
            p.drawText(room, Qt::AlignLeft | Qt::AlignVCenter,
                       QFontMetricsF(p.font()).elidedText(
                           tr("%1: %2").arg(dayText(day_), entryText(document_.job(), *document_.plan(), e, figures_)),
                           Qt::ElideRight, room.width()));
        }
}

void DayStrip::mousePressEvent(QMouseEvent* event) {
    // The nearest of those that are pressed: what happened at a moment lies before what took time.
    const Block* best = nullptr;
    double least = 8;
    for (const Block& b : blocks_) {
        const QRectF box = boxOf(b).adjusted(-2, -3, 2, 3);
        if (!box.contains(event->position())) continue;
        const double away = std::abs(box.center().x() - event->position().x()) / std::max(8.0, box.width()) * 8;
        if (!best || away < least) best = &b, least = away;
    }
    if (best) emit picked(best->id);
}

} // namespace westrum
