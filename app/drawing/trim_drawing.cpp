#include "app/drawing/trim_drawing.h"

#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"
#include "core/setout/trim_section.h"
#include "formats/trim_words.h"

#include <QCoreApplication>

#include <cmath>
#include <numbers>

namespace westrum {
namespace {

struct TrimDrawing {
    Q_DECLARE_TR_FUNCTIONS(TrimDrawing)
};

bool bead(Profile p) { return p == Profile::SealantBead; }
bool soft(Profile p) { return p == Profile::BoundEdge || p == Profile::PushOnEdging; }

QPolygonF onScreen(const PlanView& v, const Ring& line) {
    QPolygonF all;
    for (Point q : line) all << v.map(q);
    return all;
}

/// The line moved inwards on the screen, so that a trim lies within its surface: its left in surface coordinates.
QPolygonF shifted(const QPolygonF& line, double by) {
    QPolygonF out;
    for (int i = 0; i < line.size(); ++i) {
        const QPointF before = i > 0 ? line[i] - line[i - 1] : line[i + 1] - line[i];
        const QPointF after = i + 1 < line.size() ? line[i + 1] - line[i] : before;
        QPointF d = before / std::max(1e-6, std::hypot(before.x(), before.y())) +
                    after / std::max(1e-6, std::hypot(after.x(), after.y()));
        d /= std::max(1e-6, std::hypot(d.x(), d.y()));
        out << line[i] + QPointF(d.y(), -d.x()) * by;
    }
    return out;
}

void dot(QPainter& p, QPointF at, const TrimJoint& j, bool inHand) {
    const Theme& t = Theme::now();
    p.setPen(QPen(inHand ? t.chalk : t.graphite, inHand ? 2.4 : 1.6));
    p.setBrush(inHand ? t.chalk : t.raised);
    const double r = 6;
    switch (j.end) {
    case TrimEnd::Angled:
    case TrimEnd::Mitred: { // a cut at a slant
        p.drawEllipse(at, r, r);
        p.setPen(QPen(inHand ? t.paper : t.pencil, 2));
        p.drawLine(at + QPointF(-3.5, 3.5), at + QPointF(3.5, -3.5));
        break;
    }
    case TrimEnd::Coped: { // a curve sawn back
        p.drawEllipse(at, r, r);
        p.setPen(QPen(inHand ? t.paper : t.pencil, 2));
        p.drawArc(QRectF(at - QPointF(3.5, 3.5), QSizeF(7, 7)), 60 * 16, 200 * 16);
        break;
    }
    case TrimEnd::Blocked: p.drawRect(QRectF(at - QPointF(r, r), QSizeF(2 * r, 2 * r))); break;
    case TrimEnd::Scarfed: {
        p.drawPolygon(
            QPolygonF{at + QPointF(-r - 2, 0), at + QPointF(0, -r), at + QPointF(r + 2, 0), at + QPointF(0, r)});
        break;
    }
    case TrimEnd::Butted: {
        p.drawEllipse(at, r, r);
        p.setPen(QPen(inHand ? t.paper : t.graphite, 1.6));
        p.drawLine(at + QPointF(0, -3.5), at + QPointF(0, 3.5));
        p.drawLine(at + QPointF(-3.5, 0), at + QPointF(0, 0));
        break;
    }
    case TrimEnd::Square: p.drawEllipse(at, 3.5, 3.5); break;
    }
}

} // namespace

Ring runLineOn(const TrimRun& run, const Job& job, const Plan& plan, const std::string& surface) {
    if (run.surface == surface) return run.path;
    if (run.neighbour != surface || run.side < 0) return {};
    const Surface* owner = job.surface(run.surface);
    const SurfacePlan* planned = plan.surface(surface);
    if (!owner || !planned) return {};
    const Edge e = owner->edge(run.side);
    if (e.kind != EdgeKind::Meets || e.surface != surface || e.side < 0 ||
        e.side >= static_cast<int>(planned->measured.sides.size()))
        return {};
    return planned->measured.sides[static_cast<std::size_t>(e.side)];
}

std::vector<std::pair<JointPlace, Point>> jointPlaces(const Plan& plan, const std::string& surface) {
    std::vector<std::pair<JointPlace, Point>> all;
    for (std::size_t r = 0; r < plan.trims.runs.size(); ++r) {
        const TrimRun& run = plan.trims.runs[r];
        // What bends round a corner, or is run on, has no end to saw.
        if (run.surface != surface || run.product.empty() || bead(run.profile) || soft(run.profile)) continue;
        for (std::size_t k = 0; k < run.pieces.size(); ++k) {
            const TrimPiece& piece = run.pieces[k];
            // Each end stands a little into its piece, so that two that meet are told apart.
            const auto into = [](const Ring& path, bool atEnd) {
                const Point a = atEnd ? path.back() : path.front();
                const Point b = atEnd ? path[path.size() - 2] : path[1];
                const double l = distance(a, b);
                return a + (b - a) * (l > 0 ? std::min(0.35, 70 / l) : 0);
            };
            if (piece.path.size() < 2) continue;
            const auto index = [&](bool atEnd) { return JointPlace{static_cast<int>(r), static_cast<int>(k), atEnd}; };
            all.emplace_back(index(false), into(piece.path, false));
            all.emplace_back(index(true), into(piece.path, true));
        }
    }
    return all;
}

const TrimJoint* jointAt(const Plan& plan, const JointPlace& place) {
    if (place.run < 0 || place.run >= static_cast<int>(plan.trims.runs.size())) return nullptr;
    const TrimRun& run = plan.trims.runs[static_cast<std::size_t>(place.run)];
    if (place.piece < 0 || place.piece >= static_cast<int>(run.pieces.size())) return nullptr;
    const TrimPiece& piece = run.pieces[static_cast<std::size_t>(place.piece)];
    return place.atEnd ? &piece.end : &piece.start;
}

void paintTrims(QPainter& p, const PlanView& v, const Job& job, const Plan& plan, const std::string& surface,
                const TrimMarks& marks) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t r = 0; r < plan.trims.runs.size(); ++r) {
        const TrimRun& run = plan.trims.runs[r];
        const Ring line = runLineOn(run, job, plan, surface);
        if (line.size() < 2) continue;
        const Product* product = job.catalogue.find(run.product);
        const bool inHand = static_cast<int>(r) == marks.runInHand;
        const double width =
            std::clamp((product ? trimOf(*product).width.value : 20) * v.scale(), marks.leastWidth, 14.0);
        const QPolygonF path =
            shifted(onScreen(v, line), run.side < 0 && run.meeting == EdgeMeeting::PanelJoint ? 0 : width / 2);
        QColor tone = !product            ? t.pencil
                      : bead(run.profile) ? QColor(0xF2F0EA)
                      : soft(run.profile) ? QColor(0x3A3B3D)
                                          : woodTone(product->id);
        if (t.dark) tone = tone.darker(125);
        p.setBrush(Qt::NoBrush);
        if (inHand) {
            p.setPen(QPen(t.chalk, width + 6, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
            p.drawPolyline(path);
        }
        p.setPen(QPen(tone.darker(190), width + marks.leastWidth / 2, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
        p.drawPolyline(path);
        p.setPen(QPen(tone, width, product ? Qt::SolidLine : Qt::DashLine, Qt::FlatCap, Qt::MiterJoin));
        p.drawPolyline(path);
        if (soft(run.profile)) {
            p.setPen(QPen(tone.lighter(230), 1.2, Qt::DashLine));
            p.drawPolyline(path);
        }
        // Where one piece ends and the next begins.
        if (run.surface == surface && marks.joints)
            for (std::size_t k = 1; k < run.pieces.size(); ++k) {
                const QPointF at = v.map(run.pieces[k].path.front());
                p.setPen(QPen(t.pencil, 2));
                p.drawEllipse(at, 2, 2);
            }
    }
    if (marks.joints)
        for (const auto& [place, at] : jointPlaces(plan, surface))
            dot(p, v.map(at), *jointAt(plan, place), place == marks.jointInHand);
    p.restore();
}

void paintCope(QPainter& p, const QRectF& into, const TrimLength& over, const TrimJoint& j, bool atEnd,
               const Figures& figures) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const Ring section = trimSection(over);
    const Ring line = copeLine(section, j.planRad);
    const Bounds s = boundsOf(section), c = boundsOf(line);
    const QFontMetricsF metrics(textFont(0.75));
    const double labels = metrics.height() + 4;
    // Room for the section, a gap, the piece and the depths beside it.
    const double beside = metrics.horizontalAdvance(QStringLiteral("88.8 mm")) + 10, gap = 26;
    const double stub = std::max(1.2 * c.width(), 0.6 * s.height());
    const double scale = std::min((into.height() - 2 * labels) / s.height(),
                                  (into.width() - gap - beside) / (s.width() + c.width() + stub));
    const double foot = into.bottom() - labels;
    const auto draw = [&](const Ring& ring, double x0, double sign, bool closed) {
        QPainterPath path;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const QPointF at(x0 + sign * ring[i].x * scale, foot - (ring[i].y - s.low.y) * scale);
            i == 0 ? path.moveTo(at) : path.lineTo(at);
        }
        if (closed) path.closeSubpath();
        return path;
    };
    p.setFont(textFont(0.75));
    p.setPen(QPen(t.graphite, 1.4));
    p.setBrush(QBrush(t.graphite, Qt::BDiagPattern));
    p.drawPath(draw(section, into.left() + 2, 1, true));
    p.setPen(QPen(t.ruleDark, 3)); // the face it is fixed to
    p.drawLine(QPointF(into.left(), foot + 3), QPointF(into.left(), foot - s.height() * scale - 3));
    p.setPen(t.muted);
    p.drawText(QRectF(into.left(), foot + 3, s.width() * scale + gap + 60, labels), Qt::AlignLeft,
               TrimDrawing::tr("it fits over this"));
    // The piece's end, its foot below; sawn at the right where that is its end.
    const double left = into.left() + s.width() * scale + gap, wide = (c.width() + stub) * scale;
    const double edge = atEnd ? left + wide : left, sign = atEnd ? -1 : 1;
    Ring piece = line;
    piece.push_back({c.width() + stub, s.high.y});
    piece.push_back({c.width() + stub, s.low.y});
    const QPainterPath shape = draw(piece, edge, sign, true);
    paintPlank(p, shape, shape.boundingRect(), QColor(0xC79A63), 5, true);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.pencil, 2.4));
    p.drawPath(draw(line, edge, sign, false));
    p.setPen(QPen(t.muted, 1, Qt::DotLine));
    p.drawLine(QPointF(edge, foot + 3), QPointF(edge, foot - s.height() * scale - 3));
    p.setPen(t.graphite);
    for (const std::size_t i : {std::size_t{0}, line.size() / 2, line.size() - 1}) {
        const QPointF at(edge + sign * line[i].x * scale, foot - (line[i].y - s.low.y) * scale);
        const QRectF box(left + wide + 4, std::clamp(at.y() - labels / 2, into.top(), foot - labels / 2), beside,
                         labels);
        p.drawText(box, Qt::AlignLeft | Qt::AlignVCenter, figures.fineLength({line[i].x}));
    }
    p.setPen(t.muted);
    p.drawText(QRectF(left, foot + 3, wide + beside, labels), Qt::AlignLeft, TrimDrawing::tr("trace, cut back by"));
    p.restore();
}

void paintSaw(QPainter& p, const QRectF& into, const TrimJoint& j, bool atEnd, const Figures& figures) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double w = into.width();
    // From above: the fence at the back, the piece before it on its back, its lower edge against the fence.
    const QRectF above(into.left(), into.top(), w, into.height() * 0.66);
    p.setPen(Qt::NoPen);
    p.setBrush(t.ruleDark);
    p.drawRect(QRectF(above.left(), above.top() + 14, w, 8));
    p.setFont(textFont(0.75));
    p.setPen(t.muted);
    p.drawText(QRectF(above.left(), above.top() - 2, w, 16), Qt::AlignLeft, TrimDrawing::tr("fence, from above"));
    const double top = above.top() + 24, height = std::min(46.0, above.height() - 62);
    const double slope = std::clamp(std::tan(std::min(j.saw.mitreRad, 1.4)) * height, 0.0, w * 0.6);
    const bool lowerLonger = j.saw.longEdge != LongEdge::Top; // the lower edge lies at the fence
    const double blade = into.left() + w * (atEnd ? 0.62 : 0.38);
    const double sign = atEnd ? 1 : -1;
    const double atFence = blade + (lowerLonger ? sign : -sign) * slope / 2,
                 atFront = blade - (lowerLonger ? sign : -sign) * slope / 2;
    const double tail = atEnd ? into.left() : into.right();
    QPainterPath piece;
    piece.addPolygon(QPolygonF{{tail, top}, {atFence, top}, {atFront, top + height}, {tail, top + height}});
    piece.closeSubpath();
    paintPlank(p, piece, piece.boundingRect(), QColor(0xC79A63), 3, true);
    p.setPen(QPen(t.pencil, 2, Qt::DashLine));
    const double run = (atFront - atFence) / height;
    p.drawLine(QPointF(atFence - run * 18, top - 18), QPointF(atFront + run * 16, top + height + 16));
    p.setPen(QPen(t.muted, 1, Qt::DotLine));
    p.drawLine(QPointF(atFence, top), QPointF(atFence, top + height + 16));
    p.setPen(t.graphite);
    p.setFont(textFont(0.85, true));
    const auto degrees = [&](double rad) {
        return figures.number(rad * 180 / std::numbers::pi, 1) + QStringLiteral("°");
    };
    p.drawText(QRectF(above.left(), top + height + 16, w, 18), Qt::AlignHCenter,
               TrimDrawing::tr("mitre %1").arg(degrees(j.saw.mitreRad)));
    // From the front: the table, and the blade as it leans.
    const double y = into.bottom() - 24, x = into.center().x();
    const double tall = std::max(20.0, into.height() * 0.34 - 40);
    p.setPen(Qt::NoPen);
    p.setBrush(t.ruleDark);
    p.drawRect(QRectF(into.left() + w * 0.15, y, w * 0.7, 5));
    const double lean = std::sin(j.saw.bevelRad) * tall * (atEnd ? -1 : 1), up = std::cos(j.saw.bevelRad) * tall;
    p.setPen(QPen(t.faint, 1, Qt::DotLine));
    p.drawLine(QPointF(x, y), QPointF(x, y - tall));
    p.setPen(QPen(t.pencil, 3, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(QPointF(x, y), QPointF(x + lean, y - up));
    p.setPen(t.muted);
    p.setFont(textFont(0.75));
    p.drawText(QRectF(into.left(), y - tall - 4, w * 0.4, 16), Qt::AlignLeft, TrimDrawing::tr("blade, from the front"));
    p.setPen(t.graphite);
    p.setFont(textFont(0.85, true));
    p.drawText(QRectF(into.left(), y + 6, w, 18), Qt::AlignHCenter,
               TrimDrawing::tr("bevel %1").arg(degrees(j.saw.bevelRad)));
    p.restore();
}

} // namespace westrum
