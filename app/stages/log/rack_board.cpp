#include "app/stages/log/rack_board.h"

#include "app/drawing/offcut_drawing.h"
#include "app/drawing/theme.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kCardWidth = 230, kGap = 14, kDrawing = 118;

} // namespace

RackBoard::RackBoard(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("rackBoard"));
    setAccessibleName(tr("The rack"));
}

void RackBoard::show(std::vector<Card> cards, const Catalogue& catalogue, const Figures& figures) {
    const std::string before = inHand() ? inHand()->piece.number : std::string();
    cards_ = std::move(cards);
    catalogue_ = catalogue;
    figures_ = figures;
    inHand_ = cards_.empty() ? -1 : 0;
    for (std::size_t i = 0; i < cards_.size(); ++i)
        if (cards_[i].piece.number == before) inHand_ = static_cast<int>(i);
    updateGeometry();
    setMinimumHeight(heightForWidth(width()));
    update();
}

const RackBoard::Card* RackBoard::inHand() const {
    return inHand_ >= 0 && inHand_ < static_cast<int>(cards_.size()) ? &cards_[static_cast<std::size_t>(inHand_)]
                                                                     : nullptr;
}

void RackBoard::takeInHand(int card) {
    if (card < 0 || card >= static_cast<int>(cards_.size())) return;
    inHand_ = card;
    update();
    emit picked();
}

int RackBoard::columns(int width) const { return std::max(1, static_cast<int>((width + kGap) / (kCardWidth + kGap))); }

QSizeF RackBoard::cardSize(int width) const {
    const int n = columns(width);
    const double lines = QFontMetricsF(textFont(0.9)).height() * 4 + 10;
    return {(width - kGap * (n - 1)) / n, kDrawing + lines};
}

QRectF RackBoard::cardAt(int card) const {
    const QSizeF size = cardSize(width());
    const int n = columns(width());
    return {QPointF((card % n) * (size.width() + kGap), (card / n) * (size.height() + kGap)), size};
}

int RackBoard::heightForWidth(int width) const {
    const int n = columns(width);
    const int rows = (static_cast<int>(cards_.size()) + n - 1) / n;
    return static_cast<int>(std::ceil(rows * (cardSize(width).height() + kGap))) + 2;
}

QSize RackBoard::sizeHint() const { return {700, heightForWidth(700)}; }

void RackBoard::paintEvent(QPaintEvent*) {
    setMinimumHeight(heightForWidth(width()));
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    double longest = 1, widest = 1;
    for (const Card& c : cards_) {
        longest = std::max(longest, c.piece.lengthMm);
        widest = std::max(widest, c.piece.widthMm);
    }
    const QSizeF size = cardSize(width());
    const double scale = std::min((size.width() - 20) / longest, (kDrawing - 34) / widest);
    for (int i = 0; i < static_cast<int>(cards_.size()); ++i) {
        const Card& c = cards_[static_cast<std::size_t>(i)];
        const QRectF card = cardAt(i);
        const bool lit = i == inHand_;
        p.setPen(QPen(lit ? t.chalk : t.faint, lit ? 2.2 : 1));
        p.setBrush(t.raised);
        p.drawRoundedRect(card.adjusted(1, 1, -1, -1), 4, 4);
        // The number as on its label.
        p.setFont(textFont(1.08, true));
        p.setPen(t.graphite);
        const QString number = QString::fromStdString(c.piece.number);
        p.drawText(QRectF(card.left() + 10, card.top() + 5, 90, 22), Qt::AlignLeft | Qt::AlignVCenter, number);
        p.setFont(textFont(0.85));
        p.setPen(c.piece.state == RackPiece::State::Free ? t.agreed : c.mine ? t.chalk : t.pencil);
        p.drawText(QRectF(card.left() + 70, card.top() + 5, card.width() - 80, 22), Qt::AlignRight | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(c.state, Qt::ElideRight, card.width() - 80));
        const double w = c.piece.lengthMm * scale, h = std::max(6.0, c.piece.widthMm * scale);
        const QRectF at(card.left() + 10, card.top() + kDrawing - h, w, h);
        const Bounds b{{0, 0}, {c.piece.lengthMm, std::max(c.piece.widthMm, h / scale)}};
        paintOffcut(p, PlanView(b, at), c.piece, findIdentity(catalogue_, c.piece.product));
        double y = card.top() + kDrawing + 4;
        const auto line = [&](const QString& text, const QColor& ink, bool bold) {
            p.setFont(textFont(0.9, bold));
            p.setPen(ink);
            const double height = QFontMetricsF(p.font()).height();
            p.drawText(QRectF(card.left() + 10, y, card.width() - 20, height), Qt::AlignLeft | Qt::AlignVCenter,
                       QFontMetricsF(p.font()).elidedText(text, Qt::ElideRight, card.width() - 20));
            y += height;
        };
        line(QString::fromStdString(c.piece.name), t.graphite, true);
        line(offcutSize(c.piece, figures_), t.graphite, false);
        QStringList where;
        if (!c.piece.stands.empty()) where << QString::fromStdString(c.piece.stands);
        if (!c.piece.lot.empty()) where << tr("lot %1").arg(QString::fromStdString(c.piece.lot));
        line(where.isEmpty() ? tr("place not written down") : where.join(QStringLiteral(" · ")), t.muted, false);
        line(c.serves.isEmpty() ? tr("serves nothing here now") : c.serves, c.serves.isEmpty() ? t.muted : t.agreed,
             false);
    }
}

void RackBoard::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(cards_.size()); ++i)
        if (cardAt(i).contains(event->position())) takeInHand(i);
}

void RackBoard::keyPressEvent(QKeyEvent* event) {
    const int n = columns(width());
    switch (event->key()) {
    case Qt::Key_Left: return takeInHand(inHand_ - 1);
    case Qt::Key_Right: return takeInHand(inHand_ + 1);
    case Qt::Key_Up: return takeInHand(inHand_ - n);
    case Qt::Key_Down: return takeInHand(inHand_ + n);
    default: QWidget::keyPressEvent(event);
    }
}

} // namespace westrum
