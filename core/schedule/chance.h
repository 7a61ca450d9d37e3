#pragma once

#include "core/schedule/work.h"

#include <cstdint>
#include <stop_token>
#include <vector>

namespace westrum {

/// What may come otherwise than a plan has it.
struct WorkRisk {
    std::vector<double> spread; ///< by task: of the logarithm of its minutes; 0: it takes what it takes
    std::vector<double> dry;    ///< by window: chance that it is
    std::vector<int> day;       ///< by window: those of one day share its weather
    double spreadC = 0;         ///< of a day's temperature
    friend bool operator==(const WorkRisk&, const WorkRisk&) = default;
};

/// Why a run ended later than the plan.
enum class DelayBy { Itself, Weather };
struct WorkDelay {
    int task{};
    DelayBy by{};
    double share{}; ///< of all runs: what delayed the end the most
    friend bool operator==(const WorkDelay&, const WorkDelay&) = default;
};

/// When it would be done, over many runs.
struct WorkChance {
    std::vector<int> finishes;     ///< rising, one a run; what could not be placed at all ends with the last window
    std::vector<WorkDelay> delays; ///< those met most often first
    [[nodiscard]] double by(int time) const;  ///< share of runs that are done by then
    [[nodiscard]] int at(double share) const; ///< done by then in so many runs at least
    friend bool operator==(const WorkChance&, const WorkChance&) = default;
};

/// Plays a plan through, with other lengths of the tasks and other weather each time: work is taken up in the order of
/// the plan as soon as it can be. The same problem, plan, risk, runs and seed give the same answer.
/// Source: docs/scheduling.md#chance
WorkChance chanceOf(const WorkProblem& problem, const WorkSchedule& plan, const WorkRisk& risk, int runs,
                    std::uint64_t seed, const std::stop_token& stop = {});

} // namespace westrum
