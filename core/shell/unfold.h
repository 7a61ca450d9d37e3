#pragma once

#include "core/measure/measurement.h"
#include "core/shell/pose.h"
#include "core/shell/surface.h"

#include <string>
#include <vector>

namespace westrum {

/// A surface as the map sees it: its frame and sides as measured, or the ghost's.
struct Flap {
    std::string id;
    Ring frame;
    std::vector<Ring> sides;
    std::vector<Edge> edges;
    bool isRoot = false; ///< the floor: everything unfolds from it
    const Pose* pose{};  ///< where it stands, if that is known
};

/// The flap of a surface: measured, or a rectangle of its ghost's size. @param pose  must outlive it; may be null
Flap flapOf(const Surface& surface, const MeasuredOutline& measured, const Pose* pose = nullptr);

/// Where a flap lies on the map: turned by `angleRad` about its own origin, then moved.
struct Unfolded {
    std::string id;
    double angleRad{};
    Point shift;
    bool attached = false; ///< folds out of a neighbour; else it lies beside
    [[nodiscard]] Point map(Point p) const;
    [[nodiscard]] Point unmap(Point onMap) const;
    friend bool operator==(const Unfolded&, const Unfolded&) = default;
};

/// The extent of all flaps of a map; there must be one at least.
Bounds extentOf(const std::vector<Flap>& flaps, const std::vector<Unfolded>& places);

/// Unfolds the van into the plane: from the floor outwards each surface hangs on the side of its neighbour that it
/// meets, true to scale and never mirrored (every surface is seen from inside): turned about that side as both stand in
/// the van, where that is known, else side to side. What would cover another, and what
/// meets nothing, lies in rows beside or below. Whether the ends hang at the ends, and where the rest lies, is chosen
/// so that the map is drawn as large as it can be where it is `aspect` times as wide as high.
/// One place for each flap, in order. The same flaps and aspect give the same map.
std::vector<Unfolded> unfold(const std::vector<Flap>& flaps, double aspect);

} // namespace westrum
