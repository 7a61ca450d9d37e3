#include "core/schedule/daylight.h"

#include <array>
#include <cmath>
#include <numbers>

namespace westrum {

bool isLeapYear(int year) { return (year % 4 == 0 && year % 100 != 0) || year % 400 == 0; }

int dayOfYear(const CivilDate& date) {
    constexpr std::array<int, 12> kBefore{0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334};
    return kBefore[static_cast<std::size_t>(date.month - 1)] + date.day +
           (date.month > 2 && isLeapYear(date.year) ? 1 : 0);
}

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
