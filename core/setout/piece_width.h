#pragma once

#include "core/geometry/polygon.h"

namespace westrum {

/// A width counts as narrow if it is so over this length, in mm.
inline constexpr double kLeastStretchMm = 20;

/// Least height of the shape over any stretch along x of at least kLeastStretchMm; 0 if it is shorter than that.
double narrowestOf(const Region& shape);

/// Height of the shape at x: how much of the line x lies in it, in mm.
double heightAt(const Region& shape, double x);

} // namespace westrum
