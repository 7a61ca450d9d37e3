#pragma once

#include "core/geometry/polygon.h"

#include <optional>
#include <vector>

namespace westrum {

/// A cushion's edge between two corners.
struct CushionEdge {
    Point from, to;
    double length = 0; ///< mm along it, where it bends
    Point middle{};    ///< half-way along it
    Point facing{};    ///< outwards there
    [[nodiscard]] Point along() const {
        const double l = distance(from, to);
        return l > 0 ? (to - from) * (1 / l) : Point{1, 0};
    }
    [[nodiscard]] Point outwards() const { return {along().y, -along().x}; }
};

/// The edges of a counter-clockwise ring in order; it has a corner where it turns by more than 20 degrees (ours).
/// @param way  a ring without corners is parted for its zip into two halves, the first of which looks there; none: it
///             is one edge
std::vector<CushionEdge> cushionEdges(const Ring& ring, std::optional<Point> way = {});

} // namespace westrum
