#include "app/stages/buy/shopping_print.h"

#include "app/drawing/page_flow.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "app/stages/buy/purchase_model.h"

#include <QCoreApplication>
#include <QFontMetricsF>

namespace westrum {
namespace {

struct ShoppingPrint {
    Q_DECLARE_TR_FUNCTIONS(ShoppingPrint)
};

} // namespace

void paintShopping(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                   const Plan& plan, const Figures& f) {
    painter.setPen(QPen(Qt::black, 0.6));
    PageFlow sheet(painter, page, newPage);
    sheet.heading(QString::fromStdString(job.name) +
                  (job.vehicle.empty() ? QString() : QStringLiteral(", ") + QString::fromStdString(job.vehicle)));
    sheet.heading(ShoppingPrint::tr("To buy"), 1.2);
    const QList<double> shares{0.34, 0.16, 0.12, 0.15, 0.11, 0.12};
    sheet.row({ShoppingPrint::tr("product"), ShoppingPrint::tr("from"), ShoppingPrint::tr("buy"),
               ShoppingPrint::tr("needed"), ShoppingPrint::tr("left over"), ShoppingPrint::tr("cost")},
              shares, true);
    for (const Purchase& p : plan.purchases) {
        const Product* product = job.catalogue.find(p.product);
        sheet.row({purchaseName(p, job.catalogue), product ? QString::fromStdString(product->supplier) : QString(),
                   packsText(p, f), neededText(p, f), leftOverText(p, f),
                   p.cost ? f.money(*p.cost) : QStringLiteral("–")},
                  shares);
    }
    sheet.gap();
    sheet.text(plan.totals.cost ? ShoppingPrint::tr("In all %1, %2 added to the van.")
                                      .arg(f.money(*plan.totals.cost), f.mass(plan.totals.laidMass))
                                : ShoppingPrint::tr("A price is missing, so there is no total. %1 added to the van.")
                                      .arg(f.mass(plan.totals.laidMass)));
    for (const Remark& r : plan.remarks) sheet.text(QStringLiteral("– ") + sentence(r, f));
    for (const SurfacePlan& s : plan.surfaces) {
        if (!s.setOut().laid()) continue;
        const Surface* surface = job.surface(s.surface);
        sheet.gap();
        sheet.heading(surface ? QString::fromStdString(surface->name) : QString(), 1.2);
        sheet.text(
            ShoppingPrint::tr(
                "First row %1 wide, last row %2. Row 1 is at the foot of the drawing; the rear of the van is left.")
                .arg(f.fineLength(s.setOut().firstRow), f.fineLength(s.setOut().lastRow)));
        const Bounds b = boundsOf(s.measured.outline);
        const double height = std::min(page.height() * 0.5, page.width() * b.height() / b.width() + 8);
        paintSetOut(painter, PlanView(b, sheet.box(height).adjusted(2, 4, -2, -4)), s.measured.outline, s.setOut(),
                    job.faceProduct(s.surface), f, {.names = false});
        painter.setPen(QPen(Qt::black, 0.6));
        painter.setBrush(Qt::NoBrush);
        sheet.turn();
        sheet.heading(
            ShoppingPrint::tr("Cut list, %1").arg(surface ? QString::fromStdString(surface->name) : QString()), 1.2);
        const QList<double> cuts{0.12, 0.18, 0.18, 0.16, 0.36};
        sheet.row({ShoppingPrint::tr("piece"), ShoppingPrint::tr("length mm"), ShoppingPrint::tr("width mm"),
                   ShoppingPrint::tr("plank"), ShoppingPrint::tr("remark")},
                  cuts, true);
        for (const Piece& p : s.setOut().pieces) {
            QStringList notes;
            if (p.kind == PieceKind::Whole && !p.notched) notes << ShoppingPrint::tr("whole");
            if (p.fromOffcut) notes << ShoppingPrint::tr("from offcut");
            if (p.notched) notes << ShoppingPrint::tr("shaped on site");
            sheet.row({QString::fromStdString(p.name), f.number(p.length.value, 1), f.number(p.width.value, 1),
                       QString::number(p.stock + 1), notes.join(QStringLiteral(", "))},
                      cuts);
        }
    }
}

QString saveShoppingPdf(const QString& path, const Job& job, const Plan& plan, const Figures& figures) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(16, 16, 16, 16),
                   [&](QPainter& painter, const QRectF& page, const std::function<void()>& newPage) {
                       paintShopping(painter, page, newPage, job, plan, figures);
                   });
}

} // namespace westrum
