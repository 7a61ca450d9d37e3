#pragma once

#include "core/cutting/lengths.h"
#include "core/cutting/shapes.h"
#include "core/cutting/sheets.h"

#include <vector>

namespace westrum {

/// From what size on a leftover is worth keeping on the rack.
struct KeepRule {
    double leastLengthMm = 300; ///< of a bar; of the longer side of anything flat
    double leastWidthMm = 150;  ///< of the shorter side of anything flat
};

/// A rectangle that is left of a sheet or a roll, as it lies there.
struct LeftRectangle {
    double x{}, y{}, widthMm{}, heightMm{};
    friend bool operator==(const LeftRectangle&, const LeftRectangle&) = default;
};

/// The leftover of each bar in the plan's order, in mm; 0: none worth keeping.
std::vector<double> leftoversWorthKeeping(const LengthsProblem& problem, const LengthsPlan& plan, const KeepRule& rule);

/// The offcuts of a sheet that come off whole in its order of cuts.
std::vector<LeftRectangle> leftoversWorthKeeping(const SheetsProblem& problem, const CutSheet& sheet,
                                                 const KeepRule& rule);

/// Free rectangles within the used length of a roll, the largest first, not overlapping; to within 10 mm, never larger
/// than what is really free. What lies beyond the used length stays on the roll and is not among them.
std::vector<LeftRectangle> leftoversWorthKeeping(const ShapesProblem& problem, const ShapesPlan& plan,
                                                 const KeepRule& rule);

/// The largest rectangle along the axes that lies wholly in a region, to within 10 mm, from the lower left of its
/// bounds; of no size if there is none that is worth keeping.
LeftRectangle largestRectangle(const Region& region, const KeepRule& rule);

} // namespace westrum
