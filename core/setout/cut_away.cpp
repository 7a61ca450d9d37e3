#include "core/setout/cut_away.h"

#include "core/geometry/boolean.h"

#include <algorithm>

namespace westrum {
namespace {

constexpr double kLeastMm2 = 50;  ///< less is what the saw takes anyway
constexpr double kLeastDepth = 1; // mm
constexpr double kAtEdge = 0.5;   // mm

Region worthTelling(const Region& all) {
    Region kept;
    for (const Region& part : partsOf(all)) {
        const Bounds b = boundsOf(part);
        if (areaMm2(part) < kLeastMm2 || std::min(b.width(), b.height()) < kLeastDepth) continue;
        kept.rings.insert(kept.rings.end(), part.rings.begin(), part.rings.end());
    }
    return kept;
}

} // namespace

Region cutAwayOf(const Region& shape, Mm length, Mm width) {
    return worthTelling(difference({{rectangle(0, 0, length.value, width.value)}}, shape));
}

Region cutAwayOf(const Region& shape, const Piece& piece, const Board& board, const OnBoard& lies) {
    const double length = piece.length.value, cover = board.cover.value, overall = board.overall.value;
    const double low = lies.nearHidden.value, high = low + cover;
    // What is left of the board once it is ripped, by its visible width.
    std::vector<Point> widths{{0, lies.visible[0].value}, {length, lies.visible[1].value}};
    if (piece.ripFrom.value > 0) widths.insert(widths.begin() + 1, {piece.ripFrom.value, cover});
    if (piece.ripTo.value > 0 && piece.ripTo < piece.length)
        widths.insert(widths.end() - 1, {piece.ripTo.value, cover});
    Ring ripped;
    for (const Point& w : widths) ripped.push_back({w.x, lies.farKept ? high - std::min(w.y, cover) : low});
    for (auto w = widths.rbegin(); w != widths.rend(); ++w)
        ripped.push_back({w->x, lies.farKept ? high : low + std::min(w->y, cover)});
    const Region out = worthTelling(difference({{ripped}}, moved(shape, {0, low})));
    // Where it reaches the edge of what is seen it goes on through the tongue.
    Region all = out;
    const auto through = [&](double from, double to, double at) {
        if (to - from < kAtEdge) return;
        for (const Region& part : partsOf(intersection(out, {{rectangle(0, at - kAtEdge / 2, length, kAtEdge)}}))) {
            const Bounds b = boundsOf(part);
            all = unionOf(all, {{rectangle(b.low.x, from, b.width(), to - from)}});
        }
    };
    through(0, low, low + kAtEdge / 2);
    through(high, overall, high - kAtEdge / 2);
    return all;
}

} // namespace westrum
