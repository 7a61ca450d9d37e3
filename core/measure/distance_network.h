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

/// How an outline that is gone round counter-clockwise turns at a corner.
enum class CornerTurn {
    Unsaid,
    Outwards, ///< to the left: the surface fills less than half of what lies about the corner
    Inwards,  ///< to the right, as at a notch or the inner corner of an L
};

enum class NetworkState {
    Solved,
    Undetermined, ///< `at` is a corner that the readings do not fix: a diagonal to it is missing
    CannotClose,  ///< `at` is a reading longer than the two others of its triangle together
    Crosses,      ///< however the corners are laid, sides cross or a corner turns the other way than is said
};

/// A tape in a van is good to about 2 mm, one standard deviation.
inline constexpr double kTapeMm = 2;

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
    /// Another outline that the readings allow as well, and the first corner that turns the other way in it; empty and
    /// -1 if there is none.
    std::vector<Point> otherwise;
    int turnsEitherWay = -1;
    friend bool operator==(const NetworkFit&, const NetworkFit&) = default;
};

/// Of all ways in which the corners can lie (embeddings.h) the one that the readings bear best, adjusted by least
/// squares over all of them if there are spare ones. Of those that they bear alike the one with the fewest corners
/// inwards, and it is said that there is another.
/// @param corners  >= 3. Readings between the same corners twice are allowed and averaged by the fit.
/// @param turns  what is said of corners; may be shorter than they are
NetworkFit fitNetwork(int corners, const std::vector<CornerDistance>& readings,
                      const std::vector<CornerTurn>& turns = {});

/// Least squares from a start near the solution; corner 0 stays at 0,0 and corner 1 on the x axis. Levenberg-Marquardt,
/// converged below 1e-9 mm. @param shares  if given, receives for each reading the share of an error of its own that
/// stays in its residual (redundancy number, 0 to 1).
std::vector<Point> adjustCorners(std::vector<Point> start, const std::vector<CornerDistance>& readings,
                                 std::vector<double>* shares = nullptr);

/// Sum of the squares of what readings are off the distances between corners, mm2.
double sumOfSquares(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings);

} // namespace westrum
