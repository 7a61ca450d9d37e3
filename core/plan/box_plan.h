#pragma once

#include "core/plan/plan.h"

#include <functional>
#include <string>

namespace westrum {

/// Puts a box into a job, or what was changed about it: its four surfaces take its outside, sides that meet are tied,
/// the floor's notch takes its footprint. Surfaces that are gone, and a box that has none yet, get new ones. Nothing
/// else of the job changes; a box that makes no box is kept as it is typed, its surfaces as they were.
/// @param name  of a new surface, in the reader's language
using BoxSurfaceNamer = std::function<std::string(SurfaceKind, Hand, int)>;
void putArchBox(Job& job, ArchBox box, const BoxSurfaceNamer& name);

/// What is wrong with the boxes of a job: figures that make none, one higher than the wall behind it.
void checkBoxes(const Job& job, SurfaceStage& stage);

} // namespace westrum
