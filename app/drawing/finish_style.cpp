#include "app/drawing/finish_style.h"

#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "core/catalogue/family.h"
#include "core/catalogue/hard_finishes.h"

#include <array>
#include <cmath>

namespace westrum {
namespace {

QColor dimmed(const QColor& c) { return Theme::now().dark ? c.darker(128) : c; }

QColor tileTone(const std::string& id) {
    static const std::array<QColor, 5> tones{QColor(0xE9E6DC), QColor(0xBFD0CE), QColor(0xC8CFBC), QColor(0xD9C7B4),
                                             QColor(0xB9C0C9)};
    unsigned hash = 5381;
    for (const char c : id) hash = hash * 33U + static_cast<unsigned char>(c);
    return tones[hash % tones.size()];
}

QColor sheetTone(const std::string& id) {
    static const std::array<QColor, 4> tones{QColor(0xE3CFA8), QColor(0xD8C29A), QColor(0xCBB999), QColor(0xDAD3C4)};
    unsigned hash = 5381;
    for (const char c : id) hash = hash * 33U + static_cast<unsigned char>(c);
    return tones[hash % tones.size()];
}

QColor shadow(const Product&) { return dimmed(QColor(0x6B6358)); }
QColor woodShadow(const Product& p) { return dimmed(woodTone(p.id)).darker(190); }
QColor grout(const Product&) { return dimmed(QColor(0xA49C8F)); }

void plank(QPainter& p, const QPainterPath& shape, const Product& product, const SetOut&, const Piece&, unsigned seed,
           bool alongX, double) {
    paintPlank(p, shape, shape.boundingRect(), woodTone(product.id), seed, alongX);
}

/// A board with its tongue's shadow along one edge.
void board(QPainter& p, const QPainterPath& shape, const Product& product, const SetOut&, const Piece&, unsigned seed,
           bool alongX, double) {
    const QRectF b = shape.boundingRect();
    paintPlank(p, shape, b, woodTone(product.id).lighter(106), seed * 7, alongX);
    const double across = alongX ? b.height() : b.width();
    if (across < 5) return;
    p.save();
    p.setClipPath(shape, Qt::IntersectClip);
    QColor dark = dimmed(woodTone(product.id)).darker(170);
    dark.setAlpha(150);
    p.setPen(QPen(dark, std::min(3.0, across / 8)));
    if (alongX)
        p.drawLine(QPointF(b.left(), b.bottom() - 1), QPointF(b.right(), b.bottom() - 1));
    else
        p.drawLine(QPointF(b.right() - 1, b.top()), QPointF(b.right() - 1, b.bottom()));
    p.restore();
}

/// A panel with the long, quiet grain of a peeled veneer.
void panel(QPainter& p, const QPainterPath& shape, const Product& product, const SetOut&, const Piece& piece,
           unsigned seed, bool alongX, double) {
    const QRectF b = shape.boundingRect();
    const QColor base = dimmed(sheetTone(product.id)).lighter(98 + static_cast<int>(seed * 37 % 6));
    p.save();
    p.setPen(Qt::NoPen);
    p.setBrush(base);
    p.drawPath(shape);
    p.setClipPath(shape, Qt::IntersectClip);
    QColor grain = base.darker(112);
    grain.setAlpha(130);
    p.setPen(QPen(grain, 1));
    const double across = alongX ? b.height() : b.width(), along = alongX ? b.width() : b.height();
    const int lines = std::clamp(static_cast<int>(across / 11), 2, 60);
    for (int i = 0; i < lines; ++i) {
        const double at = across * (i + 0.5) / lines;
        const double swing = 9 * std::sin(seed * 1.7 + i * 0.9);
        const auto point = [&](double a, double c) {
            return alongX ? QPointF(b.left() + a, b.top() + c) : QPointF(b.left() + c, b.bottom() - a);
        };
        QPainterPath line(point(0, at));
        line.cubicTo(point(along / 3, at + swing), point(along * 2 / 3, at - swing), point(along, at + swing / 2));
        p.drawPath(line);
    }
    p.restore();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(base.darker(160), 1));
    p.drawPath(shape);
    if (piece.removable) { // dots of the screws that hold it
        p.setPen(Qt::NoPen);
        p.setBrush(Theme::now().chalk);
        for (const QPointF corner : {b.topLeft() + QPointF(7, 7), b.topRight() + QPointF(-7, 7),
                                     b.bottomLeft() + QPointF(7, -7), b.bottomRight() + QPointF(-7, -7)})
            if (shape.contains(corner)) p.drawEllipse(corner, 2.5, 2.5);
    }
}

void tile(QPainter& p, const QPainterPath& shape, const Product& product, const SetOut&, const Piece&, unsigned seed,
          bool, double pixelsPerMm) {
    const QColor base = dimmed(tileTone(product.id)).lighter(98 + static_cast<int>(seed * 53 % 5));
    // However small it is drawn, the joint shows.
    p.setPen(QPen(grout(product), std::max(1.0, 0.6 * tileOf(product).joint.value * pixelsPerMm)));
    p.setBrush(base);
    p.drawPath(shape);
    const Tile t = tileOf(product);
    const QRectF b = shape.boundingRect();
    p.save();
    p.setClipPath(shape, Qt::IntersectClip);
    if (t.mosaic() && t.chipWidth.value * pixelsPerMm > 3) { // its chips, on their mesh
        p.setPen(QPen(grout(product), std::max(0.8, t.joint.value * pixelsPerMm)));
        for (double x = b.left() + t.chipWidth.value * pixelsPerMm; x < b.right();
             x += (t.chipWidth + t.joint).value * pixelsPerMm)
            p.drawLine(QPointF(x, b.top()), QPointF(x, b.bottom()));
        for (double y = b.bottom() - t.chipHeight.value * pixelsPerMm; y > b.top();
             y -= (t.chipHeight + t.joint).value * pixelsPerMm)
            p.drawLine(QPointF(b.left(), y), QPointF(b.right(), y));
    } else if (b.width() > 10 && b.height() > 10) { // light on the upper edge of the glaze
        p.setPen(QPen(base.lighter(112), 1.2));
        p.drawLine(b.topLeft() + QPointF(1, 1), b.topRight() + QPointF(-1, 1));
        p.setPen(QPen(base.darker(112), 1));
        p.drawLine(b.bottomLeft() + QPointF(1, -0.5), b.bottomRight() + QPointF(-1, -0.5));
    }
    p.restore();
}

/// Lining with the way that its nap lies: strokes that end in a head, few where it is drawn small.
void lining(QPainter& p, const QPainterPath& shape, const Product& product, const SetOut& s, const Piece&, unsigned,
            bool, double pixelsPerMm) {
    const RollGoods roll = rollOf(product);
    paintRoll(p, shape, product);
    if (!s.pile || roll.lining == Lining::SheetVinyl || roll.lining == Lining::Film) return;
    const QRectF b = shape.boundingRect();
    const double length = std::clamp(120 * pixelsPerMm, 7.0, 26.0), apart = length * 3.2;
    const QPointF d(s.pile->x, -s.pile->y), side(-d.y(), d.x());
    QColor ink = liningTone(product.id).darker(Theme::now().dark ? 60 : 165);
    ink.setAlpha(190);
    p.save();
    p.setClipPath(shape, Qt::IntersectClip);
    p.setPen(QPen(ink, 1.2, Qt::SolidLine, Qt::RoundCap));
    int row = 0;
    for (double y = b.top() + apart / 2; y < b.bottom(); y += apart / 1.6, ++row)
        for (double x = b.left() + apart * (row % 2 ? 0.9 : 0.4); x < b.right(); x += apart) {
            const QPointF tail = QPointF(x, y) - d * length / 2, head = tail + d * length;
            p.drawLine(tail, head);
            p.drawLine(head, head - d * length * 0.3 + side * length * 0.16);
            p.drawLine(head, head - d * length * 0.3 - side * length * 0.16);
        }
    p.restore();
}

QColor woodInk(const Product& p) { return inkOn(woodTone(p.id)); }
QColor sheetInk(const Product& p) { return inkOn(sheetTone(p.id)); }
/// Foam: pores.
void foam(QPainter& p, const QPainterPath& shape, const Product&, const SetOut&, const Piece&, unsigned, bool, double) {
    const QColor base = dimmed(QColor(0xE9DFA9));
    const QRectF b = shape.boundingRect();
    p.save();
    p.setPen(QPen(base.darker(140), 1));
    p.setBrush(base);
    p.drawPath(shape);
    p.setClipPath(shape, Qt::IntersectClip);
    p.setPen(Qt::NoPen);
    p.setBrush(base.darker(116));
    int k = 0;
    for (double y = b.top() + 4; y < b.bottom(); y += 7)
        for (double x = b.left() + 3 + (++k % 3) * 2; x < b.right(); x += 8)
            p.drawEllipse(QPointF(x, y + (k * 5 % 3)), 1.3, 1.3);
    p.restore();
}
QColor foamShade(const Product&) { return dimmed(QColor(0xC9BC7C)); }
QColor foamInk(const Product&) { return inkOn(QColor(0xE9DFA9)); }

QColor liningShade(const Product& p) { return dimmed(liningTone(p.id)).darker(170); }
QColor liningInk(const Product& p) { return inkOn(liningTone(p.id)); }
QColor tileInk(const Product& p) { return inkOn(tileTone(p.id)); }

} // namespace

void paintRoll(QPainter& p, const QPainterPath& shape, const Product& product) {
    const RollGoods roll = rollOf(product);
    const QColor tone = liningTone(product.id), base = Theme::now().dark ? tone.darker(135) : tone.lighter(112);
    const QRectF b = shape.boundingRect();
    if (roll.lining == Lining::StretchCarpet || roll.lining == Lining::Felt) return paintLining(p, shape, tone);
    p.save();
    p.setPen(Qt::NoPen);
    p.setBrush(roll.lining == Lining::Film ? QColor(60, 66, 72, 150) : base);
    p.drawPath(shape);
    p.setClipPath(shape, Qt::IntersectClip);
    if (roll.lining == Lining::SheetVinyl) {
        p.setBrush(base.darker(114));
        int row = 0;
        for (double y = b.top() + 5; y < b.bottom(); y += 9, ++row)
            for (double x = b.left() + (row % 2 ? 5 : 9.5); x < b.right(); x += 9)
                p.drawEllipse(QPointF(x, y), 1.7, 1.7);
    } else if (roll.lining == Lining::Film) {
        p.setPen(QPen(QColor(255, 255, 255, 70), 3));
        for (double x = b.left() - b.height(); x < b.right(); x += 46)
            p.drawLine(QPointF(x, b.bottom()), QPointF(x + b.height(), b.top()));
    } else {
        p.setPen(QPen(base.darker(109), 1));
        for (double x = b.left(); x < b.right(); x += 4) p.drawLine(QPointF(x, b.top()), QPointF(x, b.bottom()));
        p.setPen(QPen(base.lighter(107), 1));
        for (double y = b.top(); y < b.bottom(); y += 4) p.drawLine(QPointF(b.left(), y), QPointF(b.right(), y));
    }
    p.restore();
}

const FinishStyle& finishStyle(const Product& product) {
    // By the style that the family names; an unknown one looks like the first.
    static const std::array<FinishStyle, 6> styles{{{"wood", woodShadow, plank, woodInk},
                                                    {"board", woodShadow, board, woodInk},
                                                    {"panel", shadow, panel, sheetInk},
                                                    {"tile", grout, tile, tileInk},
                                                    {"lining", liningShade, lining, liningInk},
                                                    {"sponge", foamShade, foam, foamInk}}};
    const std::string_view wanted = drawnAs(product).style;
    for (const FinishStyle& s : styles)
        if (wanted == s.name) return s;
    return styles.front();
}

const Drawn& drawnAs(const Product& product) {
    static const Drawn plain;
    const Family* family = familyOf(product.family);
    return family ? family->drawn : plain;
}

namespace {

/// A finish in section, by its style.
void paintFinishFill(QPainter& painter, const QRectF& layer, const Product& product, const auto& lines) {
    const std::string_view style = drawnAs(product).style;
    if (style == "tile") return lines(dimmed(tileTone(product.id)), dimmed(QColor(0x8D8577)), 60, 0.0001);
    if (style == "sponge") return lines(dimmed(QColor(0xE9DFA9)), dimmed(QColor(0xC9BC7C)), 7, 0.8);
    if (style == "panel") { // plies
        const QColor ground = dimmed(sheetTone(product.id));
        painter.fillRect(layer, ground);
        painter.setPen(QPen(ground.darker(130), 1));
        const int plies = std::clamp(static_cast<int>(layer.height() / 5), 2, 13);
        for (int i = 1; i < plies; ++i) {
            const double y = layer.top() + layer.height() * i / plies;
            painter.drawLine(QPointF(layer.left(), y), QPointF(layer.right(), y));
        }
        return;
    }
    if (style == "lining") {
        QPainterPath path;
        path.addRect(layer);
        return paintLining(painter, path, liningTone(product.id));
    }
    lines(dimmed(woodTone(product.id)), dimmed(woodTone(product.id)).darker(140), 26, 0.6);
}

} // namespace

void paintSectionFill(QPainter& painter, const QRectF& layer, const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    if (!family) return;
    painter.save();
    painter.setClipRect(layer, Qt::IntersectClip);
    const auto lines = [&](const QColor& ground, const QColor& ink, double step, double lean) {
        painter.fillRect(layer, ground);
        painter.setPen(QPen(ink, 1));
        for (double x = layer.left() - std::abs(lean) * layer.height();
             x < layer.right() + std::abs(lean) * layer.height(); x += step)
            painter.drawLine(QPointF(x, layer.bottom()), QPointF(x + lean * layer.height(), layer.top()));
    };
    switch (family->role) {
    case LayerRole::Barrier: lines(dimmed(QColor(0xB6C2C6)), dimmed(QColor(0x5D6B70)), 9, 0.001); break;
    case LayerRole::Insulation: { // the wavy line of soft stuff
        const QColor ground = dimmed(QColor(0xE7D9B4));
        painter.fillRect(layer, ground);
        painter.setPen(QPen(ground.darker(135), 1.3));
        // Along the layer, whichever way it lies.
        const bool upright = layer.height() > layer.width();
        const double thick = upright ? layer.width() : layer.height(), along = upright ? layer.height() : layer.width();
        const auto point = [&](double a, double share) {
            return upright ? QPointF(layer.left() + thick * share, layer.top() + a)
                           : QPointF(layer.left() + a, layer.top() + thick * share);
        };
        QPainterPath wave(point(0, 0.5));
        const double half = std::clamp(thick / 2, 6.0, 40.0);
        for (double a = 0; a < along; a += half)
            wave.cubicTo(point(a + half * 0.5, 0), point(a + half * 0.5, 1), point(a + half, 0.5));
        painter.drawPath(wave);
        break;
    }
    case LayerRole::Batten: lines(dimmed(woodTone(product.id)), dimmed(woodTone(product.id)).darker(135), 22, 1); break;
    case LayerRole::Underlay: lines(dimmed(QColor(0x9FB3A2)), dimmed(QColor(0x62766A)), 5, 0.5); break;
    case LayerRole::Adhesive: painter.fillRect(layer, dimmed(QColor(0xC9B8C6))); break;
    case LayerRole::Coating: painter.fillRect(layer, dimmed(QColor(0x8AA0B5))); break;
    case LayerRole::Finish: paintFinishFill(painter, layer, product, lines); break;
    case LayerRole::Trim:
    case LayerRole::Sundry: break;
    }
    painter.restore();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(Theme::now().graphite, 1));
    painter.drawRect(layer);
}

} // namespace westrum
