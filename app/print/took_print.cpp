#include "app/print/took_print.h"

#include "app/print/page_flow.h"
#include "app/print/paper.h"
#include "core/catalogue/family.h"
#include "formats/record_words.h"
#include "formats/work_words.h"

#include <QCoreApplication>

namespace westrum {
namespace {

struct TookPrint {
    Q_DECLARE_TR_FUNCTIONS(TookPrint)
};

QString hours(double h, const Figures& f) { return TookPrint::tr("%1 h").arg(f.number(h, 1)); }

QString count(double n, const Figures& f) { return f.number(n, n == std::floor(n) ? 0 : 1); }

} // namespace

QStringList tookSurfaceHead() {
    return {TookPrint::tr("Surface"), TookPrint::tr("laid"),   TookPrint::tr("steps done"), TookPrint::tr("planned"),
            TookPrint::tr("really"),  TookPrint::tr("spoilt"), TookPrint::tr("last step")};
}

QStringList tookSurfaceRow(const Job& job, const Took::OfSurface& of, const Figures& f) {
    const Surface* s = job.surface(of.surface);
    return {s ? QString::fromStdString(s->name) : QString(),
            f.area(of.area),
            TookPrint::tr("%1 of %2").arg(of.done).arg(of.steps),
            hours(of.hoursReally > 0 ? of.hoursPlanned : of.hours, f),
            of.hoursReally > 0 ? hours(of.hoursReally, f) : QStringLiteral("–"),
            of.spoilt ? QString::number(of.spoilt) : QStringLiteral("–"),
            of.last ? dayText(*of.last) : QStringLiteral("–")};
}

QStringList tookProductHead() {
    return {TookPrint::tr("Product"), TookPrint::tr("planned"), TookPrint::tr("paid"),
            TookPrint::tr("emptied"), TookPrint::tr("left"),    TookPrint::tr("lot")};
}

QStringList tookProductRow(const Job& job, const Took::OfProduct& of, const Figures& f) {
    const Product* p = job.catalogue.find(of.product);
    QStringList lots;
    for (const std::string& lot : of.lots) lots << QString::fromStdString(lot);
    const auto some = [&](double n) { return n > 0 ? count(n, f) : QStringLiteral("–"); };
    return {p ? QString::fromStdString(p->name) : QString(),
            of.planned ? f.money(*of.planned) : QStringLiteral("–"),
            of.paid ? f.money(*of.paid) : QStringLiteral("–"),
            some(of.emptied),
            some(of.left),
            lots.isEmpty() ? QStringLiteral("–") : lots.join(QStringLiteral(", "))};
}

QStringList tookSentences(const Job& job, const Took& took, const Figures& f) {
    QStringList out;
    if (took.first)
        out << TookPrint::tr("Work was written down on %n day(s), from %1 to %2.", nullptr, took.days)
                   .arg(dayText(*took.first), dayText(*took.last));
    out << TookPrint::tr("%1 of %2 steps on surfaces are done: %3 planned for them, %4 really; all of them are planned "
                         "to take %5.")
               .arg(took.done)
               .arg(took.steps)
               .arg(hours(took.hoursPlanned, f), hours(took.hoursReally, f), hours(took.hoursWhole, f));
    if (took.costPlanned)
        out << TookPrint::tr("Bought is planned for %1; %2 of %3 lines are paid, %4.")
                   .arg(f.money(*took.costPlanned))
                   .arg(took.linesPaid)
                   .arg(took.lines)
                   .arg(f.money(took.paid));
    out << (took.weighed && took.weighedPlan
                ? TookPrint::tr("On the weighbridge the van had gained %1; %2 were fitted by then, by the plan.")
                      .arg(f.mass(*took.weighed), f.mass(*took.weighedPlan))
                : TookPrint::tr("%1 are fitted, by the plan; the van was not weighed since.")
                      .arg(f.mass(took.fittedPlanned)));
    if (took.cut + took.spoilt > 0)
        out << TookPrint::tr("%1 of %2 cuts were spoilt; %3 % was reckoned with.")
                   .arg(took.spoilt)
                   .arg(took.cut + took.spoilt)
                   .arg(f.number(job.spoilChance * 100, 1));
    return out;
}

QString printTook(const QString& path, const Job& job, const Took& took, const Figures& f) {
    const PaperLight light;
    return savePdf(path, TookPrint::tr("What it took"), QMarginsF(15, 15, 15, 15),
                   [&](QPainter& p, const QRectF& page, const std::function<void()>& newPage) {
                       PageFlow sheet(p, page, newPage);
                       p.setPen(QPen(Qt::black, 0.6));
                       sheet.heading(TookPrint::tr("%1: what it took").arg(QString::fromStdString(job.name)), 1.7);
                       if (!job.vehicle.empty()) sheet.text(QString::fromStdString(job.vehicle));
                       for (const QString& line : tookSentences(job, took, f)) sheet.text(line);
                       sheet.gap();
                       const QList<double> surface{0.27, 0.12, 0.13, 0.12, 0.11, 0.08, 0.17};
                       sheet.row(tookSurfaceHead(), surface, true);
                       for (const Took::OfSurface& s : took.surfaces)
                           if (s.done > 0) sheet.row(tookSurfaceRow(job, s, f), surface);
                       if (!took.products.empty()) {
                           sheet.gap();
                           const QList<double> product{0.36, 0.14, 0.14, 0.1, 0.1, 0.16};
                           sheet.row(tookProductHead(), product, true);
                           for (const Took::OfProduct& s : took.products) sheet.row(tookProductRow(job, s, f), product);
                       }
                       if (took.remarks.empty()) return;
                       sheet.gap();
                       sheet.heading(TookPrint::tr("Written down"), 1.2);
                       const Plan none;
                       for (const RecordEntry& e : took.remarks)
                           sheet.text(TookPrint::tr("%1: %2").arg(dayText(e.when.day), entryText(job, none, e, f)));
                   });
}

} // namespace westrum
