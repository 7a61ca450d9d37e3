#pragma once

#include "core/catalogue/product.h"
#include "core/takeoff/needs.h"

#include <span>
#include <vector>

namespace westrum {

/// How every layer of a build-up is held, one way each: as its rules say; a panel that a lining wraps, by the clips of
/// the wrapping; what lies directly on a bed of adhesive, by that; else by its family's usual way.
/// @param products  from the metal inwards; null for one that the catalogue lacks or whose fields are not sound
/// @param rules     of each layer
std::vector<Holding> holdingsOf(std::span<const Product* const> products, std::span<const FieldValues* const> rules);

} // namespace westrum
