#pragma once

#include "core/families/family.h"

namespace westrum {

/// Foam under upholstery, cut from sheets.
Family foamFamily();

} // namespace westrum
