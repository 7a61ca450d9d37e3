#include "core/vanwork/work_days.h"

#include "core/schedule/daylight.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

/// Share of wet days, and mean daily low and high. Source: docs/scheduling.md#weather
struct Month {
    double wet, low, high;
};
constexpr std::array<Month, 12> kMonths{{{0.46, 1, 6},
                                         {0.42, 1, 7},
                                         {0.40, 3, 10},
                                         {0.35, 5, 14},
                                         {0.35, 8, 18},
                                         {0.33, 11, 20},
                                         {0.35, 13, 22},
                                         {0.36, 13, 22},
                                         {0.37, 11, 19},
                                         {0.42, 8, 15},
                                         {0.47, 4, 10},
                                         {0.48, 2, 7}}};

/// The warm part of a day, in minutes from midnight.
constexpr int kWarmFrom = 600, kWarmTo = 1080;

/// One stretch, parted where it gets light or dark, and where shops open or shut.
void addStretch(const WorkSpan& span, const DayLight& light, const WorkDay& shops, const ExpectedWeather& weather,
                const CivilDate& day, const WorkClock& clock, int from, WorkDays& all) {
    for (const LitPart& part : partedByLight(span.from, span.to, light, shops)) {
        const int middle = (part.from + part.to) / 2;
        const int start = std::max(from, clock.at(day, part.from)), end = clock.at(day, part.to);
        if (end <= start) continue;
        const bool warm = middle >= kWarmFrom && middle < kWarmTo;
        const double degC = warm ? (weather.low + 3 * weather.high) / 4 : (weather.low + weather.high) / 2;
        all.windows.push_back({start, end, span.people, weather.dryChance >= 0.5, part.lit, degC, part.open});
        all.dry.push_back(weather.dryChance);
        all.day.push_back(dayNumber(day));
    }
}

} // namespace

std::vector<LitPart> partedByLight(int from, int to, const DayLight& light, const WorkDay& shops) {
    std::vector<int> cuts{from, std::max(from, to)};
    for (const auto& at : {light.from, light.to})
        if (at && *at > from && *at < to) cuts.push_back(*at);
    for (const WorkSpan& s : shops)
        for (const int at : {s.from, s.to})
            if (at > from && at < to) cuts.push_back(at);
    std::sort(cuts.begin(), cuts.end());
    std::vector<LitPart> parts;
    for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
        if (cuts[i + 1] <= cuts[i]) continue;
        const int middle = (cuts[i] + cuts[i + 1]) / 2;
        parts.push_back({cuts[i], cuts[i + 1],
                         !light.never && (!light.from || middle >= *light.from) && (!light.to || middle < *light.to),
                         std::any_of(shops.begin(), shops.end(),
                                     [&](const WorkSpan& s) { return middle >= s.from && middle < s.to; })});
    }
    return parts;
}

ExpectedWeather expectedWeather(const WorkSettings& settings, const CivilDate& day) {
    const int month = (day.month - 1 + (settings.site.latitudeDeg < 0 ? 6 : 0)) % 12;
    const Month& usual = kMonths[static_cast<std::size_t>(month)];
    ExpectedWeather w{1 - usual.wet, usual.low, usual.high, false};
    const auto told = settings.forecast.days.find(day);
    if (told == settings.forecast.days.end()) return w;
    w.forecast = told->second.dryChance.has_value();
    w.dryChance = told->second.dryChance.value_or(w.dryChance);
    w.low = told->second.low.value_or(w.low);
    w.high = std::max(w.low, told->second.high.value_or(w.high));
    return w;
}

const WorkDay& workDayOf(const WorkSettings& settings, const CivilDate& day) {
    const auto own = settings.days.find(day);
    return own != settings.days.end() ? own->second : settings.week[static_cast<std::size_t>(weekdayOf(day))];
}

const WorkDay& shopsOn(const WorkSettings& settings, const CivilDate& day) {
    return settings.shops[static_cast<std::size_t>(weekdayOf(day))];
}

DayLight dayLightOn(const WorkSite& site, const CivilDate& day) {
    const Daylight sun = daylightOn(day, site.latitudeDeg, site.longitudeDeg);
    if (sun.kind == DayKind::NeverRises) return {.from = {}, .to = {}, .never = true};
    if (sun.kind == DayKind::NeverSets) return {};
    const int noon = 720, offset = utcOffsetAt(day, noon, site);
    return {.from = static_cast<int>(std::lround(*sun.sunrise)) + offset,
            .to = static_cast<int>(std::lround(*sun.sunset)) + offset};
}

WorkDays workDays(const WorkSettings& settings, const WorkClock& clock, int from, int days) {
    WorkDays all;
    const CivilDate first = clock.moment(from).day;
    for (int d = 0; d < days; ++d) {
        const CivilDate day = first + d;
        const WorkDay& spans = workDayOf(settings, day);
        if (spans.empty()) continue;
        const DayLight light = dayLightOn(settings.site, day);
        const ExpectedWeather weather = expectedWeather(settings, day);
        for (const WorkSpan& span : spans)
            addStretch(span, light, shopsOn(settings, day), weather, day, clock, from, all);
    }
    return all;
}

} // namespace westrum
