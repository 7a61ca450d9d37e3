#pragma once

#include "core/shell/access.h"
#include "core/shell/fold_up.h"
#include "core/shell/section.h"
#include "core/shell/ties.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// The van's datum on an upright surface: a line from its left end to its right one, in its own coordinates.
struct DatumLine {
    Point left, right;
    friend bool operator==(const DatumLine&, const DatumLine&) = default;
};

/// Where a surface stands by what it hangs on, as far as that is not read off it.
struct Stand {
    Mm fromRear;          ///< of the rear end of its lower edge, from the floor's rear; its middle where it runs across
    Mm lowLeft, lowRight; ///< of its lower edge over the floor, at its left and its right end
    double upright = 1;   ///< how much a millimetre up along it rises
    std::vector<SectionPoint> section{}; ///< of a bent one, as it stands; empty: flat
    friend bool operator==(const Stand&, const Stand&) = default;
};
/// The floor that the datum is measured over, and what hangs together with it.
struct FloorFrame {
    Mm length;                             ///< 0 if it is not measured: then the datum is taken as level with the floor
    std::map<std::string, Stand> stands{}; ///< by surface id
    friend bool operator==(const FloorFrame&, const FloorFrame&) = default;
};
FloorFrame floorFrameOf(const std::vector<TiedSurface>& surfaces, const FoldUp& fold);

/// Where the datum crosses a surface. Its height over the floor is taken as straight from the rear of the floor to the
/// front. The surface's rear end - the end of its lower edge - lies `fromRear` of the floor's rear (if not said: where
/// it meets the floor, else a bulkhead at the front and all others at the rear), its lower edge at `heightRear` and
/// `heightFront` over the floor (0 if not said). Heights are plumb: on a surface that leans or is bent the line lies
/// higher up, measured along it. Walls on the right run from front to rear, seen from inside. Nothing for lying
/// surfaces, without a datum, or where the line passes above or below the surface. Source: docs/formulae.md#datum.
std::optional<DatumLine> datumOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                 const FloorFrame& floor);

/// The same level on an upright surface that the line passes above or below: lines that run through are counted from
/// it there too.
std::optional<DatumLine> datumLevelOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                      const FloorFrame& floor);

} // namespace westrum
