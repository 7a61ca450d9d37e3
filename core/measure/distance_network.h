#pragma once

#include "core/geometry/polygon.h"

#include <optional>
#include <vector>

namespace westrum {

/// A tape reading between two corners of a closed outline, corners numbered counter-clockwise from 0.
struct CornerDistance {
    int from{};
    int to{};
    double mm{}; ///< > 0
    friend bool operator==(const CornerDistance&, const CornerDistance&) = default;
};

enum class NetworkState {
    Solved,
    Undetermined, ///< `at` is a corner that the readings do not fix: a diagonal to it is missing
    CannotClose,  ///< `at` is a reading longer than the two others of its triangle together
};

/// Corners from sides and diagonals, all readings equally weighted.
struct NetworkFit {
    NetworkState state{};
    int at = -1;
    std::vector<Point> corners; ///< corner 0 at 0,0, corner 1 on the +x axis, counter-clockwise
    int spareReadings = 0;      ///< more than are needed: without any, nothing is checked
    /// By reading: reading minus adjusted distance, mm.
    std::vector<double> residual;
    /// By reading: reading minus what all others imply, mm; nothing where no other reading checks it.
    std::vector<std::optional<double>> misclosure;
    /// The reading whose error would explain the residuals best, and whether another would do nearly as well. With one
    /// spare reading all do: something is wrong, but not what.
    int likeliest = -1;
    bool oneOfSeveral = false;
    friend bool operator==(const NetworkFit&, const NetworkFit&) = default;
};

/// Triangles first (each corner from two that stand already, on the side that the order round the outline says, so
/// diagonals must lie inside the outline), then least squares over all readings if there are spare ones.
/// @param corners  >= 3. Readings between the same corners twice are allowed and averaged by the fit.
NetworkFit fitNetwork(int corners, const std::vector<CornerDistance>& readings);

/// Least squares from a start near the solution; corner 0 stays at 0,0 and corner 1 on the x axis. Levenberg-Marquardt,
/// converged below 1e-9 mm. @param shares  if given, receives for each reading the share of an error of its own that
/// stays in its residual (redundancy number, 0 to 1).
std::vector<Point> adjustCorners(std::vector<Point> start, const std::vector<CornerDistance>& readings,
                                 std::vector<double>* shares = nullptr);

} // namespace westrum
