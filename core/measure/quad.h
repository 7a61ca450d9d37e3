#pragma once

#include "core/geometry/polygon.h"
#include "core/units/quantity.h"

#include <array>
#include <optional>

namespace westrum {

/// The readings of a four-sided outline: corners A, B, C, D going round counter-clockwise, sides AB, BC, CD, DA and
/// diagonals AC, BD. On a floor A is the rear right corner, B the front right one, seen from above.
enum class QuadReading { AB, BC, CD, DA, AC, BD };
inline constexpr int kQuadReadings = 6;
/// Which corners (A = 0 .. D = 3) a reading joins.
inline constexpr std::array<std::array<int, 2>, kQuadReadings> kQuadEnds{
    {{0, 1}, {1, 2}, {2, 3}, {3, 0}, {0, 2}, {1, 3}}};

/// All four sides and one or both diagonals; at least one diagonal must be there. Each > 0.
struct QuadReadings {
    std::array<std::optional<double>, kQuadReadings> mm{};
    [[nodiscard]] double operator[](QuadReading r) const { return *mm[static_cast<std::size_t>(r)]; }
    [[nodiscard]] bool has(QuadReading r) const { return mm[static_cast<std::size_t>(r)].has_value(); }
};

/// A triangle of readings that cannot close: `longest` is more than the two others together.
struct OpenTriangle {
    QuadReading longest{};
    std::array<QuadReading, 2> others{};
    double gap{}; ///< mm by which the others fall short
    friend bool operator==(const OpenTriangle&, const OpenTriangle&) = default;
};

struct QuadFit {
    std::optional<OpenTriangle> impossible; ///< if set, nothing below is
    std::array<Point, 4> corners{};         ///< A at 0,0, B on the +x axis, counter-clockwise
    M2 area;
    /// Reading minus adjusted distance, mm; only with both diagonals.
    std::array<std::optional<double>, kQuadReadings> residual{};
    /// Reading minus what the other five readings imply, mm; only with both diagonals, and not where those five cannot
    /// close. The residual of a wrong diagonal is a quarter of its error, of a wrong side less than a fifth; this is
    /// all of it.
    std::array<std::optional<double>, kQuadReadings> misclosure{};
    double largestResidual{};
    friend bool operator==(const QuadFit&, const QuadFit&) = default;
};

/// Corners from four sides and one diagonal by two triangles; with both diagonals by least squares over all six
/// readings, equally weighted (Levenberg-Marquardt, converged below 1e-9 mm).
QuadFit fitQuad(const QuadReadings& readings);

} // namespace westrum
