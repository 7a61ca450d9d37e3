#include "app/stages/setout/set_out_bench.h"

#include "app/drawing/dimension.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "app/widgets/gesture.h"
#include "core/catalogue/plank.h"
#include "core/setout/plank_floor.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {

SetOutBench::SetOutBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("Floor with start line: arrow keys move it by 1 mm, with Shift by 10 mm"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

const SurfacePlan* SetOutBench::plan() const {
    const SurfacePlan* p = document_.plan()->surface(document_.currentSurface());
    return p && p->measured.measured() ? p : nullptr;
}

PlanView SetOutBench::view(const SurfacePlan& plan) const {
    return {boundsOf(plan.measured.outline), QRectF(rect()).adjusted(74, 16, -44, -44)};
}

double SetOutBench::plankWidth() const {
    const Product* p = document_.job().catalogue.find(document_.job().finish(document_.currentSurface()).product);
    return p && p->family == "planks" ? plankOf(*p).width.value : 0;
}

QPointF SetOutBench::startHandle() const {
    const SurfacePlan* p = plan();
    if (!p || !p->setOut.laid()) return {};
    const PlanView v = view(*p);
    const Bounds b = boundsOf(p->measured.outline);
    return p->setOut.rowsAcross ? v.map({p->setOut.startLine, b.high.y}) + QPointF(0, -6)
                                : v.map({b.high.x, p->setOut.startLine}) + QPointF(22, 0);
}

bool SetOutBench::onStartLine(QPointF at) const {
    const SurfacePlan* p = plan();
    if (!p || !p->setOut.laid()) return false;
    const QPointF handle = startHandle();
    const double away = p->setOut.rowsAcross ? at.x() - handle.x() : at.y() - handle.y();
    return std::abs(away) < 9;
}

void SetOutBench::moveTo(double offset, int gesture) {
    const double width = plankWidth();
    if (width <= 0) return;
    // Whole millimetres, as one rips; from a full first row to the narrowest that can be called one.
    offset = std::clamp(std::round(offset), 0.0, std::ceil(width) - 1);
    emit startMoved({offset}, gesture);
}

void SetOutBench::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !onStartLine(event->position())) return;
    const SurfacePlan* p = plan();
    const Point at = view(*p).unmap(event->position());
    dragging_ = true;
    gesture_ = nextGesture();
    grab_ = (p->setOut.rowsAcross ? at.x : at.y) - p->setOut.startLine;
}

void SetOutBench::mouseMoveEvent(QMouseEvent* event) {
    const SurfacePlan* p = plan();
    if (!dragging_) {
        const bool over = onStartLine(event->position());
        setCursor(over ? (p && p->setOut.rowsAcross ? Qt::SizeHorCursor : Qt::SizeVerCursor) : Qt::ArrowCursor);
        return;
    }
    if (!p || p->setOut.rows.empty()) return;
    const Point at = view(*p).unmap(event->position());
    const double line = (p->setOut.rowsAcross ? at.x : at.y) - grab_;
    const double firstRow = line - p->setOut.rows.front().low;
    moveTo(plankWidth() - firstRow, gesture_);
}

void SetOutBench::mouseReleaseEvent(QMouseEvent*) { dragging_ = false; }

void SetOutBench::keyPressEvent(QKeyEvent* event) {
    const SurfacePlan* p = plan();
    const bool wider = event->key() == Qt::Key_Up || event->key() == Qt::Key_Right;
    const bool narrower = event->key() == Qt::Key_Down || event->key() == Qt::Key_Left;
    if (!p || !p->setOut.laid() || (!wider && !narrower)) return QWidget::keyPressEvent(event);
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    // Nudges that follow each other while the key is held are one gesture.
    if (!event->isAutoRepeat()) gesture_ = nextGesture();
    // From where the job has it: the plan may still be of the nudge before.
    const PlankRules rules = plankRulesOf(document_.job().finish(document_.currentSurface()).rules);
    moveTo(rules.startOffset.value + (wider ? -step : step), gesture_);
}

void SetOutBench::paintEdgeRows(QPainter& p, const SurfacePlan& plan, const PlanView& v) const {
    const Theme& t = Theme::now();
    const SetOut& s = plan.setOut;
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Bounds b = boundsOf(plan.measured.outline);
    const double third = plankWidth() / 3;
    const auto edge = [&](const Row& row, Mm width) {
        const QColor colour = width.value < third - 1e-6 ? t.pencil : t.graphite;
        const QString text = f.fineLength(width, false);
        if (s.rowsAcross)
            paintDimension(p, v.map({row.low, b.low.y}) + QPointF(0, 34), v.map({row.high, b.low.y}) + QPointF(0, 34),
                           text, colour, true);
        else
            paintDimension(p, v.map({b.low.x, row.low}) + QPointF(-34, 0), v.map({b.low.x, row.high}) + QPointF(-34, 0),
                           text, colour, true);
    };
    edge(s.rows.front(), s.firstRow);
    if (s.rows.size() > 1) edge(s.rows.back(), s.lastRow);
    if (!s.rowsAcross)
        paintDimension(p, v.map({b.low.x, b.low.y}) + QPointF(0, 22), v.map({b.high.x, b.low.y}) + QPointF(0, 22),
                       f.length({b.width()}), t.muted);
}

void SetOutBench::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const SurfacePlan* planned = plan();
    if (!planned) {
        p.setPen(QPen(t.muted, 1.5, Qt::DashLine));
        p.drawRect(QRectF(rect()).adjusted(74, 16, -44, -44));
        return;
    }
    const PlanView v = view(*planned);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    paintSetOut(p, v, planned->measured.outline, planned->setOut,
                document_.job().finish(document_.currentSurface()).product, f, {});
    if (!planned->setOut.laid()) return;
    paintEdgeRows(p, *planned, v);
    // The start line with its handle.
    const Bounds b = boundsOf(planned->measured.outline);
    const double at = planned->setOut.startLine;
    const bool across = planned->setOut.rowsAcross;
    const QPointF handle = startHandle();
    const QPointF from = across ? v.map({at, b.low.y}) + QPointF(0, 8) : v.map({b.low.x, at}) + QPointF(-8, 0);
    p.setPen(QPen(t.chalk, 2.2, Qt::DashLine));
    p.drawLine(from, handle);
    p.setPen(QPen(t.chalk, 2));
    p.setBrush(hasFocus() ? t.chalk : t.paper);
    p.drawEllipse(handle, 9, 9);
    p.setPen(QPen(hasFocus() ? t.paper : t.chalk, 1.6));
    for (const double d : {-2.5, 2.5})
        if (across)
            p.drawLine(handle + QPointF(d, -4), handle + QPointF(d, 4));
        else
            p.drawLine(handle + QPointF(-4, d), handle + QPointF(4, d));
    p.setFont(textFont(0.85, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(tr("start line"));
    paintLabel(p, across ? handle + QPointF(w / 2 + 20, 0) : v.map({b.high.x, at}) + QPointF(-w / 2 - 10, 0),
               tr("start line"), t.chalk, true);
}

} // namespace westrum
