#pragma once

#include "core/geometry/polygon.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// One of the faces that adhesive is spread on.
struct GluedFace {
    double rateKgPerM2{}; ///< of one coat on a smooth, closed face, as its label says
    int coats = 1;
    double porosity = 1; ///< 1: closed, as metal; more for ply, felt and the like
};

/// Wet adhesive for an area: the sum over its faces, and what is lost on odd shapes.
/// @param waste  as a share, >= 0
/// 4.8 m2, 150 and 220 g/m2: 1.776 kg. Source: docs/formulae.md#bonding
Kg adhesiveFor(M2 area, std::span<const GluedFace> faces, double waste);

/// Litres of a coating for an area: the sum over its coats, and what stays in tray and roller.
/// @param coverage  m2 that a litre covers, of each coat, > 0  @param waste  as a share, >= 0
/// 24.5 m2, 9 m2/l on the bare face, then twice 12, 5 % lost: 7.146 l. Source: docs/formulae.md#layers
double litresFor(M2 area, std::span<const double> coverage, double waste);

/// How fast a person works, and how long the adhesive waits.
struct BondingPace {
    double spreadM2PerMinute{};               ///< of one coat on one face, > 0
    std::optional<double> closeM2PerMinute{}; ///< laid and pressed; nothing: it takes no time worth telling
    double openMinutes{};                     ///< from spreading to closing at most
    double flashMinutes{};                    ///< it must dry before it is closed
};

/// A surface in strips that are coated and closed one after the other.
struct Bays {
    M2 largest; ///< that can be coated and closed within the open time
    int count{};
    M2 each;
    double minutes{}; ///< for each, drying included
    friend bool operator==(const Bays&, const Bays&) = default;
};

/// The fewest bays of one size. Coating all faces of a bay and closing it must be done in the open time less the time
/// that it dries. Nothing if it must dry longer than it stays open.
/// @param coats  over all faces together, >= 1
/// 4.8 m2, two coats at 0.6 m2/min, closed at 1.5 m2/min, 15 min open, 5 of them drying: 2 bays of 2.4 m2.
/// Source: docs/formulae.md#bonding
std::optional<Bays> baysFor(M2 area, int coats, const BondingPace& pace);

/// A region parted by straight lines into so many strips of equal area, from its lower end on: along x, or along y.
/// A strip of a region with notches may be in parts. @pre count >= 1
std::vector<Region> equalStrips(const Region& region, int count, bool alongX);

} // namespace westrum
