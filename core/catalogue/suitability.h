#pragma once

#include "core/catalogue/product.h"
#include "core/shell/surface.h"

#include <array>
#include <string_view>

namespace westrum {

/// What a finish is asked to stand.
enum class Strain { Wet, Heat, Wear, Curves, Cleaning };
inline constexpr int kStrains = 5;

/// How well, from 0 (not at all) to 3 (very well), by Strain. Typical of the family, not of one make: the product's own
/// sheet goes before it. Source: docs/formulae.md#suitability
using Suitability = std::array<int, kStrains>;
Suitability suitabilityOf(const Product& product);

/// What a surface asks for at least, by what it is and where: 0 where it asks for nothing.
/// @param curved  bent so that a stiff sheet would have to bend
Suitability demandOf(const Surface& surface, bool curved);

/// Strains that a finish stands less than the surface asks for.
int shortOf(const Suitability& has, const Suitability& asked);

} // namespace westrum
