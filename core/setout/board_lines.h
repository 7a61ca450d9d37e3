#pragma once

#include "core/geometry/polygon.h"

namespace westrum {

/// A straight line over the rows' length: its height at the start and at the end.
struct Line {
    double atStart{}, atEnd{};
    [[nodiscard]] double at(double share) const { return atStart + (atEnd - atStart) * share; }
};

/// y sheared so that a line of this slope lies level; x, and with it every support, stays.
Region sheared(Region region, double slope);

/// The side of the region at which rows end: its longest stretch there that runs roughly along, as a line over the
/// whole length; level at the bounds if there is none as long as half of it.
Line sideOf(const Region& net, const Bounds& b, bool high);

} // namespace westrum
