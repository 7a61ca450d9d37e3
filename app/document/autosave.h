#pragma once

#include <QObject>

#include "app/document/job_document.h"

#include <QDateTime>
#include <QLockFile>
#include <QString>
#include <QTimer>

#include <memory>
#include <vector>

namespace westrum {

/// Work that a killed Westrum left behind.
struct Recovered {
    Job job;
    QString originalPath; ///< the file it was opened from; may be empty
    QDateTime saved;
    QString file; ///< the autosave itself
};

/// Keeps a copy of unsaved work in a folder of its own: written shortly after each change, removed when the work is
/// saved or given up. A lock beside the copy tells a killed program's copy from a running one's.
class Autosave : public QObject {
    Q_OBJECT
public:
    /// @param folder  created if needed; normally under the user's data folder
    Autosave(JobDocument& document, const QString& folder, QObject* parent = nullptr);
    ~Autosave() override;

    /// Copies without a living owner, newest first. They stay until discard().
    static std::vector<Recovered> leftBehind(const QString& folder);
    static void discard(const Recovered& recovered);

    /// Writes now if there is unsaved work; removes the copy if there is none.
    void writeNow();

private:
    JobDocument& document_;
    QString file_;
    std::unique_ptr<QLockFile> lock_;
    QTimer timer_;
};

} // namespace westrum
