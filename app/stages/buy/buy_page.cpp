#include "app/stages/buy/buy_page.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"
#include "app/print/paper.h"
#include "app/print/shopping_print.h"
#include "app/widgets/flow_row.h"
#include "core/families/family.h"
#include "core/plan/cost_sharing.h"
#include "formats/plan_file.h"
#include "formats/shopping_file.h"

#include <QButtonGroup>
#include <QHeaderView>
#include <QItemSelectionModel>
#include <QScrollArea>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr int kMostSpare = 400;
constexpr int kAskAfterMs = 400; ///< of rest, before variations are tried

struct Practice {
    const char* name;
    double spoils;
};
/// How many cuts are spoiled, by practice. Source: docs/formulae.md#odds
constexpr Practice kHands[] = {{QT_TRANSLATE_NOOP("westrum::BuyPage", "first-timer: 1 cut in 15 spoilt"), 1.0 / 15},
                               {QT_TRANSLATE_NOOP("westrum::BuyPage", "some practice: 1 in 30"), 1.0 / 30},
                               {QT_TRANSLATE_NOOP("westrum::BuyPage", "practised: 1 in 50"), 1.0 / 50},
                               {QT_TRANSLATE_NOOP("westrum::BuyPage", "no cut is spoilt"), 0}};

} // namespace

BuyPage::BuyPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      model_(new PurchaseModel(this)),
      table_(new QTableView),
      total_(new QLabel),
      here_(new QLabel),
      lineTitle_(new QLabel),
      lineText_(new QLabel),
      bookText_(new QLabel),
      shelf_(new QPushButton),
      shares_(new ShareBars),
      bought_(new QCheckBox(tr("bought"))),
      paid_(new EntryField([this](const QString& typed) -> QString {
          if (typed.trimmed().isEmpty()) {
              buy([](Bought& b) { b.paid.reset(); });
              return {};
          }
          const auto paid = parseMoney(typed.toStdString(), document_.job().currency);
          if (!paid) return sentence(paid.error(), typed);
          buy([&](Bought& b) { b.paid = paid.value(); });
          return {};
      })),
      lot_(new QLineEdit),
      spareAll_(new QPushButton(tr("Spares so that nothing runs short above"))),
      risk_(new EntryField([this](const QString& typed) { return takeRisk(typed); })),
      askSavings_(new QPushButton(tr("What would save one?"))),
      takeSaving_(new QPushButton(tr("Do it"))),
      savingText_(new QLabel),
      budget_(new EntryField([this](const QString& typed) { return takeBudget(typed); })),
      budgetText_(new QLabel),
      curve_(new OddsCurve),
      consumables_(new QCheckBox(tr("discs, tape, blades too"))),
      hand_(new QComboBox),
      actions_(new QWidget),
      detail_(new QWidget),
      list_(new QWidget),
      mass_(new MassView(document, decimalMark)),
      compare_(new CompareView(document, decimalMark)),
      prices_(new PricesView(document, decimalMark)),
      showList_(new QPushButton(tr("List"))),
      showMass_(new QPushButton(tr("Mass"))),
      showCompare_(new QPushButton(tr("Compare"))),
      showPrices_(new QPushButton(tr("Prices"))),
      wholeVan_(new QPushButton(tr("Whole van"))) {
    setUpTable();
    setUpSums();
    setUpActions();
    setUpLine();
    auto* list = new QVBoxLayout(list_);
    list->setContentsMargins(0, 4, 0, 0);
    list->addWidget(table_, 1);
    list->addLayout(sumsRow());
    list->addLayout(choicesRow());
    list->addWidget(detail_);
    list->addWidget(actions_);
    column()->addWidget(list_, 1);
    column()->addWidget(mass_, 1);
    mass_->hide();
    compare_->hide();
    column()->addWidget(compare_, 1);
    prices_->hide();
    column()->addWidget(prices_, 1);
    setUpViews();
    for (EntryField* field : {paid_, budget_, risk_})
        connect(field, &EntryField::problemChanged, this, &BuyPage::answer);

    followDocument();
    connect(shares_, &ShareBars::picked, this, &BuyPage::surfacePicked);
    connect(curve_, &OddsCurve::chosen, this, &BuyPage::chooseNumber);
}

QString BuyPage::takeRisk(const QString& typed) {
    QString number = typed;
    number.remove(QLatin1Char('%'));
    const auto percent = parseNumber(number.trimmed().toStdString());
    if (!percent) return sentence(percent.error(), typed);
    if (percent.value() < 0 || percent.value() > 100) return tr("A chance lies between 0 and 100 %.");
    push(document_, acceptRisk(document_, percent.value() / 100));
    return {};
}

QString BuyPage::takeBudget(const QString& typed) {
    if (typed.trimmed().isEmpty()) {
        push(document_, setBudget(document_, {}));
        return {};
    }
    const auto sum = parseMoney(typed.toStdString(), document_.job().currency);
    if (!sum) return sentence(sum.error(), typed);
    push(document_, setBudget(document_, sum.value()));
    return {};
}

void BuyPage::setUpTable() {
    table_->setModel(model_);
    table_->setObjectName(QStringLiteral("shoppingList"));
    table_->setShowGrid(false);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setTabKeyNavigation(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(QFontMetrics(textFont()).height() + 9);
    // As wide as figures get; what is bought has the rest.
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    table_->horizontalHeader()->setSectionResizeMode(PurchaseModel::Name, QHeaderView::Stretch);
    const QFontMetrics metrics(textFont());
    for (const auto& [column, text] : {std::pair(PurchaseModel::Buy, QStringLiteral("88 containers")),
                                       std::pair(PurchaseModel::Needed, QStringLiteral("888 rivet nuts")),
                                       std::pair(PurchaseModel::LeftOver, QStringLiteral("88, up to 8 888 × 8 888 mm")),
                                       std::pair(PurchaseModel::Short, QStringLiteral("runs short 8")),
                                       std::pair(PurchaseModel::Cost, QStringLiteral("8 888.88 EUR"))})
        table_->setColumnWidth(column, metrics.horizontalAdvance(text) + 18);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->setWordWrap(false);
    table_->setAccessibleName(tr("Shopping list: what goes where is told of the line in hand"));
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& now) {
        if (!filling_ && now.isValid()) takeLine(now.row());
    });
}

void BuyPage::setUpSums() {
    total_->setFont(textFont(1.2, true));
    total_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    total_->setObjectName(QStringLiteral("total"));
    here_->setObjectName(QStringLiteral("ofThisSurface"));
    lineTitle_->setFont(textFont(1.05, true));
    lineTitle_->setObjectName(QStringLiteral("lineTitle"));
    lineText_->setObjectName(QStringLiteral("lineText"));
    bookText_->setObjectName(QStringLiteral("bookText"));
    for (QLabel* label : {here_, lineTitle_, lineText_, bookText_}) {
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
    }
}

QLayout* BuyPage::sumsRow() {
    auto* totals = new QHBoxLayout;
    totals->setSpacing(16);
    totals->addWidget(here_, 1);
    totals->addWidget(total_);
    return totals;
}

QLayout* BuyPage::choicesRow() {
    consumables_->setObjectName(QStringLiteral("consumables"));
    connect(consumables_, &QCheckBox::clicked, this,
            [this](bool on) { push(document_, countConsumables(document_, on)); });
    hand_->setObjectName(QStringLiteral("hand"));
    hand_->setAccessibleName(tr("How many cuts are spoilt"));
    for (const Practice& h : kHands) hand_->addItem(tr(h.name), h.spoils);
    connect(hand_, &QComboBox::activated, this,
            [this](int i) { push(document_, setSpoilChance(document_, hand_->itemData(i).toDouble())); });

    auto* choices = new FlowRow;
    choices->addWidget(consumables_);
    choices->addWidget(hand_);
    spareAll_->setObjectName(QStringLiteral("spareAll"));
    spareAll_->setToolTip(
        tr("Adds spares until the chance that anything at all runs short is down to what is accepted"));
    choices->addWidget(spareAll_);
    risk_->setObjectName(QStringLiteral("acceptedRisk"));
    risk_->setAccessibleName(tr("Chance of running short that is accepted"));
    risk_->setFixedWidth(62);
    risk_->setAlignment(Qt::AlignRight);
    choices->addWidget(risk_);
    connect(spareAll_, &QPushButton::clicked, this, &BuyPage::spareAll);
    return choices;
}

void BuyPage::setUpActions() {
    auto* row = new FlowRow;
    actions_->setLayout(row);
    const auto action = [&](const QString& text, const QString& name, auto&& does) {
        auto* button = new QPushButton(text);
        button->setObjectName(name);
        connect(button, &QPushButton::clicked, this, does);
        row->addWidget(button);
    };
    action(tr("Print…"), QStringLiteral("print"), [this] { printIt(); });
    action(tr("Save as PDF…"), QStringLiteral("savePdf"), [this] {
        save(tr("Shopping list as PDF"), tr("PDF (*.pdf)"), QStringLiteral(".pdf"), [this](const QString& path) {
            return saveShoppingPdf(path, document_.job(), *document_.plan(), figures(), roughCutsNow());
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
    action(tr("Save as XLSX…"), QStringLiteral("saveXlsx"), [this] {
        save(tr("Shopping list as a workbook"), tr("Workbook (*.xlsx)"), QStringLiteral(".xlsx"),
             [this](const QString& path) {
                 return saveShoppingXlsx(path, document_.job(), *document_.plan(), figures());
             });
    });
    budget_->setObjectName(QStringLiteral("budget"));
    budget_->setAccessibleName(tr("Budget"));
    budget_->setAlignment(Qt::AlignRight);
    budget_->setFixedWidth(110);
    budgetText_->setObjectName(QStringLiteral("budgetText"));
    row->addWidget(new QLabel(tr("budget")));
    row->addWidget(budget_);
    row->addWidget(budgetText_);
}

QLayout* BuyPage::boughtRow() {
    bought_->setObjectName(QStringLiteral("bought"));
    paid_->setObjectName(QStringLiteral("paid"));
    paid_->setAccessibleName(tr("Paid for it"));
    paid_->setAlignment(Qt::AlignRight);
    paid_->setFixedWidth(100);
    lot_->setObjectName(QStringLiteral("lot"));
    lot_->setAccessibleName(tr("Lot"));
    lot_->setPlaceholderText(tr("lot"));
    lot_->setMaximumWidth(110);
    connect(bought_, &QCheckBox::clicked, this, [this](bool on) {
        const Purchase* p = line();
        if (!p) return;
        if (on)
            buy([](Bought&) {});
        else
            push(document_, tickBought(document_, boughtKey(p->product, p->size), {}));
    });
    connect(lot_, &QLineEdit::editingFinished, this, [this] {
        const std::string typed = lot_->text().trimmed().toStdString();
        if (lot_->isModified()) buy([&](Bought& b) { b.lot = typed; });
    });
    auto* ticks = new QHBoxLayout;
    ticks->addWidget(bought_);
    ticks->addSpacing(14);
    ticks->addWidget(new QLabel(tr("paid")));
    ticks->addWidget(paid_);
    ticks->addWidget(lot_);
    ticks->addStretch(1);
    return ticks;
}

QLayout* BuyPage::savingsRow() {
    askSavings_->setObjectName(QStringLiteral("askSavings"));
    askSavings_->setToolTip(tr("Tries every other way to lay what takes it, pieces turned, and a seam more"));
    takeSaving_->setObjectName(QStringLiteral("takeSaving"));
    savingText_->setObjectName(QStringLiteral("savingText"));
    savingText_->setTextFormat(Qt::PlainText);
    savingText_->setWordWrap(true);
    auto* saves = new QHBoxLayout;
    saves->addWidget(askSavings_);
    saves->addWidget(savingText_, 1);
    saves->addWidget(takeSaving_);
    saves->addStretch(0);
    askSavings_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Fixed);
    connect(askSavings_, &QPushButton::clicked, this, [this] {
        savingsFor_.clear();
        savingsWorker_.ask(document_.job(), product_);
        refreshSavings();
    });
    connect(takeSaving_, &QPushButton::clicked, this, [this] {
        if (savingsFor_ != product_ || savings_.empty()) return;
        const Saving best = savings_.front();
        savingsFor_.clear();
        push(document_, takeSaving(document_, product_, best));
    });
    connect(&savingsWorker_, &SavingsWorker::found, this,
            [this](const std::string& product, const std::vector<Saving>& savings) {
                savingsFor_ = product;
                savings_ = savings;
                refreshSavings();
            });
    // What was tried is of the job as it was.
    connect(&document_, &JobDocument::jobChanged, this, [this] {
        if (!savingsWorker_.isStale(document_.job())) return;
        savingsWorker_.stop();
        savingsFor_.clear();
    });
    return saves;
}

void BuyPage::setUpLine() {
    auto* columns = new QHBoxLayout(detail_);
    columns->setContentsMargins(0, 4, 0, 0);
    columns->setSpacing(24);
    auto* left = new QVBoxLayout;
    left->setSpacing(2);
    left->addWidget(lineTitle_);
    left->addWidget(lineText_);
    auto* known = new QHBoxLayout;
    known->addWidget(bookText_, 1);
    shelf_->setObjectName(QStringLiteral("useShelf"));
    connect(shelf_, &QPushButton::clicked, this, &BuyPage::turnShelf);
    known->addWidget(shelf_);
    left->addLayout(known);
    left->addLayout(boughtRow());
    left->addLayout(savingsRow());
    auto* scroll = new QScrollArea;
    scroll->setWidget(shares_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    left->addWidget(scroll, 1);
    columns->addLayout(left, 3);
    columns->addWidget(curve_, 2);
    detail_->setFixedHeight(232);
}

void BuyPage::setUpViews() {
    headingRow()->addStretch(1);
    auto* views = new QButtonGroup(this);
    for (const auto& [button, name, tip] :
         {std::tuple(wholeVan_, "wholeVan",
                     tr("Compares schemes of the whole van rather than options of this surface")),
          std::tuple(showList_, "showList", tr("What to buy")),
          std::tuple(showMass_, "showMass", tr("What the finishes weigh, and what axles and sides carry of it")),
          std::tuple(showPrices_, "showPrices", tr("What others ask, in other sizes, and for bringing it")),
          std::tuple(showCompare_, "showCompare", tr("Options beside each other"))}) {
        button->setCheckable(true);
        button->setObjectName(QString::fromLatin1(name));
        button->setToolTip(tip);
        headingRow()->addWidget(button);
        if (button != wholeVan_) views->addButton(button);
    }
    showList_->setChecked(true);
    wholeVan_->hide();
    connect(views, &QButtonGroup::buttonToggled, this, [this](QAbstractButton*, bool on) {
        if (!on) return; // the one that was left
        list_->setVisible(showList_->isChecked());
        mass_->setVisible(showMass_->isChecked());
        compare_->setVisible(showCompare_->isChecked());
        prices_->setVisible(showPrices_->isChecked());
        wholeVan_->setVisible(showCompare_->isChecked());
        if (showCompare_->isChecked()) compare_->setFocus();
        refresh();
    });
    connect(wholeVan_, &QPushButton::toggled, this, [this](bool on) {
        compare_->compareVan(on);
        compare_->setFocus();
        refresh();
    });
    connect(compare_, &CompareView::compared, this, [this] {
        if (showCompare_->isChecked()) figuresCameIn([this] { say(compare_->sentence()); });
    });
    connect(prices_, &PricesView::problem, this, &BuyPage::answer);
    connect(mass_, &MassView::problem, this, &BuyPage::answer);
}

void BuyPage::followDocument() {
    connect(&document_, &JobDocument::purchasesChanged, this, [this] { figuresCameIn([this] { refresh(); }); });
    connect(&document_, &JobDocument::oddsChanged, this, [this] { figuresCameIn([this] { refresh(); }); });
    connect(&document_, &JobDocument::oddsProgress, this, [this](double share) {
        progress_ = share;
        if (showList_->isChecked()) figuresCameIn([this] { sayRisk(); });
    });
    connect(&document_, &JobDocument::cuttingChanged, this, [this] {
        if (isVisible()) ask_.start();
    });
    ask_.setSingleShot(true);
    ask_.setInterval(kAskAfterMs);
    connect(&ask_, &QTimer::timeout, this, [this] {
        if (isVisible()) document_.askOdds();
    });
}

const Purchase* BuyPage::line() const {
    for (const Purchase& p : document_.plan()->purchases)
        if (p.product == product_ && p.size == size_) return &p;
    return nullptr;
}

const ProductOdds* BuyPage::oddsOf(const std::string& product) const {
    if (const auto odds = document_.odds())
        for (const ProductOdds& o : *odds)
            if (o.product == product) return &o;
    return nullptr;
}

void BuyPage::takeLine(int row) {
    const auto& all = document_.plan()->purchases;
    if (row < 0 || row >= static_cast<int>(all.size())) return;
    product_ = all[static_cast<std::size_t>(row)].product;
    size_ = all[static_cast<std::size_t>(row)].size;
    refreshLine();
}

void BuyPage::chooseNumber(int number) {
    const Purchase* p = line();
    if (!p) return;
    const int bought = stockFormOf(p->family) == StockForm::Roll ? p->spare : p->packs;
    push(document_, setSpare(document_, p->product, std::max(0, p->spare + number - bought)));
}

/// Mass, prices or the comparison, if one of them is shown in place of the list.
bool BuyPage::refreshOtherView(const Plan& plan, const Job& job, const Figures& f) {
    if (showMass_->isChecked()) {
        setHeading(tr("What it weighs"), QString::fromStdString(job.name));
        mass_->refresh();
        emit shaded({});
        QString over; // the first that is over, if any
        for (const Remark& r : plan.remarks)
            if (over.isEmpty() && (r.kind == RemarkKind::AxleOver || r.kind == RemarkKind::SideOver ||
                                   r.kind == RemarkKind::AllowancePassed))
                over = sentence(r, f);
        say(over, !over.isEmpty());
        return true;
    }
    if (showPrices_->isChecked()) {
        setHeading(tr("Prices"), QString::fromStdString(job.name));
        prices_->refresh();
        emit shaded({});
        say({});
        return true;
    }
    if (showCompare_->isChecked()) {
        const bool whole = compare_->ofVan();
        setHeading(whole || !surface() ? QString::fromStdString(job.name) : QString::fromStdString(surface()->name),
                   whole ? tr("schemes compared") : tr("options compared"));
        emit shaded({});
        compare_->refresh();
        say(compare_->sentence());
        return true;
    }
    return false;
}

/// The sums below the list: of all, of the budget, of the surface in hand.
void BuyPage::refreshSums(const Plan& plan, const Job& job, const Figures& f) {
    const Totals& t = plan.totals;
    total_->setText(
        t.cost ? tr("In all %1  ·  %2 added to the van").arg(f.money(*t.cost), f.mass(t.laidMass))
               : tr("A price is missing, so there is no total  ·  %1 added to the van").arg(f.mass(t.laidMass)));
    budget_->setFigure(job.budget ? f.money(*job.budget) : QString(),
                       job.budget ? QString::fromStdString(printMoney(*job.budget, '.', false)).remove(QChar(0x202F))
                                  : QString());
    QString budget;
    bool over = false;
    if (job.budget && t.cost && t.cost->currency == job.budget->currency) {
        const Money left = *job.budget - *t.cost;
        over = left.minor < 0;
        budget =
            over ? tr("%1 over it").arg(f.money({-left.minor, left.currency})) : tr("%1 under it").arg(f.money(left));
    }
    budgetText_->setText(budget);
    budgetText_->setStyleSheet(over ? QStringLiteral("color: %1;").arg(css(Theme::now().pencil)) : QString());
    QString here;
    for (const SurfaceCost& c : costBySurface(job, plan)) {
        if (c.surface != surfaceId() || !surface()) continue;
        here = c.cost ? tr("%1 bears %2 of it and carries %3; its lines are in bold.")
                            .arg(QString::fromStdString(surface()->name), f.money(*c.cost), f.mass(c.mass))
                      : tr("%1 carries %2; its lines are in bold.")
                            .arg(QString::fromStdString(surface()->name), f.mass(c.mass));
        if (c.cost && c.area.value > 0)
            here +=
                QLatin1Char(' ') +
                tr("That is %1 %2.")
                    .arg(f.money({std::llround(double(c.cost->minor) / c.area.value * f.areaUnit()), c.cost->currency}),
                         f.anArea());
    }
    for (const DeliveryPlan& d : plan.deliveries)
        here += QLatin1Char(' ') +
                tr("%1 is paid %2 for bringing.").arg(QString::fromStdString(d.supplier), f.money(d.cost));
    here_->setText(here);
}

void BuyPage::refreshChoices(const Job& job, const Figures& f) {
    consumables_->setChecked(job.consumables);
    risk_->setFigure(f.percent(job.acceptedRisk), f.number(job.acceptedRisk * 100, 1));
    spareAll_->setEnabled(document_.odds() != nullptr);
    int hand = -1;
    for (int i = 0; i < hand_->count(); ++i)
        if (std::abs(hand_->itemData(i).toDouble() - job.spoilChance) < 1e-6) hand = i;
    hand_->setCurrentIndex(hand);
    if (hand < 0) hand_->setPlaceholderText(tr("%1 of cuts spoilt").arg(f.percent(job.spoilChance)));
}

void BuyPage::refresh() {
    const Figures f = figures();
    const auto plan = document_.plan();
    const Job& job = document_.job();
    const bool anything = !plan->purchases.empty();
    if (refreshOtherView(*plan, job, f)) return;
    setHeading(tr("To buy"), QString::fromStdString(job.name));
    filling_ = true;
    model_->setPlan(plan, job.catalogue, f, document_.odds(), job.acceptedRisk, surfaceId(), job.bought);
    filling_ = false;
    for (QWidget* w : {static_cast<QWidget*>(table_), static_cast<QWidget*>(total_), static_cast<QWidget*>(here_),
                       actions_, static_cast<QWidget*>(consumables_), static_cast<QWidget*>(hand_),
                       static_cast<QWidget*>(spareAll_), static_cast<QWidget*>(risk_)})
        w->setVisible(anything);
    refreshChoices(job, f);
    if (!anything) {
        detail_->hide();
        emit shaded({});
        say(tr("Nothing to buy yet: measure the floor and set it out."));
        return;
    }
    sayRisk();
    refreshSums(*plan, job, f);
    if (!line()) { // the first line that goes to the surface in hand, else the first
        std::size_t at = 0;
        for (std::size_t i = plan->purchases.size(); i-- > 0;)
            if (std::any_of(plan->purchases[i].shares.begin(), plan->purchases[i].shares.end(),
                            [&](const PurchaseShare& s) { return s.surface == surfaceId(); }))
                at = i;
        product_ = plan->purchases[at].product;
        size_ = plan->purchases[at].size;
    }
    for (std::size_t i = 0; i < plan->purchases.size(); ++i)
        if (&plan->purchases[i] == line()) {
            filling_ = true;
            table_->selectRow(static_cast<int>(i));
            filling_ = false;
        }
    refreshLine();
    ask_.start();
}

void BuyPage::save(const QString& what, const QString& filter, const QString& ending,
                   const std::function<QString(const QString&)>& write) {
    bool wrong = false;
    const QString said = askAndSave(what, QString::fromStdString(document_.job().name) + ending, filter, write, wrong);
    if (!said.isEmpty()) say(said, wrong);
}

void BuyPage::printIt() {
    const Printed printed = printPages(
        this, QString::fromStdString(document_.job().name), QMarginsF(16, 16, 16, 16),
        [this](QPainter& painter, const QRectF& page, const std::function<void()>& newPage) {
            paintShopping(painter, page, newPage, document_.job(), *document_.plan(), figures(), roughCutsNow());
        });
    if (printed == Printed::Unreachable) say(tr("The printer cannot be reached. Save a PDF instead."), true);
}

} // namespace westrum
