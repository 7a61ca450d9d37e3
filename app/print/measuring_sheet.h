#pragma once

#include "app/document/job_document.h"
#include "formats/words.h"

#include <QPainter>

namespace westrum {

/// One surface's sheet to carry into the van: the drawing with the letters of its dimensions, and a list in the order
/// of going round, to be filled in or filled in already. Used alike by paper, PDF and tests.
void paintMeasuringSheet(QPainter& painter, const QRectF& page, const Job& job, const Surface& surface,
                         const MeasuredOutline& measured, const Figures& figures, bool filled);

/// A page for each surface named, in order, as a PDF. Returns an empty text, or why it could not be written.
QString saveMeasuringSheets(const QString& path, const QString& title, const Job& job, const Plan& plan,
                            const std::vector<std::string>& surfaces, const Figures& figures, bool filled);

} // namespace westrum
