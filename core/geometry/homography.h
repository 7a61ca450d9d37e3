#pragma once

#include "core/geometry/polygon.h"

#include <array>
#include <optional>
#include <vector>

namespace westrum {

/// A flat thing seen in perspective: takes a point of the picture to the thing's own plane (or back).
struct Homography {
    std::array<double, 9> m{1, 0, 0, 0, 1, 0, 0, 0, 1}; ///< row by row
    /// Nothing for a point on the horizon.
    [[nodiscard]] std::optional<Point> map(Point p) const;
    [[nodiscard]] std::optional<Homography> inverse() const;
};

struct PointPair {
    Point from, to;
};

/// The homography that takes four points to four others exactly, or more of them by least squares (direct linear
/// transform on normalised coordinates). Nothing if fewer than four, if three of four lie nearly on one line (a
/// triangle lower than a fiftieth of its longest side), if they go round in another order, or if the horizon runs
/// between them. Source: docs/formulae.md#photograph.
std::optional<Homography> homographyOf(const std::vector<PointPair>& pairs);

} // namespace westrum
