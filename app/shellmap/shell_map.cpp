#include "app/shellmap/shell_map.h"

#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "app/drawing/trim_drawing.h"
#include "core/plan/standing.h"
#include "core/units/unfinished.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kHead = 40; ///< pixels above the map

} // namespace

ShellMap::ShellMap(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(tr("The unfolded van"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    rest_.setSingleShot(true);
    rest_.setInterval(120);
    connect(&rest_, &QTimer::timeout, this, [this] {
        stale_ = true;
        update();
    });
    connect(&document_, &JobDocument::planComputed, this, &ShellMap::changed);
    connect(&document_, &JobDocument::jobReplaced, this, [this] {
        showAll();
        changed();
    });
    connect(&document_, &JobDocument::jobChanged, this, [this](JobPart part) {
        if (part != JobPart::Log) changed();
    });
    connect(&document_, &JobDocument::currentSurfaceChanged, this, &ShellMap::changed);
    changed();
}

void ShellMap::changed() {
    layOut();
    stale_ = true;
    update();
}

void ShellMap::layOut() {
    static const MeasuredOutline none;
    std::vector<Flap> flaps;
    const auto plan = document_.plan();
    for (const Surface& s : document_.job().surfaces) {
        const SurfacePlan* p = plan->surface(s.id);
        flaps.push_back(
            p ? flapOf(s, p->measured, standingPose(*plan, static_cast<std::size_t>(p - plan->surfaces.data())))
              : flapOf(s, none));
    }
    leaves_.clear();
    bounds_ = {};
    if (flaps.empty()) return;
    const std::vector<Unfolded> places =
        unfold(flaps, std::max(60.0, width() - 36.0) / std::max(60.0, height() - kHead - 14));
    bounds_ = extentOf(flaps, places);
    for (std::size_t i = 0; i < flaps.size(); ++i) {
        Ring ring;
        for (Point p : flaps[i].frame) ring.push_back(places[i].map(p));
        flaps[i].pose = nullptr; // the plan that it is of may go
        leaves_.push_back({flaps[i], places[i], std::move(ring)});
    }
}

PlanView ShellMap::view() const {
    QRectF area = QRectF(rect()).adjusted(20, kHead, -16, -14);
    area = QRectF(area.center() - QPointF(area.width(), area.height()) * (zoom_ / 2), area.size() * zoom_);
    return {bounds_, area.translated(pan_)};
}

QPointF ShellMap::middleOf(const std::string& surface) const {
    for (const Leaf& l : leaves_)
        if (l.flap.id == surface) {
            const Bounds b = boundsOf(l.onMap);
            return view().map((b.low + b.high) * 0.5);
        }
    return {};
}

std::string ShellMap::surfaceAt(QPointF at) const {
    const Point p = view().unmap(at);
    for (const Leaf& l : leaves_)
        if (contains({{l.onMap}}, p)) return l.flap.id;
    return {};
}

ShellMap::SideAt ShellMap::sideAt(QPointF at) const {
    const PlanView v = view();
    const Point p = v.unmap(at);
    SideAt found;
    double best = 18 / v.scale();
    for (const Leaf& l : leaves_) {
        const bool inside = contains({{l.onMap}}, p);
        for (std::size_t side = 0; side < l.flap.sides.size(); ++side) {
            const Ring& line = l.flap.sides[side];
            for (std::size_t i = 1; i < line.size(); ++i) {
                const Point a = l.place.map(line[i - 1]), b = l.place.map(line[i]);
                const Point ab = b - a;
                const double t = std::clamp(dot(p - a, ab) / std::max(1e-9, dot(ab, ab)), 0.0, 1.0);
                // The side of the surface under the pointer goes before its neighbour's.
                const double d = distance(p, a + ab * t) + (inside ? 0 : 4 / v.scale());
                if (d < best) {
                    best = d;
                    found = {l.flap.id, static_cast<int>(side)};
                }
            }
        }
    }
    return found;
}

void ShellMap::paintLeaf(QPainter& p, const PlanView& v, const Leaf& leaf, bool current) const {
    const Theme& t = Theme::now();
    const Surface* surface = document_.job().surface(leaf.flap.id);
    const SurfacePlan* planned = document_.plan()->surface(leaf.flap.id);
    if (!surface) return;
    p.save();
    p.translate(v.map(leaf.place.shift));
    p.rotate(-leaf.place.angleRad * 180 / std::numbers::pi);
    const PlanView own = PlanView::scaled(v.scale());
    if (planned && planned->measured.measured()) {
        const QPainterPath outline = own.path(planned->measured.outline);
        if (planned->setOut().laid())
            paintSetOut(p, own, planned->measured.outline, planned->setOut(), document_.job().faceProduct(leaf.flap.id),
                        figuresFor(document_.job()), {.names = false, .offcuts = false, .slivers = false});
        else
            paintMetal(p, outline);
        paintSurfaceParts(p, own, *surface, planned->shape, {.supports = !planned->setOut().laid(), .names = false});
        paintTrims(p, own, document_.job(), *document_.plan(), leaf.flap.id, {.leastWidth = 1.5});
        if (planned->datum) paintDatum(p, own, *planned->datum);
        p.setBrush(Qt::NoBrush);
        // As it was measured in an earlier body: its edge is not drawn through.
        p.setPen(
            QPen(current ? t.chalk : t.graphite, current ? 3 : 1.3, surface->before ? Qt::DashDotLine : Qt::SolidLine));
        p.drawPath(outline);
    } else {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(current ? t.chalk : t.muted, current ? 2 : 1, Qt::DashLine));
        p.drawPath(own.path(leaf.flap.frame));
    }
    p.restore();
}

void ShellMap::paintLabelOf(QPainter& p, const PlanView& v, const Leaf& leaf, bool current) const {
    const Theme& t = Theme::now();
    const Surface* surface = document_.job().surface(leaf.flap.id);
    const SurfacePlan* planned = document_.plan()->surface(leaf.flap.id);
    if (!surface) return;
    const Bounds b = boundsOf(leaf.onMap);
    const QRectF box(v.map({b.low.x, b.high.y}), v.map({b.high.x, b.low.y}));
    const bool measured = planned && planned->measured.measured();
    QString name = QString::fromStdString(surface->name);
    const QFont font = textFont(0.85, current);
    const QFontMetricsF metrics(font);
    const double room = box.width() - 6;
    // Half a name tells nothing: the pointer tells the whole one.
    if (metrics.horizontalAdvance(name) + 10 > room)
        name = room > 78 ? metrics.elidedText(name, Qt::ElideRight, room - 10) : QString();
    const double w = metrics.horizontalAdvance(name) + 10;
    if (!name.isEmpty() && box.height() > metrics.height() + 2) {
        const QPointF at(box.left() + 4 + w / 2, box.top() + 4 + metrics.height() / 2);
        if (measured) {
            paintLabel(p, at, name, current ? t.chalk : t.graphite, current);
        } else {
            p.setFont(font);
            p.setPen(current ? t.chalk : t.muted);
            p.drawText(QRectF(at - QPointF(w / 2 - 5, metrics.height() / 2), QSizeF(w, metrics.height())),
                       Qt::AlignLeft | Qt::AlignVCenter, name);
        }
    }
    // A pencil mark: a wavy stroke in the corner, with the number of remarks.
    int remarks = 0;
    if (planned)
        for (const Remark& r : planned->remarks)
            if (r.severity != Severity::Note && !isUnfinished(r.kind)) ++remarks;
    if (remarks == 0) return;
    const QPointF at = box.topRight() + QPointF(-std::min(30.0, box.width() / 2), std::min(16.0, box.height() / 2));
    QPainterPath stroke(at + QPointF(-14, 6));
    stroke.cubicTo(at + QPointF(-8, -4), at + QPointF(-2, 12), at + QPointF(6, 2));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.pencil, 2.2, Qt::SolidLine, Qt::RoundCap));
    p.drawPath(stroke);
    paintLabel(p, at + QPointF(16, 0), QString::number(remarks), t.pencil, true);
}

void ShellMap::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    const PlanView v = view();
    const double ratio = devicePixelRatioF();
    // While it is dragged or zoomed the picture moves as it is; it is painted anew when it comes to rest.
    if (stale_ || drawn_.size() != size() * ratio) {
        drawn_ = QPixmap(size() * ratio);
        drawn_.setDevicePixelRatio(ratio);
        drawn_.fill(Qt::transparent);
        QPainter p(&drawn_);
        p.setRenderHint(QPainter::Antialiasing);
        const Leaf* current = nullptr;
        const QRectF seen(rect());
        std::vector<const Leaf*> shown;
        for (const Leaf& leaf : leaves_) {
            const Bounds b = boundsOf(leaf.onMap);
            if (!QRectF(v.map({b.low.x, b.high.y}), v.map({b.high.x, b.low.y})).intersects(seen)) continue;
            if (leaf.flap.id == document_.currentSurface())
                current = &leaf;
            else
                paintLeaf(p, v, leaf, false);
            shown.push_back(&leaf);
        }
        if (current) paintLeaf(p, v, *current, true);
        for (const Leaf* leaf : shown) paintLabelOf(p, v, *leaf, leaf == current);
        drawnView_ = v;
        stale_ = false;
    }
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double grown = v.scale() / drawnView_.scale();
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.translate(v.map(Point{}) - drawnView_.map(Point{}) * grown);
    p.scale(grown, grown);
    p.drawPixmap(QPointF(0, 0), drawn_);
    p.restore();
    paintShades(p, v);
    for (const Leaf& leaf : leaves_) {
        if (leaf.flap.id != glowing_ || glowing_.empty()) continue;
        QPainterPath lit;
        lit.setFillRule(Qt::OddEvenFill);
        const std::vector<Ring> whole{leaf.flap.frame};
        for (const Ring& ring : glowPart_.empty() ? whole : glowPart_.rings) {
            Ring onMap;
            for (Point q : ring) onMap.push_back(leaf.place.map(q));
            lit.addPath(v.path(onMap));
        }
        QColor wash = t.chalk;
        wash.setAlpha(110);
        p.setPen(QPen(t.chalk, 3));
        p.setBrush(wash);
        p.drawPath(lit);
    }
    p.fillRect(QRectF(0, 0, width(), kHead - 8), t.paper);
    p.setFont(textFont(0.9));
    p.setPen(isPointing() ? t.chalk : t.muted);
    const QRectF head(20, 12, width() - 36, 22);
    p.drawText(head, Qt::AlignLeft | Qt::AlignVCenter, isPointing() ? why_ : tr("Unfolded"));
    if (!isPointing())
        p.drawText(head, Qt::AlignRight | Qt::AlignVCenter,
                   enlarged_ ? tr("press twice to go back") : tr("rear → front"));
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(3, 3, -4, -4));
    }
    if (isPointing())
        for (const Leaf& leaf : leaves_)
            if (leaf.flap.id == hovered_.surface && hovered_.side >= 0 &&
                static_cast<std::size_t>(hovered_.side) < leaf.flap.sides.size()) {
                Ring line;
                for (Point q : leaf.flap.sides[static_cast<std::size_t>(hovered_.side)])
                    line.push_back(leaf.place.map(q));
                paintSide(p, v, line, t.chalk, 5);
            }
}

void ShellMap::pointAtSide(const QString& why) {
    why_ = why;
    hovered_ = {};
    setCursor(Qt::CrossCursor);
    update();
}

void ShellMap::zoomBy(double factor, QPointF around) {
    const double next = std::clamp(zoom_ * factor, 1.0, 30.0);
    const Point fixed = view().unmap(around);
    zoom_ = next;
    pan_ += around - view().map(fixed);
    if (zoom_ == 1.0) pan_ = {};
    rest_.start();
    update();
}

void ShellMap::showAll() {
    zoom_ = 1;
    pan_ = {};
    stale_ = true;
    update();
}

void ShellMap::setEnlarged(bool enlarged) {
    enlarged_ = enlarged;
    showAll();
}

void ShellMap::mousePressEvent(QMouseEvent* event) {
    pressedAt_ = event->position();
    panAtPress_ = pan_;
}

void ShellMap::mouseMoveEvent(QMouseEvent* event) {
    if (isPointing()) {
        const SideAt at = sideAt(event->position());
        if (at.surface != hovered_.surface || at.side != hovered_.side) {
            hovered_ = at;
            update();
        }
        return;
    }
    if (event->buttons() == Qt::NoButton) {
        const Point onMap = view().unmap(event->position());
        for (const Leaf& l : leaves_)
            if (contains({{l.onMap}}, onMap)) return emit pointedAt(l.flap.id, l.place.unmap(onMap));
        return emit pointedAt({}, {});
    }
    const QPointF moved = event->position() - pressedAt_;
    if (!panning_ && std::hypot(moved.x(), moved.y()) < 6) return;
    panning_ = true;
    pan_ = panAtPress_ + moved;
    update();
}

void ShellMap::leaveEvent(QEvent*) { emit pointedAt({}, {}); }

void ShellMap::shade(std::vector<Shade> shades) {
    if (shades == shades_) return;
    shades_ = std::move(shades);
    update();
}

void ShellMap::paintShades(QPainter& p, const PlanView& v) const {
    if (shades_.empty()) return;
    const Theme& t = Theme::now();
    p.setFont(textFont(0.78, true));
    const QFontMetricsF metrics(p.font());
    for (const Leaf& leaf : leaves_) {
        const auto own =
            std::find_if(shades_.begin(), shades_.end(), [&](const Shade& s) { return s.surface == leaf.flap.id; });
        const QPainterPath shape = v.path(leaf.onMap);
        // What has no share steps back; what has one is the darker the more it is.
        QColor wash = own == shades_.end() ? t.paper : t.chalk;
        wash.setAlpha(own == shades_.end() ? 170 : static_cast<int>(50 + 150 * std::clamp(own->share, 0.0, 1.0)));
        p.setPen(Qt::NoPen);
        p.setBrush(wash);
        p.drawPath(shape);
        if (own == shades_.end() || own->text.isEmpty()) continue;
        QRectF label(0, 0, metrics.horizontalAdvance(own->text) + 8, metrics.height());
        const QRectF box = shape.boundingRect();
        if (label.width() > box.width() + 14 || label.height() > box.height() + 6) continue;
        label.moveCenter(box.center());
        p.setBrush(t.raised);
        p.setPen(Qt::NoPen);
        p.drawRoundedRect(label, 3, 3);
        p.setPen(t.graphite);
        p.drawText(label, Qt::AlignCenter, own->text);
    }
}

void ShellMap::glow(const std::string& surface, const Region& part) {
    if (surface == glowing_ && part == glowPart_) return;
    glowing_ = surface;
    glowPart_ = part;
    update();
}

void ShellMap::mouseReleaseEvent(QMouseEvent* event) {
    if (panning_) {
        panning_ = false;
        stale_ = true;
        update();
        return;
    }
    if (isPointing()) {
        const SideAt at = sideAt(event->position());
        if (at.side < 0) return;
        why_.clear();
        unsetCursor();
        update();
        emit sidePicked(at.surface, at.side);
        return;
    }
    if (const std::string id = surfaceAt(event->position()); !id.empty()) emit picked(id);
}

void ShellMap::mouseDoubleClickEvent(QMouseEvent*) { emit enlargeWanted(); }

void ShellMap::wheelEvent(QWheelEvent* event) {
    zoomBy(std::pow(1.0015, event->angleDelta().y()), event->position());
    event->accept();
}

void ShellMap::goTowards(int key) {
    const std::string& now = document_.currentSurface();
    const QPointF from = middleOf(now);
    const QPointF direction = key == Qt::Key_Left    ? QPointF(-1, 0)
                              : key == Qt::Key_Right ? QPointF(1, 0)
                              : key == Qt::Key_Up    ? QPointF(0, -1)
                                                     : QPointF(0, 1);
    std::string best;
    double least = 1e12;
    for (const Leaf& l : leaves_) {
        if (l.flap.id == now) continue;
        const QPointF d = middleOf(l.flap.id) - from;
        const double ahead = QPointF::dotProduct(d, direction);
        if (ahead <= 1) continue;
        const double aside = std::abs(d.x() * direction.y() - d.y() * direction.x());
        const double cost = ahead + 2 * aside;
        if (cost < least) {
            least = cost;
            best = l.flap.id;
        }
    }
    if (!best.empty()) emit picked(best);
}

void ShellMap::keyPressEvent(QKeyEvent* event) {
    const QPointF middle = QRectF(rect()).center();
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
    case Qt::Key_Up:
    case Qt::Key_Down: return goTowards(event->key());
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoomBy(1.25, middle);
    case Qt::Key_Minus: return zoomBy(0.8, middle);
    case Qt::Key_0: return showAll();
    case Qt::Key_Return:
    case Qt::Key_Enter: emit enlargeWanted(); return;
    case Qt::Key_Escape:
        if (isPointing()) {
            why_.clear();
            unsetCursor();
            update();
            return;
        }
        break;
    default: break;
    }
    QWidget::keyPressEvent(event);
}

void ShellMap::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    changed();
}

bool ShellMap::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const Surface* s = document_.job().surface(surfaceAt(QPointF(help->pos())));
        QToolTip::showText(help->globalPos(), s ? QString::fromStdString(s->name) : QString(), this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace westrum
