#pragma once

#include "core/geometry/convex_parts.h"
#include "core/geometry/polygon.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
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
    static constexpr std::uint32_t kDeep = 0x80000000; // the rest of the entry is the one edge
    std::vector<std::uint32_t> cells_;                 // by cell: where its list starts; 0: nothing of the region in it
    std::vector<std::uint16_t> listed_;                // lists: how many edges, then the edges
};

// Here, so that it is part of the loops that ask for millions of depths.
inline double NoFit::depthAt(Point place, const Edge*& nearest, float& share) const {
    const double x = place.x - bounds_.low.x;
    const double y = place.y - bounds_.low.y;
    const int ix = int(x * perCellX_);
    const int iy = int(y * perCellY_);
    if (cells_.empty() || x <= 0 || y <= 0 || ix >= kCells || iy >= kCells) return 0;
    const std::uint32_t entry = cells_[std::size_t(iy) * std::size_t(kCells) + std::size_t(ix)];
    if (entry == 0) return 0;
    float least = std::numeric_limits<float>::infinity();
    float leastX = 0;
    float leastY = 0;
    const auto look = [&](const Edge& edge) {
        const float px = float(x) - edge.x;
        const float py = float(y) - edge.y;
        const float t = std::min(1.0F, std::max(0.0F, (px * edge.dx + py * edge.dy) * edge.perLength2));
        const float ex = px - t * edge.dx;
        const float ey = py - t * edge.dy;
        const float away = ex * ex + ey * ey;
        if (away < least) {
            least = away;
            leastX = ex;
            leastY = ey;
            nearest = &edge;
            share = t;
        }
    };
    if (entry & kDeep) {
        look(edges_[entry & ~kDeep]);
        return double(std::sqrt(least));
    }
    const std::uint16_t* list = listed_.data() + entry;
    const std::uint16_t* const end = list + 1 + *list;
    while (++list != end) look(edges_[*list]);
    // Inside or not: by the side of the nearest edge, at a corner by the sum of the normals that meet there.
    const float side = share <= 0   ? leastX * nearest->startX + leastY * nearest->startY
                       : share >= 1 ? leastX * nearest->endX + leastY * nearest->endY
                                    : leastX * nearest->dy - leastY * nearest->dx;
    return side < 0 ? double(std::sqrt(least)) : 0;
}

inline double NoFit::depth(Point place) const {
    const Edge* nearest = nullptr;
    float share = 0;
    return depthAt(place, nearest, share);
}

} // namespace westrum
