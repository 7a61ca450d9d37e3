#include "tests/families/cork_tiles.h"

#include "core/families/flat_pieces.h"
#include "core/geometry/boolean.h"
#include "core/setout/common_rules.h"

#include <algorithm>
#include <cmath>

namespace westrum::test {
namespace {

constexpr std::array<Field, 8> kCork{{
    {"length", "tile length", FieldUnit::Length, 50, 1500, 600},
    {"width", "tile width", FieldUnit::Length, 50, 1500, 300},
    {"thickness", "thickness", FieldUnit::Length, 1, 20, 4},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 5, 0}, // a knife takes nothing
    {"edgeTrim", "edge trim", FieldUnit::Length, 0, 50, 0},
    {"perPack", "tiles in a pack", FieldUnit::Count, 1, 500, 10},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 40, 1.9},
    {"grain", "grain", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<Field, 2> kRules{{
    {"startOffset", "cut off the first row", FieldUnit::Length, 0, 1500, 0},
    {"half", "half bond", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<std::string_view, 1> kStartRules{"startOffset"};
constexpr std::array kRemarks{RemarkKind::EdgeBelowThird, RemarkKind::TooManyPieces};
constexpr double kRestHours = 48, kCureHours = 24;

SetOut layTiles(const SetOutRequest& r, const std::stop_token&) {
    SetOut s;
    const double length = figureOf(r.product, "length"), width = figureOf(r.product, "width");
    const double offset = std::min(valueOf(r.rules, kRules, "startOffset"), width - 1);
    const bool half = valueOf(r.rules, kRules, "half") != 0;
    s.net = r.outline;
    const Bounds b = boundsOf(s.net);
    s.module = width;
    s.startOffset = {offset};
    s.startLine = b.low.y + width - offset;
    if (tooMany(b.width() / length * b.height() / width, s.remarks)) return s;
    double area = 0;
    for (int row = 0; b.low.y - offset + row * width < b.high.y - 0.5; ++row) {
        const double y = b.low.y - offset + row * width;
        s.rows.push_back({std::max(y, b.low.y), std::min(y + width, b.high.y)});
        const double from = b.low.x - (half && row % 2 == 1 ? length / 2 : 0);
        int inRow = 0;
        for (double x = from; x < b.high.x - 0.5; x += length) {
            const Region shape = intersection(s.net, {{rectangle(x, y, length, width)}});
            if (shape.empty()) continue;
            const Bounds own = boundsOf(shape);
            Piece piece;
            piece.name = std::to_string(row + 1) + "." + std::to_string(++inRow);
            piece.row = row;
            piece.inRow = inRow - 1;
            piece.shape = shape;
            piece.length = {own.width()};
            piece.width = {own.height()};
            piece.narrowest = {std::min(own.width(), own.height())};
            piece.notched = areaMm2(shape) < own.width() * own.height() - 1;
            const bool whole = areaMm2(shape) > length * width - 1;
            piece.kind = whole ? PieceKind::Whole : PieceKind::Cut;
            if (!whole) s.figures.cutLength = s.figures.cutLength + piece.length;
            area += areaMm2(shape);
            s.pieces.push_back(std::move(piece));
        }
    }
    if (s.rows.empty()) return s;
    s.firstRow = {s.rows.front().width()};
    s.lastRow = {s.rows.back().width()};
    s.figures.narrowestEdge = std::min(s.firstRow, s.lastRow);
    s.figures.unevenness = {std::abs((s.firstRow - s.lastRow).value)};
    s.figures.pieces = static_cast<int>(s.pieces.size());
    s.figures.stock = s.figures.pieces;
    s.figures.leastStock = static_cast<int>(std::ceil(area / (length * width) - 1e-6));
    checkEdge("last", s.lastRow, {width}, s.remarks);
    return s;
}

std::vector<StartChoice> choices(const SetOutRequest& request, const std::stop_token& stop) {
    std::vector<StartChoice> all;
    const double width = figureOf(request.product, "width");
    for (double offset = 0; offset < width && !stop.stop_requested(); offset += 1) {
        SetOutRequest r = request;
        r.rules["startOffset"] = offset;
        tell(request, offset / width);
        if (const SetOut s = layTiles(r, stop); s.laid()) all.push_back(choiceOf(s, {{"startOffset", offset}}, true));
    }
    return all;
}

void steps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& all) {
    std::int64_t whole = 0, cut = 0;
    for (const Piece& p : layer.setOut->pieces) ++(p.kind == PieceKind::Whole ? whole : cut);
    all.push_back({.key = "rest",
                   .kind = StepKind::RestVinyl,
                   .facts = {{"degrees", std::int64_t{18}}},
                   .wait = Wait{WaitKind::Rest, kRestHours}});
    all.push_back({.key = "lay", .kind = StepKind::LayTiles, .facts = {{"whole", whole}}});
    all.push_back({.key = "cut",
                   .kind = StepKind::CutTiles,
                   .facts = {{"cut", cut}, {"tiles", cut}},
                   .caution = Caution::SharpBlades,
                   .wait = Wait{WaitKind::Cure, kCureHours}});
}

std::vector<Grip> grips(const GripFacts& f) {
    return {startLineGrip(f, figureOf(f.product, "width"), f.setOut.rows.front().low, {}, 0)};
}

} // namespace

Family corkFamily() {
    return {
        .product = {.id = "cork",
                    .tradeName = "cork tiles",
                    .role = LayerRole::Finish,
                    .soldBy = SoldBy::Pack,
                    .form = StockForm::Sheets,
                    .fields = kCork,
                    .counted = CountedAs::Tiles,
                    .quantity = Quantity::Pack,
                    .rowField = "width",
                    .porous = [](const Product&) { return true; },
                    .suits =
                        [](const Product&) {
                            return Suitability{1, 1, 2, 1, 1};
                        }},
        .hours = {0.7, 0.03},
        .setOut = SetOutFamily{"cork", kRules, layTiles, choices,
                               [](Mm offset) {
                                   return FieldValues{{"startOffset", offset.value}};
                               },
                               nullptr, kStartRules},
        .laid = {.blade = true, .lotShows = true},
        .drawn = {.style = "tile", .lettering = Lettering::Panel},
        .remarks = kRemarks,
        .pieces = addPanels,
        .needs = [](const NeedFacts& f,
                    std::vector<Need>& all) { addNeed(all, Serves::Blades, f.setOut->figures.cutLength.value / 1000); },
        .steps = steps,
        .grips = grips};
}

} // namespace westrum::test
