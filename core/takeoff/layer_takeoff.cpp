#include "core/takeoff/layer_takeoff.h"

#include "core/cutting/sheets.h"
#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <tuple>

namespace westrum {
namespace {

constexpr double kHairMm = 0.05;
constexpr double kBridgeMm = 4;     ///< bays joined by less are two
constexpr double kLeastPieceMm = 5; ///< a narrower one is a gap that the batts beside it close

M2 m2(const Region& region) { return {areaMm2(region) / 1e6}; }

/// A bay parted by a grid of cells x by y, whole ones from its lower left or its lower right corner.
std::vector<Region> cells(const Region& bay, double x, double y, bool fromRight) {
    std::vector<Region> all;
    const Bounds b = boundsOf(bay);
    for (double at = 0; at < b.width() - kLeastPieceMm; at += x)
        for (double low = b.low.y; low < b.high.y - kLeastPieceMm; low += y) {
            const double left = fromRight ? b.high.x - at - x : b.low.x + at;
            for (Region& part : partsOf(intersection(bay, {{rectangle(left, low, x, y)}}))) {
                const Bounds p = boundsOf(part);
                if (std::min(p.width(), p.height()) >= kLeastPieceMm) all.push_back(std::move(part));
            }
        }
    return all;
}

/// What hangs together by more than a hair: ribs that end at a slanting edge part their bays, whatever rounding left
/// there.
std::vector<Region> baysOf(const Region& covered) {
    std::vector<Region> bays;
    for (const Region& core : partsOf(inset(covered, kBridgeMm / 2))) {
        Region bay = intersection(outset(core, kBridgeMm / 2), covered);
        if (!bay.empty()) bays.push_back(std::move(bay));
    }
    return bays;
}

/// Sizes in tenths of a millimetre, the largest first: the same for a bay and its mirror image.
std::vector<std::pair<long, long>> sizesOf(const std::vector<Region>& pieces) {
    std::vector<std::pair<long, long>> sizes;
    for (const Region& piece : pieces) {
        const Bounds b = boundsOf(piece);
        const long across = std::lround(b.width() * 10), up = std::lround(b.height() * 10);
        sizes.emplace_back(std::max(across, up), std::min(across, up));
    }
    std::sort(sizes.begin(), sizes.end(), std::greater<>());
    return sizes;
}

/// Batts that a bay's pieces take by themselves, by the first layout of the cutting.
std::size_t battsFor(const std::vector<Region>& pieces, const Insulation& insulation) {
    SheetsProblem problem;
    problem.stock = {{insulation.length.value + kHairMm, insulation.width.value + kHairMm, 1, {}}};
    for (const Region& piece : pieces) {
        const Bounds b = boundsOf(piece);
        problem.pieces.push_back({b.width(), b.height(), 1, true});
    }
    if (pieces.empty() || !faultsOf(problem).empty()) return pieces.size();
    return cutSheets(problem, Effort::first(1)).sheets.size();
}

} // namespace

Region insulated(const SurfaceShape& shape, bool between) {
    Region covered = shape.net;
    if (between && !shape.supports.empty()) {
        std::vector<Ring> taken;
        for (const PlacedSupport& s : shape.supports)
            taken.insert(taken.end(), s.shape.rings.begin(), s.shape.rings.end());
        covered = difference(covered, unionOf(taken));
    }
    return covered;
}

std::vector<Region> battsInBays(const Region& covered, const Insulation& insulation) {
    std::vector<Region> all;
    for (const Region& bay : baysOf(covered)) {
        const Bounds b = boundsOf(bay);
        const bool wide = b.width() >= b.height();
        std::vector<Region> best;
        std::tuple<std::size_t, std::size_t, bool, std::vector<std::pair<long, long>>> least;
        for (const bool along : {true, false})
            for (const bool fromRight : {false, true}) {
                const double x = (along ? insulation.length : insulation.width).value,
                             y = (along ? insulation.width : insulation.length).value;
                std::vector<Region> pieces = cells(bay, x, y, fromRight);
                std::tuple cost(battsFor(pieces, insulation), pieces.size(), along != wide, sizesOf(pieces));
                if (!best.empty() && cost >= least) continue;
                least = std::move(cost);
                best = std::move(pieces);
            }
        for (Region& piece : best) all.push_back(std::move(piece));
    }
    return all;
}

LayerTakeoff takeOffInsulation(const SurfaceShape& shape, bool between) {
    LayerTakeoff t;
    t.area = m2(insulated(shape, between));
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
