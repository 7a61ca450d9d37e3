#pragma once

#include "core/cutting/knapsack.h"
#include "core/cutting/stock_sets.h"

#include <cstdint>
#include <optional>
#include <vector>

namespace westrum {

/// A length-cutting problem in whole units, one kerf added to every piece and every bar, so that pieces fit a bar if
/// their sizes sum to no more than its capacity.
struct BarInstance {
    std::vector<std::int64_t> capacity; ///< by kind of bar
    std::vector<std::int64_t> size;     ///< by kind of piece, falling, all > 0
    std::vector<int> demand;            ///< by kind of piece
};

/// The inequality of the pieces' sizes: capacities must sum to at least the sizes.
StockCut sizeCut(const BarInstance& instance);

/// Decides whether the pieces fit a set of bars if patterns may be used in fractions.
class BarRelaxation {
public:
    explicit BarRelaxation(const BarInstance& instance);

    /// None: they fit in fractions. Otherwise an inequality that this set of bars breaks. It holds for every set
    /// whatever the prices it was made from: `value` is the most worth that one bar can carry (a bounded knapsack),
    /// `need` the worth of all pieces.
    std::optional<StockCut> cutAgainst(const StockSet& bars);

    /// A bar's filling, by kind of piece, and how often the last solution used it.
    struct Column {
        std::size_t bar;
        std::vector<int> pattern;
        double times = 0;
    };
    /// All fillings met so far. `times` is that of the last set that was found to fit, else of no meaning.
    [[nodiscard]] const std::vector<Column>& columns() const { return columns_; }
    /// Fillings to start from, found for a problem with the same kinds; those that do not fit the demand are left out.
    void startWith(const std::vector<Column>& columns);

private:
    const BarInstance& instance_;
    std::vector<Column> columns_;
    Knapsack knapsack_;
};

} // namespace westrum
