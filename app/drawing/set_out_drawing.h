#pragma once

#include "app/drawing/plan_view.h"
#include "core/plan/plan.h"
#include "formats/words.h"

#include <QPainter>

namespace westrum {

/// What of a set-out is drawn besides the pieces.
struct SetOutMarks {
    bool names = true;   ///< piece names and lengths where they fit
    bool offcuts = true; ///< pieces that start from an offcut
    bool slivers = true;
};

/// Draws a set-out as it lies: the surface, its pieces, what came from offcuts. Used alike by the bench, the map,
/// paper and tests. Draws nothing of the start line.
void paintSetOut(QPainter& painter, const PlanView& view, const Region& outline, const SetOut& setOut,
                 const std::string& productId, const Figures& figures, const SetOutMarks& marks);

} // namespace westrum
