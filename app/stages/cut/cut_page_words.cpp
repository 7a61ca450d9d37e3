#include "app/stages/cut/cut_page.h"

#include "app/document/cut_commands.h"
#include "app/drawing/theme.h"
#include "app/print/cut_print.h"
#include "core/catalogue/family.h"
#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "formats/cut_pieces_file.h"
#include "formats/cutting_file.h"

#include <QDateTime>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {

QString CutPage::bound(const CutState& state) const {
    const ProductCut& cut = *state.cut;
    const Figures f = figures();
    const std::string family = sold() ? sold()->family : std::string();
    QString text;
    if (cut.form == StockForm::Roll) {
        if (cut.rollMm <= 0 && cut.rollToBuyMm <= 0) return tr("The rack is enough: nothing is to be bought.");
        text = tr("%1 to buy").arg(f.run(Mm{cut.rollToBuyMm}));
        if (cut.cost) text += tr(" for %1").arg(f.money(*cut.cost));
        text += cut.proven ? tr(", and no plan can use less.")
                           : tr(": %1 are used, and no plan can use less than %2.")
                                 .arg(f.run(Mm{cut.rollMm}), f.run(Mm{cut.leastRollMm}));
    } else {
        if (cut.itemsToBuy == 0 && cut.unplaced.empty()) return tr("The rack is enough: nothing is to be bought.");
        const bool decided =
            std::any_of(cut.items.begin(), cut.items.end(), [](const CutItem& i) { return i.decided; });
        text = decided ? tr("%1 are opened").arg(itemsText(family, cut.itemsToBuy, f))
                       : tr("%1 to buy").arg(itemsText(family, cut.itemsToBuy, f));
        if (cut.cost && !decided) text += tr(" for %1").arg(f.money(*cut.cost));
        if (cut.proven)
            text += tr(", and no plan can do with less.");
        else if (cut.leastCost && cut.cost && (severalSizes() || cut.leastItems == cut.itemsToBuy))
            text += tr("; no plan can cost less than %1.").arg(f.money(*cut.leastCost));
        else if (cut.leastItems > 0)
            text += tr("; no plan can use fewer than %1.").arg(itemsText(family, cut.leastItems, f));
        else
            text += QStringLiteral(".");
    }
    return text;
}

/// Whether stock of more than one price can be bought.
bool CutPage::severalSizes() const {
    const CutList& list = document_.job().cutList(product_);
    return std::count_if(list.stock.begin(), list.stock.end(), [](const StockEntry& s) { return s.used && !s.rack; }) +
               (list.useOwnStock ? 1 : 0) >
           1;
}

QString CutPage::takes(const ProductCut& cut) const {
    const Figures f = figures();
    const auto size = [&](double v) { return cut.form == StockForm::Lengths ? f.run(Mm{v}) : f.area({v / 1e6}); };
    const CutFigures& g = cut.figures;
    const double stock = g.bought + g.fromRack;
    if (stock <= 0) return {};
    QStringList parts{tr("bought %1").arg(size(g.bought))};
    if (g.fromRack > 0) parts << tr("from the rack %1").arg(size(g.fromRack));
    parts << tr("used %1 (%2)").arg(size(g.used), f.percent(g.used / stock)) << tr("worth keeping %1").arg(size(g.kept))
          << tr("waste %1 (%2)").arg(size(g.waste()), f.percent(g.waste() / stock));
    return parts.join(QStringLiteral("  ·  "));
}

QString CutPage::troubleText(const CutTrouble& trouble) const {
    const QString name = pieceText(trouble.name);
    switch (trouble.fault) {
    case CuttingFault::PieceNotPositive:
        return tr("%1 has no size yet: give it a length and, for sheets and rolls, a width.").arg(name);
    case CuttingFault::PieceTooLarge:
        return tr("%1 is larger than any stock, as it may lie. Part it, let it turn, or add larger stock.").arg(name);
    case CuttingFault::PieceCrosses:
        return tr("The outline of %1 crosses itself. Draw it anew and take it in again.").arg(name);
    case CuttingFault::PieceHoleOutside: return tr("A hole of %1 lies outside it or over another hole.").arg(name);
    case CuttingFault::PieceAbsurd:
        return tr("%1 is larger than anything that can be cut: is the unit right?").arg(name);
    case CuttingFault::PieceNoRotation:
    case CuttingFault::PieceCountNegative: return tr("%1 cannot be planned as it is entered.").arg(name);
    case CuttingFault::PieceTooMany: return tr("More than 20 000 pieces cannot be planned at once.");
    case CuttingFault::NoStock: return tr("There is no stock to cut from: tick some under “Stock and rack”.");
    case CuttingFault::StockNotPositive: return tr("%1 has no size that can be cut from.").arg(name);
    case CuttingFault::StockAbsurd: return tr("%1 is larger than any stock: is the unit right?").arg(name);
    case CuttingFault::TrimEatsStock: return tr("Nothing is left of %1 between its trimmed edges.").arg(name);
    case CuttingFault::LockedDoesNotFit:
        return tr("The pin of %1 cannot be kept: it lies over another piece, beyond the stock, or where no cut right "
                  "across can reach it. It is planned anew.")
            .arg(name);
    case CuttingFault::LockedUnknown: return tr("A pin belongs to a piece that is gone.");
    case CuttingFault::KerfNegative: return tr("Kerf, gap or trim are no lengths that can be cut with.");
    case CuttingFault::RepeatNegative: return tr("The pattern repeat is no length.");
    case CuttingFault::StockPriceNegative: return tr("The price of %1 is below nothing.").arg(name);
    case CuttingFault::NoPieces: return {};
    }
    return {};
}

} // namespace westrum
