#include "app/widgets/field_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Parses what was typed in the field's own unit.
Result<double, ParseError> parseFor(const Field& field, const QString& typed, LengthUnit bareUnit) {
    const std::string text = typed.toStdString();
    if (field.unit == FieldUnit::Length) {
        const auto length = parseLength(text, bareUnit);
        if (!length) return length.error();
        return length.value().value;
    }
    if (field.unit == FieldUnit::Mass) {
        const auto mass = parseMass(text);
        if (!mass) return mass.error();
        return mass.value().value;
    }
    if (field.unit == FieldUnit::Share) { // "15 %" and "15" are fifteen hundredths
        std::string number = text;
        std::erase_if(number, [](char c) { return c == '%' || c == ' '; });
        const auto percent = parseNumber(number);
        if (!percent) return percent.error();
        return percent.value() / 100;
    }
    return parseNumber(text);
}

QString shown(const Field& field, double value, const Figures& f) {
    switch (field.unit) {
    case FieldUnit::Length: return f.fineLength({value}, false);
    case FieldUnit::Mass: return f.number(value, 2) + QStringLiteral(" kg");
    case FieldUnit::MassPerArea: return f.number(value, 3);
    case FieldUnit::Share: return f.percent(value);
    case FieldUnit::Spreading: return f.number(value, 1) + QStringLiteral(" m²");
    case FieldUnit::Litres: return f.number(value, 2) + QStringLiteral(" l");
    case FieldUnit::Minutes: return f.number(value, 0) + QStringLiteral(" min");
    case FieldUnit::Hours: return f.number(value, 0) + QStringLiteral(" h");
    case FieldUnit::Degrees: return f.number(value, 0) + QStringLiteral("°");
    case FieldUnit::Number: return f.number(value, value == std::floor(value) ? 0 : 2);
    default: return f.number(value, 0);
    }
}

} // namespace

FieldForm::FieldForm(std::span<const Field> fields, const std::vector<std::string_view>& without, int columns,
                     std::function<LengthUnit()> bareUnit, Commit commit, QWidget* parent)
    : QWidget(parent) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 2, 0, 2);
    grid->setHorizontalSpacing(8);
    int cell = 0;
    for (const Field& field : fields) {
        if (std::find(without.begin(), without.end(), field.key) != without.end()) continue;
        const QString name = fieldName(field.tradeName);
        const std::string key(field.key);
        QWidget* widget = nullptr;
        if (field.unit == FieldUnit::Choice) {
            auto* box = new QComboBox;
            for (std::string_view choice : field.choices) box->addItem(fieldName(choice));
            connect(box, &QComboBox::activated, this, [commit, key](int index) { commit(key, index); });
            widget = box;
        } else if (field.unit == FieldUnit::Flag) {
            auto* box = new QCheckBox;
            connect(box, &QCheckBox::clicked, this, [commit, key](bool on) { commit(key, on ? 1 : 0); });
            widget = box;
        } else {
            auto* entry = new EntryField([&field, key, commit, bareUnit, name](const QString& typed) -> QString {
                const auto value = parseFor(field, typed, bareUnit());
                if (!value) return sentence(value.error(), typed);
                FieldValues one{{key, value.value()}};
                const std::vector<Remark> faults = checkFields(one, std::span(&field, 1), "", {});
                if (!faults.empty()) return sentence(faults.front(), Figures{.unit = bareUnit()});
                commit(key, value.value());
                return {};
            });
            entry->setFixedWidth(QFontMetrics(entry->font()).horizontalAdvance(QStringLiteral("000 000 kg")) + 18);
            entry->setAlignment(Qt::AlignRight);
            connect(entry, &EntryField::problemChanged, this, &FieldForm::problem);
            widget = entry;
        }
        widget->setObjectName(QStringLiteral("field-") + QString::fromStdString(key));
        widget->setAccessibleName(name);
        auto* label = new QLabel(name);
        label->setBuddy(widget);
        const int row = cell / columns;
        const int column = cell % columns * 2;
        grid->addWidget(label, row, column, Qt::AlignRight | Qt::AlignVCenter);
        grid->addWidget(widget, row, column + 1, Qt::AlignLeft | Qt::AlignVCenter);
        editors_.push_back({&field, widget});
        ++cell;
    }
    for (int c = 0; c < columns; ++c) grid->setColumnStretch(c * 2 + 1, 1);
}

void FieldForm::showValues(const FieldValues& values, const Figures& figures) {
    for (const Editor& e : editors_) {
        const double value = valueOf(values, *e.field);
        if (auto* box = qobject_cast<QComboBox*>(e.widget))
            box->setCurrentIndex(static_cast<int>(value));
        else if (auto* tick = qobject_cast<QCheckBox*>(e.widget))
            tick->setChecked(value != 0);
        else if (auto* entry = qobject_cast<EntryField*>(e.widget))
            entry->setFigure(shown(*e.field, value, figures), {});
    }
}

} // namespace westrum
