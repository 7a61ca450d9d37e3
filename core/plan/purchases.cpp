#include "core/plan/purchases.h"

#include "core/families/family.h"
#include "core/plan/cost_sharing.h"
#include "core/plan/offers.h"
#include "core/plan/shelf.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>

namespace westrum {
namespace {

using Purchases = std::vector<Purchase>;

/// The surfaces' purchases added up: one product is bought once for the whole van. Finishes first, as families are
/// listed; the order of the surfaces does not matter.
Purchases countedOf(const SurfaceStage& surfaces, const Catalogue& catalogue) {
    Purchases all;
    for (const SurfacePlan& s : surfaces.surfaces)
        for (const LayerPlan& l : s.layers) {
            if (!l.purchase) continue;
            const auto same = std::find_if(all.begin(), all.end(),
                                           [&](const Purchase& q) { return q.product == l.purchase->product; });
            if (same == all.end())
                all.push_back(*l.purchase);
            else
                *same = boughtTogether(*same, *l.purchase);
        }
    const auto place = [&](const Purchase& p) {
        const auto families = productFamilies();
        const auto family =
            std::find_if(families.begin(), families.end(), [&](const auto* f) { return f->id == p.family; });
        const auto& list = catalogue.products;
        const auto product =
            std::find_if(list.begin(), list.end(), [&](const Product& q) { return q.id == p.product; });
        return std::pair(family - families.begin(), product - list.begin());
    };
    std::stable_sort(all.begin(), all.end(), [&](const Purchase& a, const Purchase& b) { return place(a) < place(b); });
    return all;
}

/// Small things, one line for each product, in the catalogue's order.
void addNeeds(const SurfaceStage& surfaces, const Catalogue& catalogue, PurchaseStage& stage) {
    for (const Product& p : catalogue.products) {
        double amount = 0;
        for (const Need& n : surfaces.needs) amount += n.product == p.id ? n.amount : 0;
        if (amount <= 0) continue;
        if (productFamily(p.family)->role == LayerRole::Trim) {
            const TrimLength bead = trimOf(p);
            stage.purchases.push_back(buySundries(p, Serves::Sealant, amount, bead.metresOfBead(), bead.mass));
        } else {
            const SundryGoods g = sundryOf(p);
            stage.purchases.push_back(buySundries(p, g.serves, amount, g.perPack, g.packMass));
        }
        if (!stage.purchases.back().packPrice)
            stage.bought.push_back(
                {Severity::Warning, {"", Part::Product}, RemarkKind::PriceMissing, {{"product", p.name}}, {}});
    }
}

/// "2440 × 1220": what tells a stock without a name from another.
std::string sizeOf(const CutItem& item, StockForm form) {
    char text[64];
    if (form == StockForm::Lengths)
        std::snprintf(text, sizeof text, "%.6g", item.lengthMm);
    else
        std::snprintf(text, sizeof text, "%.6g \u00D7 %.6g", item.lengthMm, item.widthMm);
    return text;
}

/// What the cutting of one product buys: a line for each size of its stock.
/// Counts one item of stock that is bought to be cut.
void countItem(const ProductCut& cut, const CutItem& item, const Product& product, const TrimLength& bar, Purchase& p) {
    p.product = product.id;
    p.stock = item.stock;
    if (!item.stock.empty()) p.size = item.name.empty() ? sizeOf(item, cut.form) : item.name;
    p.family = product.family;
    p.quantity = productFamily(product.family)->quantity;
    p.unitsPerPack = perPackOf(product);
    for (const LeftRectangle& left : item.left) {
        ++p.offcuts;
        if (left.widthMm * left.heightMm <= areaOf(p.offcutLength, p.offcutWidth).value * 1e6) continue;
        p.offcutLength = {left.widthMm};
        p.offcutWidth = {left.heightMm};
    }
    ++p.unitsNeeded;
    p.packs = (p.unitsNeeded + p.unitsPerPack - 1) / p.unitsPerPack;
    p.packPrice = perPackOf(product) > 1 ? product.packPrice : item.price;
    if (bar.length.value > 0) p.boughtMass = p.boughtMass + Kg{bar.mass.value * item.lengthMm / bar.length.value};
    const M2 area{item.lengthMm * item.widthMm / 1e6};
    p.boughtArea = p.boughtArea + area;
    p.consumedArea = p.consumedArea + area;
    if (cut.form == StockForm::Roll) {
        p.lengthNeeded = p.lengthNeeded + Mm{item.lengthMm};
        p.packs = p.unitsNeeded = 1;
    }
}

/// Two sizes of one name are told apart by their size.
void tellApart(const ProductCut& cut, std::map<std::string, Purchase>& bySize) {
    for (auto& [stock, p] : bySize) {
        const auto alike = std::count_if(bySize.begin(), bySize.end(),
                                         [&, size = p.size](const auto& e) { return e.second.size == size; });
        const auto item = std::find_if(cut.items.begin(), cut.items.end(),
                                       [&, id = stock](const CutItem& i) { return i.stock == id && !i.rack; });
        if (alike > 1 && !p.size.empty() && item != cut.items.end()) p.size += " " + sizeOf(*item, cut.form);
    }
}

/// Adds a line, or to the line of the same product and stock.
void addLine(const Purchase& p, Purchases& purchases) {
    const auto same = std::find_if(purchases.begin(), purchases.end(),
                                   [&](const Purchase& q) { return q.product == p.product && q.stock == p.stock; });
    if (same == purchases.end())
        purchases.push_back(p);
    else if (p.packs == 0) { // of what the set-outs buy, more is cut from the rack
        same->laidMass = same->laidMass + p.laidMass;
        same->rackArea = same->rackArea + p.rackArea;
    } else
        *same = boughtTogether(*same, p);
}

void addCut(const SurfaceStage& surfaces, const ProductCut& cut, const Product& product, const Currency& currency,
            Purchases& purchases) {
    std::map<std::string, Purchase> bySize;           // by id of the stock
    double rack = 0;                                  // in m2
    double mass = 0, laid = 0, used = 0, besides = 0; // besides: what no layer weighs already, in mm2 or mm of bars
    for (const SurfacePlan& surface : surfaces.surfaces)
        for (const LayerPlan& layer : surface.layers)
            if (layer.product == product.id && !layer.purchase && (layer.setOut.laid() || layer.mass.value > 0)) {
                mass += layer.mass.value;
                laid += layer.area.value;
            }
    const TrimLength bar = barOf(product);
    for (const CutItem& item : cut.items) {
        for (const LyingPiece& l : item.pieces) {
            if (item.decided) continue;
            used += areaMm2(l.shape);
            // What is cut for a list that has changed since goes nowhere and weighs nothing in the van.
            if (l.piece >= 0 && !cut.pieces[static_cast<std::size_t>(l.piece)].weighed)
                besides += bar.length.value > 0 ? boundsOf(l.shape).width() : areaMm2(l.shape);
        }
        if (item.rack && !item.decided)
            rack += (item.shape.empty() ? item.lengthMm * item.widthMm : areaMm2(item.shape)) / 1e6;
        if (item.rack || item.decided) continue;
        countItem(cut, item, product, bar, bySize[item.stock]);
    }
    if (bySize.empty() && used > 0) { // all of it comes off the rack: a line that costs nothing
        Purchase& p = bySize[{}];
        p.product = product.id;
        p.family = product.family;
        p.quantity = productFamily(product.family)->quantity;
        p.unitsPerPack = 1;
        p.packPrice = product.packPrice;
    }
    if (bySize.empty()) return; // nothing of it can be cut
    const double perM2 = massPerM2Of(product);
    mass += bar.length.value > 0 ? besides / bar.length.value * bar.mass.value : besides / 1e6 * perM2;
    laid += bar.length.value > 0 ? besides * bar.width.value / 1e6 : besides / 1e6;
    tellApart(cut, bySize);
    for (auto& entry : bySize) { // in whole packs, however few of the last one are opened
        Purchase& p = entry.second;
        if (p.unitsPerPack > 1 && p.unitsNeeded > 0)
            p.boughtArea = p.consumedArea * (static_cast<double>(p.packs * p.unitsPerPack) / p.unitsNeeded);
    }
    double bought = 0; // of all its sizes, in m2
    for (const auto& [stock, p] : bySize) bought += p.boughtArea.value;
    bool first = true;
    for (auto& entry : bySize) {
        Purchase& p = entry.second;
        p.laidArea = {bought > 0 ? laid * p.boughtArea.value / bought : first ? laid : 0};
        p.laidMass = {first ? mass : 0};
        p.rackArea = {first ? rack : 0};
        if (bar.length.value <= 0) p.boughtMass = {p.boughtArea.value * perM2};
        if (p.packs == 0)
            p.cost = Money{0, currency};
        else if (p.packPrice)
            p.cost = cut.form == StockForm::Roll
                         ? Money{std::llround(double(p.packPrice->minor) * p.lengthNeeded.value / 1000),
                                 p.packPrice->currency}
                         : *p.packPrice * p.packs;
        first = false;
        addLine(p, purchases);
    }
}

/// Of all lines, so that nothing is added up anywhere else.
Totals totalsOf(const SurfaceStage& surfaces, const PurchaseStage& stage, const Job& job) {
    Totals t;
    std::vector<std::optional<Money>> costs;
    for (const Purchase& p : stage.purchases) costs.push_back(p.cost);
    for (const DeliveryPlan& d : stage.deliveries) costs.push_back(d.cost);
    if (!stage.purchases.empty()) t.cost = sumOf(costs, job.currency);
    for (std::size_t i = 0; i < stage.purchases.size(); ++i) {
        const Purchase& p = stage.purchases[i];
        t.laidMass = t.laidMass + p.laidMass;
        const Family* family = familyOf(p.family);
        if (!family || family->product.role != LayerRole::Finish) continue;
        t.laidArea = t.laidArea + p.laidArea;
        t.boughtArea = t.boughtArea + p.boughtArea;
        t.consumedArea = t.consumedArea + p.consumedArea;
        t.rackArea = t.rackArea + p.rackArea;
        if (!family->laid.unitsBySetOut) continue;
        // Several lines of one product serve one need, which the first of them names.
        const auto ofProduct = [&](const Purchase& q) { return q.product == p.product; };
        if (std::any_of(stage.purchases.begin(), stage.purchases.begin() + static_cast<std::ptrdiff_t>(i), ofProduct))
            continue;
        int units = 0;
        for (const Purchase& q : stage.purchases) units += ofProduct(q) ? q.unitsAtHand() : 0;
        const double alone = chanceOfRunningShort(unitsNeededOf(stage.purchases, p.product),
                                                  surfaces.cutUnits(p.product), units, job.spoilChance);
        t.runShort = 1 - (1 - t.runShort) * (1 - alone);
    }
    return t;
}

} // namespace

PurchaseStage purchasesOf(const SurfaceStage& surfaces, std::span<const ProductCut> cuts, const PurchasesInput& input) {
    const Job& job = input.read;
    PurchaseStage stage;
    stage.purchases = countedOf(surfaces, job.catalogue);
    addNeeds(surfaces, job.catalogue, stage);
    for (const ProductCut& cut : cuts)
        if (const Product* product = job.catalogue.find(cut.product))
            addCut(surfaces, cut, *product, job.currency, stage.purchases);
    useShelf(job, stage);
    chooseOffers(job, stage);
    buySpares(job, stage.purchases);
    shareCosts(job, surfaces, cuts, stage);
    stage.totals = totalsOf(surfaces, stage, job);
    return stage;
}

} // namespace westrum
