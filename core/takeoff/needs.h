#pragma once

#include "core/catalogue/sundry.h"
#include "core/setout/edge_trims.h"
#include "core/setout/set_out.h"
#include "core/shell/shape.h"
#include "core/takeoff/fixings.h"
#include "core/takeoff/layer_takeoff.h"

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// So much of some small thing, and where it goes.
struct Need {
    Serves serves{};
    double amount{};           ///< in unitOf(serves)
    std::optional<Mm> least{}; ///< length of a screw
    std::optional<Mm> most{};  ///< nothing: as long as one likes
    std::string surface{};     ///< id
    int layer = -1;            ///< of its build-up; -1: none of them
    std::string product{};     ///< id, where it is said already
    friend bool operator==(const Need&, const Need&) = default;
};

/// How a layer is held.
enum class FixedWith { Screws, RivetNuts, PanelClips, HookAndLoop, Staples, AdhesiveAlone };

inline constexpr std::array<std::string_view, 6> kFixedWith{
    "screws", "rivet nuts and machine screws", "panel clips", "hook-and-loop", "staples", "adhesive alone"};
/// How one layer is held.
struct Holding {
    FixedWith by = FixedWith::Screws;
    bool byWrapping{}; ///< by the clips that are counted with the lining that wraps it
    friend bool operator==(const Holding&, const Holding&) = default;
};

/// How one panel of a layer is held: one that comes off again is never glued.
inline FixedWith holdingOf(const Piece& panel, const Holding& layer) {
    return panel.removable && layer.by == FixedWith::AdhesiveAlone ? FixedWith::Screws : layer.by;
}

/// From the ends of a bar to its first and last fixing.
inline constexpr Mm kFixFromEnd{50};

/// All that small things of a layer depend on.
struct NeedFacts {
    const Product* product = nullptr; ///< fields and rules are sound
    const FieldValues* rules = nullptr;
    const SetOut* setOut = nullptr;
    const LayerTakeoff* take = nullptr;
    const SurfaceShape* shape = nullptr;
    Mm through;             ///< thickness from the layer's face down to what the screws hold in
    std::optional<Mm> into; ///< depth of the battens below it; nothing: sheet metal
    Mm edges;               ///< of the surface's outline, openings included
    Holding held{};
    std::span<const Field> fixing{}; ///< the fields of how it is fixed, by its family
};

/// One of the rules of how it is fixed; 0 where the family has none of that name.
double fixingValue(const NeedFacts& facts, std::string_view key);

/// Fixings at so many places, by what holds the layer there. Source: docs/formulae.md#needs
/// @param cups  under the heads of screws, that it comes off again without harm
void hold(const NeedFacts& facts, FixedWith by, double places, bool cups, std::vector<Need>& needs);

/// The supports that a layer is fixed to: its battens where the build-up has such below it, else the ribs of the metal;
/// where a surface has none of that kind, whatever there is.
std::vector<SupportLine> holders(const NeedFacts& facts);

/// So much of something, if it is anything.
void addNeed(std::vector<Need>& needs, Serves serves, double amount);

/// What a set-out takes besides its cloth: zips, thread, staples.
void addSundries(const SetOut& setOut, std::vector<Need>& needs);

/// Tubes for the beads that hold trims, and blocks for their corners; screws where a trim is screwed. The surface is
/// the run's. @param trims  sound products of the family
std::vector<Need> needsOfTrims(const TrimPlan& plan, std::span<const Product> trims);

/// The product of a catalogue that serves a need: of screws the longest that fits, else the first in the list. Null if
/// there is none. @param products  of the family "sundries", fields sound
const Product* productFor(const Need& need, std::span<const Product* const> products);

/// A machine screw through a layer into a rivet nut: a washer, the nut's body, and a little past it.
inline constexpr Mm kWasher{1.6}, kNutBody{6.5}, kPastNut{3};

} // namespace westrum
