#pragma once

#include "core/buildup/build_up.h"

#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// A layer as it counts in the thickness of a build-up.
struct StackLayer {
    Mm thickness;
    Mm tolerance;       ///< either way
    double squash{};    ///< share by which it is compressed in use
    bool bolted{};      ///< bolts pass through
    bool insulation{};  ///< for the depth of lamps
    bool between{};     ///< lies between ribs or battens
    bool batten{};      ///< makes room between
    bool beside{};      ///< a batten that stands beside the ribs
    std::string name{}; ///< for remarks
};

/// Thicknesses of a build-up, from the faces of the ribs inwards: what lies between the ribs takes no room.
struct Stack {
    std::vector<Mm> adds;        ///< what each layer adds, in order
    Mm total;                    ///< sum of them
    Mm tolerance;                ///< sum of the tolerances of the layers that add something
    double toleranceSquares{};   ///< sum of their squares, mm2
    Mm grip;                     ///< of the layers through which bolts pass
    Mm toMetal;                  ///< from the finished face to the metal
    Mm lampDepth;                ///< of that, what no insulation takes up
    std::vector<Remark> remarks; ///< LayerTooDeep: places are layers
    friend bool operator==(const Stack&, const Stack&) = default;
};

/// Adds a build-up up. A layer counts with thickness * (1 - squash). Insulation between ribs, and battens beside them,
/// add only what stands out of the depth that is there: that of the ribs and of battens on the ribs.
/// @param ribDepth  of the ribs; 0 if not measured: then what lies between lies between battens only, or adds its own
/// Source: docs/formulae.md#stack-up. 25 + 12 + 2 * 0.9 + 7 = 45.8 mm
Stack stackOf(std::span<const StackLayer> layers, Mm ribDepth);

/// The layers of a finish as they count; layers without a product or of an unknown family add nothing.
std::vector<StackLayer> stackLayers(const Finish& finish, const Catalogue& catalogue);

/// What is left between floor and ceiling.
struct HeadroomLeft {
    Mm head;                           ///< least bare height less both build-ups
    Mm worst;                          ///< less all tolerances at once
    Mm probable;                       ///< less the root of the sum of their squares
    std::optional<bool> standsUpright; ///< worst >= person + clearance; nothing without a person
    friend bool operator==(const HeadroomLeft&, const HeadroomLeft&) = default;
};
/// @param heights  bare, floor metal to ceiling ribs, at one or more places; not empty
HeadroomLeft headroomLeft(std::span<const Mm> heights, const Stack& floor, const Stack& ceiling,
                          std::optional<Mm> person, Mm clearance);

/// The step from a door's fixed sill up to the floor.
struct ThresholdStep {
    Mm step; ///< negative: the sill stands proud
    bool needsTransition{};
    Mm rampRun; ///< of a strip at the given slope
    friend bool operator==(const ThresholdStep&, const ThresholdStep&) = default;
};
/// @param sill   of the door's sill over the bare floor
/// @param limit  steps up to this need no transition
ThresholdStep thresholdStep(const Stack& floor, Mm sill, Mm limit, double rampAngleRad);

/// Steps up to 5 mm are walked over; a transition strip slopes by 15 degrees. Source: docs/formulae.md#stack-up.
inline constexpr Mm kStepLimit{5};
inline constexpr double kRampAngleRad = 0.26179938779914943;
/// Air over a person's head.
inline constexpr Mm kHeadClearance{20};
/// Sheet metal and the washer plate under it, which a bolt grips besides the layers.
inline constexpr Mm kMetalAndPlate{1.2};

} // namespace westrum
