#pragma once

#include "core/measure/developed.h"
#include "core/shell/surface.h"

#include <vector>

namespace westrum {

/// A point of the upright section through a surface, mm.
struct SectionPoint {
    double inside{}; ///< of the foot
    double high{};   ///< over the foot, plumb
    double along{};  ///< taped along the surface from the foot
    friend bool operator==(const SectionPoint&, const SectionPoint&) = default;
};

/// The section of a surface of this height, taped along it, as its profile and its lean have it; arcs turn towards the
/// inside. Its upper edge stands where it was plumbed; where that is not read, a foot that is straight rises plumb, and
/// a bow stands with its ends over each other. From the foot to the top.
std::vector<SectionPoint> sectionOf(const Surface& surface, double height);

/// The sound parts of a surface's profile, in order; none of a flat one.
std::vector<ProfilePart> profileOf(const Surface& surface);

/// Where a point lies that is `along` up a profile, its foot rising plumb; beyond an end as the profile goes on there.
/// A part whose rise is negative bends the other way.
SectionPoint profileAt(const std::vector<ProfilePart>& profile, double along);

/// A profile's section seen from its chord: `high` along the line from its foot to what lies `height` along it,
/// `inside` square to that. From the foot to the top.
std::vector<SectionPoint> sectionOverChord(const std::vector<ProfilePart>& profile, double height);

/// How far up along a section a point lies that is `plumb` over its foot; beyond an end as the surface goes on there.
double alongAt(const std::vector<SectionPoint>& section, double plumb);

} // namespace westrum
