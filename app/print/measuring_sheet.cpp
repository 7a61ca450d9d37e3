#include "app/print/measuring_sheet.h"

#include "app/print/paper.h"

#include "app/drawing/plan_view.h"
#include "core/shell/sketch.h"

#include <QCoreApplication>

#include <cmath>

#include <utility>

namespace westrum {
namespace {

struct MeasuringSheet {
    Q_DECLARE_TR_FUNCTIONS(MeasuringSheet)
};

} // namespace

namespace {

/// A reading on the sheet: its letter on the drawing, what it is, and what it read.
struct Line {
    QString letter, name, figure;
};

QFont fontOf(const QPainter& p, double pixels, bool bold) {
    QFont f = p.font();
    f.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels))));
    f.setBold(bold);
    return f;
}

/// What to read, each with a line to write on, from `top` down.
void paintList(QPainter& p, const QRectF& page, double top, const std::vector<Line>& lines) {
    const double u = page.width() / 1000;
    const auto font = [&](double size, bool bold) { return fontOf(p, size * u, bold); };
    const double height = 40 * u;
    const int perColumn = std::max(1, static_cast<int>((page.bottom() - top - 40 * u) / height));
    const int columns = std::max(1, (static_cast<int>(lines.size()) + perColumn - 1) / perColumn);
    const double width = page.width() / std::max(2, columns);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const double x = page.left() + static_cast<double>(static_cast<int>(i) / perColumn) * width;
        const double y = top + static_cast<double>(static_cast<int>(i) % perColumn) * height;
        p.setFont(font(18, true));
        p.drawText(QRectF(x, y, 50 * u, height), Qt::AlignLeft | Qt::AlignVCenter, lines[i].letter);
        p.setFont(font(16, false));
        p.drawText(QRectF(x + 50 * u, y, width * 0.45, height), Qt::AlignLeft | Qt::AlignVCenter, lines[i].name);
        const QRectF room(x + width * 0.55, y, width * 0.4, height);
        p.drawText(room, Qt::AlignRight | Qt::AlignVCenter, lines[i].figure);
        p.setPen(QPen(Qt::gray, 0.8 * u));
        p.drawLine(room.bottomLeft() - QPointF(0, 6 * u), room.bottomRight() - QPointF(0, 6 * u));
        p.setPen(Qt::black);
    }
}

} // namespace

void paintMeasuringSheet(QPainter& p, const QRectF& page, const Job& job, const Surface& surface,
                         const MeasuredOutline& measured, const Figures& figures, bool filled) {
    // The unit of this page is a thousandth of its width, so that screen, paper and PDF agree.
    const double u = page.width() / 1000;
    const auto font = [&](double size, bool bold) { return fontOf(p, size * u, bold); };
    p.setPen(Qt::black);
    p.setFont(font(30, true));
    p.drawText(QRectF(page.left(), page.top(), page.width(), 44 * u), Qt::AlignLeft | Qt::AlignVCenter,
               QString::fromStdString(surface.name));
    p.setFont(font(17, false));
    p.drawText(QRectF(page.left(), page.top(), page.width(), 44 * u), Qt::AlignRight | Qt::AlignVCenter,
               QString::fromStdString(job.name) + QStringLiteral("   ") +
                   (surface.kind == SurfaceKind::Floor     ? MeasuringSheet::tr("seen from above")
                    : surface.kind == SurfaceKind::Ceiling ? MeasuringSheet::tr("seen from below")
                                                           : MeasuringSheet::tr("seen from inside")));

    const Sketch sketch = sketchOf(surface, filled ? measured : MeasuredOutline{});
    const double drawingHeight = std::min(page.height() * 0.45, 520 * u);
    const QRectF drawing(page.left() + 60 * u, page.top() + 100 * u, page.width() - 120 * u, drawingHeight - 60 * u);
    const PlanView v(boundsOf(sketch.frame), drawing);
    p.setPen(QPen(Qt::black, 1.6 * u));
    p.setBrush(Qt::NoBrush);
    p.drawPath(v.path(filled && measured.measured() ? measured.outline : Region{{sketch.frame}}));
    std::vector<Line> lines;
    for (const ReadingSlot& slot : sketch.places) {
        const MaybeReading* r = findReading(surface, slot.key);
        const QString name =
            slot.key.find('.') == std::string::npos
                ? readingName(slot.key)
                : MeasuringSheet::tr("cut-out: %1")
                      .arg(QCoreApplication::translate("Cutout", slot.key.substr(slot.key.find('.') + 1).c_str()));
        const QString letter =
            slot.letter.empty() ? QString::number(lines.size() + 1) : QString::fromStdString(slot.letter);
        lines.push_back({letter, name, filled && r && *r ? figures.fineLength((*r)->length) : QString()});
        const QPointF a = v.map(slot.from), b = v.map(slot.to);
        QPointF at = (a + b) / 2;
        if (slot.kind == SlotKind::Side) {
            const double length = std::max(1e-6, std::hypot((b - a).x(), (b - a).y()));
            at += QPointF(-(b - a).y(), (b - a).x()) / length * 24 * u;
        } else {
            p.setPen(QPen(Qt::darkGray, 0.8 * u, Qt::DashLine));
            p.drawLine(a, b);
            if (slot.kind == SlotKind::Diagonal) at = a + (b - a) * 0.3;
        }
        p.setPen(Qt::black);
        p.setFont(font(20, true));
        QRectF box(0, 0, 46 * u, 30 * u);
        box.moveCenter(at);
        p.fillRect(box.adjusted(8 * u, 2 * u, -8 * u, -2 * u), Qt::white);
        p.drawText(box, Qt::AlignCenter, letter);
    }
    paintList(p, page, page.top() + drawingHeight + 90 * u, lines);
    p.setFont(font(14, false));
    p.drawText(QRectF(page.left(), page.bottom() - 26 * u, page.width(), 26 * u), Qt::AlignLeft | Qt::AlignVCenter,
               MeasuringSheet::tr(
                   "Measure along the surface, parallel to the van's floor, never by spirit level. Both diagonals "
                   "check all the rest."));
}

QString saveMeasuringSheets(const QString& path, const QString& title, const Job& job, const Plan& plan,
                            const std::vector<std::string>& surfaces, const Figures& figures, bool filled) {
    return savePdf(path, title, QMarginsF(12, 12, 12, 12),
                   [&](QPainter& painter, const QRectF& page, const std::function<void()>& newPage) {
                       static const MeasuredOutline none;
                       bool first = true;
                       for (const std::string& id : surfaces) {
                           const Surface* surface = job.surface(id);
                           if (!surface) continue;
                           if (!std::exchange(first, false)) newPage();
                           const SurfacePlan* p = plan.surface(id);
                           paintMeasuringSheet(painter, page, job, *surface, p ? p->measured : none, figures, filled);
                       }
                   });
}

} // namespace westrum
