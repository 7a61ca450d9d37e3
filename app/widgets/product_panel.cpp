#include "app/widgets/product_panel.h"

#include "app/document/commands.h"
#include "core/catalogue/family.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace westrum {

ProductPanel::ProductPanel(JobDocument& document, char decimalMark, const std::string& family, ProductChoice product,
                           QWidget* parent, int columns)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      family_(family),
      product_(std::move(product)),
      choice_(new QComboBox),
      name_(new QLineEdit),
      price_(nullptr),
      form_(new FieldForm(
          fieldsOfFamily(family), {}, columns, [this] { return document_.job().bareUnit; },
          [this](const std::string& key, double value) {
              push(document_, setProductField(document_, chosen(), key, value));
          })) {
    price_ = new EntryField([this](const QString& typed) -> QString {
        if (typed.isEmpty()) {
            push(document_, setPackPrice(document_, chosen(), std::nullopt));
            return {};
        }
        const auto price = parseMoney(typed.toStdString(), document_.job().currency);
        if (!price) return sentence(price.error(), typed);
        push(document_, setPackPrice(document_, chosen(), price.value()));
        return {};
    });
    price_->setObjectName(QStringLiteral("price"));
    price_->setPlaceholderText(tr("no price"));
    price_->setAlignment(Qt::AlignRight);
    price_->setFixedWidth(120);
    name_->setAccessibleName(tr("Name of the product"));
    name_->setObjectName(QStringLiteral("productName"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 4);
    column->setSpacing(2);
    auto* top = new QHBoxLayout;
    top->setSpacing(8);
    top->addWidget(name_, 1);
    const ProductFamily* sold = productFamily(family);
    const QString unit = [&] {
        switch (sold ? sold->soldBy : SoldBy::Pack) {
        case SoldBy::Roll: return tr("price of a roll");
        case SoldBy::Metre: return tr("price of a metre");
        case SoldBy::Sheet: return tr("price of a sheet");
        case SoldBy::Length: return tr("price of a length");
        case SoldBy::Container: return tr("price of a container");
        case SoldBy::Pack: break;
        }
        return tr("price of a pack");
    }();
    price_->setAccessibleName(unit);
    top->addWidget(new QLabel(unit));
    top->addWidget(price_);
    auto* copy = new QPushButton(tr("Copy as new"));
    copy->setToolTip(tr("Adds a product to the catalogue with these figures, to be changed"));
    connect(copy, &QPushButton::clicked, this, &ProductPanel::addCopy);
    top->addWidget(copy);
    column->addLayout(top);
    column->addWidget(form_);
    connect(choice_, &QComboBox::activated, this,
            [this](int index) { product_.choose(choice_->itemData(index).toString().toStdString()); });
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        const QString typed = name_->text().trimmed();
        if (!chosen().empty() && !typed.isEmpty())
            push(document_, renameProduct(document_, chosen(), typed.toStdString()));
    });
    connect(form_, &FieldForm::problem, this, &ProductPanel::problem);
    connect(price_, &EntryField::problemChanged, this, &ProductPanel::problem);
}

std::string ProductPanel::chosen() const {
    const Product* product = document_.job().catalogue.find(product_.chosen());
    return product && product->family == family_ ? product->id : std::string();
}

void ProductPanel::addCopy() {
    const Product* product = document_.job().catalogue.find(chosen());
    if (!product) return;
    Product copy = *product;
    for (int n = 2; document_.job().catalogue.find(copy.id); ++n) copy.id = product->id + "-" + std::to_string(n);
    copy.name = tr("%1, copy").arg(QString::fromStdString(product->name)).toStdString();
    const std::string id = copy.id;
    document_.undoStack().beginMacro(tr("Add a product"));
    push(document_, addProduct(document_, std::move(copy)));
    product_.choose(id);
    document_.undoStack().endMacro();
}

void ProductPanel::refresh() {
    const std::string id = chosen();
    QStringList entries;
    choice_->clear();
    choice_->addItem(product_.none, QString());
    for (const Product& p : document_.job().catalogue.products)
        if (p.family == family_) choice_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
    choice_->setCurrentIndex(choice_->findData(QString::fromStdString(id)));
    const Product* product = document_.job().catalogue.find(id);
    name_->setEnabled(product);
    price_->setEnabled(product);
    form_->setEnabled(product);
    if (!product) return;
    const Figures f = figuresFor(document_.job(), decimalMark_);
    if (!name_->hasFocus()) name_->setText(QString::fromStdString(product->name));
    price_->setFigure(product->packPrice ? f.money(*product->packPrice) : QString(), {});
    form_->showValues(product->fields, f);
}

} // namespace westrum
