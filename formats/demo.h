#pragma once

#include "core/plan/job.h"

namespace westrum {

/// The invented products that a new job starts with.
Catalogue starterCatalogue();

/// Plover, a retired mobile library van: its load floor measured with both diagonals, two wheel arches, a door well.
Job demoJob();

} // namespace westrum
