#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/fault.h"
#include "core/geometry/polygon.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// A flat piece of any shape, its curves already flattened. Lengths in mm, about an origin of its own.
struct ShapePiece {
    Ring outline;                          ///< either way round, not closed
    std::vector<Ring> holes;               ///< inside it; small pieces may lie in them
    std::vector<double> rotationsRad{0.0}; ///< those allowed: nap one, felt two, free many
    int count = 1;
    bool offPattern = false; ///< may lie anywhere on the pattern
    int group = -1;          ///< pieces of one group stay side by side (one nap, one lot); -1: of none
    friend bool operator==(const ShapePiece&, const ShapePiece&) = default;
};

struct PlacedShape {
    std::size_t piece{};  ///< place in the list of pieces
    double rotationRad{}; ///< about the piece's origin, counter-clockwise; then
    Point at{};           ///< moved here. On the roll x runs along it, y across it
    friend bool operator==(const PlacedShape&, const PlacedShape&) = default;
};

/// A pattern that repeats: a piece's origin may lie only on its points. 0: no repeat in that direction.
struct PatternRepeat {
    double alongMm{};
    double acrossMm{};
    Point phase{}; ///< where one of the points lies
    friend bool operator==(const PatternRepeat&, const PatternRepeat&) = default;
};

struct ShapesProblem {
    double widthMm{}; ///< of the roll, or of the sheet across
    double gapMm{};   ///< between pieces; none is needed to the roll's edge
    std::vector<ShapePiece> pieces;
    PatternRepeat repeat;
    std::vector<Region> forbidden;  ///< flaws, seams: no piece may touch them; as they lie on the roll
    std::vector<PlacedShape> fixed; ///< cut already or pinned: they stay
    /// Where the stock ends, in mm; none: as long as it takes. Pieces that find no room are left over.
    std::optional<double> lengthMm{};
    friend bool operator==(const ShapesProblem&, const ShapesProblem&) = default;
};

struct ShapesPlan {
    std::vector<PlacedShape> placements; ///< the fixed ones first
    double lengthMm{};                   ///< of the roll that is used
    double lowerBoundMm{};               ///< no plan can be shorter
    bool proven = false;
    std::vector<std::size_t> unplaced; ///< with a given length: pieces that found no room
    friend bool operator==(const ShapesPlan&, const ShapesPlan&) = default;
};

/// Pieces may overlap, or be nearer than the gap, by this much: far less than a blade is wide. It lets pieces that
/// were one piece lie against each other again.
inline constexpr double kShapeToleranceMm = 0.03;

CuttingFaults faultsOf(const ShapesProblem& problem);

/// Puts shapes on a roll so that it is as short as can be found.
///
/// Method: overlap minimisation (Egeblad, Nielsen and Odgaard, 2007; Imamichi, Yagiura and Nagamochi, 2009): the roll
/// is shortened, the pieces overlap, and piece after piece is moved to where its overlaps, measured as the way out of
/// the no-fit regions, weigh least; overlaps that stay gain weight (guided local search) until they dissolve. If they
/// do not, the layout is disturbed and it is tried again. This starts from rows and from several layouts made by
/// chance; a quarter of the attempts goes on, again and again, down to the best (successive halving; Jamieson and
/// Talwalkar, 2016), which is squeezed. Two searches run side by side, each in its own thread and each with the whole
/// effort. Bound: the greatest of area by width, the longest piece, and the pieces that must all cross the roll's
/// middle line. An iteration is one move of one piece.
/// @param problem   without faults
/// @param progress  called with each better plan, from any of the threads, never from two at once
ShapesPlan placeShapes(const ShapesProblem& problem, const Effort& effort,
                       const std::function<void(const ShapesPlan&)>& progress = {});

/// The piece's rings as they lie: outline counter-clockwise, holes clockwise.
Region lying(const ShapePiece& piece, const PlacedShape& placed);

/// No layout can be shorter than this, in mm.
double shortestLengthMm(const ShapesProblem& problem);

/// Overlap of two placed pieces, or their lack of distance where it is below the gap, as the shortest way in mm that
/// parts them; 0: none. For checks and for placing by hand.
double clashMm(const ShapesProblem& problem, const PlacedShape& a, const PlacedShape& b);

} // namespace westrum
