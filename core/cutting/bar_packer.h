#pragma once

#include "core/cutting/bar_relaxation.h"
#include "core/cutting/effort.h"

#include <functional>
#include <optional>
#include <unordered_set>

namespace westrum {

/// One bar of a packing: its kind and how many of each kind of piece it carries.
struct PackedBar {
    std::size_t kind{};
    std::vector<int> pieces;
};

/// Packs pieces into a given set of bars by depth-first search: the longest piece left must lie in some bar; that bar
/// is filled in every way that wastes no more than what the whole set has to spare; and so on.
class BarPacker {
public:
    /// @param instance  must outlive the packer
    BarPacker(const BarInstance& instance, StockSet bars);

    /// One attempt, in an order shaken by the dice, of at most `most` filled bars, given up when `over()` says so.
    /// None: not found; then `impossible()` says whether that is proved.
    std::optional<std::vector<PackedBar>> attempt(Dice& dice, std::int64_t most, const std::function<bool()>& over);

    [[nodiscard]] bool impossible() const { return impossible_; }

private:
    struct Fill {
        std::vector<int> pieces;
        std::int64_t slack;
        double order;
    };
    bool pack(std::int64_t slack);
    /// Whether the enumeration was complete.
    bool fillsOf(std::size_t kind, std::size_t longest, std::int64_t slack, std::vector<Fill>& fills);
    [[nodiscard]] std::uint64_t state() const;

    const BarInstance* instance_;
    StockSet bars_;
    StockSet left_;
    std::vector<int> demand_;
    std::vector<PackedBar> packed_;
    std::unordered_set<std::uint64_t> dead_;
    std::vector<std::vector<std::uint64_t>> reach_; // by place in the order: sums that pieces from there on can make
    Dice* dice_ = nullptr;
    const std::function<bool()>* over_ = nullptr;
    bool stopped_ = false;
    std::int64_t steps_ = 0;
    std::int64_t most_ = 0;
    bool complete_ = true;
    bool impossible_ = false;
};

} // namespace westrum
