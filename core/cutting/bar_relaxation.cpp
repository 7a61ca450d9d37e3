#include "core/cutting/bar_relaxation.h"

#include <algorithm>
#include <glpk.h>
#include <memory>
#include <numeric>

namespace westrum {

namespace {

constexpr double kTolerance = 1e-6; // of the whole need: what a linear programme in doubles can tell apart

} // namespace

BarRelaxation::BarRelaxation(const BarInstance& instance)
    : instance_(instance),
      knapsack_(instance.size, instance.demand, *std::max_element(instance.capacity.begin(), instance.capacity.end())) {
}

StockCut sizeCut(const BarInstance& instance) {
    StockCut cut;
    for (const std::int64_t capacity : instance.capacity) cut.value.push_back(double(capacity));
    for (std::size_t i = 0; i < instance.size.size(); ++i) cut.need += double(instance.size[i]) * instance.demand[i];
    return cut;
}

void BarRelaxation::startWith(const std::vector<Column>& columns) {
    for (const Column& column : columns) {
        bool fits = true;
        for (std::size_t i = 0; i < column.pattern.size(); ++i) fits = fits && column.pattern[i] <= instance_.demand[i];
        if (fits) columns_.push_back(column);
    }
}

std::optional<StockCut> BarRelaxation::cutAgainst(const StockSet& bars) {
    // min sum size * missing  with  patterns carrying the demand less what is missing, at most bars[kind] of each
    // kind. The prices of the rows steer the next pattern; the same prices make the inequality.
    glp_term_out(GLP_OFF);
    const std::unique_ptr<glp_prob, void (*)(glp_prob*)> program(glp_create_prob(), glp_delete_prob);
    glp_prob* lp = program.get();
    const int pieces = int(instance_.size.size());
    const int kinds = int(bars.size());
    glp_set_obj_dir(lp, GLP_MIN);
    glp_add_rows(lp, pieces + kinds);
    for (int i = 0; i < pieces; ++i) glp_set_row_bnds(lp, i + 1, GLP_LO, instance_.demand[std::size_t(i)], 0);
    for (int k = 0; k < kinds; ++k) glp_set_row_bnds(lp, pieces + k + 1, GLP_UP, 0, bars[std::size_t(k)]);
    glp_add_cols(lp, pieces);
    for (int i = 0; i < pieces; ++i) {
        const int row[] = {0, i + 1};
        const double one[] = {0, 1};
        glp_set_col_bnds(lp, i + 1, GLP_LO, 0, 0);
        glp_set_obj_coef(lp, i + 1, double(instance_.size[std::size_t(i)]));
        glp_set_mat_col(lp, i + 1, 1, row, one);
    }
    const auto add = [&](const Column& column) {
        std::vector<int> rows(1);
        std::vector<double> values(1);
        for (int i = 0; i < pieces; ++i)
            if (column.pattern[std::size_t(i)] > 0) {
                rows.push_back(i + 1);
                values.push_back(column.pattern[std::size_t(i)]);
            }
        rows.push_back(pieces + int(column.bar) + 1);
        values.push_back(1);
        const int j = glp_add_cols(lp, 1);
        glp_set_col_bnds(lp, j, GLP_LO, 0, 0);
        glp_set_mat_col(lp, j, int(rows.size()) - 1, rows.data(), values.data());
    };
    for (const Column& column : columns_) add(column);

    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    how.presolve = GLP_OFF;
    const double whole = sizeCut(instance_).need;
    for (int round = 0; round < 5000; ++round) {
        if (glp_simplex(lp, &how) != 0 || glp_get_status(lp) != GLP_OPT) return std::nullopt; // no claim is made
        if (glp_get_obj_val(lp) <= kTolerance * whole) {
            for (std::size_t j = 0; j < columns_.size(); ++j)
                columns_[j].times = glp_get_col_prim(lp, pieces + int(j) + 1);
            return std::nullopt;
        }
        std::vector<double> worth;
        worth.reserve(std::size_t(pieces));
        for (int i = 0; i < pieces; ++i) worth.push_back(std::max(0.0, glp_get_row_dual(lp, i + 1)));
        StockCut cut;
        knapsack_.fill(worth);
        for (const std::int64_t capacity : instance_.capacity) cut.value.push_back(knapsack_.best(capacity));
        cut.need = std::inner_product(worth.begin(), worth.end(), instance_.demand.begin(), 0.0);
        if (!cut.allows(bars)) return cut;
        bool better = false;
        for (int k = 0; k < kinds; ++k) {
            if (bars[std::size_t(k)] == 0) continue;
            const double price = -glp_get_row_dual(lp, pieces + k + 1);
            if (cut.value[std::size_t(k)] <= price + kTolerance * std::max(1.0, price)) continue;
            columns_.push_back({std::size_t(k), knapsack_.pattern(instance_.capacity[std::size_t(k)])});
            add(columns_.back());
            better = true;
        }
        if (!better) return std::nullopt;
    }
    return std::nullopt;
}

} // namespace westrum
