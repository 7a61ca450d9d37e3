#pragma once

#include "core/families/family.h"

namespace westrum {

/// Vapour barrier and sound deadening, in lapped strips, taped.
Family barrierFamily();

} // namespace westrum
