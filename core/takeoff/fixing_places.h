#pragma once

#include "core/geometry/polygon.h"
#include "core/shell/shape.h"
#include "core/takeoff/fixings.h"
#include "core/units/quantity.h"

#include <span>
#include <vector>

namespace westrum {

/// A stretch of rib or batten that fixings can go into: a rectangle along x or y, in surface coordinates.
struct Holder {
    bool along{};    ///< runs along x, else along y
    double centre{}; ///< of its middle line: y, or x
    double half{};   ///< of its width
    double from{}, to{};
    SupportKind kind{};
    int support{};               ///< place in Surface::supports
    std::vector<double> holes{}; ///< of the body, that are there already: places along it, rising
    friend bool operator==(const Holder&, const Holder&) = default;
};
/// The stretches in which the supports lie on a surface. @param surface  the same, for the holes of its ribs
std::vector<Holder> holdersOf(const SurfaceShape& shape, const Surface* surface);

/// Where a fixing stands in what it holds.
enum class FixingAt {
    Edge,     ///< round the edge of a panel
    Field,    ///< along a support behind it
    Crossing, ///< where a board or batten crosses what carries it
    Clip      ///< at the back of a wrapped panel
};

/// One place of a fixing, before anything is said of what is put there.
struct FixingPlace {
    Point at;
    FixingAt where{};
    int holder = -1;       ///< place among the holders; -1: none is known there
    bool bodyHole = false; ///< a hole of the body is used
    bool holds = true;     ///< false: supports are known, and nothing lies behind this place
    friend bool operator==(const FixingPlace&, const FixingPlace&) = default;
};

/// How far apart, how far in, and where not.
struct FixingRules {
    Mm inset{15}, edge{200}, field{300};
    std::vector<Region> keepOut{}; ///< wiring, and openings that are routed or left covered
};
/// The line of fixings of an edge moves in as far as this to lie on a batten that runs along it, and a fixing moves
/// along a rib as far as this to use a hole of the body. Source: docs/formulae.md#places-of-fixings
inline constexpr Mm kReachIn{60}, kReachHole{60};
/// From what is routed or stays covered. Source: docs/formulae.md#places-of-fixings
inline constexpr Mm kClearOfCovered{15};

struct PlacedFixings {
    std::vector<FixingPlace> places;
    int leftOut{}; ///< places that no shift along what carries them brings clear of what is to be kept out of
};

/// Fixings of a panel, each on what is behind it: round its edge where supports lie, corners shared, and along the
/// supports within it. Where supports are known but not below a stretch of its edge, that stretch has places that hold
/// nothing. Without any support all edges are taken to be held. Unchanged by where the outline begins, by mirroring and
/// by how finely a curve is divided. Source: docs/formulae.md#places-of-fixings
PlacedFixings placeOnPanel(const Region& panel, const FixingRules& rules, std::span<const Holder> holders);

/// Fixings of a bar - a board, a batten - that runs along its box: where it crosses what carries it one or two beside
/// each other; along what runs below it, and where nothing is known, `rules.field` apart, kFixFromEnd from its ends.
/// @param along  it runs along x  @param abreast  1 or 2 at each place
PlacedFixings placeOnBar(const Region& bar, bool along, int abreast, const FixingRules& rules,
                         std::span<const Holder> holders);

/// Clips of a wrapped panel along its sides, as clippedSides() counts them.
std::vector<FixingPlace> placeClips(const Region& panel, Mm apart);

} // namespace westrum
