#pragma once

#include "core/units/quantity.h"

#include <optional>
#include <vector>

namespace westrum {

/// Which long edge of a board or trim is the longer one at a corner.
enum class LongEdge { Equal, Bottom, Top };

/// How the saw is set for one end, the piece lying on its back: angles in radians, neither negative.
struct SawSetting {
    double mitreRad{}; ///< between the cut and a square cut, seen on the face
    double bevelRad{}; ///< of the blade from upright
    LongEdge longEdge = LongEdge::Equal;
    [[nodiscard]] bool square() const { return mitreRad < 1e-9 && bevelRad < 1e-9; }
    friend bool operator==(const SawSetting&, const SawSetting&) = default;
};

/// Two faces that meet at a corner, their long edges level.
struct Corner {
    double planRad{}; ///< between the two runs, seen from above, on the room's side; over pi: it sticks into the room
    /// Of each face from level: upright is a quarter turn; less leans over the room, more leans away from it.
    double tilt1Rad{}, tilt2Rad{};
    friend bool operator==(const Corner&, const Corner&) = default;
};

struct CornerSetting {
    SawSetting first, second;
    std::optional<double> widthRatio; ///< second width over first, if both span one height; none for a lying face
    friend bool operator==(const CornerSetting&, const CornerSetting&) = default;
};

/// Settings of the two pieces that meet in the plane through the line where their faces cross, halving the angle
/// between them. Any tilts, equal or not; a corner of 0 or 180 degrees has square cuts (nothing turns, or it turns back
/// on itself: the caller says so). Source: docs/formulae.md#edge-trims, from vectors.
CornerSetting compoundMitre(const Corner& corner);

/// Of two strips in one plane, or of an upright skirting: each is cut at this from square.
double plainMitre(double planRad);

/// A strip that fills a gap which is wider at one end: ripped straight from a parallel strip as wide as the wider end.
struct Filler {
    Mm length, gap0, gap1;
    double ripRad{};
    Mm cutEdge;           ///< length of the sawn edge
    std::vector<Mm> at;   ///< along the strip
    std::vector<Mm> wide; ///< its width there
    M2 offcut;
    friend bool operator==(const Filler&, const Filler&) = default;
};
/// @param at  where its width is wanted; the two ends always stand in the answer if it is empty
Filler taperedFiller(Mm length, Mm gap0, Mm gap1, std::vector<Mm> at = {});

} // namespace westrum
