#pragma once

#include "core/geometry/polygon.h"
#include "core/shell/surface.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// Where a batten crosses a rib, and how far the rib's face stands into the room there, from any one plane.
struct CrookedCrossing {
    Point at;
    int line = 0; ///< which batten
    double height{};
};

/// Where the backs of battens come to lie, and what is put below them. One entry for each crossing.
struct PackedFaces {
    std::vector<double> face;   ///< from the same plane as the heights
    std::vector<double> packer; ///< face less height, >= 0
    double sum{};
    [[nodiscard]] double lost() const { return face.empty() ? 0 : sum / static_cast<double>(face.size()); }
};
/// Packers whose sum is least: one plane, a straight line for each batten, or one level. A linear programme, exact.
/// Source: docs/formulae.md#packing. Three ribs, two battens, heights 2 0 5.5 and 1 3 0, level: 21.5 in all
PackedFaces packedFaces(PackTo to, std::span<const CrookedCrossing> crossings);

/// Packers laid on each other.
struct PackerStack {
    std::vector<Mm> pieces; ///< the thicker first; empty: none
    Mm thickness;
    friend bool operator==(const PackerStack&, const PackerStack&) = default;
};
/// The stack nearest to a thickness; of two equally near the thinner, of two as thick the one of fewer pieces. @param
/// stock  thicknesses at hand  @param most pieces on each other
PackerStack packerStack(Mm wanted, std::span<const Mm> stock, int most = 2);

} // namespace westrum
