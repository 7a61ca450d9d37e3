#pragma once

#include "core/plan/cut_list.h"
#include "formats/json_walk.h"

namespace westrum {

/// The cut list of one product in the job file; what is wrong goes into the walk's faults.
CutList readCutList(JsonWalk& walk, const Json& entry, const std::string& path, Currency currency);
Json written(const CutList& list);

} // namespace westrum
