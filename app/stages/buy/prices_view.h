#pragma once

#include <QAbstractTableModel>
#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "formats/price_file.h"
#include "formats/words.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTableView>

namespace westrum {

/// The offers of the job's price book: a mapping of it, each cell edited in place by one command.
class OffersModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { Name, From, Size, Price, Tax, State, Lot, Date, Columns };
    OffersModel(JobDocument& document, char decimalMark, QObject* parent = nullptr);
    void refresh();

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role = Qt::EditRole) override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;

signals:
    void problem(const QString& sentence);

private:
    JobDocument& document_;
    char decimalMark_;
    std::vector<Offer> offers_; ///< as shown
};

/// Prices: what other suppliers ask, in which sizes; what they take for bringing it; lists taken in and saved; a
/// fetched list reviewed before it is taken in.
class PricesView : public QWidget {
    Q_OBJECT
public:
    PricesView(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    /// Reads a list and shows what it would change; returns what to say of it.
    QString review(const QByteArray& bytes);

signals:
    void problem(const QString& sentence);

private:
    /// A sum of the supplier in hand; empty: it does not ask or grant any.
    EntryField* moneyField(std::optional<Money> Supplier::*which);
    QString takeRate(const QString& typed);
    void setUpTable();
    void setUpFields();
    QLayout* suppliersRow();
    QLayout* actionsRow();
    void addOffer();
    void removeOffer();
    void openList();
    void saveList();
    void show(std::vector<Offer> incoming, const QString& said);
    void changeSupplier(const std::function<void(Supplier&)>& change);
    [[nodiscard]] std::string supplierInHand() const;

    JobDocument& document_;
    char decimalMark_;
    OffersModel* model_;
    QTableView* table_;
    QComboBox* product_;
    QComboBox* supplier_;
    EntryField* delivery_;
    EntryField* freeFrom_;
    QLabel* foreign_; ///< the currency that a rate is typed for
    EntryField* rate_;
    QLabel* review_;
    QPushButton* takeIn_;
    QPushButton* leave_;
    std::vector<Offer> incoming_;
};

} // namespace westrum
