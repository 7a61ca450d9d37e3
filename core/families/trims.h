#pragma once

#include "core/families/family.h"

namespace westrum {

/// Trim along edges and over joints: no layer.
Family trimFamily();

} // namespace westrum
