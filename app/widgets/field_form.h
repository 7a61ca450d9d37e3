#pragma once

#include <QWidget>

#include "app/widgets/entry_field.h"
#include "core/catalogue/field.h"
#include "formats/words.h"

#include <QGridLayout>
#include <functional>
#include <span>
#include <vector>

namespace westrum {

/// A form made from a table of fields: figures as typed lengths, counts and masses, choices as lists, flags as ticks.
/// What is out of a field's range is refused with a sentence; the table says the range.
class FieldForm : public QWidget {
    Q_OBJECT
public:
    using Commit = std::function<void(const std::string& key, double value)>;

    /// @param without  keys that are edited elsewhere
    FieldForm(std::span<const Field> fields, const std::vector<std::string_view>& without, int columns,
              std::function<LengthUnit()> bareUnit, Commit commit, QWidget* parent = nullptr);
    void showValues(const FieldValues& values, const Figures& figures);

signals:
    void problem(const QString& sentence);

private:
    struct Editor {
        const Field* field;
        QWidget* widget;
    };
    std::vector<Editor> editors_;
};

} // namespace westrum
