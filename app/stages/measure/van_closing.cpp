#include "app/stages/measure/van_closing.h"

#include "app/drawing/theme.h"
#include "formats/take_again_words.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr std::size_t kMostLines = 4, kMostCostly = 4;
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

/// A face as it stands: of a flat one its corners as they were found, of a bent one its sides along the bow.
std::vector<VanPoint> faceOf(const Pose& pose, const MeasuredOutline& measured) {
    if (pose.upwards.empty() && pose.lengthways.empty()) return pose.corners;
    constexpr int kStrips = 12;
    std::vector<VanPoint> points;
    for (const Ring& side : measured.sides)
        for (int k = 0; k < kStrips; ++k)
            points.push_back(
                pose.map(side.front() + (side.back() - side.front()) * (static_cast<double>(k) / kStrips)));
    return points;
}

} // namespace

VanClosing::VanClosing(QWidget* parent)
    : QWidget(parent),
      again_(new QPushButton(tr("What to measure again"), this)),
      worker_(this, [this](const std::shared_ptr<const Job>& job, const auto& turn) {
          std::vector<CostlyReading> found = costlyReadings(*job, turn.stop, [&](double share) {
              turn.tell([this, share] {
                  share_ = share;
                  tell();
              });
          });
          turn.tell([this, found = std::move(found)] {
              costly_ = found;
              tell();
          });
      }) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setAccessibleName(tr("How the van closes"));
    again_->setObjectName(QStringLiteral("measureAgain"));
    again_->setToolTip(tr("Tries every reading a few millimetres longer and shorter: which would cost most?"));
    connect(again_, &QPushButton::clicked, this, [this] {
        const bool underWay = askedFor_ && !costly_;
        costly_.reset();
        share_ = 0;
        if (underWay) {
            worker_.stop();
            askedFor_.reset();
        } else {
            askedFor_ = job_;
            worker_.ask(job_);
        }
        tell();
    });
}

void VanClosing::showClosing(const Job& job, const Plan& plan, const Figures& figures) {
    if (job_ && *job_ == job && fold_ == plan.fold && figures_.unit == figures.unit) return;
    job_ = std::make_shared<const Job>(job);
    if (askedFor_ && *askedFor_ != *job_) { // what was tried was another job
        worker_.stop();
        askedFor_.reset();
        costly_.reset();
    }
    fold_ = plan.fold;
    faces_.clear();
    for (std::size_t i = 0; i < fold_.poses.size() && i < plan.surfaces.size(); ++i)
        if (fold_.poses[i]) faces_.push_back(faceOf(*fold_.poses[i], plan.surfaces[i].measured));
    figures_ = figures;
    gaps_.clear();
    for (const TiedCorner& c : fold_.corners) {
        if (gaps_.size() >= kMostLines) break;
        // Sides that meet run against each other: the start of one lies at the end of the other.
        const QString mine = cornerName(plan, c.surface, c.side + (c.atStart ? 0 : 1));
        const QString theirs = cornerName(plan, c.other, c.otherSide + (c.atStart ? 1 : 0));
        gaps_.push_back(
            {c.surface,
             tr("%1, corner %2, and %3, corner %4: %5 apart")
                 .arg(nameOf(job, c.surface), mine, nameOf(job, c.other), theirs, figures.fineLength(c.gap)),
             {},
             c.gap.value > kFairMm});
    }
    tell();
}

/// The gaps, then what was found to measure again.
void VanClosing::tell() {
    lines_ = gaps_;
    said_.clear();
    if (costly_) {
        for (const CostlyReading& c : *costly_) {
            if (lines_.size() >= gaps_.size() + kMostCostly) break;
            lines_.push_back({c.surface, takeAgainSentence(*job_, c, figures_), QString::fromStdString(c.key), true});
        }
        if (costly_->empty()) said_ = tr("No reading would cost anything if it were 4 mm off.");
    } else if (askedFor_) {
        said_ = tr("Trying every reading 4 mm longer and shorter: %1 of the van").arg(figures_.percent(share_));
    }
    again_->setText(askedFor_ && !costly_ ? tr("Stop trying") : tr("What to measure again"));
    again_->adjustSize();
    again_->move(lineAt(gaps_.size()).bottomLeft().toPoint() + QPoint(0, 6));
    update();
}

/// The words stand beside the drawing.
double VanClosing::pictureWidth() const { return std::max(260.0, width() * 0.52); }

QRectF VanClosing::lineAt(std::size_t k) const {
    const double high = QFontMetricsF(textFont()).height() + 4, left = pictureWidth() + 24;
    // Behind the gaps stand the note on them and the button; sentences of readings take two lines.
    const std::size_t gaps = gaps_.size();
    if (k <= gaps) return {left, 30 + high * static_cast<double>(k), std::max(100.0, width() - left), high};
    const double below = 30 + high * static_cast<double>(gaps + 1) + again_->height() + 14;
    return {left, below + 2 * high * static_cast<double>(k - gaps - 1), std::max(100.0, width() - left), 2 * high};
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
    for (const std::vector<VanPoint>& points : faces_)
        for (const VanPoint& c : points) {
            const QPointF at = onPicture(c);
            all = all.isNull() ? QRectF(at, QSizeF(1e-3, 1e-3)) : all.united(QRectF(at, QSizeF(1e-3, 1e-3)));
        }
    if (all.isNull()) return;
    const QRectF box(8, 8, pictureWidth() - 16, height() - 16);
    scale_ = std::min(box.width() / all.width(), box.height() / all.height());
    origin_ = box.center() - all.center() * scale_;
    for (const std::vector<VanPoint>& points : faces_) {
        QPolygonF face;
        for (const VanPoint& c : points) face << onPicture(c);
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
        p.setPen(QPen(bad ? t.pencil : t.agreed, k < gaps_.size() ? 3 : 2));
        p.drawLine(at - half, at + half);
        p.setBrush(bad ? t.pencil : t.agreed);
        p.setPen(Qt::NoPen);
        p.drawEllipse(at - half, 2.5, 2.5);
        p.drawEllipse(at + half, 2.5, 2.5);
    }
    const std::size_t gaps = gaps_.size();
    for (std::size_t k = 0; k < lines_.size(); ++k) {
        p.setFont(textFont(0.95));
        p.setPen(lines_[k].bad ? t.pencil : t.graphite);
        if (k < gaps)
            p.drawText(lineAt(k), Qt::AlignLeft | Qt::AlignVCenter,
                       QFontMetricsF(p.font()).elidedText(lines_[k].text, Qt::ElideRight, lineAt(k).width()));
        else
            p.drawText(lineAt(k + 1), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, lines_[k].text);
    }
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    const double times = std::round(exaggerated_);
    p.drawText(lineAt(gaps), Qt::AlignLeft | Qt::AlignVCenter,
               tr("gaps are drawn %1 times their size; up to %2 is measuring")
                   .arg(QString::number(times), figures_.length({kFairMm})));
    p.drawText(lineAt(gaps + 1), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, said_);
}

void VanClosing::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    again_->adjustSize();
    again_->move(lineAt(gaps_.size()).bottomLeft().toPoint() + QPoint(0, 6));
}

void VanClosing::mousePressEvent(QMouseEvent* event) {
    for (std::size_t k = 0; k < lines_.size(); ++k)
        if (lineAt(k < gaps_.size() ? k : k + 1).contains(event->position()))
            return emit surfaceWanted(lines_[k].surface, lines_[k].key);
    QWidget::mousePressEvent(event);
}

} // namespace westrum
