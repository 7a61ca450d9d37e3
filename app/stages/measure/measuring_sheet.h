#pragma once

#include "app/document/job_document.h"
#include "formats/words.h"

#include <QPagedPaintDevice>
#include <QPainter>

namespace westrum {

/// One surface's sheet to carry into the van: the drawing with the letters of its dimensions, and a list in the order
/// of going round, to be filled in or filled in already. Used alike by paper, PDF and tests.
void paintMeasuringSheet(QPainter& painter, const QRectF& page, const Job& job, const Surface& surface,
                         const MeasuredOutline& measured, const Figures& figures, bool filled);

/// A page for each surface named, in order. False if nothing could be written.
bool printMeasuringSheets(QPagedPaintDevice& device, const Job& job, const Plan& plan,
                          const std::vector<std::string>& surfaces, const Figures& figures, bool filled);

} // namespace westrum
