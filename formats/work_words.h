#pragma once

#include "core/fitting/efforts.h"
#include "core/vanwork/work_plan.h"
#include "formats/words.h"

#include <QString>
#include <QStringList>

namespace westrum {

/// "2 h 30", "45 min".
QString durationText(double minutes);
/// "Sat 13 March", in the reader's language.
QString dayText(const CivilDate& day);
/// "09:30".
QString clockText(int minute);

/// "09:00–16:30 ×2", or "off"; and as it is typed, with hyphens and x; nothing for what is none.
QString workDayText(const WorkDay& day, bool people = true);
std::optional<WorkDay> parseWorkDay(const QString& typed);
/// "2027-03-13", "13.3.2027" or "13/3/2027"; nothing for what is no day.
std::optional<CivilDate> parseDay(const QString& typed);

/// The short word on the strip: "rows", "glue", "cut".
QString workLabel(const WorkItem& item);
/// "Ceiling: row 1 to row 19", "Fetch from Harbour Stores".
QString workTitle(const Job& job, const Plan& plan, const WorkItem& item, const Figures& figures);
/// A step as the plan knows it; null: it is there no more.
const FitStep* stepOf(const Plan& plan, const StepRef& ref);

QString placeText(WorkPlace place);
QString toolText(Tool tool);
/// All of a piece of work, each once.
QStringList toolsText(const WorkItem& item);
QString gateText(WorkGate gate);

/// What a rule says as it stands: "floor first". Both are short enough for a button.
QString ruleText(WorkRule rule, RuleWay way);
/// Why it is so, and what the other school says.
QString ruleReason(WorkRule rule);

/// Why a piece of work has no place in the calendar.
QString faultText(WorkFault fault, const QString& title);
/// Why it cannot lie on that day. @param titles  of what it waits for
QString troubleText(const PinTrouble& trouble, const QString& title, const QString& waitsFor, const CivilDate& day);
/// "rain on ..." or the piece itself: what delays the end most often.
QString delayText(const QString& title, DelayBy by, double share, const Figures& figures);

} // namespace westrum
