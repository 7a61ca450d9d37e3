#include "app/drawing/base_drawing.h"

#include "app/drawing/dimension.h"
#include "app/drawing/theme.h"
#include "formats/base_words.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {

void paintFixing(QPainter& p, QPointF at, const Fixing& f, bool faint) {
    const Theme& t = Theme::now();
    QColor ink = f.place.holds ? t.graphite : t.pencil;
    if (faint) ink.setAlpha(90);
    p.setPen(QPen(ink, 1.6));
    p.setBrush(Qt::NoBrush);
    if (!f.place.holds) { // nothing behind it
        p.drawLine(at + QPointF(-3.5, -3.5), at + QPointF(3.5, 3.5));
        p.drawLine(at + QPointF(-3.5, 3.5), at + QPointF(3.5, -3.5));
        return;
    }
    switch (f.by) {
    case FixedWith::RivetNuts:
    case FixedWith::ExpandingNuts:
        p.setBrush(t.paper);
        p.drawEllipse(at, 4.5, 4.5);
        p.setBrush(ink);
        p.drawEllipse(at, 1.4, 1.4);
        break;
    case FixedWith::PanelClips:
        p.setBrush(t.paper);
        p.drawRect(QRectF(at - QPointF(3.6, 3.6), QSizeF(7.2, 7.2)));
        break;
    case FixedWith::HookAndLoop:
        p.drawLine(at + QPointF(-5, -2), at + QPointF(5, -2));
        p.drawLine(at + QPointF(-5, 2), at + QPointF(5, 2));
        break;
    default:
        p.setBrush(ink);
        p.drawEllipse(at, f.cup ? 3.6 : 2.6, f.cup ? 3.6 : 2.6);
        break;
    }
    if (f.place.bodyHole) { // a hole that is there
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(faint ? t.muted : t.agreed, 1.8));
        p.drawEllipse(at, 7, 7);
    }
}

void paintFixings(QPainter& p, const PlanView& v, const LayerPlan& layer, int piece) {
    for (const Fixing& f : layer.fixings) paintFixing(p, v.map(f.place.at), f, piece >= 0 && f.piece != piece);
}

void paintHolders(QPainter& p, const PlanView& v, const SurfaceShape& shape, const Surface& surface) {
    const Theme& t = Theme::now();
    for (const PlacedSupport& s : shape.supports) {
        if (s.shape.empty()) continue;
        QColor fill = s.kind == SupportKind::Batten ? t.ruleLight : t.metal;
        fill.setAlpha(150);
        p.setBrush(fill);
        p.setPen(QPen(t.muted, 0.8, s.kind == SupportKind::Batten ? Qt::SolidLine : Qt::DashLine));
        p.drawPath(v.path(s.shape));
        if (s.support >= static_cast<int>(surface.supports.size())) continue;
        const Bounds b = boundsOf(s.shape);
        p.setBrush(t.paper);
        p.setPen(QPen(t.muted, 1));
        for (const double at : bodyHolesAlong(surface.supports[static_cast<std::size_t>(s.support)], s,
                                              s.along ? b.low.x : b.low.y, s.along ? b.high.x : b.high.y))
            p.drawEllipse(v.map(s.along ? Point{at, s.centre} : Point{s.centre, at}), 2.2, 2.2);
    }
}

void paintPackers(QPainter& p, const PlanView& v, const PackedBattens& packed, int inHand, const Figures& figures) {
    const Theme& t = Theme::now();
    p.setFont(textFont(0.75, true));
    for (std::size_t i = 0; i < packed.crossings.size(); ++i) {
        const auto& c = packed.crossings[i];
        const bool held = static_cast<int>(i) == inHand;
        const QString text = !c.height                ? QStringLiteral("?")
                             : c.stack.pieces.empty() ? QStringLiteral("–")
                                                      : packerText(c.stack, figures);
        const QColor ink = !c.height || std::abs(c.off().value) > 1 ? t.pencil : t.graphite;
        const QPointF at = v.map(c.at);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 10;
        const QRectF box(at.x() - w / 2, at.y() - 10, w, 20);
        p.setBrush(held ? t.chalk : t.paper);
        p.setPen(QPen(held ? t.chalk : ink, held ? 2 : 1));
        p.drawRoundedRect(box, 3, 3);
        p.setPen(held ? t.paper : ink);
        p.drawText(box, Qt::AlignCenter, text);
    }
}

void paintDistances(QPainter& p, const PlanView& v, std::span<const OpeningDistance> distances,
                    const Figures& figures) {
    const Theme& t = Theme::now();
    for (const OpeningDistance& d : distances) {
        if (d.to == OpeningDistance::To::Support && !d.tooNear()) continue;
        paintDimension(p, v.map(d.from), v.map(d.at), figures.fineLength(d.length, false),
                       d.tooNear() ? t.pencil : t.chalk, true);
    }
}

} // namespace westrum
