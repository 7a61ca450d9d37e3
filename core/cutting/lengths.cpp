#include "core/cutting/lengths.h"

#include "core/cutting/bar_packer.h"
#include "core/cutting/bar_relaxation.h"
#include "core/cutting/stock_sets.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace westrum {

namespace {

constexpr double kFuzzMm = 1e-6;               // rounding noise in sums of lengths
constexpr std::int64_t kMostUnits = 60000;     // of the longest bar: keeps the knapsack small
constexpr std::size_t kMostKindsRelaxed = 500; // kinds of piece up to which the linear programme is solved
constexpr double kCostFuzz = 1e-9;

bool positive(double value) { return std::isfinite(value) && value > 0; }
bool notNegative(double value) { return std::isfinite(value) && value >= 0; }

/// Length between the trims.
double usable(const LengthsProblem& problem, std::size_t stock) {
    return problem.stock[stock].lengthMm - 2 * problem.endTrimMm;
}

/// The coarsest unit in which all lengths are whole, if the longest bar then has at most kMostUnits of them.
/// Otherwise the longest bar is divided into that many, and `exact` is false.
struct Unit {
    double mm = 1;
    bool exact = true;
};

Unit unitOf(const LengthsProblem& problem) {
    double longest = 0;
    std::vector<double> lengths{problem.kerfMm};
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        lengths.push_back(std::max(0.0, usable(problem, s)));
        longest = std::max(longest, lengths.back() + problem.kerfMm);
    }
    for (const LengthPiece& piece : problem.pieces) lengths.push_back(piece.lengthMm);
    for (const double mm : {10.0, 5.0, 1.0, 0.5, 0.2, 0.1, 0.05, 0.01}) {
        if (longest / mm > double(kMostUnits)) break;
        if (std::all_of(lengths.begin(), lengths.end(),
                        [mm](double l) { return std::abs(l / mm - std::round(l / mm)) * mm < kFuzzMm; }))
            return {mm, true};
    }
    return {std::max(longest, 1.0) / double(kMostUnits), false};
}

/// The problem in units: pieces of one length are one kind, kinds of stock that cannot be told apart stay apart.
struct Scaled {
    BarInstance instance;
    std::vector<std::vector<std::size_t>> places; ///< by kind of piece: places in the problem's list, one for each cut
    std::vector<std::size_t> stock;               ///< by kind of bar: place in the problem's list
    std::vector<double> price;
    std::vector<int> most; ///< by kind of bar
};

/// @param widen  false: what fits in units fits in mm; true: what fits in mm fits in units (for bounds)
Scaled scale(const LengthsProblem& problem, const Unit& unit, const std::vector<int>& count,
             const std::vector<int>& stockLeft, bool widen) {
    const auto units = [&](double mm, bool up) {
        const double value = mm / unit.mm;
        if (unit.exact) return std::int64_t(std::llround(value));
        return std::int64_t(up ? std::ceil(value - 1e-9) : std::floor(value + 1e-9));
    };
    std::map<std::int64_t, std::vector<std::size_t>, std::greater<>> kinds;
    int pieces = 0;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        if (count[i] <= 0) continue;
        auto& places = kinds[std::max<std::int64_t>(1, units(problem.pieces[i].lengthMm + problem.kerfMm, !widen))];
        places.insert(places.end(), std::size_t(count[i]), i);
        pieces += count[i];
    }
    Scaled scaled;
    for (auto& [size, places] : kinds) {
        scaled.instance.size.push_back(size);
        scaled.instance.demand.push_back(int(places.size()));
        scaled.places.push_back(std::move(places));
    }
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const std::int64_t capacity = units(usable(problem, s) + problem.kerfMm, widen);
        const int most = std::min(stockLeft[s], pieces);
        if (capacity <= 0 || most <= 0 || usable(problem, s) <= 0) continue;
        scaled.instance.capacity.push_back(capacity);
        scaled.stock.push_back(s);
        scaled.price.push_back(problem.stock[s].price);
        scaled.most.push_back(most);
    }
    return scaled;
}

double costOf(const Scaled& scaled, const StockSet& bars) {
    double cost = 0;
    for (std::size_t k = 0; k < bars.size(); ++k) cost += scaled.price[k] * bars[k];
    return cost;
}

using Packing = std::vector<PackedBar>;

/// Longest piece first into the first open bar that has room; else a new bar of the kind that is cheapest by length
/// among those long enough and not used up. Pieces that find none are left out.
Packing firstFit(const Scaled& scaled) {
    const BarInstance& in = scaled.instance;
    std::vector<std::size_t> kinds(in.capacity.size());
    std::iota(kinds.begin(), kinds.end(), std::size_t(0));
    std::stable_sort(kinds.begin(), kinds.end(), [&](std::size_t a, std::size_t b) {
        return scaled.price[a] / double(in.capacity[a]) < scaled.price[b] / double(in.capacity[b]);
    });
    StockSet used(kinds.size(), 0);
    Packing packing;
    std::vector<std::int64_t> room;
    for (std::size_t i = 0; i < in.size.size(); ++i) {
        std::size_t bar = 0; // equal pieces never fit a bar that an earlier one did not
        for (int n = 0; n < in.demand[i]; ++n) {
            while (bar < room.size() && room[bar] < in.size[i]) ++bar;
            if (bar == room.size()) {
                const auto kind = std::find_if(kinds.begin(), kinds.end(), [&](std::size_t k) {
                    return used[k] < scaled.most[k] && in.capacity[k] >= in.size[i];
                });
                if (kind == kinds.end()) break;
                ++used[*kind];
                packing.push_back({*kind, std::vector<int>(in.size.size(), 0)});
                room.push_back(in.capacity[*kind]);
            }
            ++packing[bar].pieces[i];
            room[bar] -= in.size[i];
        }
    }
    return packing;
}

StockSet setOf(const Scaled& scaled, const Packing& packing) {
    StockSet bars(scaled.price.size(), 0);
    for (const PackedBar& bar : packing) ++bars[bar.kind];
    return bars;
}

/// One attempt to pack a set of bars: the linear programme is solved, some of the fillings that it uses are taken, and
/// so on until few bars are left; those are packed by search.
std::optional<Packing> dive(const BarInstance& whole, StockSet bars, Dice& dice, std::int64_t most,
                            const std::function<bool()>& over) {
    constexpr int kFewBars = 8;
    BarInstance rest = whole;
    Packing packing;
    std::vector<BarRelaxation::Column> columns;
    while (std::accumulate(bars.begin(), bars.end(), 0) > kFewBars) {
        if (over()) return std::nullopt;
        BarRelaxation relaxation(rest);
        relaxation.startWith(columns);
        if (relaxation.cutAgainst(bars)) return std::nullopt;
        columns = relaxation.columns();
        // Whole times first; then single ones, the more likely the more often the programme uses them.
        int taken = 0;
        for (int pass = 0; pass < 2 && taken == 0; ++pass)
            for (const auto& column : columns) {
                const int times = pass == 0 ? int(column.times + 1e-6) : dice.unit() < column.times * 0.5 ? 1 : 0;
                for (int n = 0; n < times && bars[column.bar] > 0 && taken < std::max(1, int(bars.size()) * 6); ++n) {
                    bool fits = true;
                    for (std::size_t i = 0; i < rest.demand.size(); ++i)
                        fits = fits && column.pattern[i] <= rest.demand[i];
                    if (!fits || (pass == 0 && dice.unit() < 0.2)) break;
                    for (std::size_t i = 0; i < rest.demand.size(); ++i) rest.demand[i] -= column.pattern[i];
                    --bars[column.bar];
                    packing.push_back({column.bar, column.pattern});
                    ++taken;
                }
            }
        if (std::all_of(rest.demand.begin(), rest.demand.end(), [](int n) { return n == 0; })) return packing;
        if (taken == 0 && dice.unit() < 0.1) break;
    }
    BarPacker packer(rest, bars);
    auto found = packer.attempt(dice, most, over);
    if (!found) return std::nullopt;
    packing.insert(packing.end(), found->begin(), found->end());
    return packing;
}

/// Tries to free a long end of one bar: the same set of bars, one of them shortened as far as a packing can be found.
Packing withLongLeftover(const Scaled& scaled, Packing packing, Dice& dice, const Effort& effort) {
    const BarInstance& in = scaled.instance;
    const StockSet bars = setOf(scaled, packing);
    const auto left = [&](const PackedBar& bar) {
        std::int64_t room = in.capacity[bar.kind];
        for (std::size_t i = 0; i < in.size.size(); ++i) room -= in.size[i] * bar.pieces[i];
        return room;
    };
    std::int64_t slack = 0;
    std::int64_t longest = 0;
    for (const PackedBar& bar : packing) {
        slack += left(bar);
        longest = std::max(longest, left(bar));
    }
    for (std::size_t kind = 0; kind < bars.size(); ++kind) {
        if (bars[kind] == 0) continue;
        std::int64_t high = std::min(slack, in.capacity[kind] - 1);
        for (int step = 0; step < 7 && longest < high && effort.spent(0) < 1; ++step) {
            const std::int64_t aim = step == 0 ? high : (longest + high + 1) / 2;
            BarInstance shortened = in;
            shortened.capacity.push_back(in.capacity[kind] - aim);
            StockSet set = bars;
            --set[kind];
            set.push_back(1);
            BarPacker packer(shortened, set);
            auto found = packer.attempt(dice, 400, [&] { return effort.spent(0) >= 1; });
            if (!found) {
                high = aim - 1;
                continue;
            }
            for (PackedBar& bar : *found)
                if (bar.kind == bars.size()) bar.kind = kind;
            packing = std::move(*found);
            for (const PackedBar& bar : packing) longest = std::max(longest, left(bar));
        }
    }
    return packing;
}

LengthsPlan planOf(const LengthsProblem& problem, const Scaled& scaled, const Packing& packing) {
    LengthsPlan plan;
    plan.bars = problem.locked;
    for (CutBar& bar : plan.bars) bar.locked = true;
    std::vector<std::size_t> next(scaled.places.size(), 0);
    for (const PackedBar& packed : packing) {
        CutBar bar{.stock = scaled.stock[packed.kind]};
        for (std::size_t i = 0; i < packed.pieces.size(); ++i)
            for (int n = 0; n < packed.pieces[i]; ++n) bar.pieces.push_back(scaled.places[i][next[i]++]);
        if (!bar.pieces.empty()) plan.bars.push_back(std::move(bar));
    }
    for (const CutBar& bar : plan.bars) plan.cost += problem.stock[bar.stock].price;
    for (std::size_t i = 0; i < next.size(); ++i)
        for (std::size_t n = next[i]; n < scaled.places[i].size(); ++n) plan.unplaced.push_back(scaled.places[i][n]);
    return plan;
}

/// The search for the cheapest set of bars that holds all pieces: sets in order of cost, each tried to be packed.
class LengthsSearch {
public:
    LengthsSearch(const LengthsProblem& problem, const Effort& effort,
                  const std::function<void(const LengthsPlan&)>& progress)
        : problem_(problem), effort_(effort), progress_(progress), unit_(unitOf(problem)), dice_(effort.seed) {
        std::vector<int> count, stockLeft;
        for (const LengthPiece& piece : problem.pieces) count.push_back(piece.count);
        for (const LengthStock& stock : problem.stock)
            stockLeft.push_back(stock.count.value_or(std::numeric_limits<int>::max()));
        for (const CutBar& bar : problem.locked) {
            --stockLeft[bar.stock];
            for (const std::size_t i : bar.pieces) --count[i];
            lockedCost_ += problem.stock[bar.stock].price;
        }
        scaled_ = scale(problem, unit_, count, stockLeft, false);
        // Where lengths are not whole units, the bound comes from a problem of its own, rounded the other way.
        wide_ = unit_.exact ? scaled_ : scale(problem, unit_, count, stockLeft, true);
    }

    LengthsPlan run() {
        if (scaled_.instance.size.empty()) return finished(planOf(problem_, scaled_, {}), 0);
        if (scaled_.instance.capacity.empty()) // every bar is used up: all is left over
            return finished(planOf(problem_, scaled_, {}), 0);
        packing_ = firstFit(scaled_);
        const LengthsPlan first = planOf(problem_, scaled_, packing_);
        // With too little counted stock there is nothing to prove: the plan says what is left over.
        if (!first.unplaced.empty()) return finished(first, 0);
        if (effort_.spent(0) >= 1) return finished(first, 0); // the first layout only
        cost_ = costOf(scaled_, setOf(scaled_, packing_));
        if (wide_.stock != scaled_.stock) return finished(first, 0);
        std::vector<double> sizes;
        for (const std::int64_t capacity : wide_.instance.capacity) sizes.push_back(double(capacity));
        StockSets sets(wide_.price, sizes, wide_.most);
        sets.cuts.push_back(sizeCut(wide_.instance));
        relaxed_ = wide_.instance.size.size() <= kMostKindsRelaxed;
        everywhere_ = false;
        publish(0);
        listSets(sets);
        publish(bound());
        workOnOpen();
        packing_ = withLongLeftover(scaled_, std::move(packing_), dice_, effort_);
        return finished(planOf(problem_, scaled_, packing_), bound());
    }

private:
    struct Open {
        StockSet bars;
        double cost;
        BarPacker packer;
    };

    [[nodiscard]] LengthsPlan finished(LengthsPlan plan, double bound) const {
        plan.lowerBoundCost = std::min(lockedCost_ + bound, plan.cost);
        plan.proven = plan.cost <= plan.lowerBoundCost + kCostFuzz * std::max(1.0, plan.cost);
        return plan;
    }
    void publish(double bound) const {
        if (progress_) progress_(finished(planOf(problem_, scaled_, packing_), bound));
    }
    [[nodiscard]] double bound() const {
        double low = everywhere_ ? cost_ : ahead_;
        for (const Open& set : open_) low = std::min(low, set.cost);
        return std::min(low, cost_);
    }

    bool attempt(Open& set, std::int64_t most) {
        ++iterations_;
        const std::function<bool()> over = [this] { return effort_.spent(iterations_) >= 1; };
        // Every other attempt lets the linear programme choose most of the bars.
        auto found = relaxed_ && iterations_ % 2 == 0 ? dive(scaled_.instance, set.bars, dice_, most, over)
                                                      : set.packer.attempt(dice_, most, over);
        if (!found) return false;
        packing_ = std::move(*found);
        cost_ = costOf(scaled_, setOf(scaled_, packing_));
        return true;
    }

    /// Sets in order of cost, each with a short attempt, until one can be packed.
    void listSets(StockSets& sets) {
        std::optional<BarRelaxation> relaxation;
        if (relaxed_) relaxation.emplace(wide_.instance);
        while (effort_.spent(iterations_) < 1) {
            auto bars = sets.cheapest(cost_);
            if (!bars) {
                everywhere_ = sets.complete();
                return;
            }
            ahead_ = costOf(wide_, *bars);
            if (relaxed_)
                if (auto cut = relaxation->cutAgainst(*bars)) {
                    sets.cuts.push_back(std::move(*cut));
                    continue;
                }
            sets.tried.push_back(*bars);
            // Kinds of stock are the same in both scalings unless a piece of it is too short to matter.
            open_.push_back({*bars, ahead_, BarPacker(scaled_.instance, *bars)});
            bool packed = false;
            for (int n = 0; n < 3 && !packed; ++n) packed = attempt(open_.back(), 300);
            if (packed) {
                open_.pop_back();
                everywhere_ = true;
                return;
            }
            if (open_.back().packer.impossible() && unit_.exact) open_.pop_back();
            if (open_.size() >= 400) return;
        }
    }

    /// The sets left open, the cheapest with the most patience.
    void workOnOpen() {
        std::int64_t most = 1000;
        while (effort_.spent(iterations_) < 1) {
            std::erase_if(open_, [&](const Open& set) { return set.cost >= cost_ - kCostFuzz; });
            if (open_.empty()) return;
            std::size_t place = 0; // every set gets its turn, the first ones more often
            while (place + 1 < open_.size() && dice_.unit() < 0.5) ++place;
            if (attempt(open_[place], most)) {
                open_.erase(open_.begin() + std::ptrdiff_t(place));
                publish(bound());
            } else if (open_[place].packer.impossible() && unit_.exact) {
                open_.erase(open_.begin() + std::ptrdiff_t(place));
            }
            most = std::min<std::int64_t>(most + most / 20 + 1, 2'000'000);
        }
    }

    const LengthsProblem& problem_;
    const Effort& effort_;
    const std::function<void(const LengthsPlan&)>& progress_;
    Unit unit_;
    Scaled scaled_, wide_;
    double lockedCost_ = 0;
    Packing packing_;
    double cost_ = 0; ///< of what is packed
    bool relaxed_ = false;
    Dice dice_;
    std::vector<Open> open_; ///< in order of cost, neither ruled out nor packed
    std::int64_t iterations_ = 0;
    double ahead_ = 0;       ///< no set that is not yet listed costs less
    bool everywhere_ = true; ///< the list of sets is complete below `cost_`
};

} // namespace

CuttingFaults faultsOf(const LengthsProblem& problem) {
    CuttingFaults faults;
    if (problem.pieces.empty()) faults.push_back({CuttingFault::NoPieces});
    if (problem.stock.empty()) faults.push_back({CuttingFault::NoStock});
    if (!notNegative(problem.kerfMm) || problem.kerfMm > kAbsurdCutMm || !notNegative(problem.endTrimMm) ||
        problem.endTrimMm > kAbsurdCutMm)
        faults.push_back({CuttingFault::KerfNegative});
    double longest = 0;
    for (std::size_t s = 0; s < problem.stock.size(); ++s) {
        const LengthStock& stock = problem.stock[s];
        if (!positive(stock.lengthMm))
            faults.push_back({CuttingFault::StockNotPositive, s});
        else if (stock.lengthMm > kAbsurdCutMm)
            faults.push_back({CuttingFault::StockAbsurd, s});
        else if (usable(problem, s) <= 0)
            faults.push_back({CuttingFault::TrimEatsStock, s});
        else if (!stock.count || *stock.count > 0)
            longest = std::max(longest, usable(problem, s));
        if (!notNegative(stock.price)) faults.push_back({CuttingFault::StockPriceNegative, s});
    }
    std::size_t pieces = 0;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        const LengthPiece& piece = problem.pieces[i];
        if (piece.count < 0)
            faults.push_back({CuttingFault::PieceCountNegative, i});
        else
            pieces += std::size_t(piece.count);
        if (!positive(piece.lengthMm))
            faults.push_back({CuttingFault::PieceNotPositive, i});
        else if (piece.lengthMm > kAbsurdCutMm)
            faults.push_back({CuttingFault::PieceAbsurd, i});
        else if (!problem.stock.empty() && piece.lengthMm > longest + kFuzzMm)
            faults.push_back({CuttingFault::PieceTooLarge, i});
    }
    if (pieces > kMostPieces) faults.push_back({CuttingFault::PieceTooMany});
    if (!faults.empty()) return faults;
    std::vector<int> stockUsed(problem.stock.size(), 0);
    std::vector<int> pieceUsed(problem.pieces.size(), 0);
    for (std::size_t b = 0; b < problem.locked.size(); ++b) {
        const CutBar& bar = problem.locked[b];
        bool known = bar.stock < problem.stock.size();
        if (known) {
            const auto& count = problem.stock[bar.stock].count;
            known = ++stockUsed[bar.stock] <= count.value_or(std::numeric_limits<int>::max());
        }
        for (const std::size_t i : bar.pieces)
            known = known && i < problem.pieces.size() && ++pieceUsed[i] <= problem.pieces[i].count;
        if (!known) {
            faults.push_back({CuttingFault::LockedUnknown, b});
            continue;
        }
        double used = 0;
        for (const std::size_t i : bar.pieces) used += problem.pieces[i].lengthMm + problem.kerfMm;
        if (used > usable(problem, bar.stock) + problem.kerfMm + kFuzzMm)
            faults.push_back({CuttingFault::LockedDoesNotFit, b});
    }
    return faults;
}

double leftoverMm(const LengthsProblem& problem, const CutBar& bar) {
    double left = usable(problem, bar.stock);
    for (const std::size_t i : bar.pieces) left -= problem.pieces[i].lengthMm + problem.kerfMm;
    return std::max(0.0, left);
}

LengthsPlan cutLengths(const LengthsProblem& problem, const Effort& effort,
                       const std::function<void(const LengthsPlan&)>& progress) {
    return LengthsSearch(problem, effort, progress).run();
}

} // namespace westrum
