#pragma once

#include "core/shell/ties.h"

#include <optional>
#include <vector>

namespace westrum {

/// Where a surface is in the van, seen from above: x forwards and y to the left from the floor's rear right corner.
/// Of one that stands every height has the same place.
struct PlanPlace {
    Point origin;     ///< of the surface's own 0, 0
    Point perX, perY; ///< what a millimetre along its x or y is in the van
    [[nodiscard]] Point map(Point own) const { return origin + perX * own.x + perY * own.y; }
    friend bool operator==(const PlanPlace&, const PlanPlace&) = default;
};

/// From the floor outwards, each surface by the side at which it meets one that is placed: what lies goes on level,
/// towards the middle of the floor where it hangs on something upright; what stands stays over its side. One for each
/// surface, in order; nothing for what does not hang together with the floor by sides that are measured.
std::vector<std::optional<PlanPlace>> planPlaces(const std::vector<TiedSurface>& surfaces);

} // namespace westrum
