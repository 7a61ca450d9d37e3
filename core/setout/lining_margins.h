#pragma once

#include "core/setout/set_out.h"

#include <functional>

namespace westrum {

/// What is left beyond a stretch of the outline, and whether it is turned along it.
struct Beyond {
    double by = 0;
    bool fold = false;
};
using MarginOf = std::function<Beyond(Point from, Point to)>;

/// A region with what is left beyond each stretch of its outer edge. Folds, and the snips that corners need to be
/// turned, are added to `lines`.
Region withMargins(const Region& region, const MarginOf& by, Piece& lines);

/// Right of a ring that runs counter-clockwise.
inline Point outwards(Point along) { return {along.y, -along.x}; }

} // namespace westrum
