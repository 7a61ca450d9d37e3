#include "core/families/grips.h"

#include <algorithm>
#include <cmath>

namespace westrum {

Grip startLineGrip(const GripFacts& f, double module, double low, std::string_view handRule, double byHand) {
    const SetOut& s = f.setOut;
    // From a full first row to the narrowest that can be called one, in whole millimetres, as one rips.
    return {.moves = Moves::StartLine,
            .pull = s.rowsAcross ? Pull::Sideways : Pull::Up,
            .stands = s.rowsAcross ? Stands::Above : Stands::Right,
            .at = s.rowsAcross ? Point{s.startLine, f.outline.high.y} : Point{f.outline.high.x, s.startLine},
            .line = true,
            .rule = "startOffset",
            .value = s.startOffset.value,
            .least = 0,
            .most = std::ceil(module) - 1,
            .origin = low + module,
            .sense = -1,
            .handRule = handRule,
            .byHand = byHand};
}

void addJointGrips(const GripFacts& f, bool level, bool snaps, std::vector<Grip>& grips) {
    std::vector<double> places;
    for (const Joint& j : f.setOut.joints) {
        if (level)
            places.push_back(j.from.y);
        else if (std::abs(j.from.x - j.to.x) < 1e-6)
            places.push_back(j.from.x);
    }
    std::sort(places.begin(), places.end());
    places.erase(std::unique(places.begin(), places.end()), places.end());
    for (std::size_t i = 0; i < places.size(); ++i)
        grips.push_back({.moves = Moves::Joint,
                         .pull = level ? Pull::Up : Pull::Sideways,
                         .stands = level ? Stands::FarRight : Stands::Above,
                         .index = static_cast<int>(i),
                         .at = level ? Point{f.outline.high.x, places[i]} : Point{places[i], f.outline.high.y},
                         .line = true,
                         .snaps = snaps,
                         .value = places[i]});
}

} // namespace westrum
