#pragma once

#include <cstdint>
#include <vector>

namespace westrum {

/// Bounded knapsack for every capacity up to a greatest one, by dynamic programming over whole units.
class Knapsack {
public:
    /// @param size      of each kind, > 0
    /// @param most      how many of each kind there are, >= 0
    /// @param capacity  the greatest asked for
    Knapsack(const std::vector<std::int64_t>& size, const std::vector<int>& most, std::int64_t capacity);

    /// Finds the most worth for every capacity; kinds of no worth are left out.
    void fill(const std::vector<double>& worth);

    [[nodiscard]] double best(std::int64_t capacity) const { return best_[std::size_t(capacity)]; }
    /// How many of each kind make that worth.
    [[nodiscard]] std::vector<int> pattern(std::int64_t capacity) const;

private:
    struct Part { // a group of equal pieces that is taken whole, so that counts are bounded in few steps
        std::size_t kind;
        int times;
        std::int64_t size;
    };
    std::size_t kinds_;
    std::vector<Part> parts_;
    std::vector<double> best_;
    std::vector<std::vector<char>> taken_;
};

} // namespace westrum
