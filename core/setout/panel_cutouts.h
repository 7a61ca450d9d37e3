#pragma once

#include "core/setout/set_out.h"

#include <vector>

namespace westrum {

/// What is sawn out of a panel serves again as the largest rectangle in it, or is kept as its opening's lid.
/// @param hole  clockwise, as holes are
void addCutout(const SetOutRequest& request, const Ring& hole, int piece, Mm kerf, Mm gap, SetOut& out);

/// Sides of a panel along sides of the surface that want the sheet's own edge: straight ones, level or upright.
/// @param b  bounds of the panel  @param gap  between the surface's outline and its panels
FactoryEdges wantedEdges(const SetOutRequest& request, const Bounds& b, Mm gap);

/// A lid is as large as the blade leaves it, in one piece, and more of a lid than of a hole; else it is told.
void checkLids(const SetOutRequest& request, Mm kerf, SetOut& out);

/// A panel that does not lie in the car, where panels are parted for it, is told.
void checkLoad(const SetOutRequest& request, const Piece& panel, int index, std::vector<Remark>& remarks);

} // namespace westrum
