#include "core/cutting/knapsack.h"

#include <algorithm>

namespace westrum {

Knapsack::Knapsack(const std::vector<std::int64_t>& size, const std::vector<int>& most, std::int64_t capacity)
    : kinds_(size.size()), best_(std::size_t(capacity) + 1, 0) {
    for (std::size_t i = 0; i < size.size(); ++i)
        for (int left = int(std::min<std::int64_t>(most[i], capacity / size[i])), step = 1; left > 0; step *= 2) {
            const int times = std::min(left, step);
            parts_.push_back({i, times, size[i] * times});
            left -= times;
        }
    taken_.assign(parts_.size(), std::vector<char>(best_.size(), 0));
}

void Knapsack::fill(const std::vector<double>& worth) {
    std::fill(best_.begin(), best_.end(), 0.0);
    for (std::size_t part = 0; part < parts_.size(); ++part) {
        auto& taken = taken_[part];
        std::fill(taken.begin(), taken.end(), char(0));
        const double gain = worth[parts_[part].kind] * parts_[part].times;
        const auto size = std::size_t(parts_[part].size);
        if (gain <= 0 || size >= best_.size()) continue;
        for (std::size_t c = best_.size(); c-- > size;)
            if (best_[c - size] + gain > best_[c]) {
                best_[c] = best_[c - size] + gain;
                taken[c] = 1;
            }
    }
}

std::vector<int> Knapsack::pattern(std::int64_t capacity) const {
    std::vector<int> pattern(kinds_, 0);
    auto c = std::size_t(capacity);
    for (std::size_t part = parts_.size(); part-- > 0;)
        if (taken_[part][c]) {
            pattern[parts_[part].kind] += parts_[part].times;
            c -= std::size_t(parts_[part].size);
        }
    return pattern;
}

} // namespace westrum
