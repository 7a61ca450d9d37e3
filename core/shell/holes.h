#pragma once

#include "core/shell/ties.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// An opening of a surface, by their places.
struct HoleSide {
    std::size_t surface{}, opening{};
    friend bool operator==(const HoleSide&, const HoleSide&) = default;
};
/// One hole, and the openings of different surfaces that are it: a door in a partition, seen from either side.
struct Hole {
    std::string name; ///< Opening::hole
    std::vector<HoleSide> sides;
    friend bool operator==(const Hole&, const Hole&) = default;
};

/// Which opening a reading's key is of, "o2.width" of the third; nothing of other keys.
std::optional<std::size_t> openingOfKey(std::string_view key);

/// All holes that at least two measured surfaces have, in the order of the surfaces.
std::vector<Hole> holesOf(const std::vector<TiedSurface>& surfaces);

/// The middle of a hole on its surface; nothing where it is not placed, or of a row.
std::optional<Point> middleOfHole(const std::vector<TiedSurface>& surfaces, const HoleSide& side);

/// Holds the sides of each hole against each other, wherever their surfaces stand: the sizes that were read, and where
/// two surfaces have two holes in common, how far these lie apart. A remark where they differ by more than three times
/// the error of both. Places carry their surface.
std::vector<Remark> holeRemarks(const std::vector<TiedSurface>& surfaces);

} // namespace westrum
