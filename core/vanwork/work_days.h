#pragma once

#include "core/schedule/work.h"
#include "core/vanwork/work_clock.h"

#include <vector>

namespace westrum {

/// A day as it is likely to be.
struct ExpectedWeather {
    double dryChance{}; ///< 0 to 1
    double low{}, high{};
    bool forecast = false; ///< else what the month usually brings
    friend bool operator==(const ExpectedWeather&, const ExpectedWeather&) = default;
};
/// From the forecast, or the month's usual share of wet days and temperatures in a temperate country by the sea (half a
/// year later in the south). Source: docs/scheduling.md#weather
ExpectedWeather expectedWeather(const WorkSettings& settings, const CivilDate& day);

/// Stretches of work on a day: its own, or those of its weekday.
const WorkDay& workDayOf(const WorkSettings& settings, const CivilDate& day);

/// Sunrise and sunset by the clock on the wall; nothing where the sun does not rise or set.
struct DayLight {
    std::optional<int> from, to;
    bool never = false; ///< it does not rise at all
    friend bool operator==(const DayLight&, const DayLight&) = default;
};
DayLight dayLightOn(const WorkSite& site, const CivilDate& day);

/// When suppliers and weighbridges are open on a day.
const WorkDay& shopsOn(const WorkSettings& settings, const CivilDate& day);

/// A stretch of a day, parted where it gets light or dark, and where shops open or shut.
struct LitPart {
    int from{}, to{};
    bool lit{}, open{};
};
std::vector<LitPart> partedByLight(int from, int to, const DayLight& light, const WorkDay& shops);

/// Windows of work, parted where it gets light or dark and where shops open or shut, with the weather that a day is
/// likely to have; each with its chance to be dry and its day.
struct WorkDays {
    std::vector<WorkWindow> windows;
    std::vector<double> dry;
    std::vector<int> day; ///< number of the day
    friend bool operator==(const WorkDays&, const WorkDays&) = default;
};
/// @param from  minutes of the clock before which nothing is done any more  @param days  from that day on
WorkDays workDays(const WorkSettings& settings, const WorkClock& clock, int from, int days);

} // namespace westrum
