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
    for (const Ring& ring : rings) addEdges(ring);
    listEdgesByCell();
}

void NoFit::addEdges(const Ring& ring) {
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

void NoFit::listEdgesByCell() {
    const double cellX = std::max(bounds_.width(), 1e-6) / kCells;
    const double cellY = std::max(bounds_.height(), 1e-6) / kCells;
    perCellX_ = 1 / cellX;
    perCellY_ = 1 / cellY;
    const double reach = std::hypot(cellX, cellY) / 2 * 1.0001;
    const std::size_t count = edges_.size();
    // Side by side, so that the compiler can take several edges at once.
    std::vector<float> x(count);
    std::vector<float> y(count);
    std::vector<float> dx(count);
    std::vector<float> dy(count);
    std::vector<float> perLength2(count);
    std::vector<float> away2(count);
    for (std::size_t e = 0; e < count; ++e) {
        x[e] = edges_[e].x;
        y[e] = edges_[e].y;
        dx[e] = edges_[e].dx;
        dy[e] = edges_[e].dy;
        perLength2[e] = edges_[e].perLength2;
    }
    std::map<std::vector<std::uint16_t>, std::uint32_t> known;
    std::vector<std::uint16_t> list;
    std::vector<double> crossings; // of the edges with the line through the middles of a row
    std::vector<double> depths;    // by cell; negative: outside
    cells_.assign(kRow * kRow, 0);
    for (int iy = 0; iy < kCells; ++iy) {
        const auto my = float((iy + 0.5) * cellY);
        crossings.clear();
        for (std::size_t e = 0; e < count; ++e)
            if ((y[e] > my) != (y[e] + dy[e] > my))
                crossings.push_back(double(x[e]) + double(my - y[e]) / double(dy[e]) * double(dx[e]));
        for (int ix = 0; ix < kCells; ++ix) {
            std::uint32_t& entry = cells_[std::size_t((iy + 1) * kRow + ix + 1)];
            const auto mx = float((ix + 0.5) * cellX);
            const bool inside = std::count_if(crossings.begin(), crossings.end(),
                                              [&](double crossing) { return crossing > double(mx); }) %
                                    2 ==
                                1;
            for (std::size_t e = 0; e < count; ++e) {
                const float px = mx - x[e];
                const float py = my - y[e];
                const float t = std::min(1.0F, std::max(0.0F, (px * dx[e] + py * dy[e]) * perLength2[e]));
                const float ex = px - t * dx[e];
                const float ey = py - t * dy[e];
                away2[e] = ex * ex + ey * ey;
            }
            const auto nearest = std::min_element(away2.begin(), away2.end());
            const double least = std::sqrt(double(*nearest));
            depths.push_back(inside ? std::max(0.0, least - reach) : least <= reach ? 0.0 : -1.0);
            if (inside && least > 4 * reach) {
                entry = std::uint32_t(nearest - away2.begin()) | kDeep;
                continue;
            }
            list.clear();
            const double farthest = least + 2 * reach;
            const auto limit = float(farthest * farthest * 1.0001);
            if (depths.back() >= 0)
                for (std::size_t e = 0; e < count; ++e)
                    if (away2[e] <= limit) list.push_back(std::uint16_t(e));
            const auto [at, fresh] = known.try_emplace(list, std::uint32_t(listed_.size()));
            if (fresh) {
                listed_.push_back(std::uint16_t(list.size()));
                listed_.insert(listed_.end(), list.begin(), list.end());
            }
            entry = at->second;
        }
    }
    constexpr double kGrades = 254;
    perGrade_ = std::max(1e-6, *std::max_element(depths.begin(), depths.end())) / kGrades;
    grades_.assign(kRow * kRow, 0);
    for (int iy = 0; iy < kCells; ++iy)
        for (int ix = 0; ix < kCells; ++ix)
            if (const double depth = depths[std::size_t(iy * kCells + ix)]; depth >= 0)
                grades_[std::size_t((iy + 1) * kRow + ix + 1)] =
                    std::uint8_t(1 + std::floor(depth / perGrade_ * 0.9999));
}

void NoFit::glance(const std::vector<Four>& x, const std::vector<Four>& y, Point at, const Turn& turn, double weight,
                   std::vector<Four>& sums) const {
    using Ints [[gnu::vector_size(16)]] = std::int32_t;
    const Point start = turn(at) + bounds_.low;
    const auto alongX = float(turn.cos * perCellX_);
    const auto alongY = float(-turn.sin * perCellX_);
    const auto acrossX = float(turn.sin * perCellY_);
    const auto acrossY = float(turn.cos * perCellY_);
    const auto fromX = float(start.x * perCellX_ - 1);
    const auto fromY = float(start.y * perCellY_ - 1);
    const auto perGrade = float(perGrade_ * weight);
    constexpr auto kEnd = float(kCells + 1);
    constexpr Four kLow{0, 0, 0, 0};
    constexpr Four kHigh{kEnd, kEnd, kEnd, kEnd};
    const std::uint8_t* const grades = grades_.data();
    for (std::size_t b = 0; b < x.size(); ++b) {
        Four u = x[b] * alongX + y[b] * alongY - fromX;
        Four v = x[b] * acrossX + y[b] * acrossY - fromY;
        u = u > kLow ? u : kLow; // beyond the bounds: in the border
        v = v > kLow ? v : kLow;
        u = u < kHigh ? u : kHigh;
        v = v < kHigh ? v : kHigh;
        const Ints cells = __builtin_convertvector(v, Ints) * kRow + __builtin_convertvector(u, Ints);
        const Ints seen{grades[cells[0]], grades[cells[1]], grades[cells[2]], grades[cells[3]]};
        const Ints inside = (seen - 1) & (seen > 0);
        sums[b] += __builtin_convertvector(inside, Four) * perGrade;
    }
}

double NoFit::depth(Point place, Point& exit) const {
    const Glance seen = glance(place);
    if (seen.cell < 0) return 0;
    const Edge* nearest = nullptr;
    float share = 0;
    const double depth = depthIn(seen.cell, place, nearest, share);
    exit = pointOf(*nearest, share);
    return depth;
}

std::optional<NoFit::Nearest> NoFit::nearest(Point place) const {
    constexpr double kNear = 0.05; // mm: the place itself does not tell the way out
    const Glance seen = glance(place);
    if (seen.cell < 0) return std::nullopt;
    const Edge* edge = nullptr;
    float share = 0;
    const double depth = depthIn(seen.cell, place, edge, share);
    const Point exit = pointOf(*edge, share);
    const Point by = depth > 0 ? exit - place : place - exit;
    const double away = std::sqrt(by.x * by.x + by.y * by.y);
    const double perLength = std::sqrt(double(edge->perLength2));
    const Point out = away > kNear ? by * (1 / away) : Point{double(edge->dy), -double(edge->dx)} * perLength;
    return Nearest{depth > 0 ? depth : -away, exit, out};
}

} // namespace westrum
