#pragma once

#include "core/shell/access.h"
#include "core/shell/surface.h"

#include <functional>
#include <string>
#include <vector>

namespace westrum {

/// A few figures of a body from which all its usual surfaces follow as ghosts. Defaults: a usual long panel van.
struct BodyFigures {
    Mm length{3600}; ///< inside, along the floor
    Mm width{1780};  ///< at the floor
    Mm height{1900}; ///< floor to ceiling, in the middle
    Mm roofCamber{60};
    Mm archLength{800}, archHeight{320}, archDepth{220};
    Mm slidingDoorWidth{1050}, slidingDoorHeight{1600};
    bool slidingDoorLeft = false;
    Mm rearDoorsWidth{1540}, rearDoorsHeight{1720};
};

/// One field of the figures, for the form: key, the figure, and the range in which a van is.
struct BodyField {
    const char* key;
    Mm BodyFigures::*figure;
    double least, most;
};
const std::vector<BodyField>& bodyFields();

/// Names in the reader's language: kind, hand, and a number from 1 where there are several of a kind and hand.
using SurfaceNamer = std::function<std::string(SurfaceKind, Hand, int)>;

/// All usual surfaces of such a van, unmeasured, with names, areas, ghosts and the sides that meet: floor, ceiling,
/// walls, wheel arches, pillars, door cards, bulkhead, reveals, and free surfaces for furniture.
std::vector<Surface> surfacesOf(const BodyFigures& figures, const SurfaceNamer& name);

/// What is built into a body rather than part of it. A wet cell's walls are walls.
bool isFurniture(SurfaceKind kind);

/// Its doors.
Access accessOf(const BodyFigures& figures, const std::string& slidingDoor, const std::string& rearDoors);

} // namespace westrum
