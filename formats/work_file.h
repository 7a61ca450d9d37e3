#pragma once

#include "core/schedule/work.h"
#include "core/units/result.h"

#include <QByteArray>
#include <QString>

namespace westrum {

/// Reads a problem of work in time: docs/formats/work.md. An error is a sentence.
Result<WorkProblem, QString> readWork(const QByteArray& bytes);
/// Writes a plan: its finish, its bound, and the parts of every task.
QByteArray writeSchedule(const WorkProblem& problem, const WorkSchedule& schedule);
/// Why a task has no place, as a sentence.
QString unplacedText(const WorkProblem& problem, const WorkUnplaced& unplaced);

} // namespace westrum
