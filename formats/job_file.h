#pragma once

#include "core/plan/job.h"
#include "core/units/result.h"

#include <QByteArray>
#include <QString>

#include <optional>
#include <string>
#include <vector>

namespace westrum {

enum class FileFaultKind {
    CannotOpen, ///< {detail}: what the system said
    TooLarge,   ///< over kLargestJobFile
    Empty,
    NotJson,        ///< {detail}: where it breaks off
    TooDeep,        ///< nested deeper than any job
    NotAJob,        ///< JSON, but not ours
    UnknownVersion, ///< {detail}: the version found
    Missing,        ///< {path} is not there
    WrongType,      ///< {path} is not a {detail}
    OutOfRange,     ///< {path} is beyond what is possible
    UnknownWord,    ///< {path}: {detail} is none of the words possible there
    Duplicate,      ///< {path}: the id {detail} occurs twice
    TooMany,        ///< {path} has more entries than a job can hold
    CannotWrite,    ///< {detail}
};

/// One thing wrong with a file. A reader reports all it can find, up to a limit.
struct FileFault {
    FileFaultKind kind{};
    std::string path; ///< as in "surfaces[0].readings.AB"
    std::string detail;
    friend bool operator==(const FileFault&, const FileFault&) = default;
};
using FileFaults = std::vector<FileFault>;

inline constexpr qint64 kLargestJobFile = 16 * 1024 * 1024;
inline constexpr int kJobFileVersion = 5;

/// Reads the job file format of docs/formats/job.md. Hostile input is answered with faults, never with a crash: size,
/// nesting, counts, types, ranges and ids are checked before the core sees anything. What is wrong in a person's sense
/// (a notch outside the floor) is no fault: it loads and is remarked on.
Result<Job, FileFaults> readJob(const QByteArray& bytes);
Result<Job, FileFaults> readJobFile(const QString& path);

/// The job as UTF-8 JSON, keys in fixed order: the same job is the same bytes.
QByteArray writeJob(const Job& job);

/// Writes a whole file atomically: aside, flushed to disk, renamed over what was there. Says so if a single byte could
/// not be written; then what was there is untouched. Only ordinary files are written over.
std::optional<FileFault> writeFile(const QByteArray& bytes, const QString& path);

/// Saves atomically: written aside, flushed to disk, renamed over the old file. The file that was there before, if it
/// can be read as a job, is kept beside it as `path~`. Nothing is returned when all went well.
std::optional<FileFault> saveJobFile(const Job& job, const QString& path);

} // namespace westrum
