#include "core/families/cut_pieces.h"

#include "core/geometry/boolean.h"

#include <algorithm>

namespace westrum {

void toOrigin(CutPiece& piece) {
    if (piece.shape.empty()) return;
    const Point low = boundsOf(piece.shape).low;
    const auto move = [&](std::vector<Ring>& rings) {
        for (Ring& ring : rings)
            for (Point& p : ring) p = p - low;
    };
    move(piece.shape.rings);
    move(piece.cutAway.rings);
    move(piece.folds);
    move(piece.marks);
    for (CutPiece::Drill& d : piece.drills) d.at = d.at - low;
}

CutStep outlineStep(const CutPiece& piece, int item, Point at) {
    CutStep step{CutStep::Kind::ByOutline, at.y, at.x, at.x + piece.lengthMm(), at.y, {item}};
    for (const Region& part : partsOf(piece.cutAway)) step.notches.push_back(boundsOf(part));
    std::sort(step.notches.begin(), step.notches.end(), [](const Bounds& a, const Bounds& b) { return a.low < b.low; });
    step.seenBehind = piece.seenBehind;
    return step;
}

std::vector<Ring> outlineMarks(const Region& shape) {
    std::vector<Ring> marks = shape.rings;
    for (Ring& ring : marks)
        if (!ring.empty()) ring.push_back(ring.front());
    return marks;
}

KeepRule keepRuleOf(StockForm form) { return {300, form == StockForm::Lengths ? 0.0 : 150.0}; }

} // namespace westrum
