#include "core/cutting/sheets.h"

#include "core/cutting/sheet_bound.h"
#include "core/cutting/sheet_search.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace westrum {

namespace {

constexpr double kUnitsPerMm = 1e6;
constexpr double kFuzzMm = 1e-6;
constexpr double kCostFuzz = 1e-9;

SheetUnits units(double mm) { return SheetUnits(std::llround(mm * kUnitsPerMm)); }
double mmOf(SheetUnits units) { return double(units) / kUnitsPerMm; }

bool positive(double value) { return std::isfinite(value) && value > 0; }
bool notNegative(double value) { return std::isfinite(value) && value >= 0; }

struct Rectangle {
    double x, y, w, h;
    std::size_t place; // in the sheet's list
    [[nodiscard]] double low(int axis) const { return axis == 0 ? x : y; }
    [[nodiscard]] double size(int axis) const { return axis == 0 ? w : h; }
    [[nodiscard]] double high(int axis) const { return low(axis) + size(axis); }
};

std::vector<Rectangle> rectanglesOf(const SheetsProblem& problem, const CutSheet& sheet) {
    std::vector<Rectangle> list;
    for (std::size_t i = 0; i < sheet.pieces.size(); ++i) {
        const PlacedRectangle& placed = sheet.pieces[i];
        const SheetPiece& piece = problem.pieces[placed.piece];
        const double w = placed.turned ? piece.heightMm : piece.widthMm;
        const double h = placed.turned ? piece.widthMm : piece.heightMm;
        list.push_back({placed.x, placed.y, w, h, i});
    }
    return list;
}

/// The groups that cuts right across one axis part the rectangles into, from the low side.
std::vector<std::vector<Rectangle>> groupsAlong(std::vector<Rectangle> rectangles, int axis, double kerf) {
    std::sort(rectangles.begin(), rectangles.end(), [axis](const Rectangle& a, const Rectangle& b) {
        return a.low(axis) != b.low(axis) ? a.low(axis) < b.low(axis) : a.place < b.place;
    });
    std::vector<std::vector<Rectangle>> groups;
    double edge = -std::numeric_limits<double>::infinity();
    for (const Rectangle& r : rectangles) {
        if (groups.empty() || r.low(axis) >= edge + kerf - kFuzzMm) groups.emplace_back();
        groups.back().push_back(r);
        edge = std::max(edge, r.high(axis));
    }
    return groups;
}

bool comesApart(const std::vector<Rectangle>& rectangles, double kerf) {
    if (rectangles.size() <= 1) return true;
    for (const int axis : {0, 1}) {
        const auto groups = groupsAlong(rectangles, axis, kerf);
        if (groups.size() > 1)
            return std::all_of(groups.begin(), groups.end(), [&](const auto& g) { return comesApart(g, kerf); });
    }
    return false;
}

std::array<double, 2> usable(const SheetsProblem& problem, std::size_t stock) {
    return {problem.stock[stock].widthMm - 2 * problem.edgeTrimMm,
            problem.stock[stock].heightMm - 2 * problem.edgeTrimMm};
}

/// Everything of a problem that the search needs, in units.
struct Scaled {
    std::vector<SheetItem> items; ///< one for each piece that is not fixed, then the pinned ones
    std::vector<int> loose;
    std::vector<std::array<SheetUnits, 2>> size; ///< by kind of stock, kerf added
    std::vector<SheetTree> pinned;
    std::vector<std::size_t> pinnedSheet; ///< place in `fixed`
};

/// Cuts the free part round the pinned rectangles, so that it still comes apart.
void cutRound(SheetTree& tree, int leaf, const std::vector<Rectangle>& rectangles, const SheetsProblem& problem,
              const CutSheet& sheet, std::vector<SheetItem>& items) {
    const auto node = [&](int i) -> const SheetTree::Node& { return tree.nodes()[std::size_t(i)]; };
    const SheetUnits kerf = units(problem.kerfMm);
    const SheetUnits trim = units(problem.edgeTrimMm);
    const auto low = [&](const Rectangle& r, int axis) { return units(r.low(axis)) - trim; };
    if (rectangles.empty()) return;
    if (rectangles.size() == 1) {
        const Rectangle& r = rectangles.front();
        // What lies before and behind the piece along both axes is cut off; the longer side is kept whole.
        for (const int axis : {0, 1}) {
            const auto a = std::size_t(axis);
            const SheetUnits before = low(r, axis) - node(leaf).at[a];
            if (before > 0) {
                tree.split(leaf, axis, before);
                leaf = node(leaf).second;
            }
            const SheetUnits wide = units(r.size(axis)) + kerf;
            if (node(leaf).size[a] > wide) {
                tree.split(leaf, axis, wide);
                leaf = node(leaf).first;
            }
        }
        const PlacedRectangle& placed = sheet.pieces[r.place];
        const SheetPiece& piece = problem.pieces[placed.piece];
        items.push_back({{units(piece.widthMm) + kerf, units(piece.heightMm) + kerf}, piece.mayTurn, placed.piece});
        tree.pin(leaf, int(items.size()) - 1, placed.turned);
        return;
    }
    for (const int axis : {0, 1}) {
        const auto groups = groupsAlong(rectangles, axis, problem.kerfMm);
        if (groups.size() < 2) continue;
        for (std::size_t g = 0; g < groups.size(); ++g) {
            int part = leaf;
            if (g + 1 < groups.size()) {
                SheetUnits next = std::numeric_limits<SheetUnits>::max();
                for (const Rectangle& r : groups[g + 1]) next = std::min(next, low(r, axis));
                tree.split(leaf, axis, next - node(leaf).at[std::size_t(axis)]);
                part = node(leaf).first;
                leaf = node(leaf).second;
            }
            cutRound(tree, part, groups[g], problem, sheet, items);
        }
        return;
    }
}

Scaled scale(const SheetsProblem& problem) {
    Scaled scaled;
    const SheetUnits kerf = units(problem.kerfMm);
    std::vector<int> count;
    for (const SheetPiece& piece : problem.pieces) count.push_back(piece.count);
    for (const CutSheet& sheet : problem.fixed)
        for (const PlacedRectangle& placed : sheet.pieces) --count[placed.piece];
    for (std::size_t i = 0; i < problem.pieces.size(); ++i)
        for (int n = 0; n < count[i]; ++n) {
            const SheetPiece& piece = problem.pieces[i];
            scaled.loose.push_back(int(scaled.items.size()));
            scaled.items.push_back({{units(piece.widthMm) + kerf, units(piece.heightMm) + kerf},
                                    piece.mayTurn && piece.widthMm != piece.heightMm,
                                    i});
        }
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const auto room = usable(problem, s);
        scaled.size.push_back({units(room[0]) + kerf, units(room[1]) + kerf});
    }
    for (std::size_t f = 0; f < problem.fixed.size(); ++f) {
        const CutSheet& sheet = problem.fixed[f];
        if (sheet.locked) continue;
        SheetTree tree(scaled.size[sheet.stock], sheet.stock);
        cutRound(tree, 0, rectanglesOf(problem, sheet), problem, sheet, scaled.items);
        scaled.pinned.push_back(std::move(tree));
        scaled.pinnedSheet.push_back(f);
    }
    return scaled;
}

SheetsPlan planOf(const SheetsProblem& problem, const Scaled& scaled, const SheetPacking& packing) {
    SheetsPlan plan;
    plan.sheets = problem.fixed;
    std::size_t pinned = 0;
    for (const SheetTree& tree : packing.sheets) {
        const bool fixed = pinned < scaled.pinnedSheet.size();
        CutSheet sheet{.stock = tree.kind()};
        for (const int leaf : tree.itemLeaves()) {
            const SheetTree::Node& node = tree.nodes()[std::size_t(leaf)];
            if (node.pinned) continue;
            sheet.pieces.push_back({scaled.items[std::size_t(node.item)].piece, mmOf(node.at[0]) + problem.edgeTrimMm,
                                    mmOf(node.at[1]) + problem.edgeTrimMm, node.turned});
        }
        std::sort(sheet.pieces.begin(), sheet.pieces.end(), [](const PlacedRectangle& a, const PlacedRectangle& b) {
            return a.x != b.x ? a.x < b.x : a.y < b.y;
        });
        if (fixed) {
            auto& into = plan.sheets[scaled.pinnedSheet[pinned++]].pieces;
            into.insert(into.end(), sheet.pieces.begin(), sheet.pieces.end());
        } else if (!sheet.pieces.empty()) {
            plan.sheets.push_back(std::move(sheet));
        }
    }
    for (const CutSheet& sheet : plan.sheets) plan.cost += problem.stock[sheet.stock].price;
    for (const int i : packing.loose) plan.unplaced.push_back(scaled.items[std::size_t(i)].piece);
    return plan;
}

} // namespace

CuttingFaults faultsOf(const SheetsProblem& problem) {
    CuttingFaults faults;
    if (problem.pieces.empty()) faults.push_back({CuttingFault::NoPieces});
    if (problem.stock.empty()) faults.push_back({CuttingFault::NoStock});
    for (const double allowance : {problem.kerfMm, problem.edgeTrimMm})
        if (!notNegative(allowance) || allowance > kAbsurdCutMm) {
            faults.push_back({CuttingFault::KerfNegative});
            break;
        }
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const SheetStock& stock = problem.stock[s];
        if (!positive(stock.widthMm) || !positive(stock.heightMm))
            faults.push_back({CuttingFault::StockNotPositive, s});
        else if (std::max(stock.widthMm, stock.heightMm) > kAbsurdCutMm)
            faults.push_back({CuttingFault::StockAbsurd, s});
        else if (const auto room = usable(problem, s); room[0] <= 0 || room[1] <= 0)
            faults.push_back({CuttingFault::TrimEatsStock, s});
        if (!notNegative(stock.price)) faults.push_back({CuttingFault::StockPriceNegative, s});
    }
    std::size_t pieces = 0;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        const SheetPiece& piece = problem.pieces[i];
        if (piece.count < 0)
            faults.push_back({CuttingFault::PieceCountNegative, i});
        else
            pieces += std::size_t(piece.count);
        if (!positive(piece.widthMm) || !positive(piece.heightMm))
            faults.push_back({CuttingFault::PieceNotPositive, i});
        else if (std::max(piece.widthMm, piece.heightMm) > kAbsurdCutMm)
            faults.push_back({CuttingFault::PieceAbsurd, i});
        else if (!problem.stock.empty()) {
            bool fits = false;
            for (std::size_t s = 0; s < problem.stock.size(); ++s) {
                if (problem.stock[s].count.value_or(1) <= 0) continue;
                const auto room = usable(problem, s);
                const auto lies = [&](double w, double h) { return w <= room[0] + kFuzzMm && h <= room[1] + kFuzzMm; };
                fits = fits || lies(piece.widthMm, piece.heightMm) ||
                       (piece.mayTurn && lies(piece.heightMm, piece.widthMm));
            }
            if (!fits) faults.push_back({CuttingFault::PieceTooLarge, i});
        }
    }
    if (pieces > kMostPieces) faults.push_back({CuttingFault::PieceTooMany});
    if (!faults.empty()) return faults;
    std::vector<int> stockUsed(problem.stock.size(), 0);
    std::vector<int> pieceUsed(problem.pieces.size(), 0);
    for (std::size_t f = 0; f < problem.fixed.size(); ++f) {
        const CutSheet& sheet = problem.fixed[f];
        bool known = sheet.stock < problem.stock.size();
        if (known) {
            const auto& count = problem.stock[sheet.stock].count;
            known = ++stockUsed[sheet.stock] <= count.value_or(std::numeric_limits<int>::max());
        }
        for (const PlacedRectangle& placed : sheet.pieces)
            known = known && placed.piece < problem.pieces.size() &&
                    ++pieceUsed[placed.piece] <= problem.pieces[placed.piece].count && std::isfinite(placed.x) &&
                    std::isfinite(placed.y);
        if (!known) {
            faults.push_back({CuttingFault::LockedUnknown, f});
            continue;
        }
        const auto room = usable(problem, sheet.stock);
        const auto rectangles = rectanglesOf(problem, sheet);
        const bool inside = std::all_of(rectangles.begin(), rectangles.end(), [&](const Rectangle& r) {
            return r.x >= problem.edgeTrimMm - kFuzzMm && r.y >= problem.edgeTrimMm - kFuzzMm &&
                   r.high(0) <= problem.edgeTrimMm + room[0] + kFuzzMm &&
                   r.high(1) <= problem.edgeTrimMm + room[1] + kFuzzMm;
        });
        if (!inside || !comesApart(rectangles, problem.kerfMm)) faults.push_back({CuttingFault::LockedDoesNotFit, f});
    }
    return faults;
}

SheetsPlan cutSheets(const SheetsProblem& problem, const Effort& effort,
                     const std::function<void(const SheetsPlan&)>& progress) {
    const Scaled scaled = scale(problem);
    double fixedCost = 0;
    std::vector<int> left;
    for (const SheetStock& stock : problem.stock)
        left.push_back(std::min(stock.count.value_or(std::numeric_limits<int>::max()), int(scaled.loose.size())));
    for (const CutSheet& sheet : problem.fixed) {
        fixedCost += problem.stock[sheet.stock].price;
        if (problem.stock[sheet.stock].count) --left[sheet.stock];
    }
    for (int& n : left) n = std::max(n, 0);
    std::vector<double> price;
    std::vector<double> area;
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        price.push_back(problem.stock[s].price);
        area.push_back(double(scaled.size[s][0]) * double(scaled.size[s][1]));
    }
    // The cheapest kind for its area first, what lies on the rack before all others.
    std::vector<std::size_t> kinds(price.size());
    std::iota(kinds.begin(), kinds.end(), std::size_t(0));
    std::stable_sort(kinds.begin(), kinds.end(),
                     [&](std::size_t a, std::size_t b) { return price[a] / area[a] < price[b] / area[b]; });
    std::vector<int> opened(price.size(), 0);
    const auto fits = [&](const SheetItem& item, std::size_t kind) {
        const auto& size = scaled.size[kind];
        return (item.size[0] <= size[0] && item.size[1] <= size[1]) ||
               (item.mayTurn && item.size[1] <= size[0] && item.size[0] <= size[1]);
    };
    SheetPacking packing =
        firstSheets(scaled.items, scaled.pinned, scaled.loose, [&](const SheetItem& item) -> std::optional<SheetTree> {
            for (const std::size_t kind : kinds)
                if (opened[kind] < left[kind] && fits(item, kind)) {
                    ++opened[kind];
                    return SheetTree(scaled.size[kind], kind);
                }
            return std::nullopt;
        });
    SheetsPlan best = planOf(problem, scaled, packing);
    const auto finish = [&](SheetsPlan plan, double bound) {
        plan.lowerBoundCost = std::min(fixedCost + bound, plan.cost);
        plan.proven = plan.unplaced.empty() && plan.cost <= plan.lowerBoundCost + kCostFuzz * std::max(1.0, plan.cost);
        return plan;
    };
    if (scaled.loose.empty()) return finish(best, 0);
    if (effort.spent(0) >= 1) return finish(best, 0); // the first layout only

    StockSets sets(price, area, left);
    std::vector<SheetItem> items;
    for (const int i : scaled.loose) items.push_back(scaled.items[std::size_t(i)]);
    if (scaled.pinned.empty())
        sets.cuts = sheetCuts(items, scaled.size);
    else
        sets.cuts = {}; // the free parts of pinned sheets carry some: said by no inequality here
    double ahead = 0;
    bool listed = false;
    struct Open {
        StockSet set;
        double cost;
        SheetSearch search;
        double worth; // how promising: less loose is better
    };
    std::vector<Open> open;
    const auto cost = [&] { return best.unplaced.empty() ? best.cost - fixedCost : kAbsurdCutMm * kAbsurdCutMm; };
    const auto bound = [&] {
        double low = listed ? cost() : ahead;
        for (const Open& o : open) low = std::min(low, o.cost);
        return low;
    };
    const auto listMore = [&](std::size_t upTo) {
        while (!listed && open.size() < upTo && effort.spent(0) < 1) {
            const auto set = sets.cheapest(cost());
            if (!set) {
                listed = sets.complete();
                return;
            }
            ahead = sets.costOf(*set);
            if (scaled.pinned.empty())
                if (auto cut = sliceCut(items, scaled.size, *set)) {
                    sets.cuts.push_back(std::move(*cut));
                    continue;
                }
            sets.tried.push_back(*set);
            std::vector<SheetTree> sheets = scaled.pinned;
            for (std::size_t k = 0; k < set->size(); ++k)
                for (int n = 0; n < (*set)[k]; ++n) sheets.emplace_back(scaled.size[k], k);
            open.push_back({*set, ahead,
                            SheetSearch(scaled.items, std::move(sheets), scaled.loose, effort.seed + open.size()), 0});
        }
    };
    if (best.unplaced.empty()) listMore(40);
    if (progress) progress(finish(best, bound()));
    std::int64_t iterations = 0;
    Dice dice(effort.seed);
    const int rounds = std::clamp(4000 / int(scaled.loose.size() + 1), 1, 100);
    while (!open.empty() && effort.spent(iterations) < 1) {
        // Half the time the cheapest set, else one of those that cost a little less than the best so far.
        std::size_t place = dice.unit() < 0.5 ? 0 : open.size() - 1 - std::min(open.size() - 1, dice.below(3));
        iterations += rounds;
        if (!open[place].search.improve(rounds)) continue;
        best = planOf(problem, scaled, open[place].search.packing());
        const double now = cost();
        std::erase_if(open, [now](const Open& o) { return o.cost >= now - kCostFuzz; });
        listMore(40);
        if (progress) progress(finish(best, bound()));
    }
    return finish(best, bound());
}

std::optional<SheetCuts> cutsOf(const SheetsProblem& problem, const CutSheet& sheet) {
    SheetCuts result;
    const SheetStock& stock = problem.stock[sheet.stock];
    result.parts.push_back({0, 0, stock.widthMm, stock.heightMm});
    const double kerf = problem.kerfMm;
    bool sound = true;
    int lastAxis = -1;
    // Cuts off what lies below `at` along an axis; returns the far part, -1 if nothing is left there.
    const auto cut = [&](int part, int axis, double at, bool nearIsOffcut) {
        const SheetPart whole = result.parts[std::size_t(part)];
        const double start = axis == 0 ? whole.x : whole.y;
        const double size = axis == 0 ? whole.widthMm : whole.heightMm;
        SheetPart near = whole;
        (axis == 0 ? near.widthMm : near.heightMm) = at - start;
        near.offcut = nearIsOffcut;
        SheetCut made{.part = part, .along = axis == 1, .atMm = at - start, .sheetAtMm = at};
        made.near = int(result.parts.size());
        result.parts.push_back(near);
        const double rest = size - (at - start) - kerf;
        if (rest > kFuzzMm) {
            SheetPart far = whole;
            (axis == 0 ? far.x : far.y) = at + kerf;
            (axis == 0 ? far.widthMm : far.heightMm) = rest;
            made.far = int(result.parts.size());
            result.parts.push_back(far);
        }
        if (axis != lastAxis && lastAxis >= 0) ++result.turns;
        lastAxis = axis;
        result.cuts.push_back(made);
        return made.far;
    };
    const auto apart = [&](const auto& self, int part, const std::vector<Rectangle>& rectangles) -> void {
        if (rectangles.empty()) {
            result.parts[std::size_t(part)].offcut = true;
            return;
        }
        const auto here = [&] { return result.parts[std::size_t(part)]; };
        // Along each axis: the strips that whole cuts part the rectangles into, or trims round one group.
        const std::array groups{groupsAlong(rectangles, 0, kerf), groupsAlong(rectangles, 1, kerf)};
        int axis = -1;
        if (rectangles.size() == 1) {
            // Trim what is left beside the single piece; first the way the saw already stands.
            for (int n = 0; n < 2 && axis < 0; ++n) {
                const int a = lastAxis < 0 ? n : n == 0 ? lastAxis : 1 - lastAxis;
                const double low = a == 0 ? here().x : here().y;
                const double high = low + (a == 0 ? here().widthMm : here().heightMm);
                const Rectangle& r = rectangles.front();
                if (r.low(a) > low + kFuzzMm || r.high(a) < high - kFuzzMm) axis = a;
            }
            if (axis < 0) {
                result.parts[std::size_t(part)].piece = rectangles.front().place;
                return;
            }
        } else {
            const bool both = groups[0].size() > 1 && groups[1].size() > 1;
            if (both)
                axis = lastAxis >= 0 ? lastAxis : groups[0].size() <= groups[1].size() ? 0 : 1;
            else
                axis = groups[0].size() > 1 ? 0 : groups[1].size() > 1 ? 1 : -1;
            if (axis < 0) {
                sound = false;
                return;
            }
        }
        // All parallel cuts of this part, then its strips one by one.
        std::vector<std::pair<int, std::vector<Rectangle>>> strips;
        int rest = part;
        for (std::size_t g = 0; g < groups[std::size_t(axis)].size() && rest >= 0; ++g) {
            const auto& group = groups[std::size_t(axis)][g];
            double low = std::numeric_limits<double>::infinity();
            double high = -low;
            for (const Rectangle& r : group) {
                low = std::min(low, r.low(axis));
                high = std::max(high, r.high(axis));
            }
            const auto partNow = [&] { return result.parts[std::size_t(rest)]; };
            const double start = axis == 0 ? partNow().x : partNow().y;
            if (low > start + kFuzzMm) rest = cut(rest, axis, std::max(start, low - kerf), true);
            if (rest < 0) break;
            const double end = (axis == 0 ? partNow().x + partNow().widthMm : partNow().y + partNow().heightMm);
            if (high < end - kFuzzMm) {
                const int before = rest;
                rest = cut(before, axis, high, false);
                strips.push_back({result.cuts.back().near, group});
            } else {
                strips.push_back({rest, group});
                rest = -1;
            }
        }
        if (rest >= 0) result.parts[std::size_t(rest)].offcut = true;
        for (const auto& [strip, group] : strips) {
            if (strip == part) { // nothing was cut off: the other axis has to do it
                sound = false;
                return;
            }
            self(self, strip, group);
        }
    };
    apart(apart, 0, rectanglesOf(problem, sheet));
    if (!sound) return std::nullopt;
    return result;
}

} // namespace westrum
