#pragma once

#include <cstdint>
#include <optional>
#include <vector>

namespace westrum {

/// So many items of each kind of stock.
using StockSet = std::vector<int>;

/// Any set of stock that can carry all pieces satisfies  sum of value[kind] * set[kind] >= need.
struct StockCut {
    std::vector<double> value;
    double need{};
    [[nodiscard]] bool allows(const StockSet& set) const;
};

/// Lists sets of stock in order of cost, leaving out those that an inequality rules out.
class StockSets {
public:
    /// @param price  by kind; what costs nothing is always in the set, as many as there are
    /// @param size   by kind, any measure of what an item carries: only steers the search
    /// @param most   by kind
    StockSets(std::vector<double> price, std::vector<double> size, std::vector<int> most);

    std::vector<StockCut> cuts;
    std::vector<StockSet> tried; ///< these, and what is part of them, are not listed again

    /// The cheapest set left that costs less than `below`; none: there is none, if `complete()`.
    std::optional<StockSet> cheapest(double below);

    /// Whether the last search looked everywhere (it gives up after some millions of steps).
    [[nodiscard]] bool complete() const;
    [[nodiscard]] double costOf(const StockSet& set) const;

private:
    void look(std::size_t place, double cost, const std::vector<double>& need);

    std::vector<double> price_;
    std::vector<int> most_;
    std::vector<std::size_t> paid_; // kinds that cost something, dearest for their size first
    StockSet current_;
    double best_ = 0;
    std::optional<StockSet> found_;
    std::int64_t steps_ = 0;
};

} // namespace westrum
