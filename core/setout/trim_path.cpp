#include "core/setout/trim_path.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kSameLine = 1e-3; // rad
constexpr double kAtEdge = 5;      // mm: an opening this near an edge breaks what runs along it

double awayFrom(Point p, const Ring& ring) {
    double least = 1e18;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], ab = ring[(i + 1) % ring.size()] - a;
        const double t = std::clamp(dot(p - a, ab) / std::max(1e-9, dot(ab, ab)), 0.0, 1.0);
        least = std::min(least, distance(p, a + ab * t));
    }
    return least;
}

} // namespace

double lengthOf(const Ring& path) {
    double sum = 0;
    for (std::size_t i = 1; i < path.size(); ++i) sum += distance(path[i - 1], path[i]);
    return sum;
}

Point along(const Ring& path, double at) {
    for (std::size_t i = 1; i < path.size(); ++i) {
        const double step = distance(path[i - 1], path[i]);
        if (at <= step || i + 1 == path.size())
            return path[i - 1] + (path[i] - path[i - 1]) * (step > 0 ? std::clamp(at / step, 0.0, 1.0) : 0);
        at -= step;
    }
    return path.empty() ? Point{} : path.back();
}

Ring partOf(const Ring& path, double from, double to) {
    Ring part{along(path, from)};
    double at = 0;
    for (std::size_t i = 1; i + 1 < path.size(); ++i) {
        at += distance(path[i - 1], path[i]);
        if (at > from + 1e-6 && at < to - 1e-6) part.push_back(path[i]);
    }
    part.push_back(along(path, to));
    return part;
}

std::optional<Mm> leastRadiusOf(const Ring& path) {
    std::optional<Mm> least;
    for (std::size_t i = 1; i + 1 < path.size(); ++i) {
        const Point a = path[i] - path[i - 1], b = path[i + 1] - path[i];
        const double turn = std::abs(std::atan2(cross(a, b), dot(a, b)));
        if (turn < kSameLine) continue;
        const Mm radius{(std::hypot(a.x, a.y) + std::hypot(b.x, b.y)) / 2 / turn};
        if (!least || radius < *least) least = radius;
    }
    return least;
}

double turnAt(const Ring& ring, std::size_t i) {
    const Point in = ring[i] - ring[(i + ring.size() - 1) % ring.size()], out = ring[(i + 1) % ring.size()] - ring[i];
    return std::atan2(cross(in, out), dot(in, out));
}

namespace {

/// Brought into order, those that nearly touch made one.
void join(std::vector<std::pair<double, double>>& gaps, double leastBetween) {
    std::sort(gaps.begin(), gaps.end());
    std::vector<std::pair<double, double>> joined;
    for (const auto& g : gaps)
        if (!joined.empty() && g.first <= joined.back().second + leastBetween)
            joined.back().second = std::max(joined.back().second, g.second);
        else
            joined.push_back(g);
    gaps = std::move(joined);
}

} // namespace

std::vector<std::pair<double, double>> gapsOf(const Ring& path, const Surface& surface, const SurfaceShape& shape,
                                              double leastBetween) {
    std::vector<std::pair<double, double>> gaps;
    double before = 0;
    for (std::size_t i = 1; i < path.size(); ++i) {
        const Point a = path[i - 1], ab = path[i] - a;
        const double step = distance(a, path[i]);
        if (step < 1e-9) continue;
        const Point u = ab * (1 / step), n{-u.y, u.x};
        for (const PlacedOpening& o : shape.openings) {
            if (surface.openings[static_cast<std::size_t>(o.opening)].treatment != Treatment::CutBefore) continue;
            // The stretch over which the opening comes nearer than kAtEdge, between its corners.
            double from = 1e18, to = -1e18;
            for (std::size_t k = 0; k < o.shape.size(); ++k) {
                const Point p = o.shape[k] - a, q = o.shape[(k + 1) % o.shape.size()] - a;
                double d0 = dot(p, n), d1 = dot(q, n), t0 = dot(p, u), t1 = dot(q, u);
                if (std::min(d0, d1) > kAtEdge) continue;
                const double cut = d0 == d1 ? 0 : (kAtEdge - d0) / (d1 - d0);
                if (d0 > kAtEdge) t0 += (t1 - t0) * cut;
                if (d1 > kAtEdge) t1 = t0 + (t1 - t0) * cut;
                from = std::min({from, t0, t1});
                to = std::max({to, t0, t1});
            }
            if (to <= 0 || from >= step) continue;
            gaps.emplace_back(before + std::max(0.0, from), before + std::min(step, to));
        }
        before += step;
    }
    join(gaps, leastBetween);
    return gaps;
}

void addGapsBeyond(const Ring& side, const Ring& path, const Ring& other, const Surface& there,
                   const SurfaceShape& shape, double leastBetween, std::vector<std::pair<double, double>>& gaps) {
    const double length = lengthOf(side), otherLength = lengthOf(other), whole = lengthOf(path);
    if (side.empty() || path.empty() || otherLength < 1) return;
    const double begins = distance(side.front(), path.front());
    for (const auto& [from, to] : gapsOf(other, there, shape, leastBetween)) {
        const double low = std::max(0.0, length * (1 - to / otherLength) - begins);
        const double high = std::min(whole, length * (1 - from / otherLength) - begins);
        if (high > low) gaps.emplace_back(low, high);
    }
    join(gaps, leastBetween);
}

EdgeKind notchEdge(const MeasuredOutline& measured, const Ring& path) {
    const double whole = lengthOf(path);
    const Point middle = partOf(path, whole / 2, whole).front();
    for (const CutAway& c : measured.cutAways)
        for (const Ring& ring : c.shape.rings)
            if (awayFrom(middle, ring) < 1) return c.edges;
    return EdgeKind::Unsaid;
}

std::vector<Ring> edgesWithin(const Ring& shape, const MeasuredOutline& measured) {
    constexpr double kOnEdge = 1; // mm
    std::vector<Ring> all;
    Ring filled = shape;
    if (signedArea(filled) < 0) std::reverse(filled.begin(), filled.end());
    for (const Ring& ring : intersection({{filled}}, measured.outline).rings) {
        const std::size_t n = ring.size();
        const auto onEdge = [&](std::size_t i) {
            const Point middle = (ring[i] + ring[(i + 1) % n]) * 0.5;
            return std::any_of(measured.outline.rings.begin(), measured.outline.rings.end(),
                               [&](const Ring& edge) { return awayFrom(middle, edge) < kOnEdge; });
        };
        std::size_t first = 0;
        while (first < n && !onEdge(first)) ++first;
        if (first == n) { // none of it: as it was given
            Ring closed = shape;
            closed.push_back(shape.front());
            return {closed};
        }
        for (std::size_t k = 1; k <= n; ++k) {
            const std::size_t i = (first + k) % n;
            if (onEdge(i)) continue;
            if (onEdge((i + n - 1) % n)) all.push_back({ring[i]});
            all.back().push_back(ring[(i + 1) % n]);
        }
    }
    return all;
}

} // namespace westrum
