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
    bool joints = false;  ///< where pieces meet, and whether on a support
    bool margins = false; ///< of linings: what is cut beyond their place, folds and snips
    int pieceInHand = -1;
    int unitInHand = 0; ///< of several cushions the one whose panels lie beside it; 0: none
};

/// Whether a piece is drawn where it lies: strips are not, nor the panels of a cushion that is not in hand.
bool liesBeside(const Piece& piece, int unit);

/// Draws a set-out as it lies: the surface, its pieces, what came from offcuts. Used alike by the bench, the map,
/// paper and tests. Draws nothing of the start line. Without a product only the metal is drawn.
void paintSetOut(QPainter& painter, const PlanView& view, const Region& outline, const SetOut& setOut,
                 const Product* product, const Figures& figures, const SetOutMarks& marks);

} // namespace westrum
