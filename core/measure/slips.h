#pragma once

#include "core/measure/distance_network.h"

#include <optional>
#include <vector>

namespace westrum {

/// A reading whose error would explain why the readings disagree.
struct Suspect {
    int reading = -1;
    double slip{};              ///< what it reads more than the others imply, mm
    double chance{};            ///< that it is this one, of all that explain it, 0 to 1
    std::vector<Point> corners; ///< the outline as it would be without it
    friend bool operator==(const Suspect&, const Suspect&) = default;
};

/// What a set of readings proves of its own errors.
struct SlipFinding {
    std::vector<Suspect> suspects; ///< likeliest first, at most kMostNamed; empty: nothing stands out
    bool proved = false;           ///< no other reading's error explains it: the first one is wrong
    bool several = false;          ///< no single error explains it: more than one reading is wrong
    int others = 0;                ///< further readings that explain it too, unlikelier than those
    /// The reading not yet taken, between two corners, that would tell the suspects apart best; nothing where none
    /// does: then the first suspect is taken again.
    std::optional<CornerDistance> decides; ///< mm: as the likeliest has it
    [[nodiscard]] bool wrong() const { return !suspects.empty(); }
    friend bool operator==(const SlipFinding&, const SlipFinding&) = default;
};
inline constexpr std::size_t kMostNamed = 3;

/// An explanation that bears the rest worse than the best one by this much, in squares of the tape's error, is none.
inline constexpr double kOutOfTest = 12;
/// Slips up to here are about equally likely; beyond, ever less.
inline constexpr double kUsualSlipMm = 220;

/// Tests every reading by the fit without it. Something is wrong where a reading stands out by more than chance gives
/// once in 5000 outlines; a reading explains it if the others agree without it to within their own test (99.9 %). Which
/// of those is likelier: by how well the rest agrees, by the size of the slip, and by how square the corners come out.
/// Source: docs/formulae.md#slips.
/// @param corners  adjusted to all readings (fitNetwork())
SlipFinding findSlip(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings);

} // namespace westrum
