#pragma once

#include <QColor>
#include <QPainter>
#include <QPointF>
#include <QString>

namespace westrum {

/// A draughtsman's dimension line between two points, with short end strokes; the text stands upright in a gap of the
/// line, or beside it where the line is too short.
void paintDimension(QPainter& painter, QPointF from, QPointF to, const QString& text, const QColor& colour,
                    bool bold = false);

/// A text on a raised label, its corner or centre at a point.
void paintLabel(QPainter& painter, QPointF centre, const QString& text, const QColor& colour, bool bold = false);

} // namespace westrum
