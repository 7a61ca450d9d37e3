#include "core/families/foam.h"

#include "core/families/flat_pieces.h"
#include "core/setout/cushion.h"

namespace westrum {
namespace {

void look(const LayersAbout& about, SetOutRequest& request) {
    for (std::size_t i = about.at + 1; i < about.products.size(); ++i)
        if (about.products[i] && about.products[i]->family == "cloth") request.cover = *about.rules[i];
}

} // namespace

Family foamFamily() {
    return {.product = {.id = "foam",
                        .tradeName = "foam",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Sheet,
                        .form = StockForm::Sheets,
                        .fields = foamFields(),
                        .counted = CountedAs::Sheets,
                        .porous = [](const Product&) { return true; },
                        .suits =
                            [](const Product&) {
                                return Suitability{0, 0, 1, 3, 0};
                            }},
            .hours = {0.1, 0.2},
            .setOut = foamSetOut(),
            .laid = {.cushion = true, .blade = true},
            .drawn = {.style = "sponge", .lettering = Lettering::Panel, .margins = false},
            .remarks = kCushionRemarks,
            .look = look,
            .reckon = weighAsCut, // a block is larger than what it fills
            .pieces = addPanels,
            .steps = foamSteps};
}

} // namespace westrum
