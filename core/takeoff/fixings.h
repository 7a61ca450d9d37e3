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

/// Sides of a closed outline that run on from one another without a corner: a curve is one run, however finely it is
/// divided. A run goes from its first vertex over so many sides.
struct EdgeRun {
    std::size_t from{}, sides{};
    Mm length;
    bool closed{}; ///< all of an outline that has no corner
};
/// By how much an outline may turn at a vertex and still run on, radians. Source: docs/formulae.md#fixings
inline constexpr double kRunsOn = 20 * 3.14159265358979323846 / 180;
/// In order, from the first corner at or behind vertex 0; one run where there is no corner. Sides shorter than 0.02 mm
/// have no direction of their own.
std::vector<EdgeRun> edgeRuns(const Ring& outline, double runsOnRad = kRunsOn);

/// Fixings along all runs of a closed outline, a fixing at every corner, which its two runs share: at least one space a
/// run; three on an outline without a corner. @param apart  at most, > 0
int fixingsRound(std::span<const EdgeRun> runs, Mm apart);

/// A side of a wrapped panel that takes clips: a run of its outline.
struct ClippedSide {
    Mm length;
    RunFixings clips;
};
/// From a corner to the first and last clip of a side.
inline constexpr Mm kClipFromEnd{50};
/// Every outer side of a panel longer than twice that; a panel without corners is one closed side. @param apart  at
/// most, > 0
std::vector<ClippedSide> clippedSides(const Region& panel, Mm apart);

/// The middle line of a support behind a panel.
struct SupportLine {
    bool along{};                   ///< runs along x, else along y
    double at{};                    ///< y, or x
    double from = -1e12, to = 1e12; ///< where it begins and ends
};

/// Fixings of a panel: round its edge, corners shared, and along the supports behind it.
struct PanelFixings {
    int edge{}, field{};
    std::vector<Mm> edgeSpacing; ///< by run of the outline, in order
    [[nodiscard]] int total() const { return edge + field; }
};
/// @param panel  its holes take no fixings of their own; a support that ends at one has a fixing there
/// @param inset  from the edge to the line of fixings  @param supports  those outside the panel do not count
PanelFixings fixingsOfPanel(const Region& panel, Mm inset, Mm edgeSpacing, std::span<const SupportLine> supports,
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
