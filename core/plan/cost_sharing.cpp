#include "core/plan/cost_sharing.h"

#include "core/buying/cost_shares.h"
#include "core/families/family.h"

#include <algorithm>

namespace westrum {
namespace {

/// Whose is what of one purchase, by place of the surface in the job; the last place is nobody's.
struct Ledger {
    std::vector<SharedUnit> units;
    std::vector<double> weighed; ///< kg that layers weigh already
    std::vector<double> rest;    ///< what else weighs, in mm2, mm or the purchase's amount
};

class Sharing {
public:
    Sharing(const Job& job, std::span<const ProductCut> cuts, const SurfaceStage& plan)
        : job_(job), cuts_(cuts), plan_(plan) {
        for (std::size_t i = 0; i < plan.surfaces.size(); ++i) places_[plan.surfaces[i].surface] = static_cast<int>(i);
    }

    void share(Purchase& p, bool firstOfProduct) const {
        const std::size_t n = plan_.surfaces.size() + 1;
        Ledger ledger{{}, std::vector<double>(n, 0), std::vector<double>(n, 0)};
        const auto cut =
            std::find_if(cuts_.begin(), cuts_.end(), [&](const ProductCut& c) { return c.product == p.product; });
        if (cut != cuts_.end())
            fromCut(*cut, p, ledger);
        else
            fromLayers(p, ledger);
        fromNeeds(p, ledger);
        if (firstOfProduct) weigh(p, ledger);
        const CostShares shares =
            shareCost(static_cast<int>(n), ledger.units, p.cost.value_or(Money{0, job_.currency}));
        const double kept = sum(ledger.weighed), more = std::max(0.0, p.laidMass.value - kept), all = sum(ledger.rest);
        p.shares.clear();
        for (std::size_t i = 0; i < n; ++i) {
            const double mass = ledger.weighed[i] + (all > 0 ? more * ledger.rest[i] / all : 0);
            if (shares.consumed[i] <= 0 && mass <= 0) continue;
            PurchaseShare s;
            s.surface = i + 1 < n ? plan_.surfaces[i].surface : std::string();
            s.consumed = shares.consumed[i];
            if (p.cost) s.cost = shares.share[i];
            s.mass = {mass};
            p.shares.push_back(std::move(s));
        }
    }

    /// Its place in the job; of nobody's, the one behind the last.
    int placeOf(const std::string& surface) const {
        const auto found = places_.find(surface);
        return found == places_.end() ? static_cast<int>(plan_.surfaces.size()) : found->second;
    }

private:
    static double sum(const std::vector<double>& v) {
        double all = 0;
        for (const double x : v) all += x;
        return all;
    }
    /// Of what the cutting laid out: item by item of this size.
    void fromCut(const ProductCut& cut, const Purchase& p, Ledger& ledger) const {
        const bool bars = cut.form == StockForm::Lengths;
        for (const CutItem& item : cut.items) {
            const bool mine = p.packs == 0 && p.shelf <= 0 ? item.rack // all of it comes off the rack
                                                           : !item.rack && item.stock == p.stock;
            if (!mine) continue;
            SharedUnit unit{item.lengthMm * item.widthMm / 1e6, {}};
            for (const LyingPiece& l : item.pieces) {
                const std::string surface =
                    l.piece >= 0 ? cut.pieces[static_cast<std::size_t>(l.piece)].surface : std::string();
                const int at = placeOf(surface);
                const double takes = bars ? boundsOf(l.shape).width() * item.widthMm / 1e6 : areaMm2(l.shape) / 1e6;
                unit.taken.emplace_back(at, takes);
                if (!item.decided) ledger.rest[static_cast<std::size_t>(at)] += takes;
            }
            ledger.units.push_back(std::move(unit));
        }
    }

    /// Of what is counted or measured out, layer by layer; and of planks before they are cut.
    void fromLayers(const Purchase& p, Ledger& ledger) const {
        const Family* family = familyOf(p.family);
        for (const SurfacePlan& s : plan_.surfaces)
            for (const LayerPlan& l : s.layers) {
                if (l.product != p.product || !l.purchase) continue;
                double takes = l.take.amount;
                if (family && family->laid.unitsBySetOut) takes = l.purchase->consumedArea.value;
                if (p.quantity == Quantity::Length) takes = l.take.strips.totalLength.value / 1000;
                if (takes > 0) ledger.units.push_back({takes, {{placeOf(s.surface), takes}}});
            }
    }

    void fromNeeds(const Purchase& p, Ledger& ledger) const {
        for (const Need& n : plan_.needs) {
            if (n.product != p.product) continue;
            const int at = placeOf(n.surface);
            ledger.units.push_back({n.amount, {{at, n.amount}}});
            ledger.rest[static_cast<std::size_t>(at)] += n.amount;
        }
    }

    void weigh(const Purchase& p, Ledger& ledger) const {
        for (const SurfacePlan& s : plan_.surfaces)
            for (const LayerPlan& l : s.layers)
                if (l.product == p.product)
                    ledger.weighed[static_cast<std::size_t>(placeOf(s.surface))] += l.mass.value;
    }

    const Job& job_;
    std::span<const ProductCut> cuts_;
    const SurfaceStage& plan_;
    std::map<std::string, int> places_;
};

} // namespace

void shareCosts(const Job& job, const SurfaceStage& surfaces, std::span<const ProductCut> cuts, PurchaseStage& stage) {
    const Sharing sharing(job, cuts, surfaces);
    for (std::size_t i = 0; i < stage.purchases.size(); ++i) {
        const std::string& product = stage.purchases[i].product;
        const bool first =
            std::none_of(stage.purchases.begin(), stage.purchases.begin() + static_cast<std::ptrdiff_t>(i),
                         [&](const Purchase& q) { return q.product == product; });
        sharing.share(stage.purchases[i], first);
    }
    // Bringing is borne as what is brought.
    for (DeliveryPlan& d : stage.deliveries) {
        std::vector<double> weights(surfaces.surfaces.size() + 1, 0);
        for (const Purchase& p : stage.purchases) {
            if (p.supplier != d.supplier) continue;
            for (const PurchaseShare& s : p.shares)
                if (s.cost)
                    weights[static_cast<std::size_t>(sharing.placeOf(s.surface))] += static_cast<double>(s.cost->minor);
        }
        const std::vector<Money> parts = inParts(d.cost, weights);
        for (std::size_t i = 0; i < parts.size(); ++i)
            if (parts[i].minor > 0)
                d.shares.push_back(
                    {i < surfaces.surfaces.size() ? surfaces.surfaces[i].surface : std::string(), 0, parts[i], {}});
    }
}

void buySpares(const Job& job, std::vector<Purchase>& purchases) {
    for (const auto& [product, spare] : job.spares) {
        const auto p = std::find_if(purchases.begin(), purchases.end(),
                                    [&, id = product](const Purchase& q) { return q.product == id; });
        const Product* sold = job.catalogue.find(product);
        if (p == purchases.end() || p->packs == 0 || spare <= 0 || !sold) continue;
        const bool roll = stockFormOf(sold->family) == StockForm::Roll;
        addSpares(*p, spare, roll ? rollOf(*sold).step.value / 1000 : 0);
    }
}

std::vector<SurfaceCost> costBySurface(const Currency& currency, const SurfaceStage& surfaces,
                                       const PurchaseStage& purchases) {
    std::vector<SurfaceCost> all;
    const auto add = [&](const std::string& id) {
        SurfaceCost c{id, {}, {}, {}};
        std::vector<std::optional<Money>> costs;
        for (const Purchase& p : purchases.purchases)
            for (const PurchaseShare& s : p.shares) {
                if (s.surface != id) continue;
                c.mass = c.mass + s.mass;
                costs.push_back(s.cost);
            }
        if (costs.empty()) return;
        for (const DeliveryPlan& d : purchases.deliveries)
            for (const PurchaseShare& s : d.shares)
                if (s.surface == id) costs.push_back(s.cost);
        c.cost = sumOf(costs, currency);
        if (const SurfacePlan* s = surfaces.surface(id); s && s->faceLayer()) c.area = s->faceLayer()->area;
        all.push_back(std::move(c));
    };
    for (const SurfacePlan& s : surfaces.surfaces) add(s.surface);
    add({});
    return all;
}

std::vector<SurfaceCost> costBySurface(const Job& job, const Plan& plan) {
    return costBySurface(job.currency, plan, plan);
}

} // namespace westrum
