#pragma once

#include "core/families/family.h"

namespace westrum {

/// Underlay of a floating floor, in strips off a roll.
Family underlayFamily();

} // namespace westrum
