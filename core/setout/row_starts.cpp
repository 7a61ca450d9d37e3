#include "core/setout/row_starts.h"

#include "core/units/count.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <memory>
#include <numeric>
#include <optional>

namespace westrum {
namespace {

constexpr double kSlack = 1e-7; // mm: lengths this near are the same
constexpr int kShort = 2;       // steps of a short try, by run
constexpr double kFar = std::numeric_limits<double>::infinity();

/// Upper bounds on all differences between variables, kept closed under addition ("difference bound matrix").
/// Variable 0 is the constant zero. With the joints as unknowns every rule of the floor is such a difference.
class Differences {
public:
    explicit Differences(int variables)
        : n_(variables + 1), bound_(static_cast<std::size_t>(n_) * static_cast<std::size_t>(n_), kFar) {
        for (int i = 0; i < n_; ++i) at(i, i) = 0;
    }

    /// Demands x_u - x_v <= c. Returns false, leaving the matrix unusable, if that contradicts what is there.
    bool require(int u, int v, double c) {
        if (at(v, u) + c < -kSlack) return false;
        if (c >= at(u, v)) return true;
        const auto n = static_cast<std::size_t>(n_);
        const double* fromV = &bound_[static_cast<std::size_t>(v) * n];
        for (std::size_t i = 0; i < n; ++i) {
            double* row = &bound_[i * n];
            const double toU = row[u] + c;
            if (toU >= row[v]) continue; // being closed, nothing beyond v comes nearer either
            for (std::size_t j = 0; j < n; ++j) row[j] = std::min(row[j], toU + fromV[j]);
        }
        return true;
    }
    /// Whether require() would succeed; much cheaper than trying.
    [[nodiscard]] bool allows(int u, int v, double c) const { return at(v, u) + c >= -kSlack; }
    bool requireBetween(int u, double low, double high) { return require(u, 0, high) && require(0, u, -low); }

    [[nodiscard]] double most(int u, int v = 0) const { return at(u, v); }
    [[nodiscard]] double least(int u, int v = 0) const { return -at(v, u); }

private:
    [[nodiscard]] double at(int i, int j) const {
        return bound_[static_cast<std::size_t>(i) * static_cast<std::size_t>(n_) + static_cast<std::size_t>(j)];
    }
    double& at(int i, int j) {
        return bound_[static_cast<std::size_t>(i) * static_cast<std::size_t>(n_) + static_cast<std::size_t>(j)];
    }

    int n_;
    std::vector<double> bound_;
};

/// A run as the search sees it. For a run with joints the unknown is `first`, the length of its first piece.
struct Line {
    const Run* run{};
    bool single{};
    int variable{};          ///< > 0 for a run with joints
    double rest{};           ///< length beyond the whole planks, in (0, plank]
    int planksInside{};      ///< q: length = q planks + rest
    std::vector<int> beside; ///< earlier runs in the row before that overlap this one, with joints
};

/// A cut plank being filled from its left-hand end: a last piece of a run (or nothing), then single pieces, and
/// perhaps a first piece at its right-hand end. Used length = fixed + (last piece of run `lastOf`, if any). Kept small:
/// the search copies many. Its single pieces are a chain through State::singleBefore.
struct Slot {
    int lastOf = -1;
    double fixed{};
    int lastSingle = -1;
    int firstOf = -1;
};

struct State {
    explicit State(int variables) : bounds(variables) {}
    Differences bounds;
    std::vector<int> wholes;
    std::vector<Slot> slots;
    std::vector<int> singleBefore; ///< by run: the single piece before it in its plank, or -1
    std::vector<int> waitingFirst; ///< runs whose first piece will come out of a later run's plank
    int spent = 0;
};

/// States by depth of the search, made once: the search copies one at every step.
class States {
public:
    /// A copy of a state, given back when it goes.
    class Copy {
    public:
        Copy(States& states, const State& from) : states_(states) {
            if (states_.inUse_ == states_.all_.size())
                states_.all_.push_back(std::make_unique<State>(from));
            else
                *states_.all_[states_.inUse_] = from;
            state_ = states_.all_[states_.inUse_++].get();
        }
        ~Copy() { --states_.inUse_; }
        Copy(const Copy&) = delete;
        Copy& operator=(const Copy&) = delete;
        State* operator->() const { return state_; }
        State& operator*() const { return *state_; }

    private:
        States& states_;
        State* state_;
    };

private:
    std::vector<std::unique_ptr<State>> all_;
    std::size_t inUse_ = 0;
};

class Search {
public:
    Search(const std::vector<Run>& runs, const RowRules& rules, const std::stop_token& stop)
        : rules_(rules), stop_(stop) {
        const double plank = rules.plankLength;
        for (const Run& run : runs) {
            Line line{.run = &run};
            line.single = run.length <= plank + kSlack;
            if (!line.single) {
                line.variable = ++variables_;
                line.planksInside = static_cast<int>(std::ceil(run.length / plank - 1e-9)) - 1;
                line.rest = run.length - line.planksInside * plank;
                for (std::size_t other = lines_.size(); other-- > 0;) {
                    const Run& r = *lines_[other].run;
                    if (r.row < run.row - 1) break;
                    if (r.row == run.row - 1 && !lines_[other].single && r.start < run.end() - kSlack &&
                        run.start < r.end() - kSlack)
                        line.beside.push_back(static_cast<int>(other));
                }
            }
            lines_.push_back(std::move(line));
        }
        findLeastCosts();
    }

    /// No fewer cut planks can do: every first, last and single piece takes its length and one kerf out of a plank
    /// lengthened by one kerf.
    [[nodiscard]] int leastCutPlanks() const {
        double sum = 0;
        for (const Line& line : lines_) sum += (line.single ? line.run->length : line.rest) + rules_.kerf;
        const int byLength = static_cast<int>(std::ceil(sum / (rules_.plankLength + rules_.kerf) - 1e-9));
        return std::max(byLength, costFromFree_.front());
    }
    [[nodiscard]] int wholePlanksInside() const {
        return std::accumulate(lines_.begin(), lines_.end(), 0,
                               [](int sum, const Line& line) { return sum + line.planksInside; });
    }
    /// More is never needed: each run with a joint spends at most two, each single piece one.
    [[nodiscard]] int mostCutPlanks() const {
        return std::accumulate(lines_.begin(), lines_.end(), 0,
                               [](int sum, const Line& line) { return sum + (line.single ? 1 : 2); });
    }

    enum class Outcome { Found, Impossible, GaveUp };

    /// Looks for a layout that spends at most `budget` planks beyond those inside.
    Outcome tryWith(int budget, bool shareFreely, int effort) {
        budget_ = budget;
        shareFreely_ = shareFreely;
        costFrom_ = shareFreely ? &costFromFree_ : &costFromInOrder_;
        found_.reset();
        State start(variables_);
        start.wholes.assign(lines_.size(), 0);
        start.singleBefore.assign(lines_.size(), -1);
        // A wrong choice early on costs the whole of what is left: many short tries in other orders find what one long
        // one misses. The last goes on in the plain order as long as it may.
        const int brief = kShort * static_cast<int>(lines_.size());
        for (int spent = 0; spent < effort;) {
            const int steps = spent == 0 || spent + brief < effort / 2 ? std::min(brief, effort) : effort - spent;
            shuffled_ = spent > 0 && spent + brief < effort / 2;
            stepsLeft_ = steps;
            gaveUp_ = false;
            if (place(0, start)) return Outcome::Found;
            if (!gaveUp_) return Outcome::Impossible;
            if (stop_.stop_requested()) break;
            spent += steps;
        }
        return Outcome::GaveUp;
    }

    /// The layout found by the last successful tryWith().
    [[nodiscard]] RowPlan layout() {
        State& state = *found_;
        Differences& b = state.bounds;
        const auto tighten = [&b](int u, int v, double c) {
            Differences trial = b;
            if (trial.require(u, v, c)) b = std::move(trial);
        };
        // Fewer cuts first: use an offcut as it is, and whole planks at the ends, wherever the rules leave the choice.
        for (const Slot& slot : state.slots)
            if (slot.firstOf >= 0) {
                const double room = roomAfter(state, slot);
                if (slot.lastOf >= 0)
                    tighten(lines_[at(slot.lastOf)].variable, lines_[at(slot.firstOf)].variable, -room);
                else
                    tighten(0, lines_[at(slot.firstOf)].variable, -room);
            }
        for (const Line& line : lines_)
            if (!line.single) tighten(0, line.variable, -rules_.plankLength);
        RowPlan plan;
        for (std::size_t i = 0; i < lines_.size(); ++i) {
            const Line& line = lines_[i];
            RunLayout laid{.first = line.run->length};
            if (!line.single) {
                // What freedom is left goes to the middle of its range, which spreads the joints.
                const double value =
                    std::clamp((b.least(line.variable) + b.most(line.variable)) / 2, 0.0, rules_.plankLength);
                b.require(line.variable, 0, value);
                b.require(0, line.variable, -value);
                laid.first = value;
                laid.wholes = state.wholes[i];
                laid.last = line.run->length - value - laid.wholes * rules_.plankLength;
            }
            plan.runs.push_back(laid);
            plan.planks += laid.wholes;
        }
        for (const Slot& slot : state.slots) {
            CutPlank plank;
            if (slot.lastOf >= 0) plank.parts.push_back({slot.lastOf, RunPiece::Last});
            const auto from = plank.parts.end() - plank.parts.begin();
            for (int s = slot.lastSingle; s >= 0; s = state.singleBefore[at(s)])
                plank.parts.push_back({s, RunPiece::Single});
            std::reverse(plank.parts.begin() + from, plank.parts.end());
            if (slot.firstOf >= 0) plank.parts.push_back({slot.firstOf, RunPiece::First});
            plan.cutPlanks.push_back(std::move(plank));
        }
        plan.planks += static_cast<int>(plan.cutPlanks.size());
        return plan;
    }

private:
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }

    /// The two ways to lay a run: with the most whole planks (`fewer` 0), which spends one plank more, or with one
    /// less.
    struct Way {
        double sum{};  ///< first and last piece together
        double low{};  ///< least first piece
        double high{}; ///< greatest first piece
        [[nodiscard]] bool possible() const { return low <= high + kSlack; }
    };
    [[nodiscard]] Way way(const Line& line, int fewer) const {
        const double plank = rules_.plankLength;
        const double endLeast = std::max(rules_.endLeast, 0.0);
        const double sum = line.rest + (fewer ? plank : 0);
        return {sum, std::max(endLeast, sum - plank), std::min(plank, sum - endLeast)};
    }
    [[nodiscard]] double leastLast(const Line& line) const {
        double least = kFar;
        for (int fewer : {0, 1})
            if (const Way w = way(line, fewer); w.possible()) least = std::min(least, w.sum - w.high);
        return least;
    }

    /// What each run costs at the very least: nothing only if its first piece can be as short as to share a plank with
    /// the shortest last or single piece there is.
    void findLeastCosts() {
        const std::size_t n = lines_.size();
        shortestFrom_.assign(n + 1, kFar);
        shortestSingleFrom_.assign(n + 1, kFar);
        shortestNext_.assign(n + 1, kFar);
        for (std::size_t i = n; i-- > 0;) {
            const Line& line = lines_[i];
            demand_ += (line.single ? line.run->length : line.rest) + rules_.kerf;
            shortestSingleFrom_[i] = std::min(shortestSingleFrom_[i + 1], line.single ? line.run->length : kFar);
            shortestNext_[i] = std::min(shortestNext_[i + 1],
                                        line.single ? line.run->length
                                                    : std::min(way(line, 0).possible() ? way(line, 0).low : kFar,
                                                               way(line, 1).possible() ? way(line, 1).low : kFar));
        }
        for (std::size_t i = n; i-- > 0;)
            shortestFrom_[i] =
                std::min(shortestFrom_[i + 1], lines_[i].single ? lines_[i].run->length : leastLast(lines_[i]));
        const auto costs = [&](bool free) {
            std::vector<int> from(n + 1, 0);
            std::vector<int> each(n, 0);
            double shortestBefore = kFar;
            for (std::size_t i = 0; i < n; ++i) {
                const Line& line = lines_[i];
                if (!line.single) {
                    const double partner = free ? shortestFrom_[0] : shortestBefore;
                    each[i] = 2;
                    for (int fewer : {0, 1}) {
                        const Way w = way(line, fewer);
                        if (!w.possible()) continue;
                        const bool shares = w.low + partner + rules_.kerf <= rules_.plankLength + kSlack;
                        each[i] = std::min(each[i], (fewer ? 0 : 1) + (shares ? 0 : 1));
                    }
                }
                shortestBefore = std::min(shortestBefore, line.single ? line.run->length : leastLast(line));
            }
            for (std::size_t i = n; i-- > 0;) from[i] = from[i + 1] + each[i];
            return from;
        };
        costFromFree_ = costs(true);
        costFromInOrder_ = costs(false);
    }

    /// Sum of last piece and whole-plank remainder R: last = R - first. R = rest, or plank + rest with one whole less.
    [[nodiscard]] double ends(const State& state, int run) const {
        return lines_[at(run)].run->length - state.wholes[at(run)] * rules_.plankLength;
    }

    /// The constant c in first(firstOf) <= c + first(lastOf) (or <= c without a last piece) for a first piece to fit.
    [[nodiscard]] double roomAfter(const State& state, const Slot& slot) const {
        double room = rules_.plankLength - slot.fixed;
        if (slot.lastOf >= 0)
            room -= ends(state, slot.lastOf) + rules_.kerf;
        else if (slot.lastSingle >= 0)
            room -= rules_.kerf;
        return room;
    }

    /// Where to begin among so many alternatives.
    std::size_t turnOf(std::size_t alternatives) {
        if (!shuffled_ || alternatives == 0) return 0;
        dice_ = dice_ * 6364136223846793005ULL + 1442695040888963407ULL;
        return static_cast<std::size_t>((dice_ >> 33) % alternatives);
    }

    bool place(std::size_t index, const State& state) {
        if (stepsLeft_-- <= 0 || stop_.stop_requested()) {
            gaveUp_ = true;
            return false;
        }
        if (index == lines_.size()) {
            if (!state.waitingFirst.empty()) return false;
            found_ = state;
            return true;
        }
        if (wastesTooMuch(index, state)) return false;
        return lines_[index].single ? placeSingle(index, state) : placeJointed(index, state);
    }

    /// Whether the planks filled so far leave more unused than the budget does.
    bool wastesTooMuch(std::size_t index, const State& state) const {
        double left = budget_ * (rules_.plankLength + rules_.kerf) - demand_;
        for (std::size_t i = 0; i < index; ++i)
            if (!lines_[i].single && state.wholes[i] == lines_[i].planksInside) left -= rules_.kerf;
        for (const Slot& slot : state.slots) {
            const int last = slot.lastOf >= 0 ? lines_[at(slot.lastOf)].variable : 0;
            double least = 0, most = 0; // room left in the plank
            if (slot.firstOf >= 0) {
                const int first = lines_[at(slot.firstOf)].variable;
                const double room = roomAfter(state, slot);
                least = room - state.bounds.most(first, last);
                most = room - state.bounds.least(first, last);
            } else {
                const double room = rules_.plankLength - slot.fixed - (slot.lastOf >= 0 ? ends(state, slot.lastOf) : 0);
                least = room + state.bounds.least(last);
                most = room + state.bounds.most(last);
            }
            const double next = slot.firstOf < 0 ? shortestNext_[index]
                                : shareFreely_   ? shortestSingleFrom_[index]
                                                 : kFar;
            if (next + rules_.kerf > most + kSlack) left -= std::max(0.0, least);
        }
        return left < -kSlack * static_cast<double>(lines_.size());
    }

    bool placeSingle(std::size_t index, const State& state) {
        const double length = lines_[index].run->length;
        const std::size_t turn = turnOf(state.slots.size());
        for (std::size_t k = 0; k < state.slots.size(); ++k) {
            const std::size_t s = (k + turn) % state.slots.size();
            const Slot& slot = state.slots[s];
            if (slot.firstOf >= 0 && !shareFreely_) continue;
            Slot filled = slot;
            filled.lastSingle = static_cast<int>(index);
            filled.fixed += length + (slot.lastOf >= 0 || slot.lastSingle >= 0 ? rules_.kerf : 0);
            if (!couldFit(state, filled)) continue; // before anything is copied
            const States::Copy next(states_, state);
            next->singleBefore[index] = slot.lastSingle;
            next->slots[s] = filled;
            if (!fits(*next, filled)) continue;
            if (place(index + 1, *next)) return true;
            if (gaveUp_) return false;
        }
        if (state.spent + 1 + (*costFrom_)[index + 1] > budget_) return false;
        const States::Copy next(states_, state);
        ++next->spent;
        next->slots.push_back({.fixed = length, .lastSingle = static_cast<int>(index)});
        return place(index + 1, *next);
    }

    /// That what is in a slot fits on the plank: x_u - x_v <= c.
    struct Demand {
        int u{}, v{};
        double c{};
    };
    [[nodiscard]] Demand demandOf(const State& state, const Slot& slot) const {
        const int last = slot.lastOf >= 0 ? lines_[at(slot.lastOf)].variable : 0;
        if (slot.firstOf >= 0) return {lines_[at(slot.firstOf)].variable, last, roomAfter(state, slot)};
        if (slot.lastOf >= 0) return {0, last, rules_.plankLength - slot.fixed - ends(state, slot.lastOf)};
        return {0, 0, rules_.plankLength - slot.fixed};
    }
    [[nodiscard]] bool couldFit(const State& state, const Slot& slot) const {
        const Demand d = demandOf(state, slot);
        return state.bounds.allows(d.u, d.v, d.c);
    }
    bool fits(State& state, const Slot& slot) const {
        const Demand d = demandOf(state, slot);
        return state.bounds.require(d.u, d.v, d.c);
    }

    bool placeJointed(std::size_t index, const State& state) {
        const Line& line = lines_[index];
        // One whole plank less makes both ends long and spends nothing; the other way spends one plank more.
        const int turn = static_cast<int>(turnOf(2));
        for (int k = 1; k >= 0; --k) {
            const int fewer = k ^ turn;
            const int cost = fewer ? 0 : 1;
            if (state.spent + cost + (*costFrom_)[index + 1] > budget_) continue;
            const Way w = way(line, fewer);
            if (!w.possible()) continue;
            const States::Copy next(states_, state);
            next->spent += cost;
            next->wholes[index] = line.planksInside - fewer;
            if (!next->bounds.requireBetween(line.variable, w.low, w.high)) continue;
            if (stagger(index, 0, *next)) return true;
            if (gaveUp_) return false;
        }
        return false;
    }

    /// Chooses, for each neighbour in turn, on which side of its joints ours lie.
    bool stagger(std::size_t index, std::size_t neighbour, const State& state) {
        const Line& line = lines_[index];
        if (neighbour == line.beside.size()) return takeFirst(index, state);
        const int otherIndex = line.beside[neighbour];
        const Line& other = lines_[at(otherIndex)];
        const double plank = rules_.plankLength;
        const double s = rules_.stagger;
        // Joints: ours at start + first + t * plank, t = 0..wholes. With delta = our first joint - theirs, every
        // |delta + u * plank| >= s for u from -their wholes to our wholes: delta avoids (c - s, c + s), c = -u * plank.
        const double shift = line.run->start - other.run->start;
        const int lowCentre = -state.wholes[index];
        const int highCentre = state.wholes[at(otherIndex)];
        const double least = state.bounds.least(line.variable, other.variable) + shift;
        const double most = state.bounds.most(line.variable, other.variable) + shift;
        const int gaps = highCentre - lowCentre + 2;
        const int turn = static_cast<int>(turnOf(static_cast<std::size_t>(gaps)));
        for (int k = 0; k < gaps; ++k) {
            const int gap = lowCentre - 1 + (k + turn) % gaps;
            // The gap between the centres `gap` and `gap + 1`.
            const double low = gap < lowCentre ? -kFar : gap * plank + s;
            const double high = gap == highCentre ? kFar : (gap + 1) * plank - s;
            if (low > high + kSlack || low > most + kSlack || high < least - kSlack) continue;
            const States::Copy next(states_, state);
            if (low > -kFar && !next->bounds.require(other.variable, line.variable, shift - low)) continue;
            if (high < kFar && !next->bounds.require(line.variable, other.variable, high - shift)) continue;
            if (stagger(index, neighbour + 1, *next)) return true;
            if (gaveUp_) return false;
        }
        return false;
    }

    /// Chooses the plank that the run's first piece comes from.
    bool takeFirst(std::size_t index, const State& state) {
        const std::size_t turn = turnOf(state.slots.size());
        for (std::size_t k = state.slots.size(); k-- > 0;) {
            const std::size_t s = (k + turn) % state.slots.size();
            if (state.slots[s].firstOf >= 0) continue;
            const Slot with{.lastOf = state.slots[s].lastOf,
                            .fixed = state.slots[s].fixed,
                            .lastSingle = state.slots[s].lastSingle,
                            .firstOf = static_cast<int>(index)};
            if (!couldFit(state, with)) continue;
            const States::Copy next(states_, state);
            next->slots[s].firstOf = static_cast<int>(index);
            if (!fits(*next, next->slots[s])) continue;
            if (openLast(index, *next)) return true;
            if (gaveUp_) return false;
        }
        if (shareFreely_) {
            // With our own last piece.
            if (ends(state, static_cast<int>(index)) + rules_.kerf <= rules_.plankLength + kSlack) {
                const States::Copy own(states_, state);
                own->slots.push_back({.lastOf = static_cast<int>(index), .firstOf = static_cast<int>(index)});
                if (place(index + 1, *own)) return true;
                if (gaveUp_) return false;
            }
            // With a later run's last piece; each later run offers one, and our own last piece may serve one that waits
            // already.
            const double shortestYet =
                state.bounds.least(lines_[index].variable) + shortestFrom_[index + 1] + rules_.kerf;
            const std::size_t later = lines_.size() - 1 - index;
            if (later > 0 && state.waitingFirst.size() <= later && shortestYet <= rules_.plankLength + kSlack) {
                const States::Copy wait(states_, state);
                wait->waitingFirst.push_back(static_cast<int>(index));
                if (openLast(index, *wait)) return true;
                if (gaveUp_) return false;
            }
        }
        if (state.spent + 1 + (*costFrom_)[index + 1] > budget_) return false;
        const States::Copy fresh(states_, state);
        ++fresh->spent;
        fresh->slots.push_back({.firstOf = static_cast<int>(index)});
        return openLast(index, *fresh);
    }

    /// Opens a plank with the run's last piece; a first piece that waits may come out of it too.
    bool openLast(std::size_t index, const State& state) {
        for (std::size_t w = 0; w < state.waitingFirst.size(); ++w) {
            if (state.waitingFirst[w] == static_cast<int>(index)) continue;
            const Slot with{.lastOf = static_cast<int>(index), .firstOf = state.waitingFirst[w]};
            if (!couldFit(state, with)) continue;
            const States::Copy next(states_, state);
            next->slots.push_back(with);
            next->waitingFirst.erase(next->waitingFirst.begin() + static_cast<std::ptrdiff_t>(w));
            if (!fits(*next, next->slots.back())) continue;
            if (place(index + 1, *next)) return true;
            if (gaveUp_) return false;
        }
        if (state.waitingFirst.size() > lines_.size() - 1 - index) return false;
        const States::Copy next(states_, state);
        next->slots.push_back({.lastOf = static_cast<int>(index)});
        return place(index + 1, *next);
    }

    const RowRules& rules_;
    const std::stop_token& stop_;
    States states_;
    std::vector<Line> lines_;
    int variables_ = 0;
    std::vector<double> shortestFrom_; ///< shortest last or single piece of the runs from i on
    std::vector<double> shortestSingleFrom_;
    std::vector<double> shortestNext_;
    double demand_ = 0;                ///< of cut planks: what every run takes out of them at least, saw cuts too
    std::vector<int> costFromFree_;    ///< least cost of the runs from i on, planned ahead
    std::vector<int> costFromInOrder_; ///< the same when cut as one goes
    const std::vector<int>* costFrom_ = nullptr;
    int budget_ = 0;
    bool shareFreely_ = false;
    int stepsLeft_ = 0;
    bool gaveUp_ = false;
    bool shuffled_ = false;
    std::uint64_t dice_ = 1;
    std::optional<State> found_;
};

/// Places of the runs in the order in which they are planned ahead: those of a single piece last, which bind nobody and
/// then find every plank that the ends of other runs have opened.
std::vector<std::size_t> singlesLast(const std::vector<Run>& runs, double plank) {
    std::vector<std::size_t> order(runs.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_partition(order.begin(), order.end(), [&](std::size_t i) { return runs[i].length > plank + kSlack; });
    return order;
}

RowPlan inOrderGiven(RowPlan plan, const std::vector<std::size_t>& order) {
    const std::vector<RunLayout> planned = plan.runs;
    for (std::size_t i = 0; i < order.size(); ++i) plan.runs[order[i]] = planned[i];
    for (CutPlank& cut : plan.cutPlanks)
        for (CutPlank::Part& part : cut.parts) part.run = static_cast<int>(order[static_cast<std::size_t>(part.run)]);
    return plan;
}

} // namespace

RowPlan planRows(const std::vector<Run>& runs, const RowRules& rules, const std::stop_token& stop) {
    if (runs.empty()) return {};
    Search search(runs, rules, stop);
    const std::vector<std::size_t> order = singlesLast(runs, rules.plankLength);
    std::vector<Run> ordered;
    for (const std::size_t i : order) ordered.push_back(runs[i]);
    Search planned(ordered, rules, stop);
    const int inside = search.wholePlanksInside();
    const int most = search.mostCutPlanks();
    int proven = search.leastCutPlanks();
    bool unbroken = true; // every smaller number of planks is proven impossible
    for (int budget = proven; budget <= most; ++budget) {
        // What can be done as one goes can be planned ahead too, and is found faster.
        const bool ahead = rules.working == Working::PlannedAhead;
        Search::Outcome outcome = search.tryWith(budget, false, rules.effort);
        const bool asOneGoes = outcome == Search::Outcome::Found;
        if (!asOneGoes && ahead) outcome = planned.tryWith(budget, true, rules.effort);
        if (outcome == Search::Outcome::Found) {
            RowPlan plan = asOneGoes ? search.layout() : inOrderGiven(planned.layout(), order);
            plan.leastPossible = std::min(plan.planks, inside + proven);
            return plan;
        }
        if (stop.stop_requested()) return {};
        unbroken = unbroken && outcome == Search::Outcome::Impossible;
        if (unbroken) proven = budget + 1;
    }
    return {};
}

} // namespace westrum
