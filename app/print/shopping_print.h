#pragma once

#include "core/plan/plan.h"
#include "core/plan/trips.h"
#include "formats/words.h"

#include <QPagedPaintDevice>
#include <QPainter>

#include <functional>

namespace westrum {

/// Draws the job for paper: the shopping list, the set-out to scale, and the cut list, as many pages as it takes.
/// @param newPage  starts the next page of the device
void paintShopping(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                   const Plan& plan, const Figures& figures, const std::vector<RoughCut>& roughCuts = {});

/// Writes the same as a PDF on the paper chosen. Returns an empty text, or why it could not be written.
QString saveShoppingPdf(const QString& path, const Job& job, const Plan& plan, const Figures& figures,
                        const std::vector<RoughCut>& roughCuts = {});

} // namespace westrum
