#include "app/stages/setout/set_out_bench.h"

#include "app/drawing/dimension.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

void paintGrip(QPainter& p, QPointF at, bool upDown, bool focus) {
    const Theme& t = Theme::now();
    p.setPen(QPen(t.chalk, 2));
    p.setBrush(focus ? t.chalk : t.paper);
    p.drawEllipse(at, 9, 9);
    p.setPen(QPen(focus ? t.paper : t.chalk, 1.6));
    for (const double d : {-2.5, 2.5})
        if (upDown)
            p.drawLine(at + QPointF(-4, d), at + QPointF(4, d));
        else
            p.drawLine(at + QPointF(d, -4), at + QPointF(d, 4));
}

/// Words beside a grip, to its right or, where there is no room, to its left.
void paintBeside(QPainter& p, QPointF handle, const QString& text, const QColor& ink, double away = 18) {
    p.setFont(textFont(0.8, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
    paintLabel(p, handle + QPointF(away > 0 ? away + w / 2 : away - w / 2, 0), text, ink, true);
}

} // namespace

void SetOutBench::paintEdges(QPainter& p, const SurfacePlan& plan, const SetOut& s, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Bounds b = boundsOf(plan.measured.outline);
    const double third = product() ? rowModuleOf(*product()).value / 3 : 0;
    const auto upright = [&](double low, double high, Mm width, bool fair) {
        paintDimension(p, v.map({b.low.x, low}) + QPointF(-34, 0), v.map({b.low.x, high}) + QPointF(-34, 0),
                       f.fineLength(width, false), fair ? t.graphite : t.pencil, true);
    };
    const auto level = [&](double low, double high, Mm width, bool fair) {
        paintDimension(p, v.map({low, b.low.y}) + QPointF(0, 34), v.map({high, b.low.y}) + QPointF(0, 34),
                       f.fineLength(width, false), fair ? t.graphite : t.pencil, true);
    };
    if (s.module > 0) {
        const Bounds n = boundsOf(s.net);
        const double low = s.rowsAcross ? n.low.x : n.low.y, high = s.rowsAcross ? n.high.x : n.high.y;
        const auto edge = [&](const Row& row, Mm width) {
            const bool fair = width.value >= third - 1e-6;
            const double from = std::max(row.low, low), to = std::min(row.high, high);
            if (s.rowsAcross)
                level(from, to, width, fair);
            else
                upright(from, to, width, fair);
        };
        edge(s.rows.front(), s.firstRow);
        if (s.rows.size() > 1) edge(s.rows.back(), s.lastRow);
        if (s.startColumn) {
            level(n.low.x, n.low.x + s.firstColumn.value, s.firstColumn, s.firstColumn.value >= third - 1e-6);
            level(n.high.x - s.lastColumn.value, n.high.x, s.lastColumn, s.lastColumn.value >= third - 1e-6);
        }
    } else if (const Family* lies = family(); lies && lies->laid.seams) {
        // Each strip as it is cut, across the pile.
        const bool levelSeams = s.pile && std::abs(s.pile->x) > 0.5; // seams run along the pile
        for (const Piece& piece : s.pieces) {
            if (piece.shape.empty()) continue;
            const Bounds c = boundsOf(piece.cut);
            const int n = static_cast<int>(&piece - s.pieces.data());
            const double step = 15.0 * (n % 2);
            if (levelSeams)
                paintDimension(p, QPointF(v.map({b.low.x, 0}).x() - 44 + step, v.map(c.low).y()),
                               QPointF(v.map({b.low.x, 0}).x() - 44 + step, v.map(c.high).y()),
                               f.length({c.height()}, false), t.graphite, true);
            else
                paintDimension(p, QPointF(v.map(c.low).x(), v.map(b.low).y() + 26 + step),
                               QPointF(v.map(c.high).x(), v.map(b.low).y() + 26 + step), f.length({c.width()}, false),
                               t.graphite, true);
        }
    } else {
        std::vector<double> stops{boundsOf(s.net).low.x};
        for (const double x : jointsOf()) stops.push_back(x);
        stops.push_back(boundsOf(s.net).high.x);
        for (std::size_t i = 0; i + 1 < stops.size(); ++i)
            level(stops[i], stops[i + 1], Mm{stops[i + 1] - stops[i]}, true);
    }
    if (!s.rowsAcross && s.module > 0 && !s.startColumn && !neighbours_) // else it would stand on the neighbour
        paintDimension(p, v.map({b.low.x, b.low.y}) + QPointF(0, 22), v.map({b.high.x, b.low.y}) + QPointF(0, 22),
                       f.length({b.width()}), t.muted);
}

void SetOutBench::paintReliefs(QPainter& p, const SetOut& s, const PlanView& v, std::span<const Grip> grips) const {
    const Theme& t = Theme::now();
    if (s.proposedRelief) {
        p.setPen(QPen(t.chalk, 2, Qt::DashLine));
        p.drawLine(v.map(s.proposedRelief->from), v.map(s.proposedRelief->to));
    }
    for (const Grip& g : grips) {
        const QPointF at = onScreen(g);
        if (g.moves == Moves::NewRelief) {
            p.setBrush(t.paper);
            p.setPen(QPen(t.chalk, 2));
            p.drawEllipse(at, 9, 9);
            p.drawLine(at - QPointF(4, 0), at + QPointF(4, 0));
            p.drawLine(at - QPointF(0, 4), at + QPointF(0, 4));
            paintBeside(p, at, tr("relief cut here"), t.chalk);
        }
        if (g.moves != Moves::ReliefEnd) continue;
        if (g.index % 2 == 0) { // the cut itself, also where it does not reach into the lining
            p.setPen(QPen(t.pencil, 2.4));
            p.drawLine(at, reliefHandle(g.index + 1));
        }
        paintGrip(p, at, true, hasFocus() && g.index == relief_);
        if (g.index != relief_) continue;
        const ReliefCut& cut = reliefs()[static_cast<std::size_t>(g.index / 2)];
        paintBeside(p, at, figuresFor(document_.job(), decimalMark_).length({distance(cut.from, cut.to)}, false),
                    t.pencil);
    }
}

void SetOutBench::paintHandles(QPainter& p, const SurfacePlan& plan, const SetOut& s, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Bounds b = boundsOf(plan.measured.outline);
    const QPen dashed(t.chalk, 2.2, Qt::DashLine);
    const std::vector<Grip> all = grips();
    paintReliefs(p, s, v, all);
    if (s.centreLine && family() && family()->drawn.showsDatum) { // what the layout is centred on
        p.setPen(QPen(t.chalk, 1, Qt::DashDotLine));
        if (s.rowsAcross || s.module <= 0)
            p.drawLine(v.map({*s.centreLine, b.low.y}), v.map({*s.centreLine, b.high.y}));
        else
            p.drawLine(v.map({b.low.x, *s.centreLine}), v.map({b.high.x, *s.centreLine}));
    }
    for (const Grip& g : all) {
        const QPointF handle = onScreen(g);
        const bool upDown = g.pull == Pull::Up;
        if (g.line) {
            p.setPen(dashed);
            p.drawLine(upDown ? QPointF(v.map(b.low).x() - 8, handle.y()) : QPointF(handle.x(), v.map(b.low).y() + 8),
                       handle);
        }
        switch (g.moves) {
        case Moves::Joint: paintGrip(p, handle, upDown, hasFocus() && g.index == joint_); break;
        case Moves::Taper:
            p.setPen(QPen(t.chalk, 1.4, Qt::DotLine));
            p.drawLine(handle, handle - QPointF(60, 0));
            paintGrip(p, handle, true, false);
            paintBeside(p, handle, tr("taper: %1").arg(s.taperBoards), t.chalk, -34);
            break;
        case Moves::Margin: {
            paintGrip(p, handle, true, false);
            const QString text = g.rule == "upstand" ? tr("up-stand: %1") : tr("left to trim: %1");
            paintBeside(p, handle, text.arg(figuresFor(document_.job(), decimalMark_).length({g.value}, false)),
                        t.chalk, 20);
            break;
        }
        case Moves::StartColumn: paintGrip(p, handle, false, hasFocus()); break;
        case Moves::StartLine: {
            paintGrip(p, handle, upDown, hasFocus());
            p.setFont(textFont(0.85, true));
            const double w = QFontMetricsF(p.font()).horizontalAdvance(tr("start line"));
            paintLabel(
                p, upDown ? v.map({b.high.x, s.startLine}) + QPointF(-w / 2 - 10, 0) : handle + QPointF(w / 2 + 20, 0),
                tr("start line"), t.chalk, true);
            break;
        }
        case Moves::ReliefEnd:
        case Moves::NewRelief:
        case Moves::Lamp: break;
        }
    }
}

void SetOutBench::paintNeighbours(QPainter& p, const SurfacePlan& plan, const PlanView& v) const {
    const Surface* own = document_.job().surface(plan.surface);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    p.save();
    p.setClipRect(rect());
    p.setOpacity(0.75);
    for (std::size_t side = 0; side < own->edges.size() && side < plan.measured.sides.size(); ++side) {
        const Edge& e = own->edges[side];
        const SurfacePlan* other = e.kind == EdgeKind::Meets ? document_.plan()->surface(e.surface) : nullptr;
        if (!other || !other->measured.measured() || e.side >= static_cast<int>(other->measured.sides.size())) continue;
        const Ring &mine = plan.measured.sides[side], &theirs = other->measured.sides[static_cast<std::size_t>(e.side)];
        // The shared side lies on itself, run through the other way round.
        const Point d = mine.front() - mine.back(), o = theirs.back() - theirs.front();
        const double turn = std::atan2(d.y, d.x) - std::atan2(o.y, o.x);
        p.save();
        p.translate(v.map(mine.back()));
        p.rotate(-turn * 180 / std::numbers::pi);
        const PlanView scaled = PlanView::scaled(v.scale());
        p.translate(-scaled.map(theirs.front()));
        paintSetOut(p, scaled, other->measured.outline, other->setOut(), document_.job().faceProduct(e.surface), f,
                    {.names = false, .offcuts = false, .slivers = false});
        paintSurfaceParts(p, scaled, *document_.job().surface(e.surface), other->shape,
                          {.supports = false, .names = false});
        p.restore();
    }
    p.restore();
}

void SetOutBench::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const SurfacePlan* planned = plan();
    if (!planned) {
        p.setPen(QPen(t.muted, 1.5, Qt::DashLine));
        p.drawRect(QRectF(rect()).adjusted(74, 16, -56, -44));
        return;
    }
    const PlanView v = view(*planned);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    if (neighbours_) paintNeighbours(p, *planned, v);
    static const SetOut none;
    const LayerPlan* l = layer();
    const SetOut& s = l ? l->setOut : none;
    if (piece_ >= static_cast<int>(s.pieces.size())) piece_ = -1;
    paintSetOut(p, v, planned->measured.outline, s, product(), f,
                {.joints = true, .margins = true, .pieceInHand = piece_, .unitInHand = unitInHand()});
    static const Drawn plain;
    const Drawn& drawn = l && familyOf(l->family) ? familyOf(l->family)->drawn : plain;
    paintSurfaceParts(p, v, *document_.job().surface(planned->surface), planned->shape,
                      {.supports = drawn.showsDatum || !s.laid(),
                       .supportsBehind = s.laid(),
                       .openings = drawn.showsOpenings,
                       .names = !l || stockFormOf(l->family) != StockForm::Roll || !s.laid()});
    if (planned->datum && drawn.showsDatum) paintDatum(p, v, *planned->datum);
    if (!s.laid()) return;
    paintEdges(p, *planned, s, v);
    paintHandles(p, *planned, s, v);
}

} // namespace westrum
