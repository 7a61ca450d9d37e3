#include "core/cutting/sheet_bound.h"

#include "core/cutting/knapsack.h"

#include <algorithm>
#include <cmath>
#include <glpk.h>
#include <limits>
#include <map>
#include <memory>

namespace westrum {

namespace {

constexpr std::size_t kMostCutoffs = 40;
constexpr std::size_t kMostCuts = 24;

/// Cut-off function: sizes above `whole - cutoff` count as the whole, those below `cutoff` as nothing.
double cutOff(SheetUnits size, SheetUnits whole, SheetUnits cutoff) {
    if (cutoff > 0 && size > whole - cutoff) return 1;
    if (size < cutoff) return 0;
    return double(size) / double(whole);
}

/// Every size at which a cut-off function of this side changes.
std::vector<SheetUnits> cutoffs(const std::vector<SheetItem>& items, SheetUnits whole) {
    std::vector<SheetUnits> list{0};
    for (const SheetItem& item : items)
        for (const SheetUnits side : item.size)
            for (const SheetUnits c : {side, whole - side + 1})
                if (c > 0 && 2 * c <= whole) list.push_back(c);
    std::sort(list.begin(), list.end());
    list.erase(std::unique(list.begin(), list.end()), list.end());
    if (list.size() > kMostCutoffs) list.erase(list.begin() + 1, list.end() - (kMostCutoffs - 1));
    return list;
}

double areaOf(const std::array<SheetUnits, 2>& size) { return double(size[0]) * double(size[1]) * 1e-12; }

} // namespace

std::vector<StockCut> sheetCuts(const std::vector<SheetItem>& items,
                                const std::vector<std::array<SheetUnits, 2>>& sizes) {
    std::vector<StockCut> cuts;
    StockCut area;
    for (const auto& size : sizes) area.value.push_back(areaOf(size));
    for (const SheetItem& item : items) area.need += areaOf(item.size);
    cuts.push_back(area);
    // The cut-offs of each kind in turn; for the other kinds the same share of their side.
    for (std::size_t lead = 0; lead < sizes.size() && lead < 4; ++lead)
        for (const SheetUnits a : cutoffs(items, sizes[lead][0]))
            for (const SheetUnits b : cutoffs(items, sizes[lead][1])) {
                StockCut cut;
                cut.value = area.value;
                for (const SheetItem& item : items) {
                    double worth = std::numeric_limits<double>::infinity(); // least over kinds and ways to lie
                    for (std::size_t k = 0; k < sizes.size(); ++k) {
                        const auto share = [&](int side, SheetUnits cutoff) {
                            return k == lead ? cutoff
                                             : SheetUnits(double(cutoff) * double(sizes[k][std::size_t(side)]) /
                                                          double(sizes[lead][std::size_t(side)]));
                        };
                        for (int turn = 0; turn <= int(item.mayTurn); ++turn) {
                            const SheetUnits w = item.size[turn ? 1 : 0];
                            const SheetUnits h = item.size[turn ? 0 : 1];
                            if (w > sizes[k][0] || h > sizes[k][1]) continue;
                            worth = std::min(worth, area.value[k] * cutOff(w, sizes[k][0], share(0, a)) *
                                                        cutOff(h, sizes[k][1], share(1, b)));
                        }
                    }
                    if (std::isfinite(worth)) cut.need += worth;
                }
                cuts.push_back(std::move(cut));
            }
    std::sort(cuts.begin() + 1, cuts.end(), [](const StockCut& x, const StockCut& y) { return x.need > y.need; });
    if (cuts.size() > kMostCuts) cuts.resize(kMostCuts);
    return cuts;
}

namespace {

constexpr double kSliceFuzz = 1e-7;
constexpr std::int64_t kMostSliceUnits = 40000;

/// A kind of item as it may lie: its length in mm and its height in slice units.
struct Lying {
    std::size_t kind;
    double lengthMm;
    std::int64_t height;
};

/// Sheets and items as slices one way: what each kind of sheet has of them, and how each item may lie across them.
struct Slices {
    std::vector<std::int64_t> capacity; ///< of a slice, rounded up, heights down: what fits stays fitting
    std::vector<double> length;         ///< all the slices of the sheets of a kind, in mm
    std::vector<int> demand;
    std::vector<Lying> ways;
};

Slices slicesOf(const std::map<std::array<SheetUnits, 3>, int>& kinds,
                const std::vector<std::array<SheetUnits, 2>>& sizes, std::size_t along) {
    Slices s;
    SheetUnits tallest = 0;
    for (const auto& size : sizes) tallest = std::max(tallest, size[1 - along]);
    const SheetUnits unit = std::max<SheetUnits>(tallest / kMostSliceUnits, 100'000); // not below 0.1 mm
    for (std::size_t k = 0; k < sizes.size(); ++k) {
        s.capacity.push_back((sizes[k][1 - along] + unit - 1) / unit);
        s.length.push_back(double(sizes[k][along]) * 1e-6);
    }
    for (const auto& [kind, count] : kinds) {
        for (int turn = 0; turn <= int(kind[2]); ++turn) {
            const SheetUnits l = kind[turn ? 1 - along : along];
            const SheetUnits h = kind[turn ? along : 1 - along];
            bool fits = false;
            for (const auto& size : sizes) fits = fits || (l <= size[along] && h <= size[1 - along]);
            if (fits) s.ways.push_back({s.demand.size(), double(l) * 1e-6, std::max<std::int64_t>(1, h / unit)});
        }
        s.demand.push_back(count);
    }
    return s;
}

void addColumn(glp_prob* lp, const std::vector<int>& rows, const std::vector<double>& values, double price) {
    const int j = glp_add_cols(lp, 1);
    glp_set_col_bnds(lp, j, GLP_LO, 0, 0);
    glp_set_obj_coef(lp, j, price);
    std::vector<int> r{0};
    std::vector<double> v{0};
    r.insert(r.end(), rows.begin(), rows.end());
    v.insert(v.end(), values.begin(), values.end());
    glp_set_mat_col(lp, j, int(rows.size()), r.data(), v.data());
}

/// The inequality that the duals of the programme say: what all items need at least, by what a mm of each way is worth.
StockCut cutBy(const Slices& s, Knapsack& knapsack, const std::vector<double>& worth) {
    StockCut cut;
    for (std::size_t k = 0; k < s.length.size(); ++k) cut.value.push_back(s.length[k] * knapsack.best(s.capacity[k]));
    std::vector<double> least(s.demand.size(), std::numeric_limits<double>::infinity());
    for (std::size_t i = 0; i < s.ways.size(); ++i)
        least[s.ways[i].kind] = std::min(least[s.ways[i].kind], s.ways[i].lengthMm * worth[i]);
    for (std::size_t i = 0; i < s.demand.size(); ++i)
        if (std::isfinite(least[i])) cut.need += least[i] * s.demand[i];
    return cut;
}

/// Slices along one side: `along` is the side that lengths run along.
std::optional<StockCut> sliceCutAlong(const std::map<std::array<SheetUnits, 3>, int>& kinds,
                                      const std::vector<std::array<SheetUnits, 2>>& sizes, const StockSet& against,
                                      std::size_t along) {
    const Slices slices = slicesOf(kinds, sizes, along);
    const auto& [capacity, length, demand, ways] = slices;
    std::vector<std::int64_t> heights;
    std::vector<int> most;
    for (const Lying& way : ways) {
        heights.push_back(way.height);
        most.push_back(demand[way.kind]);
    }
    Knapsack knapsack(heights, most, *std::max_element(capacity.begin(), capacity.end()));

    // Rows: the slices of each way that an item may lie, the choice of a way, the slices that the sheets have.
    // Columns: what is missing of an item, how many lie each way, patterns. Minimum: the area that is missing.
    glp_term_out(GLP_OFF);
    const std::unique_ptr<glp_prob, void (*)(glp_prob*)> program(glp_create_prob(), glp_delete_prob);
    glp_prob* lp = program.get();
    glp_set_obj_dir(lp, GLP_MIN);
    const int waysCount = int(ways.size());
    const int kindsCount = int(demand.size());
    const int sheetKinds = int(sizes.size());
    glp_add_rows(lp, waysCount + kindsCount + sheetKinds);
    for (int i = 0; i < waysCount; ++i) glp_set_row_bnds(lp, i + 1, GLP_LO, 0, 0);
    for (int i = 0; i < kindsCount; ++i) glp_set_row_bnds(lp, waysCount + i + 1, GLP_LO, demand[std::size_t(i)], 0);
    for (int k = 0; k < sheetKinds; ++k)
        glp_set_row_bnds(lp, waysCount + kindsCount + k + 1, GLP_UP, 0,
                         length[std::size_t(k)] * against[std::size_t(k)]);
    const auto add = [lp](const std::vector<int>& rows, const std::vector<double>& values, double price) {
        addColumn(lp, rows, values, price);
    };
    const auto addPattern = [&](const std::vector<int>& pattern, int sheetRow) {
        std::vector<int> rows;
        std::vector<double> values;
        for (int i = 0; i < waysCount; ++i)
            if (pattern[std::size_t(i)] > 0) {
                rows.push_back(i + 1);
                values.push_back(pattern[std::size_t(i)]);
            }
        rows.push_back(sheetRow);
        values.push_back(1);
        add(rows, values, 0);
    };
    std::vector<double> area(demand.size(), 0);
    for (const Lying& way : ways) area[way.kind] = std::max(area[way.kind], way.lengthMm * double(way.height));
    for (int i = 0; i < kindsCount; ++i) add({waysCount + i + 1}, {1}, area[std::size_t(i)]);
    for (int i = 0; i < waysCount; ++i)
        add({i + 1, waysCount + int(ways[std::size_t(i)].kind) + 1}, {-ways[std::size_t(i)].lengthMm, 1}, 0);
    double whole = 0;
    for (std::size_t i = 0; i < demand.size(); ++i) whole += area[i] * demand[i];

    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    for (int round = 0; round < 2000; ++round) {
        if (glp_simplex(lp, &how) != 0 || glp_get_status(lp) != GLP_OPT) return std::nullopt;
        if (glp_get_obj_val(lp) <= kSliceFuzz * whole) return std::nullopt;
        std::vector<double> worth; // of a mm of each way's slices
        worth.reserve(std::size_t(waysCount));
        for (int i = 0; i < waysCount; ++i) worth.push_back(std::max(0.0, glp_get_row_dual(lp, i + 1)));
        knapsack.fill(worth);
        StockCut cut = cutBy(slices, knapsack, worth);
        if (!cut.allows(against)) return cut;
        bool better = false;
        for (int k = 0; k < sheetKinds; ++k) {
            if (against[std::size_t(k)] == 0) continue;
            const double price = -glp_get_row_dual(lp, waysCount + kindsCount + k + 1);
            if (knapsack.best(capacity[std::size_t(k)]) <= price + kSliceFuzz * std::max(1.0, price)) continue;
            addPattern(knapsack.pattern(capacity[std::size_t(k)]), waysCount + kindsCount + k + 1);
            better = true;
        }
        if (!better) return std::nullopt;
    }
    return std::nullopt;
}

} // namespace

std::optional<StockCut> sliceCut(const std::vector<SheetItem>& items,
                                 const std::vector<std::array<SheetUnits, 2>>& sizes, const StockSet& against) {
    std::map<std::array<SheetUnits, 3>, int> kinds;
    for (const SheetItem& item : items) ++kinds[{item.size[0], item.size[1], SheetUnits(item.mayTurn)}];
    if (kinds.size() > 150) return std::nullopt;
    for (const std::size_t along : {std::size_t(0), std::size_t(1)})
        if (auto cut = sliceCutAlong(kinds, sizes, against, along)) return cut;
    return std::nullopt;
}

} // namespace westrum
