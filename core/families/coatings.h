#pragma once

#include "core/families/family.h"

namespace westrum {

/// Paint, oil, varnish, waterproof coat.
Family coatingFamily();

} // namespace westrum
