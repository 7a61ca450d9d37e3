#include "core/families/coatings.h"

namespace westrum {
namespace {

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>&) {
    const Coating c = coatingOf(f.product);
    layer.take = takeOffCoating(f.shape, c, f.below && isPorous(*f.below));
    layer.area = layer.take.area;
    layer.mass = {layer.take.amount / (1 + c.waste) * c.dryKgPerLitre};
    layer.purchase = buyAmount(f.product, layer.take, c.tinLitres, layer.mass);
}

void needs(const NeedFacts& f, std::vector<Need>& found) {
    // Sanded between coats; its edges are masked once.
    addNeed(found, Serves::AbrasiveDiscs, f.take->area.value * (coatingOf(*f.product).coats - 1));
    addNeed(found, Serves::MaskingTape, f.edges.value / 1000);
}

} // namespace

Family coatingFamily() {
    return {.product = {.id = "coating",
                        .tradeName = "coating",
                        .role = LayerRole::Coating,
                        .soldBy = SoldBy::Container,
                        .fields = coatingFields(),
                        .quantity = Quantity::Volume,
                        .thickness =
                            [](const Product& p) {
                                const Coating c = coatingOf(p);
                                return c.dryThickness * c.coats;
                            },
                        .massPerM2 =
                            [](const Product& p) {
                                const Coating c = coatingOf(p);
                                return c.coats / c.spreadingRateM2PerLitre * c.dryKgPerLitre;
                            },
                        .suits =
                            [](const Product&) {
                                return Suitability{2, 2, 1, 3, 2};
                            }},
            .hours = {0.25, 0},
            .takeOff = takeOff,
            .needs = needs,
            .steps = coatingSteps};
}

} // namespace westrum
