#pragma once

#include "core/plan/job.h"
#include "core/record/workshop.h"
#include "core/vanwork/work_clock.h"

#include <string_view>

namespace westrum {

/// The invented products that a new job starts with.
Catalogue starterCatalogue();

/// Plover, a retired mobile library van: its load floor measured with both diagonals, two wheel arches, a door well.
Job demoJob();
/// The same some weekends in: what was done by then is ticked with its times, and its record holds what happened.
Job demoJobUnderWay();
/// The morning on which that is looked at.
WorkClock::Moment demoUnderWayNow();
/// A small job that cuts from what Plover left on the rack.
Job demoSecondJob();
/// The book that the examples have: a rack, a person, an earlier job, Plover's body.
WorkshopBook exampleBook();
/// Begins the id, in the book, of every example: they keep out of the person's own book.
inline constexpr std::string_view kExampleBookId = "example-";

/// The moment from which the example is looked at: the morning of its first day of work.
WorkClock::Moment demoNow();

} // namespace westrum
