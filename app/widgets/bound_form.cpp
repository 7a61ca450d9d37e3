#include "app/widgets/bound_form.h"

#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "formats/words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace westrum {

BoundForm::BoundForm(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark), column_(new QVBoxLayout(this)) {
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(4);
}

void BoundForm::clear() {
    refreshers_.clear();
    row_ = nullptr;
    while (QLayoutItem* item = column_->takeAt(0)) {
        if (QLayout* inner = item->layout())
            while (QLayoutItem* child = inner->takeAt(0)) {
                if (QWidget* widget = child->widget()) {
                    widget->hide(); // goes at once, though it is deleted later
                    widget->deleteLater();
                }
                delete child;
            }
        delete item;
    }
}

void BoundForm::row() {
    row_ = new FlowRow(6);
    column_->addLayout(row_);
}

void BoundForm::stretch() { row_ = nullptr; }

void BoundForm::refresh() {
    for (const auto& r : refreshers_) r();
}

void BoundForm::put(QWidget* widget, const QString& label) {
    if (!row_) row();
    if (!label.isEmpty()) {
        auto* words = new QLabel(label);
        words->setTextFormat(Qt::PlainText);
        words->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
        widget->setAccessibleName(label);
        auto* pair = new QWidget; // a field and its words stay in one line
        auto* both = new QHBoxLayout(pair);
        both->setContentsMargins(0, 0, 0, 0);
        both->setSpacing(6);
        both->addWidget(words);
        both->addWidget(widget);
        row_->addWidget(pair);
        return;
    }
    row_->addWidget(widget);
}

EntryField* BoundForm::length(const QString& label, const QString& objectName, std::function<MaybeReading()> get,
                              std::function<void(MaybeReading)> set) {
    auto* field = new EntryField(lengthCommit([this] { return document_.job().bareUnit; }, std::move(set)));
    field->setObjectName(objectName);
    field->setAlignment(Qt::AlignRight);
    field->setFixedWidth(QFontMetrics(field->font()).horizontalAdvance(QStringLiteral("00 000.0")) + 18);
    connect(field, &EntryField::problemChanged, this, &BoundForm::problem);
    refreshers_.push_back([this, field, get = std::move(get)] {
        const MaybeReading r = get();
        const Figures f = figuresFor(document_.job(), decimalMark_);
        const QString shown = r ? f.fineLength(r->length, false) : QString();
        field->setFigure(shown, r && !r->typed.empty() ? QString::fromStdString(r->typed) : shown);
    });
    put(field, label);
    return field;
}

EntryField* BoundForm::mass(const QString& label, const QString& objectName,
                            std::function<std::optional<double>()> getKg,
                            std::function<void(std::optional<double>)> setKg) {
    auto* field = new EntryField([setKg = std::move(setKg)](const QString& typed) -> QString {
        if (typed.trimmed().isEmpty()) {
            setKg({});
            return {};
        }
        const auto kg = parseMass(typed.toStdString());
        if (!kg) return sentence(kg.error(), typed);
        if (kg.value().value > kMostVanKg) return BoundForm::tr("No van weighs %1.").arg(typed);
        setKg(kg.value().value);
        return {};
    });
    field->setObjectName(objectName);
    field->setAlignment(Qt::AlignRight);
    field->setFixedWidth(QFontMetrics(field->font()).horizontalAdvance(QStringLiteral("00 000 kg")) + 18);
    connect(field, &EntryField::problemChanged, this, &BoundForm::problem);
    refreshers_.push_back([this, field, getKg = std::move(getKg)] {
        const std::optional<double> kg = getKg();
        field->setFigure(kg ? figuresFor(document_.job(), decimalMark_).mass({*kg}) : QString(),
                         kg ? QString::number(*kg) : QString());
    });
    put(field, label);
    return field;
}

EntryField* BoundForm::count(const QString& label, const QString& objectName, int least, int most,
                             std::function<int()> get, std::function<void(int)> set) {
    auto* field = new EntryField([least, most, set = std::move(set)](const QString& typed) -> QString {
        bool good = false;
        const int n = typed.toInt(&good);
        if (!good || n < least || n > most)
            return BoundForm::tr("“%1” is no number from %2 to %3.").arg(typed).arg(least).arg(most);
        set(n);
        return {};
    });
    field->setObjectName(objectName);
    field->setAlignment(Qt::AlignRight);
    field->setFixedWidth(QFontMetrics(field->font()).horizontalAdvance(QStringLiteral("0000")) + 18);
    connect(field, &EntryField::problemChanged, this, &BoundForm::problem);
    refreshers_.push_back([field, get = std::move(get)] {
        const QString shown = QString::number(get());
        field->setFigure(shown, shown);
    });
    put(field, label);
    return field;
}

QLineEdit* BoundForm::text(const QString& label, const QString& objectName, std::function<std::string()> get,
                           std::function<void(const std::string&)> set) {
    auto* field = new QLineEdit;
    field->setObjectName(objectName);
    field->setMinimumWidth(120);
    connect(field, &QLineEdit::editingFinished, this, [field, get, set = std::move(set)] {
        const std::string typed = field->text().trimmed().toStdString();
        if (field->isModified() && !typed.empty() && typed != get()) set(typed);
    });
    refreshers_.push_back([field, get] {
        if (!field->hasFocus() || !field->isModified()) field->setText(QString::fromStdString(get()));
    });
    put(field, label);
    return field;
}

QWidget* BoundForm::choice(const QString& label, const QString& objectName, const QStringList& choices,
                           std::function<int()> get, std::function<void(int)> set) {
    auto* box = new QComboBox;
    box->setObjectName(objectName);
    box->addItems(choices);
    connect(box, &QComboBox::activated, this, std::move(set));
    refreshers_.push_back([box, get = std::move(get)] { box->setCurrentIndex(get()); });
    put(box, label);
    return box;
}

QWidget* BoundForm::suggestion(const QString& label, const QString& objectName, const QStringList& suggestions,
                               std::function<std::string()> get, std::function<void(const std::string&)> set) {
    auto* box = new QComboBox;
    box->setObjectName(objectName);
    box->setEditable(true);
    box->setInsertPolicy(QComboBox::NoInsert);
    box->addItems(suggestions);
    const auto take = [box, get, set = std::move(set)] {
        const std::string typed = box->currentText().trimmed().toStdString();
        if (typed != get()) set(typed);
    };
    connect(box, &QComboBox::activated, this, take);
    connect(box->lineEdit(), &QLineEdit::editingFinished, this, take);
    refreshers_.push_back([box, get] {
        if (!box->hasFocus()) box->setCurrentText(QString::fromStdString(get()));
    });
    put(box, label);
    return box;
}

QWidget* BoundForm::flag(const QString& label, const QString& objectName, std::function<bool()> get,
                         std::function<void(bool)> set) {
    auto* tick = new QCheckBox(label);
    tick->setObjectName(objectName);
    connect(tick, &QCheckBox::clicked, this, std::move(set));
    refreshers_.push_back([tick, get = std::move(get)] { tick->setChecked(get()); });
    put(tick);
    return tick;
}

QWidget* BoundForm::button(const QString& text, const QString& objectName, std::function<void()> act, bool quiet) {
    auto* button = new QPushButton(text);
    button->setObjectName(objectName);
    button->setProperty("quiet", quiet);
    // What is pressed may build this form anew: not while the button is still at it.
    connect(button, &QPushButton::clicked, this, std::move(act), Qt::QueuedConnection);
    put(button);
    return button;
}

QWidget* BoundForm::pick(const QString& text, const QString& objectName, bool chosen, std::function<void()> act) {
    auto* button = new QPushButton(text);
    button->setObjectName(objectName);
    button->setCheckable(true);
    button->setChecked(chosen);
    connect(button, &QPushButton::clicked, this, std::move(act), Qt::QueuedConnection);
    put(button);
    return button;
}

QWidget* BoundForm::words(const QString& text) {
    auto* label = new QLabel(text);
    label->setTextFormat(Qt::PlainText);
    label->setWordWrap(true);
    label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    if (!row_) row();
    row_->addWidget(label);
    return label;
}

QWidget* BoundForm::words(std::function<QString()> get) {
    auto* label = static_cast<QLabel*>(words(get()));
    refreshers_.push_back([label, get = std::move(get)] { label->setText(get()); });
    return label;
}

} // namespace westrum
