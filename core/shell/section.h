#pragma once

#include "core/shell/surface.h"

#include <vector>

namespace westrum {

/// A point of the upright section through a surface, mm.
struct SectionPoint {
    double inside{}; ///< of the foot
    double high{};   ///< over the foot, plumb
    double along{};  ///< taped along the surface from the foot
};

/// The section of a surface of this height, taped along it, as its profile and its lean have it; arcs turn towards the
/// inside. Its upper edge stands where it was plumbed; where that is not read, a foot that is straight rises plumb, and
/// a bow stands with its ends over each other. From the foot to the top.
std::vector<SectionPoint> sectionOf(const Surface& surface, double height);

/// How far up along a section a point lies that is `plumb` over its foot; beyond an end as the surface goes on there.
double alongAt(const std::vector<SectionPoint>& section, double plumb);

/// Straight from the foot to the point that lies `along` up the section.
double chordAt(const std::vector<SectionPoint>& section, double along);

} // namespace westrum
