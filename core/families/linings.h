#pragma once

#include "core/families/family.h"

namespace westrum {

/// Linings off the roll: stretch carpet, felt, sheet vinyl, coverings, film.
Family liningFamily();

} // namespace westrum
