#pragma once

#include "core/vanwork/work_plan.h"
#include "formats/words.h"

#include <QByteArray>

namespace westrum {

/// The plan of the work as a calendar (RFC 5545), an entry for each stretch of work; opens in any calendar.
/// @param now  when it is written
QByteArray workAsCalendar(const Job& job, const Plan& plan, const WorkQuestion& question, const WorkPlan& work,
                          const Figures& figures);
/// The same as a list, a stretch a line: day, from, to, what, where, hands, what is waited for after it.
QByteArray workAsCsv(const Job& job, const Plan& plan, const WorkQuestion& question, const WorkPlan& work,
                     const Figures& figures);

} // namespace westrum
