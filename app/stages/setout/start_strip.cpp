#include "app/stages/setout/start_strip.h"

#include "app/drawing/theme.h"
#include "app/stages/setout/set_out_bench.h"
#include "app/widgets/gesture.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {

StartStrip::StartStrip(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setAccessibleName(tr("Where the first row starts: arrow keys move it by 1 mm, with Shift by 10 mm"));
}

QSize StartStrip::sizeHint() const {
    const double line = QFontMetricsF(textFont()).height();
    return {700, static_cast<int>(line * 2.4 + 76)};
}

void StartStrip::showStarts(std::shared_ptr<const Starts> starts, Mm current, double plankWidth, const Figures& figures,
                            bool settled) {
    starts_ = std::move(starts);
    strip_.clear();
    if (starts_)
        for (const StartChoice& c : starts_->choices)
            if (c.onStrip) strip_.push_back(c);
    current_ = current.value;
    width_ = plankWidth;
    figures_ = figures;
    settled_ = settled;
    update();
}

QRectF StartStrip::chart() const {
    const double line = QFontMetricsF(textFont()).height();
    return {44.5, line + 10.5, width() - 88.0, height() - 2.3 * line - 16};
}

QRectF StartStrip::packsBar() const {
    const QRectF c = chart();
    return {c.left(), c.bottom() + 3, c.width(), height() - c.bottom() - 5};
}

double StartStrip::xOf(double offset) const {
    const double span = std::max(1.0, std::ceil(width_) - 1);
    return chart().left() + chart().width() * offset / span;
}

void StartStrip::paintRowWidths(QPainter& p) const {
    const Theme& t = Theme::now();
    const QRectF c = chart();
    const double top = std::max(width_, 1.0);
    const auto yOf = [&](double mm) { return c.bottom() - 3 - (c.height() - 8) * mm / top; };
    const auto& all = strip_;
    // Where both edges are fair.
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].fair) {
            const double from = xOf(all[i].startOffset.value - 0.5), to = xOf(all[i].startOffset.value + 0.5);
            p.fillRect(QRectF(std::max(c.left(), from), c.top(),
                              std::min(c.right(), to) - std::max(c.left(), from) + 0.6, c.height()),
                       t.agreedWash);
        }
    p.setPen(QPen(t.faint, 1, Qt::DotLine));
    p.drawLine(QPointF(c.left(), yOf(width_ / 3)), QPointF(c.right(), yOf(width_ / 3)));
    const auto curve = [&](auto widthOf, Qt::PenStyle style) {
        QPainterPath path;
        double before = -1;
        for (const StartChoice& s : all) {
            const QPointF at(xOf(s.startOffset.value), yOf(widthOf(s)));
            // Where a row is gained or lost the last row's width jumps: the line breaks there.
            if (before < 0 || std::abs(widthOf(s) - before) > width_ / 2)
                path.moveTo(at);
            else
                path.lineTo(at);
            before = widthOf(s);
        }
        p.setPen(QPen(t.graphite, 2, style));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
    };
    curve([](const StartChoice& s) { return s.firstRow.value; }, Qt::SolidLine);
    curve([](const StartChoice& s) { return s.lastRow.value; }, Qt::DashLine);
}

void StartStrip::paintPacks(QPainter& p) const {
    const Theme& t = Theme::now();
    const auto& all = strip_;
    const QRectF bar = packsBar();
    const auto packs = [&](const StartChoice& s) {
        return s.stock > 0 ? (s.stock + starts_->unitsPerPack - 1) / starts_->unitsPerPack : 0;
    };
    int fewest = 1 << 20;
    for (const StartChoice& s : all)
        if (s.stock > 0) fewest = std::min(fewest, packs(s));
    p.setFont(textFont(0.85));
    for (std::size_t i = 0; i < all.size();) {
        std::size_t j = i;
        while (j < all.size() && packs(all[j]) == packs(all[i])) ++j;
        const double from = i == 0 ? bar.left() : xOf(all[i].startOffset.value - 0.5);
        const double to = j == all.size() ? bar.right() : xOf(all[j - 1].startOffset.value + 0.5);
        const QRectF part(from, bar.top(), to - from, bar.height());
        const int n = packs(all[i]);
        const bool more = n > fewest || n == 0;
        p.fillRect(part.adjusted(0.5, 0, -0.5, 0), t.tally);
        if (more)
            p.fillRect(part.adjusted(0.5, 0, -0.5, 0),
                       QBrush(QColor(t.pencil.red(), t.pencil.green(), t.pencil.blue(), 90), Qt::BDiagPattern));
        const QString text = n == 0                      ? tr("cannot be laid")
                             : starts_->unitsPerPack > 1 ? tr("%n pack(s)", nullptr, n)
                                                         : QString::number(n);
        p.setPen(more ? t.pencil : t.graphite);
        if (QFontMetricsF(p.font()).horizontalAdvance(text) + 8 < part.width()) p.drawText(part, Qt::AlignCenter, text);
        i = j;
    }
}

void StartStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double line = QFontMetricsF(textFont()).height();
    p.setFont(textFont(1.0, true));
    p.setPen(t.graphite);
    const QString title = tr("Where the first row starts");
    p.drawText(QRectF(0, 0, width(), line + 4), Qt::AlignLeft | Qt::AlignVCenter, title);
    double x = QFontMetricsF(p.font()).horizontalAdvance(title) + 18;
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    const bool ready = !strip_.empty();
    const QString hint = ready      ? starts_ && starts_->unitsPerPack > 1
                                          ? tr("drag along the strip")
                                          : tr("drag along the strip; below, the stock it takes")
                              : settled_ ? tr("nothing to lay yet")
                                    : tr("working out every start …");
    p.drawText(QRectF(x, 0, width() - x, line + 4), Qt::AlignLeft | Qt::AlignVCenter, hint);
    // Legend: solid first row, dashed last row, wash for fair.
    double right = width() - 44;
    const auto legend = [&](const QString& text, const auto& sample) {
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
        p.setPen(t.muted);
        p.drawText(QRectF(right - w, 0, w + 2, line + 4), Qt::AlignLeft | Qt::AlignVCenter, text);
        sample(QRectF(right - w - 30, line / 2 - 4, 24, 12));
        right -= w + 48;
    };
    legend(tr("both edges fair"), [&](QRectF r) { p.fillRect(r, t.agreedWash); });
    const auto stroke = [&](Qt::PenStyle style) {
        return [&p, &t, style](QRectF r) {
            p.setPen(QPen(t.graphite, 2, style));
            p.drawLine(QPointF(r.left(), r.center().y()), QPointF(r.right(), r.center().y()));
        };
    };
    legend(tr("last row"), stroke(Qt::DashLine));
    legend(tr("first row"), stroke(Qt::SolidLine));

    const QRectF c = chart();
    p.setPen(t.faint);
    p.setBrush(t.raised);
    p.drawRect(c);
    if (!ready) return;
    paintRowWidths(p);
    paintPacks(p);
    p.setFont(textFont(0.8));
    p.setPen(t.muted);
    p.drawText(QRectF(0, c.top() - 4, 40, 16), Qt::AlignRight | Qt::AlignVCenter, figures_.length({width_}, false));
    p.drawText(QRectF(0, c.bottom() - 13, 40, 16), Qt::AlignRight | Qt::AlignVCenter, QStringLiteral("0"));
    // The current start.
    const double at = xOf(current_);
    p.setPen(QPen(t.chalk, 2.5));
    p.drawLine(QPointF(at, c.top() - 3), QPointF(at, packsBar().bottom()));
    QPolygonF head({QPointF(at - 8, c.top() - 10), QPointF(at + 8, c.top() - 10), QPointF(at, c.top() + 2)});
    p.setBrush(t.chalk);
    p.setPen(hasFocus() ? QPen(t.graphite, 2) : Qt::NoPen);
    p.drawPolygon(head);
}

void StartStrip::dragTo(double x) {
    const double span = std::max(1.0, std::ceil(width_) - 1);
    const double offset = std::clamp(std::round((x - chart().left()) / chart().width() * span), 0.0, span);
    if (offset != current_) emit startMoved({offset}, gesture_);
}

void StartStrip::mousePressEvent(QMouseEvent* event) {
    if (strip_.empty()) return;
    gesture_ = nextGesture();
    dragTo(event->position().x());
}

void StartStrip::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton && !strip_.empty()) dragTo(event->position().x());
}

void StartStrip::keyPressEvent(QKeyEvent* event) {
    const int sign = event->key() == Qt::Key_Right || event->key() == Qt::Key_Up    ? 1
                     : event->key() == Qt::Key_Left || event->key() == Qt::Key_Down ? -1
                                                                                    : 0;
    if (sign == 0 || strip_.empty()) return QWidget::keyPressEvent(event);
    if (!event->isAutoRepeat()) gesture_ = nextGesture();
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    emit startMoved({std::clamp(current_ + sign * step, 0.0, std::max(0.0, std::ceil(width_) - 1))}, gesture_);
}

} // namespace westrum
