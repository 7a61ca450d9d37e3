#include "formats/work_json.h"

#include "core/families/family.h"

#include <tuple>
#include <type_traits>

namespace westrum {
namespace {

constexpr int kDayMinutes = 1440, kMostPeople = 20;
constexpr std::size_t kMostSpans = 12, kMostDays = 4000;
constexpr double kMostHours = 1000, kMostMinutes = 10000, kColdestC = -50, kHottestC = 60;
constexpr int kMostFumes = 10080;
constexpr std::size_t kMostTicks = 20000; ///< of steps and of each of their places

constexpr FileWords<ClockChange, 3> kChanges{
    {{ClockChange::Europe, "europe"}, {ClockChange::NorthAmerica, "north-america"}, {ClockChange::None, "none"}}};
constexpr FileWords<WorkRule, kWorkRules> kRules{{{WorkRule::CeilingBeforeWalls, "ceilingBeforeWalls"},
                                                  {WorkRule::WallsBeforeEnds, "wallsBeforeEnds"},
                                                  {WorkRule::FloorBeforeWalls, "floorBeforeWalls"},
                                                  {WorkRule::FloorBeforeFurniture, "floorBeforeFurniture"},
                                                  {WorkRule::WallsBeforeFronts, "wallsBeforeFronts"},
                                                  {WorkRule::TrimsAfterFaces, "trimsAfterFaces"},
                                                  {WorkRule::DoorsLast, "doorsLast"},
                                                  {WorkRule::CoatsBeforeFitting, "coatsBeforeFitting"}}};
constexpr FileWords<RuleWay, 3> kWays{{{RuleWay::Usual, "usual"}, {RuleWay::Turned, "turned"}, {RuleWay::Off, "off"}}};
constexpr FileWords<WorkGate, kWorkGates> kGates{{{WorkGate::Watertight, "watertight"},
                                                  {WorkGate::FirstFix, "firstFix"},
                                                  {WorkGate::SignedOff, "signedOff"},
                                                  {WorkGate::FurnitureIn, "furnitureIn"}}};

constexpr FileWords<StepKind, kStepKinds> kSteps{{{StepKind::CheckDelivery, "checkDelivery"},
                                                  {StepKind::Acclimatise, "acclimatise"},
                                                  {StepKind::CheckBase, "checkBase"},
                                                  {StepKind::LayUnderlay, "layUnderlay"},
                                                  {StepKind::FirstRow, "firstRow"},
                                                  {StepKind::Row, "row"},
                                                  {StepKind::LastRow, "lastRow"},
                                                  {StepKind::Trims, "trims"},
                                                  {StepKind::CablesTested, "cablesTested"},
                                                  {StepKind::PipesTested, "pipesTested"},
                                                  {StepKind::BackingIn, "backingIn"},
                                                  {StepKind::SupportsRecorded, "supportsRecorded"},
                                                  {StepKind::BarrierTaped, "barrierTaped"},
                                                  {StepKind::TailsThrough, "tailsThrough"},
                                                  {StepKind::LayBarrier, "layBarrier"},
                                                  {StepKind::FitInsulation, "fitInsulation"},
                                                  {StepKind::FixBattens, "fixBattens"},
                                                  {StepKind::SpreadAdhesive, "spreadAdhesive"},
                                                  {StepKind::Coat, "coat"},
                                                  {StepKind::RestTimber, "restTimber"},
                                                  {StepKind::SnapLine, "snapLine"},
                                                  {StepKind::FirstBoard, "firstBoard"},
                                                  {StepKind::BoardRow, "boardRow"},
                                                  {StepKind::LastBoard, "lastBoard"},
                                                  {StepKind::RoutOpenings, "routOpenings"},
                                                  {StepKind::CarryHatch, "carryHatch"},
                                                  {StepKind::MakeTemplate, "makeTemplate"},
                                                  {StepKind::CutPanels, "cutPanels"},
                                                  {StepKind::DryFitPanels, "dryFitPanels"},
                                                  {StepKind::CutOpenings, "cutOpenings"},
                                                  {StepKind::FixPanel, "fixPanel"},
                                                  {StepKind::CloseJoints, "closeJoints"},
                                                  {StepKind::CheckBacking, "checkBacking"},
                                                  {StepKind::TileLines, "tileLines"},
                                                  {StepKind::LayTiles, "layTiles"},
                                                  {StepKind::CutTiles, "cutTiles"},
                                                  {StepKind::GroutTiles, "groutTiles"},
                                                  {StepKind::PeelTiles, "peelTiles"},
                                                  {StepKind::RestVinyl, "restVinyl"},
                                                  {StepKind::CutLinings, "cutLinings"},
                                                  {StepKind::CleanFace, "cleanFace"},
                                                  {StepKind::CleanGlass, "cleanGlass"},
                                                  {StepKind::StickLining, "stickLining"},
                                                  {StepKind::LayVinyl, "layVinyl"},
                                                  {StepKind::CloseSeams, "closeSeams"},
                                                  {StepKind::TurnUpstand, "turnUpstand"},
                                                  {StepKind::TrimLining, "trimLining"},
                                                  {StepKind::WrapPanels, "wrapPanels"},
                                                  {StepKind::ClipPanels, "clipPanels"},
                                                  {StepKind::LayFilm, "layFilm"},
                                                  {StepKind::CutFoam, "cutFoam"},
                                                  {StepKind::CutCloth, "cutCloth"},
                                                  {StepKind::SewZip, "sewZip"},
                                                  {StepKind::SewPiping, "sewPiping"},
                                                  {StepKind::SewCushions, "sewCushions"},
                                                  {StepKind::FillCushions, "fillCushions"},
                                                  {StepKind::StapleCover, "stapleCover"},
                                                  {StepKind::FitFittings, "fitFittings"},
                                                  {StepKind::FitTrim, "fitTrim"},
                                                  {StepKind::FitEdging, "fitEdging"},
                                                  {StepKind::RunBead, "runBead"}}};

/// A list of pairs: a value's word, and what is said of it.
template <class Enum, std::size_t N> const Enum* valueOf(const FileWords<Enum, N>& words, const std::string& word) {
    for (const auto& [value, w] : words)
        if (word == w) return &value;
    return nullptr;
}

std::optional<CivilDate> readDate(JsonWalk& walk, const Json& entry, const std::string& path, const char* key) {
    if (!walk.member(entry, path, key, false)) return std::nullopt;
    std::string text;
    const std::size_t faults = walk.faults().size();
    walk.text(entry, path, key, text);
    const auto date = parseIsoDate(text);
    if (!date && walk.faults().size() == faults) walk.fault(FileFaultKind::OutOfRange, JsonWalk::join(path, key), text);
    return date;
}

/// A member's key as a date; a fault if it is none.
std::optional<CivilDate> keyDate(JsonWalk& walk, const std::string& path, const std::string& key) {
    const auto date = parseIsoDate(key);
    if (!date) walk.fault(FileFaultKind::OutOfRange, path + "." + key, key);
    return date;
}

WorkDay readDay(JsonWalk& walk, const Json& list, const std::string& at) {
    WorkDay day;
    if (!list.is_array() || list.size() > kMostSpans) {
        walk.fault(list.is_array() ? FileFaultKind::TooMany : FileFaultKind::WrongType, at, "list");
        return day;
    }
    int last = 0;
    for (const Json& span : list) {
        if (!span.is_array() || span.size() != 3 || !span[0].is_number_integer() || !span[1].is_number_integer() ||
            !span[2].is_number_integer()) {
            walk.fault(FileFaultKind::WrongType, at, "list of from, to and people");
            return {};
        }
        const auto number = [](const Json& n, int most) { return n < 0 || n > most ? -1 : n.get<int>(); };
        const WorkSpan s{number(span[0], kDayMinutes), number(span[1], kDayMinutes), number(span[2], kMostPeople)};
        if (s.from < last || s.to <= s.from || s.people < 1) {
            walk.fault(FileFaultKind::OutOfRange, at);
            return {};
        }
        last = s.to;
        day.push_back(s);
    }
    return day;
}

Json written(const WorkDay& day) {
    Json list = Json::array();
    for (const WorkSpan& s : day) list.push_back({s.from, s.to, s.people});
    return list;
}

void readWeek(JsonWalk& walk, const Json& list, const std::string& at, std::array<WorkDay, 7>& into) {
    if (!list.is_array() || list.size() != into.size())
        return walk.fault(FileFaultKind::WrongType, at, "list of seven days");
    for (std::size_t d = 0; d < into.size(); ++d) into[d] = readDay(walk, list[d], at + "[" + std::to_string(d) + "]");
}

void readCalendar(JsonWalk& walk, const Json& entry, const std::string& path, WorkSettings& work) {
    work.start = readDate(walk, entry, path, "start");
    if (const Json* week = walk.member(entry, path, "week", false)) readWeek(walk, *week, path + ".week", work.week);
    if (const Json* shops = walk.member(entry, path, "shops", false))
        readWeek(walk, *shops, path + ".shops", work.shops);
    if (const Json* days = walk.objectMember(entry, path, "days", false)) {
        if (days->size() > kMostDays) return walk.fault(FileFaultKind::TooMany, path + ".days");
        for (const auto& [key, list] : days->items())
            if (const auto date = keyDate(walk, path + ".days", key))
                work.days[*date] = readDay(walk, list, path + ".days." + key);
    }
}

void readSite(JsonWalk& walk, const Json& entry, const std::string& path, WorkSite& site) {
    walk.number(entry, path, "latitude", -90, 90, site.latitudeDeg, false);
    walk.number(entry, path, "longitude", -180, 180, site.longitudeDeg, false);
    walk.count(entry, path, "utcOffset", -14 * 60, 14 * 60, site.utcOffset);
    walk.word(entry, path, "clockChange", kChanges, site.change, false);
    walk.flag(entry, path, "heated", site.heated);
    walk.flag(entry, path, "tarpaulin", site.tarpaulin);
    walk.flag(entry, path, "workshop", site.workshop);
}

void readForecast(JsonWalk& walk, const Json& entry, const std::string& path, Forecast& forecast) {
    forecast.made = readDate(walk, entry, path, "made");
    const Json* days = walk.objectMember(entry, path, "days", false);
    if (!days) return;
    if (days->size() > kMostDays) return walk.fault(FileFaultKind::TooMany, path + ".days");
    for (const auto& [key, day] : days->items()) {
        const auto date = keyDate(walk, path + ".days", key);
        const std::string at = path + ".days." + key;
        if (!day.is_object()) {
            walk.fault(FileFaultKind::WrongType, at, "object");
            continue;
        }
        if (!date) continue;
        DayWeather& w = forecast.days[*date];
        double value = 0;
        if (walk.number(day, at, "dry", 0, 1, value, false)) w.dryChance = value;
        if (walk.number(day, at, "low", -60, 60, value, false)) w.low = value;
        if (walk.number(day, at, "high", -60, 60, value, false)) w.high = value;
    }
}

OwnEffort readEffort(JsonWalk& walk, const Json& entry, const std::string& at) {
    OwnEffort own;
    const auto number = [&](const char* key, double least, double most, std::optional<double>& into) {
        double value = 0;
        if (walk.number(entry, at, key, least, most, value, false)) into = value;
    };
    number("once", 0, kMostMinutes, own.once);
    number("each", 0, kMostMinutes, own.each);
    number("minC", kColdestC, kHottestC, own.minC);
    number("maxC", kColdestC, kHottestC, own.maxC);
    for (const auto& [key, least, most, into] :
         {std::tuple{"hands", 1, kMostPeople, &own.hands}, {"fumes", 0, kMostFumes, &own.fumes}})
        if (walk.member(entry, at, key, false)) {
            int value = least;
            walk.count(entry, at, key, least, most, value, true);
            *into = value;
        }
    for (const auto& [key, into] : {std::pair{"dry", &own.dry}, {"light", &own.light}})
        if (walk.member(entry, at, key, false)) {
            bool value = false;
            walk.flag(entry, at, key, value);
            *into = value;
        }
    return own;
}

Json written(const OwnEffort& own) {
    Json out = Json::object();
    const auto put = [&](const char* key, const auto& value) {
        if (value) out[key] = *value;
    };
    put("once", own.once);
    put("each", own.each);
    put("hands", own.hands);
    put("dry", own.dry);
    put("light", own.light);
    put("minC", own.minC);
    put("maxC", own.maxC);
    put("fumes", own.fumes);
    return out;
}

void readOrder(JsonWalk& walk, const Json& entry, const std::string& path, WorkSettings& work) {
    if (const Json* rules = walk.objectMember(entry, path, "rules", false))
        for (const auto& [key, way] : rules->items()) {
            const WorkRule* rule = valueOf(kRules, key);
            const RuleWay* said = way.is_string() ? valueOf(kWays, way.get<std::string>()) : nullptr;
            if (rule && said)
                work.rules[*rule] = *said;
            else
                walk.fault(FileFaultKind::UnknownWord, path + ".rules." + key, key);
        }
    if (const Json* gates = walk.objectMember(entry, path, "gates", false))
        for (const auto& [key, state] : gates->items()) {
            const WorkGate* gate = valueOf(kGates, key);
            const std::string at = path + ".gates." + key;
            if (!gate || !state.is_object()) {
                walk.fault(gate ? FileFaultKind::WrongType : FileFaultKind::UnknownWord, at, gate ? "object" : key);
                continue;
            }
            work.gates[*gate] = {readDate(walk, state, at, "expected"), readDate(walk, state, at, "passed")};
        }
    if (const Json* hours = walk.objectMember(entry, path, "hours", false))
        for (const auto& [family, rate] : hours->items()) {
            const std::string at = path + ".hours." + family;
            if (!rate.is_object() || !familyOf(family)) {
                walk.fault(rate.is_object() ? FileFaultKind::UnknownWord : FileFaultKind::WrongType, at, family);
                continue;
            }
            HourRate& own = work.hours[family];
            walk.number(rate, at, "perM2", 0, kMostHours, own.perM2, false);
            walk.number(rate, at, "perPiece", 0, kMostHours, own.perPiece, false);
        }
    if (const Json* efforts = walk.objectMember(entry, path, "efforts", false))
        for (const auto& [key, effort] : efforts->items()) {
            const StepKind* kind = valueOf(kSteps, key);
            const std::string at = path + ".efforts." + key;
            if (kind && effort.is_object())
                work.efforts[*kind] = readEffort(walk, effort, at);
            else
                walk.fault(kind ? FileFaultKind::WrongType : FileFaultKind::UnknownWord, at, kind ? "object" : key);
        }
    if (const Json* pins = walk.objectMember(entry, path, "pins", false)) {
        if (pins->size() > kMostDays) return walk.fault(FileFaultKind::TooMany, path + ".pins");
        for (const auto& [id, day] : pins->items()) {
            const auto date = day.is_string() ? parseIsoDate(day.get<std::string>()) : std::nullopt;
            if (date)
                work.pins[id] = *date;
            else
                walk.fault(FileFaultKind::OutOfRange, path + ".pins." + id);
        }
    }
}

} // namespace

std::map<std::string, WorkedTime> readWorkedTimes(JsonWalk& walk, const Json& entry, const std::string& path) {
    std::map<std::string, WorkedTime> times;
    if (!entry.is_object()) {
        walk.fault(FileFaultKind::WrongType, path, "object");
        return times;
    }
    if (entry.size() > kMostDays) {
        walk.fault(FileFaultKind::TooMany, path);
        return times;
    }
    for (const auto& [key, time] : entry.items()) {
        const std::string at = path + "." + key;
        if (!time.is_object()) {
            walk.fault(FileFaultKind::WrongType, at, "object");
            continue;
        }
        const auto day = readDate(walk, time, at, "day");
        WorkedTime w;
        walk.count(time, at, "from", 0, kDayMinutes, w.from);
        walk.count(time, at, "to", 0, 2 * kDayMinutes, w.to);
        if (!day) continue;
        w.day = *day;
        if (w.to < w.from)
            walk.fault(FileFaultKind::OutOfRange, at + ".to");
        else
            times[key] = w;
    }
    return times;
}

Json written(const std::map<std::string, WorkedTime>& times) {
    Json out = Json::object();
    for (const auto& [key, w] : times) out[key] = {{"day", isoDate(w.day)}, {"from", w.from}, {"to", w.to}};
    return out;
}

FitLog readFitLog(JsonWalk& walk, const Json& entry, const std::string& path, Currency currency) {
    FitLog l;
    if (!entry.is_object()) {
        walk.fault(FileFaultKind::WrongType, path, "object");
        return l;
    }
    const auto figure = [&](const char* key, double most, auto& into) {
        double n = 0;
        if (walk.number(entry, path, key, 0, most, n, false))
            into = static_cast<typename std::remove_reference_t<decltype(into)>::value_type>(n);
    };
    constexpr double kMost = 100000;
    figure("opened", kMost, l.opened);
    figure("spoilt", kMost, l.spoilt);
    figure("leftOver", kMost, l.leftOver);
    figure("hours", kMost, l.hours);
    double minor = 0;
    if (walk.number(entry, path, "paidMinor", 0, static_cast<double>(kMostMinorUnits), minor, false))
        l.paid = Money{static_cast<std::int64_t>(minor), currency};
    walk.text(entry, path, "note", l.note, false);
    if (const Json* done = walk.member(entry, path, "done", false)) {
        if (!done->is_array() || done->size() > kMostTicks)
            walk.fault(FileFaultKind::WrongType, path + ".done", "list");
        else
            for (const Json& key : *done)
                if (key.is_string())
                    l.done.insert(key.get<std::string>());
                else
                    walk.fault(FileFaultKind::WrongType, path + ".done", "text");
    }
    if (const Json* when = walk.member(entry, path, "when", false))
        l.when = readWorkedTimes(walk, *when, path + ".when");
    return l;
}

Json written(const FitLog& log) {
    Json out = Json::object();
    if (log.opened) out["opened"] = *log.opened;
    if (log.spoilt) out["spoilt"] = *log.spoilt;
    if (log.leftOver) out["leftOver"] = *log.leftOver;
    if (log.hours) out["hours"] = *log.hours;
    if (log.paid) out["paidMinor"] = log.paid->minor;
    if (!log.note.empty()) out["note"] = log.note;
    out["done"] = Json::array();
    for (const std::string& key : log.done) out["done"].push_back(key);
    if (!log.when.empty()) out["when"] = written(log.when);
    return out;
}

WorkSettings readWork(JsonWalk& walk, const Json& entry, const std::string& path) {
    WorkSettings work;
    readCalendar(walk, entry, path, work);
    if (const Json* site = walk.objectMember(entry, path, "site", false))
        readSite(walk, *site, path + ".site", work.site);
    if (const Json* f = walk.objectMember(entry, path, "forecast", false))
        readForecast(walk, *f, path + ".forecast", work.forecast);
    readOrder(walk, entry, path, work);
    if (const Json* refused = walk.member(entry, path, "refused", false)) {
        if (!refused->is_array() || refused->size() > kMostDays)
            walk.fault(FileFaultKind::WrongType, path + ".refused", "list");
        else
            for (const Json& key : *refused)
                if (key.is_string()) work.refused.insert(key.get<std::string>());
    }
    walk.number(entry, path, "readingErrorMm", 0.1, 100, work.readingErrorMm, false);
    walk.text(entry, path, "person", work.person, false);
    walk.flag(entry, path, "practised", work.practised);
    walk.number(entry, path, "acceptedChance", 0.01, 0.99, work.acceptedChance, false);
    if (const Json* done = walk.member(entry, path, "done", false))
        work.done = readWorkedTimes(walk, *done, path + ".done");
    return work;
}

Json written(const WorkSettings& work) {
    const WorkSettings usual;
    Json out = Json::object();
    if (work.start) out["start"] = isoDate(*work.start);
    if (work.week != usual.week) {
        out["week"] = Json::array();
        for (const WorkDay& day : work.week) out["week"].push_back(written(day));
    }
    if (work.shops != usual.shops) {
        out["shops"] = Json::array();
        for (const WorkDay& day : work.shops) out["shops"].push_back(written(day));
    }
    if (work.readingErrorMm != usual.readingErrorMm) out["readingErrorMm"] = work.readingErrorMm;
    for (const auto& [kind, own] : work.efforts) out["efforts"][wordOf(kSteps, kind)] = written(own);
    for (const auto& [date, day] : work.days) out["days"][isoDate(date)] = written(day);
    if (work.site != usual.site)
        out["site"] = {{"latitude", work.site.latitudeDeg}, {"longitude", work.site.longitudeDeg},
                       {"utcOffset", work.site.utcOffset},  {"clockChange", wordOf(kChanges, work.site.change)},
                       {"heated", work.site.heated},        {"tarpaulin", work.site.tarpaulin},
                       {"workshop", work.site.workshop}};
    if (work.forecast.made) out["forecast"]["made"] = isoDate(*work.forecast.made);
    for (const auto& [date, w] : work.forecast.days) {
        Json day = Json::object();
        if (w.dryChance) day["dry"] = *w.dryChance;
        if (w.low) day["low"] = *w.low;
        if (w.high) day["high"] = *w.high;
        out["forecast"]["days"][isoDate(date)] = std::move(day);
    }
    for (const auto& [rule, way] : work.rules) out["rules"][wordOf(kRules, rule)] = wordOf(kWays, way);
    for (const auto& [gate, state] : work.gates) {
        Json entry = Json::object();
        if (state.expected) entry["expected"] = isoDate(*state.expected);
        if (state.passed) entry["passed"] = isoDate(*state.passed);
        out["gates"][wordOf(kGates, gate)] = std::move(entry);
    }
    if (!work.person.empty()) out["person"] = work.person;
    if (work.practised) out["practised"] = true;
    for (const auto& [family, rate] : work.hours)
        out["hours"][family] = {{"perM2", rate.perM2}, {"perPiece", rate.perPiece}};
    for (const std::string& key : work.refused) out["refused"].push_back(key);
    for (const auto& [id, day] : work.pins) out["pins"][id] = isoDate(day);
    if (!work.done.empty()) out["done"] = written(work.done);
    if (work.acceptedChance != usual.acceptedChance) out["acceptedChance"] = work.acceptedChance;
    return out;
}

} // namespace westrum
