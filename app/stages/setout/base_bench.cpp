#include "app/stages/setout/base_bench.h"

#include "app/drawing/base_drawing.h"
#include "app/drawing/dimension.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "app/widgets/tip.h"
#include "core/families/family.h"
#include "formats/base_words.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <cmath>

namespace westrum {
namespace {
constexpr double kReach = 14; ///< pixels
}

BaseBench::BaseBench(JobDocument& document, char decimalMark, std::function<void(int)> take,
                     std::function<void(Point)> point, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      take_(std::move(take)),
      point_(std::move(point)) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("baseBench"));
    setAccessibleName(BaseView::tr("What the finish hangs on: arrow keys go from one to the next"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMouseTracking(false);
}

const SurfacePlan* BaseBench::plan() const {
    const SurfacePlan* p = document_.plan()->surface(document_.currentSurface());
    return p && p->measured.measured() ? p : nullptr;
}

PlanView BaseBench::view(const SurfacePlan& plan) const {
    return {boundsOf(plan.measured.outline), QRectF(rect()).adjusted(34, 20, -34, -20)};
}

const LayerPlan* BaseBench::layer(const SurfacePlan& plan) const {
    const int at = group == BaseView::Battens || group == BaseView::Packers ? battenLayer : document_.currentLayer();
    return at >= 0 && at < static_cast<int>(plan.layers.size()) ? &plan.layers[static_cast<std::size_t>(at)] : nullptr;
}

int BaseBench::count() const {
    const SurfacePlan* p = plan();
    if (!p) return 0;
    switch (group) {
    case BaseView::Fixings: return layer(*p) ? static_cast<int>(layer(*p)->setOut.pieces.size()) : 0;
    case BaseView::Packers: return static_cast<int>(p->packed.crossings.size());
    case BaseView::Openings: {
        const Surface* s = document_.job().surface(document_.currentSurface());
        return s ? static_cast<int>(s->openings.size()) : 0;
    }
    case BaseView::Battens: return 0;
    }
    return 0;
}

int BaseBench::at(QPointF point) const {
    const SurfacePlan* p = plan();
    if (!p) return -1;
    const PlanView v = view(*p);
    const Point here = v.unmap(point);
    if (group == BaseView::Fixings && layer(*p)) {
        const auto& pieces = layer(*p)->setOut.pieces;
        for (std::size_t i = 0; i < pieces.size(); ++i)
            if (contains(pieces[i].shape, here)) return static_cast<int>(i);
    }
    int best = -1;
    double off = kReach;
    const auto near = [&](Point q, int index, double reach) {
        const QPointF d = v.map(q) - point;
        const double l = std::max(0.0, std::hypot(d.x(), d.y()) - reach);
        if (l >= off) return;
        off = l;
        best = index;
    };
    if (group == BaseView::Packers)
        for (std::size_t i = 0; i < p->packed.crossings.size(); ++i)
            near(p->packed.crossings[i].at, static_cast<int>(i), 0);
    if (group == BaseView::Openings)
        for (const PlacedOpening& o : p->shape.openings) {
            const Bounds b = boundsOf(o.shape);
            near(o.centre, o.opening, std::min(b.width(), b.height()) / 2 * v.scale());
        }
    return best;
}

void BaseBench::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const SurfacePlan* planned = plan();
    if (!planned) return;
    const Theme& t = Theme::now();
    const PlanView v = view(*planned);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Surface& surface = *document_.job().surface(planned->surface);
    const LayerPlan* l = layer(*planned);
    const LayerPlan* seen = planned->faceLayer();
    const LayerPlan* lies = group == BaseView::Fixings || group == BaseView::Battens ? l : seen;
    static const SetOut none;
    if (lies && lies->setOut.laid())
        paintSetOut(p, v, planned->measured.outline, lies->setOut, document_.job().catalogue.find(lies->product), f,
                    {.names = group == BaseView::Fixings, .offcuts = false, .slivers = false, .joints = true});
    else
        paintSetOut(p, v, planned->measured.outline, none, nullptr, f, {});
    QColor veil = t.paper; // what holds stands out from what it holds
    veil.setAlpha(130);
    p.fillPath(v.path(planned->measured.outline), veil);
    paintHolders(p, v, planned->shape, surface);
    paintSurfaceParts(p, v, surface, planned->shape, {.supports = false, .names = group == BaseView::Openings});
    if (group == BaseView::Fixings && l && inHand >= 0 && inHand < static_cast<int>(l->setOut.pieces.size())) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.chalk, 2.4));
        p.drawPath(v.path(l->setOut.pieces[static_cast<std::size_t>(inHand)].shape));
    }
    if (l && group != BaseView::Openings) paintFixings(p, v, *l, group == BaseView::Fixings ? inHand : -1);
    if (group == BaseView::Packers) paintPackers(p, v, planned->packed, inHand, f);
    if (group == BaseView::Openings && inHand >= 0 && inHand < static_cast<int>(surface.openings.size()))
        paintDistances(p, v, openingDistances(surface, *planned, inHand, document_.job().clearances), f);
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.chalk, 1, Qt::DotLine));
        p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
    }
}

void BaseBench::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (group == BaseView::Battens) {
        if (const SurfacePlan* p = plan()) point_(view(*p).unmap(event->position()));
        return;
    }
    if (const int found = at(event->position()); found >= 0 || group == BaseView::Fixings) take_(found);
}

void BaseBench::keyPressEvent(QKeyEvent* event) {
    const int n = count();
    const int by = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down ? 1
                   : event->key() == Qt::Key_Left || event->key() == Qt::Key_Up  ? -1
                                                                                 : 0;
    if (by == 0 || n == 0) return QWidget::keyPressEvent(event);
    take_((std::max(inHand, by > 0 ? -1 : 0) + by + n) % n);
}

QString BaseBench::tip(QPointF point) const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = p ? layer(*p) : nullptr;
    if (!l) return {};
    const PlanView v = view(*p);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Fixing* best = nullptr;
    double off = kReach;
    for (const Fixing& x : l->fixings) {
        const QPointF d = v.map(x.place.at) - point;
        if (std::hypot(d.x(), d.y()) >= off) continue;
        off = std::hypot(d.x(), d.y());
        best = &x;
    }
    if (!best) return {};
    const Bounds b = boundsOf(p->measured.outline);
    const QString where = BaseView::tr("%1 from the left, %2 up")
                              .arg(f.length({best->place.at.x - b.low.x}), f.length({best->place.at.y - b.low.y}));
    if (!best->place.holds) return BaseView::tr("%1: nothing known lies behind this place").arg(where);
    const Product* product = document_.job().catalogue.find(best->product);
    QString what = product ? QString::fromStdString(product->name) : heldText(best->by);
    if (best->least) {
        what += best->most ? BaseView::tr(", %1 to %2 long").arg(f.fineLength(*best->least), f.fineLength(*best->most))
                           : BaseView::tr(", at least %1 long").arg(f.fineLength(*best->least));
    }
    if (best->place.bodyHole) what += BaseView::tr(", in a hole of the body");
    if (const Mm hole = drillFor(*best); hole.value > 0)
        what += best->underStrip ? BaseView::tr("; drill %1, the strip over it covers the rest").arg(f.fineLength(hole))
                                 : BaseView::tr("; drill %1").arg(f.fineLength(hole));
    return BaseView::tr("%1: %2").arg(where, what);
}

bool BaseBench::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const QString text = tip(help->pos());
        return showTip(event, text, this);
    }
    return QWidget::event(event);
}

} // namespace westrum
