#include "app/print/cut_print.h"

#include "app/print/page_flow.h"
#include "app/print/paper.h"

#include <QCoreApplication>

#include <cmath>

namespace westrum {
namespace {

struct CutPrint {
    Q_DECLARE_TR_FUNCTIONS(CutPrint)
};

QFont paperFont(double relative, bool bold = false) {
    QFont font = textFont(1, bold);
    font.setPointSizeF(10.5 * relative);
    return font;
}

QString nameOf(const Job& job, const std::string& product) {
    const Product* p = job.catalogue.find(product);
    return p ? QString::fromStdString(p->name) : QString();
}

QString familyOf(const Job& job, const std::string& product) {
    const Product* p = job.catalogue.find(product);
    return p ? QString::fromStdString(p->family) : QString();
}

/// One piece that no saw touches.
bool isWhole(const CutItem& item) {
    return item.pieces.size() == 1 && item.order.empty() && item.left.empty() &&
           std::abs(boundsOf(item.pieces.front().shape).width() - item.lengthMm) < 0.5;
}

/// What no saw touches needs no drawing: all of it in one line.
QStringList wholeOnes(const ProductCut& cut, const std::string& family) {
    QStringList whole;
    for (std::size_t i = 0; i < cut.items.size(); ++i) {
        if (!isWhole(cut.items[i])) continue;
        const LyingPiece& lies = cut.items[i].pieces.front();
        whole << (lies.cut ? QStringLiteral("\u2713 ") : QString()) +
                     CutPrint::tr("%1 for %2").arg(itemName(cut, i, family), pieceText(lies.name));
    }
    return whole;
}

} // namespace

void paintCutSheets(QPainter& p, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                    const ProductCut& cut, const Figures& f) {
    p.setPen(QPen(Qt::black, 0.6));
    PageFlow flow(p, page, newPage);
    const QString family = familyOf(job, cut.product);
    flow.heading(QString::fromStdString(job.name) + QStringLiteral("  ·  ") + nameOf(job, cut.product));
    flow.text(CutPrint::tr("Mark from the left end or the lower edge. The line is the near side of the cut: the blade "
                           "goes on its far side. Cut in the order of the numbers.") +
              QLatin1Char(' ') + cutCaution(cut.form));
    const QStringList whole = wholeOnes(cut, family.toStdString());
    if (!whole.isEmpty()) {
        flow.gap();
        flow.text(CutPrint::tr("%n whole, as they come: %1.", nullptr, static_cast<int>(whole.size()))
                      .arg(whole.join(QStringLiteral(", "))));
    }
    for (std::size_t i = 0; i < cut.items.size(); ++i) {
        const CutItem& item = cut.items[i];
        if (isWhole(item)) continue;
        const bool bars = cut.form == StockForm::Lengths;
        const CutItem drawn = widened(item, bars ? std::max(1.0, item.lengthMm * 0.045 / item.widthMm) : 1);
        const double shown = std::min(page.height() * 0.42, page.width() * drawn.widthMm / drawn.lengthMm);
        p.setFont(paperFont(1.12));
        const QFontMetricsF metrics(p.font());
        const double line = metrics.height() * 1.35;
        const double half = page.width() * 0.54;
        // Each row as high as its words need: nothing of a cut may be left out.
        const qsizetype lines = qsizetype(std::max(item.order.size(), item.pieces.size()));
        QStringList steps;
        QList<double> heights;
        double wanted = line * 2 + shown + 102;
        for (qsizetype n = 0; n < lines; ++n) {
            steps << (n < qsizetype(item.order.size())
                          ? QStringLiteral("%1   ").arg(n + 1) + stepText(item, item.order[std::size_t(n)], f)
                          : QString());
            heights << std::max(
                line, metrics.boundingRect(QRectF(0, 0, half - 12, 1000), Qt::TextWordWrap, steps.back()).height() + 5);
            wanted += heights.back();
        }
        flow.gap();
        // As a block on one page, where a page can hold it.
        if (wanted < page.height()) flow.keep(wanted);
        flow.heading(itemName(cut, i, family.toStdString()) + QStringLiteral("   ") +
                         sizeText(item.lengthMm, item.widthMm, cut.form, f) +
                         (item.locked ? QStringLiteral("   ") + CutPrint::tr("being cut") : QString()),
                     1.15);
        const QRectF box = flow.box(shown + 16);
        const PlanView view({{0, 0}, {drawn.lengthMm, drawn.widthMm}},
                            QRectF(box.left(), box.top() + 4, box.width(), shown));
        paintCutItem(p, view, job, cut, drawn, f, {.strokes = !bars});
        paintTape(p, flow.box(86).adjusted(0, 4, 0, 0), item, f);
        p.setPen(QPen(Qt::black, 0.8));
        p.setBrush(Qt::NoBrush);
        for (qsizetype n = 0; n < lines; ++n) {
            p.setFont(paperFont(1.12));
            const QRectF row = flow.box(heights[n]);
            p.setPen(Qt::black);
            p.drawText(QRectF(row.left(), row.top() + 2, half - 12, row.height()), Qt::TextWordWrap | Qt::AlignLeft,
                       steps[n]);
            if (n >= qsizetype(item.pieces.size())) continue;
            const LyingPiece& lies = item.pieces[std::size_t(n)];
            const QRectF tick(row.left() + half, row.top() + 4, 13, 13);
            p.drawRect(tick);
            if (lies.cut) {
                p.drawLine(tick.topLeft(), tick.bottomRight());
                p.drawLine(tick.topRight(), tick.bottomLeft());
            }
            QString text = pieceText(lies.name);
            const Bounds b = boundsOf(lies.shape);
            text +=
                QStringLiteral("   ") + (lies.piece >= 0 ? sizeText(cut.pieces[std::size_t(lies.piece)], cut.form, f)
                                                         : sizeText(b.width(), b.height(), cut.form, f));
            if (lies.piece >= 0)
                if (const Surface* s = job.surface(cut.pieces[std::size_t(lies.piece)].surface))
                    text += QStringLiteral("   ") + QString::fromStdString(s->name);
            p.drawText(QRectF(tick.right() + 8, row.top(), page.width() - half - 20, line),
                       Qt::AlignVCenter | Qt::AlignLeft,
                       QFontMetricsF(p.font()).elidedText(text, Qt::ElideRight, page.width() - half - 20));
        }
    }
}

void paintLabels(QPainter& p, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                 const ProductCut& cut, const Figures& f) {
    constexpr int kColumns = 3, kRows = 8;
    const double w = page.width() / kColumns, h = page.height() / kRows;
    const std::string family = familyOf(job, cut.product).toStdString();
    int n = 0;
    for (std::size_t i = 0; i < cut.items.size(); ++i)
        for (const LyingPiece& lies : cut.items[i].pieces) {
            if (lies.piece < 0) continue;
            if (n > 0 && n % (kColumns * kRows) == 0) newPage();
            const int at = n++ % (kColumns * kRows);
            const QRectF label(page.left() + at % kColumns * w, page.top() + at / kColumns * h, w, h);
            p.setPen(QPen(QColor(0xBBBBBB), 0.5));
            p.setBrush(Qt::NoBrush);
            p.drawRect(label);
            const QRectF in = label.adjusted(12, 10, -12, -8);
            p.setPen(Qt::black);
            const auto write = [&](double top, double size, bool bold, const QString& text) {
                p.setFont(paperFont(size, bold));
                const QFontMetricsF metrics(p.font());
                p.drawText(QRectF(in.left(), in.top() + top, in.width(), metrics.height()), Qt::AlignLeft,
                           metrics.elidedText(text, Qt::ElideRight, in.width()));
                return top + metrics.height();
            };
            const CutPiece& piece = cut.pieces[std::size_t(lies.piece)];
            double y = write(0, 1.7, true, pieceText(lies.name));
            y = write(y, 1.2, false, sizeText(piece, cut.form, f));
            const Surface* surface = job.surface(piece.surface);
            y = write(y, 1.2, false,
                      surface ? CutPrint::tr("to: %1").arg(QString::fromStdString(surface->name)) : QString());
            write(y + 2, 0.85, false, nameOf(job, cut.product) + QStringLiteral("  ·  ") + itemName(cut, i, family));
        }
}

QString saveCutSheetsPdf(const QString& path, const Job& job, const ProductCut& cut, const Figures& figures) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(16, 16, 16, 16),
                   [&](QPainter& p, const QRectF& page, const std::function<void()>& newPage) {
                       paintCutSheets(p, page, newPage, job, cut, figures);
                   });
}

QString saveLabelsPdf(const QString& path, const Job& job, const ProductCut& cut, const Figures& figures) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(6, 8, 6, 8),
                   [&](QPainter& p, const QRectF& page, const std::function<void()>& newPage) {
                       paintLabels(p, page, newPage, job, cut, figures);
                   });
}

} // namespace westrum
