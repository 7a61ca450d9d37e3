#pragma once

#include <stop_token>
#include <vector>

namespace westrum {

/// A stretch of one row that planks are laid in, in row order, then from left to right. Lengths in mm.
struct Run {
    int row{};
    double start{};
    double length{}; ///< > 0
    [[nodiscard]] double end() const { return start + length; }
    friend bool operator==(const Run&, const Run&) = default;
};

/// When the cuts are decided.
enum class Working {
    PlannedAhead, ///< any row's start and any row's end may share a plank
    AsYouGo,      ///< what is left of an end piece may only start a later run
};

struct RowRules {
    double plankLength{}; ///< > 0
    double kerf{};        ///< >= 0; lost between two pieces of one plank
    double stagger{};     ///< least distance between end joints of neighbouring rows
    double endLeast{};    ///< least length of a row's first and last piece, where the row has a joint
    Working working = Working::PlannedAhead;
    int effort = 1000; ///< search steps allowed for each number of planks tried; same effort, same answer
};

/// How one run is laid: first piece, whole planks, last piece. A run no longer than a plank is one piece (`first`),
/// with `wholes` and `last` zero.
struct RunLayout {
    double first{};
    int wholes{};
    double last{};
    [[nodiscard]] bool isSingle() const { return last == 0; }
};

enum class RunPiece { First, Last, Single };

/// A plank that is cut: which run's pieces come out of it, in order from its left-hand end to its right-hand end.
struct CutPlank {
    struct Part {
        int run{};
        RunPiece piece{};
    };
    std::vector<Part> parts;
};

struct RowPlan {
    std::vector<RunLayout> runs;     ///< one for each run given, in order; empty if no layout keeps the rules
    std::vector<CutPlank> cutPlanks; ///< all planks but the wholes
    int planks = 0;                  ///< wholes and cut planks together
    int leastPossible = 0;           ///< no layout under these rules uses fewer
    [[nodiscard]] bool feasible() const { return !runs.empty(); }
    [[nodiscard]] bool provenLeast() const { return planks == leastPossible; }
};

/// Chooses where the joints of each row lie so that the fewest planks are used.
///
/// A run longer than a plank is laid as first piece, whole planks, last piece. A first piece needs the right-hand end
/// of a plank, a last piece the left-hand end (the locks are there), so one plank gives at most one of each, with the
/// kerf between; pieces of runs no longer than a plank need neither and fit anywhere. Joints of neighbouring rows whose
/// runs overlap lie at least `stagger` apart. The search is exact: every choice of piece sharing and joint order is a
/// system of difference constraints, followed depth first; what is proven is in `leastPossible`. If `effort` runs out
/// first, the best layout found is returned with the bound proven so far.
///
/// The result depends on the arguments only. A layout that cannot exist gives an empty plan. When stopped, returns the
/// best so far (perhaps empty).
RowPlan planRows(const std::vector<Run>& runs, const RowRules& rules, const std::stop_token& stop = {});

} // namespace westrum
