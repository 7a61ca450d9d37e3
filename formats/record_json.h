#pragma once

#include "core/record/record.h"
#include "formats/json_walk.h"

namespace westrum {

/// What happened, in the job file: docs/formats/job.md.
Record readRecord(JsonWalk& walk, const Json& root, const char* key);
Json written(const Record& record);

inline constexpr std::size_t kMostRecordEntries = 200000;

} // namespace westrum
