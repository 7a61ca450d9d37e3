#pragma once

#include "core/vanwork/learned.h"
#include "formats/words.h"

#include <QString>

namespace westrum {

QString entryKindText(EntryKind kind);
QString reasonText(SpoilReason reason);
/// What happened, in one line, without its day: "Ceiling: Row 3, 42 min (35 planned)".
QString entryText(const Job& job, const Plan& plan, const RecordEntry& entry, const Figures& figures);

/// "Your tins covered 2.1 m² in 5 openings, planned 2.5: use 2.1?"
QString offerText(const Job& job, const RateOffer& offer, const Figures& figures);
/// A figure of an offer with its unit.
QString offerFigure(const RateOffer& offer, double value, const Figures& figures);
/// What a planned and real figure is about.
QString plannedText(const Job& job, const PlannedReally& p);
QString plannedFigure(const PlannedReally& p, double value, const Figures& figures);
/// What a spoilt piece asks for, in one sentence. @param day  on which what must be bought can be there
QString consequenceText(const SpoilConsequence& consequence, std::optional<CivilDate> day,
                        const std::optional<SpoilDelay>& delay, const Figures& figures);
/// What emptied containers say of the rest. @param product  its name
QString emptiedText(const EmptiedConsequence& consequence, const std::string& product, const Figures& figures);

} // namespace westrum
