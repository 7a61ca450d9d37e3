#pragma once

#include "core/families/family.h"

namespace westrum {

/// Ceramic tiles, mosaics on mesh, self-adhesive tiles, on a grid.
Family tileFamily();

} // namespace westrum
