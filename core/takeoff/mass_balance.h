#pragma once

#include "core/geometry/polygon.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>

namespace westrum {

/// Something put into the van, or taken out of it (below zero), where its middle is.
struct PlacedMass {
    Kg mass;
    Mm behindFrontAxle; ///< level, along the van
    Mm toTheRight;      ///< of the middle of the van, as one sits in it
};

/// The van on its wheels: what a first weighing and its plate say.
struct VanWheels {
    Mm wheelbase; ///< > 0
    Mm track;     ///< middle of the left tyres to middle of the right; > 0
    Kg frontBefore, rearBefore;
    std::optional<Kg> frontLimit, rearLimit, grossLimit;
};

/// What the axles and sides carry. By moments: a mass behind the rear axle lifts the front.
struct MassBalance {
    Kg added, frontAdded, rearAdded, leftAdded, rightAdded;
    std::optional<Point>
        centre;     ///< of what was added: x behind the front axle, y to the right; nothing if it adds up to 0
    Kg front, rear; ///< with what was there before
    bool frontOver = false, rearOver = false, grossOver = false;
    [[nodiscard]] bool within() const { return !frontOver && !rearOver && !grossOver; }
    [[nodiscard]] Kg gross() const { return front + rear; }
    friend bool operator==(const MassBalance&, const MassBalance&) = default;
};

/// Source: docs/formulae.md#axles. 40 kg over the rear axle, 300 to the right of a track of 1720: 26.98 kg right.
MassBalance balanceOf(std::span<const PlacedMass> masses, const VanWheels& wheels);

} // namespace westrum
