#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/product_panel.h"

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace westrum {

/// The job's catalogue: products by family, each with its family's own fields, edited in place; in and out as CSV.
class CataloguePanel : public QWidget {
    Q_OBJECT
public:
    CataloguePanel(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    /// Shows a product.
    void take(const std::string& product);

    /// Reads and writes a file; what is to be said of it is told by said(). For the dialogs, and for tests.
    void readFrom(const QString& path);
    void writeTo(const QString& path);

signals:
    void said(const QString& sentence);

private:
    void showFields();

    JobDocument& document_;
    char decimalMark_;
    QComboBox* family_;
    QListWidget* list_;
    QVBoxLayout* fields_;
    ProductPanel* panel_ = nullptr;
    std::string panelFamily_;
    std::string product_;
    QPushButton* remove_;
};

} // namespace westrum
