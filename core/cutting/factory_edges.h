#pragma once

#include "core/setout/set_out.h"

#include <vector>

namespace westrum {

/// A rectangle on a sheet, in mm, and which of its sides would save a cut on the sheet's own edge.
struct EdgeWish {
    double x{}, y{}, width{}, height{};
    FactoryEdges wants;
};

/// Moves what lies on a sheet so that sides come to lie on the sheet's own edges, if they can: where a straight cut
/// parts the pieces, the parts change places. Nothing gets larger, and what one cut parts is still parted by one.
/// @param kerf  between parts; pieces lie apart by no less
void toFactoryEdges(std::vector<EdgeWish>& pieces, double length, double width, double kerf);

/// Which of the sides it wants lie on the sheet's edge.
FactoryEdges onEdges(const EdgeWish& piece, double length, double width);

} // namespace westrum
