#include "app/drawing/page_flow.h"

#include "formats/job_file.h"
#include "formats/words.h"

#include <QBuffer>
#include <QPdfWriter>

namespace westrum {

QString savePdf(const QString& path, const QString& title, const QMarginsF& margins, const PaintPages& paint) {
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setPageMargins(margins, QPageLayout::Millimeter);
        pdf.setResolution(96);
        pdf.setTitle(title);
        QPainter painter(&pdf);
        const PaperLight light;
        paint(painter, QRectF(0, 0, pdf.width(), pdf.height()), [&] { pdf.newPage(); });
    }
    const auto fault = writeFile(buffer.data(), path);
    return fault ? sentence(*fault) : QString();
}

} // namespace westrum
