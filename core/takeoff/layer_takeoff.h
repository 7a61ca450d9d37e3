#pragma once

#include "core/catalogue/layers.h"
#include "core/shell/shape.h"
#include "core/takeoff/bonding.h"
#include "core/takeoff/floor_takeoff.h"

#include <string_view>
#include <vector>

namespace westrum {

/// What a layer takes that is not set out piece by piece.
struct LayerTakeoff {
    UnderlayTakeoff strips;       ///< of underlay and barrier
    double amount{};              ///< litres of a coating, kg of an adhesive, m2 of insulation
    std::vector<Region> boards{}; ///< pieces of one layer of insulation, each within its bay
    int boardLayers = 1;          ///< layers of them
    double loose{};               ///< m2 of the amount that is pressed in, in pieces as they come
    std::vector<Mm> lengths;      ///< of battens, one for each stretch that lies on the surface
    /// Where each of them lies.
    struct Stretch {
        bool along{}; ///< runs along x
        Region shape;
        friend bool operator==(const Stretch&, const Stretch&) = default;
    };
    std::vector<Stretch> stretches{};
    M2 area;                  ///< covered
    std::optional<Bays> bays; ///< of an adhesive; nothing if it must dry longer than it stays open
    friend bool operator==(const LayerTakeoff&, const LayerTakeoff&) = default;
};

/// Insulation by its area alone.
LayerTakeoff takeOffInsulation(const SurfaceShape& shape, bool between);
/// The same laid out: bay by bay, in pieces no larger than a batt, whole ones from its left or its right end, the batts
/// lying along or across: whichever takes fewer of them for the bay alone, then makes fewer pieces, then lies along the
/// longer way of the bay.
std::vector<Region> battsInBays(const Region& covered, const Insulation& insulation);
/// What insulation covers: the net area, less what the supports take up if it lies between them.
Region insulated(const SurfaceShape& shape, bool between);
/// A coating: litres for all its coats over the net area.
/// @param porous  the face that its first coat goes onto
LayerTakeoff takeOffCoating(const SurfaceShape& shape, const Coating& coating, bool porous);
/// An adhesive: kg over the net area on one face or both, and the bays in which it is laid.
/// @param porousBelow, porousAbove  the face that it is spread on first, and the back of what is laid into it
/// @param spread, close  a person's speed, m2 a minute of one coat and of closing, > 0
LayerTakeoff takeOffAdhesive(const SurfaceShape& shape, const Adhesive& adhesive, bool porousBelow, bool porousAbove,
                             double spread, double close);
/// Battens: a length for each stretch of the surface's battens, in the order in which they lie.
/// @param isBatten  whether support `n` of the surface is one
LayerTakeoff takeOffBattens(const SurfaceShape& shape, const std::vector<bool>& isBatten);
/// A barrier: strips over the whole outline, openings too, which are cut after taping.
LayerTakeoff takeOffBarrier(const Region& outline, const Barrier& barrier);

} // namespace westrum
