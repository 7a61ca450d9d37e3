#pragma once

#include "core/families/family.h"

namespace westrum {

/// Tongue-and-groove boards, in rows over battens.
Family boardFamily();

} // namespace westrum
