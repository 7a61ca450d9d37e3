#include "app/shellmap/shell_map.h"

#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "core/geometry/polygon.h"

#include <QMouseEvent>
#include <QPainter>

namespace westrum {
namespace {

/// Ghost heights in mm until those surfaces can be measured: a usual panel van.
constexpr double kWallHeight = 1350;
constexpr double kEndWidth = 1350;

} // namespace

ShellMap::ShellMap(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(tr("The unfolded van"));
    connect(&document_, &JobDocument::planComputed, this, qOverload<>(&QWidget::update));
    connect(&document_, &JobDocument::jobReplaced, this, qOverload<>(&QWidget::update));
    connect(&document_, &JobDocument::jobChanged, this, qOverload<>(&QWidget::update));
}

std::vector<ShellMap::Leaf> ShellMap::leaves() const {
    double length = 3600, width = 1800;
    std::string floor;
    const auto plan = document_.plan();
    for (const Surface& s : document_.job().surfaces)
        if (s.kind == SurfaceKind::Floor && floor.empty()) {
            floor = s.id;
            if (const SurfacePlan* p = plan->surface(s.id); p && p->measured.frame) {
                const Bounds b = boundsOf(Ring(p->measured.frame->begin(), p->measured.frame->end()));
                length = b.width();
                width = b.height();
            }
        }
    const double gap = 5;
    const QRectF area = QRectF(rect()).adjusted(20, 44, -16, -16);
    const double tall = width + 2 * kWallHeight + width + kEndWidth;
    const double scale = std::max(1e-6, std::min(area.width() / length, (area.height() - 4 * gap) / tall));
    const double left = area.left() + (area.width() - length * scale) / 2;
    std::vector<Leaf> all;
    double y = area.top();
    const auto add = [&](SurfaceKind kind, double height, const std::string& id) {
        all.push_back({kind, QRectF(left, y, length * scale, height * scale), id});
        y += height * scale + gap;
    };
    add(SurfaceKind::Ceiling, width, {});
    add(SurfaceKind::LeftWall, kWallHeight, {});
    add(SurfaceKind::Floor, width, floor);
    add(SurfaceKind::RightWall, kWallHeight, {});
    const double half = (length * scale - gap) / 2;
    all.push_back({SurfaceKind::RearDoors, QRectF(left, y, half, kEndWidth * scale), {}});
    all.push_back({SurfaceKind::Bulkhead, QRectF(left + half + gap, y, half, kEndWidth * scale), {}});
    return all;
}

void ShellMap::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(textFont(0.9));
    p.setPen(t.muted);
    p.drawText(QRectF(20, 14, width() - 36, 22), Qt::AlignLeft | Qt::AlignVCenter, tr("Unfolded"));
    p.drawText(QRectF(20, 14, width() - 36, 22), Qt::AlignRight | Qt::AlignVCenter, tr("rear → front"));
    const auto plan = document_.plan();
    const Figures figures = figuresFor(document_.job());
    for (const Leaf& leaf : leaves()) {
        const Surface* surface = leaf.surface.empty() ? nullptr : document_.job().surface(leaf.surface);
        const SurfacePlan* planned = surface ? plan->surface(leaf.surface) : nullptr;
        const bool current = surface && leaf.surface == document_.currentSurface();
        if (planned && planned->measured.measured()) {
            const Ring frame(planned->measured.frame->begin(), planned->measured.frame->end());
            const PlanView view(boundsOf(frame), leaf.box);
            const QPainterPath outline = view.path(planned->measured.outline);
            if (planned->setOut.laid())
                paintSetOut(p, view, planned->measured.outline, planned->setOut,
                            document_.job().finish(leaf.surface).product, figures,
                            {.names = false, .offcuts = false, .slivers = false});
            else
                paintMetal(p, outline);
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(current ? t.chalk : t.graphite, current ? 3 : 1.5));
            p.drawPath(outline);
        } else {
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(current ? t.chalk : t.muted, current ? 2 : 1, Qt::DashLine));
            p.drawRect(leaf.box);
        }
        const QString name = surface ? QString::fromStdString(surface->name) : surfaceKindName(leaf.kind);
        p.setFont(textFont(0.85, current));
        const double w = QFontMetricsF(p.font()).horizontalAdvance(name) + 10;
        if (surface)
            paintLabel(p, leaf.box.topLeft() + QPointF(6 + w / 2, 16), name, current ? t.chalk : t.graphite, current);
        else {
            p.setPen(t.muted);
            p.drawText(leaf.box.adjusted(10, 6, -6, -6), Qt::AlignTop | Qt::AlignLeft, name);
        }
        // A pencil mark: a wavy stroke in the corner, with the number of remarks.
        int remarks = 0;
        if (planned)
            for (const Remark& r : planned->remarks)
                if (r.severity != Severity::Note) ++remarks;
        if (remarks > 0) {
            const QPointF at = leaf.box.topRight() + QPointF(-34, 16);
            QPainterPath stroke(at);
            stroke.cubicTo(at + QPointF(6, -8), at + QPointF(12, 8), at + QPointF(18, 0));
            p.setPen(QPen(t.pencil, 2.2));
            p.drawPath(stroke);
            p.setFont(textFont(0.85, true));
            p.drawText(QRectF(at + QPointF(20, -10), QSizeF(16, 20)), Qt::AlignCenter, QString::number(remarks));
        }
    }
    p.setPen(t.faint);
    p.drawLine(width() - 1, 0, width() - 1, height());
}

void ShellMap::mousePressEvent(QMouseEvent* event) {
    for (const Leaf& leaf : leaves())
        if (leaf.box.contains(event->position())) {
            if (leaf.surface.empty())
                emit ghostPressed(leaf.kind);
            else
                emit picked(leaf.surface);
            return;
        }
}

} // namespace westrum
