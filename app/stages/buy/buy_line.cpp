#include "app/stages/buy/buy_page.h"

#include "app/document/commands.h"
#include "app/document/workshop.h"
#include "app/drawing/theme.h"
#include "app/print/shopping_print.h"
#include "core/families/family.h"
#include "core/plan/cost_sharing.h"
#include "core/plan/shelf.h"
#include "formats/plan_file.h"
#include "formats/shopping_file.h"

#include <QButtonGroup>
#include <QHeaderView>
#include <QItemSelectionModel>
#include <QScrollArea>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr int kMostSpare = 400;

} // namespace

void BuyPage::buy(const std::function<void(Bought&)>& change) {
    const Purchase* p = line();
    if (!p) return;
    const std::string key = boughtKey(p->product, p->size);
    const auto was = document_.job().bought.find(key);
    Bought b;
    if (was != document_.job().bought.end())
        b = was->second;
    else // as the list has it now
        b = {stockFormOf(p->family) == StockForm::Roll
                 ? static_cast<int>(std::lround((p->lengthNeeded + p->lengthLeft).value / 10))
                 : p->packs,
             p->cost,
             {}};
    change(b);
    push(document_, tickBought(document_, key, std::move(b)));
}

void BuyPage::refreshSavings() {
    const Product* product = document_.job().catalogue.find(product_);
    const bool may = product && findFamily(product->family);
    const bool known = !savingsFor_.empty() && savingsFor_ == product_;
    askSavings_->setVisible(may && !known && !savingsWorker_.isWorking());
    takeSaving_->setVisible(known && !savings_.empty());
    savingText_->setVisible(may && (known || savingsWorker_.isWorking()));
    if (!known) return savingText_->setText(tr("Trying …"));
    if (savings_.empty()) return savingText_->setText(tr("No other way to lay it buys less."));
    const Figures f = figures();
    const Saving& s = savings_.front();
    const Surface* surface = document_.job().surface(s.surface);
    const QString name = surface ? QString::fromStdString(surface->name) : QString();
    const QString saved = f.money(s.saved);
    switch (s.kind) {
    case Saving::Kind::Turned:
        savingText_->setText(
            tr("%1 less if its pieces may be turned half round: only where the nap is not seen.").arg(saved));
        break;
    case Saving::Kind::Seam: savingText_->setText(tr("%1 less with one seam more on %2.").arg(saved, name)); break;
    case Saving::Kind::Rules: {
        const auto& layers = document_.job().finish(s.surface).layers;
        const SetOutFamily* family = findFamily(product->family);
        const QString how =
            s.layer >= 0 && s.layer < static_cast<int>(layers.size())
                ? changeText(s.change, layers[static_cast<std::size_t>(s.layer)].rules, family->ruleFields, f)
                : QString();
        savingText_->setText(how.isEmpty() ? tr("%1 less with another start line on %2.").arg(saved, name)
                                           : tr("%1 less on %2 with %3.").arg(saved, name, how));
        break;
    }
    }
}

void BuyPage::refreshBought(const Purchase& p) {
    const auto found = document_.job().bought.find(boughtKey(p.product, p.size));
    const bool is = found != document_.job().bought.end();
    bought_->setChecked(is);
    const QString paid = is && found->second.paid ? figures().money(*found->second.paid) : QString();
    paid_->setFigure(paid,
                     is && found->second.paid
                         ? QString::fromStdString(printMoney(*found->second.paid, '.', false)).remove(QChar(0x202F))
                         : QString());
    if (!lot_->hasFocus() || !lot_->isModified())
        lot_->setText(is ? QString::fromStdString(found->second.lot) : QString());
}

std::vector<RoughCut> BuyPage::roughCutsNow() const {
    const Passage& way = document_.plan()->passage;
    // What bends so far is carried in a coil.
    constexpr Mm kCoil{150};
    std::vector<ProductCut> stiff;
    for (const ProductCut& cut : document_.cuts()) {
        const Product* p = document_.job().catalogue.find(cut.product);
        const Mm bends = p && productFamily(p->family) && productFamily(p->family)->role == LayerRole::Trim
                             ? trimOf(*p).leastRadius
                             : Mm{0};
        if (bends.value <= 0 || bends > kCoil) stiff.push_back(cut);
    }
    return roughCuts(stiff, way.loadLength, way.loadWidth);
}

void BuyPage::spareAll() {
    const auto odds = document_.odds();
    if (!odds) return;
    std::vector<SpareLine> lines;
    for (const ProductOdds& o : *odds) {
        SpareLine line;
        for (const Purchase& q : document_.plan()->purchases) {
            if (q.product != o.product) continue;
            line.spare += q.spare;
            const bool roll = stockFormOf(q.family) == StockForm::Roll; // its price is that of a metre
            if (q.packPrice && q.packPrice->minor > 0)
                line.price = static_cast<double>(q.packPrice->minor) * (roll ? o.perPack : 1);
        }
        lines.push_back(line);
    }
    const std::vector<int> enough = sparesWithin(*odds, lines, document_.job().acceptedRisk, kMostSpare);
    std::map<std::string, int> spares;
    for (std::size_t i = 0; i < enough.size(); ++i)
        if (enough[i] > 0) spares[(*odds)[i].product] = enough[i];
    push(document_, setSpares(document_, std::move(spares)));
}

void BuyPage::sayRisk() {
    const Figures f = figures();
    const auto odds = document_.odds();
    const Job& job = document_.job();
    if (!odds) {
        if (document_.cutting().isSearching())
            return say(tr("Cutting is still being improved; what may run short is tried after that."));
        return say(
            tr("Trying what may go wrong, %1 times over … %2").arg(document_.oddsTries()).arg(f.percent(progress_)));
    }
    const double any = chanceOfAnyShort(*odds);
    const ProductOdds* worst = nullptr;
    for (const ProductOdds& o : *odds)
        if (!worst || o.chanceShort() > worst->chanceShort()) worst = &o;
    if (!worst || any <= job.acceptedRisk)
        return say(
            tr("Tried %1 times with slips of the tape, spoilt cuts, damaged stock: short in %2, %3 are accepted.")
                .arg(document_.oddsTries())
                .arg(f.percent(any), f.percent(job.acceptedRisk)));
    const Product* product = job.catalogue.find(worst->product);
    say(tr("In %1 of %2 tries something runs short, %3 are accepted; first of all %4: %5.")
            .arg(f.percent(any))
            .arg(document_.oddsTries())
            .arg(f.percent(job.acceptedRisk), product ? QString::fromStdString(product->name) : QString(),
                 f.percent(worst->chanceShort())),
        true);
}

void BuyPage::turnShelf() {
    const Purchase* p = line();
    if (!p || !workshop_) return;
    const auto& shelf = document_.job().shelf;
    const bool mine =
        std::any_of(shelf.begin(), shelf.end(), [&](const ShelfPack& s) { return s.product == p->product; });
    QString why;
    Command command = mine ? workshop_->leaveShelf(p->product) : workshop_->useShelf(p->product, why);
    if (!command) return answer(why);
    push(document_, std::move(command));
    workshop_->settle();
}

void BuyPage::setWorkshop(Workshop& workshop) {
    workshop_ = &workshop;
    connect(workshop_, &Workshop::changed, this, [this] { figuresCameIn([this] { refreshLine(); }); });
}

/// What was paid for it before, and what of it stands on the shelf and the rack.
QString BuyPage::bookSays(const Product& product) const {
    if (!workshop_) return {};
    const Figures f = figures();
    const WorkshopBook& book = workshop_->book();
    const std::string identity = productIdentity(product);
    const PricePaid* last = nullptr;
    for (const PricePaid& p : book.prices)
        if (p.product == identity && p.packs > 0 && p.job != document_.job().name && (!last || p.day >= last->day))
            last = &p;
    QStringList said;
    if (last) {
        const Money each{std::llround(static_cast<double>(last->paid.minor) / last->packs), last->paid.currency};
        said << tr("Paid before: %1 each, %2").arg(f.money(each), QString::fromStdString(isoDate(last->day)));
    }
    double packs = 0;
    int old = 0;
    QStringList theirs;
    for (const KeptPack& k : book.packs) {
        if (k.product != identity || !(k.count > 0)) continue;
        if (!k.job.empty() && k.job != workshop_->jobId())
            theirs << QString::fromStdString(k.jobName);
        else if (goesOffWithin(k, document_.now().day, -1))
            ++old;
        else
            packs += k.count;
    }
    const auto count = [&](double n) { return f.number(n, n == std::floor(n) ? 0 : 1); };
    if (packs > 0) said << tr("%1 on the shelf").arg(count(packs));
    if (old > 0) said << tr("%n on the shelf past its date", nullptr, old);
    theirs.removeDuplicates();
    if (!theirs.isEmpty()) said << tr("more of it is kept for %1").arg(theirs.join(QStringLiteral(", ")));
    const auto free = std::count_if(book.rack.begin(), book.rack.end(), [&](const RackPiece& r) {
        return r.product == identity && r.state == RackPiece::State::Free;
    });
    if (free > 0) said << tr("%n offcut(s) free on the rack", nullptr, static_cast<int>(free));
    return said.join(QStringLiteral("  ·  "));
}

void BuyPage::refreshLine() {
    const Figures f = figures();
    const Purchase* p = line();
    detail_->setVisible(p);
    if (!p) {
        emit shaded({});
        return;
    }
    const Job& job = document_.job();
    const Product* product = job.catalogue.find(p->product);
    lineTitle_->setText(purchaseName(*p, job.catalogue, f));
    QStringList said;
    const std::string supplier = !p->supplier.empty() ? p->supplier : product ? product->supplier : std::string();
    if (!supplier.empty()) said << tr("from %1").arg(QString::fromStdString(supplier));
    if (p->packPrice) said << tr("%1 each").arg(f.money(*p->packPrice));
    said << tr("buy %1").arg(packsText(*p, f)) << tr("needed %1").arg(neededText(*p, f));
    if (p->shelf > 0) said << tr("%1 of it from the shelf").arg(shelfText(*p, f));
    const QString left = leftOverText(*p, f);
    if (left != QStringLiteral("–")) said << tr("%1 left over").arg(left);
    if (p->oneLot && p->packs > 1) said << tr("all of one lot");
    if (p->spare > 0) said << tr("%1 of it to spare").arg(spareText(*p, job.catalogue, f));
    QString text = sentenceCase(said.join(QStringLiteral("  ·  ")));
    for (const RoughCut& r : roughCutsNow())
        if (r.product == p->product && r.size == p->size)
            text += QStringLiteral(". ") + roughCutTexts(job, {r}, f).join(QString());
    lineText_->setText(text);
    const QString known = product ? bookSays(*product) : QString();
    bookText_->setText(known);
    bookText_->setVisible(!known.isEmpty());
    const bool mine = std::any_of(job.shelf.begin(), job.shelf.end(),
                                  [&](const ShelfPack& s) { return s.product == p->product && s.packs > 0; });
    const bool could = product && workshop_ && servesFromShelf(*product) && !workshop_->onShelf(*product).empty();
    shelf_->setText(mine ? tr("Leave it on the shelf") : tr("Use what is on the shelf"));
    shelf_->setVisible(mine || could);
    shares_->show(*p, job, f);
    refreshBought(*p);
    refreshSavings();
    const bool roll = stockFormOf(p->family) == StockForm::Roll;
    if (const ProductOdds* odds = oddsOf(p->product)) {
        const int bought = roll ? p->spare : p->packs;
        curve_->show(*odds, bought - p->spare, bought, job.acceptedRisk, roll, f);
    } else {
        curve_->say(document_.cutting().isSearching()
                        ? tr("How likely it is that this is not enough is tried once the cutting rests.")
                        : tr("How likely it is that this is not enough is being tried."));
    }
    std::vector<ShellMap::Shade> shades;
    double all = 0;
    for (const PurchaseShare& s : p->shares) all += s.consumed;
    for (const PurchaseShare& s : p->shares)
        if (!s.surface.empty() && s.consumed > 0 && all > 0)
            shades.push_back({s.surface, s.consumed / all, s.cost ? f.money(*s.cost) : f.percent(s.consumed / all)});
    emit shaded(shades);
}

} // namespace westrum
