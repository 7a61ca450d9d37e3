#pragma once

#include "core/geometry/polygon.h"

#include <vector>

namespace westrum {

/// A corner measured by its distances from two fixed points A = (0, 0) and B = (base, 0).
struct TwoPointReading {
    double fromA{};
    double fromB{};
    bool below = false; ///< on the side of the base where y < 0
};

enum class TapeMeeting {
    Sound,
    Weak,       ///< the tapes meet at less than 20 or more than 160 degrees, or only just: errors are multiplied
    Impossible, ///< the tapes do not meet
};

struct TwoPointCorner {
    Point at; ///< meaningless if impossible
    TapeMeeting meeting{};
    double shortBy{}; ///< mm by which the tapes fail to meet; 0 if they do
};

/// Tapes that fail to meet by no more than this meet on the base line.
inline constexpr double kTapeSnapMm = 3;

/// The corners, in the order given. @param base  > 0  @param snap  mm that may be missing
std::vector<TwoPointCorner> cornersFromTwoPoints(double base, const std::vector<TwoPointReading>& readings,
                                                 double snap = kTapeSnapMm);

} // namespace westrum
