#include "core/cutting/no_fit.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace westrum {

NoFit::NoFit(const std::vector<GridRing>& a, const std::vector<GridRing>& b) {
    std::vector<GridRing> turned = b;
    for (GridRing& ring : turned)
        for (GridPoint& p : ring) p = {-p.x, -p.y}; // half a turn: still counter-clockwise
    const std::vector<Ring> rings = sumOfParts(a, turned).rings;
    for (const Ring& ring : rings) corners_.insert(corners_.end(), ring.begin(), ring.end());
    if (corners_.empty() || corners_.size() > 60000) {
        corners_.clear();
        return;
    }
    bounds_ = boundsOf(corners_);
    for (const Ring& ring : rings) {
        const std::size_t n = ring.size();
        const auto normal = [&](std::size_t i) { // outward of the edge from corner i; rings run counter-clockwise
            const Point d = ring[(i + 1) % n] - ring[i];
            const double length = std::sqrt(dot(d, d));
            return length > 0 ? Point{d.y / length, -d.x / length} : Point{};
        };
        for (std::size_t i = 0; i < n; ++i) {
            const Point p = ring[i] - bounds_.low;
            const Point d = ring[(i + 1) % n] - ring[i];
            const double length2 = dot(d, d);
            if (length2 <= 0) continue;
            const Point start = normal((i + n - 1) % n) + normal(i);
            const Point end = normal(i) + normal((i + 1) % n);
            edges_.push_back({float(p.x), float(p.y), float(d.x), float(d.y), float(1 / length2), float(start.x),
                              float(start.y), float(end.x), float(end.y)});
        }
    }
    const double cellX = std::max(bounds_.width(), 1e-6) / kCells;
    const double cellY = std::max(bounds_.height(), 1e-6) / kCells;
    perCellX_ = 1 / cellX;
    perCellY_ = 1 / cellY;
    const double reach = std::hypot(cellX, cellY) / 2 * 1.0001;
    std::vector<double> away(edges_.size());
    std::map<std::vector<std::uint16_t>, std::uint32_t> known{{{}, 0}};
    listed_ = {0}; // 0 is no place of a list
    cells_.reserve(kCells * kCells);
    std::vector<std::uint16_t> list;
    for (int iy = 0; iy < kCells; ++iy)
        for (int ix = 0; ix < kCells; ++ix) {
            const Point middle{(ix + 0.5) * cellX, (iy + 0.5) * cellY};
            double least = std::numeric_limits<double>::infinity();
            std::size_t nearest = 0;
            bool inside = false;
            for (std::size_t e = 0; e < edges_.size(); ++e) {
                const Edge& edge = edges_[e];
                const double px = middle.x - double(edge.x);
                const double py = middle.y - double(edge.y);
                const double dx = double(edge.dx);
                const double dy = double(edge.dy);
                const double t = std::clamp((px * dx + py * dy) * double(edge.perLength2), 0.0, 1.0);
                const double ex = px - t * dx;
                const double ey = py - t * dy;
                away[e] = std::sqrt(ex * ex + ey * ey);
                if (away[e] < least) {
                    least = away[e];
                    nearest = e;
                }
                if ((py >= 0) != (py - dy >= 0) && (px * dy - py * dx < 0) == (dy > 0)) inside = !inside;
            }
            list.clear();
            const bool deep = inside && least > 4 * reach;
            if (deep) {
                cells_.push_back(std::uint32_t(nearest) | kDeep);
                continue;
            }
            if (inside || least <= reach)
                for (std::size_t e = 0; e < edges_.size(); ++e)
                    if (away[e] <= least + 2 * reach) list.push_back(std::uint16_t(e));
            const auto [at, fresh] = known.try_emplace(list, std::uint32_t(listed_.size()));
            if (fresh) {
                listed_.push_back(std::uint16_t(list.size()));
                listed_.insert(listed_.end(), list.begin(), list.end());
            }
            cells_.push_back(at->second);
        }
}

double NoFit::depth(Point place, Point& exit) const {
    const Edge* nearest = nullptr;
    float share = 0;
    const double depth = depthAt(place, nearest, share);
    if (nearest)
        exit = bounds_.low + Point{double(nearest->x + share * nearest->dx), double(nearest->y + share * nearest->dy)};
    return depth;
}

} // namespace westrum
