#pragma once

#include <compare>
#include <optional>
#include <string>
#include <string_view>

namespace westrum {

/// A day of the calendar.
struct CivilDate {
    int year{}, month{}, day{};
    friend constexpr auto operator<=>(const CivilDate&, const CivilDate&) = default;
};
bool isLeapYear(int year);
/// Whether the calendar has it, between the years 1900 and 2200.
bool isDay(const CivilDate& date);
/// From 1 for the first of January.
int dayOfYear(const CivilDate& date);
/// Days from 1970-01-01; and back.
int dayNumber(const CivilDate& date);
CivilDate dayOfNumber(int days);
CivilDate operator+(const CivilDate& date, int days);
/// 0 is Monday.
int weekdayOf(const CivilDate& date);
/// "2027-03-13"; and back, nothing for what is no day.
std::string isoDate(const CivilDate& date);
std::optional<CivilDate> parseIsoDate(std::string_view text);

} // namespace westrum
