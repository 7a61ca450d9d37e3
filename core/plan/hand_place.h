#pragma once

#include "core/plan/product_cut.h"

namespace westrum {

/// Where a piece comes to lie that is put down by hand.
struct HandPlace {
    bool fits = false; ///< within the stock and clear of what is pinned there
    Point at;          ///< lower left of its bounds
};

/// Puts a piece down near a point. It snaps to its neighbours' edges, a kerf or gap away, and to the trimmed edges of
/// the stock where these are within `reachMm`; only pinned neighbours are in its way, since the others are planned
/// again. On a roll it then slides against what it nearly touches. On a bar it lies behind what is pinned left of it.
HandPlace placeByHand(const CutProblem& problem, const ProductCut& cut, std::size_t item, int piece, double rotationRad,
                      Point wanted, double reachMm);

/// The turns that a piece may be given, in rad; the first is 0.
std::vector<double> turnsOf(const CutProblem& problem, const CutPiece& piece);

} // namespace westrum
