#pragma once

#include "core/measure/slips.h"
#include "core/shell/access.h"
#include "core/shell/pose.h"
#include "core/shell/ties.h"

#include <array>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace westrum {

/// A corner in which two surfaces meet, and how far they lie apart there.
struct TiedCorner {
    std::string surface, other; ///< ids
    int side{}, otherSide{};
    bool atStart{}; ///< of `side`, going round
    VanPoint at;    ///< midway between the two
    VanPoint apart; ///< from the surface to the other
    Mm gap;         ///< length of that
    friend bool operator==(const TiedCorner&, const TiedCorner&) = default;
};

/// The angle between two surfaces at the side they share, through the room: less than a straight angle in a corner of
/// it, more where they stand out into it. Of a bent one the strip at that side counts.
struct Hinge {
    std::string surface, other;
    int side{}, otherSide{};
    double angleRad{};
    double errorRad{}; ///< one standard deviation: how surely the readings of the van say so
    friend bool operator==(const Hinge&, const Hinge&) = default;
};

/// A reading of some surface whose error would explain why the van does not close.
struct VanSuspect {
    std::string surface, key;
    Mm reads, implied;
    double chance{}; ///< of all that explain it, 0 to 1
    [[nodiscard]] Mm slip() const { return reads - implied; }
    friend bool operator==(const VanSuspect&, const VanSuspect&) = default;
};

/// A length between two corners of a surface that was not read yet.
struct DecidingLength {
    std::string surface;
    int from{}, to{};
    friend bool operator==(const DecidingLength&, const DecidingLength&) = default;
};

/// The van closed in space.
struct FoldUp {
    std::vector<std::optional<Pose>> poses; ///< in the order of the surfaces; nothing for what hangs on nothing
    std::vector<TiedCorner> corners;        ///< the worst first
    std::vector<Hinge> hinges;
    std::vector<VanSuspect> suspects;        ///< all that would explain it, likeliest first; empty: nothing stands out
    bool proved = false;                     ///< the first one is wrong: nothing else explains it
    bool several = false;                    ///< no single error explains it
    std::optional<DecidingLength> decides{}; ///< where several explain it: what would tell them apart best
    friend bool operator==(const FoldUp&, const FoldUp&) = default;
};

/// Finds where every surface stands that hangs together with the floor by sides that meet: weighted least squares over
/// all readings of all of them at once - tapes good to 2 mm, corners that meet to 2.5, surfaces flat to 8, square where
/// a form takes them to be - with the floor level. Of bent surfaces the profile's own readings are found with the
/// rest, and they stand as strips. Openings that are said to be one hole (Opening::hole) hold their surfaces against
/// each other. A reading that stands out is told as a surface's own are (slips.h), but all that the van knows of it
/// counts.
/// Source: docs/formulae.md#fold-up.
/// @param symmetric  the body's two sides are said to be alike: left and right walls, and both halves of floor and
///                   ceiling, hold each other to 4 mm
FoldUp foldUp(const std::vector<TiedSurface>& surfaces, const Headroom& headroom = {}, bool symmetric = false);

/// Keys of readings that are no surface's own: they are told at the ceiling.
inline constexpr const char *kHeadroomRear = "headroomRear", *kHeadroomMiddle = "headroomMiddle",
                            *kHeadroomFront = "headroomFront";

} // namespace westrum
