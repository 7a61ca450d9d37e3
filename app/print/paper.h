#pragma once

#include <QLocale>
#include <QMarginsF>
#include <QPageSize>
#include <QString>

#include <functional>
#include <vector>

class QPainter;
class QPagedPaintDevice;
class QWidget;

namespace westrum {

/// Paints pages: `page` is what can be painted on, in 96ths of an inch from 0, 0; `newPage` turns it.
using PaintPages = std::function<void(QPainter& painter, const QRectF& page, const std::function<void()>& newPage)>;

/// The paper that all printing is laid out for, unless another is chosen: A4, or Letter in the countries that use it.
QPageSize::PageSizeId usualPaper(const QLocale& locale);
/// The sizes that can be chosen, and the one that is. Kept for the person, not for the job.
const std::vector<QPageSize::PageSizeId>& papers();
QPageSize::PageSizeId paper();
void choosePaper(QPageSize::PageSizeId size);

/// Writes a PDF on the paper chosen, margins in mm, in daylight colours. Returns an empty text, or why it could not be
/// written.
QString savePdf(const QString& path, const QString& title, const QMarginsF& margins, const PaintPages& paint);

enum class Printed { Yes, No, Unreachable };
/// Asks for a printer, with the paper chosen to begin with, and prints on it.
Printed printPages(QWidget* parent, const QString& title, const QMarginsF& margins, const PaintPages& paint);

} // namespace westrum
