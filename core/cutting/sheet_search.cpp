#include "core/cutting/sheet_search.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {

namespace {

constexpr double kNowhere = std::numeric_limits<double>::infinity();

double areaOf(const std::array<SheetUnits, 2>& size) { return double(size[0]) * double(size[1]); }

SheetBlock single(const SheetItem& item, int index) {
    return {.size = item.size, .item = index, .mayTurn = item.mayTurn, .itemArea = SheetUnits(areaOf(item.size) / 1e6)};
}

enum class Fit { ShortSide, LongSide, Area, Corner };

/// How badly a block of a size lies in a free part; the less the better.
double leftBeside(const std::array<SheetUnits, 2>& part, const std::array<SheetUnits, 2>& size, Fit fit) {
    const double dx = double(part[0] - size[0]);
    const double dy = double(part[1] - size[1]);
    if (dx < 0 || dy < 0) return kNowhere;
    switch (fit) {
    case Fit::ShortSide: return std::min(dx, dy);
    case Fit::LongSide: return std::max(dx, dy);
    case Fit::Area: return (areaOf(part) - areaOf(size)) / 1e6;
    case Fit::Corner: return std::min(dx, dy) == 0 ? std::max(dx, dy) * 1e-3 : areaOf(part) / 1e6;
    }
    return kNowhere;
}

} // namespace

struct SheetSearch::Style {
    Fit fit = Fit::ShortSide;
    int cutting = 0;  // 0: the cut that leaves the larger part whole; 1: the shorter cut; 2: by chance
    int order = 0;    // 0: by area; 1: by longer side; 2: by shorter side; 3: by chance
    double shake = 0; // of the order
    double join = -1; // waste, as a share, up to which blocks are joined beforehand; below 0: none are
    double pass = 0;  // chance that a free part is passed over
};

SheetSearch::SheetSearch(const std::vector<SheetItem>& items, std::vector<SheetTree> sheets, std::vector<int> loose,
                         std::uint64_t seed)
    : items_(&items), dice_(seed) {
    double area = 0;
    for (const int i : loose) area += ::westrum::areaOf(items[std::size_t(i)].size) / 1e6;
    usualArea_ = SheetUnits(area / std::max(1.0, double(loose.size())));
    for (const SheetTree& sheet : sheets) {
        const auto size = sheet.nodes().front().size;
        if (std::find(sheetSizes_.begin(), sheetSizes_.end(), size) == sheetSizes_.end()) sheetSizes_.push_back(size);
    }
    now_ = {std::move(sheets), std::move(loose)};
    looseArea_ = areaOf(now_.loose);
    heat_ = double(usualArea_) * 0.5;
}

SheetUnits SheetSearch::areaOf(const std::vector<int>& items) const {
    double area = 0;
    for (const int i : items) area += ::westrum::areaOf((*items_)[std::size_t(i)].size) / 1e6;
    return SheetUnits(area);
}

bool SheetSearch::fitsSomewhere(const std::array<SheetUnits, 2>& size) const {
    return std::any_of(sheetSizes_.begin(), sheetSizes_.end(),
                       [&](const auto& sheet) { return size[0] <= sheet[0] && size[1] <= sheet[1]; });
}

/// The way in which two blocks match best side by side; waste kNowhere: in none.
SheetSearch::Match SheetSearch::bestMatch(int a, int b, const Style& style) {
    Match best{kNowhere, a, b, 0, false, false};
    const SheetBlock& A = blocks_[std::size_t(a)];
    const SheetBlock& B = blocks_[std::size_t(b)];
    for (int turnA = 0; turnA <= int(A.mayTurn); ++turnA)
        for (int turnB = 0; turnB <= int(B.mayTurn); ++turnB)
            for (int axis = 0; axis < 2; ++axis) {
                const auto sa = std::size_t(turnA ? 1 - axis : axis);
                const auto sb = std::size_t(turnB ? 1 - axis : axis);
                const SheetUnits across = std::max(A.size[1 - sa], B.size[1 - sb]);
                const double area = double(A.size[sa] + B.size[sb]) * double(across);
                const double waste = 1 - double(A.itemArea + B.itemArea) * 1e6 / area;
                if (waste > style.join + 1e-12) continue;
                std::array<SheetUnits, 2> size{A.size[sa] + B.size[sb], across};
                if (axis == 1) std::swap(size[0], size[1]);
                if (!fitsSomewhere(size) && !(A.mayTurn && B.mayTurn && fitsSomewhere({size[1], size[0]}))) continue;
                const double shaken =
                    waste + (style.join > 1e-9 ? dice_.unit() * style.join * 0.5 : 0) + dice_.unit() * 1e-9;
                if (shaken < best.waste) best = {shaken, a, b, axis, turnA != 0, turnB != 0};
            }
    return best;
}

/// A block as it is, or turned with all its parts as a block of its own, so that the joined one lies as its parts do.
int SheetSearch::lyingBlock(int index, bool turn) {
    if (!turn) return index;
    SheetBlock turned = blocks_[std::size_t(index)];
    std::swap(turned.size[0], turned.size[1]);
    turned.turned = !turned.turned;
    turned.axis = 1 - turned.axis;
    if (turned.item < 0) {
        turned.first = lyingBlock(turned.first, true);
        turned.second = lyingBlock(turned.second, true);
    }
    blocks_.push_back(turned);
    return int(blocks_.size()) - 1;
}

int SheetSearch::join(const Match& m) {
    const int a = lyingBlock(m.a, m.turnA), b = lyingBlock(m.b, m.turnB);
    const SheetBlock &A = blocks_[std::size_t(a)], &B = blocks_[std::size_t(b)];
    SheetBlock both;
    const auto axis = std::size_t(m.axis);
    both.size[axis] = A.size[axis] + B.size[axis];
    both.size[1 - axis] = std::max(A.size[1 - axis], B.size[1 - axis]);
    both.first = a;
    both.second = b;
    both.axis = m.axis;
    both.mayTurn = A.mayTurn && B.mayTurn;
    both.itemArea = A.itemArea + B.itemArea;
    blocks_.push_back(both);
    return int(blocks_.size()) - 1;
}

std::vector<int> SheetSearch::joined(const std::vector<int>& items, const Style& style) {
    std::vector<int> list;
    blocks_.clear();
    for (const int i : items) {
        blocks_.push_back(single((*items_)[std::size_t(i)], i));
        list.push_back(int(blocks_.size()) - 1);
    }
    if (style.join < 0) return list;
    // Again and again the two blocks that match best side by side become one.
    std::vector<Match> matches;
    for (std::size_t i = 0; i < list.size(); ++i)
        for (std::size_t j = i + 1; j < list.size(); ++j)
            if (const Match m = bestMatch(list[i], list[j], style); m.waste < kNowhere) matches.push_back(m);
    while (!matches.empty()) {
        const Match m = *std::min_element(matches.begin(), matches.end(),
                                          [](const Match& x, const Match& y) { return x.waste < y.waste; });
        const int joint = join(m);
        std::erase_if(list, [&](int i) { return i == m.a || i == m.b; });
        std::erase_if(matches, [&](const Match& q) { return q.a == m.a || q.b == m.a || q.a == m.b || q.b == m.b; });
        for (const int other : list)
            if (const Match q = bestMatch(other, joint, style); q.waste < kNowhere) matches.push_back(q);
        list.push_back(joint);
    }
    return list;
}

bool SheetSearch::insert(SheetPacking& packing, int block, const Style& style) {
    const SheetBlock& b = blocks_[std::size_t(block)];
    double best = kNowhere;
    std::size_t bestSheet = 0;
    int bestLeaf = -1;
    bool bestTurn = false;
    for (std::size_t s = 0; s < packing.sheets.size(); ++s) {
        const SheetTree& sheet = packing.sheets[s];
        for (const int leaf : sheet.freeLeaves()) {
            if (style.pass > 0 && dice_.unit() < style.pass) continue;
            const auto& part = sheet.nodes()[std::size_t(leaf)].size;
            for (int turn = 0; turn <= int(b.mayTurn); ++turn) {
                const double left =
                    leftBeside(part, turn ? std::array<SheetUnits, 2>{b.size[1], b.size[0]} : b.size, style.fit);
                if (left < best) {
                    best = left;
                    bestSheet = s;
                    bestLeaf = leaf;
                    bestTurn = turn != 0;
                }
            }
        }
    }
    if (bestLeaf < 0) return false;
    SheetTree& sheet = packing.sheets[bestSheet];
    const auto part = sheet.nodes()[std::size_t(bestLeaf)].size;
    const double w = double(b.size[bestTurn ? 1 : 0]);
    const double h = double(b.size[bestTurn ? 0 : 1]);
    const double dx = double(part[0]) - w;
    const double dy = double(part[1]) - h;
    // Cutting along x's axis 0 first leaves the right part at full height.
    int axis = 0;
    if (style.cutting == 0)
        axis = std::max(dx * double(part[1]), w * dy) >= std::max(dy * double(part[0]), h * dx) ? 0 : 1;
    else if (style.cutting == 1)
        axis = part[1] <= part[0] ? 0 : 1;
    else
        axis = dice_.unit() < 0.5 ? 0 : 1;
    sheet.place(bestLeaf, blocks_, block, bestTurn, axis);
    return true;
}

void SheetSearch::recreate(SheetPacking& packing, const std::vector<int>& items, const Style& style) {
    std::vector<int> list = joined(items, style);
    std::vector<std::pair<double, int>> order;
    for (const int block : list) {
        const auto& size = blocks_[std::size_t(block)].size;
        double key = 0;
        switch (style.order) {
        case 0: key = ::westrum::areaOf(size); break;
        case 1: key = double(std::max(size[0], size[1])); break;
        case 2: key = double(std::min(size[0], size[1])); break;
        default: key = dice_.unit(); break;
        }
        order.push_back({key * (1 + style.shake * (dice_.unit() - 0.5)), block});
    }
    std::sort(order.begin(), order.end(), [](const auto& a, const auto& b) {
        return a.first != b.first ? a.first > b.first : a.second < b.second;
    });
    const auto put = [&](const auto& self, int block) -> void {
        if (insert(packing, block, style)) return;
        const SheetBlock b = blocks_[std::size_t(block)];
        if (b.item >= 0) {
            packing.loose.push_back(b.item);
            return;
        }
        const bool swap = blocks_[std::size_t(b.first)].itemArea < blocks_[std::size_t(b.second)].itemArea;
        self(self, swap ? b.second : b.first);
        self(self, swap ? b.first : b.second);
    };
    for (const auto& [key, block] : order) put(put, block);
}

bool SheetSearch::improve(int rounds) {
    for (int round = 0; round < rounds && !now_.loose.empty(); ++round) {
        SheetPacking next = now_;
        std::vector<int> free = next.loose;
        next.loose.clear();
        // Ruin: a part of one sheet, often of two; now and then everything.
        const double much = dice_.unit();
        if (much < 0.03) {
            for (SheetTree& sheet : next.sheets) {
                sheet.clear(0, free);
                sheet.tidy();
            }
        } else {
            const int parts = much < 0.45 ? 1 : much < 0.9 ? 2 : 3;
            for (int n = 0; n < parts; ++n) {
                SheetTree& sheet = next.sheets[dice_.below(next.sheets.size())];
                if (sheet.itemLeaves().empty()) continue;
                int node = sheet.itemLeaves()[dice_.below(sheet.itemLeaves().size())];
                if (sheet.nodes()[std::size_t(node)].pinned) continue;
                while (sheet.nodes()[std::size_t(node)].parent >= 0 && dice_.unit() < 0.75)
                    node = sheet.nodes()[std::size_t(node)].parent;
                sheet.clear(node, free);
                sheet.tidy();
            }
        }
        Style style;
        style.fit = std::array{Fit::ShortSide, Fit::ShortSide, Fit::LongSide, Fit::Area, Fit::Corner}[dice_.below(5)];
        style.cutting = int(dice_.below(3));
        style.order = std::array{0, 0, 1, 1, 2, 3}[dice_.below(6)];
        style.shake = std::array{0.0, 0.2, 0.5, 1.0}[dice_.below(4)];
        style.pass = std::array{0.0, 0.0, 0.05, 0.15}[dice_.below(4)];
        style.join = std::array{-1.0, 0.0, 0.0, 0.01, 0.03, 0.06}[dice_.below(6)];
        if (free.size() > 120) style.join = -1; // joining looks at all pairs
        recreate(next, free, style);
        const SheetUnits area = areaOf(next.loose);
        // Threshold that cools and is heated again: a little worse is taken now and then.
        heat_ *= 0.9995;
        if (heat_ < double(usualArea_) * 0.01) heat_ = double(usualArea_) * 0.7;
        if (double(area) <= double(looseArea_) + heat_ * dice_.unit()) {
            now_ = std::move(next);
            looseArea_ = area;
        }
    }
    return now_.loose.empty();
}

SheetPacking firstSheets(const std::vector<SheetItem>& items, std::vector<SheetTree> sheets, std::vector<int> loose,
                         const std::function<std::optional<SheetTree>(const SheetItem&)>& open) {
    std::sort(loose.begin(), loose.end(), [&](int a, int b) {
        const double x = areaOf(items[std::size_t(a)].size);
        const double y = areaOf(items[std::size_t(b)].size);
        return x != y ? x > y : a < b;
    });
    SheetPacking packing{std::move(sheets), {}};
    std::vector<SheetBlock> blocks(1);
    std::size_t firstWithRoom = 0;
    for (const int i : loose) {
        const SheetItem& item = items[std::size_t(i)];
        blocks[0] = single(item, i);
        double best = kNowhere;
        std::size_t bestSheet = 0;
        int bestLeaf = -1;
        bool bestTurn = false;
        const auto look = [&](std::size_t s) {
            for (const int leaf : packing.sheets[s].freeLeaves())
                for (int turn = 0; turn <= int(item.mayTurn); ++turn) {
                    const auto size = turn ? std::array<SheetUnits, 2>{item.size[1], item.size[0]} : item.size;
                    const double left =
                        leftBeside(packing.sheets[s].nodes()[std::size_t(leaf)].size, size, Fit::ShortSide);
                    if (left < best) {
                        best = left;
                        bestSheet = s;
                        bestLeaf = leaf;
                        bestTurn = turn != 0;
                    }
                }
        };
        for (std::size_t s = firstWithRoom; s < packing.sheets.size(); ++s) look(s);
        if (bestLeaf < 0) {
            if (auto sheet = open(item)) {
                packing.sheets.push_back(std::move(*sheet));
                look(packing.sheets.size() - 1);
                // With very many sheets only the last ones are looked into.
                if (packing.sheets.size() - firstWithRoom > 60) ++firstWithRoom;
            }
        }
        if (bestLeaf < 0) {
            packing.loose.push_back(i);
            continue;
        }
        const auto part = packing.sheets[bestSheet].nodes()[std::size_t(bestLeaf)].size;
        const auto size = bestTurn ? std::array<SheetUnits, 2>{item.size[1], item.size[0]} : item.size;
        const int axis =
            double(part[0] - size[0]) * double(part[1]) >= double(part[1] - size[1]) * double(part[0]) ? 0 : 1;
        packing.sheets[bestSheet].place(bestLeaf, blocks, 0, bestTurn, axis);
    }
    return packing;
}

} // namespace westrum
