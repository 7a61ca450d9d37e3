#pragma once

#include "core/shell/access.h"
#include "core/shell/body_check.h"
#include "core/shell/surface.h"
#include "formats/json_walk.h"

namespace westrum {

/// A surface of the job file without its finish and log; what is wrong goes into the walk's faults.
Surface readSurface(JsonWalk& walk, const Json& entry, const std::string& path, std::set<std::string>& ids);
Json written(const Surface& surface);

Access readAccess(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const Access& access);

BodyBefore readBefore(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const BodyBefore& before);

/// Part of the van, as "area" and "areaName".
void readArea(JsonWalk& walk, const Json& entry, const std::string& path, Area& into);
void putArea(Json& out, const Area& area);

} // namespace westrum
