#include "app/document/autosave.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QUuid>

#include <algorithm>

namespace westrum {
namespace {

constexpr int kDelayMs = 1000;
const QString kEnding = QStringLiteral(".autosave");

/// The first line holds the original path, the rest is a job file.
QByteArray packed(const Job& job, const QString& path) { return path.toUtf8().toBase64() + '\n' + writeJob(job); }

} // namespace

Autosave::Autosave(JobDocument& document, const QString& folder, QObject* parent)
    : QObject(parent), document_(document) {
    QDir().mkpath(folder);
    file_ = folder + QLatin1Char('/') + QUuid::createUuid().toString(QUuid::WithoutBraces) + kEnding;
    lock_ = std::make_unique<QLockFile>(file_ + QStringLiteral(".lock"));
    lock_->setStaleLockTime(0); // never stale by age, only when its process is gone
    lock_->tryLock();
    timer_.setSingleShot(true);
    timer_.setInterval(kDelayMs);
    connect(&timer_, &QTimer::timeout, this, &Autosave::writeNow);
    const auto soon = [this] { timer_.start(); };
    connect(&document_, &JobDocument::jobChanged, this, soon);
    connect(&document_, &JobDocument::jobReplaced, this, soon);
    connect(&document_, &JobDocument::modifiedChanged, this, soon);
}

Autosave::~Autosave() {
    QFile::remove(file_);
    lock_->unlock();
}

void Autosave::writeNow() {
    if (!document_.isModified()) {
        QFile::remove(file_);
        return;
    }
    // A disk that is full now may not be at the next change; the work itself is still in the window.
    (void)writeFile(packed(document_.job(), document_.path()), file_);
}

std::vector<Recovered> Autosave::leftBehind(const QString& folder) {
    std::vector<Recovered> found;
    const QDir dir(folder);
    for (const QFileInfo& info : dir.entryInfoList({QLatin1Char('*') + kEnding}, QDir::Files, QDir::Time)) {
        QLockFile lock(info.absoluteFilePath() + QStringLiteral(".lock"));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0)) continue; // its owner lives
        lock.unlock();
        QFile file(info.absoluteFilePath());
        if (!file.open(QIODevice::ReadOnly)) continue;
        const QByteArray original = QByteArray::fromBase64(file.readLine(10000).trimmed());
        Result<Job, FileFaults> job = readJob(file.read(kLargestJobFile + 1));
        if (!job) continue;
        // A copy of the same work, made when this one was opened again: the newer tells it all.
        const QString path = QString::fromUtf8(original);
        if (std::any_of(found.begin(), found.end(),
                        [&](const Recovered& r) { return r.originalPath == path && r.job == job.value(); })) {
            file.remove();
            continue;
        }
        found.push_back({std::move(job.value()), path, info.lastModified(), info.absoluteFilePath()});
    }
    return found;
}

void Autosave::discard(const Recovered& recovered) { QFile::remove(recovered.file); }

} // namespace westrum
