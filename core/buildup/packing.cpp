#include "core/buildup/packing.h"

#include <glpk.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>

namespace westrum {
namespace {

/// The plane (or, of one batten, the line) a + b x + c y over all heights whose sum over them is least.
/// @return  its height at each crossing
std::vector<double> leastPlane(std::span<const CrookedCrossing> crossings) {
    const int n = static_cast<int>(crossings.size());
    glp_term_out(GLP_OFF);
    const std::unique_ptr<glp_prob, void (*)(glp_prob*)> program(glp_create_prob(), glp_delete_prob);
    glp_prob* lp = program.get();
    glp_set_obj_dir(lp, GLP_MIN);
    glp_add_cols(lp, 3);
    glp_add_rows(lp, n);
    // About their middle and in metres, so that all three figures are of one size.
    Point middle;
    for (const CrookedCrossing& c : crossings) middle = middle + c.at * (1.0 / n);
    double sum[3]{};
    const auto terms = [&](const CrookedCrossing& c) {
        return std::array{1.0, (c.at.x - middle.x) / 1000, (c.at.y - middle.y) / 1000};
    };
    for (int i = 0; i < n; ++i) {
        const auto t = terms(crossings[static_cast<std::size_t>(i)]);
        const int columns[4]{0, 1, 2, 3};
        const double values[4]{0, t[0], t[1], t[2]};
        glp_set_mat_row(lp, i + 1, 3, columns, values);
        glp_set_row_bnds(lp, i + 1, GLP_LO, crossings[static_cast<std::size_t>(i)].height, 0);
        for (int k = 0; k < 3; ++k) sum[k] += t[static_cast<std::size_t>(k)];
    }
    for (int k = 0; k < 3; ++k) {
        glp_set_obj_coef(lp, k + 1, sum[k]);
        // Steeper than one in one is no base: a slip in a reading.
        glp_set_col_bnds(lp, k + 1, k == 0 ? GLP_FR : GLP_DB, -1000, 1000);
    }
    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    bool solved = glp_simplex(lp, &how) == 0 && glp_get_status(lp) == GLP_OPT;
    if (solved) {
        // Of all planes with that sum the one whose thickest packer is thinnest: it is the least tilted as well.
        const double least = glp_get_obj_val(lp);
        const int columns[5]{0, 1, 2, 3, glp_add_cols(lp, 1)};
        glp_set_col_bnds(lp, columns[4], GLP_LO, 0, 0);
        const double sums[4]{0, sum[0], sum[1], sum[2]};
        const int total = glp_add_rows(lp, 1);
        glp_set_mat_row(lp, total, 3, columns, sums);
        glp_set_row_bnds(lp, total, GLP_UP, 0, least + 1e-7);
        for (const CrookedCrossing& c : crossings) {
            const auto t = terms(c);
            const double values[5]{0, t[0], t[1], t[2], -1};
            const int row = glp_add_rows(lp, 1);
            glp_set_mat_row(lp, row, 4, columns, values);
            glp_set_row_bnds(lp, row, GLP_UP, 0, c.height);
        }
        for (int k = 1; k <= 4; ++k) glp_set_obj_coef(lp, k, k == 4 ? 1 : 0);
        solved = glp_simplex(lp, &how) == 0 && glp_get_status(lp) == GLP_OPT;
    }
    double highest = crossings[0].height;
    for (const CrookedCrossing& c : crossings) highest = std::max(highest, c.height);
    std::vector<double> face;
    for (const CrookedCrossing& c : crossings) {
        const auto t = terms(c);
        face.push_back(solved ? t[0] * glp_get_col_prim(lp, 1) + t[1] * glp_get_col_prim(lp, 2) +
                                    t[2] * glp_get_col_prim(lp, 3)
                              : highest);
    }
    return face;
}

} // namespace

PackedFaces packedFaces(PackTo to, std::span<const CrookedCrossing> crossings) {
    PackedFaces packed;
    if (crossings.empty() || to == PackTo::Nothing) return packed;
    packed.face.resize(crossings.size());
    const auto solve = [&](const std::vector<std::size_t>& of) {
        std::vector<CrookedCrossing> some;
        for (const std::size_t i : of) some.push_back(crossings[i]);
        const std::vector<double> face = leastPlane(some);
        for (std::size_t k = 0; k < of.size(); ++k) packed.face[of[k]] = face[k];
    };
    if (to == PackTo::Level) {
        double highest = crossings[0].height;
        for (const CrookedCrossing& c : crossings) highest = std::max(highest, c.height);
        std::fill(packed.face.begin(), packed.face.end(), highest);
    } else if (to == PackTo::Plane) {
        std::vector<std::size_t> all;
        for (std::size_t i = 0; i < crossings.size(); ++i) all.push_back(i);
        solve(all);
    } else {
        std::vector<int> lines;
        for (const CrookedCrossing& c : crossings)
            if (std::find(lines.begin(), lines.end(), c.line) == lines.end()) lines.push_back(c.line);
        for (const int line : lines) {
            std::vector<std::size_t> own;
            for (std::size_t i = 0; i < crossings.size(); ++i)
                if (crossings[i].line == line) own.push_back(i);
            solve(own);
        }
    }
    for (std::size_t i = 0; i < crossings.size(); ++i) {
        packed.packer.push_back(std::max(0.0, packed.face[i] - crossings[i].height));
        packed.sum += packed.packer.back();
    }
    return packed;
}

PackerStack packerStack(Mm wanted, std::span<const Mm> stock, int most) {
    PackerStack best;
    double off = std::abs(wanted.value);
    std::vector<Mm> pieces;
    // Every choice of so many thicknesses, the thicker first.
    const auto lay = [&](const auto& self, std::size_t from, double so, int left) -> void {
        const double error = std::abs(wanted.value - so);
        const bool same = std::abs(error - off) < 1e-9;
        const bool thinner = so < best.thickness.value - 1e-9,
                   fewer = so < best.thickness.value + 1e-9 && pieces.size() < best.pieces.size();
        if (error < off - 1e-9 || (same && (thinner || fewer))) {
            off = error;
            best = {pieces, {so}};
        }
        if (left == 0) return;
        for (std::size_t i = from; i < stock.size(); ++i) {
            pieces.push_back(stock[i]);
            self(self, i, so + stock[i].value, left - 1);
            pieces.pop_back();
        }
    };
    lay(lay, 0, 0, most);
    std::sort(best.pieces.begin(), best.pieces.end(), [](Mm a, Mm b) { return a > b; });
    return best;
}

} // namespace westrum
