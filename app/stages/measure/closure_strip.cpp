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
    return {600, lines_.empty() ? 2 * lineHeight : 6 * lineHeight + 16};
}

void ClosureStrip::showClosure(const Measurement& m, const MeasuredOutline& measured, const Figures& figures) {
    lines_.clear();
    instead_.clear();
    figures_ = figures;
    const auto suspected = [&](const std::string& key) {
        return measured.slip && std::any_of(measured.slip->suspects.begin(), measured.slip->suspects.end(),
                                            [&](const SuspectReading& s) { return s.key == key; });
    };
    if (m.empty()) {
        instead_ = tr("3640, 364 cm, 3,64 m, 11' 11 5/16\" and sums such as 620+38+620 are all understood.");
    } else if (m.form == OutlineForm::Rectangle) {
        if (measured.frame.size() == 4)
            instead_ =
                tr("The corners are taken as square. If they are, both diagonals read %1; if not, measure four sides.")
                    .arg(figures.length({distance(measured.frame[0], measured.frame[2])}));
    } else if (measured.fit && !measured.fit->impossible) {
        const QuadFit& fit = *measured.fit;
        for (std::size_t k = 0; k < kQuadReadings && m.readings[4] && m.readings[5]; ++k)
            if (fit.residual[k])
                lines_.push_back({QString(QLatin1Char("abcdef"[k])), *fit.residual[k], fit.misclosure[k],
                                  suspected(readingKey(static_cast<QuadReading>(k)))});
        if (lines_.empty())
            instead_ =
                tr("One diagonal closes the outline. The second one would check all the others: measure it too.");
    } else if (measured.network && measured.network->fit.state == NetworkState::Solved) {
        const NetworkFit& fit = measured.network->fit;
        for (std::size_t k = 0; k < measured.network->keys.size() && fit.spareReadings > 0; ++k) {
            const std::string& key = measured.network->keys[k];
            const int n = QString::fromStdString(key).mid(1).toInt();
            lines_.push_back({key.front() == 'S' ? sideLetter(n) : QString::number(n + 1), fit.residual[k],
                              fit.misclosure[k], suspected(key)});
        }
        if (lines_.empty())
            instead_ =
                tr("These diagonals just hold the outline. One more would check all the others: measure it too.");
    }
    if (instead_.isEmpty() && lines_.empty() && measured.measured() && measured.leastRadius)
        instead_ = tr("The tightest bend has a radius of %1.").arg(figures.length(*measured.leastRadius));
    setVisible(!lines_.empty() || !instead_.isEmpty());
    updateGeometry();
    update();
}

void ClosureStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (lines_.empty()) {
        p.setPen(t.muted);
        p.drawText(rect(), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, instead_);
        return;
    }
    const double line = QFontMetricsF(textFont()).height();
    p.setFont(textFont(1.0, true));
    p.setPen(t.graphite);
    const QString title = tr("How well the readings close");
    p.drawText(QRectF(0, 0, width(), line + 2), Qt::AlignLeft | Qt::AlignVCenter, title);
    const double used = QFontMetricsF(p.font()).horizontalAdvance(title) + 18;
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    p.drawText(QRectF(used, 0, width() - used, line + 2), Qt::AlignLeft | Qt::AlignVCenter,
               tr("mm left after the best fit; “off” is against all the others"));
    const QRectF box(0.5, line + 6.5, width() - 1, height() - line - 8);
    p.setPen(t.faint);
    p.setBrush(t.raised);
    p.drawRect(box);
    const QRectF bars = box.adjusted(0, line + 4, 0, -line - 4);
    double largest = 5;
    for (const Line& l : lines_) largest = std::max(largest, std::abs(l.residual));
    const double perMm = bars.height() / 2 / largest * 0.9;
    const double zero = bars.center().y();
    const double fair = std::min(2 * perMm, bars.height() / 2); // a tape is good to about 2 mm
    p.fillRect(QRectF(bars.left() + 1, zero - fair, bars.width() - 2, 2 * fair), t.agreedWash);
    p.setPen(t.agreed);
    p.drawLine(QPointF(bars.left() + 1, zero), QPointF(bars.right() - 1, zero));
    const double step = box.width() / static_cast<double>(lines_.size());
    for (std::size_t k = 0; k < lines_.size(); ++k) {
        const Line& l = lines_[k];
        const double x = box.left() + step * (static_cast<double>(k) + 0.5);
        const bool culprit = l.suspected;
        const QColor colour = culprit ? t.pencil : t.graphite;
        p.fillRect(
            QRectF(x - 6, std::min(zero, zero - l.residual * perMm), 12, std::max(1.5, std::abs(l.residual) * perMm)),
            colour);
        p.setFont(textFont(0.95, true));
        p.setPen(t.muted);
        p.drawText(QRectF(x - step / 2, box.top() + 2, step / 2 - 8, line), Qt::AlignRight | Qt::AlignVCenter,
                   l.letter);
        p.setPen(colour);
        p.setFont(textFont(0.95, culprit));
        p.drawText(QRectF(x + 2, box.top() + 2, step / 2, line), Qt::AlignLeft | Qt::AlignVCenter,
                   withSign(figures_, l.residual));
        if (!l.misclosure) continue;
        p.setFont(textFont(0.85, culprit));
        p.setPen(culprit ? t.pencil : t.muted);
        const QString off = tr("off %1").arg(withSign(figures_, *l.misclosure));
        if (QFontMetricsF(p.font()).horizontalAdvance(off) < step)
            p.drawText(QRectF(x - step / 2, box.bottom() - line - 2, step, line), Qt::AlignCenter, off);
    }
}

} // namespace westrum
