#pragma once

#include "core/measure/measurement.h"

#include <map>
#include <optional>
#include <string>

namespace westrum {

/// The van on its wheels, as its plate and a first weighing say it. All in kg; what is not known is left out.
struct VanMass {
    MaybeReading wheelbase, track;
    MaybeReading rearAxle;             ///< in front of the floor's rear edge; behind it: not a van
    std::optional<double> front, rear; ///< weighed before anything was fitted
    std::optional<double> frontLimit, rearLimit, grossLimit; ///< off the plate
    std::map<std::string, Point> places; ///< by surface id: where it stands, if no tie says so; as PlanPlace
    std::optional<double> allowance;     ///< for finishes, by the person's will
    friend bool operator==(const VanMass&, const VanMass&) = default;
};

/// A later visit to the weighbridge.
struct Weighing {
    std::string when; ///< a date as it was typed or printed on the ticket
    double front{}, rear{};
    double fitted{}; ///< kg that were fitted by then, by the plan of that day
    std::string note;
    friend bool operator==(const Weighing&, const Weighing&) = default;
};

inline constexpr double kMostVanKg = 40000; ///< no van weighs more

} // namespace westrum
