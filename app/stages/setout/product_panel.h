#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "app/widgets/field_form.h"

#include <QComboBox>
#include <QLineEdit>

namespace westrum {

/// One product of a family for the surface in hand: which it is, and, unfolded, its fields to edit in place.
class ProductPanel : public QWidget {
    Q_OBJECT
public:
    /// @param underlay  whether the underlay is chosen here, else the finish
    ProductPanel(JobDocument& document, char decimalMark, const std::string& family, bool underlay,
                 QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QComboBox* choice() const { return choice_; }

signals:
    void problem(const QString& sentence);

private:
    [[nodiscard]] std::string chosen() const;
    void choose(int index);
    void addCopy();

    JobDocument& document_;
    char decimalMark_;
    std::string family_;
    bool underlay_;
    QComboBox* choice_; ///< placed by the page
    QLineEdit* name_;
    EntryField* price_;
    FieldForm* form_;
};

} // namespace westrum
