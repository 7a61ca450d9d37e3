#pragma once

#include "core/units/date.h"

#include <optional>

namespace westrum {

enum class DayKind { Normal, NeverSets, NeverRises };
/// When the sun's upper limb rises and sets, in minutes from midnight UTC: below 0 the day before, over 1440 the next.
struct Daylight {
    DayKind kind{};
    std::optional<double> sunrise, sunset;
};
/// By the general solar formula, zenith 90.833 degrees (refraction and the sun's half), within about three minutes.
/// @param latitudeDeg  north is positive  @param longitudeDeg  east is positive
/// Source: docs/formulae.md#daylight. 52 N 5 E on 2027-03-20: 345 and 1071 minutes
Daylight daylightOn(const CivilDate& date, double latitudeDeg, double longitudeDeg);

} // namespace westrum
