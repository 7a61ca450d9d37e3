#include "core/schedule/chance.h"

#include "core/schedule/order.h"
#include "core/schedule/timeline.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <random>

namespace westrum {
namespace {

/// Draws that are the same on every machine: distributions of the standard library need not be.
class Dice {
public:
    explicit Dice(std::uint64_t seed) : engine_(seed) {}
    double share() { return static_cast<double>(engine_() >> 11) * 0x1.0p-53; }
    double normal() {
        const double u = std::max(share(), 1e-300), v = share();
        return std::sqrt(-2 * std::log(u)) * std::cos(2 * std::numbers::pi * v);
    }

private:
    std::mt19937_64 engine_;
};

/// The windows of a run: what a day's weather makes of them.
void drawWeather(const WorkProblem& plan, const WorkRisk& risk, Dice& dice, WorkProblem& run) {
    int day = std::numeric_limits<int>::min();
    double rain = 0, warmer = 0;
    for (std::size_t w = 0; w < plan.windows.size(); ++w) {
        if (w == 0 || risk.day[w] != day) {
            day = risk.day[w];
            rain = dice.share();
            warmer = dice.normal() * risk.spreadC;
        }
        run.windows[w].dry = rain < risk.dry[w];
        run.windows[w].degC = plan.windows[w].degC + warmer;
    }
}

class Runs {
public:
    Runs(const WorkProblem& problem, const WorkSchedule& plan, const WorkRisk& risk)
        : problem_(problem), plan_(plan), risk_(risk), order_(problem), run_(problem) {
        for (const int t : order_.sorted()) sequence_.push_back(t);
        // In the order of the plan, which keeps what waits for what; what it could not place comes last.
        const auto begins = [&](int t) {
            const auto& parts = plan_.parts[static_cast<std::size_t>(t)];
            return parts.empty() ? std::numeric_limits<int>::max() : parts.front().start;
        };
        std::stable_sort(sequence_.begin(), sequence_.end(), [&](int a, int b) { return begins(a) < begins(b); });
        end_ = problem.windows.empty() ? 0 : problem.windows.back().end;
        // What may not be interrupted is got through in its longest window, however slowly it goes.
        const WorkTimeline timeline(problem);
        longest_.assign(problem.tasks.size(), std::numeric_limits<int>::max());
        for (std::size_t t = 0; t < problem.tasks.size(); ++t) {
            if (problem.tasks[t].split) continue;
            longest_[t] = problem.tasks[t].minutes;
            for (std::size_t w = 0; w < problem.windows.size(); ++w)
                if (timeline.accepts(static_cast<int>(t), w))
                    longest_[t] = std::max(longest_[t], problem.windows[w].end - problem.windows[w].start);
        }
    }

    /// One run: when it is done; what delayed it is counted.
    int play(Dice& dice) {
        drawWeather(problem_, risk_, dice, run_);
        for (std::size_t t = 0; t < problem_.tasks.size(); ++t)
            if (problem_.tasks[t].done.empty() && risk_.spread[t] > 0)
                run_.tasks[t].minutes =
                    std::clamp(static_cast<int>(
                                   std::lround(problem_.tasks[t].minutes * std::exp(risk_.spread[t] * dice.normal()))),
                               1, longest_[t]);
        WorkTimeline timeline(run_);
        ends_.assign(problem_.tasks.size(), 0);
        int finish = 0, last = -1;
        std::vector<WorkPart> parts;
        for (std::size_t t = 0; t < problem_.tasks.size(); ++t)
            if (!problem_.tasks[t].done.empty()) timeline.put(static_cast<int>(t), problem_.tasks[t].done);
        for (const int t : sequence_) {
            const std::size_t i = static_cast<std::size_t>(t);
            if (!problem_.tasks[i].done.empty()) {
                ends_[i] = problem_.tasks[i].done.back().end;
            } else {
                int from = 0;
                for (const auto& [before, wait] : order_.before(t))
                    from = std::max(from, ends_[static_cast<std::size_t>(before)] + wait);
                ends_[i] = timeline.place(t, from, parts) ? parts.back().end : end_;
            }
            if (last < 0 || ends_[i] > finish) {
                finish = ends_[i];
                last = t;
            }
        }
        if (finish > plan_.finish) blame(last);
        return finish;
    }

    [[nodiscard]] std::vector<WorkDelay> delays(int runs) const {
        std::vector<WorkDelay> all;
        for (const auto& [what, n] : blamed_)
            all.push_back({what.first, what.second, static_cast<double>(n) / std::max(1, runs)});
        std::stable_sort(all.begin(), all.end(),
                         [](const WorkDelay& a, const WorkDelay& b) { return a.share > b.share; });
        return all;
    }

private:
    [[nodiscard]] int plannedEnd(int t) const {
        const auto& parts = plan_.parts[static_cast<std::size_t>(t)];
        return parts.empty() ? end_ : parts.back().end;
    }

    /// Back along what the last task waited for: the task that lost the most time of its own.
    void blame(int last) {
        int worst = last, most = -1;
        for (int t = last; t >= 0;) {
            int waitedFor = -1, until = 0;
            for (const auto& [before, wait] : order_.before(t))
                if (const int end = ends_[static_cast<std::size_t>(before)] + wait; waitedFor < 0 || end > until) {
                    waitedFor = before;
                    until = end;
                }
            const int late = ends_[static_cast<std::size_t>(t)] - plannedEnd(t);
            const int inherited =
                waitedFor < 0 ? 0 : ends_[static_cast<std::size_t>(waitedFor)] - plannedEnd(waitedFor);
            if (late - inherited > most) {
                most = late - inherited;
                worst = t;
            }
            t = waitedFor;
        }
        const std::size_t i = static_cast<std::size_t>(worst);
        // A day that the plan took for dry or warm, and was not.
        const WorkTask& task = problem_.tasks[i];
        bool weather = false;
        if (!plan_.parts[i].empty())
            for (std::size_t w = 0; w < problem_.windows.size() && !weather; ++w) {
                const WorkWindow &planned = problem_.windows[w], &was = run_.windows[w];
                if (planned.end <= plan_.parts[i].front().start || planned.start >= ends_[i]) continue;
                weather = (task.dry && planned.dry && !was.dry) ||
                          (task.minC && planned.degC >= *task.minC && was.degC < *task.minC);
            }
        ++blamed_[{worst, weather ? DelayBy::Weather : DelayBy::Itself}];
    }

    const WorkProblem& problem_;
    const WorkSchedule& plan_;
    const WorkRisk& risk_;
    WorkOrder order_;
    WorkProblem run_;
    std::vector<int> sequence_, ends_, longest_;
    std::map<std::pair<int, DelayBy>, int> blamed_;
    int end_ = 0;
};

} // namespace

double WorkChance::by(int time) const {
    if (finishes.empty()) return 0;
    const auto after = std::upper_bound(finishes.begin(), finishes.end(), time);
    return static_cast<double>(after - finishes.begin()) / static_cast<double>(finishes.size());
}

int WorkChance::at(double share) const {
    if (finishes.empty()) return 0;
    const double n = static_cast<double>(finishes.size());
    const auto k = static_cast<std::size_t>(std::clamp(std::ceil(share * n - 1e-9), 1.0, n));
    return finishes[k - 1];
}

WorkChance chanceOf(const WorkProblem& problem, const WorkSchedule& plan, const WorkRisk& risk, int runs,
                    std::uint64_t seed, const std::stop_token& stop) {
    WorkChance chance;
    if (problem.tasks.empty() || plan.parts.size() != problem.tasks.size()) return chance;
    Runs all(problem, plan, risk);
    Dice dice(seed);
    for (int r = 0; r < runs && !stop.stop_requested(); ++r) chance.finishes.push_back(all.play(dice));
    chance.delays = all.delays(static_cast<int>(chance.finishes.size()));
    std::sort(chance.finishes.begin(), chance.finishes.end());
    return chance;
}

} // namespace westrum
