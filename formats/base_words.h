#pragma once

#include "core/plan/plan.h"
#include "formats/words.h"

#include <QString>

namespace westrum {

/// What is remarked about what a finish hangs on: fixings, packers, clearances, boxes. Empty for other kinds.
QString baseSentence(const Remark& remark, const Figures& figures);
/// What one press does about it; empty for other fixes.
QString baseFixText(const Remark& remark, const Figures& figures);

/// "screws", "rivet nuts" and so on, as on a button.
QString heldText(FixedWith by);
/// "24 screws 4 × 25, 6 machine screws 30 long": what holds a layer or one piece of it. @param piece  -1: all of them
QString fixingsText(const LayerPlan& layer, int piece, const Catalogue& catalogue, const Figures& figures);
/// "6 + 3 mm", or "none".
QString packerText(const PackerStack& stack, const Figures& figures);
/// What all packers of a surface come to, in one line.
QString packingText(const PackedBattens& packed, const Figures& figures);

} // namespace westrum
