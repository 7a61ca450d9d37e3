#include "core/buying/supplier_sets.h"

#include "core/buying/pack_sizes.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace westrum {
namespace {

constexpr std::size_t kMostTried = 10; ///< suppliers all of whose sets are tried

class SupplierSets {
public:
    explicit SupplierSets(const BuyRequest& r) : r_(r), bit_(r.suppliers.size(), 0) {
        for (std::size_t s = 0; s < r.suppliers.size(); ++s)
            if (r.suppliers[s].deliveryMinor > 0 && chargers_.size() < 30) {
                bit_[s] = 1U << chargers_.size();
                chargers_.push_back(s);
            }
        optionsOf_.resize(r.needs.size());
        offered_.resize(r.needs.size(), 0);
        for (std::size_t k = 0; k < r.options.size(); ++k) {
            optionsOf_[at(r.options[k].product)].push_back(k);
            offered_[at(r.options[k].product)] |= bit_[at(r.options[k].supplier)];
        }
    }

    std::optional<BuyAnswer> best() {
        const unsigned all = (1U << chargers_.size()) - 1;
        if (chargers_.size() <= kMostTried) {
            for (unsigned set = 0; set <= all; ++set) evaluate(set);
        } else {
            climb(all);
            leastMinor_ = goodsOf(all).value_or(leastMinor_); // whoever brings them
        }
        if (tooFine_ || !best_) return std::nullopt;
        best_->leastMinor = std::min(leastMinor_, best_->costMinor);
        return std::move(best_);
    }

private:
    /// What of each option is taken for one product.
    struct Way {
        std::vector<std::pair<std::size_t, int>> takes;
        std::int64_t cost = 0;
    };

    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    [[nodiscard]] bool has(unsigned set, std::size_t supplier) const {
        return bit_[supplier] == 0 || (set & bit_[supplier]) != 0;
    }

    template <class Fits> std::optional<Way> cheapest(std::size_t product, Fits fits) {
        std::vector<PackSize> sizes;
        std::vector<std::size_t> places;
        for (const std::size_t k : optionsOf_[product])
            if (fits(at(r_.options[k].supplier))) {
                sizes.push_back({r_.options[k].amount, r_.options[k].priceMinor});
                places.push_back(k);
            }
        if (sizes.empty()) return std::nullopt;
        const auto packs = leastCostPacks(r_.needs[product], sizes);
        if (!packs) {
            tooFine_ = true;
            return std::nullopt;
        }
        Way way{{}, packs->costMinor};
        for (std::size_t n = 0; n < places.size(); ++n)
            if (packs->counts[n] > 0) way.takes.emplace_back(places[n], packs->counts[n]);
        return way;
    }
    /// All of a product from one supplier.
    const std::optional<Way>& only(std::size_t product, std::size_t supplier) {
        const auto [found, fresh] = only_.try_emplace({product, supplier});
        if (fresh) found->second = cheapest(product, [&](std::size_t s) { return s == supplier; });
        return found->second;
    }
    /// A product from the suppliers of a set.
    const std::optional<Way>& within(std::size_t product, unsigned set) {
        const auto [found, fresh] = within_.try_emplace({product, set & offered_[product]});
        if (!fresh) return found->second;
        if (!r_.oneLot[product]) return found->second = cheapest(product, [&](std::size_t s) { return has(set, s); });
        for (const std::size_t k : optionsOf_[product]) {
            const std::size_t s = at(r_.options[k].supplier);
            if (!has(set, s)) continue;
            if (const auto& way = only(product, s); way && (!found->second || way->cost < found->second->cost))
                found->second = way;
        }
        return found->second;
    }

    /// Of all products, the cheapest way each; nothing if one cannot be had.
    std::optional<std::int64_t> goodsOf(unsigned set) {
        ways_.assign(r_.needs.size(), {});
        std::int64_t sum = 0;
        for (std::size_t i = 0; i < r_.needs.size(); ++i) {
            if (optionsOf_[i].empty()) continue;
            const auto& way = within(i, set);
            if (!way) return std::nullopt;
            ways_[i] = *way;
            sum += way->cost;
        }
        return sum;
    }
    [[nodiscard]] std::int64_t boughtFrom(std::size_t supplier, const Way& way) const {
        std::int64_t sum = 0;
        for (const auto& [option, count] : way.takes)
            if (at(r_.options[option].supplier) == supplier) sum += r_.options[option].priceMinor * count;
        return sum;
    }

    /// A product moved to a supplier: so much more is bought there, for so much more in all.
    struct Move {
        std::size_t product;
        std::int64_t gain, extra;
    };
    std::vector<Move> movesTo(std::size_t supplier) {
        std::vector<Move> moves;
        for (std::size_t i = 0; i < ways_.size(); ++i) {
            if (optionsOf_[i].empty()) continue;
            const auto& there = only(i, supplier);
            if (!there) continue;
            const std::int64_t gain = there->cost - boughtFrom(supplier, ways_[i]);
            if (gain > 0) moves.push_back({i, gain, there->cost - ways_[i].cost});
        }
        return moves;
    }
    /// Where so much is missing: no way to buy it there costs less extra. Parts of moves count; a product that may come
    /// from several suppliers may do so for nothing; beyond that a cent there costs a cent.
    std::int64_t leastExtra(std::vector<Move> moves, std::int64_t missing) const {
        for (Move& m : moves)
            if (!r_.oneLot[m.product]) m.extra = 0;
        std::sort(moves.begin(), moves.end(), byWorth);
        double extra = 0;
        for (const Move& m : moves) {
            if (missing <= 0 || m.extra >= m.gain) break;
            const double part = std::min(1.0, static_cast<double>(missing) / static_cast<double>(m.gain));
            extra += part * static_cast<double>(m.extra);
            missing -= m.gain;
        }
        return static_cast<std::int64_t>(
            std::ceil(extra + static_cast<double>(std::max<std::int64_t>(0, missing)) - 1e-6));
    }
    static bool byWorth(const Move& a, const Move& b) {
        return static_cast<double>(a.extra) * static_cast<double>(b.gain) <
               static_cast<double>(b.extra) * static_cast<double>(a.gain);
    }

    /// Moves products, or adds packs of one kind, until the supplier brings for nothing, where that costs less.
    void reachFree(std::size_t supplier, std::int64_t missing) {
        std::vector<Move> moves = movesTo(supplier);
        std::stable_sort(moves.begin(), moves.end(), byWorth);
        std::int64_t cheapest = r_.suppliers[supplier].deliveryMinor, extra = 0, left = missing;
        std::optional<std::size_t> moved, padded;
        int pads = 0;
        for (std::size_t n = 0;; ++n) {
            if (left <= 0 && extra < cheapest) {
                cheapest = extra;
                moved = n;
                padded.reset();
            }
            for (std::size_t k = 0; k < r_.options.size() && left > 0; ++k) {
                const BuyOption& o = r_.options[k];
                if (at(o.supplier) != supplier || o.priceMinor <= 0) continue;
                const std::int64_t packs = (left + o.priceMinor - 1) / o.priceMinor;
                if (extra + packs * o.priceMinor >= cheapest) continue;
                if (r_.oneLot[at(o.product)] && !allFrom(supplier, at(o.product), moves, n)) continue;
                cheapest = extra + packs * o.priceMinor;
                moved = n;
                padded = k;
                pads = static_cast<int>(packs);
            }
            if (n == moves.size() || left <= 0) break;
            extra += moves[n].extra;
            left -= moves[n].gain;
        }
        if (!moved) return;
        for (std::size_t n = 0; n < *moved; ++n) ways_[moves[n].product] = *only(moves[n].product, supplier);
        if (padded) ways_[at(r_.options[*padded].product)].takes.emplace_back(*padded, pads);
    }
    [[nodiscard]] bool allFrom(std::size_t supplier, std::size_t product, const std::vector<Move>& moves,
                               std::size_t moved) const {
        for (std::size_t n = 0; n < moved; ++n)
            if (moves[n].product == product) return true;
        return boughtFrom(supplier, ways_[product]) == ways_[product].cost;
    }

    /// The best within a set, and what no answer that buys from each of its chargers can undercut.
    std::optional<std::int64_t> evaluate(unsigned set) {
        const auto goods = goodsOf(set);
        if (!goods) return std::nullopt;
        std::int64_t least = *goods;
        for (const std::size_t s : chargers_) {
            if (!has(set, s)) continue;
            const SupplierTerms& terms = r_.suppliers[s];
            std::int64_t there = 0;
            for (const Way& w : ways_) there += boughtFrom(s, w);
            if (!terms.freeFromMinor)
                least += terms.deliveryMinor;
            else if (there < *terms.freeFromMinor)
                least += std::min(terms.deliveryMinor, leastExtra(movesTo(s), *terms.freeFromMinor - there));
        }
        leastMinor_ = std::min(leastMinor_, least);
        take();
        for (const std::size_t s : chargers_) {
            std::int64_t there = 0;
            for (const Way& w : ways_) there += boughtFrom(s, w);
            const auto& free = r_.suppliers[s].freeFromMinor;
            if (has(set, s) && free && there < *free && there > 0) reachFree(s, *free - there);
        }
        return take();
    }
    /// What the ways cost; kept if it is the best so far.
    std::int64_t take() {
        BuyAnswer a;
        a.counts.assign(r_.options.size(), 0);
        for (const Way& w : ways_)
            for (const auto& [option, count] : w.takes) a.counts[option] += count;
        reckon(r_, a);
        const std::int64_t cost = a.costMinor;
        if (!best_ || cost < best_->costMinor) best_ = std::move(a);
        return cost;
    }

    /// From a set on, one supplier more or less as long as that is cheaper.
    void climb(unsigned set) {
        auto cost = evaluate(set);
        for (bool better = true; better;) {
            better = false;
            for (const std::size_t s : chargers_) {
                const unsigned other = set ^ bit_[s];
                const auto then = evaluate(other);
                if (!then || (cost && *then >= *cost)) continue;
                set = other;
                cost = then;
                better = true;
            }
        }
    }

    const BuyRequest& r_;
    std::vector<unsigned> bit_; ///< by supplier; 0: brings for nothing
    std::vector<std::size_t> chargers_;
    std::vector<std::vector<std::size_t>> optionsOf_; ///< by product
    std::vector<unsigned> offered_;                   ///< by product: chargers that sell it
    std::map<std::pair<std::size_t, unsigned>, std::optional<Way>> within_;
    std::map<std::pair<std::size_t, std::size_t>, std::optional<Way>> only_;
    std::vector<Way> ways_; ///< by product
    bool tooFine_ = false;
    std::optional<BuyAnswer> best_;
    std::int64_t leastMinor_ = INT64_MAX;
};

} // namespace

void reckon(const BuyRequest& r, BuyAnswer& a) {
    a.delivered.clear();
    a.costMinor = 0;
    std::vector<std::int64_t> goods(r.suppliers.size(), 0);
    std::vector<bool> comes(r.suppliers.size(), false);
    for (std::size_t k = 0; k < r.options.size(); ++k) {
        if (a.counts[k] <= 0) continue;
        const auto s = static_cast<std::size_t>(r.options[k].supplier);
        comes[s] = true;
        goods[s] += r.options[k].priceMinor * a.counts[k];
    }
    for (std::size_t s = 0; s < r.suppliers.size(); ++s) {
        const SupplierTerms& terms = r.suppliers[s];
        const bool nothing = terms.freeFromMinor && goods[s] >= *terms.freeFromMinor;
        const bool paid = comes[s] && terms.deliveryMinor > 0 && !nothing;
        a.delivered.push_back(paid);
        a.costMinor += goods[s] + (paid ? terms.deliveryMinor : 0);
    }
}

std::optional<BuyAnswer> cheapestBySets(const BuyRequest& r) {
    if (r.options.empty()) return std::nullopt;
    return SupplierSets(r).best();
}

} // namespace westrum
