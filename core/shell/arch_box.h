#pragma once

#include "core/shell/surface.h"

#include <optional>
#include <string>

namespace westrum {

/// Which panels of a box hide the edges of which.
enum class BoxLap {
    TopOverAll, ///< the top lies over face and ends, the face stands before the ends
    EndsOutside ///< the top lies over all, the ends stand outside the face
};

/// A box of panels over a wheel arch: outside sizes. Its panels are cut, its outside is four surfaces to be finished,
/// its footprint is a notch of the floor.
struct ArchBox {
    std::string id;                           ///< unique in the job, never shown
    std::string floor;                        ///< id of the floor that it stands on
    int notch = 0;                            ///< place among that floor's notches
    std::string top, face, rearEnd, frontEnd; ///< ids of its surfaces
    MaybeReading length, height, depth;
    MaybeReading rake;      ///< by how much its face leans to the wall over its height
    MaybeReading thickness; ///< of its panels
    MaybeReading scribe;    ///< left on at the wall, to be scribed off
    BoxLap lap = BoxLap::TopOverAll;
    std::string product; ///< id of the sheet that it is cut from; empty: its panels are not cut here
    friend bool operator==(const ArchBox&, const ArchBox&) = default;
};

enum class BoxFault { LengthMissing, HeightMissing, DepthMissing, TooThick, RakeBeyondDepth, HigherThanWall };
inline constexpr int kBoxFaults = 6;

/// Its panels as they are cut, in mm; of a trapezium both its depths.
struct BoxParts {
    double topLength{}, topDepth{};
    double faceLength{}, faceHeight{};
    double endDepth{}, endDepthAbove{}, endHeight{}; ///< at the floor and under the top
    double areaM2{};
    double faceFromLevelRad{}; ///< a right angle when it is upright
};
/// Source: docs/formulae.md#wheel-arch-box. 880 x 340 x 250 of 12 mm: top 880 x 250, face 880 x 328, ends 238 x 328
struct BoxAnswer {
    std::optional<BoxParts> parts;
    std::optional<BoxFault> fault;
};
BoxAnswer boxParts(const ArchBox& box);

/// The outside of the box as readings of its four surfaces: their measurements, and which of their sides meet.
/// @pre boxParts(box).parts
Measurement boxTop(const ArchBox& box);
Measurement boxFace(const ArchBox& box);
/// @param front  the end at the front: the wall is at its other side
Measurement boxEnd(const ArchBox& box, bool front);

} // namespace westrum
