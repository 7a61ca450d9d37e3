#include "core/setout/lamp_rows.h"

#include <algorithm>
#include <cmath>

namespace westrum {

std::vector<LampPlace> lampsOnRows(const SetOut& setOut, std::span<const OpeningFact> openings,
                                   std::optional<double> centreAlong) {
    std::vector<LampPlace> places;
    if (setOut.rows.empty()) return places;
    const auto turned = [&](Point p) { return setOut.rowsAcross ? Point{p.y, p.x} : p; };
    std::vector<double> middles;
    for (const Row& r : setOut.rows) middles.push_back((r.low + r.high + r.lowAtEnd + r.highAtEnd) / 4);
    const double centre = setOut.centreLine.value_or((setOut.rows.front().low + setOut.rows.back().high) / 2);
    const auto nearest = [&](double y) {
        return *std::min_element(middles.begin(), middles.end(),
                                 [&](double a, double b) { return std::abs(a - y) < std::abs(b - y); });
    };
    // How far from the centre a lamp lies decides the pair of rows; both sides take the same distance.
    double low = 0, high = 0;
    bool any = false;
    for (const OpeningFact& o : openings) {
        if (o.kind != OpeningKind::Lamp) continue;
        const double x = turned(o.placed.centre).x;
        low = any ? std::min(low, x) : x;
        high = any ? std::max(high, x) : x;
        any = true;
    }
    const double shift = centreAlong && any ? *centreAlong - (low + high) / 2 : 0;
    for (const OpeningFact& o : openings) {
        if (o.kind != OpeningKind::Lamp || o.placed.inRow > 0) continue;
        const Point at = turned(o.placed.centre);
        const double away = std::abs(nearest(centre + std::abs(at.y - centre)) - centre);
        const double row = nearest(at.y < centre ? centre - away : centre + away);
        places.push_back({o.placed.opening, turned({at.x + shift, row})});
    }
    return places;
}

} // namespace westrum
