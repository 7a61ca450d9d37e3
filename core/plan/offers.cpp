#include "core/plan/offers.h"

#include "core/buying/buying_plan.h"
#include "core/families/family.h"
#include "core/plan/shelf.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace westrum {
namespace {

constexpr double kMmPerM = 1000;

/// A purchase as one option has it.
struct Chosen {
    double size{};
    Money price;
    std::string supplier;
    int count{};
    bool own{};
};

/// "2.5 l": what tells a line from that of another size, in every language and as job files have it.
std::string sizeKey(const Purchase& p, double size) {
    char text[32];
    std::snprintf(text, sizeof text, "%.6g", size);
    std::string name = text;
    if (p.serves) return name;
    if (p.quantity == Quantity::Volume) name += " l";
    if (p.quantity == Quantity::Mass) name += " kg";
    if (p.quantity == Quantity::Length) name += " m";
    return name;
}

/// What of an option's packs serves the need: of a roll that strips come off whole, what does on the average.
double serving(const Purchase& p, const Sought& m, double size) {
    if (p.strips.empty() || m.metres || size <= 0) return size;
    constexpr double kHair = 1 + 1e-9; // so that as many rolls as were counted are enough
    return std::min(size, p.lengthNeeded.value / kMmPerM / rollsOf(p, Mm{size * kMmPerM}) * kHair);
}

/// @param rest  what lines before it leave of the need, in its measure; less what this one takes afterwards
Purchase bought(Purchase p, const Sought& m, const Chosen& c, bool first, double& rest) {
    p.supplier = c.supplier;
    p.packPrice = c.price;
    if (m.metres) {
        p.cost = Money{std::llround(static_cast<double>(c.price.minor) * m.need), c.price.currency};
        return p;
    }
    if (std::abs(c.size - m.own) > 1e-9) {
        p.size = sizeKey(p, c.size);
        p.offered = c.size;
    }
    const double shelf = p.shelf, before = std::max(1e-9, m.own * p.packs), now = c.size * c.count;
    p.packs = c.count;
    p.cost = c.price * c.count;
    p.boughtArea = p.boughtArea * (now / before);
    p.boughtMass = p.boughtMass * (now / before);
    // Each line serves what it can of the need; what stays in the van is weighed with the first.
    const double serves = std::min(rest, serving(p, m, c.size) * c.count);
    rest -= serves;
    if (!first) p.shelf = 0;
    const double all = m.need + shelf, share = all > 0 ? (serves + p.shelf) / all : 0;
    if (p.measuredOut()) {
        p.amountPerPack = c.size;
        p.unitsNeeded = c.count;
        p.amount = serves + p.shelf;
    } else if (p.quantity == Quantity::Length) {
        p.unitsNeeded = c.count;
        p.lengthNeeded = Mm{(serves + p.shelf) * kMmPerM};
        p.lengthLeft = Mm{(now + p.shelf) * kMmPerM} - p.lengthNeeded;
    } else {
        p.unitsPerPack = static_cast<int>(std::lround(c.size));
        p.unitsNeeded = static_cast<int>(std::lround(serves + p.shelf));
    }
    p.laidArea = p.laidArea * share;
    p.consumedArea = p.consumedArea * share;
    if (!first) {
        p.laidMass = {};
        p.rackArea = {};
        p.offcuts = 0;
    }
    return p;
}

/// Whether two lots of it side by side would show.
bool isSeen(const Purchase& p) {
    const Family* family = familyOf(p.family);
    return family && family->laid.lotShows && !p.serves;
}

/// Every way to buy what a line asks for: as it is listed, and by the offers that can serve it. An offer in a currency
/// without a rate is told.
std::vector<Chosen> waysOf(const Job& job, const Purchase& p, const Sought& m, std::vector<Remark>& told) {
    std::vector<Chosen> ways;
    if (p.packPrice && p.packPrice->currency == job.currency)
        ways.push_back({m.own, *p.packPrice, p.supplier, 0, true});
    if (p.size.empty()) // other sizes of stock are those that the person named
        for (const Offer& o : job.prices.offers) {
            if (o.product != p.product || o.state != OfferState::Sold) continue;
            const auto price = priceOf(o, job.currency, job.prices);
            if (!price) {
                const Product* sold = job.catalogue.find(o.product);
                told.push_back({Severity::Warning,
                                {"", Part::Product},
                                RemarkKind::RateMissing,
                                {{"currency", o.price.currency.name()},
                                 {"product", sold ? sold->name : o.product},
                                 {"supplier", o.supplier}},
                                {}});
                continue;
            }
            const Family* family = familyOf(p.family);
            const bool packed = family && (family->laid.unitsBySetOut || family->product.soldBy == SoldBy::Pack);
            const bool cut = stockFormOf(p.family).has_value() && !packed;
            if (cut && o.size > 0 && !m.metres) continue; // another size is cut otherwise: it is stock of its own
            ways.push_back({o.size > 0 && !m.metres ? o.size : m.own, *price, o.supplier, 0, false});
        }
    return ways;
}

} // namespace

void chooseOffers(const Job& job, PurchaseStage& plan) {
    for (Purchase& p : plan.purchases) {
        if (const Product* sold = job.catalogue.find(p.product)) p.supplier = sold->supplier;
        p.oneLot = comesInOneLot(job.prices, p.product, isSeen(p));
    }
    const bool brings = std::any_of(job.prices.suppliers.begin(), job.prices.suppliers.end(),
                                    [](const Supplier& s) { return s.delivery && s.delivery->minor > 0; });
    if (job.prices.offers.empty() && !brings) return;

    BuyRequest request;
    std::vector<std::string> suppliers;
    const auto supplierAt = [&](const std::string& name) {
        const auto found = std::find(suppliers.begin(), suppliers.end(), name);
        if (found != suppliers.end()) return static_cast<int>(found - suppliers.begin());
        suppliers.push_back(name);
        SupplierTerms terms;
        if (const Supplier* s = job.prices.supplier(name)) {
            if (s->delivery && s->delivery->currency == job.currency) terms.deliveryMinor = s->delivery->minor;
            if (s->freeFrom && s->freeFrom->currency == job.currency) terms.freeFromMinor = s->freeFrom->minor;
        }
        request.suppliers.push_back(terms);
        return static_cast<int>(suppliers.size()) - 1;
    };
    std::vector<Sought> measures;
    std::vector<Chosen> options; // beside request.options
    std::vector<int> asked;      // by purchase: its place among the needs; -1: none
    for (const Purchase& p : plan.purchases) {
        const Sought m = soughtOf(p);
        measures.push_back(m);
        asked.push_back(-1);
        if (p.packs == 0 || m.need <= 0) continue;
        const int place = static_cast<int>(request.needs.size());
        std::vector<Chosen> ways = waysOf(job, p, m, plan.bought);
        if (ways.empty()) continue;
        asked.back() = place;
        request.needs.push_back(m.metres ? 1 : m.need);
        request.oneLot.push_back(p.oneLot);
        for (Chosen& way : ways) {
            const std::int64_t price =
                m.metres ? std::llround(static_cast<double>(way.price.minor) * m.need) : way.price.minor;
            request.options.push_back({place, supplierAt(way.supplier), m.metres ? 1 : serving(p, m, way.size), price});
            options.push_back(std::move(way));
        }
    }
    const auto answer = cheapestPurchases(request);
    if (!answer) return;
    for (std::size_t k = 0; k < options.size(); ++k) options[k].count = answer->counts[k];

    std::vector<Purchase> all;
    for (std::size_t i = 0; i < plan.purchases.size(); ++i) {
        const Purchase& p = plan.purchases[i];
        std::vector<const Chosen*> used;
        for (std::size_t k = 0; k < options.size() && asked[i] >= 0; ++k)
            if (request.options[k].product == asked[i] && options[k].count > 0) used.push_back(&options[k]);
        if (used.empty()) {
            all.push_back(p);
            continue;
        }
        double rest = measures[i].need;
        for (std::size_t n = 0; n < used.size(); ++n) all.push_back(bought(p, measures[i], *used[n], n == 0, rest));
    }
    plan.purchases = std::move(all);
    for (std::size_t s = 0; s < suppliers.size(); ++s) {
        if (!answer->delivered[s]) continue;
        plan.deliveries.push_back({suppliers[s], {request.suppliers[s].deliveryMinor, job.currency}});
    }
    plan.leastCost = Money{answer->leastMinor, job.currency};
}

} // namespace westrum
