#include "core/cutting/sheet_tree.h"

#include <algorithm>

namespace westrum {

SheetTree::SheetTree(std::array<SheetUnits, 2> size, std::size_t kind) : kind_(kind) {
    add({0, 0}, size, -1);
    free_.push_back(0);
}

int SheetTree::add(std::array<SheetUnits, 2> at, std::array<SheetUnits, 2> size, int parent) {
    nodes_.push_back({.at = at, .size = size, .parent = parent});
    return int(nodes_.size()) - 1;
}

void SheetTree::forgetFree(int leaf) { std::erase(free_, leaf); }

void SheetTree::split(int leaf, int axis, SheetUnits width) {
    const auto a = std::size_t(axis);
    const Node node = nodes_[std::size_t(leaf)];
    auto near = node.size;
    near[a] = width;
    auto far = node.size;
    far[a] -= width;
    auto farAt = node.at;
    farAt[a] += width;
    const int first = add(node.at, near, leaf);
    const int second = add(farAt, far, leaf);
    nodes_[std::size_t(leaf)].first = first;
    nodes_[std::size_t(leaf)].second = second;
    nodes_[std::size_t(leaf)].axis = axis;
    forgetFree(leaf);
    free_.push_back(first);
    free_.push_back(second);
}

void SheetTree::pin(int leaf, int item, bool turned) {
    Node& node = nodes_[std::size_t(leaf)];
    node.item = item;
    node.turned = turned;
    node.pinned = true;
    forgetFree(leaf);
    items_.push_back(leaf);
}

void SheetTree::place(int leaf, const std::vector<SheetBlock>& blocks, int block, bool turned, int firstAxis) {
    auto size = blocks[std::size_t(block)].size;
    if (turned) std::swap(size[0], size[1]);
    int node = leaf;
    for (const int axis : {firstAxis, 1 - firstAxis}) {
        if (nodes_[std::size_t(node)].size[std::size_t(axis)] == size[std::size_t(axis)]) continue;
        split(node, axis, size[std::size_t(axis)]);
        node = nodes_[std::size_t(node)].first;
    }
    put(node, blocks, block, turned);
}

void SheetTree::put(int node, const std::vector<SheetBlock>& blocks, int block, bool turned) {
    const SheetBlock& b = blocks[std::size_t(block)];
    if (b.item >= 0) {
        nodes_[std::size_t(node)].item = b.item;
        nodes_[std::size_t(node)].turned = b.turned != turned;
        forgetFree(node);
        items_.push_back(node);
        return;
    }
    const int axis = turned ? 1 - b.axis : b.axis;
    const auto sizeOf = [&](int which) {
        auto size = blocks[std::size_t(which)].size;
        if (turned) std::swap(size[0], size[1]);
        return size;
    };
    split(node, axis, sizeOf(b.first)[std::size_t(axis)]);
    for (const int child : {b.first, b.second}) {
        const Node& here = nodes_[std::size_t(node)];
        int part = child == b.first ? here.first : here.second;
        // The narrower of the two leaves a free end beside it.
        for (const int a : {1 - axis, axis})
            if (nodes_[std::size_t(part)].size[std::size_t(a)] > sizeOf(child)[std::size_t(a)]) {
                split(part, a, sizeOf(child)[std::size_t(a)]);
                part = nodes_[std::size_t(part)].first;
            }
        put(part, blocks, child, turned);
    }
}

bool SheetTree::holdsPinned(int node) const {
    const Node& n = nodes_[std::size_t(node)];
    return n.leaf() ? n.pinned : holdsPinned(n.first) || holdsPinned(n.second);
}

void SheetTree::clear(int node, std::vector<int>& out) {
    Node& n = nodes_[std::size_t(node)];
    if (n.leaf()) {
        if (n.item >= 0 && !n.pinned) {
            out.push_back(n.item);
            n.item = -1;
        }
        return;
    }
    clear(n.first, out);
    clear(n.second, out);
    if (!holdsPinned(node)) n.first = n.second = -1;
}

void SheetTree::tidy() {
    std::vector<Node> old;
    old.swap(nodes_);
    free_.clear();
    items_.clear();
    // Copied from the root; a part whose two children are both free becomes one free leaf.
    const auto isFree = [&](const auto& self, int node) -> bool {
        const Node& n = old[std::size_t(node)];
        return n.leaf() ? n.item < 0 : self(self, n.first) && self(self, n.second);
    };
    const auto copy = [&](const auto& self, int node, int parent) -> int {
        const Node& n = old[std::size_t(node)];
        const int here = int(nodes_.size());
        nodes_.push_back(n);
        nodes_.back().parent = parent;
        if (isFree(isFree, node)) {
            nodes_.back().first = nodes_.back().second = -1;
            free_.push_back(here);
        } else if (n.leaf()) {
            items_.push_back(here);
        } else {
            const int first = self(self, n.first, here);
            const int second = self(self, n.second, here);
            nodes_[std::size_t(here)].first = first;
            nodes_[std::size_t(here)].second = second;
        }
        return here;
    };
    copy(copy, 0, -1);
}

} // namespace westrum
