#include "app/stages/cut/cut_bench.h"

#include "app/document/cut_commands.h"
#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"

#include <QApplication>
#include <QFontMetricsF>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <cmath>

namespace westrum {
namespace {

constexpr double kGutter = 50; ///< left of a bar, for its number
constexpr double kGap = 14;
constexpr double kCoil = 20; ///< right of a roll, where it is still rolled up

} // namespace

CutBench::CutBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("The stock and what is cut from it"));
}

void CutBench::show(std::shared_ptr<const ProductCut> cut) {
    if (cut == cut_) return;
    // The piece in hand is followed to where it lies now.
    std::string key;
    const bool same = cut && cut_ && cut->product == cut_->product;
    if (same && item_ < int(cut_->items.size()) && piece_ >= 0 &&
        piece_ < int(cut_->items[std::size_t(item_)].pieces.size()))
        key = cut_->items[std::size_t(item_)].pieces[std::size_t(piece_)].key;
    cut_ = std::move(cut);
    dragged_.reset();
    if (!same) {
        item_ = 0;
        piece_ = -1;
        lit_.clear();
    }
    if (cut_ && !key.empty())
        for (std::size_t i = 0; i < cut_->items.size(); ++i)
            for (std::size_t n = 0; n < cut_->items[i].pieces.size(); ++n)
                if (cut_->items[i].pieces[n].key == key) {
                    item_ = int(i);
                    piece_ = int(n);
                }
    const int items = cut_ ? int(cut_->items.size()) : 0;
    item_ = std::clamp(item_, 0, std::max(0, items - 1));
    if (piece_ >= 0 && (items == 0 || piece_ >= int(cut_->items[std::size_t(item_)].pieces.size()))) piece_ = -1;
    layOut();
    update();
    emit inHandChanged();
}

void CutBench::layOut() {
    places_.clear();
    if (!cut_) return;
    const double head = QFontMetricsF(textFont(0.85)).height() + 4;
    const bool bars = cut_->form == StockForm::Lengths;
    const double room = width() - 4;
    double longest = 1, widest = 1;
    for (const CutItem& item : cut_->items) {
        longest = std::max(longest, item.lengthMm);
        widest = std::max(widest, item.widthMm);
    }
    int columns = 1;
    if (bars)
        columns = cut_->items.size() > 8 ? std::max(1, int(room / 300)) : 1;
    else if (cut_->form == StockForm::Sheets && cut_->items.size() > 1)
        columns = std::max(1, int(room / 380));
    columns = std::min(columns, 3);
    const double gutter = bars ? kGutter : 0;
    const double coil = cut_->form == StockForm::Roll ? kCoil : 0;
    double scale = (room - (columns - 1) * kGap) / columns - gutter - coil;
    scale = std::max(40.0, scale) / longest;
    // One item alone must not fill the whole page.
    if (!bars)
        scale = std::min(scale, std::max(220.0, 0.58 * (parentWidget() ? parentWidget()->height() : 400)) / widest);
    double x = 2, y = 0, rowHeight = 0;
    for (const CutItem& item : cut_->items) {
        Place place;
        double tall = item.widthMm * scale;
        if (bars) {
            const double wanted = std::clamp(tall, columns > 1 ? 22.0 : 30.0, 46.0);
            place.grown = wanted / tall;
            tall = wanted;
        }
        const double w = item.lengthMm * scale + gutter;
        if (x > 2 && x + w > room + 3) {
            x = 2;
            y += rowHeight;
            rowHeight = 0;
        }
        const double top = y + (bars ? 0 : head);
        place.box = QRectF(x + gutter, top + 2, item.lengthMm * scale, tall);
        place.head = bars ? QPointF(x, top + tall / 2 + 2) : QPointF(x, y + head / 2);
        place.view = PlanView({{0, 0}, {item.lengthMm, item.widthMm * place.grown}}, place.box);
        places_.push_back(place);
        x += w + kGap;
        rowHeight = std::max(rowHeight, tall + (bars ? 8 : head + 20));
        if (bars) { // columns of bars keep their places
            const double step = (room + kGap) / columns;
            x = 2 + std::ceil((x - 2 - 1) / step) * step;
        }
    }
    height_ = int(y + rowHeight + 8);
    setMinimumHeight(height_);
    updateGeometry();
}

void CutBench::resizeEvent(QResizeEvent*) { layOut(); }

QPointF CutBench::middleOf(int item, int piece) const {
    if (!cut_ || item < 0 || item >= int(places_.size())) return {};
    const Place& place = places_[std::size_t(item)];
    const Bounds b = boundsOf(cut_->items[std::size_t(item)].pieces[std::size_t(piece)].shape);
    const Point middle = (b.low + b.high) * 0.5;
    return place.view.map({middle.x, middle.y * place.grown});
}

Point CutBench::onStock(int item, QPointF at) const {
    const Place& place = places_[std::size_t(item)];
    const Point p = place.view.unmap(at);
    return {p.x, p.y / place.grown};
}

CutBench::At CutBench::under(QPointF at) const {
    for (std::size_t i = 0; i < places_.size(); ++i) {
        if (!places_[i].box.adjusted(-kGutter, -22, 6, 6).contains(at)) continue;
        const Point p = onStock(int(i), at);
        const CutItem& item = cut_->items[i];
        for (std::size_t n = 0; n < item.pieces.size(); ++n)
            if (contains(item.pieces[n].shape, p)) return {int(i), int(n)};
        return {int(i), -1};
    }
    return {};
}

void CutBench::paintEvent(QPaintEvent* event) {
    if (!cut_) return;
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Product* product = document_.job().catalogue.find(cut_->product);
    const std::string family = product ? product->family : std::string();
    const bool bars = cut_->form == StockForm::Lengths;
    for (std::size_t i = 0; i < places_.size(); ++i) {
        const Place& place = places_[i];
        if (!place.box.adjusted(-kGutter, -30, 20, 30).intersects(QRectF(event->rect()))) continue;
        const CutItem& item = cut_->items[i];
        const bool inHand = int(i) == item_;
        QString name = itemName(*cut_, i, family);
        p.setFont(textFont(0.85, inHand));
        p.setPen(inHand ? t.chalk : item.locked ? t.agreed : t.muted);
        if (bars) {
            QString number = item.rack ? tr("rack") : QString::number(i + 1);
            if (item.locked) number = QStringLiteral("✓ ") + number;
            p.drawText(QRectF(place.head.x(), place.head.y() - 12, kGutter - 8, 24), Qt::AlignRight | Qt::AlignVCenter,
                       number);
        } else {
            name += QStringLiteral("   ") +
                    (cut_->form == StockForm::Roll && !item.rack
                         ? tr("%1 long, %2 wide").arg(f.length({item.lengthMm}, false), f.length({item.widthMm}, false))
                         : sizeText(item.lengthMm, item.widthMm, cut_->form, f));
            if (item.locked) name += QStringLiteral("   ") + tr("✓ being cut: stays as it is");
            p.drawText(QRectF(place.head.x(), place.head.y() - 12, place.box.width() + kGap, 24),
                       Qt::AlignLeft | Qt::AlignVCenter,
                       QFontMetricsF(p.font()).elidedText(name, Qt::ElideRight, place.box.width() + kGap));
        }
        if (cut_->form == StockForm::Roll && !item.rack && !item.locked) {
            QPainterPath coil;
            coil.addEllipse(QRectF(place.box.right() - 12, place.box.top(), 30, place.box.height()));
            paintLining(p, coil, liningTone(cut_->product).darker(112));
            p.setPen(QPen(t.graphite, 1));
            p.setBrush(Qt::NoBrush);
            p.drawPath(coil);
        }
        CutMarks marks;
        marks.lit = lit_;
        marks.inHand = inHand ? piece_ : -1;
        marks.strokes = inHand && cut_->form != StockForm::Lengths;
        paintCutItem(p, place.view, document_.job(), *cut_, widened(item, place.grown), f, marks);
        if (bars && inHand) {
            p.setPen(QPen(t.chalk, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(place.box.adjusted(-2, -2, 2, 2));
        }
        if (!bars) continue;
        for (const CutStep& step : item.order) {
            if (step.kind != CutStep::Kind::Across) continue;
            const double x = place.view.map({step.atMm, 0}).x();
            p.setPen(QPen(t.pencil, 1.6));
            p.drawLine(QPointF(x, place.box.top() - 2), QPointF(x, place.box.bottom() + 2));
        }
    }
    if (dragged_ && dragged_->onto >= 0) {
        const Place& place = places_[std::size_t(dragged_->onto)];
        const LyingPiece& lies = cut_->items[std::size_t(dragged_->item)].pieces[std::size_t(dragged_->piece)];
        Region ghost = shapeAt(cut_->pieces[std::size_t(lies.piece)].shape, dragged_->rotationRad, dragged_->place.at);
        for (Ring& ring : ghost.rings)
            for (Point& q : ring) q.y *= place.grown;
        QColor wash = dragged_->place.fits ? t.chalk : t.pencil;
        p.setPen(QPen(wash, 2));
        wash.setAlpha(70);
        p.setBrush(wash);
        p.drawPath(place.view.path(ghost));
        const QString at = cut_->form == StockForm::Lengths ? f.length({dragged_->place.at.x}, false)
                                                            : tr("%1, %2").arg(f.length({dragged_->place.at.x}, false),
                                                                               f.length({dragged_->place.at.y}, false));
        paintLabel(p, place.view.path(ghost).boundingRect().center(),
                   dragged_->place.fits ? at : tr("does not fit here"), dragged_->place.fits ? t.chalk : t.pencil,
                   true);
    }
}

void CutBench::takeInHand(int item, int piece) {
    if (!cut_ || item < 0 || item >= int(cut_->items.size())) return;
    if (item == item_ && piece == piece_) return;
    item_ = item;
    piece_ = piece;
    update();
    emit inHandChanged();
}

void CutBench::light(std::set<int> pieces) {
    if (pieces == lit_) return;
    lit_ = std::move(pieces);
    update();
}

void CutBench::mousePressEvent(QMouseEvent* event) {
    if (!cut_ || event->button() != Qt::LeftButton) return;
    pressedAt_ = event->position();
    pressed_ = under(pressedAt_);
    if (pressed_.item >= 0) takeInHand(pressed_.item, pressed_.piece);
}

void CutBench::mouseMoveEvent(QMouseEvent* event) {
    if (!cut_) return;
    if (!(event->buttons() & Qt::LeftButton)) {
        const At at = under(event->position());
        const int piece = at.piece >= 0 ? cut_->items[std::size_t(at.item)].pieces[std::size_t(at.piece)].piece : -1;
        emit pointedAt(piece);
        return;
    }
    if (!dragged_) {
        if (pressed_.piece < 0 ||
            (event->position() - pressedAt_).manhattanLength() < QApplication::startDragDistance())
            return;
        const CutItem& item = cut_->items[std::size_t(pressed_.item)];
        const LyingPiece& lies = item.pieces[std::size_t(pressed_.piece)];
        if (item.decided) return emit said(tr("Where planks are cut is decided in Set out."), false);
        if (item.locked || lies.piece < 0)
            return emit said(tr("What is being cut stays where it is; take its ticks away to move it."), true);
        const Point grip = onStock(pressed_.item, pressedAt_) - boundsOf(lies.shape).low;
        dragged_ = Dragged{
            document_.cutting().problem(cut_->product), pressed_.item, pressed_.piece, grip, lies.rotationRad, -1, {}};
    }
    dragTo(event->position());
}

void CutBench::dragTo(QPointF at) {
    // Onto the item under the pointer, or the one that it came from.
    int onto = under(at).item;
    if (onto < 0 || cut_->items[std::size_t(onto)].decided || cut_->items[std::size_t(onto)].locked)
        onto = dragged_->item;
    const LyingPiece& lies = cut_->items[std::size_t(dragged_->item)].pieces[std::size_t(dragged_->piece)];
    dragged_->onto = onto;
    dragged_->place = placeByHand(dragged_->problem, *cut_, std::size_t(onto), lies.piece, dragged_->rotationRad,
                                  onStock(onto, at) - dragged_->grip, 14 / places_[std::size_t(onto)].view.scale());
    update();
}

void CutBench::mouseReleaseEvent(QMouseEvent*) {
    if (!dragged_) return;
    const Dragged d = *std::exchange(dragged_, std::nullopt);
    update();
    if (d.onto < 0) return;
    const QString name = pieceText(cut_->items[std::size_t(d.item)].pieces[std::size_t(d.piece)].name);
    if (!d.place.fits)
        return emit said(tr("%1 does not fit there: it would lie over a pinned piece or beyond the edge.").arg(name),
                         true);
    push(document_, movePiece(document_, *cut_, std::size_t(d.item), std::size_t(d.piece), std::size_t(d.onto),
                              d.place.at, d.rotationRad));
    emit said(tr("%1 is pinned there; the rest is planned round it.").arg(name), false);
}

void CutBench::pinInHand() {
    if (!cut_ || piece_ < 0) return;
    const CutItem& item = cut_->items[std::size_t(item_)];
    if (item.decided) return emit said(tr("Where planks are cut is decided in Set out."), false);
    if (item.locked) return emit said(tr("What is being cut stays where it is; take its ticks away to move it."), true);
    push(document_,
         pinPiece(document_, *cut_, std::size_t(item_), std::size_t(piece_), !item.pieces[std::size_t(piece_)].pinned));
}

void CutBench::turnInHand() {
    if (!cut_ || piece_ < 0) return;
    const CutItem& item = cut_->items[std::size_t(item_)];
    const LyingPiece& lies = item.pieces[std::size_t(piece_)];
    if (item.decided || item.locked || lies.piece < 0)
        return emit said(tr("This piece cannot be turned: it is decided or being cut."), true);
    const CutProblem problem = document_.cutting().problem(cut_->product);
    const std::vector<double> turns = turnsOf(problem, cut_->pieces[std::size_t(lies.piece)]);
    if (turns.size() < 2) return emit said(tr("Grain or nap keep this piece as it lies."), true);
    double next = turns.front();
    for (const double turn : turns)
        if (turn > lies.rotationRad + 0.01) {
            next = turn;
            break;
        }
    const HandPlace place = placeByHand(problem, *cut_, std::size_t(item_), lies.piece, next, lies.at, 40);
    if (!place.fits) return emit said(tr("Turned, it has no room there."), true);
    push(document_,
         movePiece(document_, *cut_, std::size_t(item_), std::size_t(piece_), std::size_t(item_), place.at, next));
}

void CutBench::tickInHand() {
    if (!cut_ || cut_->items.empty()) return;
    if (piece_ < 0) {
        const auto& pieces = cut_->items[std::size_t(item_)].pieces;
        const bool all = std::all_of(pieces.begin(), pieces.end(), [](const LyingPiece& l) { return l.cut; });
        push(document_, tickItem(document_, *cut_, std::size_t(item_), !all));
    } else {
        push(document_, tickPiece(document_, *cut_, std::size_t(item_), std::size_t(piece_),
                                  !cut_->items[std::size_t(item_)].pieces[std::size_t(piece_)].cut));
    }
}

void CutBench::moveBy(Point by) {
    const CutItem& item = cut_->items[std::size_t(item_)];
    if (piece_ < 0 || item.decided || item.locked) return;
    const LyingPiece& lies = item.pieces[std::size_t(piece_)];
    if (lies.piece < 0) return;
    const HandPlace place = placeByHand(document_.cutting().problem(cut_->product), *cut_, std::size_t(item_),
                                        lies.piece, lies.rotationRad, lies.at + by, 0);
    if (!place.fits) return emit said(tr("It does not fit there."), true);
    push(document_, movePiece(document_, *cut_, std::size_t(item_), std::size_t(piece_), std::size_t(item_), place.at,
                              lies.rotationRad));
}

void CutBench::keyPressEvent(QKeyEvent* event) {
    if (!cut_ || cut_->items.empty()) return QWidget::keyPressEvent(event);
    const int pieces = int(cut_->items[std::size_t(item_)].pieces.size());
    const int items = int(cut_->items.size());
    if (event->modifiers() & Qt::ControlModifier) {
        const double step = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
        switch (event->key()) {
        case Qt::Key_Left: return moveBy({-step, 0});
        case Qt::Key_Right: return moveBy({step, 0});
        case Qt::Key_Up: return moveBy({0, step});
        case Qt::Key_Down: return moveBy({0, -step});
        default: return QWidget::keyPressEvent(event);
        }
    }
    switch (event->key()) {
    case Qt::Key_Right: return takeInHand(item_, pieces == 0 ? -1 : (piece_ + 1) % pieces);
    case Qt::Key_Left: return takeInHand(item_, pieces == 0 ? -1 : (std::max(piece_, 0) + pieces - 1) % pieces);
    case Qt::Key_Down: return takeInHand(std::min(item_ + 1, items - 1), -1);
    case Qt::Key_Up: return takeInHand(std::max(item_ - 1, 0), -1);
    case Qt::Key_P: return pinInHand();
    case Qt::Key_R: return turnInHand();
    case Qt::Key_Space: return tickInHand();
    case Qt::Key_Escape:
        dragged_.reset();
        update();
        return;
    default: QWidget::keyPressEvent(event);
    }
}

void CutBench::leaveEvent(QEvent*) { emit pointedAt(-1); }

bool CutBench::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip && cut_) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const At at = under(help->pos());
        if (at.piece >= 0) {
            const LyingPiece& lies = cut_->items[std::size_t(at.item)].pieces[std::size_t(at.piece)];
            const Figures f = figuresFor(document_.job(), decimalMark_);
            QString text = pieceText(lies.name);
            if (lies.piece >= 0) {
                const CutPiece& piece = cut_->pieces[std::size_t(lies.piece)];
                text += QStringLiteral("   ") + sizeText(piece, cut_->form, f);
                if (const Surface* s = document_.job().surface(piece.surface))
                    text += QStringLiteral("   ") + QString::fromStdString(s->name);
            }
            QToolTip::showText(help->globalPos(), text, this);
        } else {
            QToolTip::hideText();
        }
        return true;
    }
    return QWidget::event(event);
}

} // namespace westrum
