#include "app/stages/measure/van_closing.h"

#include "app/drawing/theme.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr std::size_t kMostLines = 6;
/// A gap within this is measuring.
constexpr double kFairMm = 5;

QString nameOf(const Job& job, const std::string& id) {
    const Surface* s = job.surface(id);
    return s ? QString::fromStdString(s->name) : QString::fromStdString(id);
}

QString cornerName(const Plan& plan, const std::string& surface, int corner) {
    const SurfacePlan* s = plan.surface(surface);
    const int n = s ? static_cast<int>(s->measured.sides.size()) : 0;
    return QString(QLatin1Char(static_cast<char>('A' + (n > 0 ? corner % n : corner) % 26)));
}

} // namespace

VanClosing::VanClosing(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setAccessibleName(tr("How the van closes"));
}

void VanClosing::showClosing(const Job& job, const Plan& plan, const Figures& figures) {
    fold_ = plan.fold;
    figures_ = figures;
    lines_.clear();
    for (const TiedCorner& c : fold_.corners) {
        if (lines_.size() >= kMostLines) break;
        // Sides that meet run against each other: the start of one lies at the end of the other.
        const QString mine = cornerName(plan, c.surface, c.side + (c.atStart ? 0 : 1));
        const QString theirs = cornerName(plan, c.other, c.otherSide + (c.atStart ? 1 : 0));
        lines_.push_back({c.surface, tr("%1, corner %2, and %3, corner %4: %5 apart")
                                         .arg(nameOf(job, c.surface), mine, nameOf(job, c.other), theirs,
                                              figures.fineLength(c.gap))});
    }
    update();
}

/// The words stand beside the drawing.
double VanClosing::pictureWidth() const { return std::max(260.0, width() * 0.52); }

QRectF VanClosing::lineAt(std::size_t k) const {
    const double high = QFontMetricsF(textFont()).height() + 4;
    return {pictureWidth() + 24, 30 + high * static_cast<double>(k), std::max(100.0, width() - pictureWidth() - 24),
            high};
}

/// Seen from above the rear right: forwards to the right, up upwards, what lies to the left a little up and to the
/// right.
QPointF VanClosing::onPicture(VanPoint p) const {
    return origin_ + QPointF(p.x + 0.42 * p.y, -p.z - 0.3 * p.y) * scale_;
}

void VanClosing::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(textFont(1.0, true));
    p.setPen(t.graphite);
    p.drawText(QRectF(pictureWidth() + 24, 2, width() - pictureWidth() - 24, 24), Qt::AlignLeft | Qt::AlignVCenter,
               tr("How the van closes: the worst corners"));
    // As large as it fits.
    scale_ = 1;
    origin_ = {};
    QRectF all;
    for (const auto& pose : fold_.poses)
        if (pose)
            for (const VanPoint& c : pose->corners) {
                const QPointF at = onPicture(c);
                all = all.isNull() ? QRectF(at, QSizeF(1e-3, 1e-3)) : all.united(QRectF(at, QSizeF(1e-3, 1e-3)));
            }
    if (all.isNull()) return;
    const QRectF box(8, 8, pictureWidth() - 16, height() - 16);
    scale_ = std::min(box.width() / all.width(), box.height() / all.height());
    origin_ = box.center() - all.center() * scale_;
    for (const auto& pose : fold_.poses) {
        if (!pose) continue;
        QPolygonF face;
        for (const VanPoint& c : pose->corners) face << onPicture(c);
        p.setPen(QPen(t.muted, 1.2));
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(face);
    }
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    p.drawText(QRectF(box.left(), box.bottom() - 18, box.width() / 2, 18), Qt::AlignLeft | Qt::AlignBottom, tr("rear"));
    p.drawText(QRectF(box.center().x(), box.bottom() - 18, box.width() / 2, 18), Qt::AlignRight | Qt::AlignBottom,
               tr("front"));
    // The worst gap is drawn 26 pixels long.
    const double worst = fold_.corners.empty() ? 0 : fold_.corners.front().gap.value;
    exaggerated_ = worst > 0.05 ? 26 / (worst * scale_) : 1;
    for (std::size_t k = 0; k < fold_.corners.size(); ++k) {
        const TiedCorner& c = fold_.corners[k];
        const bool bad = c.gap.value > kFairMm;
        const QPointF at = onPicture(c.at), half = (onPicture(c.at + c.apart) - at) * (exaggerated_ / 2);
        p.setPen(QPen(bad ? t.pencil : t.agreed, k < kMostLines ? 3 : 2));
        p.drawLine(at - half, at + half);
        p.setBrush(bad ? t.pencil : t.agreed);
        p.setPen(Qt::NoPen);
        p.drawEllipse(at - half, 2.5, 2.5);
        p.drawEllipse(at + half, 2.5, 2.5);
    }
    for (std::size_t k = 0; k < lines_.size(); ++k) {
        p.setFont(textFont(0.95));
        p.setPen(fold_.corners[k].gap.value > kFairMm ? t.pencil : t.graphite);
        p.drawText(lineAt(k), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(lines_[k].text, Qt::ElideRight, lineAt(k).width()));
    }
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    const double times = std::round(exaggerated_);
    p.drawText(lineAt(lines_.size()), Qt::AlignLeft | Qt::AlignVCenter,
               tr("gaps are drawn %1 times their size; up to %2 is measuring")
                   .arg(QString::number(times), figures_.length({kFairMm})));
}

void VanClosing::mousePressEvent(QMouseEvent* event) {
    for (std::size_t k = 0; k < lines_.size(); ++k)
        if (lineAt(k).contains(event->position())) return emit surfaceWanted(lines_[k].surface);
    QWidget::mousePressEvent(event);
}

} // namespace westrum
