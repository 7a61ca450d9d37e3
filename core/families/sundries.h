#pragma once

#include "core/families/family.h"

namespace westrum {

/// Fixings, tapes and what is used up: no layer.
Family sundryFamily();

} // namespace westrum
