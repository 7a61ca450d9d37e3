#include "core/families/battens.h"

#include "core/takeoff/needs.h"

#include <algorithm>

namespace westrum {
namespace {

constexpr std::array<Field, 2> kFixing{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 7, 0, kFixedWith},
    {"fixField", "fixings apart", FieldUnit::Length, 30, 2000, 300},
}};

TrimLength bar(const Product& product) {
    const auto mm = [&](std::string_view key) { return Mm{figureOf(product, key)}; };
    return {.length = mm("length"),
            .width = mm("width"),
            .kerf = mm("kerf"),
            .endTrim = squaredOff(mm("endTrim"), mm("kerf")),
            .mass = {figureOf(product, "mass")}};
}

void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    std::vector<bool> batten;
    for (const Support& s : f.surface.supports) batten.push_back(s.kind == SupportKind::Batten);
    layer.take = takeOffBattens(f.shape, batten);
    layer.area = layer.take.area;
    const TrimLength sold = bar(f.product);
    for (const Mm length : layer.take.lengths)
        layer.mass = layer.mass + Kg{sold.length.value > 0 ? sold.mass.value * length.value / sold.length.value : 0};
    if (layer.take.lengths.empty())
        remarks.push_back(
            {Severity::Warning, {"", Part::Support}, RemarkKind::NoBattens, {{"product", f.product.name}}, {}});
}

void addBattens(const Product& product, const std::string& surface, const std::string&, const LayerPlan& plan,
                WantedPieces& found) {
    const TrimLength bar = barOf(product);
    const double most = (bar.length - bar.endTrim * 2).value;
    int number = 0;
    for (const Mm length : plan.take.lengths) {
        ++number;
        const int parts = std::max(1, int(std::ceil(length.value / std::max(1.0, most) - 1e-9)));
        for (int n = 0; n < parts; ++n) {
            CutPiece wanted;
            wanted.key = "batten/" + surface + "/" + std::to_string(number) + "/" + std::to_string(n + 1);
            wanted.name = PieceName::of(PiecePart::Batten, 0, number, parts > 1 ? n + 1 : 0);
            wanted.surface = surface;
            wanted.shape = {{rectangle(0, 0, length.value / parts, bar.width.value)}};
            wanted.weighed = true;
            found.pieces.push_back(std::move(wanted));
        }
    }
}

void fix(NeedFacts& f, std::vector<Fixing>& all) {
    const FixedWith by = holdingOf({}, f.held, false, f.into.has_value());
    if (by == FixedWith::AdhesiveAlone) return;
    const FixingRules rules = fixingRulesOf(f);
    std::vector<Holder> ribs = holdersOf(*f.shape, f.surface);
    const bool beside = valueOf(*f.rules, battenRules(), "beside") != 0;
    std::erase_if(ribs, [&](const Holder& h) { return beside || h.kind != SupportKind::Rib; });
    for (std::size_t i = 0; i < f.take->stretches.size(); ++i) {
        const LayerTakeoff::Stretch& batten = f.take->stretches[i];
        PlacedFixings placed = placeOnBar(batten.shape, batten.along, 1, rules, ribs);
        // One that meets no rib stands on what bounds the surface: a rail, a sill.
        const auto holds = [](const FixingPlace& place) { return place.holds; };
        if (placed.leftOut == 0 && std::none_of(placed.places.begin(), placed.places.end(), holds))
            placed = placeOnBar(batten.shape, batten.along, 1, rules, {});
        f.leftOut += placed.leftOut;
        for (const FixingPlace& place : placed.places) {
            all.push_back(fixingAt(f, place, by, false));
            all.back().piece = static_cast<int>(i);
        }
    }
}

} // namespace

Family battenFamily() {
    return {.product = {.id = "battens",
                        .tradeName = "battens",
                        .role = LayerRole::Batten,
                        .soldBy = SoldBy::Length,
                        .form = StockForm::Lengths,
                        .fields = battenFields(),
                        .layerRules = battenRules(),
                        .bar = bar,
                        .porous = [](const Product&) { return true; }},
            .hours = {0.6, 0},
            .fixing = kFixing,
            .takeOff = takeOff,
            .pieces = addBattens,
            .fix = fix,
            .steps = battenSteps};
}

} // namespace westrum
