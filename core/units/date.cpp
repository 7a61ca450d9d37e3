#include "core/units/date.h"

#include <charconv>
#include <chrono>

namespace westrum {
namespace {

using namespace std::chrono;

year_month_day chronoOf(const CivilDate& d) {
    return {year{d.year}, month{static_cast<unsigned>(d.month)}, std::chrono::day{static_cast<unsigned>(d.day)}};
}

} // namespace

bool isLeapYear(int year) { return (year % 4 == 0 && year % 100 != 0) || year % 400 == 0; }

bool isDay(const CivilDate& date) {
    return date.year >= 1900 && date.year <= 2200 && date.month >= 1 && date.month <= 12 && date.day >= 1 &&
           date.day <= 31 && chronoOf(date).ok();
}

int dayOfYear(const CivilDate& date) { return dayNumber(date) - dayNumber({date.year, 1, 1}) + 1; }

int dayNumber(const CivilDate& date) { return static_cast<int>(sys_days{chronoOf(date)}.time_since_epoch().count()); }

CivilDate dayOfNumber(int number) {
    const year_month_day d{sys_days{days{number}}};
    return {static_cast<int>(d.year()), static_cast<int>(static_cast<unsigned>(d.month())),
            static_cast<int>(static_cast<unsigned>(d.day()))};
}

CivilDate operator+(const CivilDate& date, int days) { return dayOfNumber(dayNumber(date) + days); }

int weekdayOf(const CivilDate& date) { return static_cast<int>(weekday{sys_days{chronoOf(date)}}.iso_encoding()) - 1; }

std::string isoDate(const CivilDate& date) {
    const auto two = [](int n) { return (n < 10 ? "0" : "") + std::to_string(n); };
    return std::to_string(date.year) + '-' + two(date.month) + '-' + two(date.day);
}

std::optional<CivilDate> parseIsoDate(std::string_view text) {
    if (text.size() != 10 || text[4] != '-' || text[7] != '-') return std::nullopt;
    CivilDate d;
    const auto take = [&](std::size_t at, std::size_t length, int& into) {
        const char* const end = text.data() + at + length;
        const auto [last, why] = std::from_chars(text.data() + at, end, into);
        return why == std::errc() && last == end;
    };
    if (!take(0, 4, d.year) || !take(5, 2, d.month) || !take(8, 2, d.day) || !isDay(d)) return std::nullopt;
    return d;
}

} // namespace westrum
