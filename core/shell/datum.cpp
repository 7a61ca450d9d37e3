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

FloorFrame floorFrameOf(const std::vector<TiedSurface>& surfaces, const FoldUp& fold) {
    FloorFrame frame;
    const auto floor = std::find_if(surfaces.begin(), surfaces.end(), [](const TiedSurface& t) {
        return t.surface->kind == SurfaceKind::Floor && t.measured->measured();
    });
    if (floor == surfaces.end()) return frame;
    const Bounds b = boundsOf(floor->measured->frame);
    frame.length = {b.width()};
    for (std::size_t i = 0; i < std::min(surfaces.size(), fold.poses.size()); ++i) {
        if (!fold.poses[i] || !surfaces[i].measured->measured() || liesLevel(surfaces[i].surface->kind)) continue;
        const SideLine lower = lowerEdge(*surfaces[i].measured);
        const VanPoint left = fold.poses[i]->map(lower.from), right = fold.poses[i]->map(lower.to);
        const bool across = std::abs(right.x - left.x) < std::abs(right.y - left.y);
        const double x = across ? (left.x + right.x) / 2 : std::min(left.x, right.x);
        // To a tenth: no tape knows more, and what is planned hangs on it.
        const auto tenth = [](double mm) { return Mm{std::round(mm * 10) / 10}; };
        const Pose& pose = *fold.poses[i];
        Stand& stand = frame.stands[surfaces[i].surface->id];
        stand = {
            tenth(x - b.low.x), tenth(left.z), tenth(right.z), std::max(0.2, std::round(pose.perY.z * 1e4) / 1e4), {}};
        for (const SectionPoint& p : pose.upwards) // heights are all that is asked for
            stand.section.push_back(
                {0, tenth(pose.perY.z * p.high + pose.inwards.z * p.inside).value, tenth(p.along).value});
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
    // Across the van both ends lie equally far from the rear.
    const bool across = standsAcross(surface.kind);
    const bool runsToRear = surface.hand == Hand::Right && !across;
    const auto known = floor.stands.find(surface.id);
    const std::optional<Stand> stand = known != floor.stands.end() ? std::optional(known->second) : std::nullopt;
    const double start = mmOf(surface.fromRear, stand                                   ? stand->fromRear.value
                                                : surface.kind == SurfaceKind::Bulkhead ? length
                                                                                        : 0);
    const Mm byStandRear = stand ? (runsToRear ? stand->lowRight : stand->lowLeft) : Mm{};
    const Mm byStandFront = stand ? (runsToRear ? stand->lowLeft : stand->lowRight) : Mm{};
    const bool read = surface.heightRear || surface.heightFront;
    const double lowRear = mmOf(surface.heightRear, read ? mmOf(surface.heightFront, 0) : byStandRear.value);
    const double lowFront = mmOf(surface.heightFront, read ? lowRear : byStandFront.value);
    const double edge = std::max(1e-6, lower.to.x - lower.from.x);
    const auto at = [&](double x) {
        const double share = (x - lower.from.x) / edge; // of the lower edge, from its left end
        const double forwards = runsToRear ? 1 - share : share;
        const double low = lowRear + (lowFront - lowRear) * forwards;
        const double plumb = heightOverFloor(across ? start : start + edge * forwards) - low;
        const double foot = lower.from.y + (lower.to.y - lower.from.y) * share;
        const double up = !stand                   ? alongAt(sectionOf(surface, b.high.y - foot), plumb)
                          : stand->section.empty() ? plumb / stand->upright
                                                   : alongAt(stand->section, plumb);
        return Point{x, foot + up};
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
