#pragma once

#include "core/geometry/convex_parts.h"
#include "core/geometry/polygon.h"

#include <cstdint>
#include <vector>

namespace westrum {

/// Where a shape may not lie against another: the no-fit region of B against A holds every place of B's origin,
/// measured from A's, at which the two overlap. How deep a place lies in the region is how far B must move, the
/// shortest way, until they only touch.
class NoFit {
public:
    NoFit() = default;
    /// @param a, b  convex parts of the two shapes, each about its own origin
    NoFit(const std::vector<GridRing>& a, const std::vector<GridRing>& b);

    /// 0 outside the region and on its edge, else the distance to the nearest edge, in mm; exact near the edge, deep in
    /// the region within a few hundredths of its size.
    [[nodiscard]] double depth(Point place) const;
    /// The same, and the nearest point of the edge. Meaningless outside.
    double depth(Point place, Point& exit) const;

    [[nodiscard]] const Bounds& bounds() const { return bounds_; }
    [[nodiscard]] const std::vector<Point>& corners() const { return corners_; }

private:
    // In single precision, from the low corner of the bounds: half the memory, and exact to a thousandth of a mm.
    struct Edge {
        float x, y, dx, dy, perLength2;
        float startX, startY, endX, endY; // outward at its two ends: the sum of the normals that meet there
    };
    [[nodiscard]] double depthAt(Point place, const Edge*& nearest, float& share) const;

    // The bounds are divided into cells; each lists the edges that can be nearest to a point of it. Many cells have the
    // same list, so lists are kept once. Deep in the region one edge is enough: there the depth need not be exact.
    static constexpr int kCells = 32;
    Bounds bounds_;
    std::vector<Edge> edges_;
    std::vector<Point> corners_;
    double perCellX_ = 0;
    double perCellY_ = 0;
    static constexpr std::uint16_t kDeep = 0x8000; // added to a cell's list
    std::vector<std::uint16_t> list_;              // by cell: its list; 0 is empty: nothing of the region in it
    std::vector<std::uint32_t> first_;             // by list: where it starts; one more at the end
    std::vector<std::uint16_t> listed_;            // edges
};

} // namespace westrum
