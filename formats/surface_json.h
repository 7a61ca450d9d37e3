#pragma once

#include "core/shell/access.h"
#include "core/shell/surface.h"
#include "formats/json_walk.h"

namespace westrum {

/// A surface of the job file without its finish and log; what is wrong goes into the walk's faults.
Surface readSurface(JsonWalk& walk, const Json& entry, const std::string& path, std::set<std::string>& ids);
Json written(const Surface& surface);

Access readAccess(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const Access& access);

} // namespace westrum
