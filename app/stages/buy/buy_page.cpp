#include "app/stages/buy/buy_page.h"
#include "app/widgets/risk.h"

#include "app/drawing/theme.h"
#include "app/stages/buy/shopping_print.h"
#include "formats/plan_file.h"

#include <QHeaderView>
#include <QPrintDialog>
#include <QPrinter>

#include <algorithm>

namespace westrum {

BuyPage::BuyPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      model_(new PurchaseModel(this)),
      table_(new QTableView),
      total_(new QLabel),
      waste_(new QLabel),
      offcuts_(new QLabel),
      actions_(new QWidget),
      stock_(new StockPicture(document, decimalMark)) {
    table_->setModel(model_);
    table_->setObjectName(QStringLiteral("shoppingList"));
    connect(&document, &JobDocument::purchasesChanged, this, [this] {
        if (isVisible()) refresh();
    });
    table_->setShowGrid(false);
    table_->setSelectionMode(QAbstractItemView::NoSelection);
    table_->setFocusPolicy(Qt::NoFocus); // nothing in it can be chosen
    table_->setTabKeyNavigation(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(QFontMetrics(textFont()).height() + 12);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setSectionResizeMode(PurchaseModel::Name, QHeaderView::Stretch);
    // Suppliers may be cut short: what is bought must be read whole.
    table_->horizontalHeader()->setSectionResizeMode(PurchaseModel::Supplier, QHeaderView::Fixed);
    table_->setColumnWidth(PurchaseModel::Supplier,
                           QFontMetrics(textFont()).horizontalAdvance(QStringLiteral("Quayside Fl")));
    table_->setWordWrap(false);
    table_->setAccessibleName(tr("Shopping list"));
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    total_->setFont(textFont(1.25, true));
    total_->setAlignment(Qt::AlignRight);
    for (QLabel* label : {waste_, offcuts_}) {
        label->setWordWrap(true);
        label->setTextFormat(Qt::PlainText);
    }
    auto* row = new QHBoxLayout(actions_);
    row->setContentsMargins(0, 8, 0, 0);
    const auto action = [&](const QString& text, const QString& name, auto&& does) {
        auto* button = new QPushButton(text);
        button->setObjectName(name);
        connect(button, &QPushButton::clicked, this, does);
        row->addWidget(button);
    };
    action(tr("Print…"), QStringLiteral("print"), [this] { printIt(); });
    action(tr("Save as PDF…"), QStringLiteral("savePdf"), [this] {
        save(tr("Shopping list as PDF"), tr("PDF (*.pdf)"), QStringLiteral(".pdf"), [this](const QString& path) {
            return saveShoppingPdf(path, document_.job(), *document_.plan(), figures());
        });
    });
    action(tr("Save list as CSV…"), QStringLiteral("saveCsv"), [this] {
        save(tr("Shopping list as CSV"), tr("CSV (*.csv)"), QStringLiteral(".csv"), [this](const QString& path) {
            return saveBytes(path, shoppingListAsCsv(document_.job(), *document_.plan()));
        });
    });
    action(tr("Save cut list as CSV…"), QStringLiteral("saveCuts"), [this] {
        save(tr("Cut list as CSV"), tr("CSV (*.csv)"), QStringLiteral(".csv"),
             [this](const QString& path) { return saveBytes(path, cutListAsCsv(document_.job(), *document_.plan())); });
    });
    row->addStretch(1);
    column()->addSpacing(8);
    column()->addWidget(table_);
    column()->addWidget(total_);
    column()->addSpacing(6);
    column()->addWidget(waste_);
    column()->addWidget(offcuts_);
    column()->addWidget(actions_);
    column()->addWidget(stock_, 1);
}

void BuyPage::refresh() {
    const Figures f = figures();
    const auto plan = document_.plan();
    const Totals& t = plan->totals;
    const bool anything = !plan->purchases.empty();
    setHeading(tr("To buy"), QString::fromStdString(document_.job().name));
    model_->setPlan(plan, document_.job().catalogue, f);
    const int rows = std::min<int>(8, static_cast<int>(plan->purchases.size()));
    table_->setFixedHeight(table_->horizontalHeader()->sizeHint().height() +
                           rows * table_->verticalHeader()->defaultSectionSize() + 6);
    for (QWidget* w : {static_cast<QWidget*>(table_), static_cast<QWidget*>(total_), static_cast<QWidget*>(waste_),
                       static_cast<QWidget*>(offcuts_), actions_, static_cast<QWidget*>(stock_)})
        w->setVisible(anything);
    if (!anything) {
        say(tr("Nothing to buy yet: measure the floor and set it out."));
        return;
    }
    const bool short_ = t.runShort > 0.05;
    const double spoil = document_.job().spoilChance;
    const Purchase* worst = riskiest(*plan, spoil);
    const auto finishes = std::count_if(plan->purchases.begin(), plan->purchases.end(),
                                        [](const Purchase& p) { return findFamily(p.family) && p.unitsPerPack > 1; });
    const QString spoils = QString::number(spoil > 0 ? std::lround(1 / spoil) : 0);
    // Of which product, where several are cut on site.
    const QString risk =
        worst && finishes > 1
            ? tr("The chance of running short of %1 is %2, with 1 cut in %3 spoilt.")
                  .arg(purchaseName(*worst, document_.job().catalogue), f.percent(t.runShort), spoils)
            : tr("The chance of running short is %1, with 1 cut in %2 spoilt.").arg(f.percent(t.runShort), spoils);
    QString advice;
    if (short_ && worst) {
        // How many packs it takes to come under one chance in twenty.
        const int cuts = plan->cutUnits(worst->product);
        for (int more = 1; more <= 20 && advice.isEmpty(); ++more) {
            const int packs = worst->packs + more;
            const double then = chanceOfRunningShort(worst->unitsNeeded, cuts, packs * worst->unitsPerPack, spoil);
            if (then <= 0.05) advice = tr("With %n pack(s) it is %1.", nullptr, packs).arg(f.percent(then));
        }
    }
    say(risk + QStringLiteral(" ") + advice, short_);
    total_->setText(
        t.cost ? tr("In all %1  ·  %2 added to the van").arg(f.money(*t.cost), f.mass(t.laidMass))
               : tr("A price is missing, so there is no total  ·  %1 added to the van").arg(f.mass(t.laidMass)));
    waste_->setText(tr("Planks and tiles bought cover %1, %2 is laid: %3 (%4) is bought and not laid. Of that, cutting "
                       "uses up %5 (%6); the rest is whole and spare.")
                        .arg(f.area(t.boughtArea), f.area(t.laidArea), f.area(t.boughtArea - t.laidArea),
                             f.percent((t.boughtArea.value - t.laidArea.value) / t.laidArea.value),
                             f.area(t.consumedArea - t.laidArea),
                             f.percent((t.consumedArea.value - t.laidArea.value) / t.laidArea.value)));
    stock_->update();
    // The largest offcuts, which may still serve elsewhere.
    std::vector<Offcut> kept;
    for (const SurfacePlan& s : plan->surfaces)
        for (const StockUnit& u : s.layerOf("planks") ? s.layerOf("planks")->setOut.stock : std::vector<StockUnit>())
            for (const Offcut& o : u.offcuts)
                if (!o.ripped && o.length.value >= 250) kept.push_back(o);
    std::sort(kept.begin(), kept.end(), [](const Offcut& a, const Offcut& b) { return a.length > b.length; });
    QStringList sizes;
    for (std::size_t i = 0; i < std::min<std::size_t>(kept.size(), 6); ++i)
        sizes << tr("%1 × %2").arg(f.length(kept[i].length, false), f.length(kept[i].width, false));
    offcuts_->setText(sizes.isEmpty() ? tr("No offcut of 250 mm or more is left.")
                                      : tr("Offcuts worth keeping: %1.").arg(sizes.join(QStringLiteral(", "))));
}

void BuyPage::save(const QString& what, const QString& filter, const QString& ending,
                   const std::function<QString(const QString&)>& write) {
    bool wrong = false;
    const QString said = askAndSave(what, QString::fromStdString(document_.job().name) + ending, filter, write, wrong);
    if (!said.isEmpty()) say(said, wrong);
}

void BuyPage::printIt() {
    QPrinter printer(QPrinter::ScreenResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter painter;
    if (!painter.begin(&printer)) {
        say(tr("The printer cannot be reached. Save a PDF instead."), true);
        return;
    }
    paintShopping(
        painter, QRectF(QPointF(), printer.pageLayout().paintRectPixels(printer.resolution()).size()),
        [&] { printer.newPage(); }, document_.job(), *document_.plan(), figures());
}

} // namespace westrum
