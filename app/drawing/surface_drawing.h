#pragma once

#include "app/drawing/plan_view.h"
#include "core/shell/datum.h"
#include "core/shell/shape.h"

#include <QPainter>

namespace westrum {

/// What of a surface is drawn over its outline or finish.
struct SurfaceMarks {
    bool supports = true;
    bool supportsBehind = false; ///< under a finish: their edges only
    bool zones = true;
    bool openings = true;
    bool names = true;       ///< of openings and zones, where they fit
    bool centreLine = false; ///< of the visible part, where something is hidden
    int openingInHand = -1, zoneInHand = -1, supportInHand = -1;
};

/// Draws supports, hidden zones and openings of a surface. Used alike by bench, map, paper and tests.
void paintSurfaceParts(QPainter& painter, const PlanView& view, const Surface& surface, const SurfaceShape& shape,
                       const SurfaceMarks& marks);

/// The datum across a surface: a long chalk line, as it is snapped.
void paintDatum(QPainter& painter, const PlanView& view, const DatumLine& line);

/// A side as a thick line, with a short word in the middle of it if there is one.
void paintSide(QPainter& painter, const PlanView& view, const Ring& side, const QColor& colour, double width);

} // namespace westrum
