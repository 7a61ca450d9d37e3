#include "core/takeoff/layer_takeoff.h"

#include "core/geometry/boolean.h"

#include <algorithm>

namespace westrum {
namespace {

M2 m2(const Region& region) { return {areaMm2(region) / 1e6}; }

} // namespace

LayerTakeoff takeOffInsulation(const SurfaceShape& shape, bool between) {
    Region covered = shape.net;
    if (between && !shape.supports.empty()) {
        std::vector<Ring> taken;
        for (const PlacedSupport& s : shape.supports)
            taken.insert(taken.end(), s.shape.rings.begin(), s.shape.rings.end());
        covered = difference(covered, unionOf(taken));
    }
    LayerTakeoff t;
    t.area = m2(covered);
    t.amount = t.area.value;
    return t;
}

LayerTakeoff takeOffCoating(const SurfaceShape& shape, const Coating& coating, bool porous) {
    LayerTakeoff t;
    t.area = m2(shape.net);
    std::vector<double> coverage(static_cast<std::size_t>(coating.coats), coating.spreadingRateM2PerLitre);
    if (porous) coverage.front() /= 1 + coating.porous;
    t.amount = litresFor(t.area, coverage, coating.waste);
    return t;
}

LayerTakeoff takeOffAdhesive(const SurfaceShape& shape, const Adhesive& adhesive, bool porousBelow, bool porousAbove,
                             double spread, double close) {
    LayerTakeoff t;
    t.area = m2(shape.net);
    const auto face = [&](bool porous) { return GluedFace{adhesive.rateKgPerM2, 1, porous ? 1 + adhesive.porous : 1}; };
    std::vector<GluedFace> faces{face(porousBelow)};
    if (adhesive.bothFaces) faces.push_back(face(porousAbove));
    t.amount = adhesiveFor(t.area, faces, adhesive.waste).value;
    t.bays = baysFor(t.area, static_cast<int>(faces.size()),
                     {.spreadM2PerMinute = spread,
                      .closeM2PerMinute = close,
                      .openMinutes = adhesive.openMinutes,
                      .flashMinutes = adhesive.flashMinutes});
    return t;
}

LayerTakeoff takeOffBattens(const SurfaceShape& shape, const std::vector<bool>& isBatten) {
    LayerTakeoff t;
    for (const PlacedSupport& s : shape.supports) {
        if (!isBatten[static_cast<std::size_t>(s.support)]) continue;
        // A window goes right through; what leaves some of its width standing does not part it.
        const Region there = intersection(s.shape, shape.net);
        for (const Region& part : partsOf(there)) {
            const Bounds b = boundsOf(part);
            const double length = s.along ? b.width() : b.height();
            if (length <= 10) continue;
            t.lengths.push_back({length});
            t.stretches.push_back({s.along, part});
        }
        t.area = t.area + m2(there);
    }
    return t;
}

LayerTakeoff takeOffBarrier(const Region& outline, const Barrier& barrier) {
    LayerTakeoff t;
    t.strips = takeOffUnderlay(outline, {.rollWidth = barrier.rollWidth,
                                         .rollLength = barrier.rollLength,
                                         .lap = barrier.lap,
                                         .thickness = barrier.thickness,
                                         .massKgPerM2 = barrier.massKgPerM2});
    t.area = m2(outline);
    return t;
}

} // namespace westrum
