#include "core/takeoff/fixings.h"

#include "core/geometry/boolean.h"
#include "core/geometry/side_offset.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {
constexpr double kNoDirection = 0.02; // mm: a side as short as that
constexpr double kRounding = 0.01;    // mm: what outlines are off by once they were cut
} // namespace

RunFixings fixingsAlong(Mm length, Mm end, Mm spacing) {
    const double between = length.value - 2 * end.value;
    if (between <= 0) return {1, std::nullopt};
    const auto spaces = roundUp(between / spacing.value);
    return {static_cast<int>(spaces) + 1, Mm{between / static_cast<double>(spaces)}};
}

std::vector<EdgeRun> edgeRuns(const Ring& outline, double runsOnRad) {
    const std::size_t n = outline.size();
    // The direction of each side; a side too short for one goes on as the one before.
    std::vector<std::size_t> told;
    for (std::size_t i = 0; i < n; ++i)
        if (distance(outline[i], outline[(i + 1) % n]) > kNoDirection) told.push_back(i);
    if (told.size() < 2) return {};
    std::vector<std::size_t> corners; // vertices
    for (std::size_t k = 0; k < told.size(); ++k) {
        const std::size_t before = told[(k + told.size() - 1) % told.size()], at = told[k];
        const Point in = outline[(before + 1) % n] - outline[before], out = outline[(at + 1) % n] - outline[at];
        if (std::abs(std::atan2(cross(in, out), dot(in, out))) > runsOnRad) corners.push_back(at);
    }
    std::vector<EdgeRun> runs;
    if (corners.empty()) return {{0, n, {perimeter(outline)}, true}};
    for (std::size_t k = 0; k < corners.size(); ++k) {
        const std::size_t from = corners[k], to = corners[(k + 1) % corners.size()];
        EdgeRun run{from, (to + n - from) % n, {}, false};
        if (run.sides == 0) run.sides = n; // a drop: one corner
        for (std::size_t i = 0; i < run.sides; ++i)
            run.length = run.length + Mm{distance(outline[(from + i) % n], outline[(from + i + 1) % n])};
        runs.push_back(run);
    }
    return runs;
}

namespace {

std::int64_t spacesOf(Mm length, Mm apart, bool closed) {
    return std::max<std::int64_t>(closed ? 3 : 1, roundUp((length.value - kRounding) / apart.value));
}

/// One vertex for sides that have no direction of their own.
Ring withoutSpecks(const Ring& ring) {
    Ring clean;
    for (const Point& p : ring)
        if (clean.empty() || distance(clean.back(), p) > kNoDirection) clean.push_back(p);
    while (clean.size() > 1 && distance(clean.back(), clean.front()) <= kNoDirection) clean.pop_back();
    return clean;
}

/// Where a line along x (or y) lies within the rings; whether an end lies on a hole.
struct Within {
    double from, to;
    bool holeBefore, holeAfter;
};
std::vector<Within> within(const std::vector<Ring>& rings, bool along, double at) {
    std::vector<std::pair<double, bool>> hits; // place, on a hole
    for (const Ring& ring : rings) {
        const bool hole = signedArea(ring) < 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point p = ring[i], q = ring[(i + 1) % ring.size()];
            const double pa = along ? p.y : p.x, qa = along ? q.y : q.x;
            const double pb = along ? p.x : p.y, qb = along ? q.x : q.y;
            if ((pa > at) != (qa > at)) hits.emplace_back(pb + (qb - pb) * (at - pa) / (qa - pa), hole);
        }
    }
    std::sort(hits.begin(), hits.end());
    std::vector<Within> parts;
    for (std::size_t i = 1; i < hits.size(); i += 2)
        parts.push_back({hits[i - 1].first, hits[i].first, hits[i - 1].second, hits[i].second});
    return parts;
}

double lengthOf(const std::vector<Within>& parts) {
    double all = 0;
    for (const Within& w : parts) all += w.to - w.from;
    return all;
}

} // namespace

int fixingsRound(std::span<const EdgeRun> runs, Mm apart) {
    std::int64_t count = 0;
    for (const EdgeRun& run : runs) count += spacesOf(run.length, apart, run.closed);
    return static_cast<int>(count);
}

std::vector<ClippedSide> clippedSides(const Region& panel, Mm apart) {
    std::vector<ClippedSide> sides;
    for (const Ring& ring : panel.rings) {
        if (signedArea(ring) <= 0) continue;
        for (const EdgeRun& run : edgeRuns(ring)) {
            if (run.closed) {
                const auto clips = spacesOf(run.length, apart, true);
                sides.push_back(
                    {run.length, {static_cast<int>(clips), Mm{run.length.value / static_cast<double>(clips)}}});
            } else if (run.length > kClipFromEnd * 2) {
                sides.push_back({run.length, fixingsAlong(run.length, kClipFromEnd, apart)});
            }
        }
    }
    return sides;
}

PanelFixings fixingsOfPanel(const Region& panel, Mm inset, Mm edgeSpacing, std::span<const SupportLine> supports,
                            Mm fieldSpacing) {
    PanelFixings fixings;
    std::vector<Ring> lines;
    for (const Ring& given : panel.rings) {
        const Ring ring = withoutSpecks(given);
        if (ring.size() < 3) continue;
        lines.push_back(sidesMoved(ring, std::vector<double>(ring.size(), inset.value)));
        if (signedArea(ring) <= 0) continue;
        const Ring& line = lines.back();
        const std::size_t n = ring.size();
        for (const EdgeRun& run : edgeRuns(ring)) {
            // Along the line of fixings; round a curve tighter than the inset it runs back.
            double length = 0;
            for (std::size_t k = 0; k < run.sides; ++k) {
                const std::size_t i = (run.from + k) % n, next = (i + 1) % n;
                const Point side = ring[next] - ring[i];
                length += dot(line[next] - line[i], side) / std::max(1e-12, distance({0, 0}, side));
            }
            const auto spaces = spacesOf({std::max(0.0, length)}, edgeSpacing, run.closed);
            fixings.edge += static_cast<int>(spaces);
            fixings.edgeSpacing.push_back({std::max(0.0, length) / static_cast<double>(spaces)});
        }
    }
    Bounds b;
    bool any = false;
    for (const Ring& line : lines)
        if (signedArea(line) > 0) {
            const Bounds l = boundsOf(line);
            b = any ? Bounds{{std::min(b.low.x, l.low.x), std::min(b.low.y, l.low.y)},
                             {std::max(b.high.x, l.high.x), std::max(b.high.y, l.high.y)}}
                    : l;
            any = true;
        }
    for (const SupportLine& s : supports) {
        const double low = s.along ? b.low.y : b.low.x, high = s.along ? b.high.y : b.high.x;
        if (!any || s.at <= low + 1e-6 || s.at >= high - 1e-6) continue;
        // A hole that it only touches, on either side of it, does not part it.
        const std::vector<Within> below = within(lines, s.along, s.at - kRounding),
                                  above = within(lines, s.along, s.at + kRounding);
        for (const Within& w : lengthOf(below) >= lengthOf(above) ? below : above) {
            const double from = std::max(w.from, s.from), to = std::min(w.to, s.to);
            if (to <= from + 1e-6) continue;
            // An end on the edge's line of fixings has one already.
            const int ends = (w.holeBefore || from > w.from + 1 ? 1 : 0) + (w.holeAfter || to < w.to - 1 ? 1 : 0);
            fixings.field +=
                static_cast<int>(std::max<std::int64_t>(1, roundUp((to - from - kRounding) / fieldSpacing.value))) - 1 +
                ends;
        }
    }
    return fixings;
}

BoltLength boltLength(Mm grip, Mm washers, Mm nut, Mm protrude, std::span<const Mm> lengths) {
    BoltLength bolt{grip + washers + nut + protrude, std::nullopt};
    for (const Mm l : lengths)
        if (l.value >= bolt.needed.value - kCountSlack && (!bolt.length || l < *bolt.length)) bolt.length = l;
    return bolt;
}

ScrewLength screwLength(Mm lining, Mm batten, Mm bite, Mm clear, std::span<const Mm> lengths) {
    ScrewLength screw{lining + bite, lining + batten - clear, std::nullopt};
    for (const Mm l : lengths)
        if (l.value >= screw.least.value - kCountSlack && l.value <= screw.most.value + kCountSlack &&
            (!screw.length || l > *screw.length))
            screw.length = l;
    return screw;
}

} // namespace westrum
