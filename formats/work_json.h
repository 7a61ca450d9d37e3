#pragma once

#include "core/record/fit_log.h"
#include "formats/json_walk.h"

#include <map>

namespace westrum {

// When and how the work is done, in the job file: docs/formats/job.md.

WorkSettings readWork(JsonWalk& walk, const Json& entry, const std::string& path);
/// Empty for settings that are all as usual.
Json written(const WorkSettings& work);

std::map<std::string, WorkedTime> readWorkedTimes(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const std::map<std::string, WorkedTime>& times);

/// What happened on a surface.
FitLog readFitLog(JsonWalk& walk, const Json& entry, const std::string& path, Currency currency);
Json written(const FitLog& log);

} // namespace westrum
