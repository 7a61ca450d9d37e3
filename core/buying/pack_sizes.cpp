#include "core/buying/pack_sizes.h"

#include "core/units/count.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <tuple>

namespace westrum {
namespace {

constexpr double kGrain = 1e4; ///< amounts are told apart to a ten-thousandth: 0.1 ml of a litre
constexpr std::int64_t kMostSteps = 2'000'000;

/// What a search compares: cheaper, then fewer packs, then more in them.
struct Worth {
    std::int64_t cost = 0;
    int packs = 0;
    std::int64_t amount = 0;
    [[nodiscard]] auto order() const { return std::tuple(cost, packs, -amount); }
    friend bool operator<(const Worth& a, const Worth& b) { return a.order() < b.order(); }
};

} // namespace

int PackChoice::packs() const { return std::accumulate(counts.begin(), counts.end(), 0); }

std::optional<PackChoice> leastCostPacks(double need, std::span<const PackSize> sizes) {
    PackChoice choice;
    choice.counts.assign(sizes.size(), 0);
    const std::int64_t wanted = roundUp(std::max(0.0, need) * kGrain - 1e-4);
    if (wanted <= 0) return choice;
    std::vector<std::int64_t> amounts;
    std::int64_t grain = 0;
    for (const PackSize& s : sizes) {
        amounts.push_back(std::llround(s.amount * kGrain));
        if (amounts.back() > 0) grain = std::gcd(grain, amounts.back());
    }
    if (grain == 0) return std::nullopt;
    // Of a need far beyond any pack the bulk comes in packs of the cheapest kind: what is left to decide is no more
    // than the largest pack times the steps of that kind, since so many others could be exchanged for it at a gain.
    std::int64_t steps = (wanted + grain - 1) / grain;
    std::size_t cheapest = sizes.size();
    for (std::size_t i = 0; i < sizes.size(); ++i)
        if (amounts[i] > 0 && (cheapest == sizes.size() ||
                               static_cast<double>(sizes[i].priceMinor) * static_cast<double>(amounts[cheapest]) <
                                   static_cast<double>(sizes[cheapest].priceMinor) * static_cast<double>(amounts[i])))
            cheapest = i;
    const std::int64_t kind = amounts[cheapest] / grain;
    const std::int64_t largest = *std::max_element(amounts.begin(), amounts.end()) / grain;
    if (const std::int64_t open = (kind + 1) * largest; steps > open) {
        const std::int64_t bulk = (steps - open) / kind;
        choice.counts[cheapest] = static_cast<int>(std::min<std::int64_t>(bulk, 1'000'000'000));
        steps -= bulk * kind;
    }
    if (steps > kMostSteps) return std::nullopt;
    // best[u]: the least that brings u steps or more.
    const auto n = static_cast<std::size_t>(steps);
    std::vector<std::optional<Worth>> best(n + 1);
    std::vector<std::vector<int>> taken(sizes.size(), std::vector<int>(n + 1, 0));
    best[0] = Worth{};
    for (std::size_t i = 0; i < sizes.size(); ++i) {
        if (amounts[i] <= 0) continue;
        const auto size = static_cast<std::size_t>(amounts[i] / grain);
        for (std::size_t u = 1; u <= n; ++u) {
            const std::size_t from = u > size ? u - size : 0;
            if (!best[from]) continue;
            const Worth w{best[from]->cost + sizes[i].priceMinor, best[from]->packs + 1,
                          best[from]->amount + amounts[i]};
            if (best[u] && !(w < *best[u])) continue;
            best[u] = w;
            taken[i][u] = taken[i][from] + 1;
        }
    }
    if (!best[n]) return std::nullopt;
    std::size_t at = n;
    for (std::size_t i = sizes.size(); i-- > 0;) {
        if (amounts[i] <= 0) continue;
        const auto size = static_cast<std::size_t>(amounts[i] / grain);
        const int k = taken[i][at];
        choice.counts[i] += k;
        for (int j = 0; j < k; ++j) at = at > size ? at - size : 0;
    }
    for (std::size_t i = 0; i < sizes.size(); ++i) {
        choice.amount += sizes[i].amount * choice.counts[i];
        choice.costMinor += sizes[i].priceMinor * choice.counts[i];
    }
    return choice;
}

} // namespace westrum
