#include "app/drawing/surface_drawing.h"

#include "app/drawing/dimension.h"
#include "app/drawing/theme.h"

namespace westrum {
namespace {

void paintName(QPainter& p, const QPainterPath& path, const std::string& name, const QColor& colour, bool bold) {
    const QString text = QString::fromStdString(name);
    QFont font = textFont(0.82, bold);
    p.setFont(font);
    const QRectF box = path.boundingRect();
    if (QFontMetricsF(font).horizontalAdvance(text) + 6 > box.width() || QFontMetricsF(font).height() > box.height())
        return;
    p.setPen(colour);
    p.drawText(box, Qt::AlignCenter, text);
}

} // namespace

void paintSurfaceParts(QPainter& p, const PlanView& view, const Surface& surface, const SurfaceShape& shape,
                       const SurfaceMarks& marks) {
    const Theme& t = Theme::now();
    p.save();
    if (marks.supports)
        for (const PlacedSupport& u : shape.supports) {
            const bool inHand = u.support == marks.supportInHand;
            const bool batten = u.kind == SupportKind::Batten;
            QColor fill = inHand ? t.chalk : t.raised;
            fill.setAlpha(inHand ? 90 : 150);
            p.setBrush(marks.supportsBehind && !inHand ? Qt::NoBrush : QBrush(fill));
            p.setPen(QPen(inHand ? t.chalk : t.muted, inHand ? 1.6 : 0.8, batten ? Qt::DashLine : Qt::SolidLine));
            p.drawPath(view.path(u.shape));
        }
    if (marks.zones)
        for (const PlacedZone& z : shape.zones) {
            const bool inHand = z.zone == marks.zoneInHand;
            const QPainterPath path = view.path(z.shape);
            // Hidden parts are hatched, what bears something heavy is crossed, cables and pipes run along.
            const ZoneKind kind = surface.zones[static_cast<std::size_t>(z.zone)].kind;
            const Bounds box = boundsOf(z.shape);
            QColor wash = kind == ZoneKind::Hidden ? t.muted : kind == ZoneKind::Heavy ? t.graphite : t.pencil;
            wash.setAlpha(kind == ZoneKind::Hidden ? 70 : 90);
            const Qt::BrushStyle pattern = kind == ZoneKind::Hidden      ? Qt::BDiagPattern
                                           : kind == ZoneKind::Heavy     ? Qt::DiagCrossPattern
                                           : box.width() >= box.height() ? Qt::HorPattern
                                                                         : Qt::VerPattern;
            p.setBrush(QBrush(wash, pattern));
            p.setPen(QPen(inHand                     ? t.chalk
                          : kind == ZoneKind::Wiring ? t.pencil
                                                     : t.muted,
                          inHand ? 2.4 : 1.2, kind == ZoneKind::Heavy ? Qt::SolidLine : Qt::DashDotLine));
            p.drawPath(path);
            if (marks.names)
                paintName(p, path, surface.zones[static_cast<std::size_t>(z.zone)].name, inHand ? t.chalk : t.muted,
                          inHand);
        }
    if (marks.openings)
        for (const PlacedOpening& o : shape.openings) {
            const Opening& opening = surface.openings[static_cast<std::size_t>(o.opening)];
            const bool inHand = o.opening == marks.openingInHand;
            const QPainterPath path = view.path(o.shape);
            QColor ground = t.paper;
            // What is covered first shows through what covers it.
            if (opening.treatment != Treatment::CutBefore) ground.setAlpha(110);
            p.setBrush(ground);
            p.setPen(QPen(inHand ? t.chalk : t.graphite, inHand ? 2.6 : 1.3,
                          opening.treatment == Treatment::CutBefore ? Qt::SolidLine : Qt::DashLine));
            p.drawPath(path);
            if (const auto lid = lidOf(opening, o)) { // what is sawn out lies in it again
                p.setBrush(t.raised);
                p.setPen(QPen(inHand ? t.chalk : t.muted, 1, Qt::DotLine));
                p.drawPath(view.path(lid->shape));
            }
            if (marks.names && !inHand) paintName(p, path, opening.name, t.muted, false);
        }
    if (marks.centreLine && !shape.zones.empty() && shape.visibleCentreY) {
        const Bounds b = boundsOf(shape.visible);
        p.setPen(QPen(t.chalk, 1.2, Qt::DashDotLine));
        p.drawLine(view.map({b.low.x, *shape.visibleCentreY}), view.map({b.high.x, *shape.visibleCentreY}));
        p.drawLine(view.map({*shape.visibleCentreX, b.low.y}), view.map({*shape.visibleCentreX, b.high.y}));
    }
    p.restore();
}

void paintDatum(QPainter& p, const PlanView& view, const DatumLine& line) {
    p.save();
    p.setPen(QPen(Theme::now().chalk, 1.4, Qt::CustomDashLine));
    QPen pen = p.pen();
    pen.setDashPattern({14, 5, 3, 5});
    p.setPen(pen);
    p.drawLine(view.map(line.left), view.map(line.right));
    p.restore();
}

void paintSide(QPainter& p, const PlanView& view, const Ring& side, const QColor& colour, double width) {
    p.save();
    p.setPen(QPen(colour, width, Qt::SolidLine, Qt::RoundCap));
    for (std::size_t i = 1; i < side.size(); ++i) p.drawLine(view.map(side[i - 1]), view.map(side[i]));
    p.restore();
}

} // namespace westrum
