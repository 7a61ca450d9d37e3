#pragma once

#include "app/document/commands.h"
#include "core/record/record.h"
#include "core/vanwork/learned.h"
#include "core/vanwork/work_net.h"

namespace westrum {

// What happened, written down, corrected, learned from; one undo step each.

/// Entries get ids of their own.
Command addEntries(JobDocument&, std::vector<RecordEntry> entries);
Command removeEntry(JobDocument&, std::int64_t id);
/// In place of the entry with its id.
Command correctEntry(JobDocument&, RecordEntry entry);

/// A piece is spoilt: written down, and no longer ticked as cut if it was.
Command spoilPiece(JobDocument&, RecordEntry entry);

/// A rate is taken for this job, or not to be offered again; or all that were refused are offered anew.
Command takeRate(JobDocument&, const RateOffer& offer);
/// What another job has of settings of work, catalogue and spoils; `name` is what the menu says.
Command changeRates(JobDocument&, const QString& name, const Job& with);
Command refuseRate(JobDocument&, const RateOffer& offer);
Command offerRefused(JobDocument&);

/// Steps that were done together within a time: each with its share of it.
std::vector<RecordEntry> stepEntries(const JobDocument&, const std::vector<StepRef>& steps, const WorkedTime& when);
/// An entry about now.
RecordEntry entryNow(const JobDocument&, EntryKind kind);

} // namespace westrum
