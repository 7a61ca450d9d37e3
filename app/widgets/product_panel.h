#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "app/widgets/field_form.h"

#include <QComboBox>
#include <QLineEdit>

namespace westrum {

/// How a product is chosen: which it is now, and what choosing another one does. Ids; empty: none.
struct ProductChoice {
    std::function<std::string()> chosen;
    std::function<void(const std::string& id)> choose;
    QString none; ///< what the list calls no product
};

/// One product of a family: which it is, and its name, price and fields to edit in place.
class ProductPanel : public QWidget {
    Q_OBJECT
public:
    ProductPanel(JobDocument& document, char decimalMark, const std::string& family, ProductChoice product,
                 QWidget* parent = nullptr, int columns = 4);
    void refresh();
    [[nodiscard]] QComboBox* choice() const { return choice_; }

signals:
    void problem(const QString& sentence);

private:
    [[nodiscard]] std::string chosen() const; ///< empty, too, if it is of another family
    void addCopy();

    JobDocument& document_;
    char decimalMark_;
    std::string family_;
    ProductChoice product_;
    QComboBox* choice_; ///< placed by the page
    QLineEdit* name_;
    EntryField* price_;
    FieldForm* form_;
};

} // namespace westrum
