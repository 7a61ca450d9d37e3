#include "app/stages/log/photograph_pane.h"

#include "app/document/record_commands.h"
#include "app/drawing/base_drawing.h"
#include "app/drawing/plan_view.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "app/widgets/photograph.h"
#include "core/geometry/homography.h"

#include <QDir>
#include <QFileInfo>
#include <QMouseEvent>
#include <QPainter>

#include <array>

namespace westrum {

QString photographPath(const JobDocument& document, const RecordEntry& entry) {
    const QString named = QString::fromStdString(entry.text);
    if (QDir::isAbsolutePath(named) || document.path().isEmpty()) return named;
    return QFileInfo(document.path()).dir().filePath(named);
}

PhotographPane::PhotographPane(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("photograph"));
    setAccessibleName(tr("The photograph in hand"));
    setMinimumSize(260, 200);
}

const Surface* PhotographPane::surface() const { return entry_ ? document_.job().surface(entry_->surface) : nullptr; }

void PhotographPane::show(const RecordEntry* entry, const Figures& figures) {
    figures_ = figures;
    const QString path = entry ? photographPath(document_, *entry) : QString();
    if (path != path_) {
        why_.clear();
        picture_ = entry ? readPhotograph(path, why_, 1600) : QImage();
        path_ = path;
        laying_ = false;
    }
    entry_ = entry ? std::optional(*entry) : std::nullopt;
    update();
}

void PhotographPane::beginLaying() {
    const Surface* s = surface();
    if (picture_.isNull()) return emit said(tr("There is no picture to lay."), true);
    if (!s || !outlineOf(s->measurement).measured())
        return emit said(tr("The surface that it is of is not measured: nothing to lay it over."), true);
    laying_ = true;
    pressed_.clear();
    emit said(
        tr("Press in the picture the lower left corner of the surface, then lower right, upper right, upper left."),
        false);
    update();
}

QRectF PhotographPane::pictureBox() const {
    const QSizeF size = QSizeF(picture_.size()).scaled(QSizeF(width() - 12, height() - 12), Qt::KeepAspectRatio);
    return {QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size};
}

QPointF PhotographPane::onPane(QPointF share) const {
    const QRectF box = pictureBox();
    return {box.left() + share.x() * box.width(), box.top() + share.y() * box.height()};
}

void PhotographPane::mousePressEvent(QMouseEvent* event) {
    if (!laying_ || picture_.isNull()) return;
    const QRectF box = pictureBox();
    const QPointF at = event->position() - box.topLeft();
    pressed_.push_back({at.x() / box.width() * picture_.width(), (1 - at.y() / box.height()) * picture_.height()});
    if (pressed_.size() == 4) lay();
    update();
}

/// The four corners pressed say where the picture's own corners lie on the surface.
void PhotographPane::lay() {
    laying_ = false;
    const Surface* s = surface();
    if (!s || !entry_) return;
    const Bounds b = boundsOf(outlineOf(s->measurement).outline);
    const std::array<Point, 4> known{b.low, Point{b.high.x, b.low.y}, b.high, Point{b.low.x, b.high.y}};
    std::vector<PointPair> pairs;
    for (std::size_t i = 0; i < 4; ++i) pairs.push_back({pressed_[i], known[i]});
    const auto toSurface = homographyOf(pairs);
    const double w = picture_.width(), h = picture_.height();
    RecordEntry laid = *entry_;
    laid.laid.clear();
    for (const Point& corner : {Point{0, 0}, Point{w, 0}, Point{w, h}, Point{0, h}})
        if (const auto at = toSurface ? toSurface->map(corner) : std::nullopt;
            at && std::abs(at->x) < 1e5 && std::abs(at->y) < 1e5)
            laid.laid.push_back(*at);
    if (laid.laid.size() != 4)
        return emit said(
            tr("These four are no corners of a rectangle seen from the front: press them again, in order."), true);
    push(document_, correctEntry(document_, std::move(laid)));
    emit said(tr("Laid over what is behind the surface. One step back takes it off."), false);
}

void PhotographPane::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    if (!entry_) return;
    if (picture_.isNull()) {
        p.setFont(textFont(1.0));
        p.setPen(t.pencil);
        p.drawText(rect().adjusted(12, 12, -12, -12), Qt::AlignCenter | Qt::TextWordWrap, why_);
        return;
    }
    const Surface* s = surface();
    const SurfacePlan* plan = s ? document_.plan()->surface(s->id) : nullptr;
    if (laying_ || entry_->laid.size() != 4 || !plan || !plan->measured.measured()) {
        p.drawImage(pictureBox(), picture_);
        p.setPen(QPen(t.chalk, 2.4));
        p.setBrush(Qt::NoBrush);
        for (const Point& at : pressed_)
            if (laying_) p.drawEllipse(onPane({at.x / picture_.width(), 1 - at.y / picture_.height()}), 7, 7);
        return;
    }
    const PlanView view(boundsOf(plan->measured.outline), QRectF(rect()).adjusted(14, 14, -14, -14));
    QPolygonF from, to;
    const double w = picture_.width(), h = picture_.height();
    from << QPointF(0, h) << QPointF(w, h) << QPointF(w, 0) << QPointF(0, 0);
    for (const Point& corner : entry_->laid) to << view.map(corner);
    QTransform warp;
    p.save();
    p.setClipRect(rect());
    if (QTransform::quadToQuad(from, to, warp)) {
        p.setTransform(warp, true);
        p.setOpacity(0.6);
        p.drawImage(0, 0, picture_);
    }
    p.restore();
    p.setPen(QPen(t.graphite, 1.6));
    p.setBrush(Qt::NoBrush);
    p.drawPath(view.path(plan->measured.outline));
    paintHolders(p, view, plan->shape, *s);
    paintSurfaceParts(p, view, *s, plan->shape, {.names = true});
}

} // namespace westrum
