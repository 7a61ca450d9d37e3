#include "core/families/adhesives.h"

namespace westrum {
namespace {

/// Degrees C that a skin in the sun heats a surface to. Source: docs/formulae.md#bonding
double heatAt(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::Ceiling:
    case SurfaceKind::Headliner: return 80;
    // Behind nothing that the sun shines on.
    case SurfaceKind::Floor:
    case SurfaceKind::Bulkhead:
    case SurfaceKind::ArchTop:
    case SurfaceKind::ArchFace:
    case SurfaceKind::ArchEnd:
    case SurfaceKind::BenchFront:
    case SurfaceKind::BenchTop:
    case SurfaceKind::KitchenFront:
    case SurfaceKind::Splashback:
    case SurfaceKind::WetCellWall:
    case SurfaceKind::Shelf: return 40;
    default: return 60;
    }
}

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Adhesive a = adhesiveOf(f.product);
    layer.take =
        takeOffAdhesive(f.shape, a, f.below && isPorous(*f.below), f.above && isPorous(*f.above), f.spread, f.close);
    layer.area = layer.take.area;
    layer.mass = {layer.take.amount / (1 + a.waste) * a.dryShare}; // what is lost dries elsewhere
    layer.purchase = buyAmount(f.product, layer.take, a.container.value, layer.mass);
    const Place at{"", Part::Product};
    if (!layer.take.bays)
        remarks.push_back({Severity::Error,
                           at,
                           RemarkKind::AdhesiveNeverCloses,
                           {{"product", f.product.name}, {"flash", a.flashMinutes}, {"open", a.openMinutes}},
                           {}});
    if (const double heat = heatAt(f.surface.kind); a.standsHeat < heat)
        remarks.push_back({Severity::Warning,
                           at,
                           RemarkKind::AdhesiveTooCool,
                           {{"product", f.product.name}, {"limit", a.standsHeat}, {"heat", heat}},
                           {}});
}

} // namespace

Family adhesiveFamily() {
    return {.product = {.id = "adhesive",
                        .tradeName = "adhesive",
                        .role = LayerRole::Adhesive,
                        .soldBy = SoldBy::Container,
                        .fields = adhesiveFields(),
                        .quantity = Quantity::Mass,
                        .thickness = [](const Product& p) { return adhesiveOf(p).bed; },
                        .massPerM2 =
                            [](const Product& p) {
                                const Adhesive a = adhesiveOf(p);
                                return a.rateKgPerM2 * (a.bothFaces ? 2 : 1) * a.dryShare;
                            }},
            .hours = {0.15, 0},
            .takeOff = takeOff,
            .steps = adhesiveSteps};
}

} // namespace westrum
