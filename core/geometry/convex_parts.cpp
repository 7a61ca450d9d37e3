#include "core/geometry/convex_parts.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <polyclipping/clipper.hpp>

namespace westrum {

namespace {

using ClipperLib::IntPoint;
using ClipperLib::Path;
using ClipperLib::Paths;

std::int64_t turn(GridPoint a, GridPoint b, GridPoint c) {
    return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

double areaOf(const GridRing& ring) {
    double sum = 0;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
        sum += double(ring[j].x) * double(ring[i].y) - double(ring[i].x) * double(ring[j].y);
    return sum / 2;
}

Path pathOf(const Ring& ring) {
    Path path;
    path.reserve(ring.size());
    for (const Point p : ring) {
        const GridPoint g = toGrid(p);
        path.emplace_back(g.x, g.y);
    }
    return path;
}

Paths pathsOf(const Region& region) {
    Paths paths;
    for (const Ring& ring : region.rings) paths.push_back(pathOf(ring));
    return paths;
}

GridRing ringOf(const Path& path) {
    GridRing ring;
    ring.reserve(path.size());
    for (const IntPoint& p : path) ring.push_back({p.X, p.Y});
    return ring;
}

Region regionOf(const Paths& paths) {
    Region region;
    for (const Path& path : paths) {
        Ring ring;
        for (const IntPoint& p : path) ring.push_back(fromGrid({p.X, p.Y}));
        region.rings.push_back(std::move(ring));
    }
    return region;
}

/// Outer rings without holes: a part with a hole is cut in two through the hole's middle, until none has one.
void withoutHoles(const Paths& paths, std::vector<GridRing>& out) {
    ClipperLib::Clipper clipper;
    clipper.AddPaths(paths, ClipperLib::ptSubject, true);
    ClipperLib::PolyTree tree;
    clipper.Execute(ClipperLib::ctUnion, tree, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    for (const ClipperLib::PolyNode* node = tree.GetFirst(); node; node = node->GetNext()) {
        if (node->IsHole()) continue;
        if (node->Childs.empty()) {
            out.push_back(ringOf(node->Contour));
            continue;
        }
        Paths part{node->Contour};
        for (const ClipperLib::PolyNode* hole : node->Childs) part.push_back(hole->Contour);
        const ClipperLib::cInt far = 4'000'000'000;
        ClipperLib::cInt low = far;
        ClipperLib::cInt high = -far;
        for (const IntPoint& p : part[1]) {
            low = std::min(low, p.X);
            high = std::max(high, p.X);
        }
        const ClipperLib::cInt middle = (low + high) / 2;
        for (const bool left : {true, false}) {
            ClipperLib::Clipper half;
            half.AddPaths(part, ClipperLib::ptSubject, true);
            const ClipperLib::cInt from = left ? -far : middle;
            const ClipperLib::cInt to = left ? middle : far;
            half.AddPath({{from, -far}, {to, -far}, {to, far}, {from, far}}, ClipperLib::ptClip, true);
            Paths cut;
            half.Execute(ClipperLib::ctIntersection, cut, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
            withoutHoles(cut, out);
        }
    }
}

/// Triangles by clipping ears; empty when it gets stuck.
std::vector<GridRing> triangles(GridRing ring) {
    std::vector<GridRing> result;
    if (areaOf(ring) < 0) std::reverse(ring.begin(), ring.end());
    while (ring.size() > 3) {
        const std::size_t n = ring.size();
        bool clipped = false;
        std::size_t best = n;
        double bestShape = -1;
        for (std::size_t i = 0; i < n; ++i) {
            const GridPoint a = ring[(i + n - 1) % n];
            const GridPoint b = ring[i];
            const GridPoint c = ring[(i + 1) % n];
            const std::int64_t side = turn(a, b, c);
            if (side == 0) { // nothing to cut off: the corner is no corner
                ring.erase(ring.begin() + std::ptrdiff_t(i));
                clipped = true;
                break;
            }
            if (side < 0) continue;
            bool empty = true;
            for (std::size_t j = 0; j < n && empty; ++j) {
                const GridPoint p = ring[j];
                if (p == a || p == b || p == c) continue;
                empty = !(turn(a, b, p) >= 0 && turn(b, c, p) >= 0 && turn(c, a, p) >= 0);
            }
            if (!empty) continue;
            // Of all ears the roundest, so that no needles are left.
            const double base = std::hypot(double(c.x - a.x), double(c.y - a.y)) +
                                std::hypot(double(b.x - a.x), double(b.y - a.y)) +
                                std::hypot(double(c.x - b.x), double(c.y - b.y));
            const double shape = double(side) / (base * base);
            if (shape > bestShape) {
                bestShape = shape;
                best = i;
            }
        }
        if (clipped) continue;
        if (best == n) return {};
        result.push_back({ring[(best + n - 1) % n], ring[best], ring[(best + 1) % n]});
        ring.erase(ring.begin() + std::ptrdiff_t(best));
    }
    if (ring.size() == 3 && turn(ring[0], ring[1], ring[2]) > 0) result.push_back(ring);
    return result;
}

/// Joins two rings that share the edge a[i], a[i+1]; empty unless the result is convex.
GridRing joinedAt(const GridRing& a, std::size_t i, const GridRing& b, std::size_t j) {
    // a: ... a[i] a[i+1] ...   b: ... b[j] = a[i+1], b[j+1] = a[i] ...
    GridRing ring;
    for (std::size_t k = 0; k < a.size(); ++k) ring.push_back(a[(i + 1 + k) % a.size()]); // a[i+1] ... a[i]
    for (std::size_t k = 2; k < b.size(); ++k) ring.push_back(b[(j + k) % b.size()]);
    for (std::size_t k = 0; k < ring.size(); ++k)
        if (turn(ring[k], ring[(k + 1) % ring.size()], ring[(k + 2) % ring.size()]) < 0) return {};
    return ring;
}

void joinNeighbours(std::vector<GridRing>& parts) {
    bool joined = true;
    while (joined) {
        joined = false;
        for (std::size_t p = 0; p < parts.size() && !joined; ++p)
            for (std::size_t q = p + 1; q < parts.size() && !joined; ++q)
                for (std::size_t i = 0; i < parts[p].size() && !joined; ++i)
                    for (std::size_t j = 0; j < parts[q].size() && !joined; ++j) {
                        if (parts[p][i] != parts[q][(j + 1) % parts[q].size()] ||
                            parts[p][(i + 1) % parts[p].size()] != parts[q][j])
                            continue;
                        GridRing both = joinedAt(parts[p], i, parts[q], j);
                        if (both.empty()) continue;
                        parts[p] = std::move(both);
                        parts.erase(parts.begin() + std::ptrdiff_t(q));
                        joined = true;
                    }
    }
}

/// Trapezoids between the heights of the ring's corners.
std::vector<GridRing> trapezoids(const GridRing& ring) {
    std::vector<std::int64_t> heights;
    for (const GridPoint p : ring) heights.push_back(p.y);
    std::sort(heights.begin(), heights.end());
    heights.erase(std::unique(heights.begin(), heights.end()), heights.end());
    Path subject;
    for (const GridPoint p : ring) subject.emplace_back(p.x, p.y);
    std::vector<GridRing> result;
    const ClipperLib::cInt far = 4'000'000'000;
    for (std::size_t i = 0; i + 1 < heights.size(); ++i) {
        ClipperLib::Clipper clipper;
        clipper.AddPath(subject, ClipperLib::ptSubject, true);
        clipper.AddPath({{-far, heights[i]}, {far, heights[i]}, {far, heights[i + 1]}, {-far, heights[i + 1]}},
                        ClipperLib::ptClip, true);
        Paths cut;
        clipper.Execute(ClipperLib::ctIntersection, cut, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
        for (const Path& path : cut) {
            // Rounding may dent a trapezoid by a thousandth: its hull is taken.
            GridRing points = ringOf(path);
            std::sort(points.begin(), points.end());
            GridRing hull;
            for (int pass = 0; pass < 2; ++pass) {
                const std::size_t start = hull.size();
                for (const GridPoint p : points) {
                    while (hull.size() >= start + 2 && turn(hull[hull.size() - 2], hull.back(), p) <= 0)
                        hull.pop_back();
                    hull.push_back(p);
                }
                hull.pop_back();
                std::reverse(points.begin(), points.end());
            }
            if (hull.size() >= 3) result.push_back(std::move(hull));
        }
    }
    return result;
}

} // namespace

GridPoint toGrid(Point p) { return {std::llround(p.x * kGridPerMm), std::llround(p.y * kGridPerMm)}; }
Point fromGrid(GridPoint p) { return {double(p.x) / kGridPerMm, double(p.y) / kGridPerMm}; }

std::vector<GridRing> convexParts(const Region& region) {
    std::vector<GridRing> simple;
    withoutHoles(pathsOf(region), simple);
    std::vector<GridRing> result;
    for (const GridRing& ring : simple) {
        std::vector<GridRing> parts = triangles(ring);
        double sum = 0;
        for (const GridRing& part : parts) sum += areaOf(part);
        const double whole = std::abs(areaOf(ring));
        if (std::abs(sum - whole) > 1e-6 * whole + 1)
            parts = trapezoids(ring);
        else
            joinNeighbours(parts);
        result.insert(result.end(), parts.begin(), parts.end());
    }
    return result;
}

GridRing convexSum(const GridRing& a, const GridRing& b) {
    const auto lowest = [](const GridRing& ring) {
        return std::size_t(
            std::min_element(ring.begin(), ring.end(),
                             [](GridPoint p, GridPoint q) { return p.y != q.y ? p.y < q.y : p.x < q.x; }) -
            ring.begin());
    };
    GridRing sum;
    std::size_t i = lowest(a);
    std::size_t j = lowest(b);
    GridPoint at{a[i].x + b[j].x, a[i].y + b[j].y};
    std::size_t doneA = 0;
    std::size_t doneB = 0;
    while (doneA < a.size() || doneB < b.size()) {
        const GridPoint ea{a[(i + 1) % a.size()].x - a[i].x, a[(i + 1) % a.size()].y - a[i].y};
        const GridPoint eb{b[(j + 1) % b.size()].x - b[j].x, b[(j + 1) % b.size()].y - b[j].y};
        const std::int64_t cross = ea.x * eb.y - ea.y * eb.x;
        const bool takeA = doneB == b.size() || (doneA < a.size() && cross >= 0);
        const bool takeB = doneA == a.size() || (doneB < b.size() && cross <= 0);
        sum.push_back(at);
        if (takeA) {
            at = {at.x + ea.x, at.y + ea.y};
            i = (i + 1) % a.size();
            ++doneA;
        }
        if (takeB) {
            at = {at.x + eb.x, at.y + eb.y};
            j = (j + 1) % b.size();
            ++doneB;
        }
    }
    return sum;
}

Region grown(const Region& region, double by, Corners corners) {
    ClipperLib::ClipperOffset offset(2.0, std::abs(by) * kGridPerMm * 0.02 + 1);
    offset.AddPaths(pathsOf(region), corners == Corners::Mitred ? ClipperLib::jtMiter : ClipperLib::jtRound,
                    ClipperLib::etClosedPolygon);
    Paths paths;
    offset.Execute(paths, by * kGridPerMm);
    return regionOf(paths);
}

Region sumOfParts(const std::vector<GridRing>& a, const std::vector<GridRing>& b) {
    if (a.empty() || b.empty()) return {};
    // Two by two: a union of everything at once would have to sort out all crossings of all rings.
    const auto unionOfRange = [](std::vector<Paths>& list) {
        while (list.size() > 1) {
            for (std::size_t i = 0; i < list.size() / 2; ++i) {
                ClipperLib::Clipper clipper;
                clipper.AddPaths(list[2 * i], ClipperLib::ptSubject, true);
                clipper.AddPaths(list[2 * i + 1], ClipperLib::ptSubject, true);
                Paths both;
                clipper.Execute(ClipperLib::ctUnion, both, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
                list[i] = std::move(both);
            }
            const std::size_t half = list.size() / 2;
            if (list.size() % 2 == 1) list[half] = std::move(list.back());
            list.resize((list.size() + 1) / 2);
        }
        return std::move(list.front());
    };
    std::vector<Paths> strips;
    for (const GridRing& p : a) {
        std::vector<Paths> sums;
        for (const GridRing& q : b) {
            Path path;
            for (const GridPoint c : convexSum(p, q)) path.emplace_back(c.x, c.y);
            sums.push_back({std::move(path)});
        }
        strips.push_back(unionOfRange(sums));
    }
    return regionOf(unionOfRange(strips));
}

} // namespace westrum
