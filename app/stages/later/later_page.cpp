#include "app/stages/later/later_page.h"

#include "core/catalogue/plank.h"

namespace westrum {

LaterPage::LaterPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent), known_(new QLabel) {
    known_->setTextFormat(Qt::PlainText);
    known_->setWordWrap(true);
    column()->addSpacing(12);
    column()->addWidget(known_);
    column()->addStretch(1);
}

void LaterPage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const Figures f = figures();
    const SurfacePlan* plan = surfacePlan();
    const bool laid = plan && plan->setOut.laid();
    const Finish& finish = document_.job().finish(surfaceId());
    QStringList lines;
    setHeading(tr("Build-up"), QString::fromStdString(s->name));
    say(tr("Here the layers of a surface will be chosen, from the metal inwards: barrier, insulation, battens, "
           "panel, finish. "
           "For now the floor has two."));
    if (const Product* u = document_.job().catalogue.find(finish.underlay))
        lines << tr("below   %1, %2").arg(QString::fromStdString(u->name), f.fineLength(underlayOf(*u).thickness));
    if (const Product* p = document_.job().catalogue.find(finish.product))
        lines << tr("above   %1, %2").arg(QString::fromStdString(p->name), f.fineLength(plankOf(*p).thickness));
    if (laid)
        lines << tr("in all  %1 of headroom, %2")
                     .arg(f.fineLength(plan->thickness), f.mass(document_.plan()->totals.laidMass));
    lines << QString() << tr("Both are chosen in Set out.");
    known_->setText(lines.join(QLatin1Char('\n')));
}

} // namespace westrum
