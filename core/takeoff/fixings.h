#pragma once

#include "core/geometry/polygon.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// Fixings of a strip with two free ends, equally spaced.
struct RunFixings {
    int count{};
    std::optional<Mm> spacing; ///< nothing for a single one in the middle
};
/// @param end  from either end to the first fixing  @param spacing  at most, > 0
/// Source: docs/formulae.md#fixings. 1800 long, 25 from the ends, 300 apart: 7 fixings 291.67 apart
RunFixings fixingsAlong(Mm length, Mm end, Mm spacing);

/// A side of a wrapped panel that takes clips.
struct ClippedSide {
    Mm length;
    RunFixings clips;
};
/// From a panel's ends to its first and last clip.
inline constexpr Mm kClipFromEnd{50};
/// Every outer side of a panel longer than twice that. @param apart  at most, > 0
std::vector<ClippedSide> clippedSides(const Region& panel, Mm apart);

/// Fixings of a panel: round its edge, corners shared, and along battens across it.
struct PanelFixings {
    int edge{}, field{};
    std::vector<Mm> edgeSpacing; ///< by edge of the outline, in order
    [[nodiscard]] int total() const { return edge + field; }
};
/// @param outline  convex, counter-clockwise  @param inset  from the edge to the line of fixings
/// @param battens  x of battens that run square to x; those outside the panel do not count
PanelFixings fixingsOfPanel(const Ring& outline, Mm inset, Mm edgeSpacing, std::span<const double> battens,
                            Mm fieldSpacing);

/// The shortest of the standard lengths that a bolt needs; nothing if none is long enough.
/// @param grip     sum of what it passes through  @param washers  their thickness together
/// @param nut      height of its body  @param protrude  past the nut
struct BoltLength {
    Mm needed;
    std::optional<Mm> length;
};
BoltLength boltLength(Mm grip, Mm washers, Mm nut, Mm protrude, std::span<const Mm> lengths);

/// A screw through a lining into a batten in front of an outer skin: deep enough to hold, short of the skin. The
/// longest of the standard lengths that does both; nothing if none does.
struct ScrewLength {
    Mm least, most;
    std::optional<Mm> length;
};
ScrewLength screwLength(Mm lining, Mm batten, Mm bite, Mm clear, std::span<const Mm> lengths);

} // namespace westrum
