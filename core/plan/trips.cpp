#include "core/plan/trips.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Places right across an item where a saw touches no piece, rising.
std::vector<double> freePlaces(const CutItem& item) {
    std::vector<double> places;
    for (const LyingPiece& l : item.pieces) {
        // Just behind each piece; its kerf lies there already.
        const double x = boundsOf(l.shape).high.x + item.kerfMm / 2;
        if (x <= 1 || x >= item.lengthMm - 1) continue;
        const bool clear = std::none_of(item.pieces.begin(), item.pieces.end(), [&](const LyingPiece& o) {
            const Bounds b = boundsOf(o.shape);
            return b.low.x < x + item.kerfMm / 2 - 1e-6 && b.high.x > x - item.kerfMm / 2 + 1e-6;
        });
        if (clear) places.push_back(x);
    }
    std::sort(places.begin(), places.end());
    places.erase(std::unique(places.begin(), places.end(), [](double a, double b) { return std::abs(a - b) < 0.5; }),
                 places.end());
    return places;
}

/// As few of the places as part a length into lengths of at most `most`: always the furthest that is still within it.
std::vector<double> partedBy(const std::vector<double>& places, double length, double most) {
    std::vector<double> cuts;
    double from = 0;
    while (length - from > most + 1e-6) {
        const auto beyond = std::upper_bound(places.begin(), places.end(), from + most + 1e-6);
        if (beyond == places.begin() || *(beyond - 1) <= from + 1e-6) return {};
        from = *(beyond - 1);
        cuts.push_back(from);
    }
    return cuts;
}

} // namespace

std::vector<RoughCut> roughCuts(std::span<const ProductCut> cuts, std::optional<Mm> loadLength,
                                std::optional<Mm> loadWidth) {
    std::vector<RoughCut> all;
    if (!loadLength) return all;
    for (const ProductCut& c : cuts) {
        if (c.form == StockForm::Roll) continue; // it is rolled up
        for (const CutItem& item : c.items) {
            if (item.rack || item.decided) continue;
            // It may lie either way round.
            const bool wide = loadWidth && std::min(item.widthMm, item.lengthMm) > loadWidth->value + 1e-6;
            if (std::max(item.widthMm, item.lengthMm) <= loadLength->value + 1e-6 && !wide) continue;
            RoughCut r{c.product, item.stock.empty() ? std::string() : item.name, 1, {item.lengthMm}, {item.widthMm},
                       {}};
            if (!wide) r.across = partedBy(freePlaces(item), item.lengthMm, loadLength->value);
            const auto same = std::find_if(all.begin(), all.end(), [&](const RoughCut& o) {
                return o.product == r.product && o.size == r.size && o.length == r.length && o.across == r.across;
            });
            if (same == all.end())
                all.push_back(std::move(r));
            else
                ++same->items;
        }
    }
    return all;
}

std::vector<Trip> tripsOf(const Job& job, const Plan& plan) {
    std::vector<Trip> trips;
    for (std::size_t i = 0; i < plan.purchases.size(); ++i) {
        const Purchase& p = plan.purchases[i];
        const Product* sold = job.catalogue.find(p.product);
        const std::string from = !p.supplier.empty() ? p.supplier : sold ? sold->supplier : std::string();
        auto t = std::find_if(trips.begin(), trips.end(), [&](const Trip& x) { return x.supplier == from; });
        if (t == trips.end()) t = trips.insert(trips.end(), Trip{from, {}, {}, Money{0, job.currency}, false});
        t->lines.push_back(i);
        if (p.packs > 0) t->mass = t->mass + (p.boughtMass.value > 0 ? p.boughtMass : p.laidMass);
    }
    for (Trip& t : trips) {
        std::vector<std::optional<Money>> costs;
        for (const std::size_t i : t.lines) costs.push_back(plan.purchases[i].cost);
        for (const DeliveryPlan& d : plan.deliveries)
            if (d.supplier == t.supplier) {
                t.brought = true;
                costs.emplace_back(d.cost);
            }
        t.cost = sumOf(costs, job.currency);
    }
    std::sort(trips.begin(), trips.end(), [](const Trip& a, const Trip& b) { return a.supplier < b.supplier; });
    return trips;
}

} // namespace westrum
