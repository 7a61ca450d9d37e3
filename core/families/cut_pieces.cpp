#include "core/families/cut_pieces.h"

namespace westrum {

void toOrigin(CutPiece& piece) {
    if (piece.shape.empty()) return;
    const Point low = boundsOf(piece.shape).low;
    const auto move = [&](std::vector<Ring>& rings) {
        for (Ring& ring : rings)
            for (Point& p : ring) p = p - low;
    };
    move(piece.shape.rings);
    move(piece.folds);
    move(piece.marks);
    for (CutPiece::Drill& d : piece.drills) d.at = d.at - low;
}

std::vector<Ring> outlineMarks(const Region& shape) {
    std::vector<Ring> marks = shape.rings;
    for (Ring& ring : marks)
        if (!ring.empty()) ring.push_back(ring.front());
    return marks;
}

KeepRule keepRuleOf(StockForm form) { return {300, form == StockForm::Lengths ? 0.0 : 150.0}; }

} // namespace westrum
