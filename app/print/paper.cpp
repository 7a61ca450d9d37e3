#include "app/print/paper.h"

#include "app/print/page_flow.h"
#include "formats/job_file.h"
#include "formats/words.h"

#include <QBuffer>
#include <QPdfWriter>
#include <QPrintDialog>
#include <QPrinter>
#include <QSettings>

#include <algorithm>

namespace westrum {
namespace {

constexpr int kDotsPerInch = 96; // in which all pages are laid out; what is drawn is lines and letters, not dots
constexpr auto kSetting = "paper";

void paintOn(QPagedPaintDevice& device, QPainter& painter, const PaintPages& paint) {
    const PaperLight light;
    const QSizeF size = device.pageLayout().paintRect(QPageLayout::Inch).size() * kDotsPerInch;
    // A printer counts in dots of its own.
    const double scale = painter.device()->logicalDpiX() / double(kDotsPerInch);
    painter.scale(scale, scale);
    paint(painter, QRectF(QPointF(), size), [&] { device.newPage(); });
}

} // namespace

QPageSize::PageSizeId usualPaper(const QLocale& locale) {
    switch (locale.territory()) {
    case QLocale::UnitedStates:
    case QLocale::Canada:
    case QLocale::Mexico:
    case QLocale::PuertoRico:
    case QLocale::Philippines:
    case QLocale::Chile:
    case QLocale::Colombia:
    case QLocale::Venezuela: return QPageSize::Letter;
    default: return QPageSize::A4;
    }
}

const std::vector<QPageSize::PageSizeId>& papers() {
    static const std::vector<QPageSize::PageSizeId> all{QPageSize::A4, QPageSize::A3, QPageSize::Letter,
                                                        QPageSize::Legal, QPageSize::Tabloid};
    return all;
}

QPageSize::PageSizeId paper() {
    const QString key = QSettings().value(QLatin1String(kSetting)).toString();
    for (const QPageSize::PageSizeId size : papers())
        if (QPageSize::key(size) == key) return size;
    return usualPaper(QLocale());
}

void choosePaper(QPageSize::PageSizeId size) { QSettings().setValue(QLatin1String(kSetting), QPageSize::key(size)); }

QString savePdf(const QString& path, const QString& title, const QMarginsF& margins, const PaintPages& paint) {
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(paper()));
        pdf.setPageMargins(margins, QPageLayout::Millimeter);
        pdf.setResolution(kDotsPerInch);
        pdf.setTitle(title);
        QPainter painter(&pdf);
        paintOn(pdf, painter, paint);
    }
    const auto fault = writeFile(buffer.data(), path);
    return fault ? sentence(*fault) : QString();
}

Printed printPages(QWidget* parent, const QString& title, const QMarginsF& margins, const PaintPages& paint) {
    QPrinter printer(QPrinter::ScreenResolution);
    printer.setPageSize(QPageSize(paper()));
    printer.setPageMargins(margins, QPageLayout::Millimeter);
    printer.setDocName(title);
    QPrintDialog dialog(&printer, parent);
    if (dialog.exec() != QDialog::Accepted) return Printed::No;
    QPainter painter;
    if (!painter.begin(&printer)) return Printed::Unreachable;
    paintOn(printer, painter, paint);
    return Printed::Yes;
}

} // namespace westrum
