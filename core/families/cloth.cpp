#include "core/families/cloth.h"

#include "core/families/flat_pieces.h"
#include "core/setout/cushion.h"

namespace westrum {
namespace {

void look(const LayersAbout& about, SetOutRequest& request) {
    for (std::size_t i = 0; i < about.at; ++i) {
        const Product* below = about.products[i];
        if (!below) continue;
        if (below->family == "foam") request.foamThickness = request.foamThickness + thicknessOf(*below);
        if (below->family == "sheet") request.boardThickness = thicknessOf(*below);
    }
}

void needs(const NeedFacts& f, std::vector<Need>& found) {
    addNeed(found, Serves::Blades, f.setOut->figures.cutLength.value / 1000);
}

} // namespace

Family clothFamily() {
    return {.product = {.id = "cloth",
                        .tradeName = "cloth",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Metre,
                        .form = StockForm::Roll,
                        .fields = clothFields(),
                        .counted = CountedAs::MetresOfRoll,
                        .quantity = Quantity::Length,
                        .porous = [](const Product&) { return true; },
                        .suits =
                            [](const Product&) {
                                return Suitability{0, 1, 2, 3, 1};
                            }},
            .hours = {0.8, 0.3},
            .setOut = clothSetOut(),
            .laid = {.seat = true, .blade = true, .lotShows = true},
            .drawn = {.style = "lining", .lettering = Lettering::Panel, .showsOpenings = false},
            .remarks = kCushionRemarks,
            .look = look,
            .reckon = weighAsCut, // borders and bottoms weigh too
            .pieces = addLinings,
            .needs = needs,
            .steps = clothSteps};
}

} // namespace westrum
