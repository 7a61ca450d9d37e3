#pragma once

#include "app/drawing/plan_view.h"
#include "core/plan/base_plan.h"
#include "formats/words.h"

class QPainter;

namespace westrum {

/// Fixings of a layer at their places, each kind with a mark of its own; those with nothing behind them are crossed
/// out.
/// @param piece  in hand: the others are fainter; -1: all alike
void paintFixings(QPainter& p, const PlanView& view, const LayerPlan& layer, int piece);
/// One mark, as in the legend.
void paintFixing(QPainter& p, QPointF at, const Fixing& fixing, bool faint);
/// The middle lines of ribs and battens, with the holes that ribs have already.
void paintHolders(QPainter& p, const PlanView& view, const SurfaceShape& shape, const Surface& surface);
/// What is packed at every crossing; a question mark where none is read. @param inHand  place among the crossings
void paintPackers(QPainter& p, const PlanView& view, const PackedBattens& packed, int inHand, const Figures& figures);
/// The distances of an opening, those that are too near in pencil.
void paintDistances(QPainter& p, const PlanView& view, std::span<const OpeningDistance> distances,
                    const Figures& figures);

} // namespace westrum
