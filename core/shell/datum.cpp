#include "core/shell/datum.h"

#include <algorithm>

namespace westrum {
namespace {

bool lies(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::Floor:
    case SurfaceKind::Ceiling:
    case SurfaceKind::ArchTop:
    case SurfaceKind::BenchTop:
    case SurfaceKind::Shelf:
    case SurfaceKind::Headliner: return true;
    default: return false;
    }
}

double mmOf(const MaybeReading& r, double otherwise) { return r ? r->length.value : otherwise; }

} // namespace

std::optional<DatumLine> datumLevelOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                      Mm floorLength) {
    if (lies(surface.kind) || !measured.measured() || (!datum.rear && !datum.front)) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    const double rear = mmOf(datum.rear, mmOf(datum.front, 0)), front = mmOf(datum.front, rear);
    const double length = std::max(floorLength.value, 0.0);
    const auto heightOverFloor = [&](double fromRear) {
        return length > 0 ? rear + (front - rear) * std::clamp(fromRear / length, 0.0, 1.0) : rear;
    };
    const double start = mmOf(surface.fromRear, 0), width = b.width();
    const double lowRear = mmOf(surface.heightRear, mmOf(surface.heightFront, 0));
    const double lowFront = mmOf(surface.heightFront, lowRear);
    // Across the van both ends lie equally far from the rear.
    const bool across = surface.kind == SurfaceKind::Bulkhead || surface.kind == SurfaceKind::RearDoors ||
                        surface.kind == SurfaceKind::RearDoor;
    const double atRearEnd = heightOverFloor(start) - lowRear;
    const double atFrontEnd = heightOverFloor(across ? start : start + width) - lowFront;
    const bool runsToRear = surface.hand == Hand::Right && !across;
    return DatumLine{{b.low.x, b.low.y + (runsToRear ? atFrontEnd : atRearEnd)},
                     {b.high.x, b.low.y + (runsToRear ? atRearEnd : atFrontEnd)}};
}

std::optional<DatumLine> datumOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                 Mm floorLength) {
    const auto line = datumLevelOn(surface, measured, datum, floorLength);
    if (!line) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    if (std::max(line->left.y, line->right.y) < b.low.y || std::min(line->left.y, line->right.y) > b.high.y)
        return std::nullopt;
    return line;
}

} // namespace westrum
