#pragma once

#include "app/document/work_worker.h"
#include "core/plan/plan.h"
#include "formats/words.h"

#include <QString>

namespace westrum {

/// Days on the sheet: the next on which work is planned.
inline constexpr int kDaysOnPaper = 3;

/// The work of the next days for paper: for each the pieces of work with their times, hands and tools, the steps with
/// their pieces and cautions, and boxes to tick. A PDF on the paper chosen; an empty text, or why it could not be
/// written.
QString printWork(const QString& path, const Job& job, const Plan& plan, const WorkAnswer& work,
                  const WorkClock::Moment& now, const Figures& figures);

} // namespace westrum
