#pragma once

#include "core/cutting/no_fit.h"
#include "core/cutting/shapes.h"

#include <map>
#include <memory>
#include <mutex>
#include <unordered_map>

namespace westrum {

/// A piece as it lies in one of its rotations, its origin at 0, 0.
struct ShapeForm {
    std::size_t piece{};
    double rotationRad{};
    Bounds bounds;               ///< of the piece itself
    Region region;               ///< its rings
    std::vector<GridRing> parts; ///< convex, of the piece grown by half the gap, less the tolerance; once asked for
    double areaMm2{};
};

/// The forms of all pieces of a problem and their no-fit regions, each worked out when it is first asked for.
/// May be asked from several threads.
class ShapeForms {
public:
    explicit ShapeForms(const ShapesProblem& problem);

    /// The forms of a piece, in the order of its rotations. Left out are those that do not fit across the roll, and
    /// those in which it looks as in one before: a strip turned by half.
    [[nodiscard]] const std::vector<int>& formsOf(std::size_t piece) const { return ofPiece_[piece]; }
    [[nodiscard]] const ShapeForm& form(int index) const { return *forms_[std::size_t(index)]; }
    [[nodiscard]] int count() const { return int(forms_.size()); }
    /// The form of a forbidden region, in place.
    [[nodiscard]] int obstacle(std::size_t index) const { return obstacles_[index]; }
    int formFor(const PlacedShape& placed);

    /// The no-fit region of two forms as it is kept: pairs that are turned alike share one.
    struct Meeting {
        const NoFit* fit = nullptr;
        Turn turn; ///< of b's origin, measured from a's, into the region
    };
    Meeting meeting(int a, int b);
    /// The pair whose region stands for that of a and b; a <= b.
    [[nodiscard]] std::pair<int, int> sharedBy(int a, int b) const;

private:
    const NoFit& noFit(int a, int b);
    int add(std::size_t piece, double rotationRad, Region region);
    const std::vector<GridRing>& partsOf(int form);

    const ShapesProblem& problem_;
    std::vector<std::unique_ptr<ShapeForm>> forms_;
    std::vector<std::vector<int>> ofPiece_;
    std::map<std::pair<std::size_t, double>, int> others_; // of fixed pieces in rotations that are not allowed now
    std::vector<int> obstacles_;
    std::mutex mutex_;
    std::unordered_map<std::uint64_t, std::unique_ptr<NoFit>> noFits_;
};

} // namespace westrum
