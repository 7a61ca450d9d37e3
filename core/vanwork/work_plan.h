#pragma once

#include "core/schedule/chance.h"
#include "core/schedule/work.h"
#include "core/vanwork/work_days.h"
#include "core/vanwork/work_net.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <vector>

namespace westrum {

/// All that the plan of the work is made of.
struct WorkQuestion {
    WorkNet net;
    WorkSettings settings;
    WorkClock::Moment now;
    std::uint64_t seed = 1;
    friend bool operator==(const WorkQuestion&, const WorkQuestion&) = default;
};
/// @param now  by the clock; work begins no sooner, nor before the day it is to begin
WorkQuestion workQuestion(const Job& job, const Plan& plan, const WorkClock::Moment& now);

/// The work in time.
struct WorkPlan {
    WorkClock clock;
    WorkDays days;
    WorkProblem problem;
    std::vector<int> tasks; ///< by piece of work: its task; -1: it is done, nobody knows when
    std::vector<int> items; ///< by task
    WorkSchedule schedule;
    int now{}; ///< minutes of the clock before which nothing is done any more

    /// Parts of a piece of work; empty: it has no place, or is done.
    [[nodiscard]] const std::vector<WorkPart>& parts(int item) const;
    [[nodiscard]] std::optional<WorkFault> fault(int item) const;
    /// The day on which the last of it is done; nothing if some of it has no place, or there is none.
    [[nodiscard]] std::optional<CivilDate> done() const;
    friend bool operator==(const WorkPlan&, const WorkPlan&) = default;
};

/// Looks so many days ahead at most. Source: docs/scheduling.md#calendar
inline constexpr int kFewDays = 120, kMostDays = 730;

/// The tasks and windows of a question, so many days ahead.
WorkPlan workProblem(const WorkQuestion& question, int days);

/// Plans the work; where it does not fit into the calendar looked at, further ahead. Each better plan is told.
WorkPlan planVan(const WorkQuestion& question, const WorkEffort& effort,
                 const std::function<void(const WorkPlan&)>& better = {});

/// Plans it as near as can be to a plan of the same work: in its order, each as soon as it goes. For a gesture.
WorkPlan planNear(const WorkQuestion& question, const WorkPlan& plan);

/// How sure it is. Source: docs/scheduling.md#chance
WorkChance chanceOfVan(const WorkQuestion& question, const WorkPlan& plan, int runs, const std::stop_token& stop = {});

/// Why a day that a person puts work on does not do.
struct PinTrouble {
    enum Why {
        Past,        ///< the day is over
        NobodyThere, ///< nobody works on it
        TooShort,    ///< not enough time, or hands, are left on it
        Wet,
        Dark,
        Cold,
        WaitsFor, ///< another one ends too late
        AlreadyDone,
        Shut, ///< suppliers are
    } why{};
    int item = -1;                  ///< that it waits for
    std::optional<WorkRule> rule{}; ///< by which
    friend bool operator==(const PinTrouble&, const PinTrouble&) = default;
};
/// What keeps a piece of work from lying on a day; nothing: nothing does. @param plan  of the question as it was
std::optional<PinTrouble> pinTrouble(const WorkQuestion& question, const WorkPlan& plan, int item,
                                     const CivilDate& day);

} // namespace westrum
