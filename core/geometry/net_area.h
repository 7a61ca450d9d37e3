#pragma once

#include "core/geometry/polygon.h"

#include <vector>

namespace westrum {

/// A surface less its openings, and how much of each of its edges is left.
struct NetArea {
    Region net;
    M2 grossArea;
    M2 netArea;
    std::vector<Mm> edgeLength; ///< whole length of each outline edge; edge k runs from corner k to k + 1
    std::vector<Mm> edgeLeft;   ///< what of it still bounds the net area (an opening over the edge takes that away)
    Mm openingEdge;             ///< boundary of the net area that is no outline edge: the trim round the openings
};

/// Openings that overlap each other count once; what of them lies outside the outline counts nothing.
/// @param outline   not crossing itself, either way round
/// @param openings  rings, either way round
NetArea netAreaOf(const Ring& outline, const std::vector<Ring>& openings);

} // namespace westrum
