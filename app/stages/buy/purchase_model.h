#pragma once

#include <QAbstractTableModel>

#include "core/plan/plan.h"
#include "formats/words.h"

#include <memory>

namespace westrum {

/// The shopping list as a table: a mapping of the plan, with no figures of its own.
class PurchaseModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { Name, Supplier, Buy, Needed, LeftOver, PackPrice, Cost, Columns };

    using QAbstractTableModel::QAbstractTableModel;
    void setPlan(std::shared_ptr<const Plan> plan, const Catalogue& catalogue, const Figures& figures);

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;

private:
    std::shared_ptr<const Plan> plan_;
    Catalogue catalogue_;
    Figures figures_;
};

/// What one purchase needs and what is left of it, in words.
QString neededText(const Purchase& purchase, const Figures& figures);
QString leftOverText(const Purchase& purchase, const Figures& figures);

} // namespace westrum
