#include "app/print/fixing_print.h"

#include "app/drawing/base_drawing.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/print/page_flow.h"
#include "app/print/paper.h"
#include "core/families/family.h"
#include "formats/base_words.h"

#include <QCoreApplication>

#include <algorithm>

namespace westrum {
namespace {

struct FixingPrint {
    Q_DECLARE_TR_FUNCTIONS(FixingPrint)
};

/// Supports with the fixings of the battens and what is packed below them.
void printBase(QPainter& p, const QRectF& page, PageFlow& sheet, const Job& job, const Surface& surface,
               const SurfacePlan& plan, const Figures& f) {
    const Bounds b = boundsOf(plan.measured.outline);
    const double height = std::min(page.height() * 0.4, page.width() * b.height() / b.width() + 8);
    const PlanView view(b, sheet.box(height).adjusted(2, 4, -2, -4));
    static const SetOut bare;
    paintSetOut(p, view, plan.measured.outline, bare, nullptr, f, {});
    paintHolders(p, view, plan.shape, surface);
    paintSurfaceParts(p, view, surface, plan.shape, {.supports = false, .names = true});
    for (const LayerPlan& l : plan.layers)
        if (const Family* family = familyOf(l.family); family && family->product.role == LayerRole::Batten)
            paintFixings(p, view, l, -1);
    if (plan.packed.to != PackTo::Nothing) {
        paintPackers(p, view, plan.packed, -1, f);
        sheet.text(packingText(plan.packed, f) + QLatin1Char('.'));
    }
    for (const LayerPlan& l : plan.layers) {
        if (l.fixings.empty()) continue;
        const Product* product = job.catalogue.find(l.product);
        sheet.text(FixingPrint::tr("%1: %2.").arg(product ? QString::fromStdString(product->name) : QString(),
                                                  fixingsText(l, -1, job.catalogue, f)));
    }
}

void printPanel(QPainter& p, const QRectF& page, PageFlow& sheet, const Job& job, const LayerPlan& layer, int index,
                const Figures& f) {
    const Piece& piece = layer.setOut.pieces[static_cast<std::size_t>(index)];
    const Bounds b = boundsOf(piece.shape);
    std::vector<const Fixing*> own;
    for (const Fixing& x : layer.fixings)
        if (x.piece == index && x.place.holds) own.push_back(&x);
    if (own.empty()) return;
    const double height = std::min(page.height() * 0.34, page.width() * b.height() / b.width() + 8);
    sheet.gap();
    sheet.keep(height + 90);
    sheet.heading(FixingPrint::tr("Panel %1, %2 × %3")
                      .arg(pieceText(piece.name), f.length({b.width()}, false), f.length({b.height()}, false)),
                  1.15);
    const PlanView view(b, sheet.box(height).adjusted(6, 6, -6, -6));
    p.setPen(QPen(Qt::black, 1));
    p.setBrush(Qt::NoBrush);
    p.drawPath(view.path(piece.shape));
    for (const Fixing* x : own) paintFixing(p, view.map(x->place.at), *x, false);
    p.setPen(QPen(Qt::black, 0.6));
    sheet.text(
        FixingPrint::tr("From its lower left corner, seen from the room. A ring round a mark: a hole that the body has "
                        "already; measure that one on the van."));
    const QList<double> shares{0.08, 0.16, 0.16, 0.14, 0.46};
    sheet.row({FixingPrint::tr("no."), FixingPrint::tr("to the right"), FixingPrint::tr("up"), FixingPrint::tr("drill"),
               FixingPrint::tr("what goes in")},
              shares, true);
    std::sort(own.begin(), own.end(), [](const Fixing* a, const Fixing* c) {
        return std::pair(a->place.at.y, a->place.at.x) < std::pair(c->place.at.y, c->place.at.x);
    });
    int number = 0;
    for (const Fixing* x : own) {
        const Product* product = job.catalogue.find(x->product);
        const Mm hole = drillFor(*x);
        sheet.row({QString::number(++number), f.fineLength({x->place.at.x - b.low.x}),
                   f.fineLength({x->place.at.y - b.low.y}), hole.value > 0 ? f.fineLength(hole) : QStringLiteral("–"),
                   product ? QString::fromStdString(product->name) : heldText(x->by)},
                  shares);
    }
}

} // namespace

void paintFixingPlan(QPainter& p, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                     const SurfacePlan& plan, const Figures& f) {
    const Surface* surface = job.surface(plan.surface);
    if (!surface || !plan.measured.measured()) return;
    p.setPen(QPen(Qt::black, 0.6));
    PageFlow sheet(p, page, newPage);
    sheet.heading(FixingPrint::tr("%1: what it hangs on").arg(QString::fromStdString(surface->name)));
    sheet.text(
        FixingPrint::tr("Know what is behind before you drill: cables, pipes, tanks, the outer skin. A stop on the "
                        "drill, glasses on; deburr and paint every hole in the body."));
    printBase(p, page, sheet, job, *surface, plan, f);
    for (const LayerPlan& l : plan.layers) {
        const Family* family = familyOf(l.family);
        if (!family || !family->laid.wrapped) continue;
        for (int i = 0; i < static_cast<int>(l.setOut.pieces.size()); ++i) printPanel(p, page, sheet, job, l, i, f);
    }
}

QString saveFixingPlanPdf(const QString& path, const Job& job, const SurfacePlan& plan, const Figures& figures) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(16, 16, 16, 16),
                   [&](QPainter& p, const QRectF& page, const std::function<void()>& newPage) {
                       paintFixingPlan(p, page, newPage, job, plan, figures);
                   });
}

} // namespace westrum
