#include "app/drawing/cut_drawing.h"

#include "app/drawing/dimension.h"
#include "app/drawing/finish_style.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"

#include <QCoreApplication>
#include <QFontMetricsF>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

struct CutDrawing {
    Q_DECLARE_TR_FUNCTIONS(CutDrawing)
};

constexpr double kBarShare = 0.1; ///< what is narrower for its length is a bar

struct Line {
    QString text;
    bool bold;
};

/// Where a label of that size lies wholly on the piece, as near its middle as can be; nothing if nowhere.
std::optional<QPointF> roomFor(const QPainterPath& shape, QSizeF label) {
    const QRectF box = shape.boundingRect();
    if (label.width() > box.width() || label.height() > box.height()) return std::nullopt;
    std::optional<QPointF> best;
    double least = 0;
    constexpr int kSteps = 8;
    for (int i = 0; i <= kSteps; ++i)
        for (int j = 0; j <= kSteps; ++j) {
            const QPointF centre(box.left() + label.width() / 2 + (box.width() - label.width()) * i / kSteps,
                                 box.top() + label.height() / 2 + (box.height() - label.height()) * j / kSteps);
            const QPointF away = centre - box.center();
            const double d = std::hypot(away.x(), away.y());
            if (best && d >= least) continue;
            if (!shape.contains(QRectF(centre - QPointF(label.width() / 2, label.height() / 2), label))) continue;
            best = centre;
            least = d;
        }
    return best;
}

/// Name, size and surface, as much of it as there is room for; upright or, on a narrow piece, turned.
/// @return the box of what was written
QRectF paintWords(QPainter& p, const QPainterPath& shape, const QList<Line>& lines, const QColor& ink,
                  const QColor& ground) {
    for (const double relative : {0.85, 0.72})
        for (qsizetype shown = lines.size(); shown > 0; --shown)
            for (const bool turned : {false, true}) {
                double width = 0, height = 0;
                for (qsizetype i = 0; i < shown; ++i) {
                    const QFontMetricsF metrics(textFont(relative, lines[i].bold));
                    width = std::max(width, metrics.horizontalAdvance(lines[i].text) + 4);
                    height += metrics.height() - 1;
                }
                height += 2;
                const auto at = roomFor(shape, turned ? QSizeF(height, width) : QSizeF(width, height));
                if (!at) continue;
                if (shown < lines.size() && relative > 0.8 && shown == 1) continue; // smaller rather than less
                p.save();
                p.translate(*at);
                if (turned) p.rotate(-90);
                p.setPen(Qt::NoPen);
                p.setBrush(ground);
                p.drawRoundedRect(QRectF(-width / 2, -height / 2, width, height), 3, 3);
                p.setPen(ink);
                double y = -height / 2 + 1;
                for (qsizetype i = 0; i < shown; ++i) {
                    p.setFont(textFont(relative, lines[i].bold));
                    const double h = QFontMetricsF(p.font()).height() - 1;
                    p.drawText(QRectF(-width / 2, y - 1, width, h + 2), Qt::AlignCenter, lines[i].text);
                    y += h;
                }
                p.restore();
                const QSizeF box = turned ? QSizeF(height, width) : QSizeF(width, height);
                return {*at - QPointF(box.width() / 2, box.height() / 2), box};
            }
    return {};
}

void paintArrow(QPainter& p, QPointF at, double angleRad, const QColor& colour) {
    p.save();
    p.translate(at);
    p.rotate(-angleRad * 180 / std::numbers::pi);
    p.setPen(QPen(colour, 1.3));
    p.drawLine(QPointF(-9, 0), QPointF(9, 0));
    p.drawLine(QPointF(9, 0), QPointF(4, -3.5));
    p.drawLine(QPointF(9, 0), QPointF(4, 3.5));
    p.restore();
}

void paintMaterial(QPainter& p, const QPainterPath& path, StockForm form, const Job& job, const std::string& product,
                   unsigned seed, bool alongX) {
    if (form == StockForm::Roll) {
        if (const Product* known = job.catalogue.find(product)) paintRoll(p, path, *known);
        return;
    }
    paintPlank(p, path, path.boundingRect(), woodTone(product), seed, alongX);
}

QString nameOfSurface(const Job& job, const std::string& id) {
    const Surface* surface = job.surface(id);
    return surface ? QString::fromStdString(surface->name) : QString();
}

void paintStrokes(QPainter& p, const PlanView& view, const CutItem& item) {
    const Theme& t = Theme::now();
    int number = 0;
    std::vector<std::pair<QPointF, int>> numbers; // over all strokes, so that none is crossed out
    for (const CutStep& step : item.order) {
        ++number;
        if (step.kind == CutStep::Kind::ByOutline) continue;
        const bool across = step.kind == CutStep::Kind::Across;
        const QPointF a = across ? view.map({step.atMm, step.fromMm}) : view.map({step.fromMm, step.atMm});
        const QPointF b = across ? view.map({step.atMm, step.toMm}) : view.map({step.toMm, step.atMm});
        // The kerf lies on the far side of the line.
        const double kerf = std::max(2.0, item.kerfMm * view.scale());
        QColor dust = t.pencil;
        dust.setAlpha(60);
        p.fillRect(across ? QRectF(QPointF(a.x(), b.y()), QPointF(a.x() + kerf, a.y()))
                          : QRectF(QPointF(a.x(), a.y() - kerf), QPointF(b.x(), a.y())),
                   dust);
        p.setPen(QPen(t.pencil, 1.6));
        p.drawLine(a, b);
        // What is trimmed off the edges needs no number: it is done before anything is marked.
        const bool trimming = step.frees.empty() && number <= 4 &&
                              (step.atMm < 30 || step.atMm > (across ? item.lengthMm : item.widthMm) - 30);
        if (!trimming) numbers.emplace_back((a + b) / 2, number);
    }
    p.setFont(textFont(0.75, true));
    const QFontMetricsF metrics(p.font());
    for (const auto& [at, n] : numbers) {
        const QString text = QString::number(n);
        QRectF chip(0, 0, metrics.horizontalAdvance(text) + 6, metrics.height() - 1);
        chip.moveCenter(at);
        p.setPen(QPen(t.pencil, 1));
        p.setBrush(t.raised);
        p.drawRoundedRect(chip, 3, 3);
        p.drawText(chip, Qt::AlignCenter, text);
    }
}

} // namespace

QString sizeText(double lengthMm, double widthMm, StockForm form, const Figures& f) {
    if (form == StockForm::Lengths) return f.fineLength({lengthMm}, false);
    return CutDrawing::tr("%1 × %2").arg(f.length({lengthMm}, false), f.length({widthMm}, false));
}

QString sizeText(const CutPiece& piece, StockForm form, const Figures& figures) {
    return sizeText(piece.lengthMm(), piece.widthMm(), form, figures);
}

QString itemName(const ProductCut& cut, std::size_t index, const std::string& family) {
    const CutItem& item = cut.items[index];
    const ProductFamily* known = productFamily(family);
    const CountedAs counted = known ? known->counted : CountedAs::Lengths;
    int number = 0; // among those of its kind
    for (std::size_t i = 0; i <= index; ++i)
        if (cut.items[i].rack == item.rack && cut.items[i].decided == item.decided) ++number;
    if (item.rack) {
        const QString name = QString::fromStdString(item.name);
        return item.stock.starts_with(kOffcutOf) ? (counted == CountedAs::Planks ? CutDrawing::tr("Offcut of plank %1")
                                                                                 : CutDrawing::tr("Sawn out of %1"))
                                                       .arg(name)
               : name.isEmpty() ? CutDrawing::tr("From the rack %1").arg(number)
                                : CutDrawing::tr("From the rack: %1").arg(name);
    }
    QString name;
    switch (counted) {
    case CountedAs::Planks: name = CutDrawing::tr("Plank %1").arg(item.decided ? number : int(index) + 1); break;
    case CountedAs::Boards: name = CutDrawing::tr("Board %1").arg(number); break;
    case CountedAs::Batts: name = CutDrawing::tr("Batt %1").arg(number); break;
    case CountedAs::Sheets: name = CutDrawing::tr("Sheet %1").arg(number); break;
    case CountedAs::Tiles: name = CutDrawing::tr("Tile %1").arg(number); break;
    case CountedAs::MetresOfRoll:
        name = number > 1 || cut.items.size() > 1 ? CutDrawing::tr("Run %1 of the roll").arg(number)
                                                  : CutDrawing::tr("The roll");
        break;
    case CountedAs::Lengths: name = CutDrawing::tr("Length %1").arg(number); break;
    }
    if (!item.stock.empty()) name = CutDrawing::tr("%1, %2").arg(name, QString::fromStdString(item.name));
    return name;
}

CutItem widened(CutItem item, double by) {
    if (by == 1) return item;
    item.widthMm *= by;
    const auto grow = [&](Region& region) {
        for (Ring& ring : region.rings)
            for (Point& p : ring) p.y *= by;
    };
    grow(item.shape);
    for (LyingPiece& l : item.pieces) grow(l.shape);
    for (LeftRectangle& l : item.left) {
        l.y *= by;
        l.heightMm *= by;
    }
    for (CutStep& s : item.order) {
        if (s.kind == CutStep::Kind::Across) s.toMm *= by;
        if (s.kind == CutStep::Kind::Along) s.atMm *= by;
    }
    return item;
}

QString cutCaution(StockForm form) {
    return form == StockForm::Roll
               ? CutDrawing::tr(
                     "A fresh blade, the hand behind it, the stroke away from the body; rule with a finger guard.")
               : CutDrawing::tr(
                     "Stock held down, guard on, push stick, eyes, ears and dust: what the saw’s own instructions "
                     "say comes first.");
}

namespace {

/// Where on the piece it lies: from its left end, and how deep from which edge.
QString notchText(const CutItem& item, const CutStep& step, const Bounds& notch, const Figures& f) {
    constexpr double kAt = 1; // mm: so near an edge it reaches it
    const double length = step.toMm - step.fromMm;
    double width = item.widthMm;
    for (const int i : step.frees)
        if (i >= 0 && i < int(item.pieces.size())) width = boundsOf(item.pieces[std::size_t(i)].shape).height();
    const QString from = f.length({notch.low.x}, false), to = f.length({notch.high.x}, false);
    const bool lower = notch.low.y<kAt, upper = notch.high.y> width - kAt;
    if (lower && upper)
        return notch.low.x < kAt             ? CutDrawing::tr("its left end back to %1").arg(to)
               : notch.high.x > length - kAt ? CutDrawing::tr("its right end back to %1").arg(from)
                                             : CutDrawing::tr("right through from %1 to %2").arg(from, to);
    if (lower)
        return CutDrawing::tr("from %1 to %2, %3 in from the lower edge")
            .arg(from, to, f.length({notch.high.y}, false));
    if (upper)
        return CutDrawing::tr("from %1 to %2, %3 in from the upper edge")
            .arg(from, to, f.length({width - notch.low.y}, false));
    return CutDrawing::tr("a hole from %1 to %2, %3 to %4 up")
        .arg(from, to, f.length({notch.low.y}, false), f.length({notch.high.y}, false));
}

} // namespace

QString stepText(const CutItem& item, const CutStep& step, const Figures& f) {
    QString text;
    constexpr double kTrimmed = 30; // what is trimmed off the edges makes no difference
    // Of a bar the part is the piece, whose length stands beside it.
    const bool part = std::abs(step.partAtMm - step.atMm) > 0.05 && item.widthMm > item.lengthMm * kBarShare;
    switch (step.kind) {
    case CutStep::Kind::Across:
        text = part ? CutDrawing::tr("across at %1 (part %2)")
                          .arg(f.fineLength({step.atMm}, false), f.fineLength({step.partAtMm}, false))
                    : CutDrawing::tr("across at %1").arg(f.fineLength({step.atMm}, false));
        if (step.fromMm > kTrimmed || step.toMm < item.widthMm - kTrimmed)
            text +=
                CutDrawing::tr(", between %1 and %2").arg(f.length({step.fromMm}, false), f.length({step.toMm}, false));
        break;
    case CutStep::Kind::Along:
        text = CutDrawing::tr("along at %1").arg(f.fineLength({step.atMm}, false));
        if (step.fromMm > kTrimmed || step.toMm < item.lengthMm - kTrimmed)
            text +=
                CutDrawing::tr(", between %1 and %2").arg(f.length({step.fromMm}, false), f.length({step.toMm}, false));
        break;
    case CutStep::Kind::ByOutline:
        text = CutDrawing::tr("by its outline, %1 to %2")
                   .arg(f.length({step.fromMm}, false), f.length({step.toMm}, false));
        for (const Bounds& notch : step.notches) text += QStringLiteral("; ") + notchText(item, step, notch, f);
        if (step.seenBehind) text += CutDrawing::tr("; all of it seen from behind");
        break;
    }
    QStringList free;
    for (const int i : step.frees)
        if (i >= 0 && i < int(item.pieces.size())) free << pieceText(item.pieces[std::size_t(i)].name);
    return free.isEmpty() ? text : text + QStringLiteral("  →  ") + free.join(QStringLiteral(", "));
}

namespace {

/// What is worth keeping of an item.
void paintLeft(QPainter& p, const PlanView& view, const ProductCut& cut, const CutItem& item, const Figures& figures,
               bool named) {
    const Theme& t = Theme::now();
    for (const LeftRectangle& left : item.left) {
        const QRectF box(view.map({left.x, left.y + left.heightMm}), view.map({left.x + left.widthMm, left.y}));
        QPainterPath path;
        path.addRect(box);
        p.setPen(QPen(t.agreed, 1.4, Qt::DashLine));
        p.setBrush(t.agreedWash);
        p.drawPath(path);
        if (named)
            paintWords(
                p, path,
                {{sizeText(left.widthMm, left.heightMm, cut.form, figures), true}, {CutDrawing::tr("to keep"), false}},
                t.agreed, Qt::transparent);
    }
}

/// Sides that were to lie on the sheet's own edge: a heavy line where they do, a dotted one in pencil where not.
void paintWantedEdges(QPainter& p, const PlanView& view, const CutPiece& piece, const LyingPiece& lies) {
    if (piece.wants == FactoryEdges{}) return;
    const Theme& t = Theme::now();
    const bool turned = std::abs(lies.rotationRad) > 0.1;
    const FactoryEdges& w = piece.wants;
    const FactoryEdges wants = turned ? FactoryEdges{w.far, w.near, w.left, w.right} : w;
    const Bounds b = boundsOf(lies.shape);
    const auto line = [&](bool wanted, bool there, Point from, Point to) {
        if (!wanted) return;
        p.setPen(QPen(there ? t.agreed : t.pencil, there ? 4 : 2, there ? Qt::SolidLine : Qt::DotLine));
        p.drawLine(view.map(from), view.map(to));
    };
    line(wants.left, lies.onEdge.left, b.low, {b.low.x, b.high.y});
    line(wants.right, lies.onEdge.right, {b.high.x, b.low.y}, b.high);
    line(wants.near, lies.onEdge.near, b.low, {b.high.x, b.low.y});
    line(wants.far, lies.onEdge.far, {b.low.x, b.high.y}, b.high);
}

void paintLying(QPainter& p, const PlanView& view, const Job& job, const ProductCut& cut, const LyingPiece& lies,
                bool inHand, bool lit) {
    const Theme& t = Theme::now();
    const QPainterPath path = view.path(lies.shape);
    const CutPiece* piece = lies.piece >= 0 ? &cut.pieces[std::size_t(lies.piece)] : nullptr;
    const bool alongX = std::abs(std::sin(lies.rotationRad)) < 0.7;
    paintMaterial(p, path, cut.form, job, cut.product, unsigned(lies.piece + 2), alongX);
    if (lit || lies.cut) {
        QColor wash = lit ? t.chalk : t.agreed;
        wash.setAlpha(lit ? 90 : 60);
        p.setPen(Qt::NoPen);
        p.setBrush(wash);
        p.drawPath(path);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(inHand || lit ? t.chalk
                  : piece       ? t.graphite
                                : t.muted,
                  inHand ? 3
                  : lit  ? 2
                         : 1,
                  piece ? Qt::SolidLine : Qt::DashLine));
    p.drawPath(path);
    if (piece) paintWantedEdges(p, view, *piece, lies);
    // A bar is drawn wider than it is: so is what is on it.
    const Bounds box = boundsOf(lies.shape);
    const double wider =
        piece && cut.form == StockForm::Lengths && piece->widthMm() > 0 ? box.height() / piece->widthMm() : 1;
    const auto drawn = [&](const Ring& line) {
        Ring lying = onStock(*piece, lies, line);
        if (wider != 1)
            for (Point& q : lying) q.y = box.low.y + (q.y - lies.at.y) * wider;
        return lying;
    };
    if (piece) { // fold and mark lines
        for (const auto* lines : {&piece->folds, &piece->marks}) {
            p.setPen(QPen(t.graphite, 1, lines == &piece->folds ? Qt::DashLine : Qt::DotLine));
            for (const Ring& line : *lines) {
                const Ring lying = drawn(line);
                for (std::size_t k = 1; k < lying.size(); ++k) p.drawLine(view.map(lying[k - 1]), view.map(lying[k]));
            }
        }
        if (!piece->cutAway.empty()) { // what is sawn out of it: paper again, under a hatch
            Region gone;
            for (const Ring& ring : piece->cutAway.rings) gone.rings.push_back(drawn(ring));
            const QPainterPath hole = view.path(gone);
            p.setPen(QPen(t.graphite, 1.2));
            p.setBrush(t.paper);
            p.drawPath(hole);
            p.setBrush(QBrush(t.muted, Qt::BDiagPattern));
            p.drawPath(hole);
            p.setBrush(Qt::NoBrush);
        }
        p.setPen(QPen(t.graphite, 1)); // holes to be drilled: a ring and its middle
        for (const CutPiece::Drill& d : piece->drills) {
            const QPointF at = view.map(drawn({d.at}).front());
            const double r = std::max(1.6, d.diameter.value / 2 * view.scale());
            p.drawEllipse(at, r, r);
        }
    }
}

/// Name, size and place of a piece, the way of its nap, and whether it is pinned.
void paintPieceWords(QPainter& p, const PlanView& view, const Job& job, const ProductCut& cut, const LyingPiece& lies,
                     bool locked, const Figures& figures) {
    const Theme& t = Theme::now();
    const QPainterPath path = view.path(lies.shape);
    const CutPiece* piece = lies.piece >= 0 ? &cut.pieces[std::size_t(lies.piece)] : nullptr;
    QList<Line> lines{{(lies.cut ? QStringLiteral("✓ ") : QString()) + pieceText(lies.name), true}};
    const Bounds b = boundsOf(lies.shape);
    lines << Line{piece ? sizeText(*piece, cut.form, figures) : sizeText(b.width(), b.height(), cut.form, figures),
                  false};
    if (piece && !piece->surface.empty()) lines << Line{nameOfSurface(job, piece->surface), false};
    if (!piece) lines << Line{CutDrawing::tr("of an earlier list"), false};
    if (cut.form == StockForm::Lengths) { // one line is all that a bar has room for
        QString text = lines[0].text + QStringLiteral("   ") + lines[1].text;
        if (lines.size() > 2) text += QStringLiteral("   ") + lines[2].text;
        lines = {{text, false}};
        if (QFontMetricsF(textFont(0.85)).horizontalAdvance(text) + 8 > path.boundingRect().width())
            lines = {{pieceText(lies.name), true}, {sizeText(b.width(), 0, cut.form, figures), false}};
    }
    QColor ground = cut.form == StockForm::Roll ? t.raised : QColor(Qt::transparent);
    if (cut.form == StockForm::Roll) ground.setAlpha(190);
    const QColor ink = cut.form == StockForm::Roll ? t.graphite : inkOn(woodTone(cut.product));
    const QRectF words = paintWords(p, path, lines, ink, ground);
    const QRectF box = path.boundingRect();
    if (cut.form == StockForm::Roll && box.width() > 60 && box.height() > 40)
        for (const double share : {0.5, 0.25, 0.75, 0.1, 0.9}) { // of the pile, where there is room beside the words
            const QRectF arrow(box.left() + share * box.width() - 11, box.top() + 8, 22, 10);
            if (!path.contains(arrow) || arrow.adjusted(-3, -3, 3, 3).intersects(words)) continue;
            paintArrow(p, arrow.center(), std::numbers::pi + lies.rotationRad, t.graphite);
            break;
        }
    if (lies.pinned && !locked) {
        const QPointF at(box.left() + 8, box.top() + 8);
        p.setPen(QPen(t.raised, 1.5));
        p.setBrush(t.chalk);
        p.drawEllipse(at, 5, 5);
    }
}

} // namespace

void paintCutItem(QPainter& p, const PlanView& view, const Job& job, const ProductCut& cut, const CutItem& item,
                  const Figures& figures, const CutMarks& marks) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const Region whole{{rectangle(0, 0, item.lengthMm, item.widthMm)}};
    const QPainterPath stock = view.path(item.shape.empty() ? whole : item.shape);
    paintWaste(p, stock);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.graphite, 1));
    p.drawPath(stock);
    paintLeft(p, view, cut, item, figures, marks.inside);
    for (std::size_t i = 0; i < item.pieces.size(); ++i) {
        const LyingPiece& lies = item.pieces[i];
        paintLying(p, view, job, cut, lies, int(i) == marks.inHand, marks.lit.contains(lies.piece) && lies.piece >= 0);
    }
    // Words come last, so that no piece lies over them.
    for (std::size_t i = 0; i < item.pieces.size() && marks.inside; ++i)
        paintPieceWords(p, view, job, cut, item.pieces[i], item.locked, figures);
    if (marks.strokes) paintStrokes(p, view, item);
    p.restore();
}

void paintTape(QPainter& p, const QRectF& into, const CutItem& item, const Figures& figures) {
    const Theme& t = Theme::now();
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const double perMm = into.width() / item.lengthMm;
    const QRectF tape(into.left(), into.top(), into.width(), 26);
    p.setPen(QPen(t.ruleEdge, 1.2));
    p.setBrush(t.ruleLight);
    p.drawRoundedRect(tape, 4, 4);
    const QColor ink = t.dark ? t.graphite : QColor(0x2B2A28);
    p.setPen(QPen(t.ruleEdge, 1));
    const double step = perMm * 100 >= 7 ? 100 : perMm * 500 >= 7 ? 500 : 1000;
    p.setFont(textFont(0.75));
    const double wide = QFontMetricsF(p.font()).horizontalAdvance(QStringLiteral("10 000")) + 8;
    const double named = perMm * 500 >= wide ? 500 : 1000;
    for (double mm = step; mm < item.lengthMm; mm += step) {
        const double x = tape.left() + mm * perMm;
        const bool big = std::fmod(mm, 500) < 1;
        p.setPen(QPen(t.ruleEdge, 1));
        p.drawLine(QPointF(x, tape.top() + 1), QPointF(x, tape.top() + (big ? 10 : 6)));
        if (std::fmod(mm, named) > 1) continue;
        p.setPen(ink);
        p.drawText(QRectF(x - wide / 2, tape.top() + 9, wide, 17), Qt::AlignCenter, figures.length({mm}, false));
    }
    double lastEnd[3] = {into.left() - 10, into.left() - 10,
                         into.left() - 10}; // of the words in each line below the tape
    p.setFont(textFont(0.85, true));
    const QFontMetricsF metrics(p.font());
    std::vector<std::pair<double, int>> across; // from left to right: the words find room in this order
    for (std::size_t i = 0; i < item.order.size(); ++i)
        if (item.order[i].kind == CutStep::Kind::Across) across.emplace_back(item.order[i].atMm, int(i) + 1);
    std::sort(across.begin(), across.end());
    for (const auto& [at, number] : across) {
        const double x = tape.left() + at * perMm;
        const double kerf = std::max(3.0, item.kerfMm * perMm);
        QColor dust = t.pencil;
        dust.setAlpha(80);
        p.fillRect(QRectF(x, tape.top() - 2, kerf, tape.height() + 6), dust);
        p.setPen(QPen(t.pencil, 1.8));
        p.drawLine(QPointF(x, tape.top() - 4), QPointF(x, tape.bottom() + 6));
        const QString text = QString::number(number) + QStringLiteral("  ") + figures.fineLength({at}, false);
        const double w = metrics.horizontalAdvance(text);
        const double left = std::clamp(x - w / 2, into.left(), into.right() - w);
        for (int line = 0; line < 3; ++line) {
            if (left < lastEnd[line] + 8) continue;
            p.setPen(t.pencil);
            p.drawText(QPointF(left, tape.bottom() + 8 + metrics.ascent() + line * metrics.height()), text);
            lastEnd[line] = left + w;
            break;
        }
    }
    p.restore();
}

} // namespace westrum
