#include "app/drawing/set_out_drawing.h"

#include "app/drawing/dimension.h"
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
    const QString name = QString::fromStdString(piece.name);
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

} // namespace

void paintSetOut(QPainter& painter, const PlanView& view, const Region& outline, const SetOut& setOut,
                 const std::string& productId, const Figures& figures, const SetOutMarks& marks) {
    const Theme& t = Theme::now();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QPainterPath ground = view.path(outline);
    paintMetal(painter, ground);
    const QColor tone = woodTone(productId);
    const bool alongX = !setOut.rowsAcross;
    const double third = [&] {
        double widest = 0;
        for (const Piece& p : setOut.pieces) widest = std::max(widest, p.width.value);
        return widest / 3;
    }();
    for (std::size_t i = 0; i < setOut.pieces.size(); ++i) {
        const Piece& piece = setOut.pieces[i];
        const QPainterPath shape = view.path(piece.shape);
        paintPlank(painter, shape, shape.boundingRect(), tone, static_cast<unsigned>(i + 1), alongX);
    }
    for (const Piece& piece : setOut.pieces) {
        const QPainterPath shape = view.path(piece.shape);
        const QRectF box = shape.boundingRect();
        const bool startsRow = piece.kind == PieceKind::First || piece.kind == PieceKind::Single;
        QString note;
        if (marks.offcuts && piece.fromOffcut && startsRow && std::min(box.width(), box.height()) > 8) {
            // Inside the piece's own edge, so that neighbours do not cover it.
            painter.save();
            painter.setClipPath(shape, Qt::IntersectClip);
            painter.setPen(QPen(t.agreed, 4, Qt::DashLine));
            painter.setBrush(Qt::NoBrush);
            painter.drawPath(shape);
            painter.restore();
            note = SetOutDrawing::tr("offcut of plank %1").arg(piece.stock + 1);
        }
        const bool sliver =
            piece.narrowest.value > 0 && piece.narrowest.value < third - 1e-6 && piece.width.value >= third - 1e-6;
        if (marks.slivers && sliver) {
            painter.setPen(QPen(t.pencil, 2));
            painter.setBrush(QBrush(t.pencil, Qt::BDiagPattern));
            painter.drawPath(shape);
        }
        if (marks.names) paintName(painter, shape, piece, alongX, figures, note, inkOn(tone));
        if (marks.slivers && sliver && marks.names)
            paintLabel(painter, box.center(), SetOutDrawing::tr("sliver, %1").arg(figures.length(piece.narrowest)),
                       t.pencil, true);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.graphite, 2));
    painter.drawPath(ground);
    painter.restore();
}

} // namespace westrum
