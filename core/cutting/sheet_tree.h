#pragma once

#include <array>
#include <cstdint>
#include <vector>

namespace westrum {

/// Whole units of a millionth of a mm: sums of sizes stay exact. One kerf is added to every piece and every sheet, so
/// that neighbours simply touch.
using SheetUnits = std::int64_t;

struct SheetItem {
    std::array<SheetUnits, 2> size{}; ///< along x, along y
    bool mayTurn = false;
    std::size_t piece{}; ///< place in the problem's list
};

/// An item, or two blocks side by side; cut apart again by one cut right across.
struct SheetBlock {
    std::array<SheetUnits, 2> size{};
    int item = -1;       ///< single item, or -1
    bool turned = false; ///< of a single item, as the block lies
    int first = -1;      ///< blocks joined: `first` nearer to 0, 0
    int second = -1;
    int axis = 0; ///< 0: side by side along x
    bool mayTurn = false;
    SheetUnits itemArea = 0;
};

/// A sheet as a tree of cuts right across.
class SheetTree {
public:
    explicit SheetTree(std::array<SheetUnits, 2> size, std::size_t kind);

    struct Node {
        std::array<SheetUnits, 2> at{};
        std::array<SheetUnits, 2> size{};
        int parent = -1;
        int first = -1; ///< children; none: a leaf
        int second = -1;
        int axis = 0;
        int item = -1; ///< leaf with an item; -1: free
        bool turned = false;
        bool pinned = false; ///< stays whatever happens
        [[nodiscard]] bool leaf() const { return first < 0; }
        [[nodiscard]] bool free() const { return leaf() && item < 0; }
    };

    [[nodiscard]] const std::vector<Node>& nodes() const { return nodes_; }
    [[nodiscard]] std::size_t kind() const { return kind_; }
    [[nodiscard]] const std::vector<int>& freeLeaves() const { return free_; }
    [[nodiscard]] const std::vector<int>& itemLeaves() const { return items_; }

    /// Puts a block into the lower left corner of a free leaf, the rest cut off first along `firstAxis`.
    void place(int leaf, const std::vector<SheetBlock>& blocks, int block, bool turned, int firstAxis);
    /// Splits a free leaf into two free ones, the nearer `width` wide along `axis`.
    void split(int leaf, int axis, SheetUnits width);
    void pin(int leaf, int item, bool turned);
    /// Makes the part under a node free; its items are added to `out`. Nodes with pinned items under them are left.
    void clear(int node, std::vector<int>& out);
    /// Joins free neighbours and lists the leaves anew; to be called after clear().
    void tidy();

private:
    int add(std::array<SheetUnits, 2> at, std::array<SheetUnits, 2> size, int parent);
    void put(int node, const std::vector<SheetBlock>& blocks, int block, bool turned);
    [[nodiscard]] bool holdsPinned(int node) const;
    void forgetFree(int leaf);

    std::vector<Node> nodes_;
    std::vector<int> free_;
    std::vector<int> items_;
    std::size_t kind_;
};

} // namespace westrum
