#pragma once

#include "core/geometry/boolean.h"
#include "core/shell/surface.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// One opening where it lies; a row of n gives n.
struct PlacedOpening {
    int opening{}; ///< place in Surface::openings
    int inRow{};
    Ring shape; ///< clockwise, as holes are
    Point centre;
    friend bool operator==(const PlacedOpening&, const PlacedOpening&) = default;
};

struct PlacedZone {
    int zone{};
    Region shape; ///< what of it lies on the surface
    friend bool operator==(const PlacedZone&, const PlacedZone&) = default;
};

struct PlacedSupport {
    int support{};
    double centre{}; ///< x, or y where it runs along
    bool along{};    ///< runs along x
    SupportKind kind{};
    Region shape;
    int inRow{};
    friend bool operator==(const PlacedSupport&, const PlacedSupport&) = default;
};

/// Everything that lies on a surface, in its own coordinates.
struct SurfaceShape {
    std::vector<PlacedOpening> openings;
    std::vector<PlacedZone> zones;
    std::vector<PlacedSupport> supports;
    Region net;     ///< the outline less the openings that are cut before fitting
    Region visible; ///< the outline less the hidden zones
    /// Middle of the visible part, across and along: where a layout that looks right is centred. Where furniture hides
    /// some of the surface, that of what is seen over most of its length.
    std::optional<double> visibleCentreX, visibleCentreY;
    std::vector<Remark> remarks;
    friend bool operator==(const SurfaceShape&, const SurfaceShape&) = default;
};

/// Lays openings, zones and supports out on a measured outline. What lacks a reading or lies outside is remarked on and
/// left out. Remark places carry no surface yet. @pre measured.measured()
SurfaceShape shapeOf(const Surface& surface, const MeasuredOutline& measured);

/// What is sawn out of an opening and kept as its lid.
struct Lid {
    Region shape; ///< with the hole to lift it by
    Mm length, width;
    Mm gap;
    std::optional<Mm> finger; ///< diameter
    friend bool operator==(const Lid&, const Lid&) = default;
};
/// Nothing where none is kept, or nothing is left of it. Only what is sawn out before fitting is.
std::optional<Lid> lidOf(const Opening& opening, const PlacedOpening& placed);
/// Places of the holes that the body has in a rib, along it, within a stretch of it. Counted from its lower or left
/// end.
std::vector<double> bodyHolesAlong(const Support& support, const PlacedSupport& placed, double from, double to);

/// Where a batten that lies along a rib is read and packed: from 50 mm inside its ends, at most 600 apart.
std::vector<double> packingStations(double from, double to);

/// The box of an opening or zone of the given size, lower left first, counter-clockwise, its lower edge parallel to
/// its side; nothing if the placement lacks a reading or a side is curved or parallel to the first.
std::optional<Ring> placedBox(const Placement& place, double width, double height, const MeasuredOutline& measured);

/// Where the distance from the cross side to a point begins: on that side, along the first side through the point.
std::optional<Point> crossFoot(const Placement& place, Point p, const MeasuredOutline& measured);

/// The distances that put the centre of a box of this size at a point: placedBox() the other way round.
struct PlacementDistances {
    Mm fromSide, fromCross;
};
std::optional<PlacementDistances> distancesOf(const Placement& place, Point centre, double width, double height,
                                              const MeasuredOutline& measured);

} // namespace westrum
