#pragma once

#include "app/drawing/plan_view.h"
#include "core/plan/job.h"
#include "core/plan/product_cut.h"
#include "formats/words.h"

#include <QPainter>

#include <set>

namespace westrum {

/// What of an item is drawn besides its pieces.
struct CutMarks {
    std::set<int> lit;    ///< pieces, by place in ProductCut::pieces
    int inHand = -1;      ///< place in CutItem::pieces
    bool strokes = false; ///< the cuts, each with its number
    bool inside = true;   ///< names and sizes
};

/// Draws an item of stock as it lies on the trestles: pieces in their material with name, size and the surface they go
/// to, what is left worth keeping with its size, the rest hatched. Used alike by the bench, paper and tests.
void paintCutItem(QPainter& painter, const PlanView& view, const Job& job, const ProductCut& cut, const CutItem& item,
                  const Figures& figures, const CutMarks& marks);

/// The item with everything across it drawn larger: a bar true to scale is too narrow to be read.
CutItem widened(CutItem item, double by);

/// A tape along an item with each stroke across it, marked where it is to be marked.
void paintTape(QPainter& painter, const QRectF& into, const CutItem& item, const Figures& figures);

/// "3 640", "560 × 410": a piece's size as spoken.
QString sizeText(const CutPiece& piece, StockForm form, const Figures& figures);
QString sizeText(double lengthMm, double widthMm, StockForm form, const Figures& figures);

/// "Sheet 2", "Length 4 from the rack": what an item is called.
QString itemName(const ProductCut& cut, std::size_t item, const std::string& family);

/// The usual care with saw or blade, for stock of this form.
QString cutCaution(StockForm form);

/// One stroke in words: "across at 1 990, measured from the left end".
QString stepText(const CutItem& item, const CutStep& step, const Figures& figures);

} // namespace westrum
