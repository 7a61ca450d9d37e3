#pragma once

#include "core/families/family.h"

namespace westrum {

/// Cloth for cushions and wrapped panels, off the bolt.
Family clothFamily();

} // namespace westrum
