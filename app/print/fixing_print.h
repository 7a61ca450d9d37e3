#pragma once

#include "core/plan/plan.h"
#include "formats/words.h"

#include <QPainter>
#include <QRectF>

#include <functional>

namespace westrum {

/// The fixing plan of a surface for paper: its supports and packers, then every panel on a drawing of its own with the
/// places to drill, measured from its own lower left corner, and what goes into each.
void paintFixingPlan(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                     const SurfacePlan& plan, const Figures& figures);
/// The same as a PDF on the paper chosen. Returns an empty text, or why it could not be written.
QString saveFixingPlanPdf(const QString& path, const Job& job, const SurfacePlan& plan, const Figures& figures);

} // namespace westrum
