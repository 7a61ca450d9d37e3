#include "app/print/rack_labels.h"

#include "app/drawing/offcut_drawing.h"
#include "app/print/page_flow.h"
#include "app/print/paper.h"
#include "formats/work_words.h"

#include <QCoreApplication>

namespace westrum {
namespace {

struct RackLabels {
    Q_DECLARE_TR_FUNCTIONS(RackLabels)
};

constexpr int kAcross = 2, kDown = 5;

void paintLabel(QPainter& p, const QRectF& label, const RackPiece& piece, const Product* product, const Figures& f) {
    p.setPen(QPen(Qt::gray, 0.6, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(label); // where it is cut out
    const QRectF in = label.adjusted(10, 8, -10, -8);
    const auto font = [](double size, bool bold) {
        QFont own(QStringLiteral("Lato"));
        own.setPointSizeF(size);
        own.setBold(bold);
        return own;
    };
    p.setPen(Qt::black);
    p.setFont(font(26, true));
    p.drawText(QRectF(in.left(), in.top(), in.width() * 0.42, 40), Qt::AlignLeft | Qt::AlignVCenter,
               QString::fromStdString(piece.number));
    double y = in.top() + 44;
    const auto line = [&](const QString& text, double size, bool bold) {
        p.setFont(font(size, bold));
        const QRectF box = p.boundingRect(QRectF(in.left(), y, in.width() * 0.44, in.bottom() - y),
                                          Qt::AlignLeft | Qt::TextWordWrap, text);
        p.drawText(box.adjusted(0, 0, 2, 2), Qt::AlignLeft | Qt::TextWordWrap, text);
        y = box.bottom() + 2;
    };
    line(QString::fromStdString(piece.name), 10, true);
    line(offcutSize(piece, f), 10, false);
    if (!piece.lot.empty()) line(RackLabels::tr("lot %1").arg(QString::fromStdString(piece.lot)), 9, false);
    if (!piece.stands.empty()) line(QString::fromStdString(piece.stands), 9, false);
    line(RackLabels::tr("%1, left of %2").arg(dayText(piece.kept), QString::fromStdString(piece.from)), 8, false);
    const QRectF sketch(in.left() + in.width() * 0.48, in.top(), in.width() * 0.52, in.height() - 14);
    const Bounds b{{0, 0}, {piece.lengthMm, piece.widthMm}};
    paintOffcut(p, PlanView(b, sketch), piece, product);
    p.setPen(Qt::black);
    p.setFont(font(8, false));
    p.drawText(QRectF(sketch.left(), in.bottom() - 13, sketch.width(), 13), Qt::AlignCenter,
               RackLabels::tr("%1 long, %2 across").arg(f.length({piece.lengthMm}), f.length({piece.widthMm})));
}

} // namespace

QString printRackLabels(const QString& path, const std::vector<RackPiece>& rack, const Catalogue& catalogue,
                        const Figures& f) {
    const PaperLight light;
    return savePdf(path, RackLabels::tr("Labels of offcuts"), QMarginsF(10, 10, 10, 10),
                   [&](QPainter& p, const QRectF& page, const std::function<void()>& newPage) {
                       const double w = page.width() / kAcross, h = page.height() / kDown;
                       int at = 0;
                       for (const RackPiece& piece : rack) {
                           if (at == kAcross * kDown) {
                               newPage();
                               at = 0;
                           }
                           const QRectF label(page.left() + (at % kAcross) * w, page.top() + (at / kAcross) * h, w, h);
                           paintLabel(p, label.adjusted(4, 4, -4, -4), piece, findIdentity(catalogue, piece.product),
                                      f);
                           ++at;
                       }
                   });
}

} // namespace westrum
