#include "core/shell/datum.h"

#include "core/measure/cutouts.h"
#include "core/shell/section.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

double mmOf(const MaybeReading& r, double otherwise) { return r ? r->length.value : otherwise; }

bool standsAcross(SurfaceKind kind) {
    return kind == SurfaceKind::Bulkhead || kind == SurfaceKind::RearDoors || kind == SurfaceKind::RearDoor;
}

} // namespace

FloorFrame floorFrameOf(const std::vector<TiedSurface>& surfaces) {
    FloorFrame frame;
    const auto floor = std::find_if(surfaces.begin(), surfaces.end(), [](const TiedSurface& t) {
        return t.surface->kind == SurfaceKind::Floor && t.measured->measured();
    });
    if (floor == surfaces.end()) return frame;
    const Bounds b = boundsOf(floor->measured->frame);
    frame.length = {b.width()};
    for (int side = 0; side < static_cast<int>(floor->measured->sides.size()); ++side) {
        const Edge edge = floor->surface->edge(side);
        if (edge.kind != EdgeKind::Meets) continue;
        const Ring& points = floor->measured->sides[static_cast<std::size_t>(side)];
        const double from = std::min(points.front().x, points.back().x),
                     to = std::max(points.front().x, points.back().x);
        const bool across = to - from < std::abs(points.front().y - points.back().y);
        frame.standsAt[edge.surface] = Mm{(across ? (from + to) / 2 : from) - b.low.x};
    }
    return frame;
}

std::optional<DatumLine> datumLevelOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                      const FloorFrame& floor) {
    if (liesLevel(surface.kind) || !measured.measured() || (!datum.rear && !datum.front)) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    const SideLine lower = lowerEdge(measured);
    const double rear = mmOf(datum.rear, mmOf(datum.front, 0)), front = mmOf(datum.front, rear);
    const double length = std::max(floor.length.value, 0.0);
    const auto heightOverFloor = [&](double fromRear) {
        return length > 0 ? rear + (front - rear) * std::clamp(fromRear / length, 0.0, 1.0) : rear;
    };
    const bool across = standsAcross(surface.kind);
    const auto tied = floor.standsAt.find(surface.id);
    const double byTie = tied != floor.standsAt.end()            ? tied->second.value
                         : surface.kind == SurfaceKind::Bulkhead ? length
                                                                 : 0;
    const double start = mmOf(surface.fromRear, byTie);
    const double lowRear = mmOf(surface.heightRear, mmOf(surface.heightFront, 0));
    const double lowFront = mmOf(surface.heightFront, lowRear);
    // Across the van both ends lie equally far from the rear.
    const bool runsToRear = surface.hand == Hand::Right && !across;
    const double edge = std::max(1e-6, lower.to.x - lower.from.x);
    const auto at = [&](double x) {
        const double share = (x - lower.from.x) / edge; // of the lower edge, from its left end
        const double forwards = runsToRear ? 1 - share : share;
        const double low = lowRear + (lowFront - lowRear) * forwards;
        const double plumb = heightOverFloor(across ? start : start + edge * forwards) - low;
        const double foot = lower.from.y + (lower.to.y - lower.from.y) * share;
        return Point{x, foot + alongAt(sectionOf(surface, b.high.y - foot), plumb)};
    };
    return DatumLine{at(b.low.x), at(b.high.x)};
}

std::optional<DatumLine> datumOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                 const FloorFrame& floor) {
    const auto line = datumLevelOn(surface, measured, datum, floor);
    if (!line) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    if (std::max(line->left.y, line->right.y) < b.low.y || std::min(line->left.y, line->right.y) > b.high.y)
        return std::nullopt;
    return line;
}

} // namespace westrum
