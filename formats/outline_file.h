#pragma once

#include "core/geometry/polygon.h"
#include "core/shell/shape.h"
#include "core/units/result.h"

#include <QByteArray>
#include <QString>

#include <optional>
#include <vector>

namespace westrum {

/// What a drawing file held, as closed rings. Curves are flattened to within 0.05 of the file's own unit or, where that
/// is known, 0.05 mm.
struct OutlineDrawing {
    std::vector<Ring> rings;         ///< counter-clockwise, largest first, in the file's own units, y up
    std::optional<double> mmPerUnit; ///< none where the file does not say: the person does
    int open = 0;                    ///< strokes that do not close
    int passedOver = 0;              ///< objects of kinds that are no outline
};

enum class OutlineFaultKind {
    CannotOpen, ///< {detail}
    TooLarge,   ///< over kLargestOutlineFile, or more corners than kMostOutlineCorners
    Empty,
    Damaged, ///< {detail}: where
    NoOutline,
    NoNumber, ///< {detail}: the line
};
struct OutlineFault {
    OutlineFaultKind kind{};
    std::string detail;
};

inline constexpr qint64 kLargestOutlineFile = 16 * 1024 * 1024;
inline constexpr std::size_t kMostOutlineCorners = 200000;

/// DXF: lines, polylines with bulges, arcs, circles of the entities section. Unit by $INSUNITS.
Result<OutlineDrawing, OutlineFault> readDxf(const QByteArray& bytes);
/// SVG: paths and basic shapes with their transforms; real-world size by width, height and viewBox.
Result<OutlineDrawing, OutlineFault> readSvg(const QByteArray& bytes);
/// CSV: a corner a line, `x,y` (or `;`, or tab) in the order round the outline, decimal point or comma; a first line
/// of words is passed over; an empty line begins another ring. Millimetres.
Result<OutlineDrawing, OutlineFault> readPoints(const QByteArray& bytes);
/// By the file's ending.
Result<OutlineDrawing, OutlineFault> readOutlineFile(const QString& path);

/// A surface's outline and openings, in millimetres.
QByteArray writeDxf(const MeasuredOutline& measured, const SurfaceShape& shape);
QByteArray writeSvg(const QString& name, const MeasuredOutline& measured, const SurfaceShape& shape);
QByteArray writePoints(const MeasuredOutline& measured, const SurfaceShape& shape);

QString sentence(const OutlineFault& fault);

/// Strokes joined end to end into rings where their ends meet within `reach`; what does not close is counted.
OutlineDrawing joinedRings(const std::vector<std::vector<Point>>& strokes, double reach);

} // namespace westrum
