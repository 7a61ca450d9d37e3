#include "app/drawing/set_out_drawing.h"

#include "app/drawing/dimension.h"
#include "app/drawing/finish_style.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"

#include <QCoreApplication>
#include <QFontMetricsF>

namespace westrum {
namespace {

struct SetOutDrawing {
    Q_DECLARE_TR_FUNCTIONS(SetOutDrawing)
};

/// Piece name and length at the piece's middle, if there is room; the name alone if not; turned for rows across.
void paintName(QPainter& painter, const QPainterPath& shape, const Piece& piece, bool alongX, const Figures& figures,
               const QString& note, const QColor& ink) {
    const QRectF box = shape.boundingRect();
    const double along = alongX ? box.width() : box.height();
    const double across = alongX ? box.height() : box.width();
    painter.setFont(textFont(0.8));
    const QFontMetricsF metrics(painter.font());
    if (across < metrics.height() + 1) return;
    const QString name = pieceText(piece.name);
    const QString length = figures.length(piece.length, false);
    QString text = name + QStringLiteral("   ") + length + (note.isEmpty() ? QString() : QStringLiteral("   ") + note);
    if (metrics.horizontalAdvance(text) + 12 > along) text = name + QStringLiteral("   ") + length;
    if (metrics.horizontalAdvance(text) + 12 > along) text = name;
    if (metrics.horizontalAdvance(text) + 4 > along) return;
    // Where nothing is cut out: in the middle of the piece, else in its upper or lower half.
    const double width = metrics.horizontalAdvance(text);
    const auto fits = [&](double share) {
        const QRectF upright = alongX ? QRectF(box.left() + 6, box.top() + across * share - metrics.height() / 2 + 2,
                                               width, metrics.height() - 4)
                                      : QRectF(box.left() + across * share - metrics.height() / 2 + 2,
                                               box.bottom() - 6 - width, metrics.height() - 4, width);
        return shape.contains(upright);
    };
    double share = 0.5;
    if (piece.notched && !fits(0.5)) {
        share = fits(0.7) ? 0.7 : 0.3;
        if (!fits(share)) return;
    }
    painter.save();
    painter.translate(alongX ? QPointF(box.center().x(), box.top() + across * share)
                             : QPointF(box.left() + across * share, box.center().y()));
    if (!alongX) painter.rotate(-90);
    const QRectF label(-along / 2 + 6, -metrics.height() / 2, along - 12, metrics.height());
    painter.setPen(ink);
    painter.drawText(label, Qt::AlignVCenter | Qt::AlignLeft, text);
    painter.restore();
}

/// A panel's number and size, in its middle or above what is cut out of it.
void paintPanelName(QPainter& painter, const QPainterPath& shape, const Piece& piece, const Figures& figures,
                    const QColor& ink) {
    const QRectF box = shape.boundingRect();
    painter.setFont(textFont(0.85));
    const QFontMetricsF metrics(painter.font());
    QStringList lines{piece.cut.empty() ? SetOutDrawing::tr("panel %1").arg(pieceText(piece.name))
                                        : SetOutDrawing::tr("piece %1").arg(pieceText(piece.name)),
                      figures.length(piece.length, false) + QStringLiteral(" × ") + figures.length(piece.width, false)};
    if (piece.removable) lines << SetOutDrawing::tr("comes off");
    // All of it where there is room, else its number alone; in the middle, or beside what is cut out.
    for (const QStringList& text : {lines, QStringList{pieceText(piece.name)}}) {
        double width = 0;
        for (const QString& l : text) width = std::max(width, metrics.horizontalAdvance(l));
        QRectF at(0, 0, width + 6, metrics.lineSpacing() * static_cast<double>(text.size()) + 4);
        for (const double across : {0.5, 0.25, 0.75, 0.12, 0.88})
            for (const double down : {0.5, 0.3, 0.7, 0.16, 0.84}) {
                at.moveCenter({box.left() + box.width() * across, box.top() + box.height() * down});
                if (!shape.contains(at)) continue;
                painter.setPen(ink);
                painter.drawText(at, Qt::AlignCenter, text.join(QLatin1Char('\n')));
                return;
            }
    }
}

/// What is cut beyond the piece's place: to be trimmed, turned in or lapped; paler than the piece.
void paintMargins(QPainter& painter, const PlanView& view, const Piece& piece, const Product& product) {
    painter.save();
    painter.setOpacity(0.55);
    paintRoll(painter, view.path(piece.cut), product);
    painter.setOpacity(1);
    painter.setPen(QPen(Theme::now().pencil, 1.2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(view.path(piece.cut));
    painter.restore();
}

/// Folds as dash-dot lines, snips in pencil red, what is cut out later in chalk.
void paintLines(QPainter& painter, const PlanView& view, const Piece& piece) {
    const Theme& t = Theme::now();
    const auto draw = [&](const std::vector<Ring>& lines, const QPen& pen) {
        painter.setPen(pen);
        for (const Ring& line : lines)
            for (std::size_t i = 1; i < line.size(); ++i) painter.drawLine(view.map(line[i - 1]), view.map(line[i]));
    };
    painter.setBrush(Qt::NoBrush);
    draw(piece.folds, QPen(t.graphite, 1.4, Qt::DashDotLine));
    draw(piece.snips, QPen(t.pencil, 2.4));
    draw(piece.marks, QPen(t.chalk, 1.4, Qt::DashLine));
}

/// The name of a panel that lies beside its cushion, along its longer way.
void paintPanelBeside(QPainter& painter, const PlanView& view, const Piece& piece) {
    const QRectF box = view.path(piece.cut).boundingRect();
    painter.setFont(textFont(0.72));
    const QString name = pieceText(piece.name);
    const QFontMetricsF metrics(painter.font());
    const bool upright = box.height() > box.width();
    if (std::min(box.width(), box.height()) < metrics.height() - 4 ||
        metrics.horizontalAdvance(name) + 4 > std::max(box.width(), box.height()))
        return;
    painter.save();
    painter.translate(box.center());
    if (upright) painter.rotate(-90);
    painter.setPen(Theme::now().graphite);
    painter.drawText(QRectF(-200, -metrics.height() / 2, 400, metrics.height()), Qt::AlignCenter, name);
    painter.restore();
}

/// What is marked on one piece: that it is an offcut, a sliver or in hand, and its name.
void paintPieceMarks(QPainter& painter, const PlanView& view, const SetOut& setOut, std::size_t index,
                     const Product& product, double third, bool alongX, const Figures& figures,
                     const SetOutMarks& marks) {
    const Theme& t = Theme::now();
    const Piece& piece = setOut.pieces[index];
    const Drawn& drawn = drawnAs(product);
    const FinishStyle& style = finishStyle(product);
    const bool planks = drawn.tellsOffcuts;
    const QPainterPath shape = view.path(piece.shape);
    const QRectF box = shape.boundingRect();
    const bool startsRow = piece.kind == PieceKind::First || piece.kind == PieceKind::Single;
    QString note;
    if (marks.offcuts && planks && piece.fromOffcut && startsRow && std::min(box.width(), box.height()) > 8) {
        // Inside the piece's own edge, so that neighbours do not cover it.
        painter.save();
        painter.setClipPath(shape, Qt::IntersectClip);
        painter.setPen(QPen(t.agreed, 4, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(shape);
        painter.restore();
        note = SetOutDrawing::tr("offcut of plank %1").arg(piece.stock + 1);
    }
    const bool sliver = planks && piece.narrowest.value > 0 && piece.narrowest.value < third - 1e-6 &&
                        piece.width.value >= third - 1e-6;
    if (marks.slivers && sliver) {
        painter.setPen(QPen(t.pencil, 2));
        painter.setBrush(QBrush(t.pencil, Qt::BDiagPattern));
        painter.drawPath(shape);
    }
    if (static_cast<int>(index) == marks.pieceInHand) {
        painter.save();
        painter.setClipPath(shape, Qt::IntersectClip);
        painter.setPen(QPen(t.chalk, 5));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(shape);
        painter.restore();
    }
    if (marks.names && drawn.lettering == Lettering::Panel)
        paintPanelName(painter, shape, piece, figures, style.ink(product));
    else if (marks.names && drawn.lettering == Lettering::AlongRow)
        paintName(painter, shape, piece, alongX, figures, note, style.ink(product));
    if (marks.slivers && sliver && marks.names)
        paintLabel(painter, box.center(), SetOutDrawing::tr("sliver, %1").arg(figures.length(piece.narrowest)),
                   t.pencil, true);
}

} // namespace

bool liesBeside(const Piece& piece, int unit) { return !piece.aside || (unit > 0 && piece.unit == unit); }

void paintSetOut(QPainter& painter, const PlanView& view, const Region& outline, const SetOut& setOut,
                 const Product* product, const Figures& figures, const SetOutMarks& marks) {
    const Theme& t = Theme::now();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QPainterPath ground = view.path(outline);
    paintMetal(painter, ground);
    if (!product) {
        painter.restore();
        return;
    }
    const FinishStyle& style = finishStyle(*product);
    // Rows run across the screen unless they lie across the van; a panel's grain has its own way.
    const Drawn& drawn = drawnAs(*product);
    const bool alongX = drawn.grainLeads ? !setOut.grainAcross : !setOut.rowsAcross;
    const double third = [&] {
        double widest = 0;
        for (const Piece& p : setOut.pieces) widest = std::max(widest, p.width.value);
        return widest / 3;
    }();
    if (setOut.laid() && setOut.jointWidth.value > 0) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(style.ground(*product));
        painter.drawPath(view.path(setOut.net));
    }
    // What is unfolded lies over its neighbours.
    for (const bool unfolded : {false, true})
        for (std::size_t i = 0; i < setOut.pieces.size(); ++i) {
            const Piece& piece = setOut.pieces[i];
            if (unfolded != (marks.unitInHand > 0 && piece.unit == marks.unitInHand)) continue;
            if (marks.margins && !piece.cut.empty() && liesBeside(piece, marks.unitInHand) && drawn.margins)
                paintMargins(painter, view, piece, *product);
            style.piece(painter, view.path(piece.shape), *product, setOut, piece, static_cast<unsigned>(i + 1), alongX,
                        view.scale());
        }
    if (marks.joints)
        for (const Joint& joint : setOut.joints) {
            painter.setPen(QPen(joint.onSupport ? t.graphite : t.pencil, joint.onSupport ? 1.6 : 2.4));
            painter.drawLine(view.map(joint.from), view.map(joint.to));
        }
    if (marks.margins)
        for (const Piece& piece : setOut.pieces)
            if (liesBeside(piece, marks.unitInHand)) {
                paintLines(painter, view, piece);
                if (piece.shape.empty()) paintPanelBeside(painter, view, piece);
            }
    for (std::size_t i = 0; i < setOut.pieces.size(); ++i)
        paintPieceMarks(painter, view, setOut, i, *product, third, alongX, figures, marks);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.graphite, 2));
    painter.drawPath(ground);
    painter.restore();
}

} // namespace westrum
