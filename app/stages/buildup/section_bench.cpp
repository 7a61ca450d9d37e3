#include "app/stages/buildup/section_bench.h"

#include "app/drawing/dimension.h"
#include "app/drawing/finish_style.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "app/stages/buildup/standing_room.h"
#include "app/widgets/tip.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kLabelWidth = 332;    ///< beside the section
constexpr double kHeadroomWidth = 170; ///< of the drawing of headroom, to the right
constexpr double kThinnest = 3;        ///< pixels: a membrane is drawn at least so thick
constexpr double kMetal = 10;          ///< pixels of body metal
constexpr double kGreatestScale = 7;   ///< pixels to the millimetre

} // namespace

SectionBench::SectionBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setAccessibleName(tr("Section of the build-up: arrow keys go from layer to layer, with Shift they move it"));
}

SectionBench::Lie SectionBench::lieOf(const std::string& id) const {
    const Surface* s = document_.job().surface(id);
    if (!s) return Lie::Wall;
    switch (s->kind) {
    case SurfaceKind::Floor:
    case SurfaceKind::ArchTop:
    case SurfaceKind::BenchTop:
    case SurfaceKind::Shelf: return Lie::Floor;
    case SurfaceKind::Ceiling:
    case SurfaceKind::Headliner: return Lie::Ceiling;
    default: return Lie::Wall;
    }
}

std::string SectionBench::partnerOf(const std::string& id) const {
    const Surface* s = document_.job().surface(id);
    if (!s || (s->kind != SurfaceKind::Floor && s->kind != SurfaceKind::Ceiling)) return {};
    const SurfaceKind wanted = s->kind == SurfaceKind::Floor ? SurfaceKind::Ceiling : SurfaceKind::Floor;
    for (const Surface& other : document_.job().surfaces)
        if (other.kind == wanted && !document_.job().finish(other.id).layers.empty()) return other.id;
    return {};
}

QRectF SectionBench::areaOf(bool partner) const {
    const bool pair = !partnerOf(document_.currentSurface()).empty();
    const QRectF all = QRectF(rect()).adjusted(14, 12, -14, -14);
    const double right = pair || lieOf(document_.currentSurface()) != Lie::Wall ? kHeadroomWidth : 0;
    const QRectF left(all.left(), all.top(), all.width() - right, all.height());
    if (!pair) return left;
    // The ceiling above, the floor below.
    const bool upper = (lieOf(document_.currentSurface()) == Lie::Ceiling) != partner;
    const double half = (left.height() - 34) / 2;
    return {left.left(), upper ? left.top() : left.bottom() - half, left.width(), half};
}

Mm SectionBench::ribDepthOf(const std::string& id) const {
    Mm depth;
    if (const Surface* s = document_.job().surface(id))
        for (const Support& u : s->supports)
            if (u.kind == SupportKind::Rib && u.depth)
                depth = depth.value > 0 ? std::min(depth, u.depth->length) : u.depth->length;
    return depth;
}

double SectionBench::scale() const {
    double scale = kGreatestScale;
    const std::string& own = document_.currentSurface();
    for (const auto& [id, partner] : {std::pair{own, false}, {partnerOf(own), true}}) {
        const SurfacePlan* p = id.empty() ? nullptr : document_.plan()->surface(id);
        const double thick = p ? p->stack.total.value + ribDepthOf(id).value : 0;
        if (thick <= 0) continue;
        const QRectF area = areaOf(partner);
        const double room = (lieOf(id) == Lie::Wall ? area.width() - kLabelWidth : area.height()) - kMetal - 24;
        // Thin layers take a few pixels more than they would.
        scale = std::min(scale, (room - kThinnest * static_cast<double>(p->stack.adds.size())) / thick);
    }
    return std::max(0.3, scale);
}

QRectF SectionBench::cavityOf(const std::string& id, bool partner) const {
    const QRectF area = areaOf(partner);
    const double depth = ribDepthOf(id).value * scale();
    switch (lieOf(id)) {
    case Lie::Floor: return {area.left(), area.bottom() - kMetal - depth, area.width() - kLabelWidth, depth};
    case Lie::Ceiling: return {area.left(), area.top() + kMetal, area.width() - kLabelWidth, depth};
    case Lie::Wall: break;
    }
    return {area.left() + kMetal, area.top(), depth, area.height() - 26};
}

std::vector<SectionBench::Slab> SectionBench::slabsOf(const std::string& id, bool partner) const {
    std::vector<Slab> slabs;
    const SurfacePlan* p = document_.plan()->surface(id);
    if (!p) return slabs;
    const Lie lie = lieOf(id);
    const double k = scale();
    const Finish& finish = document_.job().finish(id);
    const std::vector<StackLayer> layers = stackLayers(finish, document_.job().catalogue);
    const QRectF cavity = cavityOf(id, partner);
    double at = lie == Lie::Floor ? cavity.top() : lie == Lie::Ceiling ? cavity.bottom() : cavity.right();
    for (std::size_t i = 0; i < p->stack.adds.size() && i < layers.size(); ++i) {
        const bool within = (layers[i].between || layers[i].beside) && p->stack.adds[i].value < 0.01;
        const double thick = std::max(kThinnest, p->stack.adds[i].value * k);
        QRectF box = cavity;
        if (!within) {
            if (lie == Lie::Floor)
                box = {cavity.left(), at - thick, cavity.width(), thick};
            else if (lie == Lie::Ceiling)
                box = {cavity.left(), at, cavity.width(), thick};
            else
                box = {at, cavity.top(), thick, cavity.height()};
            at += lie == Lie::Floor ? -thick : thick;
        }
        slabs.push_back({static_cast<int>(i), box, p->stack.adds[i], layers[i].batten});
    }
    // What lies between ribs or battens takes their room, from the metal side, as far as it goes.
    for (std::size_t i = 0; i < slabs.size(); ++i) {
        if (!layers[i].between || slabs[i].adds.value >= 0.01) continue;
        QRectF room = cavity;
        for (const Slab& b : slabs)
            if (ribDepthOf(id).value <= 0 && b.blocks) room = b.box;
        const double thick = std::max(kThinnest, layers[i].thickness.value * (1 - layers[i].squash) * k);
        if (lie == Lie::Floor)
            slabs[i].box = {room.left(), room.bottom() - thick, room.width(), thick};
        else if (lie == Lie::Ceiling)
            slabs[i].box = {room.left(), room.top(), room.width(), thick};
        else
            slabs[i].box = {room.left(), room.top(), thick, room.height()};
    }
    return slabs;
}

QPointF SectionBench::middleOf(int layer) const {
    for (const Slab& s : slabsOf(document_.currentSurface(), false))
        if (s.layer == layer) return s.box.center();
    return {};
}

void SectionBench::takeInHand(int layer) {
    inHand_ = layer;
    update();
}

void SectionBench::paintMaterials(QPainter& p, const std::string& id, bool partner,
                                  const std::vector<Slab>& slabs) const {
    const Theme& t = Theme::now();
    const Lie lie = lieOf(id);
    const QRectF area = areaOf(partner);
    // The body's metal.
    QPainterPath metal;
    if (lie == Lie::Wall)
        metal.addRect(QRectF(area.left(), area.top(), kMetal, area.height() - 26));
    else
        metal.addRect(QRectF(area.left(), lie == Lie::Floor ? area.bottom() - kMetal : area.top(),
                             area.width() - kLabelWidth, kMetal));
    paintMetal(p, metal);
    p.setPen(QPen(t.graphite, 1));
    p.setBrush(Qt::NoBrush);
    p.drawPath(metal);
    // Ribs stand in their cavity, battens in their layer, with room between them.
    const auto blocks = [&](const QRectF& box, const auto& paint) {
        for (const double share : {0.0, 0.46, 0.92})
            paint(lie == Lie::Wall
                      ? QRectF(box.left(), box.top() + box.height() * share, box.width(), box.height() * 0.08)
                      : QRectF(box.left() + box.width() * share, box.top(), box.width() * 0.08, box.height()));
    };
    const Finish& finish = document_.job().finish(id);
    for (const bool battens : {false, true})
        for (const Slab& s : slabs) {
            if (s.blocks != battens) continue;
            const Product* product =
                document_.job().catalogue.find(finish.layers[static_cast<std::size_t>(s.layer)].product);
            if (!product) {
                p.setPen(QPen(t.pencil, 1.4, Qt::DashLine));
                p.setBrush(Qt::NoBrush);
                p.drawRect(s.box);
                continue;
            }
            if (battens)
                blocks(s.box, [&](const QRectF& b) { paintSectionFill(p, b, *product); });
            else
                paintSectionFill(p, s.box, *product);
            if (partner || s.layer != inHand_) continue;
            p.setPen(QPen(t.chalk, 3));
            p.setBrush(Qt::NoBrush);
            p.drawRect(s.box.adjusted(1, 1, -1, -1));
        }
    if (ribDepthOf(id).value > 0)
        blocks(cavityOf(id, partner), [&](const QRectF& b) {
            QPainterPath rib;
            rib.addRect(b);
            paintMetal(p, rib);
            p.setPen(QPen(t.graphite, 1));
            p.setBrush(Qt::NoBrush);
            p.drawRect(b);
        });
}

/// Heights of the names beside the layers, spread so that none covers another, from the top of the drawing.
std::vector<double> SectionBench::nameHeights(Lie lie, const QRectF& area, const std::vector<Slab>& slabs,
                                              double line) {
    std::vector<double> ys;
    for (std::size_t i = 0; i < slabs.size(); ++i) {
        const std::size_t k = lie == Lie::Floor ? slabs.size() - 1 - i : i;
        double y = lie == Lie::Wall ? area.top() + line * (static_cast<double>(i) + 1) : slabs[k].box.center().y();
        if (!ys.empty()) y = std::max(y, ys.back() + line);
        ys.push_back(y);
    }
    const double over = ys.empty() ? 0 : std::max(0.0, ys.back() + line / 2 - area.bottom());
    for (std::size_t i = ys.size(); i-- > 0;) {
        ys[i] -= over;
        if (i + 1 < ys.size()) ys[i] = std::min(ys[i], ys[i + 1] - line);
    }
    return ys;
}

/// Names and thicknesses beside the layers, each with a line to its layer.
void SectionBench::paintNames(QPainter& p, const std::string& id, bool partner, const std::vector<Slab>& slabs) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Lie lie = lieOf(id);
    const QRectF area = areaOf(partner);
    const double width = area.width() - kLabelWidth, left = area.left() + width + 44;
    p.setFont(textFont(0.9));
    const double line = QFontMetricsF(p.font()).height() + 3;
    const std::vector<double> ys = nameHeights(lie, area, slabs, line);
    for (std::size_t i = 0; i < slabs.size(); ++i) {
        const Slab& s = slabs[lie == Lie::Floor ? slabs.size() - 1 - i : i];
        const Layer& layer = document_.job().finish(id).layers[static_cast<std::size_t>(s.layer)];
        const Product* product = document_.job().catalogue.find(layer.product);
        QString name = product ? QString::fromStdString(product->name) : tr("not in the catalogue");
        if (layer.bolted) name += tr("  ⌀ bolted");
        const Mm own = product ? thicknessOf(*product) : Mm{0};
        QString thick = s.adds.value > 0 && s.adds.value < 0.05 ? tr("under 0.1") : f.fineLength(s.adds, false);
        if (s.adds.value == 0 && own.value > 0) thick = tr("%1 between").arg(f.fineLength(own, false));
        if (std::abs(own.value - s.adds.value) > 0.05 && s.adds.value >= 0.05)
            thick += tr(" of %1").arg(f.fineLength(own, false));
        p.setPen(QPen(t.faint, 1));
        if (lie == Lie::Wall) {
            p.drawLine(QPointF(s.box.center().x(), ys[i]), QPointF(left - 4, ys[i]));
            p.setBrush(t.graphite);
            p.drawEllipse(QPointF(s.box.center().x(), ys[i]), 2, 2);
        } else {
            p.drawLine(QPointF(area.left() + width, s.box.center().y()), QPointF(left - 4, ys[i]));
        }
        p.setPen(!partner && s.layer == inHand_ ? t.chalk : partner ? t.muted : t.graphite);
        p.drawText(QRectF(left, ys[i] - line / 2, 84, line), Qt::AlignRight | Qt::AlignVCenter, thick);
        p.drawText(QRectF(left + 94, ys[i] - line / 2, kLabelWidth - 138, line), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(name, Qt::ElideRight, kLabelWidth - 138));
    }
}

/// Where a layer that is dragged would be put down.
void SectionBench::paintDrop(QPainter& p, Lie lie, const std::vector<Slab>& slabs) const {
    p.setPen(QPen(Theme::now().chalk, 3));
    for (const Slab& s : slabs) {
        if (!s.box.adjusted(-2000, -0.5, 2000, 0.5).contains(dragAt_) && lie != Lie::Wall) continue;
        if (lie == Lie::Wall && (dragAt_.x() < s.box.left() || dragAt_.x() > s.box.right())) continue;
        const bool inwards = lie == Lie::Wall    ? dragAt_.x() > s.box.center().x()
                             : lie == Lie::Floor ? dragAt_.y() < s.box.center().y()
                                                 : dragAt_.y() > s.box.center().y();
        if (lie == Lie::Wall) {
            const double x = inwards ? s.box.right() : s.box.left();
            p.drawLine(QPointF(x, s.box.top()), QPointF(x, s.box.bottom()));
        } else {
            const double y = (lie == Lie::Floor) == inwards ? s.box.top() : s.box.bottom();
            p.drawLine(QPointF(s.box.left(), y), QPointF(s.box.right(), y));
        }
    }
}

void SectionBench::paintStack(QPainter& p, const std::string& id, bool partner) const {
    const Theme& t = Theme::now();
    const SurfacePlan* plan = document_.plan()->surface(id);
    if (!plan) return;
    const Lie lie = lieOf(id);
    const QRectF area = areaOf(partner);
    const double width = area.width() - kLabelWidth;
    const std::vector<Slab> slabs = slabsOf(id, partner);
    paintMaterials(p, id, partner, slabs);
    if (slabs.empty()) {
        p.setFont(textFont(0.9));
        p.setPen(t.muted);
        p.drawText(lie == Lie::Wall ? area.adjusted(kMetal + 12, 0, -kLabelWidth, 0)
                                    : QRectF(area.left(), area.top(), width, area.height()),
                   Qt::AlignCenter | Qt::TextWordWrap,
                   partner ? QString() : tr("Bare metal. Add the first layer below."));
        return;
    }
    paintNames(p, id, partner, slabs);
    if (!partner && dragged_ >= 0) paintDrop(p, lie, slabs);
    // The whole of it.
    const QString total = figuresFor(document_.job(), decimalMark_).fineLength(plan->stack.total, false);
    const QRectF cavity = cavityOf(id, partner);
    if (lie == Lie::Wall) {
        double to = cavity.right();
        for (const Slab& s : slabs) to = std::max(to, s.box.right());
        paintDimension(p, QPointF(cavity.right(), area.bottom() - 6), QPointF(to, area.bottom() - 6), total, t.graphite,
                       true);
        return;
    }
    const double from = lie == Lie::Floor ? cavity.top() : cavity.bottom();
    double to = from;
    for (const Slab& s : slabs) to = lie == Lie::Floor ? std::min(to, s.box.top()) : std::max(to, s.box.bottom());
    paintDimension(p, QPointF(area.left() + width + 24, from), QPointF(area.left() + width + 24, to), total, t.graphite,
                   true);
}

QRectF SectionBench::headroomBox() const {
    const QRectF all = QRectF(rect()).adjusted(14, 12, -14, -14);
    const QRectF standing = standingBox();
    const double below = standing.isEmpty() ? 0 : standing.height() + 12;
    return {all.right() - kHeadroomWidth + 40, all.top() + 6, kHeadroomWidth - 46, all.height() - 12 - below};
}

QRectF SectionBench::standingBox() const {
    const auto& h = document_.plan()->headroom;
    const double width = kHeadroomWidth - 16;
    const double high = h ? StandingRoom::heightFor(*h, width) : 0;
    // The person goes before: on a low window the floor is left out.
    if (high <= 0 || high > height() * 0.45) return {};
    const QRectF all = QRectF(rect()).adjusted(14, 12, -14, -14);
    return {all.right() - width, all.bottom() - high, width, high};
}

QPointF SectionBench::standingMiddle() const {
    const QRectF box = standingBox();
    return {box.center().x(), box.bottom() - box.height() / 4};
}

bool SectionBench::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip && document_.plan()->headroom &&
        lieOf(document_.currentSurface()) != Lie::Wall) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const QRectF box = standingBox();
        const QString text = box.isEmpty() ? QString()
                                           : StandingRoom(*document_.plan()->headroom, box)
                                                 .told(help->pos(), figuresFor(document_.job(), decimalMark_));
        return showTip(event, text, this);
    }
    return QWidget::event(event);
}

void SectionBench::paintHeadroom(QPainter& p) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Job& job = document_.job();
    const QRectF box = headroomBox();
    double bare = 0;
    for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
        if (*r) bare = bare > 0 ? std::min(bare, (*r)->length.value) : (*r)->length.value;
    p.setFont(textFont(0.85));
    if (!document_.plan()->headroom) {
        p.setPen(t.muted);
        p.drawText(box.adjusted(-34, 0, 0, 0), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Type the bare height from the floor's metal to the ceiling's ribs to see the headroom left."));
        return;
    }
    const HeadroomPlan& h = *document_.plan()->headroom;
    if (const QRectF standing = standingBox(); !standing.isEmpty())
        StandingRoom(h, standing).paint(p, f, job.headroom.person.has_value());
    const double person = job.headroom.person ? job.headroom.person->length.value : 0;
    const SurfacePlan* floor = document_.plan()->surface(h.floor);
    const SurfacePlan* ceiling = document_.plan()->surface(h.ceiling);
    if (bare <= 0) // nobody read it: as the van stands
        bare = h.left.head.value + (floor ? floor->stack.total.value : 0) + (ceiling ? ceiling->stack.total.value : 0);
    const double most = std::max(bare, person + 20);
    const double k = box.height() / most;
    const auto y = [&](double mm) { return box.bottom() - mm * k; };
    const double low = floor ? floor->stack.total.value : 0, high = bare - (ceiling ? ceiling->stack.total.value : 0);
    // Metal, build-ups, air.
    p.setPen(QPen(t.graphite, 2));
    p.drawLine(QPointF(box.left(), y(0)), QPointF(box.right(), y(0)));
    p.drawLine(QPointF(box.left(), y(bare)), QPointF(box.right(), y(bare)));
    QColor wood = t.metal;
    p.fillRect(QRectF(box.left(), y(low), box.width(), y(0) - y(low)), wood);
    p.fillRect(QRectF(box.left(), y(bare), box.width(), y(high) - y(bare)), wood);
    const bool tight = h.left.standsUpright == false;
    paintDimension(p, QPointF(box.left() + 12, y(low)), QPointF(box.left() + 12, y(high)), f.length(h.left.head, false),
                   tight ? t.pencil : t.graphite, true);
    if (person <= 0) return;
    // A person of that height, standing on the finished floor.
    const double x = box.left() + box.width() * 0.66, top = y(low + person), head = person * k * 0.065;
    p.setPen(QPen(tight ? t.pencil : t.chalk, 2.4, Qt::SolidLine, Qt::RoundCap));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(QPointF(x, top + head), head * 0.8, head);
    const double hip = y(low + person * 0.48), shoulder = y(low + person * 0.8);
    p.drawLine(QPointF(x, top + 2 * head), QPointF(x, hip));
    p.drawLine(QPointF(x, hip), QPointF(x - 9, y(low)));
    p.drawLine(QPointF(x, hip), QPointF(x + 9, y(low)));
    p.drawLine(QPointF(x, shoulder), QPointF(x - 12, y(low + person * 0.5)));
    p.drawLine(QPointF(x, shoulder), QPointF(x + 12, y(low + person * 0.5)));
    p.setFont(textFont(0.8));
    paintLabel(p, QPointF(x, y(low + person * 0.24)), f.length({person}, false), tight ? t.pencil : t.chalk, true);
}

void SectionBench::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const std::string& own = document_.currentSurface();
    if (!document_.job().surface(own)) return;
    paintStack(p, own, false);
    if (const std::string other = partnerOf(own); !other.empty()) {
        paintStack(p, other, true);
        // The air between them is broken off: drawn to this scale it would not go on the page.
        const Theme& t = Theme::now();
        const QRectF a = areaOf(false), b = areaOf(true);
        const double y = (std::min(a.bottom(), b.bottom()) + std::max(a.top(), b.top())) / 2;
        p.setPen(QPen(t.faint, 1.2, Qt::DashLine));
        p.drawLine(QPointF(a.left(), y), QPointF(a.right() - kLabelWidth, y));
        p.setFont(textFont(0.85));
        if (document_.plan()->headroom)
            paintLabel(
                p, QPointF(a.left() + (a.width() - kLabelWidth) / 2, y),
                tr("%1 of headroom left")
                    .arg(figuresFor(document_.job(), decimalMark_).length(document_.plan()->headroom->left.head)),
                t.muted, false);
    }
    if (lieOf(own) != Lie::Wall) paintHeadroom(p);
}

void SectionBench::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    for (const Slab& s : slabsOf(document_.currentSurface(), false)) {
        // A membrane of a few pixels is taken with a little room around it.
        const double slack = std::max(0.0, 5 - std::min(s.box.width(), s.box.height()) / 2);
        if (!s.box.adjusted(-slack, -slack, slack, slack).contains(event->position())) continue;
        inHand_ = s.layer;
        dragged_ = s.layer;
        dragAt_ = event->position();
        emit picked(s.layer);
        update();
        return;
    }
}

void SectionBench::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ < 0) return;
    dragAt_ = event->position();
    setCursor(Qt::ClosedHandCursor);
    update();
}

void SectionBench::mouseReleaseEvent(QMouseEvent* event) {
    const int layer = std::exchange(dragged_, -1);
    setCursor(Qt::ArrowCursor);
    update();
    if (layer < 0) return;
    const Lie lie = lieOf(document_.currentSurface());
    // It goes before the first layer whose middle lies further inwards than the pointer.
    int to = 0;
    for (const Slab& s : slabsOf(document_.currentSurface(), false)) {
        if (s.layer == layer) continue;
        const QPointF c = s.box.center();
        const bool outside = lie == Lie::Floor     ? c.y() > event->position().y()
                             : lie == Lie::Ceiling ? c.y() < event->position().y()
                                                   : c.x() < event->position().x();
        if (outside) ++to;
    }
    if (to != layer) emit moved(layer, to);
}

void SectionBench::keyPressEvent(QKeyEvent* event) {
    const int layers = static_cast<int>(document_.job().finish(document_.currentSurface()).layers.size());
    const Lie lie = lieOf(document_.currentSurface());
    int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (event->key() == Qt::Key_Up) step = lie == Lie::Ceiling ? -1 : 1;
    if (event->key() == Qt::Key_Down) step = lie == Lie::Ceiling ? 1 : -1;
    if (step == 0 || layers == 0) return QWidget::keyPressEvent(event);
    const int to = std::clamp(inHand_ + step, 0, layers - 1);
    if (event->modifiers().testFlag(Qt::ShiftModifier)) {
        if (inHand_ >= 0 && to != inHand_) emit moved(inHand_, to);
        return;
    }
    inHand_ = to;
    emit picked(to);
    update();
}

} // namespace westrum
