#include "app/drawing/materials.h"

#include "app/drawing/theme.h"

#include <QImage>

#include <array>
#include <cmath>

namespace westrum {
namespace {

/// A small fixed generator: pictures must not differ from run to run.
class Scatter {
public:
    explicit Scatter(unsigned seed) : state_(seed * 2654435761U + 97U) {
        // The first draws of neighbouring seeds are alike: shake well.
        state_ ^= state_ >> 15;
        state_ *= 0x2C1B3C6DU;
        state_ ^= state_ >> 12;
    }
    double unit() {
        state_ = state_ * 1664525U + 1013904223U;
        return (state_ >> 8) / 16777216.0;
    }

private:
    unsigned state_;
};

} // namespace

QColor woodTone(const std::string& productId) {
    static const std::array<QColor, 6> tones{QColor(0xD9BE93), QColor(0xC9C3B6), QColor(0xE2C9A0),
                                             QColor(0xA88562), QColor(0xE4DFD2), QColor(0xCDAE84)};
    const auto has = [&](const char* word) { return productId.find(word) != std::string::npos; };
    if (has("oak")) return tones[0];
    if (has("ash")) return tones[1];
    if (has("beech")) return tones[2];
    if (has("walnut")) return tones[3];
    if (has("chalk") || has("short")) return tones[4];
    unsigned hash = 5381;
    for (const char c : productId) hash = hash * 33U + static_cast<unsigned char>(c);
    return tones[hash % tones.size()];
}

QColor inkOn(const QColor& tone) {
    const int lightness = tone.lightness() - (Theme::now().dark ? 40 : 0);
    return lightness < 130 ? QColor(0xF6F0E4) : QColor(0x2B2A28);
}

void paintPlank(QPainter& painter, const QPainterPath& shape, const QRectF& box, const QColor& tone, unsigned seed,
                bool alongX) {
    Scatter dice(seed);
    const bool dark = Theme::now().dark;
    const int lightness = static_cast<int>(100 + (dice.unit() - 0.5) * 16) - (dark ? 22 : 0);
    const QColor base = tone.lighter(std::max(40, lightness));
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(base);
    painter.drawPath(shape);
    painter.setClipPath(shape, Qt::IntersectClip);
    const double across = alongX ? box.height() : box.width();
    const double along = alongX ? box.width() : box.height();
    if (across > 7) {
        QColor grain = base.darker(118);
        grain.setAlpha(120);
        painter.setPen(QPen(grain, 1));
        painter.setBrush(Qt::NoBrush);
        const int lines = std::max(2, static_cast<int>(across / 9));
        for (int i = 0; i < lines; ++i) {
            const double at = across * (i + 0.3 + 0.5 * dice.unit()) / lines;
            const double from = along * 0.06 * dice.unit();
            const double to = along * (0.55 + 0.43 * dice.unit());
            const double swing = (dice.unit() - 0.5) * 5;
            const auto point = [&](double a, double b) {
                return alongX ? QPointF(box.left() + a, box.top() + b) : QPointF(box.left() + b, box.bottom() - a);
            };
            QPainterPath line(point(from, at));
            line.cubicTo(point(from + (to - from) / 3, at + swing), point(from + 2 * (to - from) / 3, at - swing),
                         point(to, at));
            painter.drawPath(line);
        }
    }
    painter.restore();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(tone.darker(dark ? 210 : 165), 1));
    painter.drawPath(shape);
}

QColor liningTone(const std::string& productId) {
    static const std::array<QColor, 7> tones{QColor(0xA9ABA6), QColor(0x9C8F86), QColor(0xC2B59B), QColor(0x8E99A0),
                                             QColor(0x97A598), QColor(0x7F8793), QColor(0xA08F98)};
    unsigned hash = 5381;
    for (const char c : productId) hash = hash * 33U + static_cast<unsigned char>(c);
    return tones[(hash >> 3) % tones.size()];
}

void paintLining(QPainter& painter, const QPainterPath& shape, const QColor& tone) {
    constexpr int kTile = 96;
    const QColor base = Theme::now().dark ? tone.darker(135) : tone.lighter(112);
    QImage tile(kTile, kTile, QImage::Format_RGB32);
    tile.fill(base);
    Scatter dice(7);
    QPainter p(&tile);
    for (int i = 0; i < 620; ++i) {
        QColor fibre = dice.unit() < 0.5 ? base.darker(112) : base.lighter(112);
        const double x = dice.unit() * kTile, y = dice.unit() * kTile;
        p.setPen(QPen(fibre, 1));
        p.drawLine(QPointF(x, y), QPointF(x + 3 * (dice.unit() - 0.5), y + 2 * (dice.unit() - 0.5)));
    }
    p.end();
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(QBrush(tile));
    painter.drawPath(shape);
    painter.restore();
}

void paintWaste(QPainter& painter, const QPainterPath& shape) {
    const Theme& t = Theme::now();
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.paper);
    painter.drawPath(shape);
    painter.setClipPath(shape, Qt::IntersectClip);
    painter.setPen(QPen(t.faint, 1));
    const QRectF b = shape.boundingRect();
    for (double x = b.left() - b.height(); x < b.right(); x += 6)
        painter.drawLine(QPointF(x, b.bottom()), QPointF(x + b.height(), b.top()));
    painter.restore();
}

void paintMetal(QPainter& painter, const QPainterPath& shape) {
    const Theme& t = Theme::now();
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.metal);
    painter.drawPath(shape);
    painter.setClipPath(shape, Qt::IntersectClip);
    QColor hatch = t.dark ? t.metal.lighter(120) : t.metal.darker(108);
    painter.setPen(QPen(hatch, 1));
    const QRectF b = shape.boundingRect();
    for (double x = b.left() - b.height(); x < b.right(); x += 9)
        painter.drawLine(QPointF(x, b.bottom()), QPointF(x + b.height(), b.top()));
    painter.restore();
}

} // namespace westrum
