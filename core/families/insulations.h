#pragma once

#include "core/families/family.h"

namespace westrum {

/// Batts between supports or over them.
Family insulationFamily();

} // namespace westrum
