#include "core/buying/buying_plan.h"

#include "core/buying/supplier_sets.h"
#include "core/units/count.h"

#include <glpk.h>

#include <algorithm>
#include <cmath>
#include <memory>

namespace westrum {
namespace {

constexpr std::size_t kMostChoices = 40; ///< of a programme: beyond, the answer by sets stands with its bound
constexpr int kMostNodes = 400;          ///< of its tree: what is found by then is told with its bound

/// Ends the search after so many nodes: the same on any machine.
void countNodes(glp_tree* tree, void*) {
    int nodes = 0;
    glp_ios_tree_size(tree, nullptr, nullptr, &nodes);
    if (nodes > kMostNodes) glp_ios_terminate(tree);
}

/// The rows and columns of one programme, filled step by step.
class Programme {
public:
    Programme() : program_(glp_create_prob(), glp_delete_prob) {
        glp_term_out(GLP_OFF);
        glp_set_obj_dir(program_.get(), GLP_MIN);
    }
    int column(double cost, double most, bool whole) {
        const int j = glp_add_cols(program_.get(), 1);
        glp_set_obj_coef(program_.get(), j, cost);
        glp_set_col_bnds(program_.get(), j, GLP_DB, 0, std::max(most, 0.0));
        if (most <= 0) glp_set_col_bnds(program_.get(), j, GLP_FX, 0, 0);
        glp_set_col_kind(program_.get(), j, whole ? GLP_IV : GLP_CV);
        return j;
    }
    /// sum of values * columns >= least
    void atLeast(double least, const std::vector<std::pair<int, double>>& terms) {
        const int i = glp_add_rows(program_.get(), 1);
        glp_set_row_bnds(program_.get(), i, GLP_LO, least, 0);
        std::vector<int> columns{0};
        std::vector<double> values{0};
        for (const auto& [column, value] : terms) {
            columns.push_back(column);
            values.push_back(value);
        }
        glp_set_mat_row(program_.get(), i, static_cast<int>(terms.size()), columns.data(), values.data());
    }
    glp_prob* get() { return program_.get(); }

private:
    std::unique_ptr<glp_prob, void (*)(glp_prob*)> program_;
};

/// All at once as a mixed-integer programme.
std::optional<BuyAnswer> programmed(const BuyRequest& r) {
    const std::size_t products = r.needs.size(), suppliers = r.suppliers.size();
    Programme p;
    std::vector<int> option(r.options.size()), visit(suppliers, 0), free(suppliers, 0);
    const auto most = [&](const BuyOption& o) {
        return static_cast<double>(
            std::max<std::int64_t>(1, roundUp(r.needs[static_cast<std::size_t>(o.product)] / o.amount)));
    };
    for (std::size_t k = 0; k < r.options.size(); ++k)
        option[k] = p.column(static_cast<double>(r.options[k].priceMinor), most(r.options[k]), true);
    for (std::size_t s = 0; s < suppliers; ++s) {
        const SupplierTerms& terms = r.suppliers[s];
        if (terms.deliveryMinor <= 0) continue;
        visit[s] = p.column(static_cast<double>(terms.deliveryMinor), 1, true);
        if (terms.freeFromMinor) free[s] = p.column(-static_cast<double>(terms.deliveryMinor), 1, true);
    }
    for (std::size_t i = 0; i < products; ++i) {
        std::vector<std::pair<int, double>> served;
        for (std::size_t k = 0; k < r.options.size(); ++k)
            if (r.options[k].product == static_cast<int>(i)) served.emplace_back(option[k], r.options[k].amount);
        if (served.empty()) continue;
        p.atLeast(r.needs[i] * (1 - 1e-9), served);
        if (!r.oneLot[i]) continue;
        // One supplier only: a column for each says who.
        std::vector<std::pair<int, double>> who;
        for (std::size_t s = 0; s < suppliers; ++s) {
            int chosen = 0;
            for (std::size_t k = 0; k < r.options.size(); ++k) {
                const BuyOption& o = r.options[k];
                if (o.product != static_cast<int>(i) || o.supplier != static_cast<int>(s)) continue;
                if (chosen == 0) chosen = p.column(0, 1, true);
                p.atLeast(0, {{chosen, most(o)}, {option[k], -1}});
            }
            if (chosen > 0) who.emplace_back(chosen, -1);
        }
        p.atLeast(-1, who);
    }
    for (std::size_t s = 0; s < suppliers; ++s) {
        if (visit[s] == 0) continue;
        std::vector<std::pair<int, double>> goods;
        for (std::size_t k = 0; k < r.options.size(); ++k) {
            const BuyOption& o = r.options[k];
            if (o.supplier != static_cast<int>(s)) continue;
            p.atLeast(0, {{visit[s], most(o)}, {option[k], -1}}); // whoever sells comes
            goods.emplace_back(option[k], static_cast<double>(o.priceMinor));
        }
        if (free[s] == 0) continue;
        p.atLeast(0, {{visit[s], 1}, {free[s], -1}});
        goods.emplace_back(free[s], -static_cast<double>(*r.suppliers[s].freeFromMinor));
        p.atLeast(0, goods);
    }
    glp_smcp simplex;
    glp_init_smcp(&simplex);
    simplex.msg_lev = GLP_MSG_OFF;
    glp_iocp how;
    glp_init_iocp(&how);
    how.msg_lev = GLP_MSG_OFF;
    how.cb_func = countNodes;
    how.gmi_cuts = how.mir_cuts = GLP_ON;
    if (glp_simplex(p.get(), &simplex) != 0 || glp_get_status(p.get()) != GLP_OPT) return std::nullopt;
    const double relaxed = glp_get_obj_val(p.get());
    const int ended = glp_intopt(p.get(), &how);
    const int status = glp_mip_status(p.get());
    if (status != GLP_OPT && status != GLP_FEAS) return std::nullopt;
    BuyAnswer a;
    for (std::size_t k = 0; k < r.options.size(); ++k)
        a.counts.push_back(static_cast<int>(std::lround(glp_mip_col_val(p.get(), option[k]))));
    reckon(r, a);
    // Whole cents: a bound of 99.1 means that nothing is cheaper than 100.
    a.leastMinor = ended == 0 && status == GLP_OPT
                       ? a.costMinor
                       : std::min(a.costMinor, static_cast<std::int64_t>(std::ceil(relaxed - 1e-6)));
    return a;
}

/// Options of products that there is a choice for.
std::size_t choicesIn(const BuyRequest& r) {
    std::vector<std::size_t> options(r.needs.size(), 0);
    for (const BuyOption& o : r.options) ++options[static_cast<std::size_t>(o.product)];
    std::size_t choices = 0;
    for (const std::size_t n : options) choices += n > 1 ? n : 0;
    return choices;
}

} // namespace

std::optional<BuyAnswer> cheapestPurchases(const BuyRequest& r) {
    if (r.options.empty()) return std::nullopt;
    std::optional<BuyAnswer> answer = cheapestBySets(r);
    if (answer && (answer->proven() || choicesIn(r) > kMostChoices)) return answer;
    std::optional<BuyAnswer> other = programmed(r);
    if (!answer || !other) return answer ? answer : other;
    const std::int64_t least = std::max(answer->leastMinor, other->leastMinor);
    if (other->costMinor < answer->costMinor) std::swap(answer, other);
    answer->leastMinor = std::min(least, answer->costMinor);
    return answer;
}

} // namespace westrum
