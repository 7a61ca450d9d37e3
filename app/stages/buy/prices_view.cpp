#include "app/stages/buy/prices_view.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"
#include "app/stages/stage_page.h"
#include "devices/price_feed.h"

#include "app/widgets/flow_row.h"
#include <QDate>
#include <QFile>
#include <QFileDialog>

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <set>

namespace westrum {
namespace {

constexpr int kChangesTold = 6;

QString stateText(OfferState s) {
    switch (s) {
    case OfferState::Sold: return OffersModel::tr("sold");
    case OfferState::OutOfStock: return OffersModel::tr("out of stock");
    case OfferState::Withdrawn: return OffersModel::tr("withdrawn");
    }
    return {};
}

QString lotText(LotRule l) {
    switch (l) {
    case LotRule::Usual: return OffersModel::tr("usual");
    case LotRule::One: return OffersModel::tr("one");
    case LotRule::Any: return OffersModel::tr("any");
    }
    return {};
}

/// The value that a word stands for; nothing, and a sentence that lists them all, if it stands for none.
template <class Value, std::size_t n>
std::optional<Value> meant(const QString& typed, const std::array<Value, n>& values, QString (*text)(Value),
                           QString& refused) {
    QStringList words;
    for (const Value v : values) {
        if (text(v).compare(typed, Qt::CaseInsensitive) == 0) return v;
        words << text(v);
    }
    refused = OffersModel::tr("Type one of: %1.").arg(words.join(QStringLiteral(", ")));
    return std::nullopt;
}

/// As it can be typed again.
QString plain(Money m) {
    return QString::fromStdString(printMoney(m, '.', false)).remove(QChar(0x202F)) + QLatin1Char(' ') +
           QString::fromStdString(m.currency.name());
}

} // namespace

OffersModel::OffersModel(JobDocument& document, char decimalMark, QObject* parent)
    : QAbstractTableModel(parent), document_(document), decimalMark_(decimalMark) {}

void OffersModel::refresh() {
    const std::vector<Offer>& now = document_.job().prices.offers;
    if (now == offers_) return;
    if (now.size() == offers_.size()) { // the row in hand stays in hand
        offers_ = now;
        emit dataChanged(index(0, 0), index(rowCount() - 1, Columns - 1));
        return;
    }
    beginResetModel();
    offers_ = now;
    endResetModel();
}

int OffersModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(offers_.size());
}
int OffersModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : Columns; }

Qt::ItemFlags OffersModel::flags(const QModelIndex& index) const {
    Qt::ItemFlags f = QAbstractTableModel::flags(index);
    if (index.isValid() && index.column() != Name) f |= Qt::ItemIsEditable;
    return f;
}

QVariant OffersModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const Offer& o = offers_[static_cast<std::size_t>(index.row())];
    const Figures f = figuresFor(document_.job(), decimalMark_);
    if (role == Qt::TextAlignmentRole && (index.column() == Size || index.column() == Price || index.column() == Tax))
        return QVariant::fromValue(Qt::Alignment(Qt::AlignRight | Qt::AlignVCenter));
    if (role == Qt::ForegroundRole && o.state != OfferState::Sold) return QBrush(Theme::now().muted);
    const bool edit = role == Qt::EditRole;
    if (role != Qt::DisplayRole && !edit) return {};
    switch (index.column()) {
    case Name: {
        const Product* p = document_.job().catalogue.find(o.product);
        return p ? QString::fromStdString(p->name) : QString::fromStdString(o.product);
    }
    case From: return QString::fromStdString(o.supplier);
    case Size:
        if (edit) return QString::number(o.size);
        return o.size > 0 ? f.number(o.size, o.size == std::floor(o.size) ? 0 : 2) : tr("as listed");
    case Price: return edit ? plain(o.price) : f.money(o.price);
    case Tax:
        if (edit) return QString::number(o.taxIncluded ? 0 : o.tax * 100);
        return o.taxIncluded ? tr("included") : tr("+ %1").arg(f.percent(o.tax));
    case State: return stateText(o.state);
    case Lot: return lotText(o.lot);
    case Date: return QString::fromStdString(o.date);
    default: return {};
    }
}

bool OffersModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    if (role != Qt::EditRole || !index.isValid() || index.row() >= rowCount()) return false;
    PriceBook book = document_.job().prices;
    Offer& o = book.offers[static_cast<std::size_t>(index.row())];
    const QString typed = value.toString().trimmed();
    const auto refuse = [&](const QString& sentence) {
        emit problem(sentence);
        return false;
    };
    switch (index.column()) {
    case From:
        if (typed.isEmpty()) return refuse(tr("An offer needs a supplier."));
        o.supplier = typed.toStdString();
        break;
    case Size: {
        const auto n = parseNumber(typed.toStdString());
        if (!n) return refuse(sentence(n.error(), typed));
        if (n.value() < 0 || n.value() > 1e6) return refuse(tr("“%1” is no size.").arg(typed));
        o.size = n.value();
        break;
    }
    case Price: {
        // "12.40", or with a currency of its own: "12.40 GBP".
        Currency currency = o.price.currency;
        QString amount = typed;
        if (const QString code = typed.right(3).toUpper(); typed.size() > 3 && currencyOf(code.toStdString())) {
            currency = *currencyOf(code.toStdString());
            amount.chop(3);
        }
        const auto money = parseMoney(amount.trimmed().toStdString(), currency);
        if (!money) return refuse(sentence(money.error(), typed));
        o.price = money.value();
        break;
    }
    case Tax: {
        QString number = typed;
        const auto n = parseNumber(number.remove(QLatin1Char('%')).remove(QLatin1Char('+')).trimmed().toStdString());
        if (!n) return refuse(sentence(n.error(), typed));
        if (n.value() < 0 || n.value() > 200) return refuse(tr("“%1” is no tax.").arg(typed));
        o.tax = n.value() / 100;
        o.taxIncluded = n.value() == 0;
        break;
    }
    case State: {
        QString refused;
        const auto state = meant(typed, std::array{OfferState::Sold, OfferState::OutOfStock, OfferState::Withdrawn},
                                 stateText, refused);
        if (!state) return refuse(refused);
        o.state = *state;
        break;
    }
    case Lot: {
        QString refused;
        const auto lot = meant(typed, std::array{LotRule::Usual, LotRule::One, LotRule::Any}, lotText, refused);
        if (!lot) return refuse(refused);
        o.lot = *lot;
        break;
    }
    case Date: o.date = typed.left(40).toStdString(); break;
    default: return false;
    }
    push(document_, setPrices(document_, std::move(book)));
    emit problem({});
    return true;
}

QVariant OffersModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    switch (section) {
    case Name: return tr("product");
    case From: return tr("from");
    case Size: return tr("in one");
    case Price: return tr("price");
    case Tax: return tr("tax");
    case State: return tr("state");
    case Lot: return tr("lot");
    case Date: return tr("of");
    default: return {};
    }
}

PricesView::PricesView(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      model_(new OffersModel(document, decimalMark, this)),
      table_(new QTableView),
      product_(new QComboBox),
      supplier_(new QComboBox),
      delivery_(moneyField(&Supplier::delivery)),
      freeFrom_(moneyField(&Supplier::freeFrom)),
      foreign_(new QLabel),
      rate_(new EntryField([this](const QString& typed) { return takeRate(typed); })),
      review_(new QLabel),
      takeIn_(new QPushButton(tr("Take all in"))),
      leave_(new QPushButton(tr("Leave it"))) {
    setUpTable();
    setUpFields();
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 0);
    column->addWidget(table_, 1);
    auto* reviewed = new QHBoxLayout;
    reviewed->addWidget(review_, 1);
    reviewed->addWidget(takeIn_, 0, Qt::AlignTop);
    reviewed->addWidget(leave_, 0, Qt::AlignTop);
    column->addLayout(reviewed);
    column->addLayout(suppliersRow());
    column->addLayout(actionsRow());
    connect(takeIn_, &QPushButton::clicked, this, [this] {
        push(document_, setPrices(document_, withPrices(document_.job().prices, std::exchange(incoming_, {}))));
        refresh();
    });
    connect(leave_, &QPushButton::clicked, this, [this] {
        incoming_.clear();
        refresh();
    });
}

EntryField* PricesView::moneyField(std::optional<Money> Supplier::*which) {
    return new EntryField([this, which](const QString& typed) -> QString {
        if (typed.trimmed().isEmpty()) {
            changeSupplier([which](Supplier& s) { (s.*which).reset(); });
            return {};
        }
        const auto money = parseMoney(typed.toStdString(), document_.job().currency);
        if (!money) return westrum::sentence(money.error(), typed);
        changeSupplier([&](Supplier& s) { s.*which = money.value(); });
        return {};
    });
}

/// Takes what a foreign currency is worth; why not, if it cannot be.
QString PricesView::takeRate(const QString& typed) {
    const auto n = parseNumber(typed.trimmed().toStdString());
    if (!n) return westrum::sentence(n.error(), typed);
    if (!(n.value() > 0) || n.value() > 1e5) return tr("A rate is more than nothing.");
    PriceBook book = document_.job().prices;
    book.rates[foreign_->property("code").toString().toStdString()] = n.value();
    push(document_, setPrices(document_, std::move(book)));
    return {};
}

void PricesView::setUpTable() {
    table_->setModel(model_);
    table_->setObjectName(QStringLiteral("offers"));
    table_->setAccessibleName(tr("Offers: double-click or F2 to change a cell"));
    table_->setShowGrid(false);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(QFontMetrics(textFont()).height() + 9);
    const QFontMetrics metrics(textFont());
    table_->horizontalHeader()->setSectionResizeMode(OffersModel::Name, QHeaderView::Stretch);
    for (const auto& [column, text] : {std::pair(OffersModel::From, QStringLiteral("Lockside Building Y")),
                                       std::pair(OffersModel::Size, QStringLiteral("as listed")),
                                       std::pair(OffersModel::Price, QStringLiteral("8 888.88 EUR")),
                                       std::pair(OffersModel::Tax, QStringLiteral("included 8")),
                                       std::pair(OffersModel::State, QStringLiteral("out of stock")),
                                       std::pair(OffersModel::Lot, QStringLiteral("usual")),
                                       std::pair(OffersModel::Date, QStringLiteral("2026-88-88"))})
        table_->setColumnWidth(column, metrics.horizontalAdvance(text) + 18);
    connect(model_, &OffersModel::problem, this, &PricesView::problem);
}

void PricesView::setUpFields() {
    product_->setObjectName(QStringLiteral("offerProduct"));
    product_->setAccessibleName(tr("Product of a new offer"));
    supplier_->setObjectName(QStringLiteral("supplier"));
    supplier_->setAccessibleName(tr("Supplier"));
    connect(supplier_, &QComboBox::activated, this, [this] { refresh(); });
    delivery_->setObjectName(QStringLiteral("delivery"));
    freeFrom_->setObjectName(QStringLiteral("freeFrom"));
    rate_->setObjectName(QStringLiteral("rate"));
    for (EntryField* field : {delivery_, freeFrom_, rate_}) {
        field->setAlignment(Qt::AlignRight);
        field->setFixedWidth(100);
        connect(field, &EntryField::problemChanged, this, &PricesView::problem);
    }
    delivery_->setAccessibleName(tr("Delivery"));
    freeFrom_->setAccessibleName(tr("Free from"));
    rate_->setAccessibleName(tr("Rate"));
    review_->setObjectName(QStringLiteral("review"));
    review_->setWordWrap(true);
    review_->setTextFormat(Qt::PlainText);
    takeIn_->setObjectName(QStringLiteral("takeIn"));
    leave_->setObjectName(QStringLiteral("leave"));
}

QLayout* PricesView::suppliersRow() {
    auto* suppliers = new FlowRow;
    suppliers->addWidget(supplier_);
    suppliers->addWidget(new QLabel(tr("takes for bringing it")));
    suppliers->addWidget(delivery_);
    suppliers->addWidget(new QLabel(tr("nothing from")));
    suppliers->addWidget(freeFrom_);
    suppliers->addWidget(foreign_);
    suppliers->addWidget(rate_);
    return suppliers;
}

QLayout* PricesView::actionsRow() {
    auto* actions = new FlowRow;
    const auto button = [&](const QString& text, const char* name, auto&& does) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(name));
        connect(b, &QPushButton::clicked, this, does);
        actions->addWidget(b);
    };
    product_->setMaximumWidth(255); // so that all buttons stay in one line at 1280
    actions->addWidget(product_);
    button(tr("Add an offer"), "addOffer", [this] { addOffer(); });
    button(tr("Remove"), "removeOffer", [this] { removeOffer(); });
    button(tr("Take in a list…"), "openPrices", [this] { openList(); });
    button(tr("Save the list…"), "savePrices", [this] { saveList(); });
    button(tr("Fetch, simulated"), "fetch", [this] {
        SimulatedPriceFeed feed(document_.job().catalogue, "Ferry Wholesale",
                                QDate::currentDate().toString(Qt::ISODate).toStdString(),
                                document_.job().seed + document_.job().prices.offers.size());
        show(feed.fetch(), tr("The simulated supplier answers."));
    });
    return actions;
}

std::string PricesView::supplierInHand() const { return supplier_->currentText().toStdString(); }

void PricesView::changeSupplier(const std::function<void(Supplier&)>& change) {
    const std::string name = supplierInHand();
    if (name.empty()) return;
    PriceBook book = document_.job().prices;
    auto s =
        std::find_if(book.suppliers.begin(), book.suppliers.end(), [&](const Supplier& x) { return x.name == name; });
    if (s == book.suppliers.end()) s = book.suppliers.insert(book.suppliers.end(), Supplier{name, {}, {}});
    change(*s);
    if (!s->delivery && !s->freeFrom) book.suppliers.erase(s);
    push(document_, setPrices(document_, std::move(book)));
}

void PricesView::addOffer() {
    const std::string id = product_->currentData().toString().toStdString();
    const Product* p = document_.job().catalogue.find(id);
    if (!p) return;
    PriceBook book = document_.job().prices;
    book.offers.push_back({.product = id,
                           .supplier = tr("another supplier").toStdString(),
                           .size = 0,
                           .price = p->packPrice.value_or(Money{0, document_.job().currency}),
                           .date = QDate::currentDate().toString(Qt::ISODate).toStdString()});
    push(document_, setPrices(document_, std::move(book)));
    refresh();
    table_->selectRow(model_->rowCount() - 1);
    table_->scrollToBottom();
}

void PricesView::removeOffer() {
    const QModelIndex now = table_->currentIndex();
    if (!now.isValid()) return;
    PriceBook book = document_.job().prices;
    book.offers.erase(book.offers.begin() + now.row());
    push(document_, setPrices(document_, std::move(book)));
    refresh();
}

void PricesView::openList() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("List of prices"), {}, tr("CSV (*.csv *.txt);;All files (*)"));
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
        emit problem(tr("%1 cannot be read.").arg(path));
        return;
    }
    emit problem(review(file.read(kLargestPriceFile + 1)));
}

void PricesView::saveList() {
    const QString path =
        QFileDialog::getSaveFileName(this, tr("List of prices"), QStringLiteral("prices.csv"), tr("CSV (*.csv)"));
    if (path.isEmpty()) return;
    if (const QString wrong = saveBytes(path, pricesAsCsv(document_.job().prices, document_.job().catalogue));
        !wrong.isEmpty())
        emit problem(wrong);
}

QString PricesView::review(const QByteArray& bytes) {
    const PriceReading r = readPrices(bytes, document_.job().currency, document_.job().catalogue);
    QStringList faults;
    for (const PriceFault& f : r.faults)
        if (faults.size() < 3) faults << sentence(f);
    if (r.faulty > 3) faults << tr("%n line(s) left out in all.", nullptr, static_cast<int>(r.faulty));
    show(r.offers, tr("%n line(s) read.", nullptr, static_cast<int>(r.offers.size())));
    return faults.join(QLatin1Char(' '));
}

void PricesView::show(std::vector<Offer> incoming, const QString& said) {
    const std::vector<PriceChange> changes = reviewPrices(document_.job().prices, incoming);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    QStringList told;
    for (const PriceChange& c : changes) {
        if (told.size() == kChangesTold) break;
        const Product* p = document_.job().catalogue.find(c.now.product);
        const QString name = p ? QString::fromStdString(p->name) : QString();
        switch (c.kind) {
        case PriceChange::Kind::New: told << tr("%1 new at %2").arg(name, f.money(c.now.price)); break;
        case PriceChange::Kind::Dearer:
        case PriceChange::Kind::Cheaper:
            told << tr("%1 %2, was %3").arg(name, f.money(c.now.price), f.money(c.before->price));
            break;
        case PriceChange::Kind::Gone: told << tr("%1 is %2").arg(name, stateText(c.now.state)); break;
        case PriceChange::Kind::Back: told << tr("%1 is sold again").arg(name); break;
        case PriceChange::Kind::Same: told << tr("%1 differs in its terms").arg(name); break;
        }
    }
    incoming_ = changes.empty() ? std::vector<Offer>() : std::move(incoming);
    QString text = said + QLatin1Char(' ');
    if (changes.empty())
        text += tr("Nothing in it differs from what is known.");
    else
        text += tr("%n change(s):", nullptr, static_cast<int>(changes.size())) + QLatin1Char(' ') +
                told.join(QStringLiteral("; ")) +
                (static_cast<int>(changes.size()) > kChangesTold ? QStringLiteral(" …") : QStringLiteral("."));
    refresh();
    review_->setText(text);
    review_->show();
}

void PricesView::refresh() {
    const Job& job = document_.job();
    const Figures f = figuresFor(job, decimalMark_);
    model_->refresh();
    const QString product = product_->currentData().toString(), supplier = supplier_->currentText();
    product_->clear();
    std::set<QString> names;
    for (const Product& p : job.catalogue.products) {
        product_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
        if (!p.supplier.empty()) names.insert(QString::fromStdString(p.supplier));
    }
    for (const Offer& o : job.prices.offers) names.insert(QString::fromStdString(o.supplier));
    product_->setCurrentIndex(std::max(0, product_->findData(product)));
    supplier_->clear();
    for (const QString& name : names) supplier_->addItem(name);
    supplier_->setCurrentIndex(std::max(0, supplier_->findText(supplier)));
    const Supplier* s = job.prices.supplier(supplierInHand());
    const auto shown = [&](EntryField* field, const std::optional<Money>& m) {
        field->setFigure(m ? f.money(*m) : QString(),
                         m ? QString::fromStdString(printMoney(*m, '.', false)).remove(QChar(0x202F)) : QString());
    };
    shown(delivery_, s ? s->delivery : std::nullopt);
    shown(freeFrom_, s ? s->freeFrom : std::nullopt);
    QString foreign;
    for (const Offer& o : job.prices.offers) // the one without a rate first
        if (o.price.currency != job.currency &&
            (foreign.isEmpty() || !job.prices.rates.contains(o.price.currency.name())))
            foreign = QString::fromStdString(o.price.currency.name());
    foreign_->setVisible(!foreign.isEmpty());
    rate_->setVisible(!foreign.isEmpty());
    foreign_->setProperty("code", foreign);
    foreign_->setText(tr("1 %1 is, in %2,").arg(foreign, QString::fromStdString(job.currency.name())));
    const auto rate = job.prices.rates.find(foreign.toStdString());
    const QString figure = rate == job.prices.rates.end() ? QString() : QString::number(rate->second);
    rate_->setFigure(figure, figure);
    takeIn_->setVisible(!incoming_.empty());
    leave_->setVisible(!incoming_.empty());
    if (incoming_.empty()) {
        const auto plan = document_.plan();
        QString text =
            job.prices.offers.empty()
                ? tr("Only the catalogue's own prices so far. Add what others ask, or take a list in: the cheapest "
                     "purchases are worked out over all of them, deliveries and sizes counted.")
                : QString();
        if (plan->leastCost && plan->totals.cost)
            text = *plan->leastCost == *plan->totals.cost || document_.job().spares.size() > 0
                       ? tr("Bought at least cost over all offers, sizes and deliveries.")
                       : tr("Within %1 of the least that any choice of offers can cost.")
                             .arg(f.money(*plan->totals.cost - *plan->leastCost));
        for (const DeliveryPlan& d : plan->deliveries)
            text += QLatin1Char(' ') +
                    tr("%1 is paid %2 for bringing it.").arg(QString::fromStdString(d.supplier), f.money(d.cost));
        review_->setText(text);
    }
}

} // namespace westrum
