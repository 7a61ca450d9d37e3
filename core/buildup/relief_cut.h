#pragma once

#include "core/geometry/polygon.h"

namespace westrum {

/// A cut into a lining from its edge, so that it lies on what is bent both ways.
struct ReliefCut {
    Point from, to; ///< in the surface's coordinates; `to` lies further in
    friend bool operator==(const ReliefCut&, const ReliefCut&) = default;
};

} // namespace westrum
