#pragma once

#include "core/families/family.h"

namespace westrum {

/// What is spread between two layers.
Family adhesiveFamily();

} // namespace westrum
