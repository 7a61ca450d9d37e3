#include "core/vanwork/today.h"

#include "core/schedule/order.h"
#include "core/schedule/timeline.h"

#include <algorithm>
#include <limits>
#include <numeric>

namespace westrum {
namespace {

constexpr int kOvernight = 60; ///< minutes of waiting that are worth being put at the end of a day

/// The windows of the day that is left, parted where it gets dark and where shops shut.
std::vector<WorkWindow> windowsOf(const WorkSettings& settings, const WorkClock& clock, const TodayIs& today) {
    std::vector<WorkWindow> all;
    const DayLight light = dayLightOn(settings.site, today.now.day);
    for (const LitPart& part : partedByLight(today.now.minute, today.until, light, shopsOn(settings, today.now.day)))
        all.push_back({clock.at(today.now.day, part.from), clock.at(today.now.day, part.to), today.people, today.dry,
                       part.lit, today.outsideC, part.open});
    return all;
}

/// The tasks as they are today: what is measured in the van stands for what is taken for granted.
WorkProblem problemOf(const WorkQuestion& question, const WorkPlan& plan, const TodayIs& today) {
    WorkProblem p = plan.problem;
    p.windows = windowsOf(question.settings, plan.clock, today);
    for (std::size_t t = 0; t < p.tasks.size(); ++t) {
        const WorkItem& w = question.net.items[static_cast<std::size_t>(plan.items[t])];
        if (!today.insideC || w.place != WorkPlace::Van) continue;
        const bool cold = w.needs.minC && *today.insideC < *w.needs.minC;
        const bool hot = w.needs.maxC && *today.insideC > *w.needs.maxC;
        p.tasks[t].minC.reset();
        p.tasks[t].maxC.reset();
        // In no window of today.
        if (cold || hot) p.tasks[t].minC = std::numeric_limits<double>::max();
    }
    return p;
}

class Day {
public:
    Day(const WorkQuestion& question, const WorkPlan& plan, const TodayIs& today)
        : question_(question), plan_(plan), problem_(problemOf(question, plan, today)), order_(problem_) {
        for (const int t : order_.sorted())
            if (problem_.tasks[static_cast<std::size_t>(t)].done.empty()) tasks_.push_back(t);
        std::stable_sort(tasks_.begin(), tasks_.end(), [&](int a, int b) { return begins(a) < begins(b); });
        end_ = problem_.windows.empty() ? 0 : problem_.windows.back().end;
        now_ = problem_.windows.empty() ? 0 : problem_.windows.front().start;
    }

    TodayPlan plan() {
        lay(-1);
        const int last = setsOvernight();
        if (last >= 0) lay(last);
        TodayPlan p;
        std::vector<std::pair<int, std::size_t>> byStart;
        for (std::size_t t = 0; t < parts_.size(); ++t)
            if (!parts_[t].empty() && problem_.tasks[t].done.empty()) byStart.emplace_back(parts_[t].front().start, t);
        std::sort(byStart.begin(), byStart.end());
        for (const auto& [start, t] : byStart) {
            if (static_cast<int>(t) == last) p.last = static_cast<int>(p.work.size());
            p.work.push_back({plan_.items[t], plan_.clock.moment(start).minute,
                              plan_.clock.moment(parts_[t].back().end).minute, whole_[t]});
        }
        // Due by the plan, ready, and kept out by the day.
        for (const int t : tasks_)
            if (parts_[static_cast<std::size_t>(t)].empty() && begins(t) < end_ && readyAt(t) < end_ &&
                static_cast<int>(p.cannot.size()) < 20)
                p.cannot.push_back(plan_.items[static_cast<std::size_t>(t)]);
        return p;
    }

private:
    [[nodiscard]] int begins(int t) const {
        const auto& parts = plan_.schedule.parts[static_cast<std::size_t>(t)];
        return parts.empty() ? std::numeric_limits<int>::max() : parts.front().start;
    }
    /// When all that a task waits for is done and has set; never, if some of it is not done today.
    [[nodiscard]] int readyAt(int t) const {
        int at = now_;
        for (const auto& [before, wait] : order_.before(t)) {
            const auto& parts = parts_[static_cast<std::size_t>(before)];
            if (parts.empty() || !whole_[static_cast<std::size_t>(before)]) return std::numeric_limits<int>::max();
            at = std::max(at, parts.back().end + wait);
        }
        return at;
    }

    /// Lays task by task; one of them as late as it goes.
    void lay(int last) {
        WorkProblem p = problem_;
        for (WorkTask& t : p.tasks) t.pinned.reset();
        parts_.assign(p.tasks.size(), {});
        whole_.assign(p.tasks.size(), true);
        WorkTimeline timeline(p);
        for (std::size_t t = 0; t < p.tasks.size(); ++t)
            if (!p.tasks[t].done.empty()) {
                parts_[t] = p.tasks[t].done;
                timeline.put(static_cast<int>(t), p.tasks[t].done);
            }
        if (last >= 0) { // its place is kept for it
            const int from = end_ - p.tasks[static_cast<std::size_t>(last)].minutes;
            if (readyAt(last) > from || !timeline.place(last, from, parts_[static_cast<std::size_t>(last)])) last = -1;
        }
        for (const int t : tasks_) {
            const std::size_t i = static_cast<std::size_t>(t);
            if (t == last) continue;
            const int from = readyAt(t);
            if (from >= end_) continue;
            if (timeline.place(t, from, parts_[i])) continue;
            parts_[i].clear();
            if (!p.tasks[i].split) continue;
            // As much of it as there is time for.
            const int all = p.tasks[i].minutes;
            for (int minutes = std::min(all, end_ - from); minutes >= kShortestPart; minutes -= kShortestPart) {
                p.tasks[i].minutes = minutes;
                if (timeline.place(t, from, parts_[i])) {
                    whole_[i] = minutes == all;
                    break;
                }
                parts_[i].clear();
            }
            p.tasks[i].minutes = all;
        }
    }

    /// What waits the longest after it, nothing of today waits for, and could be done by the end of the day.
    [[nodiscard]] int setsOvernight() const {
        int best = -1, longest = kOvernight - 1;
        for (const int t : tasks_) {
            const std::size_t i = static_cast<std::size_t>(t);
            if (parts_[i].size() != 1 || !whole_[i]) continue;
            const int wait = question_.net.items[static_cast<std::size_t>(plan_.items[i])].wait;
            if (wait <= longest) continue;
            const bool awaited = std::any_of(order_.after(t).begin(), order_.after(t).end(), [&](const auto& link) {
                return !parts_[static_cast<std::size_t>(link.first)].empty();
            });
            if (awaited) continue;
            best = t;
            longest = wait;
        }
        return best;
    }

    const WorkQuestion& question_;
    const WorkPlan& plan_;
    WorkProblem problem_;
    WorkOrder order_;
    std::vector<int> tasks_;
    std::vector<std::vector<WorkPart>> parts_;
    std::vector<bool> whole_;
    int end_ = 0, now_ = 0;
};

} // namespace

TodayIs expectedToday(const WorkSettings& settings, const WorkClock::Moment& now) {
    TodayIs today{.now = now, .until = now.minute};
    const ExpectedWeather weather = expectedWeather(settings, now.day);
    today.dry = weather.dryChance >= 0.5;
    today.outsideC = (weather.low + 3 * weather.high) / 4;
    for (const WorkSpan& span : workDayOf(settings, now.day))
        if (span.to > now.minute) {
            today.until = span.to;
            today.people = span.people;
            if (now.minute < span.from) today.now.minute = span.from;
            break;
        }
    return today;
}

TodayPlan todayOf(const WorkQuestion& question, const WorkPlan& plan, const TodayIs& today) {
    if (plan.schedule.parts.size() != plan.problem.tasks.size()) return {};
    return Day(question, plan, today).plan();
}

std::optional<OpenFault> mayOpen(const StepEffort& effort, double insideC, std::optional<double> humidity) {
    if (effort.minC && insideC < *effort.minC) return OpenFault::TooCold;
    if (effort.maxC && insideC > *effort.maxC) return OpenFault::TooWarm;
    if (humidity && *humidity > kDampest) return OpenFault::TooDamp;
    return std::nullopt;
}

} // namespace westrum
