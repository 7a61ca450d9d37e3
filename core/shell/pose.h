#pragma once

#include "core/geometry/polygon.h"
#include "core/shell/section.h"

#include <optional>
#include <vector>

namespace westrum {

/// A point of the van: x forwards from the floor's rear right corner, y to the left, z up from the floor's metal, mm.
struct VanPoint {
    double x{}, y{}, z{};
    friend constexpr VanPoint operator+(VanPoint a, VanPoint b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
    friend constexpr VanPoint operator-(VanPoint a, VanPoint b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
    friend constexpr VanPoint operator*(VanPoint a, double k) { return {a.x * k, a.y * k, a.z * k}; }
    friend bool operator==(const VanPoint&, const VanPoint&) = default;
};
double dot(VanPoint a, VanPoint b);
VanPoint cross(VanPoint a, VanPoint b);
double length(VanPoint a);
/// Of length 1; nothing of nothing.
VanPoint unit(VanPoint a);

/// Where a surface stands in the van: a plane through its corners, and how it bends away from that.
struct Pose {
    std::vector<VanPoint> corners; ///< one for the start of each side
    VanPoint origin;               ///< of the surface's own 0, 0, where it is flat
    VanPoint perX, perY;           ///< what a millimetre along its x or y is in the van; unit, square to each other
    VanPoint inwards;              ///< the way its seen face looks: perX x perY
    Point foot;                    ///< its own left and lower end, from which it bends
    /// Of a bent surface, strip by strip: its section over the chord from its lower edge to its upper one, and of one
    /// that is bent both ways the other one over the chord from its left end. Empty: straight.
    std::vector<SectionPoint> upwards, lengthways;
    double leanErrorRad{}; ///< of an upright one: how sure its lean is, one standard deviation

    [[nodiscard]] VanPoint map(Point own) const;
    /// Which way a millimetre up along the surface goes at a point of it; unit.
    [[nodiscard]] VanPoint up(Point own) const;
    /// Which way its seen face looks at a point of it; unit.
    [[nodiscard]] VanPoint facing(Point own) const;
    /// The point of it that lies over or under a place of the floor, x forwards and y to the left; nothing where it
    /// stands too steep for that.
    [[nodiscard]] std::optional<Point> at(double x, double y) const;
    friend bool operator==(const Pose&, const Pose&) = default;
};

/// The pose of a surface whose corners stand there: turned and moved as it fits them best.
/// @param profile  of a bent one, from its lower edge upwards; empty: straight
/// @param sideways  of one that is bent both ways
Pose poseOf(const MeasuredOutline& measured, std::vector<VanPoint> corners, const std::vector<ProfilePart>& profile,
            const std::vector<ProfilePart>& sideways);

} // namespace westrum
