#include "core/catalogue/suitability.h"

#include <algorithm>

namespace westrum {

Suitability demandOf(const Surface& s, bool curved) {
    Suitability d{};
    const auto ask = [&](Strain strain, int least) {
        int& now = d[static_cast<std::size_t>(strain)];
        now = std::max(now, least);
    };
    if (curved) ask(Strain::Curves, 2);
    switch (s.kind) {
    case SurfaceKind::Floor:
        ask(Strain::Wear, 2);
        ask(Strain::Wet, 1);
        ask(Strain::Cleaning, 2);
        break;
    case SurfaceKind::Ceiling:
    case SurfaceKind::Headliner: ask(Strain::Heat, 2); break;
    case SurfaceKind::WetCellWall:
        ask(Strain::Wet, 3);
        ask(Strain::Cleaning, 2);
        break;
    case SurfaceKind::Splashback:
        ask(Strain::Wet, 2);
        ask(Strain::Heat, 2);
        ask(Strain::Cleaning, 3);
        break;
    case SurfaceKind::BenchTop:
    case SurfaceKind::SlidingDoor:
    case SurfaceKind::RearDoor: ask(Strain::Wear, 1); break;
    default: break;
    }
    if (s.area.kind == AreaKind::WetCell) ask(Strain::Wet, 3);
    return d;
}

int shortOf(const Suitability& has, const Suitability& asked) {
    int n = 0;
    for (std::size_t i = 0; i < kStrains; ++i) n += has[i] < asked[i] ? 1 : 0;
    return n;
}

} // namespace westrum
