#include "formats/demo.h"

#include "core/units/print.h"
#include "formats/job_file.h"

#include <QFile>

#include <cassert>

// Q_INIT_RESOURCE must be called outside any namespace: the library is static.
static void initStarterData() { Q_INIT_RESOURCE(starter); }

namespace westrum {
namespace {

Job fromResource(const char* path) {
    initStarterData();
    Result<Job, FileFaults> job = readJobFile(QString::fromLatin1(path));
    assert(job.has_value()); // tests/formats reads both files
    return job.has_value() ? std::move(job.value()) : Job{};
}

} // namespace

Catalogue starterCatalogue() { return fromResource(":/starter/starter.westrum").catalogue; }

Job demoJob() { return fromResource(":/starter/plover.westrum"); }

} // namespace westrum
