#include "app/stages/measure/closure_strip.h"

#include "app/drawing/theme.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

QString withSign(const Figures& f, double mm) {
    return (mm > 0 ? QStringLiteral("+") : QString()) +
           QString::fromStdString(printNumber(mm, 1, f.decimalMark, true, true))
               .replace(QLatin1Char('-'), QStringLiteral("−"));
}

} // namespace

ClosureStrip::ClosureStrip(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize ClosureStrip::sizeHint() const {
    const int lineHeight = static_cast<int>(QFontMetricsF(textFont()).height());
    return {600, fit_ ? 6 * lineHeight + 20 : 2 * lineHeight};
}

void ClosureStrip::showClosure(const Measurement& m, const MeasuredOutline& measured, const Figures& figures) {
    fit_.reset();
    instead_.clear();
    figures_ = figures;
    const bool bothDiagonals = m.readings[4] && m.readings[5];
    if (m.empty()) {
        instead_ = tr("3640, 364 cm, 3,64 m, 11' 11 5/16\" and sums such as 620+38+620 are all understood.");
    } else if (m.form == OutlineForm::Rectangle) {
        if (measured.frame)
            instead_ =
                tr("The corners are taken as square. If they are, both diagonals read %1; if not, measure four sides.")
                    .arg(figures.length({distance((*measured.frame)[0], (*measured.frame)[2])}));
    } else if (measured.fit && !measured.fit->impossible) {
        if (bothDiagonals)
            fit_ = measured.fit;
        else
            instead_ =
                tr("One diagonal closes the outline. The second one would check all the others: measure it too.");
    }
    setVisible(fit_ || !instead_.isEmpty());
    updateGeometry();
    update();
}

void ClosureStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!fit_) {
        p.setPen(t.muted);
        p.drawText(rect(), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, instead_);
        return;
    }
    const double line = QFontMetricsF(textFont()).height();
    p.setFont(textFont(1.0, true));
    p.setPen(t.graphite);
    const QString title = tr("How well the six readings close");
    p.drawText(QRectF(0, 0, width(), line + 2), Qt::AlignLeft | Qt::AlignVCenter, title);
    const double used = QFontMetricsF(p.font()).horizontalAdvance(title) + 18;
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    p.drawText(QRectF(used, 0, width() - used, line + 2), Qt::AlignLeft | Qt::AlignVCenter,
               tr("mm left after the best fit; “off” is against the other five"));
    const QRectF box(0.5, line + 6.5, width() - 1, height() - line - 8);
    p.setPen(t.faint);
    p.setBrush(t.raised);
    p.drawRect(box);
    const QRectF bars = box.adjusted(0, line + 4, 0, -line - 4);
    double largest = 5;
    for (const auto& r : fit_->residual) largest = std::max(largest, r ? std::abs(*r) : 0);
    const double perMm = bars.height() / 2 / largest * 0.9;
    const double zero = bars.center().y();
    const double fair = std::min(2 * perMm, bars.height() / 2); // a tape is good to about 2 mm
    p.fillRect(QRectF(bars.left() + 1, zero - fair, bars.width() - 2, 2 * fair), t.agreedWash);
    p.setPen(t.agreed);
    p.drawLine(QPointF(bars.left() + 1, zero), QPointF(bars.right() - 1, zero));
    const double step = box.width() / kQuadReadings;
    for (std::size_t k = 0; k < kQuadReadings; ++k) {
        if (!fit_->residual[k]) continue;
        const double r = *fit_->residual[k];
        const double x = box.left() + step * (static_cast<double>(k) + 0.5);
        const auto& off = fit_->misclosure[k];
        const bool culprit =
            off && std::abs(*off) > kMisclosureLimitMm && static_cast<std::size_t>(fit_->likeliest) == k;
        const QColor colour = culprit ? t.pencil : t.graphite;
        p.fillRect(QRectF(x - 6, std::min(zero, zero - r * perMm), 12, std::max(1.5, std::abs(r) * perMm)), colour);
        p.setFont(textFont(0.95, true));
        p.setPen(t.muted);
        p.drawText(QRectF(x - step / 2, box.top() + 2, step / 2 - 8, line), Qt::AlignRight | Qt::AlignVCenter,
                   QString(QLatin1Char("abcdef"[k])));
        p.setPen(colour);
        p.setFont(textFont(0.95, culprit));
        p.drawText(QRectF(x + 2, box.top() + 2, step / 2, line), Qt::AlignLeft | Qt::AlignVCenter,
                   withSign(figures_, r));
        if (!off) continue;
        p.setFont(textFont(0.85, culprit));
        p.setPen(culprit ? t.pencil : t.muted);
        p.drawText(QRectF(x - step / 2, box.bottom() - line - 2, step, line), Qt::AlignCenter,
                   tr("off %1").arg(withSign(figures_, *off)));
    }
}

} // namespace westrum
