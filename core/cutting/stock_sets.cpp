#include "core/cutting/stock_sets.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {

namespace {

constexpr double kTolerance = 1e-6; // of the whole need: what sums of doubles can tell apart
constexpr double kCostFuzz = 1e-9;
constexpr std::int64_t kMostSteps = 3'000'000;

} // namespace

bool StockCut::allows(const StockSet& set) const {
    double have = 0;
    for (std::size_t kind = 0; kind < set.size(); ++kind) have += value[kind] * set[kind];
    return have >= need - kTolerance * std::max(1.0, need);
}

StockSets::StockSets(std::vector<double> price, std::vector<double> size, std::vector<int> most)
    : price_(std::move(price)), most_(std::move(most)) {
    for (std::size_t k = 0; k < price_.size(); ++k)
        if (price_[k] > 0) paid_.push_back(k);
    // The dearest for their size first: the cheap ones then fill up what is missing.
    std::sort(paid_.begin(), paid_.end(),
              [&](std::size_t a, std::size_t b) { return price_[a] / size[a] > price_[b] / size[b]; });
}

bool StockSets::complete() const { return steps_ < kMostSteps; }

double StockSets::costOf(const StockSet& set) const {
    double cost = 0;
    for (std::size_t k = 0; k < set.size(); ++k) cost += price_[k] * set[k];
    return cost;
}

std::optional<StockSet> StockSets::cheapest(double below) {
    best_ = below;
    found_.reset();
    steps_ = 0;
    current_.assign(price_.size(), 0);
    std::vector<double> need;
    for (const StockCut& cut : cuts) need.push_back(cut.need - kTolerance * std::max(1.0, cut.need));
    for (std::size_t k = 0; k < current_.size(); ++k)
        if (price_[k] <= 0) {
            current_[k] = most_[k];
            for (std::size_t c = 0; c < cuts.size(); ++c) need[c] -= cuts[c].value[k] * current_[k];
        }
    look(0, 0, need);
    return found_;
}

void StockSets::look(std::size_t place, double cost, const std::vector<double>& need) {
    if (++steps_ >= kMostSteps) return;
    if (place == paid_.size()) {
        if (std::any_of(need.begin(), need.end(), [](double n) { return n > 0; })) return;
        for (const StockSet& set : tried)
            if (std::equal(current_.begin(), current_.end(), set.begin(), [](int a, int b) { return a <= b; })) return;
        best_ = cost;
        found_ = current_;
        return;
    }
    // What the kinds from here on must cost at least.
    for (std::size_t c = 0; c < need.size(); ++c) {
        if (need[c] <= 0) continue;
        double rate = std::numeric_limits<double>::infinity();
        for (std::size_t p = place; p < paid_.size(); ++p)
            if (cuts[c].value[paid_[p]] > 0) rate = std::min(rate, price_[paid_[p]] / cuts[c].value[paid_[p]]);
        if (cost + need[c] * rate >= best_ - kCostFuzz) return;
    }
    const std::size_t kind = paid_[place];
    int n = 0;
    if (place + 1 == paid_.size())
        for (std::size_t c = 0; c < need.size(); ++c)
            if (need[c] > 0) {
                if (cuts[c].value[kind] <= 0) return;
                n = std::max(n, int(std::min(1e6, std::ceil(need[c] / cuts[c].value[kind] - 1e-9))));
            }
    std::vector<double> rest(need.size());
    for (; n <= most_[kind] && cost + n * price_[kind] < best_ - kCostFuzz; ++n) {
        current_[kind] = n;
        for (std::size_t c = 0; c < need.size(); ++c) rest[c] = need[c] - n * cuts[c].value[kind];
        look(place + 1, cost + n * price_[kind], rest);
        if (steps_ >= kMostSteps) break;
    }
    current_[kind] = 0;
}

} // namespace westrum
