#pragma once

#include <QColor>
#include <QPainter>
#include <QPainterPath>
#include <QString>

namespace westrum {

/// The tone of a wood-like product, from its id: the same product always looks the same.
QColor woodTone(const std::string& productId);

/// One plank-like piece: tone varied by `seed`, grain lines along the plank, a shadow at the joint.
/// @param box  the piece's box on the screen, `alongX` whether its length runs across the screen
void paintPlank(QPainter& painter, const QPainterPath& shape, const QRectF& box, const QColor& tone, unsigned seed,
                bool alongX);

/// The colour of writing that stands out from wood of this tone in the light chosen.
QColor inkOn(const QColor& tone);

/// The tone of a lining or cloth, from its product's id.
QColor liningTone(const std::string& productId);

/// Felted lining: speckles of lighter and darker fibre, the same wherever it is drawn.
void paintLining(QPainter& painter, const QPainterPath& shape, const QColor& tone);

/// What will be thrown away: thin strokes on the paper ground.
void paintWaste(QPainter& painter, const QPainterPath& shape);

/// Bare metal: light hatching over grey.
void paintMetal(QPainter& painter, const QPainterPath& shape);

} // namespace westrum
