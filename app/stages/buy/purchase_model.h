#pragma once

#include <QAbstractTableModel>

#include "core/plan/odds.h"
#include "core/plan/plan.h"
#include "formats/shopping_file.h"
#include "formats/words.h"

#include <memory>

namespace westrum {

/// The shopping list as a table: a mapping of the plan, with no figures of its own.
class PurchaseModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { Name, Buy, Needed, LeftOver, Short, Cost, Columns };

    using QAbstractTableModel::QAbstractTableModel;
    /// @param odds  null while they are not known  @param surface  whose lines are told from the others
    void setPlan(std::shared_ptr<const Plan> plan, const Catalogue& catalogue, const Figures& figures,
                 std::shared_ptr<const std::vector<ProductOdds>> odds, double accepted, const std::string& surface,
                 std::map<std::string, Bought> bought = {});

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;

private:
    std::shared_ptr<const Plan> plan_;
    Catalogue catalogue_;
    Figures figures_;
    std::shared_ptr<const std::vector<ProductOdds>> odds_;
    double accepted_ = 0.05;
    std::string surface_;
    std::map<std::string, Bought> bought_;
};

} // namespace westrum
