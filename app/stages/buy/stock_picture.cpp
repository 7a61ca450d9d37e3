#include "app/stages/buy/stock_picture.h"

#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "core/catalogue/plank.h"

#include <QFontMetricsF>

#include <algorithm>

namespace westrum {
namespace {

void paintPlankUsed(QPainter& p, const QRectF& bar, const SetOut& setOut, std::size_t unit, Mm plankLength,
                    const QColor& tone) {
    const Theme& t = Theme::now();
    const StockUnit& u = setOut.stock[unit];
    const double perMm = bar.width() / plankLength.value;
    // A plank ripped in two carries the first row's pieces above, the last row's below.
    const bool two = u.rippedInTwo;
    double fromLeft[2] = {0, 0};
    for (int id : u.pieces) {
        const Piece& piece = setOut.pieces[static_cast<std::size_t>(id)];
        const int half = two && piece.row != 0 ? 1 : 0;
        const bool right = piece.kind == PieceKind::First;
        const double length = piece.length.value * perMm;
        const double x = right ? bar.right() - length : bar.left() + fromLeft[half];
        if (!right) fromLeft[half] += length + 1.5;
        QRectF box(x, bar.top(), length, bar.height());
        if (two) box = QRectF(x, half == 0 ? bar.top() : bar.center().y() + 0.5, length, bar.height() / 2 - 0.5);
        QPainterPath path;
        path.addRect(box);
        paintPlank(p, path, box, tone, static_cast<unsigned>(id + 1), true);
        const QString name = QString::fromStdString(piece.name);
        p.setFont(textFont(0.72));
        const QFontMetricsF metrics(p.font());
        if (metrics.height() - 3 <= box.height() && metrics.horizontalAdvance(name) + 6 < box.width()) {
            p.setPen(inkOn(tone));
            p.drawText(box.adjusted(4, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, name);
        }
    }
    p.setPen(QPen(t.pencil, 1.6));
    for (const Cut& cut : u.cuts)
        if (cut.kind == CutKind::Cross)
            p.drawLine(QPointF(bar.left() + cut.at.value * perMm, bar.top() - 1),
                       QPointF(bar.left() + cut.at.value * perMm, bar.bottom() + 1));
}

} // namespace

void paintStock(QPainter& p, const QRectF& into, const SetOut& setOut, Mm plankLength, int packs, int perPack,
                const std::string& productId, const Figures&) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double line = QFontMetricsF(textFont(0.88)).height();
    const int columns = std::min(packs, 6);
    const int rows = (packs * perPack + columns - 1) / columns;
    const double gap = 18;
    const double width = (into.width() - gap * (columns - 1)) / columns;
    const double height = std::clamp((into.height() - line - 6) / rows, 4.0, 24.0);
    const QColor tone = woodTone(productId);
    for (int i = 0; i < packs * perPack; ++i) {
        const int column = i / rows;
        const int row = i % rows;
        const QRectF bar(into.left() + column * (width + gap) + 26, into.top() + line + 6 + row * height, width - 28,
                         height - 3);
        p.setFont(textFont(0.72));
        p.setPen(t.muted);
        if (height > 11)
            p.drawText(QRectF(bar.left() - 26, bar.top(), 21, bar.height()), Qt::AlignRight | Qt::AlignVCenter,
                       QString::number(i + 1));
        p.setPen(QPen(t.faint, 1));
        p.setBrush(t.raised);
        p.drawRect(bar);
        if (static_cast<std::size_t>(i) < setOut.stock.size()) {
            paintPlankUsed(p, bar, setOut, static_cast<std::size_t>(i), plankLength, tone);
        } else {
            p.setPen(QPen(t.agreed, 1.2, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawRect(bar.adjusted(0.5, 0.5, -0.5, -0.5));
            if (height > 13) p.drawText(bar, Qt::AlignCenter, StockPicture::tr("spare"));
        }
    }
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    p.drawText(QRectF(into.left(), into.top(), into.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
               StockPicture::tr("Every plank and what is cut from it: piece 3.2 is the second piece of row 3. Red: "
                                "cross cuts. Empty: offcut."));
    p.restore();
}

StockPicture::StockPicture(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setAccessibleName(tr("Every plank and what is cut from it"));
}

void StockPicture::paintEvent(QPaintEvent*) {
    const SurfacePlan* plan = document_.plan()->surface(document_.currentSurface());
    const auto planks = [](const SurfacePlan* p) {
        const LayerPlan* l = p ? p->layerOf("planks") : nullptr;
        return l && l->setOut.laid() && l->purchase ? l : nullptr;
    };
    const LayerPlan* laid = planks(plan); // of what is in hand, or else of the first that is laid
    for (const SurfacePlan& s : document_.plan()->surfaces)
        if (!laid) laid = planks(&s);
    const Product* product = laid ? document_.job().catalogue.find(laid->product) : nullptr;
    if (!product) return;
    QPainter painter(this);
    paintStock(painter, QRectF(rect()).adjusted(0, 8, 0, 0), laid->setOut, plankOf(*product).length,
               laid->purchase->packs, laid->purchase->unitsPerPack, product->id,
               figuresFor(document_.job(), decimalMark_));
}

} // namespace westrum
