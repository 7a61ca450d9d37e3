#include "app/drawing/dimension.h"

#include "app/drawing/theme.h"

#include <QFontMetricsF>
#include <QLineF>

namespace westrum {

void paintDimension(QPainter& painter, QPointF from, QPointF to, const QString& text, const QColor& colour, bool bold) {
    painter.save();
    painter.setFont(textFont(0.95, bold));
    const QFontMetricsF metrics(painter.font());
    const QSizeF size(metrics.horizontalAdvance(text) + 8, metrics.height());
    const QLineF line(from, to);
    painter.setPen(QPen(colour, 1.2));
    const QLineF normal = line.normalVector().unitVector();
    const QPointF stroke(normal.dx() * 5, normal.dy() * 5);
    painter.drawLine(from - stroke, from + stroke);
    painter.drawLine(to - stroke, to + stroke);
    const bool level = std::abs(line.dx()) > std::abs(line.dy());
    const double needed = level ? size.width() + 24 : size.height() + 14;
    QPointF centre = (from + to) / 2;
    if (line.length() > needed) {
        const QPointF unit = (to - from) / line.length();
        const double half = (level ? size.width() : size.height()) / 2;
        painter.drawLine(from, centre - unit * half);
        painter.drawLine(centre + unit * half, to);
    } else {
        painter.drawLine(from, to);
        centre += level ? QPointF(0, -size.height() * 0.8) : QPointF(-size.width() / 2 - 6, 0);
    }
    painter.drawText(QRectF(centre.x() - size.width() / 2, centre.y() - size.height() / 2, size.width(), size.height()),
                     Qt::AlignCenter, text);
    painter.restore();
}

void paintLabel(QPainter& painter, QPointF centre, const QString& text, const QColor& colour, bool bold) {
    painter.save();
    painter.setFont(textFont(0.85, bold));
    const QFontMetricsF metrics(painter.font());
    QRectF box(0, 0, metrics.horizontalAdvance(text) + 10, metrics.height() + 2);
    box.moveCenter(centre);
    QColor ground = Theme::now().raised;
    ground.setAlpha(225);
    painter.setPen(Qt::NoPen);
    painter.setBrush(ground);
    painter.drawRoundedRect(box, 3, 3);
    painter.setPen(colour);
    painter.drawText(box, Qt::AlignCenter, text);
    painter.restore();
}

} // namespace westrum
