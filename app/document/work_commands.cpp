#include "app/document/work_commands.h"

#include "app/document/record_commands.h"
#include "app/document/set_value.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct WorkCommands {
    Q_DECLARE_TR_FUNCTIONS(WorkCommands)
};

/// A member of the settings.
template <class Member> auto settingOf(Member WorkSettings::*member) {
    return [member](auto& job) -> auto& { return job.work.*member; };
}

template <class Member>
Command set(const QString& name, JobDocument& d, Member WorkSettings::*member, Member value, int gesture = -1) {
    return setValue(name, d, JobPart::Work, std::string(), settingOf(member), std::move(value), gesture);
}

constexpr int kDayMinutes = 1440;

} // namespace

Command beginWorkOn(JobDocument& d, std::optional<CivilDate> start) {
    return set(WorkCommands::tr("Choose the first day"), d, &WorkSettings::start, start);
}

Command setWeekday(JobDocument& d, int weekday, WorkDay day) {
    auto week = d.job().work.week;
    week[static_cast<std::size_t>(weekday)] = std::move(day);
    return set(WorkCommands::tr("Change a weekday"), d, &WorkSettings::week, std::move(week));
}

Command setWorkDay(JobDocument& d, const CivilDate& date, std::optional<WorkDay> day) {
    auto days = d.job().work.days;
    if (day)
        days[date] = std::move(*day);
    else
        days.erase(date);
    return set(WorkCommands::tr("Change a day"), d, &WorkSettings::days, std::move(days));
}

Command setWorkSite(JobDocument& d, const WorkSite& site) {
    return set(WorkCommands::tr("Say where the van stands"), d, &WorkSettings::site, site);
}

Command takeForecast(JobDocument& d, Forecast forecast) {
    return set(WorkCommands::tr("Take a forecast"), d, &WorkSettings::forecast, std::move(forecast));
}

Command switchRule(JobDocument& d, WorkRule rule, RuleWay way) {
    auto rules = d.job().work.rules;
    if (way == RuleWay::Usual)
        rules.erase(rule);
    else
        rules[rule] = way;
    // Coats are steps of their surfaces.
    return setValue(WorkCommands::tr("Switch a rule"), d,
                    rule == WorkRule::CoatsBeforeFitting ? JobPart::Finish : JobPart::Work, std::string(),
                    settingOf(&WorkSettings::rules), std::move(rules));
}

Command setGate(JobDocument& d, WorkGate gate, const GateState& state) {
    auto gates = d.job().work.gates;
    if (state == GateState{})
        gates.erase(gate);
    else
        gates[gate] = state;
    return set(WorkCommands::tr("Say when something is ready"), d, &WorkSettings::gates, std::move(gates));
}

Command setPractised(JobDocument& d, bool practised) {
    return set(WorkCommands::tr("Say how practised you are"), d, &WorkSettings::practised, practised);
}

Command setHours(JobDocument& d, const std::string& family, std::optional<HourRate> rate) {
    HourRates hours = d.job().work.hours;
    if (rate)
        hours[family] = *rate;
    else
        hours.erase(family);
    return setValue(WorkCommands::tr("Change the hours of a kind of work"), d, JobPart::Finish, std::string(),
                    settingOf(&WorkSettings::hours), std::move(hours));
}

Command setEffort(JobDocument& d, StepKind kind, const OwnEffort& own) {
    OwnEfforts efforts = d.job().work.efforts;
    efforts.erase(kind);
    if (own != OwnEffort{}) efforts[kind] = own;
    return setValue(WorkCommands::tr("Change what a kind of step takes"), d, JobPart::Finish, std::string(),
                    settingOf(&WorkSettings::efforts), std::move(efforts));
}

Command setShops(JobDocument& d, int weekday, WorkDay day) {
    auto shops = d.job().work.shops;
    shops[static_cast<std::size_t>(weekday)] = std::move(day);
    return set(WorkCommands::tr("Change when shops are open"), d, &WorkSettings::shops, std::move(shops));
}

Command pinWork(JobDocument& d, const std::string& id, std::optional<CivilDate> day, int gesture) {
    auto pins = d.job().work.pins;
    if (day)
        pins[id] = *day;
    else
        pins.erase(id);
    return set(day ? WorkCommands::tr("Put work on a day") : WorkCommands::tr("Let work move"), d, &WorkSettings::pins,
               std::move(pins), gesture);
}

Command acceptChance(JobDocument& d, double chance) {
    return set(WorkCommands::tr("Choose how sure the date is to be"), d, &WorkSettings::acceptedChance, chance);
}

Command tickWorkSteps(JobDocument& d, const std::vector<StepRef>& steps, bool done, std::optional<WorkedTime> when) {
    std::map<std::string, FitLog> logs;
    const QString name = done ? WorkCommands::tr("Tick work") : WorkCommands::tr("Untick work");
    std::vector<Command> parts;
    std::vector<RecordEntry> entries;
    if (done && when) entries = stepEntries(d, steps, *when);
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const StepRef& ref = steps[i];
        const auto log = logs.try_emplace(ref.surface, d.job().log(ref.surface)).first;
        log->second.when.erase(ref.key);
        if (done) {
            log->second.done.insert(ref.key);
            if (when) log->second.when[ref.key] = entries[i].when;
        } else {
            log->second.done.erase(ref.key);
            if (const RecordEntry* e = lastOfStep(d.job().record, EntryKind::StepDone, ref.surface, ref.key))
                parts.push_back(removeEntry(d, e->id));
        }
    }
    for (auto& [surface, log] : logs)
        parts.push_back(setValue(name, d, JobPart::Log, surface, logOf(surface), std::move(log)));
    if (!entries.empty()) parts.push_back(addEntries(d, std::move(entries)));
    return together(name, std::move(parts));
}

Command tickWork(JobDocument& d, const std::string& id, std::optional<WorkedTime> when) {
    auto done = d.job().work.done;
    if (when)
        done[id] = *when;
    else
        done.erase(id);
    return set(when ? WorkCommands::tr("Tick work") : WorkCommands::tr("Untick work"), d, &WorkSettings::done,
               std::move(done));
}

WorkedTime workedUntilNow(const JobDocument& d, double minutes) {
    const WorkClock::Moment now = d.now();
    int from = std::max(0, now.minute - static_cast<int>(std::lround(minutes)));
    const auto after = [&](const WorkedTime& w) {
        if (w.day == now.day && w.to <= now.minute) from = std::max(from, w.to);
    };
    for (const auto& [surface, log] : d.job().logs)
        for (const auto& [key, when] : log.when) after(when);
    for (const auto& [id, when] : d.job().work.done) after(when);
    return {now.day, std::min(from, kDayMinutes - 1), std::max(now.minute, from)};
}

} // namespace westrum
