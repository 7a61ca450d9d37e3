#pragma once

#include "core/families/family.h"

namespace westrum {

/// Strips of a roll laid beside each other: whether their lap leaves anything of its width; an error if it does not.
bool lapTooWide(const Product& product, Mm lap, Mm width, std::vector<Remark>& remarks);

/// What follows for a layer of such strips, in whole rolls.
void reckonStrips(const Product& product, const Underlay& roll, LayerPlan& layer);

} // namespace westrum
