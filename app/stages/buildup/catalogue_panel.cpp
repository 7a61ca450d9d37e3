#include "app/stages/buildup/catalogue_panel.h"

#include "app/document/commands.h"
#include "app/stages/stage_page.h"
#include "core/catalogue/family.h"
#include "formats/catalogue_file.h"

#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>

namespace westrum {

CataloguePanel::CataloguePanel(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      family_(new QComboBox),
      list_(new QListWidget),
      fields_(new QVBoxLayout),
      remove_(new QPushButton(tr("Remove it"))) {
    family_->setObjectName(QStringLiteral("catalogueFamily"));
    family_->setAccessibleName(tr("Family"));
    list_->setObjectName(QStringLiteral("catalogueList"));
    list_->setAccessibleName(tr("Products of the family"));
    for (const ProductFamily* f : productFamilies())
        family_->addItem(fieldName(f->tradeName),
                         QString::fromLatin1(f->id.data(), static_cast<qsizetype>(f->id.size())));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    auto* left = new QVBoxLayout;
    left->addWidget(family_);
    left->addWidget(list_, 1);
    auto* files = new QHBoxLayout;
    const auto button = [&](const QString& text, const char* name, auto act) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(name));
        connect(b, &QPushButton::clicked, this, act);
        files->addWidget(b);
    };
    const QString filter = tr("Catalogue (*.csv)");
    button(tr("Read CSV…"), "readCatalogue", [this, filter] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Read products"), {}, filter);
        if (!path.isEmpty()) readFrom(path);
    });
    button(tr("Save CSV…"), "saveCatalogue", [this, filter] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Save products"), tr("catalogue.csv"), filter);
        if (!path.isEmpty()) writeTo(path);
    });
    left->addLayout(files);
    row->addLayout(left, 1);
    auto* right = new QVBoxLayout;
    auto* hint =
        new QLabel(tr("Every figure is a default of the trade until you type the one on the label, which rules."));
    hint->setWordWrap(true);
    right->addWidget(hint);
    right->addLayout(fields_);
    remove_->setObjectName(QStringLiteral("removeProduct"));
    right->addWidget(remove_, 0, Qt::AlignLeft);
    right->addStretch(1);
    row->addLayout(right, 3);
    connect(family_, &QComboBox::activated, this, [this] {
        product_.clear();
        refresh();
    });
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (!item) return;
        product_ = item->data(Qt::UserRole).toString().toStdString();
        showFields();
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        for (const auto& [surface, options] : document_.job().finishes)
            for (const Finish& f : options.options) {
                const bool used =
                    f.trim == product_ || std::any_of(f.layers.begin(), f.layers.end(),
                                                      [&](const Layer& l) { return l.product == product_; });
                if (!used) continue;
                const Surface* s = document_.job().surface(surface);
                emit said(tr("It is a layer of %1 and stays in the catalogue until that is changed.")
                              .arg(s ? QString::fromStdString(s->name) : QString()));
                return;
            }
        push(document_, removeProduct(document_, std::exchange(product_, {})));
    });
}

void CataloguePanel::take(const std::string& product) {
    const Product* p = document_.job().catalogue.find(product);
    if (!p) return;
    product_ = product;
    family_->setCurrentIndex(family_->findData(QString::fromStdString(p->family)));
    refresh();
}

void CataloguePanel::refresh() {
    const std::string family = family_->currentData().toString().toStdString();
    const QSignalBlocker blocker(list_);
    list_->clear();
    for (const Product& p : document_.job().catalogue.products) {
        if (p.family != family) continue;
        if (product_.empty()) product_ = p.id;
        auto* item = new QListWidgetItem(QString::fromStdString(p.name), list_);
        item->setData(Qt::UserRole, QString::fromStdString(p.id));
        if (p.id == product_) list_->setCurrentItem(item);
    }
    showFields();
}

void CataloguePanel::showFields() {
    const Product* p = document_.job().catalogue.find(product_);
    remove_->setEnabled(p);
    if (!p) {
        if (panel_) panel_->hide();
        return;
    }
    if (!panel_ || panelFamily_ != p->family) {
        delete panel_;
        panelFamily_ = p->family;
        panel_ = new ProductPanel(document_, decimalMark_, panelFamily_,
                                  {[this] { return product_; },
                                   [this](const std::string& id) {
                                       product_ = id;
                                       refresh();
                                   },
                                   QString()},
                                  nullptr, 2);
        panel_->choice()->setParent(panel_);
        panel_->choice()->hide();
        panel_->setObjectName(QStringLiteral("cataloguePanel"));
        connect(panel_, &ProductPanel::problem, this, &CataloguePanel::said);
        fields_->addWidget(panel_);
    }
    panel_->show();
    panel_->refresh();
}

void CataloguePanel::readFrom(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
        emit said(tr("%1 cannot be opened: %2").arg(QFileInfo(path).fileName(), file.errorString()));
        return;
    }
    const CatalogueReading read =
        readCatalogue(file.read(kLargestCatalogue + 1), document_.job().currency, document_.job().catalogue);
    if (!read.products.empty()) push(document_, mergeProducts(document_, read.products));
    QStringList said;
    if (!read.products.empty() || read.faults.empty())
        said << tr("%n product(s) taken in.", nullptr, static_cast<int>(read.products.size()));
    for (std::size_t i = 0; i < std::min<std::size_t>(2, read.faults.size()); ++i) said << sentence(read.faults[i]);
    if (read.faults.size() > 2) said << tr("And %n more line(s).", nullptr, static_cast<int>(read.faults.size()) - 2);
    product_.clear();
    refresh();
    emit this->said(said.join(QLatin1Char(' ')));
}

void CataloguePanel::writeTo(const QString& path) {
    const QString why = saveBytes(path, catalogueAsCsv(document_.job().catalogue));
    emit said(why.isEmpty() ? tr("Saved as %1.").arg(path) : tr("%1 could not be saved: %2").arg(path, why));
}

} // namespace westrum
