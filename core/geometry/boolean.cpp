#include "core/geometry/boolean.h"

#include <polyclipping/clipper.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace westrum {
namespace {

using ClipperLib::Path;
using ClipperLib::Paths;

constexpr double kGrid = 1e6;

Path toPath(const Ring& ring) {
    Path path;
    path.reserve(ring.size());
    for (Point p : ring) path.emplace_back(std::llround(p.x * kGrid), std::llround(p.y * kGrid));
    return path;
}

Paths toPaths(const Region& region) {
    Paths paths;
    for (const Ring& ring : region.rings) paths.push_back(toPath(ring));
    return paths;
}

Ring toRing(const Path& path) {
    Ring ring;
    ring.reserve(path.size());
    for (const auto& p : path) ring.push_back({static_cast<double>(p.X) / kGrid, static_cast<double>(p.Y) / kGrid});
    // Each ring starts at its lowest, then leftmost corner, so that the same shape is the same list of points.
    const auto first =
        std::min_element(ring.begin(), ring.end(), [](Point a, Point b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
    std::rotate(ring.begin(), first, ring.end());
    return ring;
}

Region toRegion(const Paths& paths) {
    Region region;
    for (const Path& path : paths)
        if (path.size() >= 3) region.rings.push_back(toRing(path));
    return region;
}

Region combine(ClipperLib::ClipType type, const Paths& subject, const Paths& clip,
               ClipperLib::PolyFillType fill = ClipperLib::pftNonZero) {
    ClipperLib::Clipper clipper;
    clipper.AddPaths(subject, ClipperLib::ptSubject, true);
    clipper.AddPaths(clip, ClipperLib::ptClip, true);
    Paths solution;
    clipper.Execute(type, solution, fill, fill);
    return toRegion(solution);
}

Ring box(double left, double low, double right, double high) {
    return {{left, low}, {right, low}, {right, high}, {left, high}};
}

} // namespace

Region unionOf(const std::vector<Ring>& rings) {
    Paths paths;
    for (const Ring& ring : rings) {
        Path path = toPath(ring);
        if (!ClipperLib::Orientation(path)) ClipperLib::ReversePath(path);
        paths.push_back(std::move(path));
    }
    return combine(ClipperLib::ctUnion, paths, {});
}

Region unionOf(const Region& a, const Region& b) { return combine(ClipperLib::ctUnion, toPaths(a), toPaths(b)); }

Region difference(const Region& from, const Region& cut) {
    return combine(ClipperLib::ctDifference, toPaths(from), toPaths(cut));
}

Region intersection(const Region& a, const Region& b) {
    return combine(ClipperLib::ctIntersection, toPaths(a), toPaths(b));
}

Region inset(const Region& region, double by) {
    if (by <= 0) return region;
    constexpr double mitreLimit = 100;
    ClipperLib::ClipperOffset offset(mitreLimit);
    offset.AddPaths(toPaths(region), ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
    Paths solution;
    offset.Execute(solution, -by * kGrid);
    return toRegion(solution);
}

Region outset(const Region& region, double by) {
    if (by <= 0) return region;
    ClipperLib::ClipperOffset offset(2);
    offset.AddPaths(toPaths(region), ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
    Paths solution;
    offset.Execute(solution, by * kGrid);
    return toRegion(solution);
}

Region rounded(const Region& region, double radius) {
    if (radius <= 0) return region;
    const Region core = inset(region, radius);
    ClipperLib::ClipperOffset offset(2, 0.5 * kGrid); // within 0.5 mm of the arc
    offset.AddPaths(toPaths(core), ClipperLib::jtRound, ClipperLib::etClosedPolygon);
    Paths solution;
    offset.Execute(solution, radius * kGrid);
    Region smooth = intersection(toRegion(solution), region);
    // A corner loses less than 2 r^2 down to some 35 degrees; what loses more was too narrow, and stays.
    for (const Region& lost : partsOf(difference(region, smooth)))
        if (areaMm2(lost) > 2 * radius * radius) smooth = unionOf(smooth, lost);
    // Corners that all but touch a side would count as crossing it.
    Paths clean = toPaths(smooth);
    ClipperLib::CleanPolygons(clean, 0.05 * kGrid);
    ClipperLib::SimplifyPolygons(clean, ClipperLib::pftNonZero);
    return toRegion(clean);
}

Region stripAlong(const Ring& line, double width) {
    std::vector<Ring> parts;
    std::optional<Point> before; // the offset of the last stretch
    for (std::size_t i = 1; i < line.size(); ++i) {
        Point a = line[i - 1], b = line[i];
        const double length = distance(a, b);
        if (length < 1e-9) continue;
        const Point along = (b - a) * (1 / length);
        const Point aside = Point{-along.y, along.x} * width;
        if (before) parts.push_back({a, a + *before, a + aside});
        before = aside;
        if (width > 0 && i == 1) a = a - along * width;
        if (width > 0 && i + 1 == line.size()) b = b + along * width;
        parts.push_back({a, b, b + aside, a + aside});
    }
    std::erase_if(parts, [](const Ring& r) { return std::abs(signedArea(r)) < 1e-6; });
    return unionOf(parts);
}

std::vector<Region> partsOf(const Region& region) {
    std::vector<Region> parts;
    for (const Ring& ring : region.rings)
        if (signedArea(ring) > 0) parts.push_back({{ring}});
    for (const Ring& ring : region.rings) {
        if (signedArea(ring) >= 0) continue;
        // The owner of a hole is the smallest outer ring around it.
        Region* owner = nullptr;
        for (Region& part : parts)
            if (contains({{part.rings.front()}}, (ring[0] + ring[1]) * 0.5) &&
                (!owner || signedArea(part.rings.front()) < signedArea(owner->rings.front())))
                owner = &part;
        if (owner) owner->rings.push_back(ring);
    }
    return parts;
}

std::vector<Region> bandOf(const Region& region, double low, double high, double leastMm2) {
    if (region.empty() || high <= low) return {};
    const Bounds b = boundsOf(region);
    const Region band{{box(b.low.x - 1, low, b.high.x + 1, high)}};
    std::vector<Region> parts = partsOf(intersection(region, band));
    std::erase_if(parts, [&](const Region& part) { return areaMm2(part) <= leastMm2; });
    std::sort(parts.begin(), parts.end(),
              [](const Region& a, const Region& c) { return boundsOf(a).low.x < boundsOf(c).low.x; });
    return parts;
}

Region clippedInX(const Region& region, double left, double right) {
    if (region.empty() || right <= left) return {};
    const Bounds b = boundsOf(region);
    if (b.low.x >= left && b.high.x <= right) return region;
    return intersection(region, {{box(left, b.low.y - 1, right, b.high.y + 1)}});
}

Ring circle(Point centre, double radius, int corners) {
    Ring ring;
    for (int i = 0; i < corners; ++i) {
        const double angleRad = 2 * std::numbers::pi * i / corners;
        ring.push_back({centre.x + radius * std::cos(angleRad), centre.y + radius * std::sin(angleRad)});
    }
    return ring;
}

Ring roundedRectangle(double x, double y, double width, double height, double radius, int cornersPerCircle) {
    const double r = std::min({radius, width / 2, height / 2});
    if (r <= 0) return box(x, y, x + width, y + height);
    Ring ring;
    const Point centres[4] = {
        {x + width - r, y + r}, {x + width - r, y + height - r}, {x + r, y + height - r}, {x + r, y + r}};
    const int steps = std::max(1, cornersPerCircle / 4);
    for (int corner = 0; corner < 4; ++corner)
        for (int i = 0; i <= steps; ++i) {
            const double angleRad = std::numbers::pi / 2 * (corner - 1 + static_cast<double>(i) / steps);
            ring.push_back({centres[corner].x + r * std::cos(angleRad), centres[corner].y + r * std::sin(angleRad)});
        }
    return ring;
}

} // namespace westrum
