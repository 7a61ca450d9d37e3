#pragma once

#include "core/geometry/polygon.h"

#include <vector>

namespace westrum {

/// Every side of a ring moved to its left by its own distance (of an outline: inwards; < 0: outwards), neighbours
/// brought to meet; as many vertices as the ring, which may cross itself where it was too narrow. A needle's tip is not
/// followed to its end. @pre one distance for each side, in mm; no two neighbouring vertices alike
Ring sidesMoved(const Ring& ring, const std::vector<double>& leftwards);

} // namespace westrum
