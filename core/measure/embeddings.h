#pragma once

#include "core/measure/distance_network.h"

#include <vector>

namespace westrum {

/// One way in which all corners can lie so that the readings are kept.
struct Embedding {
    std::vector<Point>
        corners; ///< corner 0 at 0,0, corner 1 on the +x axis, counter-clockwise, no side crossing another
    bool diagonalsInside =
        true; ///< no reading runs outside the outline, where furniture or metal would stand in its way
};

struct Embeddings {
    NetworkState state = NetworkState::Solved;
    int at = -1;                  ///< as in NetworkFit
    std::vector<Embedding> found; ///< none of them adjusted yet; those whose diagonals lie inside first
};

/// Every corner from two that stand already, on either side of the line between them: a search over all choices, those
/// kept that lie best with the further readings (at most 400 at a time). Sides that cross, and corners that turn the
/// other way than is said, end a choice.
/// @param turns  by corner; may be shorter than the corners
Embeddings embeddingsOf(int corners, const std::vector<CornerDistance>& readings, const std::vector<CornerTurn>& turns);

/// Whether the straight line between two corners lies within the outline, its edge included (to 5 mm).
bool liesInside(const std::vector<Point>& corners, int from, int to);

} // namespace westrum
