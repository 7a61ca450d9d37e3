#pragma once

#include "core/shell/access.h"
#include "core/shell/surface.h"

#include <optional>

namespace westrum {

/// The van's datum on an upright surface: a line from its left end to its right one, in its own coordinates.
struct DatumLine {
    Point left, right;
    friend bool operator==(const DatumLine&, const DatumLine&) = default;
};

/// Where the datum crosses a surface. Its height over the floor is taken as straight from the rear of the floor to the
/// front; the surface lies `fromRear` of the floor's rear end (0 if not said) with its lower edge at `heightRear` and
/// `heightFront` over the floor (0 if not said). Walls on the right run from front to rear, seen from inside. Nothing
/// for lying surfaces, without a datum, or where the line passes above or below the surface.
/// @param floorLength  of the van's floor; 0 if it is not measured: then the datum is taken as level with the floor
std::optional<DatumLine> datumOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                 Mm floorLength);

/// The same level on an upright surface that the line passes above or below: lines that run through are counted from
/// it there too.
std::optional<DatumLine> datumLevelOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                      Mm floorLength);

} // namespace westrum
