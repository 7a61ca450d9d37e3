#pragma once

#include "app/drawing/plan_view.h"
#include "core/catalogue/product.h"
#include "core/record/workshop.h"
#include "formats/words.h"

#include <QPainter>

namespace westrum {

/// An offcut of the rack in its material. @param product  that it is of; null: none that is known
void paintOffcut(QPainter& painter, const PlanView& view, const RackPiece& piece, const Product* product);

/// "1 180 × 610": its bounds; with a word if it is no rectangle.
QString offcutSize(const RackPiece& piece, const Figures& figures);

} // namespace westrum
