#include "app/stages/setout/cushion_picture.h"

#include "app/drawing/finish_style.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "core/geometry/boolean.h"
#include "core/setout/cushion.h"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

/// Seen from the front, a little from the right and from above; what is further away is smaller.
class Eye {
public:
    Eye(const Bounds& b, double height)
        : middle_((b.low + b.high) * 0.5), far_(3.2 * std::max({b.width(), b.height(), height})) {}

    struct Seen {
        QPointF at;
        double depth{};
    };
    [[nodiscard]] Seen see(Point p, double z) const {
        constexpr double turn = -24 * std::numbers::pi / 180, tilt = 32 * std::numbers::pi / 180;
        const Point d = p - middle_;
        const double x = d.x * std::cos(turn) - d.y * std::sin(turn), y = d.x * std::sin(turn) + d.y * std::cos(turn);
        const double depth = y * std::cos(tilt) - z * std::sin(tilt), up = y * std::sin(tilt) + z * std::cos(tilt);
        const double k = far_ / (far_ + depth);
        return {{x * k, -up * k}, depth};
    }

private:
    Point middle_;
    double far_;
};

} // namespace

CushionPicture::CushionPicture(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("cushionPicture"));
    setAccessibleName(tr("The cushion in perspective"));
    setFixedWidth(270);
}

void CushionPicture::show(const SetOut& setOut, const FieldValues& rules, const Product& cloth) {
    shapes_ = setOut.net;
    height_ = setOut.cushionHeight.value;
    rules_ = rules;
    cloth_ = cloth;
    update();
}

namespace {

struct Face {
    QPolygonF shape;
    double depth{};
    double light{};
    bool top = false;
    std::vector<QPointF> piping;
};

/// One cushion, seen by `map` and `eye`.
template <class Map>
void paintCushion(QPainter& p, const Region& cushion, const Eye& eye, const Map& map, double height, double knife,
                  const CushionRules& rules, const QColor& base, const Product& cloth) {
    const Ring& ring = cushion.rings.front();
    std::vector<Face> faces;
    const Bounds own = boundsOf(ring);
    const Point middle = (own.low + own.high) * 0.5;
    const auto rim = [&](Point q) { // a knife-edge rises towards its middle
        return knife > 0 ? middle + (q - middle) * 0.62 : q;
    };
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point q = ring[i], r = ring[(i + 1) % ring.size()];
        Face f;
        const double foot = knife > 0 ? knife : 0;
        f.shape << map(q, foot) << map(r, foot) << map(rim(r), height) << map(rim(q), height);
        f.depth = eye.see((q + r) * 0.5, height / 2).depth;
        const Point d = r - q;
        const double l = std::max(1e-9, std::hypot(d.x, d.y));
        f.light = 0.5 + 0.32 * (d.y / l) * 0.6 - 0.2 * (-d.x / l); // lit from the upper left
        faces.push_back(std::move(f));
    }
    std::sort(faces.begin(), faces.end(), [](const Face& x, const Face& y) { return x.depth > y.depth; });
    const auto draw = [&](const Face& f) {
        p.setPen(QPen(base.darker(190), 0.8));
        p.setBrush(base.darker(static_cast<int>(100 + 70 * (1 - std::clamp(f.light, 0.0, 1.0)))));
        p.drawPolygon(f.shape);
    };
    for (const Face& f : faces) draw(f);
    const bool piped = rules.piping != Piping::None && rules.style != CushionStyle::Wrapped;
    p.setPen(QPen(base.darker(230), 3, Qt::SolidLine, Qt::RoundCap));
    if (piped) { // the lower run, where its side faces the eye
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point d = ring[(i + 1) % ring.size()] - ring[i];
            const Point outwards{d.y, -d.x};
            if (eye.see(ring[i] + outwards * 0.01, 0).depth < eye.see(ring[i], 0).depth)
                p.drawLine(map(ring[i], knife), map(ring[(i + 1) % ring.size()], knife));
        }
    }
    QPainterPath top;
    QPolygonF upper;
    for (const Point& q : ring) upper << map(rim(q), height);
    top.addPolygon(upper);
    top.closeSubpath();
    paintRoll(p, top, cloth);
    p.setBrush(Qt::NoBrush);
    p.setPen(
        QPen(piped ? base.darker(230) : base.darker(180), piped ? 3 : 1.2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPath(top);
}

} // namespace

void CushionPicture::paintEvent(QPaintEvent*) {
    if (!cloth_ || shapes_.empty() || height_ <= 0) return;
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const CushionRules rules = cushionRulesOf(rules_);
    const Bounds b = boundsOf(shapes_);
    const Eye eye(b, height_);
    // To scale within the widget.
    QRectF all;
    for (const Ring& ring : shapes_.rings)
        for (const Point& q : ring)
            for (const double z : {0.0, height_}) {
                const QPointF at = eye.see(q, z).at;
                all = all.isNull() ? QRectF(at, QSizeF(0.1, 0.1)) : all.united(QRectF(at, QSizeF(0.1, 0.1)));
            }
    const QRectF into = QRectF(rect()).adjusted(10, 10, -10, -34);
    const double k = std::min(into.width() / std::max(1.0, all.width()), into.height() / std::max(1.0, all.height()));
    const auto map = [&](Point q, double z) {
        const QPointF at = eye.see(q, z).at;
        return into.center() + (at - all.center()) * k;
    };
    const double knife = rules.style == CushionStyle::KnifeEdge ? height_ / 2 : 0;
    std::vector<Region> cushions = partsOf(shapes_);
    std::sort(cushions.begin(), cushions.end(), [&](const Region& one, const Region& two) {
        const Bounds x = boundsOf(one), y = boundsOf(two);
        return eye.see((x.low + x.high) * 0.5, 0).depth > eye.see((y.low + y.high) * 0.5, 0).depth;
    });
    const QColor base = t.dark ? liningTone(cloth_->id).darker(125) : liningTone(cloth_->id).lighter(108);
    for (const Region& cushion : cushions) paintCushion(p, cushion, eye, map, height_, knife, rules, base, *cloth_);
    p.setPen(t.muted);
    p.setFont(textFont(0.8));
    p.drawText(QRectF(0, height() - 24.0, width(), 20), Qt::AlignHCenter, tr("as it will look, from the front right"));
}

} // namespace westrum
