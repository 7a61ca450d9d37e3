#pragma once

#include "core/catalogue/stock.h"
#include "core/setout/set_out.h"

namespace westrum {

/// Where the pattern lies on a set-out so that it goes on over its seams: all its pieces share it, and each must come
/// out of the roll's usable width at its own place on the pattern. `patternAt` is moved across the pile by the least
/// that serves all, else the most of them; those it cannot serve are told. Pieces that may lie anywhere on the pattern,
/// or have a pile of their own, are left out.
/// @pre pieces, pile and patternAt are set
/// @param meets  whether its pieces meet, so that a miss shows
void alignPattern(const RollGoods& roll, bool meets, SetOut& setOut);

} // namespace westrum
