#pragma once

#include "core/buying/purchase.h"
#include "core/setout/set_out.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/takeoff/layer_takeoff.h"
#include "core/takeoff/needs.h"

#include <optional>
#include <string>

namespace westrum {

/// All that follows for one layer of a surface's build-up.
struct LayerPlan {
    std::string product; ///< id
    std::string family;
    FieldValues rules;
    SetOut setOut;                 ///< of a family that is set out
    LayerTakeoff take;             ///< of one that is not
    Holding held;                  ///< as far as it is held by fixings
    std::vector<Fixing> fixings{}; ///< each at its place
    int fixingsLeftOut = 0;        ///< for which there was none
    std::optional<PlankTakeoff> planks;
    std::optional<Purchase> purchase; ///< nothing for what the cutting buys
    M2 area;                          ///< that it covers
    Kg mass;                          ///< that it adds, once dry; 0 for battens
    friend bool operator==(const LayerPlan&, const LayerPlan&) = default;
};

} // namespace westrum
