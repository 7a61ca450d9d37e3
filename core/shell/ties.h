#pragma once

#include "core/shell/surface.h"

#include <vector>

namespace westrum {

/// How exact a length along a side is, one standard deviation: a tape on the flat, a tape along a curve.
/// Source: docs/formulae.md#measuring-error.
inline constexpr double kTapeErrorMm = 2;
inline constexpr double kCurveTapeErrorMm = 5;

/// A surface with what was measured of it.
struct TiedSurface {
    const Surface* surface{};
    const MeasuredOutline* measured{};
};

/// Holds the sides that surfaces share against each other: remarks where they differ by more than three times the
/// measuring error of both, and where an edge meets a surface that is not there. Each shared side is told once, at the
/// surface that comes first. Places carry their surface.
std::vector<Remark> tieRemarks(const std::vector<TiedSurface>& surfaces);

/// Ties both ways: side `side` of `a` meets side `otherSide` of `b`. What either met before meets nothing any more.
void meet(std::vector<Surface>& surfaces, const std::string& a, int side, const std::string& b, int otherSide);
/// Unties one side and its partner.
void part(std::vector<Surface>& surfaces, const std::string& id, int side);

/// The letter by which a side is called: a, b, c ...
std::string edgeName(int side);

/// Sides that a surface's form has, whether measured or not.
int sidesOf(const Measurement& measurement);

} // namespace westrum
