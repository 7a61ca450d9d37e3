#pragma once

#include "core/vanwork/work_plan.h"

namespace westrum {

/// A day as it turned out to be, from now on.
struct TodayIs {
    WorkClock::Moment now;
    int until{}; ///< minutes from midnight when work ends
    int people = 1;
    bool dry = true;
    double outsideC = 15;
    std::optional<double> insideC{}; ///< measured; nothing: as the van is heated, or as outside
};
/// What lies on the day by the calendar and the forecast, seen from a moment of it.
TodayIs expectedToday(const WorkSettings& settings, const WorkClock::Moment& now);

/// A piece of work of today.
struct TodayWork {
    int item{};
    int from{}, to{};  ///< minutes from midnight
    bool whole = true; ///< done by then; else it goes on another day
    friend bool operator==(const TodayWork&, const TodayWork&) = default;
};
struct TodayPlan {
    std::vector<TodayWork> work; ///< in order
    int last = -1;               ///< place in it: begun last, so that it sets overnight
    std::vector<int> cannot;     ///< pieces of work that are due, and that the day keeps from being done
    friend bool operator==(const TodayPlan&, const TodayPlan&) = default;
};
/// What can be done today, in the order of the plan, as long as there is time. Nothing of it is begun before what it
/// waits for is done and has set.
TodayPlan todayOf(const WorkQuestion& question, const WorkPlan& plan, const TodayIs& today);

/// Whether what has an open time may be opened at the temperature in the van; nothing: it may.
enum class OpenFault { TooCold, TooWarm, TooDamp };
std::optional<OpenFault> mayOpen(const StepEffort& effort, double insideC, std::optional<double> humidity);
/// Relative humidity in percent above which nothing is stuck or coated. Source: docs/scheduling.md#weather
inline constexpr double kDampest = 80;

} // namespace westrum
