#pragma once

#include "core/fitting/step_kind.h"
#include "core/units/date.h"

#include <array>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace westrum {

/// A stretch of a day in which somebody works: minutes from midnight by the clock on the wall.
struct WorkSpan {
    int from{}, to{};
    int people = 1;
    friend bool operator==(const WorkSpan&, const WorkSpan&) = default;
};
/// Rising, apart; empty: a day off.
using WorkDay = std::vector<WorkSpan>;

enum class ClockChange {
    None,
    Europe,      ///< at 01:00 UTC of the last Sundays of March and October
    NorthAmerica ///< at 02:00 of the second Sunday of March and the first of November
};

/// Where the van stands.
struct WorkSite {
    double latitudeDeg = 52, longitudeDeg = 5; ///< north and east are positive
    int utcOffset = 60;                        ///< minutes east of it, in winter
    ClockChange change = ClockChange::Europe;
    bool heated = true;     ///< the van is kept warm while work goes on in it
    bool tarpaulin = false; ///< over the yard: rain stops nothing
    bool workshop = false;  ///< a lit room to saw and paint in: neither rain nor dusk stops anything
    friend bool operator==(const WorkSite&, const WorkSite&) = default;
};
/// Degrees C in a van that is kept warm. Source: docs/formulae.md#work
inline constexpr double kHeatedC = 18;

/// A day of a forecast; what is missing is taken from the month.
struct DayWeather {
    std::optional<double> dryChance; ///< 0 to 1
    std::optional<double> low, high; ///< degrees C
    friend bool operator==(const DayWeather&, const DayWeather&) = default;
};
struct Forecast {
    std::optional<CivilDate> made;
    std::map<CivilDate, DayWeather> days;
    friend bool operator==(const Forecast&, const Forecast&) = default;
};

/// What comes before what, between surfaces. Source: docs/scheduling.md#rules
enum class WorkRule {
    CeilingBeforeWalls,
    WallsBeforeEnds,  ///< bulkhead, pillars, reveals
    FloorBeforeWalls, ///< turned: the floor last
    FloorBeforeFurniture,
    WallsBeforeFronts, ///< furniture's fronts, tops and splashback
    TrimsAfterFaces,   ///< edge trims once both faces that they close are up
    DoorsLast,         ///< so that the way in stays wide
    CoatsBeforeFitting ///< of boards and panels
};
inline constexpr int kWorkRules = 8;
enum class RuleWay {
    Usual,
    Turned, ///< the other way round
    Off     ///< either may come first
};

/// What a person must have seen to, or have had seen to, before other work may go on.
enum class WorkGate {
    Watertight, ///< windows and vents cut in, and no leak
    FirstFix,   ///< cables in and tested
    SignedOff,  ///< gas and mains, by a licensed trade
    FurnitureIn
};
inline constexpr int kWorkGates = 4;
struct GateState {
    std::optional<CivilDate> expected; ///< nothing: it is no hindrance
    std::optional<CivilDate> passed;
    friend bool operator==(const GateState&, const GateState&) = default;
};

/// When something was done, by the clock on the wall.
struct WorkedTime {
    CivilDate day;
    int from{}, to{}; ///< minutes from midnight
    friend bool operator==(const WorkedTime&, const WorkedTime&) = default;
};

/// Hours that laying takes a practised pair of hands, setting out and cutting included, drying not: so many a square
/// metre, and for each piece. Source: docs/formulae.md#hours
struct HourRate {
    double perM2 = 0, perPiece = 0;
    friend bool operator==(const HourRate&, const HourRate&) = default;
};
/// A person's own, by family; the family's where there is none.
using HourRates = std::map<std::string, HourRate, std::less<>>;

/// When people work, where, by which rules and at what pace.
struct WorkSettings {
    std::optional<CivilDate> start; ///< nothing: today
    std::array<WorkDay, 7> week{
        WorkDay{},       {{1110, 1260, 1}}, {}, {{1110, 1260, 1}}, {},
        {{540, 990, 2}}, {{540, 990, 2}}}; ///< Monday first. Source: docs/scheduling.md#calendar
    std::map<CivilDate, WorkDay> days;     ///< that differ from it
    std::array<WorkDay, 7> shops{WorkDay{{480, 1080}},
                                 {{480, 1080}},
                                 {{480, 1080}},
                                 {{480, 1080}},
                                 {{480, 1080}},
                                 {{540, 1020}},
                                 {}}; ///< when suppliers are open, Monday first. Source: docs/scheduling.md#calendar
    WorkSite site;
    Forecast forecast;
    std::map<WorkRule, RuleWay> rules; ///< those that are not as usual
    std::map<WorkGate, GateState> gates;
    std::string person{}; ///< whose hands: the workshop's book keeps their rates
    bool practised = false;
    HourRates hours;
    OwnEfforts efforts; ///< of kinds of steps, as a person set them
    double readingErrorMm =
        2.0; ///< by which this tape in these hands is off, one sigma. Source: docs/formulae.md#rates
    std::set<std::string> refused;          ///< rates that were offered and are not to be offered again
    std::map<std::string, CivilDate> pins;  ///< work that a person put on a day, by its id
    std::map<std::string, WorkedTime> done; ///< work of no surface that is done, by its id
    double acceptedChance = 0.8;            ///< of being done by the date that is told

    [[nodiscard]] RuleWay way(WorkRule rule) const {
        const auto found = rules.find(rule);
        return found == rules.end() ? RuleWay::Usual : found->second;
    }
    friend bool operator==(const WorkSettings&, const WorkSettings&) = default;
};

} // namespace westrum
