#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/sheet_tree.h"

#include <functional>
#include <optional>
#include <vector>

namespace westrum {

/// A set of sheets, part of it filled, and the items that did not find room.
struct SheetPacking {
    std::vector<SheetTree> sheets;
    std::vector<int> loose; ///< items
};

/// Packs items into a given set of sheets: ruin and recreate over trees of cuts.
class SheetSearch {
public:
    /// @param items   must outlive the search
    /// @param sheets  empty, or with pinned items in them; the other items start loose
    SheetSearch(const std::vector<SheetItem>& items, std::vector<SheetTree> sheets, std::vector<int> loose,
                std::uint64_t seed);

    /// Some rounds; true: everything has found room.
    bool improve(int rounds);

    [[nodiscard]] const SheetPacking& packing() const { return now_; }
    [[nodiscard]] SheetUnits looseArea() const { return looseArea_; }

private:
    struct Style; // how one round places its blocks
    void recreate(SheetPacking& packing, const std::vector<int>& items, const Style& style);
    /// Two blocks side by side along an axis, either of them turned.
    struct Match {
        double waste;
        int a, b, axis;
        bool turnA, turnB;
    };
    Match bestMatch(int a, int b, const Style& style);
    int lyingBlock(int index, bool turn);
    int join(const Match& match);
    std::vector<int> joined(const std::vector<int>& items, const Style& style);
    bool insert(SheetPacking& packing, int block, const Style& style);
    [[nodiscard]] bool fitsSomewhere(const std::array<SheetUnits, 2>& size) const;
    [[nodiscard]] SheetUnits areaOf(const std::vector<int>& items) const;

    const std::vector<SheetItem>* items_;
    std::vector<SheetBlock> blocks_;
    SheetPacking now_;
    SheetUnits looseArea_ = 0;
    double heat_ = 0;
    Dice dice_;
    std::vector<std::array<SheetUnits, 2>> sheetSizes_; // distinct
    SheetUnits usualArea_ = 1;
};

/// A first plan in one go: the largest item first, each where it leaves the least; `open` gives the next sheet when
/// none has room for an item of that size, or none when there is no more.
SheetPacking firstSheets(const std::vector<SheetItem>& items, std::vector<SheetTree> sheets, std::vector<int> loose,
                         const std::function<std::optional<SheetTree>(const SheetItem&)>& open);

} // namespace westrum
