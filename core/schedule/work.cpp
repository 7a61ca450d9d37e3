#include "core/schedule/work.h"

#include "core/schedule/order.h"
#include "core/schedule/timeline.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <limits>
#include <random>
#include <tuple>

namespace westrum {
namespace {

/// Tries orders of the tasks: each is laid task by task at its soonest place, and judged by when the last one ends.
class Planner {
public:
    Planner(const WorkProblem& problem, const WorkEffort& effort)
        : p_(problem), effort_(effort), order_(problem), timeline_(problem), dice_(effort.seed) {
        const std::size_t n = p_.tasks.size();
        parts_.resize(n);
        placed_.assign(n, false);
        position_.assign(n, -1);
        tail_.assign(n, 0);
        std::vector<int> back = order_.sorted();
        std::reverse(back.begin(), back.end());
        for (const int t : back)
            for (const auto& [then, wait] : order_.after(t))
                tail_[at(t)] = std::max(tail_[at(t)], wait + p_.tasks[at(then)].minutes + tail_[at(then)]);
    }

    WorkSchedule run(const std::function<void(const WorkSchedule&)>& better) {
        best_.bound = workBound(p_);
        begin(better);
        if (sequence_.size() > 1 && best_.finish > best_.bound) {
            if (sequence_.size() <= kFew)
                everyOrder(better);
            else
                anneal(better);
        }
        best_.iterations = tried_;
        best_.bound = std::min(best_.bound, best_.finish);
        return best_;
    }

private:
    static constexpr std::size_t kFew = 8; // tasks: all orders are tried
    static constexpr double kCold = 5; // minutes: what an order may be worse by at the end and still be gone on from
    /// One search: the same at its beginning, and the weight of the mean end against the last one, which lets progress
    /// show before the end.
    struct Round {
        double hot, lean;
        bool fresh; ///< from a start of its own, else from the best so far
    };
    static constexpr std::array<Round, 3> kRounds{{{700, 0.03, false}, {200, 0.1, true}, {300, 0.03, false}}};
    static constexpr int kFirst = 10;        // orders: where no more are wanted, a quick answer is
    static constexpr int kJustifyEach = 300; // orders
    static constexpr double kTail = 0.3;     // of what still follows, in that mean

    static std::size_t at(int t) { return static_cast<std::size_t>(t); }
    [[nodiscard]] const WorkTask& task(int t) const { return p_.tasks[at(t)]; }

    /// Lays all tasks in an order. @return what it is judged by; lower is better
    double lay(const std::vector<int>& sequence) {
        timeline_.clear();
        std::fill(placed_.begin(), placed_.end(), false);
        Sums sums;
        for (const int t : fixed_) {
            parts_[at(t)] = task(t).done;
            timeline_.put(t, task(t).done);
            count(t, sums);
        }
        upTo_.assign(sequence.size() + 1, sums);
        return layFrom(sequence, 0, std::numeric_limits<double>::infinity());
    }

    /// What the tasks laid so far come to.
    struct Sums {
        int finish = 0, unplaced = 0;
        double ends = 0;
    };
    void count(int t, Sums& sums) {
        placed_[at(t)] = true;
        const int end = parts_[at(t)].back().end;
        sums.finish = std::max(sums.finish, end);
        sums.ends += end + kTail * tail_[at(t)];
    }
    [[nodiscard]] double judge(const Sums& s, std::size_t tasks) const {
        return s.unplaced * 1e9 + s.finish + lean_ * s.ends / std::max<double>(1, static_cast<double>(tasks));
    }

    /// Lays what comes from a place of the order on. Given up as soon as it cannot come to less than the limit.
    double layFrom(const std::vector<int>& sequence, std::size_t from, double limit) {
        ++tried_;
        laid_ = from;
        Sums sums = upTo_[from];
        for (std::size_t k = from; k < sequence.size(); ++k) {
            const int t = sequence[k];
            int soonest = 0;
            bool open = true;
            for (const auto& [first, wait] : order_.before(t)) {
                open = open && placed_[at(first)];
                if (placed_[at(first)]) soonest = std::max(soonest, parts_[at(first)].back().end + wait);
            }
            if (open && timeline_.place(t, soonest, parts_[at(t)])) {
                count(t, sums);
            } else {
                parts_[at(t)].clear();
                placed_[at(t)] = false;
                ++sums.unplaced;
            }
            upTo_[k + 1] = sums;
            laid_ = k + 1;
            // What follows it takes at least so long.
            if (placed_[at(t)] && parts_[at(t)].back().end + tail_[at(t)] > limit) return limit + 1;
            if (sums.unplaced > 0 && sums.unplaced * 1e9 > limit) return limit + 1;
        }
        finish_ = sums.finish;
        unplaced_ = sums.unplaced;
        return judge(sums, sequence.size());
    }
    /// Takes away what was laid from a place of the order on.
    void unlay(const std::vector<int>& sequence, std::size_t from) {
        for (std::size_t k = laid_; k-- > from;) {
            const int t = sequence[k];
            if (placed_[at(t)]) timeline_.take(t, parts_[at(t)]);
            placed_[at(t)] = false;
        }
        laid_ = from;
    }

    void keep(double cost, const std::function<void(const WorkSchedule&)>& better) {
        // First by what has a place and when the last ends, then by what is judged besides.
        const auto judged = std::tuple(unplaced_, finish_, cost);
        if (judged >= bestJudged_) return;
        const bool sooner = unplaced_ < std::get<0>(bestJudged_) || finish_ < std::get<1>(bestJudged_);
        bestJudged_ = judged;
        bestSequence_ = sequence_;
        best_.parts = parts_;
        best_.finish = finish_;
        best_.iterations = tried_;
        best_.unplaced.clear();
        for (std::size_t i = 0; i < p_.tasks.size(); ++i)
            if (!placed_[i]) best_.unplaced.push_back({static_cast<int>(i), why(static_cast<int>(i))});
        if (better && sooner) better(best_);
    }

    /// The order in which the one comes first for which the rule gives least, of those whose turn it may be.
    [[nodiscard]] std::vector<int> sequenceBy(const auto& first) const {
        std::vector<int> open(p_.tasks.size(), 0), ready, sequence;
        for (const int t : order_.sorted()) {
            open[at(t)] = static_cast<int>(order_.before(t).size());
            if (open[at(t)] == 0) ready.push_back(t);
        }
        while (!ready.empty()) {
            const auto next = std::min_element(ready.begin(), ready.end(), [&](int a, int b) {
                const double x = first(a), y = first(b);
                return x != y ? x < y : a < b;
            });
            const int t = *next;
            ready.erase(next);
            if (task(t).done.empty()) sequence.push_back(t);
            for (const auto& [then, wait] : order_.after(t))
                if (--open[at(then)] == 0) ready.push_back(then);
        }
        return sequence;
    }

    /// A start by what follows, shaken.
    [[nodiscard]] std::vector<int> scattered() {
        std::vector<double> rank(p_.tasks.size());
        for (std::size_t i = 0; i < rank.size(); ++i)
            rank[i] = -static_cast<double>(tail_[i] + p_.tasks[i].minutes) * (0.2 + 1.6 * uniform()) - 600 * uniform();
        return sequenceBy([&](int t) { return rank[at(t)]; });
    }

    /// Of every rule of thumb the order it gives, the best of them first.
    void begin(const std::function<void(const WorkSchedule&)>& better) {
        for (const int t : order_.sorted()) {
            if (!task(t).done.empty()) fixed_.push_back(t);
        }
        const auto choosy = [&](int t) { // how much it asks of a window
            const WorkTask& x = task(t);
            return (x.dry ? 1 : 0) + (x.light ? 1 : 0) + (x.minC ? 1 : 0) + (x.hands > 1 ? 1 : 0) + (x.split ? 0 : 1);
        };
        const std::vector<std::function<double(int)>> rules{
            [&](int t) { return -static_cast<double>(tail_[at(t)] + task(t).minutes); },
            [&](int t) { return -static_cast<double>(tail_[at(t)] + task(t).minutes) - 400 * choosy(t); },
            [&](int t) { return -static_cast<double>(order_.after(t).size()) * 100 - tail_[at(t)]; },
            [&](int t) { return -static_cast<double>(choosy(t)) * 1000 - task(t).minutes; },
            [&](int t) { return static_cast<double>(t); },
        };
        if (effort_.wish.size() == p_.tasks.size()) {
            sequence_ = sequenceBy([&](int t) { return static_cast<double>(effort_.wish[at(t)]); });
            keep(lay(sequence_), better);
            if (effort_.iterations <= 1) return; // no more than that was wanted
        }
        for (const auto& rule : rules) {
            sequence_ = sequenceBy(rule);
            const double cost = lay(sequence_);
            keep(cost, better);
            if (effort_.iterations > kFirst) justify(cost, better);
            if (effort_.stop.stop_requested()) break;
        }
        sequence_ = bestSequence_;
    }

    void everyOrder(const std::function<void(const WorkSchedule&)>& better) {
        std::vector<int> all = sequence_;
        std::sort(all.begin(), all.end());
        do {
            for (std::size_t k = 0; k < all.size(); ++k) position_[at(all[k])] = static_cast<int>(k);
            bool kept = true;
            for (const int t : all)
                for (const auto& [first, wait] : order_.before(t))
                    kept = kept && (position_[at(first)] < position_[at(t)] || !task(first).done.empty());
            if (!kept) continue;
            sequence_ = all;
            keep(lay(sequence_), better);
        } while (std::next_permutation(all.begin(), all.end()) && !effort_.stop.stop_requested());
    }

    [[nodiscard]] bool over(double& spent) const {
        spent = static_cast<double>(tried_) / static_cast<double>(std::max<std::int64_t>(1, effort_.iterations));
        if (effort_.seconds) {
            const std::chrono::duration<double> gone = std::chrono::steady_clock::now() - began_;
            spent = std::max(effort_.iterations > 0 && spent >= 1 ? 1.0 : 0.0, gone.count() / *effort_.seconds);
        }
        return spent >= 1 || effort_.stop.stop_requested();
    }

    /// Moves one task to another place that keeps the order, and goes on from what is better, or not much worse.
    void anneal(const std::function<void(const WorkSchedule&)>& better) {
        double cost = lay(sequence_), spent = 0;
        std::vector<int> next;
        std::vector<std::vector<WorkPart>> before(p_.tasks.size());
        std::vector<Sums> sums;
        std::int64_t justifyAt = 0;
        std::size_t round = 0;
        while (!over(spent)) {
            if (tried_ >= justifyAt) {
                cost = justify(cost, better);
                justifyAt = tried_ + kJustifyEach;
            }
            // Several searches one after the other: each ends in a valley of its own, and some are much deeper.
            const double through = spent * static_cast<double>(kRounds.size());
            if (static_cast<std::size_t>(through) != round) {
                round = static_cast<std::size_t>(through);
                lean_ = kRounds[round].lean;
                sequence_ = kRounds[round].fresh ? scattered() : bestSequence_;
                cost = justify(lay(sequence_), better);
                keep(cost, better);
            }
            const double hot = kRounds[round].hot;
            const double heat = hot * std::pow(kCold / hot, through - static_cast<double>(round));
            next = sequence_;
            const int moves = dice_() % 4 == 0 ? 2 : 1;
            for (int k = 0; k < moves; ++k) shift(next);
            std::size_t from = 0;
            while (from < next.size() && next[from] == sequence_[from]) ++from;
            if (from == next.size()) {
                ++tried_;
                continue;
            }
            // What stays the same is not laid again.
            for (std::size_t k = from; k < next.size(); ++k) {
                before[at(next[k])] = parts_[at(next[k])];
            }
            sums.assign(upTo_.begin() + static_cast<std::ptrdiff_t>(from), upTo_.end());
            unlay(sequence_, from);
            const double limit = cost - heat * std::log(std::max(1e-12, uniform()));
            const double then = layFrom(next, from, limit);
            if (then <= limit) {
                sequence_.swap(next);
                cost = then;
                keep(cost, better);
                if (best_.finish <= best_.bound && best_.unplaced.empty()) return;
                continue;
            }
            unlay(next, from);
            for (std::size_t k = from; k < sequence_.size(); ++k) {
                const int t = sequence_[k];
                parts_[at(t)] = before[at(t)];
                placed_[at(t)] = !parts_[at(t)].empty();
                if (placed_[at(t)]) timeline_.put(t, parts_[at(t)]);
            }
            std::copy(sums.begin(), sums.end(), upTo_.begin() + static_cast<std::ptrdiff_t>(from));
            laid_ = sequence_.size();
        }
    }

    /// The order in which tasks begin when all of them are laid as late as the finish allows: seen from its end, what
    /// is not urgent makes room for what is. Air after fumes is left aside, it is only an order.
    [[nodiscard]] std::vector<int> justified() {
        if (unplaced_ > 0 || sequence_.empty() || p_.windows.empty()) return sequence_;
        if (!mirror_) {
            horizon_ = p_.windows.back().end;
            for (const WorkTask& t : p_.tasks)
                if (!t.done.empty()) horizon_ = std::max(horizon_, t.done.back().end);
            mirrored_.holds = p_.holds;
            for (auto w = p_.windows.rbegin(); w != p_.windows.rend(); ++w) {
                WorkWindow m = *w;
                m.start = horizon_ - w->end;
                m.end = horizon_ - w->start;
                mirrored_.windows.push_back(m);
            }
            mirrored_.tasks = p_.tasks;
            for (WorkTask& t : mirrored_.tasks) {
                if (t.fumes) t.fumes = 0;
                if (t.pinned) t.pinned = WorkPart{horizon_ - t.pinned->end, horizon_ - t.pinned->start};
            }
            mirror_.emplace(mirrored_);
        }
        std::vector<int> backwards = sequence_;
        std::stable_sort(backwards.begin(), backwards.end(), [&](int a, int b) {
            return !placed_[at(a)] || !placed_[at(b)] ? false : parts_[at(a)].back().end > parts_[at(b)].back().end;
        });
        mirror_->clear();
        std::vector<int> end(p_.tasks.size(), 0); // mirrored: how far before the horizon it begins
        std::vector<bool> laid(p_.tasks.size(), false);
        std::vector<WorkPart> parts;
        for (const int t : backwards) {
            int from = horizon_ - finish_;
            for (const auto& [then, wait] : order_.after(t))
                if (laid[at(then)]) from = std::max(from, end[at(then)] + wait);
            if (!mirror_->place(t, from, parts)) return sequence_;
            end[at(t)] = parts.back().end;
            laid[at(t)] = true;
        }
        std::vector<int> order = sequence_;
        std::stable_sort(order.begin(), order.end(), [&](int a, int b) { return end[at(a)] > end[at(b)]; });
        return order;
    }

    /// Lays the tasks as late and then as soon as they go, for as long as that ends sooner. @return what it comes to
    double justify(double cost, const std::function<void(const WorkSchedule&)>& better) {
        constexpr int kTimes = 4;
        for (int k = 0; k < kTimes; ++k) {
            std::vector<int> before = sequence_;
            sequence_ = justified();
            if (sequence_ == before) return cost;
            const double then = lay(sequence_);
            if (then >= cost - 1e-6) {
                sequence_ = std::move(before);
                return lay(sequence_);
            }
            cost = then;
            keep(cost, better);
        }
        return cost;
    }

    void shift(std::vector<int>& sequence) {
        const int n = static_cast<int>(sequence.size());
        for (int k = 0; k < n; ++k) position_[at(sequence[at(k)])] = k;
        const int from = static_cast<int>(dice_() % static_cast<unsigned>(n));
        const int t = sequence[at(from)];
        int low = 0, high = n - 1;
        for (const auto& [first, wait] : order_.before(t))
            if (task(first).done.empty()) low = std::max(low, position_[at(first)] + 1);
        for (const auto& [then, wait] : order_.after(t))
            if (task(then).done.empty()) high = std::min(high, position_[at(then)] - 1);
        if (low >= high) return;
        // Mostly near by: far moves seldom do good.
        int to = low + static_cast<int>(dice_() % static_cast<unsigned>(high - low + 1));
        if (dice_() % 2 == 0) to = std::clamp(from + static_cast<int>(dice_() % 13) - 6, low, high);
        if (to == from) return;
        if (to < from)
            std::rotate(sequence.begin() + to, sequence.begin() + from, sequence.begin() + from + 1);
        else
            std::rotate(sequence.begin() + from, sequence.begin() + from + 1, sequence.begin() + to + 1);
    }

    double uniform() { return static_cast<double>(dice_() >> 11) * (1.0 / 9007199254740992.0); }

    /// Why a task has no place in the plan that was just laid.
    [[nodiscard]] WorkFault why(int t) const {
        if (order_.circular(t)) return WorkFault::Circular;
        int from = 0;
        for (const auto& [first, wait] : order_.before(t)) {
            if (!placed_[at(first)]) return WorkFault::AfterUnplaced;
            from = std::max(from, parts_[at(first)].back().end + wait);
        }
        const WorkTask& x = task(t);
        if (x.pinned) return WorkFault::Pinned;
        // Need by need, as they are met in the windows that are left.
        const auto any = [&](const auto& meets) {
            return std::any_of(p_.windows.begin(), p_.windows.end(),
                               [&](const WorkWindow& w) { return w.end > from && meets(w); });
        };
        const auto people = [&](const WorkWindow& w) {
            return w.people >= x.hands && (!x.inside || p_.holds >= x.hands);
        };
        const auto dry = [&](const WorkWindow& w) { return people(w) && (!x.dry || w.dry); };
        const auto light = [&](const WorkWindow& w) { return dry(w) && (!x.light || w.light); };
        const auto open = [&](const WorkWindow& w) { return light(w) && (!x.open || w.open); };
        const auto warm = [&](const WorkWindow& w) {
            return open(w) && (!x.minC || w.degC >= *x.minC) && (!x.maxC || w.degC <= *x.maxC);
        };
        if (!any([](const WorkWindow&) { return true; })) return WorkFault::AfterTheEnd;
        if (!any(people)) return WorkFault::TooFewPeople;
        if (!any(dry)) return WorkFault::NeverDry;
        if (!any(light)) return WorkFault::NeverLight;
        if (!any(open)) return WorkFault::NeverOpen;
        if (!any(warm)) return WorkFault::NeverWarm;
        if (!x.split && !any([&](const WorkWindow& w) { return warm(w) && w.end - w.start >= x.minutes; }))
            return WorkFault::TooLong;
        return WorkFault::AfterTheEnd;
    }

    const WorkProblem& p_;
    const WorkEffort& effort_;
    WorkOrder order_;
    WorkTimeline timeline_;
    WorkProblem mirrored_; ///< the same seen from its end
    std::optional<WorkTimeline> mirror_;
    int horizon_ = 0;
    std::mt19937_64 dice_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
    std::vector<int> sequence_, bestSequence_, fixed_;
    std::vector<int> position_, tail_;
    std::vector<std::vector<WorkPart>> parts_;
    std::vector<bool> placed_;
    std::vector<Sums> upTo_; ///< by how many of the order are laid
    std::size_t laid_ = 0;
    int finish_ = 0, unplaced_ = 0;
    double lean_ = kRounds.front().lean;
    WorkSchedule best_{.parts = {}, .unplaced = {}, .finish = std::numeric_limits<int>::max()};
    std::tuple<int, int, double> bestJudged_{std::numeric_limits<int>::max(), std::numeric_limits<int>::max(), 0};
    std::int64_t tried_ = 0;
};

} // namespace

WorkSchedule planWork(const WorkProblem& problem, const WorkEffort& effort,
                      const std::function<void(const WorkSchedule&)>& better) {
    if (problem.tasks.empty()) return {};
    return Planner(problem, effort).run(better);
}

namespace {

bool meet(const std::vector<WorkPart>& a, const std::vector<WorkPart>& b) {
    return std::any_of(a.begin(), a.end(), [&](const WorkPart& p) {
        return std::any_of(b.begin(), b.end(), [&](const WorkPart& q) { return p.start < q.end && q.start < p.end; });
    });
}

} // namespace

std::optional<std::string> brokenRule(const WorkProblem& problem, const WorkSchedule& schedule) {
    const std::size_t n = problem.tasks.size();
    if (schedule.parts.size() != n) return "not all tasks have an entry";
    const auto name = [&](std::size_t i) { return problem.tasks[i].id; };
    int finish = 0;
    for (std::size_t i = 0; i < n; ++i) {
        const WorkTask& t = problem.tasks[i];
        const auto& parts = schedule.parts[i];
        if (parts.empty()) continue;
        finish = std::max(finish, parts.back().end);
        if (!t.done.empty()) {
            if (parts != t.done) return name(i) + ": done, and moved";
            continue;
        }
        int left = t.minutes, last = std::numeric_limits<int>::min();
        if (!t.split && parts.size() != 1) return name(i) + ": may not be interrupted";
        for (const WorkPart& p : parts) {
            const int length = p.end - p.start;
            if (length <= 0 || p.start < last) return name(i) + ": parts out of order";
            if (length < std::min(kShortestPart, left)) return name(i) + ": a part too short";
            left -= length;
            last = p.end;
            const auto w = std::find_if(problem.windows.begin(), problem.windows.end(),
                                        [&](const WorkWindow& x) { return x.start <= p.start && p.end <= x.end; });
            if (w == problem.windows.end()) return name(i) + ": in no window";
            if ((t.dry && !w->dry) || (t.light && !w->light) || (t.open && !w->open) || (t.minC && w->degC < *t.minC) ||
                (t.maxC && w->degC > *t.maxC))
                return name(i) + ": weather, light, warmth or who is open do not do";
            if (t.pinned && (p.start < t.pinned->start || p.end > t.pinned->end))
                return name(i) + ": not where it is pinned";
            std::int64_t hands = 0, inside = 0; // at its start; every crowd has a part that begins in it
            for (std::size_t k = 0; k < n; ++k)
                for (const WorkPart& q : schedule.parts[k])
                    if (q.start <= p.start && q.end > p.start) {
                        hands += problem.tasks[k].hands;
                        inside += problem.tasks[k].inside ? problem.tasks[k].hands : 0;
                    }
            if (hands > w->people || inside > problem.holds) return name(i) + ": too many at once";
        }
        if (left != 0) return name(i) + ": parts do not sum to it";
        for (std::size_t k = 0; k < i; ++k)
            if (t.narrow != 0 && problem.tasks[k].narrow == t.narrow && meet(parts, schedule.parts[k]))
                return name(i) + ": two at once in a narrow place";
    }
    for (const WorkBefore& b : problem.before) {
        const auto &first = schedule.parts[static_cast<std::size_t>(b.first)],
                   &then = schedule.parts[static_cast<std::size_t>(b.then)];
        if (then.empty() || !problem.tasks[static_cast<std::size_t>(b.then)].done.empty()) continue;
        if (first.empty() || then.front().start < first.back().end + b.wait)
            return name(static_cast<std::size_t>(b.then)) + ": too soon after " +
                   name(static_cast<std::size_t>(b.first));
    }
    for (std::size_t i = 0; i < n; ++i) {
        if (!problem.tasks[i].fumes) continue;
        for (std::size_t k = 0; k < schedule.parts[i].size(); ++k) {
            const WorkPart& f = schedule.parts[i][k];
            const int until = f.end + (k + 1 == schedule.parts[i].size() ? *problem.tasks[i].fumes : 0);
            for (std::size_t j = 0; j < n; ++j) {
                if (j == i || !problem.tasks[j].inside || !problem.tasks[j].done.empty()) continue;
                for (const WorkPart& q : schedule.parts[j])
                    if (q.start < until && q.end > f.start) return name(j) + ": in the fumes of " + name(i);
            }
        }
    }
    if (finish != schedule.finish) return "finish is told wrongly";
    if (schedule.bound > finish) return "the bound lies behind the finish";
    return std::nullopt;
}

} // namespace westrum
