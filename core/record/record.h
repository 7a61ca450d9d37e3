#pragma once

#include "core/geometry/polygon.h"
#include "core/record/work_settings.h"
#include "core/units/quantity.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// What happened.
enum class EntryKind {
    StepDone,
    BrokenOff, ///< a step begun and left
    PieceCut,
    PieceSpoilt,
    OffcutKept, ///< {text}: where it stands
    Opened,     ///< so many packs, tins, tubes
    Emptied,
    LeftOver,
    Delivery,   ///< so many of a product, with their lot
    Climate,    ///< temperature and humidity when bonding
    Weighed,    ///< {amount} kg
    Photograph, ///< {text}: its path, relative to the job's file
    Note,
    Difference, ///< {by} between the drawing and the van, {text} where; of a piece: between it and its drawing
    ThrownAway  ///< so many packs, tins, tubes that set hard or ran out: opened, and in no layer
};
inline constexpr int kEntryKinds = 15;

enum class SpoilReason { Other, WrongSide, Mismeasured, Split, Chipped };
inline constexpr int kSpoilReasons = 5;

/// One thing that happened, small.
struct RecordEntry {
    std::int64_t id{}; ///< unique in the job
    EntryKind kind{};
    WorkedTime when;
    std::string surface{}; ///< id; empty: of no surface, or of one that is gone
    std::string step{};    ///< key
    std::string piece{};   ///< its name
    std::string product{}; ///< id
    double amount{};       ///< pieces, packs, kg
    double planned{};      ///< minutes that a step was to take, as it was planned when it was ticked
    SpoilReason reason{};
    std::string lot{};
    std::optional<double> degC{}, humidity{};
    Mm by{};
    std::string text{};
    std::vector<Point>
        laid{}; ///< of a photograph: where on the surface its corners lie, from its lower left; 4 or none
    [[nodiscard]] double minutes() const { return static_cast<double>(when.to - when.from); }
    friend bool operator==(const RecordEntry&, const RecordEntry&) = default;
};
/// In the order in which they were written.
using Record = std::vector<RecordEntry>;

/// An id that no entry has.
std::int64_t freeEntryId(const Record& record);
const RecordEntry* findEntry(const Record& record, std::int64_t id);
/// The last entry of a kind about a step; null: there is none.
const RecordEntry* lastOfStep(const Record& record, EntryKind kind, std::string_view surface, std::string_view step);

/// A figure as it was observed, against what was planned: the mean of the logarithms of their ratios, shrunk towards
/// none while observations are few. Source: docs/formulae.md#rates
struct LearnedRatio {
    int observations{};
    double observed = 1;      ///< their mean, of the logarithms
    double ratio = 1;         ///< shrunk: what to multiply the planned figure by
    double low = 1, high = 1; ///< within which two of three observations lie
    friend bool operator==(const LearnedRatio&, const LearnedRatio&) = default;
};
/// An observation.
struct Observed {
    double planned{}, really{}; ///< > 0; others are passed over
};
/// The default counts as much as so many observations. Source: docs/formulae.md#rates
inline constexpr double kDefaultCounts = 2;
inline constexpr double kUsualSpread = 0.3; ///< of the logarithm, until three observations say otherwise
LearnedRatio learnedRatio(const std::vector<Observed>& observed);

/// An observation of what has two parts, with the share that the first of them was planned to have.
struct ObservedParts {
    Observed whole;
    double first{}; ///< 0 to 1
};
/// The whole as learnedRatio() has it, and by what to multiply each part: observations with more of the first part that
/// took longer than the others tell them apart; where all have the same share, both are multiplied alike. Source:
/// docs/formulae.md#rates
struct LearnedParts {
    LearnedRatio whole;
    double first = 1, second = 1;
    friend bool operator==(const LearnedParts&, const LearnedParts&) = default;
};
LearnedParts learnedParts(const std::vector<ObservedParts>& observed);

/// An error (one sigma) from what was noted: those readings that nothing was noted of are taken to be off as usual.
/// @param readings  at least as many as were noted  @param usual  mm
double learnedError(const std::vector<double>& notedMm, std::size_t readings, double usual);

/// Of what is left in the tray: thrown away over used, in containers; the default counts as two more of them. Source:
/// docs/formulae.md#rates
double learnedWaste(double thrownAway, double used, double usual);

/// A chance as it was observed: so many of so many, with the default counting as so many tries. Source:
/// docs/formulae.md#rates
struct LearnedShare {
    int tries{}, hits{};
    double share{};       ///< shrunk
    double low{}, high{}; ///< one standard deviation to either side
    friend bool operator==(const LearnedShare&, const LearnedShare&) = default;
};
inline constexpr double kDefaultTries = 20;
LearnedShare learnedShare(int hits, int tries, double usual);

} // namespace westrum
