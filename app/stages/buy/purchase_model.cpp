#include "app/stages/buy/purchase_model.h"

#include "app/drawing/theme.h"

#include <QBrush>

#include <algorithm>
#include <cmath>

namespace westrum {

void PurchaseModel::setPlan(std::shared_ptr<const Plan> plan, const Catalogue& catalogue, const Figures& figures,
                            std::shared_ptr<const std::vector<ProductOdds>> odds, double accepted,
                            const std::string& surface, std::map<std::string, Bought> bought) {
    beginResetModel();
    plan_ = std::move(plan);
    catalogue_ = catalogue;
    figures_ = figures;
    odds_ = std::move(odds);
    accepted_ = accepted;
    surface_ = surface;
    bought_ = std::move(bought);
    endResetModel();
}

int PurchaseModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() || !plan_ ? 0 : static_cast<int>(plan_->purchases.size() + plan_->deliveries.size());
}

int PurchaseModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : Columns; }

QVariant PurchaseModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    if (role == Qt::TextAlignmentRole && index.column() > Name)
        return QVariant::fromValue(Qt::Alignment(Qt::AlignRight | Qt::AlignVCenter));
    const auto row = static_cast<std::size_t>(index.row());
    if (row >= plan_->purchases.size()) { // what is paid for bringing, below what is brought
        const DeliveryPlan& d = plan_->deliveries[row - plan_->purchases.size()];
        if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
        if (index.column() == Name) return tr("delivery, %1").arg(QString::fromStdString(d.supplier));
        return index.column() == Cost ? QVariant(figures_.money(d.cost)) : QVariant();
    }
    const Purchase& p = plan_->purchases[row];
    const ProductOdds* odds = nullptr;
    if (odds_)
        for (const ProductOdds& o : *odds_)
            if (o.product == p.product) odds = &o;
    if (role == Qt::FontRole && index.column() == Name)
        return textFont(1, std::any_of(p.shares.begin(), p.shares.end(),
                                       [&](const PurchaseShare& s) { return s.surface == surface_; }));
    if (role == Qt::ForegroundRole && index.column() == Short && odds && odds->chanceShort() > accepted_)
        return QBrush(Theme::now().pencil);
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
    switch (index.column()) {
    case Name: {
        const auto bought = bought_.find(boughtKey(p.product, p.size));
        if (bought == bought_.end()) return purchaseName(p, catalogue_);
        const bool roll = stockFormOf(p.family) == StockForm::Roll;
        const int wanted = roll ? static_cast<int>(std::lround((p.lengthNeeded + p.lengthLeft).value / 10)) : p.packs;
        return bought->second.packs >= wanted ? tr("✓ %1").arg(purchaseName(p, catalogue_))
                                              : tr("%1 (too few bought)").arg(purchaseName(p, catalogue_));
    }
    case Buy: return packsText(p, figures_);
    case Needed: return neededText(p, figures_);
    case LeftOver: return leftOverText(p, figures_);
    case Short: return odds ? figures_.percent(odds->chanceShort()) : QStringLiteral("…");
    case Cost: return p.cost ? figures_.money(*p.cost) : tr("no price");
    default: return {};
    }
}

QVariant PurchaseModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    if (role == Qt::TextAlignmentRole)
        return QVariant::fromValue(Qt::Alignment((section > Name ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter));
    if (role != Qt::DisplayRole) return {};
    switch (section) {
    case Name: return tr("product");
    case Buy: return tr("buy");
    case Needed: return tr("needed");
    case LeftOver: return tr("left over");
    case Short: return tr("runs short");
    case Cost: return tr("cost");
    default: return {};
    }
}

} // namespace westrum
