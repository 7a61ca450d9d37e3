#pragma once

#include "core/geometry/convex_parts.h"
#include "core/geometry/polygon.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <optional>
#include <vector>

namespace westrum {

/// Four numbers that are worked on together.
using Four [[gnu::vector_size(16)]] = float;

/// A turn about the origin, counter-clockwise.
struct Turn {
    double cos = 1;
    double sin = 0;
    [[nodiscard]] Point operator()(Point p) const { return {cos * p.x - sin * p.y, sin * p.x + cos * p.y}; }
    [[nodiscard]] Point back(Point p) const { return {cos * p.x + sin * p.y, cos * p.y - sin * p.x}; }
};

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

    /// What is known of a place before any edge is looked at: enough to give up most places.
    struct Glance {
        int cell = -1;      ///< -1: the place is outside the region
        double atLeast = 0; ///< the depth is no less
    };
    [[nodiscard]] Glance glance(Point place) const;
    /// The depth of a place that was glanced at and may be inside.
    [[nodiscard]] double depth(Point place, const Glance& glance) const;

    /// Many places at once: to the sum of each its least depth, as far as a glance tells it, times a weight is added.
    /// Not for an empty region.
    /// @param x, y  the places as the caller has them; turn(place - at) is where they are in the region
    /// @param sums  as many as places
    void glance(const std::vector<Four>& x, const std::vector<Four>& y, Point at, const Turn& turn, double weight,
                std::vector<Four>& sums) const;

    struct Nearest {
        double depth; ///< negative outside
        Point exit;   ///< the nearest point of the edge
        Point out;    ///< from there out of the region, of length 1
    };
    /// Of a place inside the region or a little outside; nothing far outside.
    [[nodiscard]] std::optional<Nearest> nearest(Point place) const;

    [[nodiscard]] const Bounds& bounds() const { return bounds_; }
    [[nodiscard]] const std::vector<Point>& corners() const { return corners_; }

private:
    // In single precision, from the low corner of the bounds: half the memory, and exact to a thousandth of a mm.
    struct Edge {
        float x, y, dx, dy, perLength2;
        float startX, startY, endX, endY; // outward at its two ends: the sum of the normals that meet there
    };
    void addEdges(const Ring& ring);
    void listEdgesByCell();
    [[nodiscard]] double depthIn(int cell, Point place, const Edge*& nearest, float& share) const;
    [[nodiscard]] Point pointOf(const Edge& edge, float share) const {
        return bounds_.low + Point{double(edge.x + share * edge.dx), double(edge.y + share * edge.dy)};
    }

    // The bounds are divided into cells; each lists the edges that can be nearest to a point of it. Many cells have the
    // same list, so lists are kept once. Deep in the region one edge is enough: there the depth need not be exact.
    // Round them lies a border of cells that are outside.
    static constexpr int kCells = 30;
    static constexpr int kRow = 32;
    Bounds bounds_;
    double perCellX_ = 0;
    double perCellY_ = 0;
    double perGrade_ = 0;
    std::vector<std::uint8_t> grades_; // by cell: 0, nothing of the region in it; else 1 + its least depth, in grades
    static constexpr std::uint32_t kDeep = 0x80000000; // the rest of the entry is the one edge
    std::vector<std::uint32_t> cells_;                 // by cell: where its list starts
    std::vector<std::uint16_t> listed_;                // lists: how many edges, then the edges
    std::vector<Edge> edges_;
    std::vector<Point> corners_;
};

// Here, so that they are part of the loops that ask for millions of depths.
inline NoFit::Glance NoFit::glance(Point place) const {
    const double x = place.x - bounds_.low.x;
    const double y = place.y - bounds_.low.y;
    const int ix = int(x * perCellX_);
    const int iy = int(y * perCellY_);
    if (grades_.empty() || x <= 0 || y <= 0 || ix >= kCells || iy >= kCells) return {};
    const int cell = (iy + 1) * kRow + ix + 1;
    const int grade = grades_[std::size_t(cell)];
    if (grade == 0) return {};
    return {cell, (grade - 1) * perGrade_};
}

inline double NoFit::depthIn(int cell, Point place, const Edge*& nearest, float& share) const {
    const auto x = float(place.x - bounds_.low.x);
    const auto y = float(place.y - bounds_.low.y);
    float least = std::numeric_limits<float>::infinity();
    float leastX = 0;
    float leastY = 0;
    const auto look = [&](const Edge& edge) {
        const float px = x - edge.x;
        const float py = y - edge.y;
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
    const std::uint32_t entry = cells_[std::size_t(cell)];
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

inline double NoFit::depth(Point place, const Glance& glance) const {
    const Edge* nearest = nullptr;
    float share = 0;
    return depthIn(glance.cell, place, nearest, share);
}

inline double NoFit::depth(Point place) const {
    const Glance seen = glance(place);
    return seen.cell < 0 ? 0 : depth(place, seen);
}

} // namespace westrum
