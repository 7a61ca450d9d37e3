#pragma once

#include "core/schedule/work.h"

#include <vector>

namespace westrum {

/// Where the work on hand lies so far, window by window; finds the soonest place for one task more.
class WorkTimeline {
public:
    explicit WorkTimeline(const WorkProblem& problem);

    /// Takes all work away again.
    void clear();
    /// The soonest parts of a task from a time on; false if there are none: nothing is kept then.
    bool place(int task, int from, std::vector<WorkPart>& parts);
    /// Puts parts where they are said to lie.
    void put(int task, const std::vector<WorkPart>& parts);
    /// Takes the parts away again that were placed or put last.
    void take(int task, const std::vector<WorkPart>& parts);
    /// Whether the task's needs are met by a window, its length left aside.
    [[nodiscard]] bool accepts(int task, std::size_t window) const;

private:
    struct Busy {
        int start, end;
        int hands, inside; ///< hands, and of them inside
        int narrow;
    };
    /// Nobody else works inside.
    struct Fumes {
        int start, end;
    };
    /// What keeps a task from lying there: the soonest time at which it is worth trying again; -1: nothing.
    [[nodiscard]] int clash(const WorkTask& t, std::size_t w, int start, int end, int airedAt) const;
    /// The soonest start in a window for so many minutes; -1: none.
    [[nodiscard]] int soonest(const WorkTask& t, std::size_t w, int from, int minutes, bool last) const;
    /// How long it could go on from a start at which it fits.
    [[nodiscard]] int until(const WorkTask& t, std::size_t w, int start, int most) const;
    bool placeWhole(int task, int from, std::vector<WorkPart>& parts);
    bool placeSplit(int task, int from, std::vector<WorkPart>& parts);
    [[nodiscard]] int endOf(const WorkTask& t, std::size_t w) const;
    /// The first of the windows that a task can use which ends after a time.
    [[nodiscard]] std::size_t firstUsable(int task, int from) const;
    /// The window in which a time lies; -1: none.
    [[nodiscard]] int windowAt(int time) const;

    const WorkProblem& p_;
    std::vector<std::vector<std::size_t>> usable_; ///< windows by task, rising
    std::vector<std::vector<Busy>> busy_;          ///< by window
    std::vector<Fumes> fumes_;
};

} // namespace westrum
