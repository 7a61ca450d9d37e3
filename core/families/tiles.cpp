#include "core/families/tiles.h"

#include "core/catalogue/hard_finishes.h"
#include "core/setout/tiling.h"

namespace westrum {
namespace {

constexpr std::array kRemarks{RemarkKind::CutTileSliver,         RemarkKind::DatumMissing,
                              RemarkKind::NothingToRunOn,        RemarkKind::TileLargerThanSurface,
                              RemarkKind::CentreOpeningsMissing, RemarkKind::EdgeBelowThird,
                              RemarkKind::GapBelowProduct,       RemarkKind::NothingLeftInsideGap,
                              RemarkKind::TooManyPieces,         RemarkKind::FieldOutOfRange};

TileStart startAcross(const FieldValues& rules) {
    return static_cast<TileStart>(static_cast<int>(valueOf(rules, tileRuleFields(), "startX")));
}

double usedOfLast(const Product& product, const SetOut& neighbour) {
    const Mm last = neighbour.lastColumn;
    return last.value >= tileOf(product).width.value - 1e-6 ? 0 : last.value;
}

void reckon(const Product& product, LayerPlan& layer) { layer.purchase = buyTiles(product, layer.setOut); }

void needs(const NeedFacts& f, std::vector<Need>& found) {
    const Tile tile = tileOf(*f.product);
    if (!tile.selfAdhesive) addNeed(found, Serves::Grout, groutFor(*f.setOut, tile).value);
}

std::vector<Grip> grips(const GripFacts& f) {
    const SetOut& s = f.setOut;
    if (s.rows.empty()) return {};
    const Tile tile = tileOf(f.product);
    const Bounds net = boundsOf(s.net);
    std::vector<Grip> all;
    if (s.startColumn)
        all.push_back({.moves = Moves::StartColumn,
                       .pull = Pull::Sideways,
                       .stands = Stands::Above,
                       .at = {*s.startColumn, f.outline.high.y},
                       .line = true,
                       .rule = "columnOffset",
                       .value = s.columnOffset.value,
                       .most = std::ceil(tile.width.value) - 1,
                       .origin = net.low.x + tile.width.value,
                       .sense = -1,
                       .handRule = "startX",
                       .byHand = static_cast<double>(TileStart::ByHand)});
    // With a joint between them the first row begins where what is covered begins.
    all.push_back(startLineGrip(f, tile.height.value, s.jointWidth.value > 0 ? net.low.y : s.rows.front().low, "startY",
                                static_cast<double>(TileStart::ByHand)));
    return all;
}

} // namespace

Family tileFamily() {
    return {.product = {.id = "tiles",
                        .tradeName = "tiles",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Pack,
                        .fields = tileFields(),
                        .counted = CountedAs::Tiles,
                        .quantity = Quantity::Pack,
                        .rowField = "height",
                        .columnField = "width",
                        .massPerM2 = [](const Product& p) { return tileOf(p).massKgPerM2(); },
                        .suits =
                            [](const Product& p) {
                                return tileOf(p).selfAdhesive ? Suitability{2, 1, 2, 1, 3} : Suitability{3, 3, 3, 0, 3};
                            }},
            .hours = {0.9, 0.02},
            .setOut = tileSetOut(),
            .laid = {.unitsBySetOut = true,
                     .lotShows = true,
                     .stuck = [](const FieldValues&) { return true; },
                     .runsOn = [](const FieldValues& rules) { return startAcross(rules) == TileStart::RunsOn; },
                     .usedOfLast = usedOfLast},
            .drawn = {.style = "tile", .lettering = Lettering::None},
            .remarks = kRemarks,
            .reckon = reckon,
            .needs = needs,
            .steps = tileSteps,
            .grips = grips};
}

} // namespace westrum
