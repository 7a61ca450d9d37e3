#include "core/schedule/daylight.h"

#include <cmath>
#include <numbers>

namespace westrum {

Daylight daylightOn(const CivilDate& date, double latitudeDeg, double longitudeDeg) {
    constexpr double kDegree = std::numbers::pi / 180, kZenith = 90.833 * kDegree;
    const double g = 2 * std::numbers::pi / (isLeapYear(date.year) ? 366 : 365) * (dayOfYear(date) - 1);
    const double equation = 229.18 * (0.000075 + 0.001868 * std::cos(g) - 0.032077 * std::sin(g) -
                                      0.014615 * std::cos(2 * g) - 0.040849 * std::sin(2 * g));
    const double declination = 0.006918 - 0.399912 * std::cos(g) + 0.070257 * std::sin(g) - 0.006758 * std::cos(2 * g) +
                               0.000907 * std::sin(2 * g) - 0.002697 * std::cos(3 * g) + 0.00148 * std::sin(3 * g);
    const double latitude = latitudeDeg * kDegree;
    const double cosine =
        std::cos(kZenith) / (std::cos(latitude) * std::cos(declination)) - std::tan(latitude) * std::tan(declination);
    if (cosine < -1) return {DayKind::NeverSets, {}, {}};
    if (cosine > 1) return {DayKind::NeverRises, {}, {}};
    const double hourAngle = std::acos(cosine) / kDegree;
    return {DayKind::Normal, 720 - 4 * (longitudeDeg + hourAngle) - equation,
            720 - 4 * (longitudeDeg - hourAngle) - equation};
}

} // namespace westrum
