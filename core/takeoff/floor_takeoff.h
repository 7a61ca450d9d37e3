#pragma once

#include "core/catalogue/plank.h"
#include "core/setout/set_out.h"

#include <vector>

namespace westrum {

/// Quantities of planks that a set-out takes.
struct PlankTakeoff {
    int planks{};
    int cutPlanks{}; ///< planks of these that a saw goes through
    int cuts{};      ///< crosswise, lengthwise and shaped cuts to make
    M2 laidArea;     ///< what is covered
    M2 consumedArea; ///< planks opened, whole
    Kg laidMass;     ///< what ends up in the van
    friend bool operator==(const PlankTakeoff&, const PlankTakeoff&) = default;
};

PlankTakeoff takeOffPlanks(const SetOut& setOut, const Plank& plank);

/// One strip of underlay.
struct UnderlayStrip {
    double low{}, high{}; ///< extent across the strips
    Mm length;
    friend bool operator==(const UnderlayStrip&, const UnderlayStrip&) = default;
};

struct UnderlayTakeoff {
    bool alongX = true; ///< strips run along the van, else across it
    std::vector<UnderlayStrip> strips;
    Mm totalLength; ///< off the roll
    Mm loose{};     ///< of it: what may be taken in any lengths
    int joints{};   ///< in strips longer than a roll, butted
    M2 laidArea;
    Kg laidMass; ///< laps counted twice
    friend bool operator==(const UnderlayTakeoff&, const UnderlayTakeoff&) = default;
};

/// Strips of a roll over the whole outline, each as long as the outline is within it and in one piece unless it is
/// longer than the roll, neighbours lapped; along or across, whichever takes fewer rolls, then has fewer joints, then
/// takes less off the roll (along if equal).
UnderlayTakeoff takeOffUnderlay(const Region& outline, const Underlay& underlay);

} // namespace westrum
