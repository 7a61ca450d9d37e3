#pragma once

#include "core/measure/measurement.h"

#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// Where a surface lies in the unfolded van. Only floors can be planned so far; the others are ghosts on the map.
enum class SurfaceKind { Floor, Ceiling, LeftWall, RightWall, Bulkhead, RearDoors };

/// One face of the inside to be finished.
struct Surface {
    std::string id; ///< unique in the job, never shown
    std::string name;
    SurfaceKind kind = SurfaceKind::Floor;
    Measurement measurement;
    friend bool operator==(const Surface&, const Surface&) = default;
};

} // namespace westrum
