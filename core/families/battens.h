#pragma once

#include "core/families/family.h"

namespace westrum {

/// Lengths on the supports that finishes are fixed to.
Family battenFamily();

} // namespace westrum
