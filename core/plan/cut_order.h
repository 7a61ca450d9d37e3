#pragma once

#include "core/cutting/sheets.h"
#include "core/plan/product_cut.h"

#include <vector>

namespace westrum {

/// Cuts across a bar, from its left end: where the end is squared off, then after each piece. Pieces lie from left to
/// right with their kerfs between them.
std::vector<CutStep> orderOfBar(const CutItem& bar, double endTrimMm);

/// The sheet after its edges are trimmed: what is cut from it lies from 0, 0 on.
struct TrimmedSheet {
    SheetsProblem problem; ///< with this one sheet, and without a trim
    CutSheet sheet;
    double trimMm{};
};
TrimmedSheet trimmed(const SheetsProblem& problem, const CutSheet& sheet);

/// What of a sheet is worth keeping, its edges trimmed.
std::vector<LeftRectangle> leftOfSheet(const SheetsProblem& problem, const CutSheet& sheet, const KeepRule& rule);

/// The cuts that part a sheet, edge trims first. `pieces` of the sheet are in the order of the item's.
std::vector<CutStep> orderOfSheet(const CutItem& sheet, const SheetsProblem& problem, const CutSheet& plan);

/// The cuts of a run of roll: right across wherever no piece lies across it, and then round the pieces of each part
/// so parted, from the free end on.
std::vector<CutStep> orderOfRoll(const CutItem& run);

} // namespace westrum
