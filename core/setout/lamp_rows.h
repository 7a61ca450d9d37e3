#pragma once

#include "core/setout/set_out.h"

#include <span>
#include <vector>

namespace westrum {

/// A lamp, or the first of a row of them, and where it would lie on the middle of a row of the cladding.
struct LampPlace {
    int opening{}; ///< place in Surface::openings
    Point centre;  ///< of the first lamp of the opening
};

/// Puts lamps onto the middles of rows: each lamp keeps the row that is nearest, but lamps that lie on either side of
/// the centre are taken by pairs of rows equally far from it, so that they stand even in what is seen. Along the rows
/// all lamps are shifted together so that they are centred on `centreAlong`, if it is given. Empty without rows.
std::vector<LampPlace> lampsOnRows(const SetOut& setOut, std::span<const OpeningFact> openings,
                                   std::optional<double> centreAlong);

} // namespace westrum
