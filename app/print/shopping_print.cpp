#include "app/print/shopping_print.h"

#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "app/print/page_flow.h"
#include "app/print/paper.h"
#include "app/stages/buy/purchase_model.h"
#include "core/families/family.h"
#include "core/plan/area_sums.h"

#include <QCoreApplication>
#include <QFontMetricsF>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct ShoppingPrint {
    Q_DECLARE_TR_FUNCTIONS(ShoppingPrint)
};

/// Pieces that are cut alike, and where they go: tiles and panels are listed by size.
struct Alike {
    Mm length, width;
    bool shaped{};
    QStringList names;
};

std::vector<Alike> alike(const SetOut& setOut) {
    std::vector<Alike> groups;
    for (const Piece& p : setOut.pieces) {
        const auto same = std::find_if(groups.begin(), groups.end(), [&](const Alike& g) {
            return std::abs((g.length - p.length).value) < 0.5 && std::abs((g.width - p.width).value) < 0.5 &&
                   !g.shaped && !p.notched; // a shaped piece is like no other
        });
        if (same != groups.end())
            same->names << pieceText(p.name);
        else
            groups.push_back({p.length, p.width, p.notched, {pieceText(p.name)}});
    }
    return groups;
}

/// One layer of a surface as it lies, and the list of its pieces.
void printLayer(QPainter& painter, const QRectF& page, PageFlow& sheet, const QString& surface, const SurfacePlan& plan,
                const LayerPlan& layer, const Product* product, const Figures& f) {
    const SetOut& s = layer.setOut;
    const Family& family = *familyOf(layer.family);
    const Bounds b = boundsOf(plan.measured.outline);
    const double height = std::min(page.height() * 0.36, page.width() * b.height() / b.width() + 8);
    sheet.gap();
    sheet.keep(height + 80); // its heading, the drawing, and the first of its pieces
    sheet.heading(product ? ShoppingPrint::tr("%1: %2").arg(surface, QString::fromStdString(product->name)) : surface,
                  1.2);
    if (s.module > 0)
        sheet.text(
            ShoppingPrint::tr(
                "First row %1 wide, last row %2. Row 1 is at the foot of the drawing; the rear of the van is left.")
                .arg(f.fineLength(s.firstRow), f.fineLength(s.lastRow)));
    paintSetOut(painter, PlanView(b, sheet.box(height).adjusted(2, 4, -2, -4)), plan.measured.outline, s, product, f,
                {.names = family.laid.wrapped});
    painter.setPen(QPen(Qt::black, 0.6));
    painter.setBrush(Qt::NoBrush);
    sheet.gap(0.5);
    sheet.keep(80);
    sheet.heading(ShoppingPrint::tr("Cut list, %1").arg(surface), 1.2);
    if (family.product.form != StockForm::Lengths && family.product.form != StockForm::Roll) {
        const QList<double> shares{0.1, 0.16, 0.16, 0.14, 0.44};
        sheet.row({ShoppingPrint::tr("pieces"), ShoppingPrint::tr("length"), ShoppingPrint::tr("width"),
                   ShoppingPrint::tr("remark"), ShoppingPrint::tr("where")},
                  shares, true);
        for (const Alike& g : alike(s)) {
            QStringList where = g.names.mid(0, 8);
            if (g.names.size() > 8)
                where << ShoppingPrint::tr("and %n more", nullptr, static_cast<int>(g.names.size()) - 8);
            sheet.row({QString::number(g.names.size()), f.fineLength(g.length), f.fineLength(g.width),
                       g.shaped ? ShoppingPrint::tr("shaped") : QString(), where.join(QStringLiteral(", "))},
                      shares);
        }
        return;
    }
    const bool boards = family.laid.choosesLengths;
    const QList<double> cuts{0.12, 0.18, 0.18, 0.16, 0.36};
    sheet.row({ShoppingPrint::tr("piece"), ShoppingPrint::tr("length"), ShoppingPrint::tr("width"),
               boards                      ? ShoppingPrint::tr("ripped to")
               : family.laid.unitsBySetOut ? ShoppingPrint::tr("plank")
                                           : QString(),
               ShoppingPrint::tr("remark")},
              cuts, true);
    for (const Piece& p : s.pieces) {
        QStringList notes;
        if (p.kind == PieceKind::Whole && !p.notched) notes << ShoppingPrint::tr("whole");
        if (p.fromOffcut) notes << ShoppingPrint::tr("from offcut");
        if (p.notched) notes << ShoppingPrint::tr("shaped on site");
        if (p.feature) notes << ShoppingPrint::tr("the finest one");
        QString stock = p.stock >= 0 ? QString::number(p.stock + 1) : QString();
        // A taper is ripped to one width at its start and to another at its end.
        if (boards && p.ripAtStart.value > 0)
            stock = std::abs((p.ripAtStart - p.ripAtEnd).value) < 0.5
                        ? f.fineLength(p.ripAtStart)
                        : f.fineLength(p.ripAtStart) + QStringLiteral(" – ") + f.fineLength(p.ripAtEnd);
        if (boards && (p.ripFrom.value > 0.5 || p.ripTo < p.length - Mm{0.5}) && p.ripAtStart.value > 0)
            notes << ripText(p, f);
        sheet.row(
            {pieceText(p.name), f.fineLength(p.length), f.fineLength(p.width), stock, notes.join(QStringLiteral(", "))},
            cuts);
    }
}

} // namespace

void paintShopping(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                   const Plan& plan, const Figures& f, const std::vector<RoughCut>& roughCuts) {
    painter.setPen(QPen(Qt::black, 0.6));
    PageFlow sheet(painter, page, newPage);
    sheet.heading(QString::fromStdString(job.name) +
                  (job.vehicle.empty() ? QString() : QStringLiteral(", ") + QString::fromStdString(job.vehicle)));
    sheet.heading(ShoppingPrint::tr("To buy"), 1.2);
    const QList<double> shares{0.36, 0.14, 0.13, 0.23, 0.14};
    for (const Trip& trip : tripsOf(job, plan)) { // one shop after the other
        const QString supplier = QString::fromStdString(trip.supplier);
        sheet.gap();
        sheet.row({supplier.isEmpty() ? ShoppingPrint::tr("from somebody") : supplier, ShoppingPrint::tr("buy"),
                   ShoppingPrint::tr("needed"), ShoppingPrint::tr("left over"), ShoppingPrint::tr("cost")},
                  shares, true);
        for (const std::size_t i : trip.lines) {
            const Purchase& p = plan.purchases[i];
            sheet.row({nameWithLot(p, job.catalogue, f), packsText(p, f), neededText(p, f), leftOverText(p, f),
                       p.cost ? f.money(*p.cost) : QStringLiteral("–")},
                      shares);
        }
        for (const DeliveryPlan& d : plan.deliveries)
            if (d.supplier == trip.supplier)
                sheet.row({ShoppingPrint::tr("delivery"), {}, {}, {}, f.money(d.cost)}, shares);
        sheet.gap(0.3);
        sheet.text((trip.brought ? ShoppingPrint::tr("%1 brings it: %2, about %3.")
                                 : ShoppingPrint::tr("To fetch from %1: %2, about %3."))
                       .arg(supplier.isEmpty() ? ShoppingPrint::tr("somebody") : supplier,
                            trip.cost ? f.money(*trip.cost) : ShoppingPrint::tr("no price"), f.mass(trip.mass)));
    }
    sheet.gap();
    for (const QString& ask : roughCutTexts(job, roughCuts, f)) sheet.text(ask);
    sheet.gap();
    sheet.text(plan.totals.cost ? ShoppingPrint::tr("In all %1, %2 added to the van.")
                                      .arg(f.money(*plan.totals.cost), f.mass(plan.totals.laidMass))
                                : ShoppingPrint::tr("A price is missing, so there is no total. %1 added to the van.")
                                      .arg(f.mass(plan.totals.laidMass)));
    sheet.gap();
    const QList<double> areas{0.36, 0.16, 0.16, 0.16, 0.16};
    sheet.row({ShoppingPrint::tr("area of the van"), ShoppingPrint::tr("cost"), ShoppingPrint::tr("mass"),
               ShoppingPrint::tr("seen"), ShoppingPrint::tr("hours")},
              areas, true);
    for (const AreaSum& a : sumsByArea(job, plan, costBySurface(job, plan))) {
        const QString name = areaText(a.area);
        sheet.row({name.isEmpty() ? ShoppingPrint::tr("elsewhere") : name,
                   a.cost ? f.money(*a.cost) : QStringLiteral("–"), f.mass(a.mass), f.area(a.surface),
                   f.number(a.hours, 1)},
                  areas);
    }
    sheet.gap();
    for (const Remark& r : plan.remarks) sheet.text(QStringLiteral("– ") + sentenceWithPlace(job, r, f));
    for (const SurfacePlan& s : plan.surfaces) {
        const Surface* surface = job.surface(s.surface);
        const QString name = surface ? QString::fromStdString(surface->name) : QString();
        for (const LayerPlan& layer : s.layers)
            if (layer.setOut.laid())
                printLayer(painter, page, sheet, name, s, layer, job.catalogue.find(layer.product), f);
    }
}

QString saveShoppingPdf(const QString& path, const Job& job, const Plan& plan, const Figures& figures,
                        const std::vector<RoughCut>& roughCuts) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(16, 16, 16, 16),
                   [&](QPainter& painter, const QRectF& page, const std::function<void()>& newPage) {
                       paintShopping(painter, page, newPage, job, plan, figures, roughCuts);
                   });
}

} // namespace westrum
