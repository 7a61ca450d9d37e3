#include "core/catalogue/suitability.h"

#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/stock.h"

#include <algorithm>

namespace westrum {

// Wet, heat, wear, curves, cleaning.
Suitability suitabilityOf(const Product& p) {
    if (p.family == "planks") return {2, 2, 3, 0, 3};
    if (p.family == "boards") return {1, 2, 2, 1, 2};
    if (p.family == "sheet") return {1, 2, 2, sheetOf(p).thickness.value <= 4.5 ? 2 : 1, 2};
    if (p.family == "tiles") return tileOf(p).selfAdhesive ? Suitability{2, 1, 2, 1, 3} : Suitability{3, 3, 3, 0, 3};
    if (p.family == "cloth") return {0, 1, 2, 3, 1};
    if (p.family == "foam") return {0, 0, 1, 3, 0};
    if (p.family == "coating") return {2, 2, 1, 3, 2};
    if (p.family != "roll") return {};
    switch (rollOf(p).lining) {
    case Lining::StretchCarpet: return {1, 2, 2, 3, 1};
    case Lining::Felt: return {1, 2, 1, 2, 0};
    case Lining::SheetVinyl: return {3, 1, 3, 2, 3};
    case Lining::Covering: return {1, 1, 1, 3, 2};
    case Lining::Film: return {3, 1, 0, 1, 3};
    }
    return {};
}

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
    if (s.area == "wet cell") ask(Strain::Wet, 3);
    return d;
}

int shortOf(const Suitability& has, const Suitability& asked) {
    int n = 0;
    for (std::size_t i = 0; i < kStrains; ++i) n += has[i] < asked[i] ? 1 : 0;
    return n;
}

} // namespace westrum
