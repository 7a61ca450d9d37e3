#include "app/stages/fit/work_strip.h"

#include "app/drawing/theme.h"
#include "formats/work_words.h"

#include <QDate>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QScrollBar>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Oak, as the folding rule is made of.
QColor oak() { return Theme::now().dark ? QColor(0x6B5836) : QColor(0xE3C58C); }
QColor oakEdge() { return Theme::now().dark ? QColor(0xB79A5E) : QColor(0x8E6F33); }

bool isRainy(const StripDay& day) { return day.dryChance < 0.5; }

} // namespace

void paintWorkFill(QPainter& p, const QRectF& box, WorkPlace place, bool done) {
    const Theme& t = Theme::now();
    p.setPen(QPen(done ? t.agreed : oakEdge(), 1.1));
    p.setBrush(done ? t.agreedWash : place == WorkPlace::Workshop ? t.raised : oak());
    p.drawRoundedRect(box, 2, 2);
    if (done || box.width() < 5) return;
    p.setPen(Qt::NoPen);
    QColor stroke = oakEdge();
    stroke.setAlpha(110);
    p.setBrush(QBrush(stroke, place == WorkPlace::Van    ? Qt::BDiagPattern
                              : place == WorkPlace::Yard ? Qt::CrossPattern
                              : place == WorkPlace::Shop ? Qt::Dense6Pattern
                                                         : Qt::NoBrush));
    p.drawRect(box.adjusted(1, 1, -1, -1));
}

void paintWaitFill(QPainter& p, const QRectF& box) {
    QPen edge(Theme::now().agreed, 1);
    p.setPen(edge);
    p.setBrush(QBrush(Theme::now().agreed, Qt::Dense7Pattern));
    p.drawRoundedRect(box, 2, 2);
}

void paintRain(QPainter& p, const QRectF& box) {
    QColor rain = Theme::now().chalk;
    rain.setAlpha(95);
    p.setPen(QPen(rain, 1.2));
    constexpr double kApart = 13;
    for (double x = box.left() + 5; x < box.right() - 2; x += kApart)
        for (double y = box.top() + std::fmod(x * 3.7, 17); y < box.bottom() - 7; y += 17)
            p.drawLine(QPointF(x + 3, y), QPointF(x, y + 7));
}

void WorkStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(viewport());
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(viewport()->rect(), t.paper);
    if (!answer_ || !plan_) return;
    p.save();
    p.setClipRect(QRectF(kNames, kHead, viewport()->width() - kNames, viewport()->height() - kHead - kFoot));
    paintGround(p);
    paintRows(p);
    paintGates(p);
    paintWaits(p);
    paintBars(p);
    p.restore();
    paintHead(p);
    paintHands(p);
    paintNames(p);
}

void WorkStrip::paintGround(QPainter& p) const {
    const Theme& t = Theme::now();
    const double top = kHead, bottom = viewport()->height() - kFoot;
    for (const StripDay& d : layout_.days()) {
        const QRectF box(origin().x() + d.x, top, d.width, bottom - top);
        if (box.right() < kNames || box.left() > viewport()->width()) continue;
        p.fillRect(box, d.evening ? t.tally.darker(t.dark ? 80 : 107) : t.raised);
        if (isRainy(d)) paintRain(p, box);
        if (over_ == d.day) {
            p.setPen(QPen(t.chalk, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(box.adjusted(1, 1, -1, -1));
        }
    }
    const double now = origin().x() + layout_.xAt(shown().question.now);
    if (!layout_.days().empty() && shown().question.now.day >= layout_.days().front().day) {
        p.setPen(QPen(t.chalk, 1.6, Qt::DashLine));
        p.drawLine(QPointF(now, top), QPointF(now, bottom));
    }
}

void WorkStrip::paintRows(QPainter& p) const {
    const Theme& t = Theme::now();
    for (const StripRow& row : layout_.rows()) {
        const double y = origin().y() + row.y + row.height;
        if (row.surface == current_ && !row.surface.empty()) {
            QColor wash = t.chalk;
            wash.setAlpha(22);
            p.fillRect(QRectF(kNames, origin().y() + row.y, viewport()->width(), row.height), wash);
        }
        p.setPen(QPen(t.faint, 1));
        p.drawLine(QPointF(kNames, y - 1), QPointF(viewport()->width(), y - 1));
    }
}

/// A flag on the day on which something must be ready that others see to.
void WorkStrip::paintGates(QPainter& p) const {
    const Theme& t = Theme::now();
    if (layout_.rows().empty() || layout_.rows().front().kind != StripRow::Trips) return;
    const StripRow& row = layout_.rows().front();
    p.setFont(textFont(0.82));
    for (std::size_t i = 0; i < shown().question.net.items.size(); ++i) {
        const WorkItem& w = shown().question.net.items[i];
        const auto& parts = shown().plan.parts(static_cast<int>(i));
        if (w.kind != WorkKind::Gate || parts.empty()) continue;
        const double x = origin().x() + layout_.xAt(shown().plan.clock.moment(parts.back().end));
        const double bottom = origin().y() + row.y + row.height - 3;
        p.setPen(QPen(t.pencil, 1.4));
        p.drawLine(QPointF(x, bottom), QPointF(x, bottom - 15));
        p.setBrush(t.pencil);
        p.drawPolygon(QPolygonF{{x, bottom - 15}, {x + 9, bottom - 11.5}, {x, bottom - 8}});
        p.setPen(t.graphite);
        p.drawText(QPointF(x + 12, bottom - 6), workLabel(w));
    }
}

/// What sets by itself is drawn once, after the last stretch of its work.
void WorkStrip::paintWaits(QPainter& p) const {
    for (const StripBar& bar : layout_.bars()) {
        const int wait = item(bar.item).wait;
        if (!bar.last || wait <= 0) continue;
        const double to = layout_.xAt(shown().plan.clock.moment(bar.part.end + wait));
        if (to - bar.box.right() < 2) continue;
        const QRectF box(origin().x() + bar.box.right(), origin().y() + bar.box.top() + 4, to - bar.box.right(),
                         bar.box.height() - 8);
        paintWaitFill(p, box);
    }
}

std::vector<QRectF> WorkStrip::checksOf(const StripBar& bar) const {
    constexpr double kDot = 6, kStep = 9;
    std::vector<QRectF> all;
    const auto& checks = item(bar.item).checks;
    for (std::size_t k = 0; bar.first && k < checks.size(); ++k)
        all.emplace_back(bar.box.left() + 3 + static_cast<double>(k) * kStep, bar.box.bottom() + 2, kDot, kDot);
    return all;
}

void WorkStrip::paintBars(QPainter& p) const {
    for (const StripBar& bar : layout_.bars()) paintBar(p, bar);
    for (const StripBar& bar : layout_.bars()) paintChecks(p, bar);
}

void WorkStrip::paintBar(QPainter& p, const StripBar& bar) const {
    const Theme& t = Theme::now();
    const WorkItem& w = item(bar.item);
    const QRectF box = bar.box.translated(origin());
    if (box.right() < kNames || box.left() > viewport()->width()) return;
    const bool done = w.left <= 0;
    paintWorkFill(p, box, w.place, done);
    if (bar.item == hand_) {
        p.setPen(QPen(t.chalk, 2.2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(box.adjusted(-1, -1, 1, 1), 3, 3);
    }
    if (shown().question.settings.pins.contains(w.id) && bar.first) { // a drawing pin
        p.setPen(QPen(t.graphite, 1));
        p.setBrush(t.chalk);
        p.drawEllipse(QPointF(box.left() + 4, box.top() + 2), 3.2, 3.2);
    }
    const QFont font = textFont(0.82);
    const QString label = done ? QStringLiteral("✓ ") + workLabel(w) : workLabel(w);
    const double wants = QFontMetricsF(font).horizontalAdvance(label);
    const bool within = box.width() >= wants + 6;
    if (!within && (!bar.first || bar.room < wants + 10)) return;
    QRectF text(within ? box.left() + 3 : box.right() + 2, box.top() + 1, wants + 4, box.height() - 2);
    QColor back = done ? t.agreedWash : t.raised;
    back.setAlpha(within ? 215 : 0);
    p.setPen(Qt::NoPen);
    p.setBrush(back);
    p.drawRoundedRect(text, 2, 2);
    p.setFont(font);
    p.setPen(done ? t.agreed : t.graphite);
    p.drawText(text, Qt::AlignCenter, label);
}

void WorkStrip::paintChecks(QPainter& p, const StripBar& bar) const {
    const Theme& t = Theme::now();
    const WorkItem& w = item(bar.item);
    if (!bar.first || !w.covers) return;
    const double x = origin().x() + bar.box.left();
    if (x < kNames - 2 || x > viewport()->width()) return;
    p.setPen(QPen(w.left <= 0 ? t.agreed : t.pencil, 2));
    p.drawLine(QPointF(x, origin().y() + bar.box.top() - 2), QPointF(x, origin().y() + bar.box.bottom() + 9));
    const std::vector<QRectF> dots = checksOf(bar);
    for (std::size_t k = 0; k < dots.size(); ++k) {
        const bool ticked = job_.log(w.checks[k].surface).done.contains(w.checks[k].key);
        p.setPen(QPen(ticked ? t.agreed : t.pencil, 1.4));
        p.setBrush(ticked ? t.agreed : t.paper);
        p.drawEllipse(dots[k].translated(origin()));
    }
}

void WorkStrip::paintHead(QPainter& p) const {
    const Theme& t = Theme::now();
    p.save();
    p.setClipRect(QRectF(kNames, 0, viewport()->width() - kNames, kHead));
    p.fillRect(QRectF(kNames, 0, viewport()->width(), kHead), t.paper);
    const auto& days = layout_.days();
    for (std::size_t i = 0; i < days.size();) {
        std::size_t j = i + 1; // days that follow each other are one leaf
        while (!days[i].evening && j < days.size() && !days[j].evening && days[j - 1].day + 1 == days[j].day) ++j;
        const QRectF leaf(origin().x() + days[i].x, 4, days[j - 1].x + days[j - 1].width - days[i].x, kHead - 8);
        const CivilDate &a = days[i].day, &b = days[j - 1].day;
        const QDate first(a.year, a.month, a.day), last(b.year, b.month, b.day);
        if (days[i].evening) {
            p.setFont(textFont(0.75));
            p.setPen(t.muted);
            p.drawText(leaf, Qt::AlignCenter, QLocale().toString(first, QStringLiteral("ddd\nd")));
        } else {
            const bool now = shown().question.now.day >= a && shown().question.now.day <= b;
            p.setPen(QPen(t.ruleEdge, 1.2));
            p.setBrush(now ? t.ruleDark : t.ruleLight);
            p.drawRoundedRect(leaf, 4, 4);
            p.setPen(QPen(t.ruleEdge, 1));
            for (std::size_t d = i; d < j; ++d) {
                const double x0 = origin().x() + days[d].x;
                for (int h = (days[d].from + 59) / 60; h * 60 < days[d].to; ++h) {
                    const double x = x0 + (h * 60.0 - days[d].from) / (days[d].to - days[d].from) * days[d].width;
                    p.drawLine(QPointF(x, leaf.top() + 1), QPointF(x, leaf.top() + (h % 3 == 0 ? 8 : 5)));
                }
            }
            p.setPen(t.dark && !now ? t.graphite : QColor(0x2B2A28));
            p.setFont(textFont(0.92, now));
            const QString label =
                j - i == 1 ? QLocale().toString(first, tr("ddd d MMM", "on a leaf of one day"))
                : a.month == b.month
                    ? tr("%1/%2").arg(a.day).arg(QLocale().toString(last, tr("d MMMM")))
                    : tr("%1/%2").arg(QLocale().toString(first, tr("d MMM")), QLocale().toString(last, tr("d MMM")));
            p.drawText(leaf.adjusted(6, 8, -4, 0), Qt::AlignLeft | Qt::AlignVCenter,
                       QFontMetricsF(p.font()).elidedText(label, Qt::ElideRight, leaf.width() - 8));
        }
        i = j;
    }
    p.restore();
}

void WorkStrip::paintNames(QPainter& p) {
    const Theme& t = Theme::now();
    p.save();
    p.fillRect(QRectF(0, 0, kNames, viewport()->height()), t.paper);
    p.setClipRect(QRectF(0, kHead, kNames, viewport()->height() - kHead - kFoot));
    for (const StripRow& row : layout_.rows()) {
        const QRectF box(0, origin().y() + row.y, kNames - 6, row.height);
        if (box.bottom() < kHead || box.top() > viewport()->height()) continue;
        QString name = row.kind == StripRow::Trips ? tr("Trips, scales, tidying") : tr("Cut and coat outside");
        if (row.kind == StripRow::OfSurface) {
            p.drawPixmap(QPointF(2, box.center().y() - 11), picture(row.surface));
            const Surface* s = job_.surface(row.surface);
            name = QString::fromStdString(s ? s->name : row.surface);
        }
        const bool current = row.kind == StripRow::OfSurface && row.surface == current_;
        p.setFont(textFont(0.92, current));
        p.setPen(current ? t.chalk : t.graphite);
        const double left = row.kind == StripRow::OfSurface ? 42 : 2;
        p.drawText(box.adjusted(left, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft,
                   QFontMetricsF(p.font()).elidedText(name, Qt::ElideRight, box.width() - left));
        p.setPen(QPen(t.faint, 1));
        p.drawLine(QPointF(0, box.bottom() - 1), QPointF(kNames, box.bottom() - 1));
    }
    p.restore();
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    p.drawText(QRectF(0, viewport()->height() - kFoot, kNames - 10, kFoot), Qt::AlignRight | Qt::AlignVCenter,
               tr("hands at work"));
}

/// Hour by hour, how many of those who are there work.
void WorkStrip::paintHands(QPainter& p) const {
    const Theme& t = Theme::now();
    const double base = viewport()->height() - 3, high = kFoot - 6;
    p.fillRect(QRectF(0, viewport()->height() - kFoot, viewport()->width(), kFoot), t.paper);
    p.setPen(Qt::NoPen);
    for (const StripDay& d : layout_.days()) {
        const double x0 = origin().x() + d.x;
        if (x0 + d.width < kNames || x0 > viewport()->width() || d.people < 1) continue;
        const int hours = std::max(1, (d.to - d.from) / 60);
        for (int h = 0; h < hours; ++h) {
            const int from = shown().plan.clock.at(d.day, d.from + h * 60), to = from + 60;
            double hands = 0;
            for (const StripBar& bar : layout_.bars())
                hands += item(bar.item).needs.hands *
                         std::max(0, std::min(to, bar.part.end) - std::max(from, bar.part.start)) / 60.0;
            const double share = std::min(1.0, hands / d.people);
            const double w = d.width / hours;
            if (x0 + h * w < kNames) continue;
            p.setBrush(t.faint);
            p.drawRect(QRectF(x0 + h * w + 0.8, base - high * share, w - 1.6, high * share));
        }
    }
}

} // namespace westrum
