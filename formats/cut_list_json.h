#pragma once

#include "core/plan/cut_list.h"
#include "formats/json_walk.h"

namespace westrum {

/// The cut list of one product in the job file; what is wrong goes into the walk's faults.
CutList readCutList(JsonWalk& walk, const Json& entry, const std::string& path, Currency currency);
Json written(const CutList& list);

/// An outline with its holes under "shape": rings of points, in mm; empty if there is none.
Region readShape(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const std::vector<Ring>& lines);

} // namespace westrum
