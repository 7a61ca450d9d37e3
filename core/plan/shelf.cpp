#include "core/plan/shelf.h"

#include "core/families/family.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace westrum {
namespace {

constexpr double kMetre = 1000, kHair = 1e-9;

bool byUnits(const Purchase& p) { return !p.measuredOut() && p.quantity != Quantity::Length; }

/// @param packs  in hand, of the catalogue's size
void takeOff(Purchase& p, double packs, const Currency& currency) {
    const Sought m = soughtOf(p);
    double have = packs * m.own;
    if (byUnits(p)) have = std::floor(have + kHair);
    const double used = std::min(have, m.need);
    if (used <= 0) return;
    const double before = p.packs;
    p.shelf = used;
    // Of rolls that strips come off whole, each serves less than it holds.
    const double each = p.strips.empty() ? m.own : std::min(m.own, m.need / before);
    p.packs = std::max(0, static_cast<int>(std::ceil((m.need - used) / each - kHair)));
    p.rackArea = p.rackArea + p.boughtArea * (used / (m.own * before));
    p.boughtArea = p.boughtArea * (p.packs / before);
    p.boughtMass = p.boughtMass * (p.packs / before);
    if (!byUnits(p)) p.unitsNeeded = p.packs;
    if (p.quantity == Quantity::Length && !p.serves) p.lengthLeft = Mm{(m.own * p.packs + used - m.need) * kMetre};
    if (p.packs == 0)
        p.cost = Money{0, currency};
    else if (p.packPrice)
        p.cost = *p.packPrice * p.packs;
}

} // namespace

Sought soughtOf(const Purchase& p) {
    if (stockFormOf(p.family) == StockForm::Roll) return {p.lengthNeeded.value / kMetre, 1, true};
    if (p.measuredOut()) return {p.amount - p.shelf, p.amountPerPack, false};
    if (p.quantity == Quantity::Length)
        return {p.lengthNeeded.value / kMetre - p.shelf,
                ((p.lengthNeeded + p.lengthLeft).value / kMetre - p.shelf) / std::max(1, p.packs), false};
    return {p.unitsNeeded - p.shelf, static_cast<double>(std::max(1, p.unitsPerPack)), false};
}

bool servesFromShelf(const Product& product) {
    const Family* family = familyOf(product.family);
    return family &&
           (family->laid.unitsBySetOut || !stockFormOf(product.family) || family->product.soldBy == SoldBy::Pack);
}

void useShelf(const Job& job, PurchaseStage& stage) {
    std::map<std::string, double> inHand;
    for (const ShelfPack& s : job.shelf)
        if (s.packs > 0) inHand[s.product] += s.packs;
    for (Purchase& p : stage.purchases) {
        const auto packs = inHand.find(p.product);
        const Product* sold = job.catalogue.find(p.product);
        if (packs == inHand.end() || !sold || !servesFromShelf(*sold) || p.packs == 0) continue;
        takeOff(p, packs->second, job.currency);
        inHand.erase(packs);
        if (p.packs > 0) continue;
        // Nothing is bought of it: no price is missed.
        std::erase_if(stage.bought, [&](const Remark& r) {
            return r.kind == RemarkKind::PriceMissing && r.facts == Facts{{"product", sold->name}};
        });
    }
}

} // namespace westrum
