#pragma once

#include <cmath>
#include <cstdint>

namespace westrum {

/// The slack with which counts are rounded: 26.0000000001 rows are 26 rows, not 27.
inline constexpr double kCountSlack = 1e-9;

/// Least whole number >= x, within the slack. x must be finite and fit an int64.
inline std::int64_t roundUp(double x) { return static_cast<std::int64_t>(std::ceil(x - kCountSlack)); }

/// Greatest whole number <= x, within the slack. x must be finite and fit an int64.
inline std::int64_t roundDown(double x) { return static_cast<std::int64_t>(std::floor(x + kCountSlack)); }

} // namespace westrum
