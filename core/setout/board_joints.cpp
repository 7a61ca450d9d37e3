#include "core/setout/board_joints.h"

#include "core/units/count.h"

#include <glpk.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <numeric>
#include <optional>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6;
constexpr std::size_t kMostOptions = 24;    ///< joint sets tried for a run
constexpr std::size_t kMostPatterns = 3000; ///< cutting patterns that the exact search takes on

using Joints = std::vector<double>;

bool overlap(const Run& a, const Run& b) {
    return std::abs(a.row - b.row) == 1 && a.start < b.end() - kLevel && b.start < a.end() - kLevel;
}

/// Kinds of pieces by length, to a hundredth of a millimetre.
struct Kinds {
    std::vector<double> lengths;
    int of(double length) {
        for (std::size_t k = 0; k < lengths.size(); ++k)
            if (std::abs(lengths[k] - length) < 0.01) return static_cast<int>(k);
        lengths.push_back(length);
        return static_cast<int>(lengths.size()) - 1;
    }
};

class JointPlanner {
public:
    JointPlanner(const std::vector<Run>& runs, const JointRules& rules, const std::stop_token& stop)
        : runs_(runs), rules_(rules), stop_(stop) {
        for (const StockLength& l : rules.lengths) longest_ = std::max(longest_, l.length.value);
    }

    JointPlan run() {
        std::size_t model = 0; // the run whose joint places the others follow: the longest
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            options_.push_back(optionsOf(runs_[i]));
            if (runs_[i].length > runs_[model].length) model = i;
            if (runs_[i].length > longest_ + kLevel) plan_.longerThanStock.push_back(static_cast<int>(i));
        }
        if (runs_.empty()) return plan_;
        best_ = std::numeric_limits<std::int64_t>::max();
        if (rules_.jointing == Jointing::FullLength) {
            take({{}});
            tryPatterns(model, true);
        } else {
            tryPatterns(model, false);
        }
        if (rules_.jointing == Jointing::FewestBoards && plan_.cost > plan_.leastCost) exact();
        count();
        return plan_;
    }

private:
    /// All ways to lay a run: whole, or joined on supports as seldom as can be; one off the supports if nothing else
    /// goes.
    std::vector<Joints> optionsOf(const Run& run) const {
        std::vector<Joints> options;
        const bool whole = run.length <= longest_ + kLevel;
        if (whole) options.push_back({});
        if (whole && rules_.jointing == Jointing::FullLength) return options;
        Joints inside;
        for (const double s : rules_.supports)
            if (s > run.start + kLevel && s < run.end() - kLevel) inside.push_back(s);
        const auto least = static_cast<std::size_t>(std::max<std::int64_t>(1, roundUp(run.length / longest_) - 1));
        const std::size_t most = rules_.mostJoints > 0 ? static_cast<std::size_t>(rules_.mostJoints) : least + 2;
        for (std::size_t joints = least; joints <= inside.size() && joints <= most; ++joints) {
            const std::size_t before = options.size();
            Joints chosen;
            const std::function<void(std::size_t, double)> choose = [&](std::size_t from, double last) {
                if (options.size() >= kMostOptions) return;
                if (chosen.size() == joints) {
                    if (fits(run.end() - last, true)) options.push_back(chosen);
                    return;
                }
                for (std::size_t i = from; i < inside.size(); ++i) {
                    if (!fits(inside[i] - last, chosen.empty())) continue;
                    chosen.push_back(inside[i]);
                    choose(i + 1, inside[i]);
                    chosen.pop_back();
                }
            };
            choose(0, run.start);
            if (options.size() > before && rules_.mostJoints == 0) break;
        }
        if (options.empty()) options.push_back(anywhere(run, 0));
        return options;
    }

    [[nodiscard]] bool fits(double piece, bool atEnd) const {
        return piece <= longest_ + kLevel && piece >= (atEnd ? rules_.endLeast : 1) - kLevel;
    }

    /// Joints without supports: equal pieces, every other row shifted by half a piece where that leaves fair ends.
    [[nodiscard]] Joints anywhere(const Run& run, int row) const {
        const double pieces = static_cast<double>(roundUp(run.length / longest_));
        const double piece = run.length / pieces;
        Joints joints;
        if (row % 2 == 1 && piece / 2 >= rules_.endLeast) {
            for (double k = 0; k < pieces; ++k) joints.push_back(run.start + piece * (k + 0.5));
        } else {
            for (double k = 1; k < pieces; ++k) joints.push_back(run.start + piece * k);
        }
        return joints;
    }

    [[nodiscard]] double support(double x) const {
        const auto at = std::lower_bound(rules_.supports.begin(), rules_.supports.end(), x - kLevel);
        return static_cast<double>(at - rules_.supports.begin());
    }
    [[nodiscard]] bool onSupport(double x) const {
        const auto at = std::lower_bound(rules_.supports.begin(), rules_.supports.end(), x - kLevel);
        return at != rules_.supports.end() && std::abs(*at - x) < kLevel * 2;
    }

    /// Joints of two neighbouring rows that lie too near each other.
    [[nodiscard]] int clashes(const Joints& a, const Joints& b) const {
        int n = 0;
        for (const double x : a)
            for (const double y : b)
                n += onSupport(x) && onSupport(y) ? std::abs(support(x) - support(y)) < rules_.staggerBays - kLevel
                                                  : std::abs(x - y) < 100;
        return n;
    }

    void tryPatterns(std::size_t model, bool onlyTooLong) {
        const std::vector<Joints>& all = options_[model];
        if (onlyTooLong && plan_.longerThanStock.empty()) return;
        const auto stopNow = [&] { return stop_.stop_requested() || (best_ == plan_.leastCost && clean_); };
        for (const Joints& a : all) {
            take({a});
            if (stopNow()) return;
        }
        for (const Joints& a : all)
            for (const Joints& b : all) {
                if (&a == &b || clashes(a, b) > 0) continue;
                take({a, b});
                if (stopNow()) return;
            }
        if (all.size() > 8) return;
        for (const Joints& a : all)
            for (const Joints& b : all)
                for (const Joints& c : all) {
                    if (&a == &b || &b == &c || &a == &c || clashes(a, b) || clashes(b, c) || clashes(c, a)) continue;
                    take({a, b, c});
                    if (stopNow()) return;
                }
    }

    /// Lays all rows by a pattern that repeats; keeps it if it is better: fewer clashes first, then cost.
    void take(const std::vector<Joints>& pattern) {
        std::vector<Joints> joints(runs_.size());
        std::vector<double> pieces;
        int clash = 0;
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            const Joints& wanted = pattern[static_cast<std::size_t>(runs_[i].row) % pattern.size()];
            const auto& own = options_[i];
            const auto clashesHere = [&](const Joints& mine) {
                int n = 0;
                for (std::size_t k = 0; k < i; ++k)
                    if (overlap(runs_[k], runs_[i])) n += clashes(joints[k], mine);
                return n;
            };
            const auto same = std::find(own.begin(), own.end(), wanted);
            if (same != own.end()) {
                joints[i] = *same;
            } else if (own.size() == 1 && !own.front().empty() && !onSupport(own.front().front())) {
                joints[i] = anywhere(runs_[i], runs_[i].row);
            } else {
                joints[i] = *std::min_element(own.begin(), own.end(), [&](const Joints& a, const Joints& b) {
                    return clashesHere(a) < clashesHere(b);
                });
            }
            clash += clashesHere(joints[i]);
            addPieces(runs_[i], joints[i], pieces);
        }
        const BarCost cost = barCost(pieces, rules_.lengths, rules_.kerf);
        if (best_ != std::numeric_limits<std::int64_t>::max() &&
            std::pair(clash, cost.cost) >= std::pair(clash_, best_))
            return;
        best_ = cost.cost;
        clash_ = clash;
        clean_ = clash == 0;
        plan_.joints = std::move(joints);
        plan_.cost = cost.cost;
        plan_.boards = cost.boards;
        plan_.leastCost = leastOf();
    }

    static void addPieces(const Run& run, const Joints& joints, std::vector<double>& pieces) {
        double last = run.start;
        for (const double j : joints) {
            pieces.push_back(j - last);
            last = j;
        }
        pieces.push_back(run.end() - last);
    }

    /// A bound for every choice: by total length, joints adding only kerfs.
    std::int64_t leastOf() const {
        std::vector<double> whole;
        double total = 0, cheapest = std::numeric_limits<double>::max();
        std::int64_t least = std::numeric_limits<std::int64_t>::max();
        for (const Run& r : runs_) total += r.length + rules_.kerf;
        for (const StockLength& l : rules_.lengths) {
            cheapest = std::min(cheapest, static_cast<double>(l.cost) / (l.length.value + rules_.kerf));
            least = std::min(least, l.cost);
        }
        std::int64_t bound = std::max(least, roundUp(total * cheapest - 1e-6));
        if (rules_.lengths.size() == 1) // whole boards only
            bound = std::max(bound, least * roundUp(total / (longest_ + rules_.kerf) - 1e-9));
        if (rules_.jointing != Jointing::FullLength) return bound;
        std::vector<double> pieces;
        for (std::size_t i = 0; i < runs_.size(); ++i)
            if (options_[i].front().empty()) pieces.push_back(runs_[i].length);
        return pieces.empty() ? bound : std::max(bound, barCost(pieces, rules_.lengths, rules_.kerf).least);
    }

    /// How often each kind of piece comes out of a length of stock.
    struct Pattern {
        std::int64_t cost{};
        std::vector<int> times;
    };

    /// A run laid in one of its ways, and the pieces that takes, by kind.
    struct Choice {
        std::size_t run, option;
        std::vector<int> pieces;
    };
    std::vector<Choice> choicesOf(Kinds& kinds) const;
    std::vector<Pattern> patternsOf(const Kinds& kinds) const;
    void addRows(glp_prob* lp, const Kinds& kinds, const std::vector<Pattern>& patterns,
                 const std::vector<Choice>& choices) const;
    void exact();
    void count() {
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            for (const double j : plan_.joints[i]) plan_.offSupport += !onSupport(j);
            for (std::size_t k = 0; k < i; ++k)
                if (overlap(runs_[k], runs_[i])) plan_.inLine += clashes(plan_.joints[k], plan_.joints[i]);
        }
    }

    const std::vector<Run>& runs_;
    const JointRules& rules_;
    const std::stop_token& stop_;
    double longest_ = 0;
    std::vector<std::vector<Joints>> options_;
    JointPlan plan_;
    std::int64_t best_ = 0;
    int clash_ = 0;
    bool clean_ = false;
};

struct BranchLimit {
    int left;
    const std::stop_token* stop;
};

void onBranch(glp_tree* tree, void* info) {
    auto* limit = static_cast<BranchLimit*>(info);
    if (glp_ios_reason(tree) == GLP_ISELECT && (--limit->left < 0 || limit->stop->stop_requested()))
        glp_ios_terminate(tree);
}

std::vector<JointPlanner::Choice> JointPlanner::choicesOf(Kinds& kinds) const {
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < runs_.size(); ++i)
        for (std::size_t o = 0; o < options_[i].size(); ++o) {
            std::vector<double> lengths;
            addPieces(runs_[i], options_[i][o], lengths);
            Choice c{i, o, {}};
            for (const double l : lengths) c.pieces.push_back(kinds.of(l));
            choices.push_back(std::move(c));
        }
    return choices;
}

/// All ways to fill a stock length to which nothing more can be added; empty if there are too many.
std::vector<JointPlanner::Pattern> JointPlanner::patternsOf(const Kinds& kinds) const {
    std::vector<Pattern> patterns;
    std::vector<int> times(kinds.lengths.size(), 0);
    bool tooMany = false;
    for (const StockLength& stock : rules_.lengths) {
        const std::function<void(std::size_t, double)> fill = [&](std::size_t kind, double room) {
            if (tooMany) return;
            if (kind == kinds.lengths.size()) {
                if (std::accumulate(times.begin(), times.end(), 0) == 0) return;
                // Only patterns to which nothing more can be added.
                for (const double l : kinds.lengths)
                    if (l + rules_.kerf <= room + kLevel) return;
                patterns.push_back({stock.cost, times});
                tooMany = patterns.size() > kMostPatterns;
                return;
            }
            const double step = kinds.lengths[kind] + rules_.kerf;
            const int most = static_cast<int>(roundDown((room + kLevel) / step));
            for (int n = most; n >= 0; --n) {
                times[kind] = n;
                fill(kind + 1, room - n * step);
            }
            times[kind] = 0;
        };
        fill(0, stock.length.value + rules_.kerf);
    }
    if (tooMany) patterns.clear();
    return patterns;
}

/// The rows of the programme: each kind of piece is cut as often as it is wanted, each run laid in one way, and
/// neighbouring rows keep their joints apart. Columns: patterns, then choices.
void JointPlanner::addRows(glp_prob* lp, const Kinds& kinds, const std::vector<Pattern>& patterns,
                           const std::vector<Choice>& choices) const {
    const int nPatterns = static_cast<int>(patterns.size()), nChoices = static_cast<int>(choices.size());
    std::vector<int> row(1), column(1);
    std::vector<double> value(1);
    const auto put = [&](int r, int c, double v) {
        row.push_back(r);
        column.push_back(c);
        value.push_back(v);
    };
    // Each kind of piece is cut as often as it is wanted.
    int rowCount = glp_add_rows(lp, static_cast<int>(kinds.lengths.size())) - 1;
    for (std::size_t k = 0; k < kinds.lengths.size(); ++k) {
        const int r = rowCount + static_cast<int>(k) + 1;
        glp_set_row_bnds(lp, r, GLP_LO, 0, 0);
        for (int p = 0; p < nPatterns; ++p)
            if (const int n = patterns[static_cast<std::size_t>(p)].times[k]) put(r, p + 1, n);
        for (int c = 0; c < nChoices; ++c) {
            const auto& pieces = choices[static_cast<std::size_t>(c)].pieces;
            if (const auto n = std::count(pieces.begin(), pieces.end(), static_cast<int>(k)))
                put(r, nPatterns + c + 1, -static_cast<double>(n));
        }
    }
    // Each run is laid in one way.
    for (std::size_t i = 0; i < runs_.size(); ++i) {
        const int r = glp_add_rows(lp, 1);
        glp_set_row_bnds(lp, r, GLP_FX, 1, 1);
        for (int c = 0; c < nChoices; ++c)
            if (choices[static_cast<std::size_t>(c)].run == i) put(r, nPatterns + c + 1, 1);
    }
    // Neighbouring rows keep their joints apart.
    for (int a = 0; a < nChoices; ++a)
        for (int b = 0; b < a; ++b) {
            const Choice &one = choices[static_cast<std::size_t>(a)], &other = choices[static_cast<std::size_t>(b)];
            if (!overlap(runs_[one.run], runs_[other.run]) ||
                clashes(options_[one.run][one.option], options_[other.run][other.option]) == 0)
                continue;
            const int r = glp_add_rows(lp, 1);
            glp_set_row_bnds(lp, r, GLP_UP, 0, 1);
            put(r, nPatterns + a + 1, 1);
            put(r, nPatterns + b + 1, 1);
        }
    glp_load_matrix(lp, static_cast<int>(row.size()) - 1, row.data(), column.data(), value.data());
}

void JointPlanner::exact() {
    Kinds kinds;
    const std::vector<Choice> choices = choicesOf(kinds);
    const std::vector<Pattern> patterns = patternsOf(kinds);
    if (patterns.empty() || choices.size() > 1500) return;
    const std::unique_ptr<glp_prob, decltype(&glp_delete_prob)> lp(glp_create_prob(), glp_delete_prob);
    glp_set_obj_dir(lp.get(), GLP_MIN);
    const int nPatterns = static_cast<int>(patterns.size()), nChoices = static_cast<int>(choices.size());
    glp_add_cols(lp.get(), nPatterns + nChoices);
    for (int p = 0; p < nPatterns; ++p) {
        glp_set_col_bnds(lp.get(), p + 1, GLP_LO, 0, 0);
        glp_set_col_kind(lp.get(), p + 1, GLP_IV);
        glp_set_obj_coef(lp.get(), p + 1, static_cast<double>(patterns[static_cast<std::size_t>(p)].cost));
    }
    for (int c = 0; c < nChoices; ++c) glp_set_col_kind(lp.get(), nPatterns + c + 1, GLP_BV);
    addRows(lp.get(), kinds, patterns, choices);
    glp_smcp simplex;
    glp_init_smcp(&simplex);
    simplex.msg_lev = GLP_MSG_OFF;
    if (glp_simplex(lp.get(), &simplex) != 0 || glp_get_status(lp.get()) != GLP_OPT) return;
    plan_.leastCost = std::max(plan_.leastCost, roundUp(glp_get_obj_val(lp.get()) - 1e-6));
    glp_iocp options;
    glp_init_iocp(&options);
    options.msg_lev = GLP_MSG_OFF;
    BranchLimit limit{rules_.effort, &stop_};
    options.cb_func = onBranch;
    options.cb_info = &limit;
    const int result = glp_intopt(lp.get(), &options);
    const int status = glp_mip_status(lp.get());
    if (status != GLP_OPT && status != GLP_FEAS) return;
    const auto cost = static_cast<std::int64_t>(std::llround(glp_mip_obj_val(lp.get())));
    if (result == 0 && status == GLP_OPT) plan_.leastCost = std::max(plan_.leastCost, std::min(cost, plan_.cost));
    if (cost >= plan_.cost && clean_) return;
    plan_.cost = cost;
    plan_.boards = 0;
    for (int p = 0; p < nPatterns; ++p)
        plan_.boards += static_cast<int>(std::llround(glp_mip_col_val(lp.get(), p + 1)));
    for (int c = 0; c < nChoices; ++c)
        if (glp_mip_col_val(lp.get(), nPatterns + c + 1) > 0.5) {
            const Choice& chosen = choices[static_cast<std::size_t>(c)];
            plan_.joints[chosen.run] = options_[chosen.run][chosen.option];
        }
}

} // namespace

BarCost barCost(std::span<const double> pieces, std::span<const StockLength> lengths, double kerf) {
    std::vector<double> sorted(pieces.begin(), pieces.end());
    std::sort(sorted.begin(), sorted.end(), std::greater<>());
    BarCost best;
    if (sorted.empty()) return best;
    double total = 0, cheapest = std::numeric_limits<double>::max();
    for (const double p : sorted) total += p + kerf;
    for (const StockLength& l : lengths)
        cheapest = std::min(cheapest, static_cast<double>(l.cost) / (l.length.value + kerf));
    best.least = roundUp(total * cheapest - 1e-6);
    if (lengths.size() == 1) {
        // Pieces longer than half a board each need their own.
        const double length = lengths.front().length.value;
        const auto large =
            std::count_if(sorted.begin(), sorted.end(), [&](double p) { return p + kerf / 2 > length / 2; });
        best.least = lengths.front().cost * std::max<std::int64_t>(roundUp(total / (length + kerf) - 1e-9), large);
    }
    bool any = false;
    for (const StockLength& open : lengths) {
        if (sorted.front() > open.length.value + kLevel) continue;
        std::vector<double> room; // of each board opened, a kerf added: every piece takes one with it
        for (const double p : sorted) {
            const auto fit = std::find_if(room.begin(), room.end(), [&](double r) { return r + kLevel >= p + kerf; });
            if (fit == room.end())
                room.push_back(open.length.value - p);
            else
                *fit -= p + kerf;
        }
        BarCost found{0, best.least, static_cast<int>(room.size())};
        for (const double left : room) { // the cheapest length that holds what lies on the board
            std::int64_t cost = open.cost;
            for (const StockLength& l : lengths)
                if (l.length.value + kLevel >= open.length.value - left) cost = std::min(cost, l.cost);
            found.cost += cost;
        }
        if (!any || found.cost < best.cost) best = found;
        any = true;
    }
    return best;
}

JointPlan planJoints(const std::vector<Run>& runs, const JointRules& rules, const std::stop_token& stop) {
    return JointPlanner(runs, rules, stop).run();
}

} // namespace westrum
