#include "core/families/barriers.h"

#include "core/families/strips.h"
#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kTapeRound = 1; // share of the outline that it is taped along

/// Lines along which neighbouring strips lap.
double lapsOf(const UnderlayTakeoff& strips) {
    double laps = 0;
    for (std::size_t i = 1; i < strips.strips.size(); ++i)
        laps += std::min(strips.strips[i - 1].length, strips.strips[i].length).value;
    return laps;
}

/// So much off the roll in one length, over an area.
LayerTakeoff offTheRoll(M2 area, Mm length, const Barrier& b) {
    LayerTakeoff t;
    t.area = area;
    t.strips.strips = {{0, b.rollWidth.value, length}};
    t.strips.totalLength = t.strips.loose = length;
    t.strips.laidArea = area;
    t.strips.laidMass = {area.value * b.massKgPerM2};
    return t;
}

/// Patches between the ribs that cover a share of what is there, cut without loss off the whole width.
LayerTakeoff patches(const SurfaceShape& shape, const Barrier& b, double share) {
    std::vector<Ring> ribs;
    for (const PlacedSupport& s : shape.supports)
        if (s.kind == SupportKind::Rib) ribs.insert(ribs.end(), s.shape.rings.begin(), s.shape.rings.end());
    const Region between = ribs.empty() ? shape.net : difference(shape.net, unionOf(ribs));
    const double mm2 = areaMm2(between) * share;
    return offTheRoll({mm2 / 1e6}, {mm2 / b.rollWidth.value}, b);
}

/// Strips as wide as the ribs and as long, as many side by side as the roll is wide.
LayerTakeoff alongRibs(const SurfaceShape& shape, const Barrier& b) {
    double mm2 = 0, length = 0;
    for (const PlacedSupport& s : shape.supports) {
        if (s.kind != SupportKind::Rib) continue;
        for (const Region& part : partsOf(intersection(s.shape, shape.net))) {
            const Bounds box = boundsOf(part);
            const double width = s.along ? box.height() : box.width(), run = s.along ? box.width() : box.height();
            if (width < 1) continue;
            mm2 += areaMm2(part);
            length += run / std::max(1.0, std::floor(b.rollWidth.value / width));
        }
    }
    return offTheRoll({mm2 / 1e6}, {length}, b);
}

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Barrier b = barrierOf(f.product);
    if (lapTooWide(f.product, b.lap, b.rollWidth, remarks)) return;
    layer.take = takeOffBarrier(f.outline, b);
    const double share = valueOf(layer.rules, barrierRules(), "share");
    if (valueOf(layer.rules, barrierRules(), "onRibs") != 0)
        layer.take = alongRibs(f.shape, b);
    else if (share < 1)
        layer.take = patches(f.shape, b, share);
    reckonStrips(f.product, {b.rollWidth, b.rollLength, b.lap, b.thickness, b.massKgPerM2}, layer);
}

void needs(const NeedFacts& f, std::vector<Need>& found) {
    // Patches and strips stick by themselves.
    if (valueOf(*f.rules, barrierRules(), "share") < 1 || valueOf(*f.rules, barrierRules(), "onRibs") != 0) return;
    addNeed(found, Serves::BarrierTape, (lapsOf(f.take->strips) + kTapeRound * f.edges.value) / 1000);
}

} // namespace

Family barrierFamily() {
    return {.product = {.id = "barrier",
                        .tradeName = "barrier",
                        .role = LayerRole::Barrier,
                        .soldBy = SoldBy::Roll,
                        .fields = barrierFields(),
                        .layerRules = barrierRules(),
                        .quantity = Quantity::Length},
            .hours = {0.15, 0},
            .takeOff = takeOff,
            .needs = needs,
            .steps = barrierSteps};
}

} // namespace westrum
