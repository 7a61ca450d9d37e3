#include "app/stages/setout/set_out_bench.h"

#include "app/drawing/set_out_drawing.h"
#include "app/widgets/gesture.h"
#include "core/geometry/boolean.h"
#include "core/plan/layer_request.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kReach = 9;       ///< pixels within which a grip is taken
constexpr double kSnapPixels = 12; ///< within which a joint falls onto a support

double along(Pull pull, Point p) { return pull == Pull::Sideways ? p.x : p.y; }
double along(Pull pull, QPointF p) { return pull == Pull::Sideways ? p.x() : p.y(); }

} // namespace

SetOutBench::SetOutBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("Surface with its start line: arrow keys move it by 1 mm, with Shift by 10 mm"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

const SurfacePlan* SetOutBench::plan() const {
    const SurfacePlan* p = document_.plan()->surface(document_.currentSurface());
    return p && p->measured.measured() ? p : nullptr;
}

const LayerPlan* SetOutBench::layer() const {
    const SurfacePlan* p = plan();
    const int at = document_.currentLayer();
    return p && at >= 0 && at < static_cast<int>(p->layers.size()) ? &p->layers[static_cast<std::size_t>(at)] : nullptr;
}

const Product* SetOutBench::product() const {
    const LayerPlan* l = layer();
    return l ? document_.job().catalogue.find(l->product) : nullptr;
}

const Family* SetOutBench::family() const {
    const LayerPlan* l = layer();
    return l ? familyOf(l->family) : nullptr;
}

std::vector<Grip> SetOutBench::grips() const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    const Product* sold = product();
    const Family* lies = family();
    const Surface* s = document_.job().surface(document_.currentSurface());
    if (!p || !sold || !lies || !lies->grips || !s || !l->setOut.laid()) return {};
    const std::vector<OpeningFact> openings = openingFacts(*s, p->shape);
    return lies->grips({.product = *sold,
                        .rules = l->rules,
                        .setOut = l->setOut,
                        .outline = boundsOf(p->measured.outline),
                        .reliefs = reliefs(),
                        .openings = openings,
                        .lies = liesLevel(s->kind)});
}

std::optional<Grip> SetOutBench::gripOf(Moves moves, int index) const {
    for (const Grip& g : grips())
        if (g.moves == moves && (index < 0 || g.index == index)) return g;
    return std::nullopt;
}

QPointF SetOutBench::onScreen(const Grip& grip) const {
    const QPointF at = view(*plan()).map(grip.at);
    switch (grip.stands) {
    case Stands::There: return at;
    case Stands::Above: return at + QPointF(0, -6);
    case Stands::Right: return at + QPointF(22, 0);
    case Stands::FarRight: return at + QPointF(34, 0);
    }
    return at;
}

QPointF SetOutBench::handle(Moves moves, int index) const {
    const std::optional<Grip> grip = gripOf(moves, index);
    return grip ? onScreen(*grip) : QPointF();
}

QPointF SetOutBench::startHandle() const { return handle(Moves::StartLine); }
QPointF SetOutBench::columnHandle() const { return handle(Moves::StartColumn); }
QPointF SetOutBench::jointHandle(int joint) const { return joint < 0 ? QPointF() : handle(Moves::Joint, joint); }
QPointF SetOutBench::taperHandle() const { return handle(Moves::Taper); }
QPointF SetOutBench::allowanceHandle() const { return handle(Moves::Margin); }
QPointF SetOutBench::reliefHandle(int index) const { return index < 0 ? QPointF() : handle(Moves::ReliefEnd, index); }
QPointF SetOutBench::proposalHandle() const { return handle(Moves::NewRelief); }

PlanView SetOutBench::view(const SurfacePlan& plan) const {
    Bounds b = boundsOf(plan.measured.outline);
    const bool margin = held_ && held_->moves == Moves::Margin;
    if (const LayerPlan* l = layer(); l && stockFormOf(l->family) == StockForm::Roll) // what is left at the edges shows
        for (const Piece& piece : l->setOut.pieces) {
            if (!liesBeside(piece, unitInHand()) || (piece.shape.empty() && family()->laid.seams) || margin) continue;
            const Bounds c = boundsOf(piece.cut);
            b.low = {std::min(b.low.x, c.low.x), std::min(b.low.y, c.low.y)};
            b.high = {std::max(b.high.x, c.high.x), std::max(b.high.y, c.high.y)};
        }
    if (margin) b = heldBounds_;
    if (neighbours_) { // a strip of either neighbour shows
        const double more = std::max(300.0, b.width() * 0.25);
        b.low.x -= more;
        b.high.x += more;
    }
    return {b, QRectF(rect()).adjusted(74, 16, -56, -44)};
}

int SetOutBench::unitInHand() const {
    const LayerPlan* l = layer();
    if (!l || piece_ < 0 || piece_ >= static_cast<int>(l->setOut.pieces.size())) return 0;
    return l->setOut.pieces[static_cast<std::size_t>(piece_)].unit;
}

const std::vector<ReliefCut>& SetOutBench::reliefs() const {
    return document_.job()
        .finish(document_.currentSurface())
        .layers[static_cast<std::size_t>(document_.currentLayer())]
        .reliefs;
}

void SetOutBench::addRelief() {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!p || !l || !family() || !family()->laid.takesReliefs || !family()->laid.takesReliefs(l->rules) ||
        !l->setOut.laid())
        return;
    std::vector<ReliefCut> all = reliefs();
    if (l->setOut.proposedRelief) {
        all.push_back(*l->setOut.proposedRelief);
    } else {
        const Bounds b = boundsOf(l->setOut.net);
        // Beside those that are there already.
        const double x = std::round(b.low.x + b.width() * (0.5 + 0.07 * static_cast<double>(all.size() % 6)));
        const Region line = intersection(l->setOut.net, {{rectangle(x - 0.5, b.low.y - 1, 1, b.height() + 2)}});
        const double y = line.empty() ? b.low.y : boundsOf(line).low.y;
        all.push_back({{x, y}, {x, y + std::min(100.0, b.height() / 3)}});
    }
    relief_ = static_cast<int>(all.size()) * 2 - 1;
    setFocus();
    emit reliefsMoved(all, nextGesture());
}

QPointF SetOutBench::onScreen(Point p) const {
    const SurfacePlan* s = plan();
    return s ? view(*s).map(p) : QPointF();
}

std::optional<Grip> SetOutBench::gripAt(QPointF at) const {
    const SurfacePlan* p = plan();
    for (const Grip& g : grips()) {
        const QPointF handle = onScreen(g);
        const bool near = std::hypot(handle.x() - at.x(), handle.y() - at.y()) < kReach + 4;
        const bool onLine =
            g.line && g.moves != Moves::StartColumn && std::abs(along(g.pull, handle) - along(g.pull, at)) < kReach;
        const bool onLamp = g.moves == Moves::Lamp && [&] {
            for (const PlacedOpening& o : p->shape.openings)
                if (o.opening == g.index)
                    return view(*p).path(o.shape).boundingRect().adjusted(-4, -4, 4, 4).contains(at);
            return false;
        }();
        if (near || onLine || onLamp) return g;
    }
    return std::nullopt;
}

int SetOutBench::pieceAt(QPointF at) const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!l) return -1;
    const Point point = view(*p).unmap(at);
    for (std::size_t i = 0; i < l->setOut.pieces.size(); ++i)
        if (contains(l->setOut.pieces[i].shape, point)) return static_cast<int>(i);
    return -1;
}

double SetOutBench::snapped(double x) const {
    const SurfacePlan* p = plan();
    double best = std::round(x), nearest = kSnapPixels / view(*p).scale();
    for (const PlacedSupport& s : p->shape.supports)
        if (!s.along && std::abs(s.centre - x) < nearest) {
            nearest = std::abs(s.centre - x);
            best = s.centre;
        }
    return best;
}

void SetOutBench::moveTo(const Grip& grip, double value, int gesture) {
    // Whole millimetres, as one saws and trims.
    const Mm to{std::clamp(std::round(value), grip.least, grip.most)};
    if (grip.moves == Moves::StartLine) emit startMoved(to, gesture);
    if (grip.moves == Moves::StartColumn) emit columnMoved(to, gesture);
    if (grip.moves == Moves::Margin) emit allowanceMoved(std::string(grip.rule), to, gesture);
}

void SetOutBench::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = gripAt(event->position());
    const LayerPlan* l = layer();
    if (held_ && held_->moves == Moves::NewRelief) {
        held_.reset();
        return addRelief();
    }
    relief_ = held_ && held_->moves == Moves::ReliefEnd ? held_->index : -1;
    if (!held_) {
        if (const int piece = pieceAt(event->position()); l && piece != piece_) {
            piece_ = piece;
            emit piecePointed(piece);
            update();
        }
        return;
    }
    if (held_->moves == Moves::Margin) { // what is shown stays as it is while the margins grow
        const std::optional<Grip> margin = std::exchange(held_, std::nullopt);
        const PlanView v = view(*plan());
        heldBounds_ = {v.unmap(QPointF(74, height() - 44)), v.unmap(QPointF(width() - 56, 16))};
        held_ = margin;
    }
    gesture_ = nextGesture();
    grab_ = along(held_->pull, view(*plan()).unmap(event->position())) - along(held_->pull, held_->at);
    if (held_->moves == Moves::Joint) {
        dragged_ = jointsOf();
        joint_ = held_->index;
    }
}

std::vector<double> SetOutBench::jointsOf() const {
    std::vector<double> places;
    for (const Grip& g : grips())
        if (g.moves == Moves::Joint) places.push_back(g.value);
    return places;
}

void SetOutBench::dragJoint(double to) {
    const auto j = static_cast<std::size_t>(held_->index);
    if (j >= dragged_.size()) return;
    const Bounds b = boundsOf(layer()->setOut.net);
    const double low = j == 0 ? along(held_->pull, b.low) : dragged_[j - 1];
    const double high = j + 1 == dragged_.size() ? along(held_->pull, b.high) : dragged_[j + 1];
    const double x = std::clamp(held_->snaps ? snapped(to) : std::round(to), low + 20, std::max(low + 20, high - 20));
    if (std::abs(x - dragged_[j]) < 1e-9) return;
    dragged_[j] = x;
    emit jointsMoved(dragged_, gesture_);
}

void SetOutBench::dragLamp(Point at) {
    // Across the rows it falls onto the middle of one.
    const SetOut& s = layer()->setOut;
    Point centre = at;
    double nearest = 1e9;
    for (const Row& r : s.rows) {
        const double middle = (r.low + r.high) / 2;
        double& mine = s.rowsAcross ? centre.x : centre.y;
        const double away = std::abs((s.rowsAcross ? at.x : at.y) - middle);
        if (away < nearest) {
            nearest = away;
            mine = middle;
        }
    }
    (s.rowsAcross ? centre.y : centre.x) = std::round(s.rowsAcross ? at.y : at.x);
    emit lampMoved(held_->index, centre);
}

void SetOutBench::dragRelief(Point at) {
    std::vector<ReliefCut> all = reliefs();
    if (held_->index / 2 >= static_cast<int>(all.size())) return;
    ReliefCut& r = all[static_cast<std::size_t>(held_->index / 2)];
    const Point to{std::round(at.x), std::round(at.y)};
    if (held_->index % 2 == 0) // by its outer end the whole of it goes along
        r = {to, r.to + (to - r.from)};
    else
        r.to = to;
    if (distance(r.from, r.to) >= 1) emit reliefsMoved(all, gesture_);
}

void SetOutBench::dragTo(QPointF screen) {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!p || !l || !l->setOut.laid()) return;
    const Point at = view(*p).unmap(screen);
    const double coordinate = along(held_->pull, at) - grab_;
    switch (held_->moves) {
    case Moves::StartLine:
    case Moves::StartColumn:
    case Moves::Margin: moveTo(*held_, held_->valueAt(coordinate), gesture_); break;
    case Moves::Joint: dragJoint(coordinate); break;
    case Moves::ReliefEnd: dragRelief(at); break;
    case Moves::Lamp: dragLamp(at); break;
    case Moves::Taper: {
        const SetOut& s = l->setOut;
        int boards = 0;
        for (const Row& r : s.rows) boards += (r.low + r.high) / 2 > at.y ? 1 : 0;
        boards = std::clamp(boards, static_cast<int>(held_->least), static_cast<int>(held_->most));
        if (boards != s.taperBoards) emit taperMoved(boards);
        break;
    }
    case Moves::NewRelief: break;
    }
}

void SetOutBench::mouseMoveEvent(QMouseEvent* event) {
    if (held_) return dragTo(event->position());
    const std::optional<Grip> grip = gripAt(event->position());
    if (!grip) return setCursor(Qt::ArrowCursor);
    if (grip->moves == Moves::NewRelief) return setCursor(Qt::PointingHandCursor);
    switch (grip->pull) {
    case Pull::Up: return setCursor(Qt::SizeVerCursor);
    case Pull::Sideways: return setCursor(Qt::SizeHorCursor);
    case Pull::Anywhere: return setCursor(Qt::OpenHandCursor);
    }
}

void SetOutBench::mouseReleaseEvent(QMouseEvent*) { held_.reset(); }

double SetOutBench::valueNow(const Grip& grip) const {
    // From where the job has it: the plan may still be of the nudge before.
    const FieldValues& rules = document_.job()
                                   .finish(document_.currentSurface())
                                   .layers[static_cast<std::size_t>(document_.currentLayer())]
                                   .rules;
    const auto rule = [&](std::string_view key) {
        const auto found = rules.find(std::string(key));
        return found == rules.end() ? 0 : found->second;
    };
    const bool byHand = grip.handRule.empty() || rule(grip.handRule) == grip.byHand;
    return byHand ? rule(grip.rule) : grip.value;
}

void SetOutBench::keyPressEvent(QKeyEvent* event) {
    const int sideways = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int upwards = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
    if (relief_ >= 0 && !reliefHandle(relief_).isNull() && keyOnRelief(event, sideways, upwards)) return;
    const LayerPlan* l = layer();
    if (!l || !l->setOut.laid() || (sideways == 0 && upwards == 0)) return QWidget::keyPressEvent(event);
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    // Nudges that follow each other while the key is held are one gesture.
    if (!event->isAutoRepeat()) gesture_ = nextGesture();
    if (std::vector<double> places = jointsOf(); !places.empty()) {
        joint_ = std::clamp(joint_, 0, static_cast<int>(places.size()) - 1);
        const bool level = gripOf(Moves::Joint)->pull == Pull::Up;
        const int moves = level ? upwards : sideways, picks = level ? sideways : upwards;
        if (picks != 0) { // takes the next joint in hand
            joint_ = std::clamp(joint_ + picks, 0, static_cast<int>(places.size()) - 1);
            return update();
        }
        places[static_cast<std::size_t>(joint_)] += moves * step;
        emit jointsMoved(places, gesture_);
        return;
    }
    const std::optional<Grip> column = sideways != 0 ? gripOf(Moves::StartColumn) : std::nullopt;
    const std::optional<Grip> grip = column ? column : gripOf(Moves::StartLine);
    const int wider = sideways != 0 ? sideways : upwards;
    if (grip) moveTo(*grip, valueNow(*grip) + grip->sense * wider * step, gesture_);
}

bool SetOutBench::keyOnRelief(const QKeyEvent* event, int sideways, int upwards) {
    std::vector<ReliefCut> all = reliefs();
    const auto at = static_cast<std::size_t>(relief_ / 2);
    if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) {
        all.erase(all.begin() + static_cast<std::ptrdiff_t>(at));
        relief_ = -1;
        emit reliefsMoved(all, nextGesture());
        return true;
    }
    if (sideways == 0 && upwards == 0) return false;
    if (!event->isAutoRepeat()) gesture_ = nextGesture();
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    const Point by{sideways * step, upwards * step};
    if (relief_ % 2 == 0) all[at].from = all[at].from + by;
    all[at].to = all[at].to + by;
    if (distance(all[at].from, all[at].to) >= 1) emit reliefsMoved(all, gesture_);
    return true;
}

bool SetOutBench::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const int piece = pieceAt(help->pos());
        if (piece >= 0)
            QToolTip::showText(
                help->globalPos(),
                stepPiece(layer()->setOut, piece, layer()->family, figuresFor(document_.job(), decimalMark_)), this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

void SetOutBench::showNeighbours(bool shown) {
    neighbours_ = shown;
    update();
}

} // namespace westrum
