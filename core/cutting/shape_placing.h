#pragma once

#include "core/cutting/shapes.h"

namespace westrum {

/// Puts the pieces of a problem on an endless roll: the method of placeShapes(), whatever length the stock has.
/// @param problem   without faults
/// @param progress  called with each better plan, from any of the threads, never from two at once
ShapesPlan placeOnRoll(const ShapesProblem& problem, const Effort& effort,
                       const std::function<void(const ShapesPlan&)>& progress = {});

} // namespace westrum
