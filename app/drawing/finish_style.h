#pragma once

#include "core/catalogue/product.h"
#include "core/families/family.h"

#include <QColor>
#include <QPainter>
#include <QPainterPath>

#include <string_view>

namespace westrum {

/// How the finishes of a family look. It decides nothing: what it is given is drawn.
struct FinishStyle {
    std::string_view name; ///< as families give it
    /// What shows between the pieces: grout, the shadow of a gap.
    QColor (*ground)(const Product&);
    /// One piece. `alongX`: its length or grain runs across the screen.
    void (*piece)(QPainter&, const QPainterPath& shape, const Product&, const SetOut&, const Piece&, unsigned seed,
                  bool alongX, double pixelsPerMm);
    QColor (*ink)(const Product&); ///< writing that stands out on it
};

/// The style that a product's family names; the first for one unknown.
const FinishStyle& finishStyle(const Product& product);

/// How the product's family wants to be drawn.
const Drawn& drawnAs(const Product& product);

/// Goods off the roll as they look: studs of vinyl, strokes of light on film, the weave of a covering, fibres of carpet
/// and felt.
void paintRoll(QPainter& painter, const QPainterPath& shape, const Product& product);

/// A layer of a build-up in section: its hatching by family, readable without colour.
void paintSectionFill(QPainter& painter, const QRectF& layer, const Product& product);

} // namespace westrum
