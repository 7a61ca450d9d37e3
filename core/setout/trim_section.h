#pragma once

#include "core/catalogue/stock.h"
#include "core/geometry/polygon.h"

namespace westrum {

/// Cross-section of a trim as it is fixed: x off the face that carries it, y along that face from the trim's foot;
/// counter-clockwise, round parts within 0.05 mm. Of what is run on or has no thickness a plain strip.
Ring trimSection(const TrimLength& trim);

/// The line to saw along on the piece that is coped, so that it fits over a trim of this section which runs on into
/// the corner: how far it is cut back (x) at each height (y), from the foot up, 0 where it reaches furthest.
/// At a corner of 90 degrees it is the section's own outline; a sharper or blunter one draws it out by 1 / sin.
/// @param cornerRad  between the two faces, inside the room; 0 < cornerRad < pi
/// Source: docs/formulae.md#trims
Ring copeLine(const Ring& section, double cornerRad);

} // namespace westrum
