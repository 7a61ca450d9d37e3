#pragma once

#include "core/units/quantity.h"

#include <optional>
#include <vector>

namespace westrum {

/// One part of a cross-section, in order: a straight one, or a circular arc given by its chord and its rise, measured
/// at the middle of the chord. The rise may be more than half the chord: then it is more than a half circle.
struct ProfilePart {
    double length{}; ///< of the straight part, or the chord; > 0
    double rise{};   ///< 0 for a straight part
};

/// R = (c^2/4 + h^2) / (2h). @pre rise > 0
double radiusOf(const ProfilePart& part);
/// 4 atan(2h/c), in radians; 0 for a straight part. (2 asin(c/2R) would fail beyond a half circle.)
double angleRadOf(const ProfilePart& part);
/// Along the surface: arc or straight.
double arcLengthOf(const ProfilePart& part);

/// A profile laid flat. Source: docs/formulae.md#developed.
struct Developed {
    Mm width;                      ///< along the measured surface
    Mm chordShortfall;             ///< what measuring straight across would miss
    std::optional<Mm> leastRadius; ///< none if all is straight
};
Developed developed(const std::vector<ProfilePart>& profile);

enum class CurveSide {
    Inside,  ///< the lining is seen from within the curve: a bowed wall from inside the van
    Outside, ///< over a round arch box
};

/// Width to cut from a sheet whose mid-thickness keeps its length: on the inside each arc is shorter by half the
/// thickness times its angle, on the outside longer.
Mm cutWidth(const std::vector<ProfilePart>& profile, Mm sheetThickness, CurveSide side);

/// Share by which a flat sheet must stretch to lie on a surface curved both ways, at its worst: the rim of a patch of
/// half-diagonal s on radii R1 and R2 is longer or shorter than the flat one by s^2 / (6 R1 R2).
/// Source: docs/formulae.md#double-curvature. @pre radii > 0
double stretchOfDoubleCurve(Mm width, Mm height, Mm radiusAcross, Mm radiusAlong);

} // namespace westrum
