#pragma once

#include "core/catalogue/stock.h"
#include "core/shell/surface.h"

#include <optional>
#include <string>

namespace westrum {

/// What comes together at an edge, which says what closes it.
enum class EdgeMeeting {
    FloorAtWall,
    FloorAtDoor,
    CeilingAtWall,
    InsideCorner, ///< two upright surfaces, or a top against a wall
    OutsideCorner,
    WetCorner, ///< any corner of a wet cell, its floor too
    FreeEdge,
    Reveal,    ///< turned in at a door
    UnderTrim, ///< said to go under a trim
    PanelJoint,
    Opening, ///< its bound edge
    OpeningReveal,
};

/// What closes such edges in an area of the van, where nothing is said of the edge or its surface.
struct AreaTrim {
    Area area;
    EdgeMeeting meeting{};
    std::string product; ///< id; kNoTrim: none
    friend bool operator==(const AreaTrim&, const AreaTrim&) = default;
};

/// What a face is covered with, for the rule table.
enum class Hardness { Bare, Hard, Soft };

/// The profile that closes an edge, or nothing where none is wanted. `here` owns the edge.
/// Source: docs/formulae.md#edge-trims.
std::optional<Profile> profileFor(EdgeMeeting meeting, Hardness here, Hardness there);

/// What meets at an edge of `here`; nothing where no trim can belong. @param there  null: nobody
std::optional<EdgeMeeting> meetingOf(const Surface& here, const Edge& edge, const Surface* there);
/// Hangs from above: a ceiling, a headliner.
bool isOverhead(SurfaceKind kind);

} // namespace westrum
