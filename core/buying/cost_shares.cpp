#include "core/buying/cost_shares.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <cstdlib>
#include <numeric>

namespace westrum {

std::vector<Money> inParts(Money total, std::span<const double> weights) {
    assert(!weights.empty());
    std::vector<double> w(weights.begin(), weights.end());
    double sum = std::accumulate(w.begin(), w.end(), 0.0);
    if (sum <= 0) {
        std::fill(w.begin(), w.end(), 1.0);
        sum = static_cast<double>(w.size());
    }
    // Of a refund the parts are those of its amount, turned round.
    const std::int64_t sign = total.minor < 0 ? -1 : 1, amount = std::abs(total.minor);
    std::vector<std::int64_t> whole(w.size());
    std::vector<std::pair<double, std::size_t>> rest;
    std::int64_t given = 0;
    for (std::size_t i = 0; i < w.size(); ++i) {
        const double exact = static_cast<double>(amount) * (w[i] / sum);
        whole[i] = static_cast<std::int64_t>(std::floor(exact + 1e-9));
        given += whole[i];
        rest.emplace_back(exact - static_cast<double>(whole[i]), i);
    }
    // Remainders that differ by rounding alone are equal.
    std::stable_sort(rest.begin(), rest.end(), [](const auto& a, const auto& b) {
        return std::llround(a.first * 1e6) > std::llround(b.first * 1e6);
    });
    for (std::size_t k = 0; given < amount; k = (k + 1) % rest.size(), ++given) ++whole[rest[k].second];
    for (std::size_t k = rest.size(); given > amount; k = k == 1 ? rest.size() : k - 1) {
        std::int64_t& last = whole[rest[k - 1].second];
        if (last == 0) continue;
        --last;
        --given;
    }
    std::vector<Money> parts;
    for (const std::int64_t part : whole) parts.push_back({sign * part, total.currency});
    return parts;
}

CostShares shareCost(int surfaces, std::span<const SharedUnit> units, Money total) {
    assert(surfaces >= 1);
    CostShares s;
    s.consumed.assign(static_cast<std::size_t>(surfaces), 0);
    for (const SharedUnit& u : units) {
        double all = 0;
        for (const auto& [who, amount] : u.taken) all += amount;
        if (all <= 0) continue;
        for (const auto& [who, amount] : u.taken)
            s.consumed[static_cast<std::size_t>(who)] += std::max(u.size, all) * amount / all;
    }
    s.share = inParts(total, s.consumed);
    return s;
}

} // namespace westrum
