#include "app/drawing/offcut_drawing.h"

#include "app/drawing/finish_style.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "core/catalogue/family.h"

#include <QCoreApplication>

namespace westrum {
namespace {

struct OffcutDrawing {
    Q_DECLARE_TR_FUNCTIONS(OffcutDrawing)
};

} // namespace

void paintOffcut(QPainter& p, const PlanView& view, const RackPiece& piece, const Product* product) {
    const Theme& t = Theme::now();
    const QPainterPath path = piece.shape.empty() ? view.path(Region{{rectangle(0, 0, piece.lengthMm, piece.widthMm)}})
                                                  : view.path(piece.shape);
    p.save();
    if (product && stockFormOf(product->family) == StockForm::Roll)
        paintRoll(p, path, *product);
    else if (product)
        paintPlank(p, path, path.boundingRect(), woodTone(product->id), 1, true);
    else
        paintMetal(p, path);
    p.setPen(QPen(t.graphite, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
    p.restore();
}

QString offcutSize(const RackPiece& piece, const Figures& f) {
    const QString size =
        OffcutDrawing::tr("%1 × %2").arg(f.length({piece.lengthMm}, false), f.length({piece.widthMm}, false));
    return piece.shape.empty() ? size : OffcutDrawing::tr("%1, shaped").arg(size);
}

} // namespace westrum
