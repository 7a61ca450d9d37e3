#include "core/vanwork/work_clock.h"

namespace westrum {
namespace {

constexpr int kDay = 1440, kHour = 60;

/// The nth Sunday of a month; 0: the last.
CivilDate sunday(int year, int month, int nth) {
    if (nth == 0) {
        CivilDate last{year, month, 31};
        while (!isDay(last)) --last.day;
        return last + -((weekdayOf(last) + 1) % 7);
    }
    const CivilDate first{year, month, 1};
    return first + ((6 - weekdayOf(first)) + 7 * (nth - 1));
}

} // namespace

int utcOffsetAt(const CivilDate& day, int minute, const WorkSite& site) {
    CivilDate begins, ends;
    int beginsAt = 0, endsAt = 0; // on the wall, before they are changed
    switch (site.change) {
    case ClockChange::None: return site.utcOffset;
    case ClockChange::Europe:
        begins = sunday(day.year, 3, 0);
        ends = sunday(day.year, 10, 0);
        beginsAt = kHour + site.utcOffset;
        endsAt = kHour + site.utcOffset + kHour;
        break;
    case ClockChange::NorthAmerica:
        begins = sunday(day.year, 3, 2);
        ends = sunday(day.year, 11, 1);
        beginsAt = endsAt = 2 * kHour;
        break;
    }
    const bool summer =
        (day > begins || (day == begins && minute >= beginsAt)) && (day < ends || (day == ends && minute < endsAt));
    return site.utcOffset + (summer ? kHour : 0);
}

int WorkClock::at(const CivilDate& day, int minute) const {
    return (dayNumber(day) - dayNumber(first_)) * kDay + minute -
           (utcOffsetAt(day, minute, site_) - utcOffsetAt(first_, 0, site_));
}

WorkClock::Moment WorkClock::moment(int minutes) const {
    // With the offset of that time; once more, should it have crossed a change of the clocks.
    int wall = minutes;
    for (int round = 0; round < 2; ++round) {
        const int days = wall >= 0 ? wall / kDay : -((-wall + kDay - 1) / kDay);
        const CivilDate day = first_ + days;
        wall = minutes + utcOffsetAt(day, wall - days * kDay, site_) - utcOffsetAt(first_, 0, site_);
    }
    const int days = wall >= 0 ? wall / kDay : -((-wall + kDay - 1) / kDay);
    return {first_ + days, wall - days * kDay};
}

} // namespace westrum
