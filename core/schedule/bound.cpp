#include "core/schedule/order.h"
#include "core/schedule/timeline.h"

#include <algorithm>
#include <limits>

namespace westrum {
namespace {

constexpr int kNever = std::numeric_limits<int>::max() / 4;

/// So many hand-minutes by a time, of windows that accept at least one of the tasks; of those inside no more than it
/// holds.
class Hands {
public:
    Hands(const WorkProblem& p, const WorkTimeline& timeline, const std::vector<int>& tasks, bool inside) {
        for (std::size_t w = 0; w < p.windows.size(); ++w) {
            const bool any = std::any_of(tasks.begin(), tasks.end(), [&](int t) { return timeline.accepts(t, w); });
            if (!any) continue;
            const WorkWindow& x = p.windows[w];
            stretches_.push_back({x.start, x.end, inside ? std::min(x.people, p.holds) : x.people});
        }
    }
    /// When so many are used up from a time on.
    [[nodiscard]] int spent(int from, std::int64_t minutes) const {
        for (const Stretch& s : stretches_) {
            if (s.end <= from) continue;
            const int start = std::max(s.start, from);
            const std::int64_t here = static_cast<std::int64_t>(s.end - start) * s.hands;
            if (here >= minutes) return start + static_cast<int>((minutes + s.hands - 1) / s.hands);
            minutes -= here;
        }
        return kNever;
    }

private:
    struct Stretch {
        int start, end, hands;
    };
    std::vector<Stretch> stretches_;
};

} // namespace

int workBound(const WorkProblem& problem) {
    const std::size_t n = problem.tasks.size();
    const WorkOrder order(problem);
    WorkTimeline alone(problem);
    // Heads: when it could start and end with all hands to itself. Tails: what follows its end at least.
    std::vector<int> head(n, 0), end(n, 0), tail(n, 0);
    int bound = 0;
    for (const int t : order.sorted()) {
        const auto i = static_cast<std::size_t>(t);
        for (const auto& [first, wait] : order.before(t))
            head[i] = std::max(head[i], end[static_cast<std::size_t>(first)] + wait);
        if (!problem.tasks[i].done.empty()) {
            end[i] = problem.tasks[i].done.back().end;
            bound = std::max(bound, end[i]);
            continue;
        }
        std::vector<WorkPart> parts;
        alone.clear();
        if (!alone.place(t, head[i], parts)) continue; // told elsewhere
        head[i] = parts.front().start;
        end[i] = parts.back().end;
        bound = std::max(bound, end[i]);
    }
    std::vector<int> back = order.sorted();
    std::reverse(back.begin(), back.end());
    for (const int t : back)
        for (const auto& [then, wait] : order.after(t))
            tail[static_cast<std::size_t>(t)] = std::max(tail[static_cast<std::size_t>(t)],
                                                         wait + problem.tasks[static_cast<std::size_t>(then)].minutes +
                                                             tail[static_cast<std::size_t>(then)]);
    // Of every kind of work: what begins no sooner than a head and is followed by a tail fills the hands from there on.
    const auto kind = [&](const auto& belongs, bool inside) {
        std::vector<int> tasks;
        for (std::size_t i = 0; i < n; ++i)
            if (problem.tasks[i].done.empty() && end[i] > 0 && belongs(problem.tasks[i]))
                tasks.push_back(static_cast<int>(i));
        if (tasks.empty()) return;
        const Hands hands(problem, alone, tasks, inside);
        std::vector<int> heads, tails;
        for (const int t : tasks) {
            heads.push_back(head[static_cast<std::size_t>(t)]);
            tails.push_back(tail[static_cast<std::size_t>(t)]);
        }
        const auto thin = [](std::vector<int>& values) {
            constexpr std::size_t kMost = 24;
            std::sort(values.begin(), values.end());
            values.erase(std::unique(values.begin(), values.end()), values.end());
            if (values.size() <= kMost) return;
            std::vector<int> few;
            for (std::size_t k = 0; k < kMost; ++k) few.push_back(values[k * (values.size() - 1) / (kMost - 1)]);
            values = std::move(few);
        };
        thin(heads);
        thin(tails);
        for (const int h : heads)
            for (const int q : tails) {
                std::int64_t minutes = 0;
                for (const int t : tasks)
                    if (head[static_cast<std::size_t>(t)] >= h && tail[static_cast<std::size_t>(t)] >= q)
                        minutes += static_cast<std::int64_t>(problem.tasks[static_cast<std::size_t>(t)].minutes) *
                                   problem.tasks[static_cast<std::size_t>(t)].hands;
                if (minutes == 0) continue;
                if (const int at = hands.spent(h, minutes); at < kNever) bound = std::max(bound, at + q);
            }
    };
    kind([](const WorkTask&) { return true; }, false);
    kind([](const WorkTask& t) { return t.inside; }, true);
    kind([](const WorkTask& t) { return t.dry; }, false);
    kind([](const WorkTask& t) { return t.light; }, false);
    kind([](const WorkTask& t) { return t.open; }, false);
    kind([](const WorkTask& t) { return t.minC.has_value(); }, false);
    kind([](const WorkTask& t) { return t.inside && t.minC.has_value(); }, true);
    kind([](const WorkTask& t) { return t.hands > 1; }, false);
    return bound;
}

} // namespace westrum
