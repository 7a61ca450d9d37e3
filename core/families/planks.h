#pragma once

#include "core/families/family.h"

namespace westrum {

/// Click and laminate planks, floating.
Family plankFamily();

} // namespace westrum
