#include "core/vanwork/work_plan.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {
namespace {

constexpr int kDay = 1440;
constexpr double kDaySpreadC = 3; ///< of a day's temperature round what is expected

/// What a piece of work needs of a window, given where the van stands.
WorkTask taskOf(const WorkItem& w, const WorkSettings& settings) {
    const WorkSite& site = settings.site;
    WorkTask t{.id = w.id,
               .minutes = std::max(1, static_cast<int>(std::lround(w.left))),
               .hands = w.needs.hands,
               .inside = w.place == WorkPlace::Van,
               .split = w.needs.split,
               .minC = w.needs.minC,
               .maxC = w.needs.maxC,
               .open = w.needs.open,
               .narrow = w.narrow};
    if (w.place == WorkPlace::Yard) {
        t.dry = w.needs.dry && !site.tarpaulin && !site.workshop;
        t.light = w.needs.light && !site.workshop;
    } else
        t.light = w.needs.light;
    const bool warm = w.place == WorkPlace::Workshop || (w.place == WorkPlace::Van && site.heated) ||
                      (w.place == WorkPlace::Yard && site.workshop);
    if (warm && t.minC && *t.minC <= kHeatedC) t.minC.reset();
    if (w.place == WorkPlace::Van) t.fumes = w.needs.fumes;
    return t;
}

/// What was worked, rising and apart.
std::vector<WorkPart> partsOf(const std::vector<WorkedTime>& worked, const WorkClock& clock) {
    std::vector<WorkPart> parts, apart;
    for (const WorkedTime& w : worked) {
        const int start = clock.at(w.day, w.from);
        parts.push_back({start, std::max(start + 1, clock.at(w.day, w.to))});
    }
    std::sort(parts.begin(), parts.end(), [](const WorkPart& a, const WorkPart& b) { return a.start < b.start; });
    for (const WorkPart& p : parts)
        if (!apart.empty() && p.start <= apart.back().end)
            apart.back().end = std::max(apart.back().end, p.end);
        else
            apart.push_back(p);
    return apart;
}

bool lacksTime(const WorkSchedule& s) {
    return std::any_of(s.unplaced.begin(), s.unplaced.end(), [](const WorkUnplaced& u) {
        return u.fault != WorkFault::Circular && u.fault != WorkFault::AfterUnplaced && u.fault != WorkFault::Pinned;
    });
}

} // namespace

WorkQuestion workQuestion(const Job& job, const Plan& plan, const WorkClock::Moment& now) {
    WorkQuestion q{.net = workNet(job, plan), .settings = job.work, .now = now, .seed = job.seed};
    // What has gone into the pieces of work already.
    q.settings.done.clear();
    q.settings.hours.clear();
    return q;
}

const std::vector<WorkPart>& WorkPlan::parts(int item) const {
    static const std::vector<WorkPart> kNone;
    const int t = item >= 0 && item < static_cast<int>(tasks.size()) ? tasks[static_cast<std::size_t>(item)] : -1;
    return t < 0 || static_cast<std::size_t>(t) >= schedule.parts.size() ? kNone
                                                                         : schedule.parts[static_cast<std::size_t>(t)];
}

std::optional<WorkFault> WorkPlan::fault(int item) const {
    for (const WorkUnplaced& u : schedule.unplaced)
        if (items[static_cast<std::size_t>(u.task)] == item) return u.fault;
    return std::nullopt;
}

std::optional<CivilDate> WorkPlan::done() const {
    if (schedule.parts.empty() || !schedule.unplaced.empty()) return std::nullopt;
    return clock.moment(schedule.finish - 1).day;
}

WorkPlan workProblem(const WorkQuestion& question, int days) {
    WorkPlan p;
    const WorkSettings& settings = question.settings;
    WorkClock::Moment begin = question.now;
    if (settings.start && *settings.start > begin.day) begin = {*settings.start, 0};
    CivilDate first = begin.day;
    for (const WorkItem& w : question.net.items)
        if (w.kind != WorkKind::Gate)
            for (const WorkedTime& t : w.worked) first = std::min(first, t.day);
    p.clock = WorkClock(first, settings.site);
    p.now = p.clock.at(begin);
    p.days = workDays(settings, p.clock, p.now, days);
    p.problem.windows = p.days.windows;
    p.tasks.assign(question.net.items.size(), -1);
    for (std::size_t i = 0; i < question.net.items.size(); ++i) {
        const WorkItem& w = question.net.items[i];
        WorkTask t = taskOf(w, settings);
        if (w.kind == WorkKind::Gate) {
            // It lies in no window; one that is late and not ticked is not there before tomorrow.
            const CivilDate day = std::max(w.worked.front().day, question.now.day + (question.now.minute > 0 ? 1 : 0));
            const int at = p.clock.at(day, 0);
            t.done = {{at - 1, at}};
        } else if (w.left <= 0) {
            t.done = partsOf(w.worked, p.clock);
            if (t.done.empty()) continue; // done long ago
        } else if (const auto pin = settings.pins.find(w.id); pin != settings.pins.end())
            t.pinned = WorkPart{p.clock.at(pin->second, 0), p.clock.at(pin->second + 1, 0)};
        p.tasks[i] = static_cast<int>(p.problem.tasks.size());
        p.items.push_back(static_cast<int>(i));
        p.problem.tasks.push_back(std::move(t));
    }
    for (const WorkLink& l : question.net.links) {
        const int a = p.tasks[static_cast<std::size_t>(l.first)], b = p.tasks[static_cast<std::size_t>(l.then)];
        if (a >= 0 && b >= 0) p.problem.before.push_back({a, b, l.wait});
    }
    return p;
}

WorkPlan planVan(const WorkQuestion& question, const WorkEffort& effort,
                 const std::function<void(const WorkPlan&)>& better) {
    for (int days = kFewDays;; days = std::min(kMostDays, days * 3)) {
        WorkPlan p = workProblem(question, days);
        const auto tell = [&](const WorkSchedule& s) {
            if (!better || lacksTime(s)) return;
            p.schedule = s;
            better(p);
        };
        // Whether it fits is seen at once.
        WorkEffort quick = effort;
        quick.iterations = 1;
        if (days < kMostDays && lacksTime(planWork(p.problem, quick)) && !effort.stop.stop_requested()) continue;
        p.schedule = planWork(p.problem, effort, tell);
        return p;
    }
}

WorkPlan planNear(const WorkQuestion& question, const WorkPlan& plan) {
    const int ahead = plan.days.day.empty() ? kFewDays : plan.days.day.back() - plan.days.day.front() + 1;
    WorkPlan p = workProblem(question, std::clamp(ahead, kFewDays, kMostDays));
    WorkEffort effort{.iterations = 1, .seed = question.seed};
    for (const int item : p.items) {
        const std::vector<WorkPart>& parts = plan.parts(item);
        effort.wish.push_back(parts.empty() ? std::numeric_limits<int>::max() : parts.front().start);
    }
    p.schedule = planWork(p.problem, effort);
    return p;
}

WorkChance chanceOfVan(const WorkQuestion& question, const WorkPlan& plan, int runs, const std::stop_token& stop) {
    WorkRisk risk{.spread = {}, .dry = plan.days.dry, .day = plan.days.day, .spreadC = kDaySpreadC};
    for (const int i : plan.items) risk.spread.push_back(question.net.items[static_cast<std::size_t>(i)].spread);
    return chanceOf(plan.problem, plan.schedule, risk, runs, question.seed, stop);
}

namespace {

/// What a day lacks for a task, need by need; nothing: it would do if nothing else were on.
std::optional<PinTrouble::Why> lacking(const WorkTask& t, const WorkProblem& problem, int from, int to) {
    using enum PinTrouble::Why;
    int there = 0, handed = 0, dry = 0, lit = 0, open = 0, warm = 0;
    for (const WorkWindow& w : problem.windows) {
        const int length = std::min(w.end, to) - std::max(w.start, from);
        if (length <= 0) continue;
        there = std::max(there, length);
        if (w.people < t.hands) continue;
        handed = std::max(handed, length);
        if (t.dry && !w.dry) continue;
        dry = std::max(dry, length);
        if (t.light && !w.light) continue;
        lit = std::max(lit, length);
        if (t.open && !w.open) continue;
        open = std::max(open, length);
        if ((t.minC && w.degC < *t.minC) || (t.maxC && w.degC > *t.maxC)) continue;
        warm = std::max(warm, length);
    }
    if (there == 0) return NobodyThere;
    if (handed == 0) return TooShort;
    if (dry == 0) return Wet;
    if (lit == 0) return Dark;
    if (open == 0) return Shut;
    if (warm == 0) return Cold;
    return std::nullopt;
}

} // namespace

std::optional<PinTrouble> pinTrouble(const WorkQuestion& question, const WorkPlan& plan, int item,
                                     const CivilDate& day) {
    const WorkItem& w = question.net.items[static_cast<std::size_t>(item)];
    if (w.left <= 0 || w.kind == WorkKind::Gate) return PinTrouble{PinTrouble::AlreadyDone};
    const int from = plan.clock.at(day, 0), to = plan.clock.at(day + 1, 0);
    if (to <= plan.now) return PinTrouble{PinTrouble::Past};
    const int t = plan.tasks[static_cast<std::size_t>(item)];
    if (t < 0) return PinTrouble{PinTrouble::AlreadyDone};
    if (const auto why = lacking(plan.problem.tasks[static_cast<std::size_t>(t)], plan.problem, from, to))
        return PinTrouble{*why};
    // Would it find a place there, with all else planned round it?
    WorkQuestion asked = question;
    asked.settings.pins[w.id] = day;
    const int days = std::min(kMostDays, std::max(kFewDays, (to - plan.now) / kDay + 2));
    WorkPlan with = planNear(asked, plan);
    if (with.days.day.empty() || with.days.day.back() < dayNumber(day)) {
        with = workProblem(asked, days);
        with.schedule = planWork(with.problem, {.iterations = 1});
    }
    const int own = with.tasks[static_cast<std::size_t>(item)];
    if (!with.schedule.parts[static_cast<std::size_t>(own)].empty()) return std::nullopt;
    PinTrouble trouble{PinTrouble::TooShort};
    int latest = -1;
    for (const WorkLink& l : question.net.links) {
        if (l.then != item) continue;
        const std::vector<WorkPart>& before = with.parts(l.first);
        const int end = before.empty() ? -1 : before.back().end + l.wait;
        if (end <= latest || end + with.problem.tasks[static_cast<std::size_t>(own)].minutes <= to) continue;
        latest = end;
        trouble = {PinTrouble::WaitsFor, l.first, l.rule};
    }
    return trouble;
}

} // namespace westrum
