#pragma once

#include "app/drawing/cut_drawing.h"

#include <QPainter>
#include <QRectF>

#include <functional>

namespace westrum {

/// Cut sheets for paper: one item of stock a block, its drawing with the strokes, the tape to mark it with, the order
/// of cuts and a box to tick for each piece. A block is not parted unless it is higher than a page.
void paintCutSheets(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                    const ProductCut& cut, const Figures& figures);

/// A label for each piece: its name large, size, the surface it goes to, product and item of stock. Three by eight on
/// The paper chosen.
void paintLabels(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                 const ProductCut& cut, const Figures& figures);

/// The same as a PDF on the paper chosen. Returns an empty text, or why it could not be written.
QString saveCutSheetsPdf(const QString& path, const Job& job, const ProductCut& cut, const Figures& figures);
QString saveLabelsPdf(const QString& path, const Job& job, const ProductCut& cut, const Figures& figures);

} // namespace westrum
