#pragma once

#include "core/fitting/steps.h"
#include "core/plan/job.h"
#include "core/plan/plan.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// What a piece of work is.
enum class WorkKind {
    Surface,  ///< steps of one surface that go on without a wait between them
    Cutting,  ///< all that is cut of one product in the yard
    Coating,  ///< all that is coated with one product before it goes up
    Trip,     ///< to a supplier
    Delivery, ///< he brings it
    Protect,  ///< a finished floor, while others work over it
    Weigh,
    Tidy,
    Gate ///< what a person waits for
};

/// A step of a surface, by its key.
struct StepRef {
    std::string surface, key;
    friend auto operator<=>(const StepRef&, const StepRef&) = default;
};

/// A piece of work.
struct WorkItem {
    std::string id; ///< stays the same while it means the same: pins hang on it
    WorkKind kind{};
    std::string surface;         ///< id; of one surface
    std::string of;              ///< product or supplier
    WorkGate gate{};             ///< of a gate
    std::vector<StepRef> steps;  ///< in order, done ones too
    std::vector<StepKind> kinds; ///< of them
    std::vector<StepRef> checks; ///< what must be in before it covers it
    bool covers = false;         ///< for good
    WorkPlace place{};
    StepEffort needs{};             ///< of all its steps together; minutes of all of them
    double left{};                  ///< minutes still to do
    std::vector<WorkedTime> worked; ///< of which it is known
    int wait = 0;                   ///< minutes after it before anything there goes on
    double spread{};                ///< of the logarithm of its minutes
    int narrow = 0;                 ///< a place that holds one piece of work at a time, such as a wet cell; 0: none
    friend bool operator==(const WorkItem&, const WorkItem&) = default;
};

/// `then` waits for `first`.
struct WorkLink {
    int first{}, then{};
    int wait{};                     ///< minutes
    std::optional<WorkRule> rule{}; ///< by which it does, if by one that can be switched
    friend bool operator==(const WorkLink&, const WorkLink&) = default;
};

/// All work of a van that is planned, and what waits for what.
struct WorkNet {
    std::vector<WorkItem> items;
    std::vector<WorkLink> links;
    [[nodiscard]] int find(std::string_view id) const; ///< -1: there is none
    friend bool operator==(const WorkNet&, const WorkNet&) = default;
};

/// Minutes of a trip with loading, of receiving a delivery, of covering a floor, of the weighbridge and of tidying up.
/// Source: docs/formulae.md#efforts
inline constexpr double kTripMinutes = 150, kDeliveryMinutes = 20, kProtectMinutes = 30, kWeighMinutes = 60,
                        kTidyMinutes = 60;
/// Spread of the logarithm of what a piece of work takes. Source: docs/scheduling.md#chance
inline constexpr double kFirstTimerSpread = 0.45, kPractisedSpread = 0.3;

/// The work of a job: from the steps of its surfaces, the trips that its purchases ask for, its gates and rules.
WorkNet workNet(const Job& job, const Plan& plan);

/// Whether work on a surface waits for a gate: as a whole, or what covers something for good.
bool waitsForGate(const Job& job, const Surface& surface, WorkGate gate);

/// Whether a surface is one of those that a rule is about: first or second in its usual order.
bool isFirstOf(WorkRule rule, SurfaceKind kind);
bool isSecondOf(WorkRule rule, SurfaceKind kind);

} // namespace westrum
