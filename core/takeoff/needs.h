#pragma once

#include "core/catalogue/sundry.h"
#include "core/setout/edge_trims.h"
#include "core/setout/set_out.h"
#include "core/shell/shape.h"
#include "core/takeoff/fixing_places.h"
#include "core/takeoff/fixings.h"
#include "core/takeoff/layer_takeoff.h"

#include <array>
#include <map>
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
enum class FixedWith {
    Screws,
    RivetNuts,
    PanelClips,
    HookAndLoop,
    Staples,
    AdhesiveAlone,
    ExpandingNuts,
    AsNeeded ///< panel by panel: by whether it comes off, what it carries and what it is fixed to
};

inline constexpr std::array<std::string_view, 8> kFixedWith{
    "screws",         "rivet nuts and machine screws",     "panel clips",          "hook-and-loop", "staples",
    "adhesive alone", "expanding nuts and machine screws", "what each panel needs"};
/// How one layer is held.
struct Holding {
    FixedWith by = FixedWith::Screws;
    bool byWrapping{}; ///< by the clips that are counted with the lining that wraps it
    friend bool operator==(const Holding&, const Holding&) = default;
};

/// How one panel of a layer is held: one that comes off again is never glued. As it needs: into a batten by screws;
/// into sheet metal by machine screws in rivet nuts if it comes off again or carries something heavy, else by screws.
/// Source: docs/formulae.md#places-of-fixings
/// @param intoWood  it is fixed to battens
FixedWith holdingOf(const Piece& panel, const Holding& layer, bool carries, bool intoWood);

/// A fixing with all that is put there.
struct Fixing {
    FixingPlace place;
    int piece = -1; ///< of the layer's set-out; of battens the place among its lengths
    FixedWith by{};
    bool cup{}, washer{};
    bool underStrip{};               ///< a cover strip lies over it: the strip is drilled to size, the panel larger
    std::optional<Mm> least, most{}; ///< of the screw or bolt at this very place; nothing: no length matters
    std::string product{};           ///< id of the screw, bolt or clip that goes there; empty: none of the catalogue
    Mm length{};                     ///< of that
    friend bool operator==(const Fixing&, const Fixing&) = default;
};
/// A hole that is drilled in the piece for a fixing, before it goes up; 0: none is. Source:
/// docs/formulae.md#places-of-fixings
Mm drillFor(const Fixing& fixing);

/// Packers that lie under a batten where it crosses a rib.
struct PackedAt {
    Point at;
    Mm thickness;
    friend bool operator==(const PackedAt&, const PackedAt&) = default;
};

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
    std::span<const Field> fixing{};   ///< the fields of how it is fixed, by its family
    Mm hollow{};                       ///< behind its battens, between the ribs that they lie on
    const Surface* surface = nullptr;  ///< for the holes that its ribs have; may be null
    std::span<const Region> keepOut{}; ///< no fixing goes there: wiring, openings that are routed or left covered
    std::span<const Region> heavy{};   ///< something heavy hangs there
    std::span<const PackedAt> packers{};
    const std::map<std::string, int>* holders = nullptr; ///< of single pieces, by key of the name
    const std::vector<Fixing>* fixings = nullptr;        ///< placed already; null: needsOf() places them
    int leftOut = 0;                                     ///< fixings for which there was no place
};

/// One of the rules of how it is fixed; 0 where the family has none of that name.
double fixingValue(const NeedFacts& facts, std::string_view key);

/// What fixings take: screws, nuts, bolts, washers, clips, by their lengths. Source: docs/formulae.md#needs
void hold(std::span<const Fixing> fixings, std::vector<Need>& needs);

/// The supports that a layer is fixed to: its battens where the build-up has such below it, else the ribs of the metal;
/// where a surface has none of that kind, whatever there is.
std::vector<Holder> holdersFor(const NeedFacts& facts);

/// What is put at a place and how long it must be there: through all that lies between, into the batten and short of
/// what is behind it - the rib where the batten crosses one, the skin where it is hollow - or through the metal.
/// @param cup  under the head of a screw
Fixing fixingAt(const NeedFacts& facts, const FixingPlace& place, FixedWith by, bool cup);

/// The rules by which a layer's fixings are placed.
FixingRules fixingRulesOf(const NeedFacts& facts);

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
