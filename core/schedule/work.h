#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

// Work in time. Knows tasks, waits and windows with people, weather and light; nothing of what the work is. Times are
// whole minutes from one midnight.

/// A stretch in which work can be done.
struct WorkWindow {
    int start{}, end{};
    int people = 1;
    bool dry = true, light = true;
    double degC = 15;
    bool open = true; ///< those that work asks something of are there
    friend bool operator==(const WorkWindow&, const WorkWindow&) = default;
};

struct WorkPart {
    int start{}, end{};
    friend bool operator==(const WorkPart&, const WorkPart&) = default;
};

struct WorkTask {
    std::string id; ///< unique
    int minutes{};  ///< > 0, with so many hands at once
    int hands = 1;
    bool inside = true;              ///< in the confined place that holds only so many; else outside it
    bool split = false;              ///< may be interrupted; else it lies in one window in one piece
    bool dry = false, light = false; ///< what it needs of a window
    std::optional<double> minC, maxC;
    std::optional<int> fumes;         ///< while it runs, and so long after it ended, nobody else works inside
    std::vector<WorkPart> done{};     ///< it lies there, whatever the windows say: done, or being done
    std::optional<WorkPart> pinned{}; ///< it lies within this stretch by a person's will
    bool open = false;                ///< it needs others to be open
    int narrow = 0;                   ///< a place in which nothing else is done meanwhile, by its number; 0: none such
    friend bool operator==(const WorkTask&, const WorkTask&) = default;
};

/// `then` starts no sooner than `first` ended and so long has passed; nights count.
struct WorkBefore {
    int first{}, then{}; ///< places among the tasks
    int wait{};
    friend bool operator==(const WorkBefore&, const WorkBefore&) = default;
};

struct WorkProblem {
    int holds = 2;                   ///< people who can work inside at a time
    std::vector<WorkWindow> windows; ///< rising, apart
    std::vector<WorkTask> tasks;
    std::vector<WorkBefore> before;
    friend bool operator==(const WorkProblem&, const WorkProblem&) = default;
};

/// A part of what is interrupted is no shorter, unless less was left to do. Source: docs/scheduling.md
inline constexpr int kShortestPart = 30;

/// Why a task has no place.
enum class WorkFault {
    Circular,      ///< it waits for itself
    NeverDry,      ///< no window is dry from where it could begin
    NeverLight,    ///< none has daylight, with what else it needs
    NeverWarm,     ///< none is within its temperatures, with what else it needs
    TooFewPeople,  ///< none has hands enough, with what else it needs
    TooLong,       ///< it may not be interrupted, and no window that it could use is so long
    AfterTheEnd,   ///< the windows end before it comes to its turn
    Pinned,        ///< where it is pinned it cannot lie
    AfterUnplaced, ///< it waits for one that has no place
    NeverOpen      ///< nobody else is open, with what else it needs
};
struct WorkUnplaced {
    int task{};
    WorkFault fault{};
    friend bool operator==(const WorkUnplaced&, const WorkUnplaced&) = default;
};

/// A plan: when every task is worked on; those that have no place have no parts, and why.
struct WorkSchedule {
    std::vector<std::vector<WorkPart>> parts; ///< by task
    std::vector<WorkUnplaced> unplaced;
    int finish{}; ///< end of the last task
    int bound{};  ///< no plan of what is placed ends sooner
    std::int64_t iterations{};
    [[nodiscard]] bool proven() const { return finish <= bound; }
    friend bool operator==(const WorkSchedule&, const WorkSchedule&) = default;
};

struct WorkEffort {
    std::int64_t iterations = 20000; ///< orders that are tried
    std::uint64_t seed = 1;
    std::vector<int>
        wish{}; ///< by task: when it began in a plan that this one is to be near; that order is tried first
    std::optional<double> seconds{}; ///< whichever comes first; with it the answer hangs on the machine
    std::stop_token stop{};
};

/// Plans work so that the last of it ends as soon as can be found. The first answer comes after one pass; each better
/// one is told. The same problem, seed and iterations give the same plan. Source: docs/scheduling.md
WorkSchedule planWork(const WorkProblem& problem, const WorkEffort& effort,
                      const std::function<void(const WorkSchedule&)>& better = {});

/// What is wrong with a plan, for tests: nothing if it keeps every rule of its problem.
std::optional<std::string> brokenRule(const WorkProblem& problem, const WorkSchedule& schedule);

/// No plan ends sooner: the longest chain through the windows, and the hands that are there for what must still be
/// done.
int workBound(const WorkProblem& problem);

} // namespace westrum
