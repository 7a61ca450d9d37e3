#pragma once

#include "core/families/family.h"

namespace westrum {

/// Panels of ply, board and solid timber, cut from sheets.
Family sheetFamily();

} // namespace westrum
