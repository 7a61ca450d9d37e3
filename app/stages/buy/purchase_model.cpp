#include "app/stages/buy/purchase_model.h"

namespace westrum {

QString neededText(const Purchase& p, const Figures& f) {
    if (stockFormOf(p.family) == StockForm::Roll) return packsText(p, f);
    if (p.lengthNeeded.value > 0) return PurchaseModel::tr("%1 off the roll").arg(f.length(p.lengthNeeded));
    if (p.family == "coating") return PurchaseModel::tr("%1 l").arg(f.number(p.amount, 2));
    if (p.family == "adhesive") return f.mass({p.amount});
    if (p.family == "insulation") return f.area({p.amount});
    return itemsText(p.family, p.unitsNeeded);
}

QString leftOverText(const Purchase& p, const Figures& f) {
    const double left = p.amountPerPack * p.packs - p.amount;
    if (p.family == "coating") return PurchaseModel::tr("%1 l").arg(f.number(left, 2));
    if (p.family == "adhesive") return f.mass({left});
    if (p.family == "insulation") return f.area({left});
    if (stockFormOf(p.family) == StockForm::Roll) return QStringLiteral("–");
    if (p.lengthNeeded.value > 0) return f.length(p.lengthLeft);
    if (p.family != "planks" && p.family != "tiles") return QStringLiteral("–"); // what is left of these stands in Cut
    return itemsText(p.family, p.unitsLeft());
}

void PurchaseModel::setPlan(std::shared_ptr<const Plan> plan, const Catalogue& catalogue, const Figures& figures) {
    beginResetModel();
    plan_ = std::move(plan);
    catalogue_ = catalogue;
    figures_ = figures;
    endResetModel();
}

int PurchaseModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() || !plan_ ? 0 : static_cast<int>(plan_->purchases.size());
}

int PurchaseModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : Columns; }

QVariant PurchaseModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    if (role == Qt::TextAlignmentRole && index.column() > Supplier)
        return QVariant::fromValue(Qt::Alignment(Qt::AlignRight | Qt::AlignVCenter));
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
    const Purchase& p = plan_->purchases[static_cast<std::size_t>(index.row())];
    const Product* product = catalogue_.find(p.product);
    switch (index.column()) {
    case Name: return purchaseName(p, catalogue_);
    case Supplier: return product ? QString::fromStdString(product->supplier) : QString();
    case Buy: return packsText(p, figures_);
    case Needed: return neededText(p, figures_);
    case LeftOver: return leftOverText(p, figures_);
    case PackPrice: return p.packPrice ? figures_.money(*p.packPrice) : tr("no price");
    case Cost: return p.cost ? figures_.money(*p.cost) : QStringLiteral("–");
    default: return {};
    }
}

QVariant PurchaseModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    if (role == Qt::TextAlignmentRole)
        return QVariant::fromValue(
            Qt::Alignment((section > Supplier ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter));
    if (role != Qt::DisplayRole) return {};
    switch (section) {
    case Name: return tr("product");
    case Supplier: return tr("from");
    case Buy: return tr("buy");
    case Needed: return tr("needed");
    case LeftOver: return tr("left over");
    case PackPrice: return tr("each");
    case Cost: return tr("cost");
    default: return {};
    }
}

} // namespace westrum
