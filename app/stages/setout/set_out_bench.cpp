#include "app/stages/setout/set_out_bench.h"

#include "app/drawing/dimension.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "app/widgets/gesture.h"
#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/plank.h"
#include "core/geometry/boolean.h"
#include "core/setout/lining.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kReach = 9;       ///< pixels within which a handle is taken
constexpr double kSnapPixels = 12; ///< within which a joint falls onto a support

/// A start line's widest offset: the whole of what a first row would be.
double moduleOf(const Product& product) {
    if (product.family == "planks") return plankOf(product).width.value;
    if (product.family == "boards") return boardOf(product).cover.value;
    if (product.family == "tiles") return tileOf(product).height.value;
    return 0;
}

void grip(QPainter& p, QPointF at, bool upDown, bool focus) {
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

PlanView SetOutBench::view(const SurfacePlan& plan) const {
    Bounds b = boundsOf(plan.measured.outline);
    if (const LayerPlan* l = layer(); l && stockFormOf(l->family) == StockForm::Roll) // what is left at the edges shows
        for (const Piece& piece : l->setOut.pieces) {
            if (!liesBeside(piece, unitInHand()) || (piece.shape.empty() && l->family == "roll") ||
                held_.handle == Handle::Allowance)
                continue;
            const Bounds c = boundsOf(piece.cut);
            b.low = {std::min(b.low.x, c.low.x), std::min(b.low.y, c.low.y)};
            b.high = {std::max(b.high.x, c.high.x), std::max(b.high.y, c.high.y)};
        }
    if (held_.handle == Handle::Allowance) b = heldBounds_;
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

QPointF SetOutBench::reliefHandle(int index) const {
    const LayerPlan* l = layer();
    const auto at = static_cast<std::size_t>(index / 2);
    if (!l || l->family != "roll" || index < 0 || at >= reliefs().size()) return {};
    return view(*plan()).map(index % 2 == 0 ? reliefs()[at].from : reliefs()[at].to);
}

QPointF SetOutBench::proposalHandle() const {
    const LayerPlan* l = layer();
    if (!l || !l->setOut.proposedRelief) return {};
    const ReliefCut& r = *l->setOut.proposedRelief;
    return view(*plan()).map((r.from + r.to) * 0.5);
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
    if (!p || !l || l->family != "roll" || !l->setOut.laid()) return;
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

QPointF SetOutBench::startHandle() const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!l || !l->setOut.laid() || !findFamily(l->family)->startAt) return {};
    const PlanView v = view(*p);
    const Bounds b = boundsOf(p->measured.outline);
    return l->setOut.rowsAcross ? v.map({l->setOut.startLine, b.high.y}) + QPointF(0, -6)
                                : v.map({b.high.x, l->setOut.startLine}) + QPointF(22, 0);
}

QPointF SetOutBench::columnHandle() const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!l || !l->setOut.laid() || !l->setOut.startColumn) return {};
    return view(*p).map({*l->setOut.startColumn, boundsOf(p->measured.outline).high.y}) + QPointF(0, -6);
}

bool SetOutBench::seamsLevel() const {
    const LayerPlan* l = layer();
    return l && l->family == "roll" && l->setOut.pile && std::abs(l->setOut.pile->x) > 0.5;
}

SetOutBench::EdgeRule SetOutBench::edgeRule() const {
    const LiningRules rules = liningRulesOf(layer()->rules);
    const Surface* s = document_.job().surface(document_.currentSurface());
    if (rules.upstand.value > 0 && s && liesLevel(s->kind)) return {"upstand", rules.upstand};
    return {"allowance", rules.allowance};
}

QPointF SetOutBench::allowanceHandle() const {
    const LayerPlan* l = layer();
    if (!l || l->family != "roll" || l->setOut.pieces.empty()) return {};
    const LiningRules rules = liningRulesOf(l->rules);
    if (rules.face != LinedFace::Surface) return {};
    // On the upper edge of the first piece that has one.
    const Bounds cut = boundsOf(l->setOut.pieces.front().cut);
    return view(*plan()).map({cut.low.x + cut.width() * 0.3, cut.high.y});
}

std::vector<double> SetOutBench::jointsOf(const SetOut& setOut) const {
    std::vector<double> xs;
    if (seamsLevel()) {
        for (const Joint& j : setOut.joints) xs.push_back(j.from.y);
        std::sort(xs.begin(), xs.end());
        xs.erase(std::unique(xs.begin(), xs.end()), xs.end());
        return xs;
    }
    for (const Joint& j : setOut.joints)
        if (std::abs(j.from.x - j.to.x) < 1e-6 && (xs.empty() || std::abs(xs.back() - j.from.x) > 1))
            xs.push_back(j.from.x);
    std::sort(xs.begin(), xs.end());
    xs.erase(std::unique(xs.begin(), xs.end()), xs.end());
    return xs;
}

QPointF SetOutBench::jointHandle(int joint) const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!l || (l->family != "sheet" && l->family != "roll")) return {};
    const std::vector<double> xs = jointsOf(l->setOut);
    if (joint < 0 || joint >= static_cast<int>(xs.size())) return {};
    if (seamsLevel())
        return view(*p).map({boundsOf(p->measured.outline).high.x, xs[static_cast<std::size_t>(joint)]}) +
               QPointF(34, 0);
    return view(*p).map({xs[static_cast<std::size_t>(joint)], boundsOf(p->measured.outline).high.y}) + QPointF(0, -6);
}

QPointF SetOutBench::taperHandle() const {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!l || l->family != "boards" || l->setOut.taperBoards <= 0 || l->setOut.rowsAcross) return {};
    const auto from = l->setOut.rows.size() - static_cast<std::size_t>(l->setOut.taperBoards);
    return view(*p).map({boundsOf(p->measured.outline).high.x, l->setOut.rows[from].low}) + QPointF(22, 0);
}

SetOutBench::Held SetOutBench::handleAt(QPointF at) const {
    const LayerPlan* l = layer();
    const SurfacePlan* p = plan();
    if (!l || !l->setOut.laid()) return {};
    const auto near = [&](QPointF handle) {
        return !handle.isNull() && std::hypot(handle.x() - at.x(), handle.y() - at.y()) < kReach + 4;
    };
    if (near(taperHandle())) return {Handle::Taper, -1};
    if (near(proposalHandle())) return {Handle::Proposal, -1};
    for (int r = 0; !reliefHandle(r).isNull(); ++r)
        if (near(reliefHandle(r))) return {Handle::Relief, r};
    for (int j = 0; !jointHandle(j).isNull(); ++j) {
        const QPointF handle = jointHandle(j);
        if (std::abs(seamsLevel() ? handle.y() - at.y() : handle.x() - at.x()) < kReach) return {Handle::Joint, j};
    }
    if (near(allowanceHandle())) return {Handle::Allowance, -1};
    if (l->family == "boards")
        for (const PlacedOpening& o : p->shape.openings) {
            const Surface* s = document_.job().surface(document_.currentSurface());
            if (s->openings[static_cast<std::size_t>(o.opening)].kind == OpeningKind::Lamp &&
                view(*p).path(o.shape).boundingRect().adjusted(-4, -4, 4, 4).contains(at))
                return {Handle::Lamp, o.opening};
        }
    if (near(columnHandle())) return {Handle::Column, -1};
    const QPointF start = startHandle();
    if (!start.isNull() && std::abs(l->setOut.rowsAcross ? at.x() - start.x() : at.y() - start.y()) < kReach)
        return {Handle::Start, -1};
    return {};
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

void SetOutBench::moveStartTo(double offset, int gesture) {
    const Product* p = product();
    if (!p || moduleOf(*p) <= 0) return;
    // Whole millimetres, as one rips; from a full first row to the narrowest that can be called one.
    emit startMoved({std::clamp(std::round(offset), 0.0, std::ceil(moduleOf(*p)) - 1)}, gesture);
}

void SetOutBench::moveColumnTo(double offset, int gesture) {
    const Product* p = product();
    if (!p || p->family != "tiles") return;
    emit columnMoved({std::clamp(std::round(offset), 0.0, std::ceil(tileOf(*p).width.value) - 1)}, gesture);
}

void SetOutBench::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = handleAt(event->position());
    const LayerPlan* l = layer();
    if (held_.handle == Handle::Allowance) { // what is shown stays as it is while the margins grow
        held_.handle = Handle::None;
        const PlanView v = view(*plan());
        heldBounds_ = {v.unmap(QPointF(74, height() - 44)), v.unmap(QPointF(width() - 56, 16))};
        held_.handle = Handle::Allowance;
    }
    if (held_.handle == Handle::Proposal) {
        held_ = {};
        return addRelief();
    }
    relief_ = held_.handle == Handle::Relief ? held_.index : -1;
    if (held_.handle == Handle::None) {
        if (const int piece = pieceAt(event->position()); l && piece != piece_) {
            piece_ = piece;
            emit piecePointed(piece);
            update();
        }
        return;
    }
    const Point at = view(*plan()).unmap(event->position());
    gesture_ = nextGesture();
    const SetOut& s = l->setOut;
    if (held_.handle == Handle::Start) grab_ = (s.rowsAcross ? at.x : at.y) - s.startLine;
    if (held_.handle == Handle::Column) grab_ = at.x - *s.startColumn;
    if (held_.handle == Handle::Joint) {
        dragged_ = jointsOf(s);
        joint_ = held_.index;
        grab_ = (seamsLevel() ? at.y : at.x) - dragged_[static_cast<std::size_t>(joint_)];
    }
    if (held_.handle == Handle::Allowance) grab_ = at.y - edgeRule().now.value;
}

void SetOutBench::dragTo(QPointF screen) {
    const SurfacePlan* p = plan();
    const LayerPlan* l = layer();
    if (!p || !l || (l->setOut.rows.empty() && l->family != "roll")) return;
    const Point at = view(*p).unmap(screen);
    const SetOut& s = l->setOut;
    switch (held_.handle) {
    case Handle::Start: {
        const double firstRow = (s.rowsAcross ? at.x : at.y) - grab_ -
                                (s.jointWidth.value > 0 ? boundsOf(s.net).low.y : s.rows.front().low);
        moveStartTo(moduleOf(*product()) - firstRow, gesture_);
        break;
    }
    case Handle::Column:
        moveColumnTo(tileOf(*product()).width.value - (at.x - grab_ - boundsOf(s.net).low.x), gesture_);
        break;
    case Handle::Joint: {
        const Bounds b = boundsOf(s.net);
        const auto j = static_cast<std::size_t>(held_.index);
        if (j >= dragged_.size()) return;
        const bool level = seamsLevel();
        const double low = j == 0 ? (level ? b.low.y : b.low.x) : dragged_[j - 1],
                     high = j + 1 == dragged_.size() ? (level ? b.high.y : b.high.x) : dragged_[j + 1];
        const double to = level                 ? std::round(at.y - grab_)
                          : l->family == "roll" ? std::round(at.x - grab_)
                                                : snapped(at.x - grab_);
        const double x = std::clamp(to, low + 20, std::max(low + 20, high - 20));
        if (std::abs(x - dragged_[j]) < 1e-9) return;
        dragged_[j] = x;
        emit jointsMoved(dragged_, gesture_);
        break;
    }
    case Handle::Allowance:
        emit allowanceMoved(edgeRule().key, {std::clamp(std::round(at.y - grab_), 0.0, 300.0)}, gesture_);
        break;
    case Handle::Relief: {
        std::vector<ReliefCut> all = reliefs();
        if (held_.index / 2 >= static_cast<int>(all.size())) return;
        ReliefCut& r = all[static_cast<std::size_t>(held_.index / 2)];
        const Point to{std::round(at.x), std::round(at.y)};
        if (held_.index % 2 == 0) // by its outer end the whole of it goes along
            r = {to, r.to + (to - r.from)};
        else
            r.to = to;
        if (distance(r.from, r.to) >= 1) emit reliefsMoved(all, gesture_);
        break;
    }
    case Handle::Proposal: break;
    case Handle::Taper: {
        int boards = 0;
        for (const Row& r : s.rows) boards += (r.low + r.high) / 2 > at.y ? 1 : 0;
        boards = std::clamp(boards, 1, static_cast<int>(s.rows.size()));
        if (boards != s.taperBoards) emit taperMoved(boards);
        break;
    }
    case Handle::Lamp: {
        // Across the rows it falls onto the middle of one.
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
        emit lampMoved(held_.index, centre);
        break;
    }
    case Handle::None: break;
    }
}

void SetOutBench::mouseMoveEvent(QMouseEvent* event) {
    if (held_.handle != Handle::None) return dragTo(event->position());
    const LayerPlan* l = layer();
    switch (handleAt(event->position()).handle) {
    case Handle::Start: setCursor(l->setOut.rowsAcross ? Qt::SizeHorCursor : Qt::SizeVerCursor); break;
    case Handle::Taper: setCursor(Qt::SizeVerCursor); break;
    case Handle::Allowance: setCursor(Qt::SizeVerCursor); break;
    case Handle::Joint: setCursor(seamsLevel() ? Qt::SizeVerCursor : Qt::SizeHorCursor); break;
    case Handle::Column: setCursor(Qt::SizeHorCursor); break;
    case Handle::Lamp:
    case Handle::Relief: setCursor(Qt::OpenHandCursor); break;
    case Handle::Proposal: setCursor(Qt::PointingHandCursor); break;
    case Handle::None: setCursor(Qt::ArrowCursor); break;
    }
}

void SetOutBench::mouseReleaseEvent(QMouseEvent*) { held_ = {}; }

void SetOutBench::keyPressEvent(QKeyEvent* event) {
    const LayerPlan* l = layer();
    const int sideways = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int upwards = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
    if (relief_ >= 0 && !reliefHandle(relief_).isNull() && keyOnRelief(event, sideways, upwards)) return;
    if (!l || !l->setOut.laid() || (sideways == 0 && upwards == 0)) return QWidget::keyPressEvent(event);
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    // Nudges that follow each other while the key is held are one gesture.
    if (!event->isAutoRepeat()) gesture_ = nextGesture();
    // From where the job has it: the plan may still be of the nudge before.
    const FieldValues& rules = document_.job()
                                   .finish(document_.currentSurface())
                                   .layers[static_cast<std::size_t>(document_.currentLayer())]
                                   .rules;
    const auto rule = [&](const char* key, Mm otherwise) {
        const auto found = rules.find(key);
        return found == rules.end() ? otherwise.value : found->second;
    };
    if (l->family == "sheet" || l->family == "roll") {
        std::vector<double> xs = jointsOf(l->setOut);
        if (xs.empty()) return;
        joint_ = std::clamp(joint_, 0, static_cast<int>(xs.size()) - 1);
        const int moves = seamsLevel() ? upwards : sideways, picks = seamsLevel() ? sideways : upwards;
        if (picks != 0) { // takes the next joint in hand
            joint_ = std::clamp(joint_ + picks, 0, static_cast<int>(xs.size()) - 1);
            return update();
        }
        xs[static_cast<std::size_t>(joint_)] += moves * step;
        emit jointsMoved(xs, gesture_);
        return;
    }
    if (l->family == "tiles" && sideways != 0) {
        const bool byHand = rule("startX", {0}) == 4;
        moveColumnTo((byHand ? rule("columnOffset", {0}) : l->setOut.columnOffset.value) - sideways * step, gesture_);
        return;
    }
    const bool byHand = l->family == "planks" || (l->family == "boards" && rule("start", {0}) == 4) ||
                        (l->family == "tiles" && rule("startY", {0}) == 4);
    const int wider = sideways != 0 ? sideways : upwards;
    moveStartTo((byHand ? rule("startOffset", {0}) : l->setOut.startOffset.value) - wider * step, gesture_);
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

void SetOutBench::paintEdges(QPainter& p, const SurfacePlan& plan, const SetOut& s, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Bounds b = boundsOf(plan.measured.outline);
    const double third = product() ? moduleOf(*product()) / 3 : 0;
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
    } else if (const LayerPlan* l = layer(); l && l->family == "roll") {
        // Each strip as it is cut, across the pile.
        const bool levelSeams = seamsLevel();
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
        for (const double x : jointsOf(s)) stops.push_back(x);
        stops.push_back(boundsOf(s.net).high.x);
        for (std::size_t i = 0; i + 1 < stops.size(); ++i)
            level(stops[i], stops[i + 1], Mm{stops[i + 1] - stops[i]}, true);
    }
    if (!s.rowsAcross && s.module > 0 && !s.startColumn && !neighbours_) // else it would stand on the neighbour
        paintDimension(p, v.map({b.low.x, b.low.y}) + QPointF(0, 22), v.map({b.high.x, b.low.y}) + QPointF(0, 22),
                       f.length({b.width()}), t.muted);
}

void SetOutBench::paintHandles(QPainter& p, const SurfacePlan& plan, const SetOut& s, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Bounds b = boundsOf(plan.measured.outline);
    const QPen dashed(t.chalk, 2.2, Qt::DashLine);
    const LayerPlan* l = layer();
    for (int j = 0; !jointHandle(j).isNull(); ++j) {
        const QPointF handle = jointHandle(j);
        const bool level = seamsLevel();
        p.setPen(dashed);
        p.drawLine(level ? QPointF(v.map(b.low).x() - 8, handle.y()) : QPointF(handle.x(), v.map(b.low).y() + 8),
                   handle);
        grip(p, handle, level, hasFocus() && j == joint_);
    }
    if (s.proposedRelief) {
        p.setPen(QPen(t.chalk, 2, Qt::DashLine));
        p.drawLine(v.map(s.proposedRelief->from), v.map(s.proposedRelief->to));
        const QPointF at = proposalHandle();
        p.setBrush(t.paper);
        p.setPen(QPen(t.chalk, 2));
        p.drawEllipse(at, 9, 9);
        p.drawLine(at - QPointF(4, 0), at + QPointF(4, 0));
        p.drawLine(at - QPointF(0, 4), at + QPointF(0, 4));
        p.setFont(textFont(0.8, true));
        const QString text = tr("relief cut here");
        paintLabel(p, at + QPointF(18 + QFontMetricsF(p.font()).horizontalAdvance(text) / 2, 0), text, t.chalk, true);
    }
    for (int r = 0; !reliefHandle(r).isNull(); ++r) {
        const QPointF at = reliefHandle(r);
        if (r % 2 == 0) { // the cut itself, also where it does not reach into the lining
            p.setPen(QPen(t.pencil, 2.4));
            p.drawLine(at, reliefHandle(r + 1));
        }
        grip(p, at, true, hasFocus() && r == relief_);
        if (r != relief_) continue;
        const ReliefCut& cut = reliefs()[static_cast<std::size_t>(r / 2)];
        p.setFont(textFont(0.8, true));
        const QString text = figuresFor(document_.job(), decimalMark_).length({distance(cut.from, cut.to)}, false);
        paintLabel(p, at + QPointF(18 + QFontMetricsF(p.font()).horizontalAdvance(text) / 2, 0), text, t.pencil, true);
    }
    if (s.centreLine && l->family != "planks") { // what the layout is centred on
        p.setPen(QPen(t.chalk, 1, Qt::DashDotLine));
        if (s.rowsAcross || s.module <= 0)
            p.drawLine(v.map({*s.centreLine, b.low.y}), v.map({*s.centreLine, b.high.y}));
        else
            p.drawLine(v.map({b.low.x, *s.centreLine}), v.map({b.high.x, *s.centreLine}));
    }
    if (const QPointF handle = taperHandle(); !handle.isNull()) {
        p.setPen(QPen(t.chalk, 1.4, Qt::DotLine));
        p.drawLine(handle, handle - QPointF(60, 0));
        grip(p, handle, true, false);
        p.setFont(textFont(0.8, true));
        const QString text = tr("taper: %1").arg(s.taperBoards);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
        paintLabel(p, handle - QPointF(34 + w / 2, 0), text, t.chalk, true);
    }
    if (const QPointF handle = allowanceHandle(); !handle.isNull()) {
        grip(p, handle, true, false);
        p.setFont(textFont(0.8, true));
        const EdgeRule rule = edgeRule();
        const QString text = (rule.key == std::string_view("upstand") ? tr("up-stand: %1") : tr("left to trim: %1"))
                                 .arg(figuresFor(document_.job(), decimalMark_).length(rule.now, false));
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
        paintLabel(p, handle + QPointF(20 + w / 2, 0), text, t.chalk, true);
    }
    if (const QPointF handle = columnHandle(); !handle.isNull()) {
        p.setPen(dashed);
        p.drawLine(QPointF(handle.x(), v.map(b.low).y() + 8), handle);
        grip(p, handle, false, hasFocus());
    }
    const QPointF handle = startHandle();
    if (handle.isNull()) return;
    p.setPen(dashed);
    p.drawLine(s.rowsAcross ? v.map({s.startLine, b.low.y}) + QPointF(0, 8)
                            : v.map({b.low.x, s.startLine}) + QPointF(-8, 0),
               handle);
    grip(p, handle, !s.rowsAcross, hasFocus());
    p.setFont(textFont(0.85, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(tr("start line"));
    paintLabel(
        p, s.rowsAcross ? handle + QPointF(w / 2 + 20, 0) : v.map({b.high.x, s.startLine}) + QPointF(-w / 2 - 10, 0),
        tr("start line"), t.chalk, true);
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
    const bool planks = l && l->family == "planks";
    paintSurfaceParts(p, v, *document_.job().surface(planned->surface), planned->shape,
                      {.supports = !planks || !s.laid(),
                       .supportsBehind = s.laid(),
                       .openings = !l || l->family != "cloth",
                       .names = !l || stockFormOf(l->family) != StockForm::Roll || !s.laid()});
    if (planned->datum && !planks) paintDatum(p, v, *planned->datum);
    if (!s.laid()) return;
    paintEdges(p, *planned, s, v);
    paintHandles(p, *planned, s, v);
}

} // namespace westrum
