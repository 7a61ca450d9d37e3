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

/// Parts a planned sheet by cuts right across, the saw set up as seldom as it can be.
class SheetParter {
public:
    explicit SheetParter(double kerf) : kerf_(kerf) {}

    std::optional<SheetCuts> run(const SheetStock& stock, const std::vector<Rectangle>& rectangles) {
        result_.parts.push_back({0, 0, stock.widthMm, stock.heightMm});
        part(0, rectangles);
        return sound_ ? std::optional(std::move(result_)) : std::nullopt;
    }

private:
    using Strips = std::vector<std::pair<int, std::vector<Rectangle>>>;

    [[nodiscard]] const SheetPart& at(int part) const { return result_.parts[std::size_t(part)]; }
    [[nodiscard]] double low(int part, int axis) const { return axis == 0 ? at(part).x : at(part).y; }
    [[nodiscard]] double size(int part, int axis) const { return axis == 0 ? at(part).widthMm : at(part).heightMm; }

    /// Cuts off what lies below a place along an axis; returns the far part, -1 if nothing is left there.
    int cut(int part, int axis, double where, bool nearIsOffcut) {
        const SheetPart whole = at(part);
        const double start = low(part, axis), whole_size = size(part, axis);
        SheetPart near = whole;
        (axis == 0 ? near.widthMm : near.heightMm) = where - start;
        near.offcut = nearIsOffcut;
        SheetCut made{.part = part, .along = axis == 1, .atMm = where - start, .sheetAtMm = where};
        made.near = int(result_.parts.size());
        result_.parts.push_back(near);
        const double rest = whole_size - (where - start) - kerf_;
        if (rest > kFuzzMm) {
            SheetPart far = whole;
            (axis == 0 ? far.x : far.y) = where + kerf_;
            (axis == 0 ? far.widthMm : far.heightMm) = rest;
            made.far = int(result_.parts.size());
            result_.parts.push_back(far);
        }
        if (axis != lastAxis_ && lastAxis_ >= 0) ++result_.turns;
        lastAxis_ = axis;
        result_.cuts.push_back(made);
        return made.far;
    }

    /// Which way the part is cut next; -1: it holds its single piece and nothing else, or no cut right across parts it.
    [[nodiscard]] int axisOf(int part, const std::vector<Rectangle>& rectangles, std::size_t across,
                             std::size_t along) const {
        if (rectangles.size() == 1) {
            // Trim what is left beside the single piece; first the way the saw already stands.
            for (int n = 0; n < 2; ++n) {
                const int a = lastAxis_ < 0 ? n : n == 0 ? lastAxis_ : 1 - lastAxis_;
                const Rectangle& r = rectangles.front();
                if (r.low(a) > low(part, a) + kFuzzMm || r.high(a) < low(part, a) + size(part, a) - kFuzzMm) return a;
            }
            return -1;
        }
        if (across > 1 && along > 1) return lastAxis_ >= 0 ? lastAxis_ : across <= along ? 0 : 1;
        return across > 1 ? 0 : along > 1 ? 1 : -1;
    }

    /// All parallel cuts of a part, round its groups one after the other.
    Strips strips(int part, int axis, const std::vector<std::vector<Rectangle>>& groups) {
        Strips strips;
        int rest = part;
        for (std::size_t g = 0; g < groups.size() && rest >= 0; ++g) {
            double from = std::numeric_limits<double>::infinity(), to = -from;
            for (const Rectangle& r : groups[g]) {
                from = std::min(from, r.low(axis));
                to = std::max(to, r.high(axis));
            }
            const double start = low(rest, axis);
            if (from > start + kFuzzMm) rest = cut(rest, axis, std::max(start, from - kerf_), true);
            if (rest < 0) break;
            if (to < low(rest, axis) + size(rest, axis) - kFuzzMm) {
                rest = cut(rest, axis, to, false);
                strips.emplace_back(result_.cuts.back().near, groups[g]);
            } else {
                strips.emplace_back(rest, groups[g]);
                rest = -1;
            }
        }
        if (rest >= 0) result_.parts[std::size_t(rest)].offcut = true;
        return strips;
    }

    void part(int part, const std::vector<Rectangle>& rectangles) {
        if (rectangles.empty()) {
            result_.parts[std::size_t(part)].offcut = true;
            return;
        }
        // Along each axis: the strips that whole cuts part the rectangles into, or trims round one group.
        const std::array groups{groupsAlong(rectangles, 0, kerf_), groupsAlong(rectangles, 1, kerf_)};
        const int axis = axisOf(part, rectangles, groups[0].size(), groups[1].size());
        if (axis < 0) {
            if (rectangles.size() == 1)
                result_.parts[std::size_t(part)].piece = rectangles.front().place;
            else
                sound_ = false;
            return;
        }
        for (const auto& [strip, group] : strips(part, axis, groups[std::size_t(axis)])) {
            if (strip == part) sound_ = false; // nothing was cut off: the other axis has to do it
            if (!sound_) return;
            this->part(strip, group);
        }
    }

    double kerf_;
    SheetCuts result_;
    bool sound_ = true;
    int lastAxis_ = -1;
};

/// The search for the cheapest set of sheets that holds all pieces.
class SheetsSearch {
public:
    SheetsSearch(const SheetsProblem& problem, const Effort& effort,
                 const std::function<void(const SheetsPlan&)>& progress)
        : problem_(problem), effort_(effort), progress_(progress), scaled_(scale(problem)) {
        for (const SheetStock& stock : problem.stock)
            left_.push_back(std::min(stock.count.value_or(std::numeric_limits<int>::max()), int(scaled_.loose.size())));
        for (const CutSheet& sheet : problem.fixed) {
            fixedCost_ += problem.stock[sheet.stock].price;
            if (problem.stock[sheet.stock].count) --left_[sheet.stock];
        }
        for (int& n : left_) n = std::max(n, 0);
        for (std::size_t s = 0; s < problem.stock.size(); ++s) {
            price_.push_back(problem.stock[s].price);
            area_.push_back(double(scaled_.size[s][0]) * double(scaled_.size[s][1]));
        }
    }

    SheetsPlan run() {
        best_ = planOf(problem_, scaled_, firstPacking());
        if (scaled_.loose.empty()) return finished(0);
        if (effort_.spent(0) >= 1) return finished(0); // the first layout only
        StockSets sets(price_, area_, left_);
        for (const int i : scaled_.loose) items_.push_back(scaled_.items[std::size_t(i)]);
        // The free parts of pinned sheets carry some: said by no inequality here.
        if (scaled_.pinned.empty()) sets.cuts = sheetCuts(items_, scaled_.size);
        if (best_.unplaced.empty()) listMore(sets, 40);
        if (progress_) progress_(finished(bound()));
        std::int64_t iterations = 0;
        Dice dice(effort_.seed);
        const int rounds = std::clamp(4000 / int(scaled_.loose.size() + 1), 1, 100);
        while (!open_.empty() && effort_.spent(iterations) < 1) {
            // Half the time the cheapest set, else one of those that cost a little less than the best so far.
            const std::size_t place =
                dice.unit() < 0.5 ? 0 : open_.size() - 1 - std::min(open_.size() - 1, dice.below(3));
            iterations += rounds;
            if (!open_[place].search.improve(rounds)) continue;
            best_ = planOf(problem_, scaled_, open_[place].search.packing());
            const double now = cost();
            std::erase_if(open_, [now](const Open& o) { return o.cost >= now - kCostFuzz; });
            listMore(sets, 40);
            if (progress_) progress_(finished(bound()));
        }
        return finished(bound());
    }

private:
    struct Open {
        StockSet set;
        double cost;
        SheetSearch search;
    };

    [[nodiscard]] bool fits(const SheetItem& item, std::size_t kind) const {
        const auto& size = scaled_.size[kind];
        return (item.size[0] <= size[0] && item.size[1] <= size[1]) ||
               (item.mayTurn && item.size[1] <= size[0] && item.size[0] <= size[1]);
    }
    SheetPacking firstPacking() {
        // The cheapest kind for its area first, what lies on the rack before all others.
        std::vector<std::size_t> kinds(price_.size());
        std::iota(kinds.begin(), kinds.end(), std::size_t(0));
        std::stable_sort(kinds.begin(), kinds.end(),
                         [&](std::size_t a, std::size_t b) { return price_[a] / area_[a] < price_[b] / area_[b]; });
        std::vector<int> opened(price_.size(), 0);
        return firstSheets(scaled_.items, scaled_.pinned, scaled_.loose,
                           [&](const SheetItem& item) -> std::optional<SheetTree> {
                               for (const std::size_t kind : kinds)
                                   if (opened[kind] < left_[kind] && fits(item, kind)) {
                                       ++opened[kind];
                                       return SheetTree(scaled_.size[kind], kind);
                                   }
                               return std::nullopt;
                           });
    }

    [[nodiscard]] SheetsPlan finished(double bound) const {
        SheetsPlan plan = best_;
        plan.lowerBoundCost = std::min(fixedCost_ + bound, plan.cost);
        plan.proven = plan.unplaced.empty() && plan.cost <= plan.lowerBoundCost + kCostFuzz * std::max(1.0, plan.cost);
        return plan;
    }
    [[nodiscard]] double cost() const {
        return best_.unplaced.empty() ? best_.cost - fixedCost_ : kAbsurdCutMm * kAbsurdCutMm;
    }
    [[nodiscard]] double bound() const {
        double low = listed_ ? cost() : ahead_;
        for (const Open& o : open_) low = std::min(low, o.cost);
        return low;
    }

    void listMore(StockSets& sets, std::size_t upTo) {
        while (!listed_ && open_.size() < upTo && effort_.spent(0) < 1) {
            const auto set = sets.cheapest(cost());
            if (!set) {
                listed_ = sets.complete();
                return;
            }
            ahead_ = sets.costOf(*set);
            if (scaled_.pinned.empty())
                if (auto cut = sliceCut(items_, scaled_.size, *set)) {
                    sets.cuts.push_back(std::move(*cut));
                    continue;
                }
            sets.tried.push_back(*set);
            std::vector<SheetTree> sheets = scaled_.pinned;
            for (std::size_t k = 0; k < set->size(); ++k)
                for (int n = 0; n < (*set)[k]; ++n) sheets.emplace_back(scaled_.size[k], k);
            open_.push_back(
                {*set, ahead_,
                 SheetSearch(scaled_.items, std::move(sheets), scaled_.loose, effort_.seed + open_.size())});
        }
    }

    const SheetsProblem& problem_;
    const Effort& effort_;
    const std::function<void(const SheetsPlan&)>& progress_;
    Scaled scaled_;
    double fixedCost_ = 0;
    std::vector<int> left_;
    std::vector<double> price_, area_;
    std::vector<SheetItem> items_; ///< the loose ones
    SheetsPlan best_;
    std::vector<Open> open_; ///< sets that cost less than the best, not packed yet
    double ahead_ = 0;       ///< no set that is not yet listed costs less
    bool listed_ = false;    ///< there is none left
};

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
    return SheetsSearch(problem, effort, progress).run();
}

std::optional<SheetCuts> cutsOf(const SheetsProblem& problem, const CutSheet& sheet) {
    return SheetParter(problem.kerfMm).run(problem.stock[sheet.stock], rectanglesOf(problem, sheet));
}

} // namespace westrum
