#pragma once

#include "app/document/commands.h"
#include "core/vanwork/work_net.h"

namespace westrum {

// When, where and in which order the work is done; one undo step each.

Command beginWorkOn(JobDocument&, std::optional<CivilDate> start);
/// @param weekday  0 is Monday
Command setWeekday(JobDocument&, int weekday, WorkDay day);
/// A day that differs from its weekday; nothing: it is as usual again.
Command setWorkDay(JobDocument&, const CivilDate& date, std::optional<WorkDay> day);
Command setWorkSite(JobDocument&, const WorkSite& site);
/// An empty one: none is known.
Command takeForecast(JobDocument&, Forecast forecast);
Command switchRule(JobDocument&, WorkRule rule, RuleWay way);
Command setGate(JobDocument&, WorkGate gate, const GateState& state);
Command setPractised(JobDocument&, bool practised);
/// The person's own hours of a family; nothing: the family's.
Command setHours(JobDocument&, const std::string& family, std::optional<HourRate> rate);
/// What a kind of step takes, as a person knows it; an empty one: as usual.
Command setEffort(JobDocument&, StepKind kind, const OwnEffort& own);
/// When suppliers are open. @param weekday  0 is Monday
Command setShops(JobDocument&, int weekday, WorkDay day);
/// Puts a piece of work on a day; nothing: wherever the plan has it. Commands of the same gesture merge.
Command pinWork(JobDocument&, const std::string& id, std::optional<CivilDate> day, int gesture = -1);
Command acceptChance(JobDocument&, double chance);

/// Ticks steps, of one surface or of several, as done at a time; or takes the ticks away.
Command tickWorkSteps(JobDocument&, const std::vector<StepRef>& steps, bool done, std::optional<WorkedTime> when);
/// Work that is no surface's: a trip, the weighbridge.
Command tickWork(JobDocument&, const std::string& id, std::optional<WorkedTime> when);

/// From when to when a piece of work was done that is ticked now: as long as it was to take, but not before the last
/// one of the day ended.
WorkedTime workedUntilNow(const JobDocument&, double minutes);

} // namespace westrum
