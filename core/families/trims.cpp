#include "core/families/trims.h"

#include "core/geometry/boolean.h"
#include "core/takeoff/needs.h"

namespace westrum {
namespace {

/// The pieces of all runs of a trim.
void addTrims(const Product& product, const TrimPlan& trims, WantedPieces& found) {
    const TrimLength trim = trimOf(product);
    for (const TrimRun& run : trims.runs) {
        if (run.product != product.id || run.profile == Profile::SealantBead) continue;
        for (const TrimPiece& piece : run.pieces) {
            CutPiece wanted;
            wanted.key = "trim/" + run.surface + "/" + piece.name;
            wanted.name = piece.name;
            wanted.surface = run.surface;
            wanted.shape = {{rectangle(0, 0, piece.length.value, trim.width.value)}};
            wanted.place = stripAlong(piece.path, std::max(4.0, trim.width.value));
            // Where the saw leans the cut across the face, a line on it shows which way.
            const auto slant = [&](const TrimJoint& j, bool atEnd) {
                if (j.end == TrimEnd::Square || j.saw.mitreRad < 1e-4) return;
                const double slope = std::min(piece.length.value / 2, trim.width.value * std::tan(j.saw.mitreRad));
                const double x = atEnd ? piece.length.value : 0, inwards = atEnd ? -slope : slope;
                const bool lower = j.saw.longEdge == LongEdge::Top || (j.saw.longEdge == LongEdge::Equal && !j.inside);
                wanted.marks.push_back(lower ? Ring{{x + inwards, 0}, {x, trim.width.value}}
                                             : Ring{{x, 0}, {x + inwards, trim.width.value}});
            };
            slant(piece.start, false);
            slant(piece.end, true);
            for (const Point& d : piece.drills)
                wanted.drills.push_back({{d.x, trim.width.value / 2 + d.y}, drillFor({.by = FixedWith::Screws})});
            found.pieces.push_back(std::move(wanted));
        }
    }
}

} // namespace

Family trimFamily() {
    return {.product = {.id = "trim",
                        .tradeName = "trim",
                        .role = LayerRole::Trim,
                        .soldBy = SoldBy::Length,
                        .form = StockForm::Lengths,
                        .fields = trimFields(),
                        .bar = trimOf},
            .laid = {.lotShows = true},
            .edgePieces = addTrims};
}

} // namespace westrum
