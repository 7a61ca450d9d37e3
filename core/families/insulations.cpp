#include "core/families/insulations.h"

#include "core/families/flat_pieces.h"
#include "core/geometry/boolean.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr double kLeastLooseMm2 = 1000;
constexpr double kHairMm = 0.05;

/// What is bought is reckoned as thick as it is sold: deep fillings layer on layer, cavities by their volume.
void takeOff(const TakeOffFacts& f, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Insulation i = insulationOf(f.product);
    const auto rule = [&](std::string_view key) { return valueOf(layer.rules, insulationRules(), key); };
    const bool between = rule("between") != 0, gives = squashOf(f.product) > 0, pressed = rule("pressed") != 0;
    layer.take = takeOffInsulation(f.shape, between);
    layer.area = layer.take.area;
    const double thickness = std::max(0.1, i.thickness.value);
    double layers = std::max(1.0, rule("fill") / thickness);
    if (pressed && gives) {
        layer.take.loose = layer.take.area.value * layers;
    } else {
        layers = static_cast<double>(roundUp(layers)); // what is not pressed lies in whole layers
        layer.take.boards = battsInBays(insulated(f.shape, between), i);
        layer.take.boardLayers = static_cast<int>(layers);
    }
    if (pressed && !gives)
        remarks.push_back({Severity::Warning,
                           {"", Part::Rule},
                           RemarkKind::BattsTooStiff,
                           {{"product", f.product.name}},
                           Fix{FixKind::SetRule, "pressed", 0.0}});
    const double cavities = rule("cavity") / thickness; // litres / mm = m2
    layer.take.loose += cavities;
    layer.take.amount = layer.take.area.value * layers + cavities;
    layer.mass = {layer.take.amount * i.massKgPerM2};
}

/// The pieces of its bays; what is pressed in as whole batts and the rest of one.
void addBatts(const Product& product, const std::string& surface, const std::string& at, const LayerPlan& plan,
              WantedPieces& found) {
    const Insulation i = insulationOf(product);
    int number = 0;
    // A whole batt is a whole batt, whatever the clipping made of it.
    const auto snapped = [&](double mm) {
        for (const double size : {i.length.value, i.width.value})
            if (std::abs(mm - size) < kHairMm) return size;
        return mm;
    };
    const auto add = [&](const Region& place) {
        CutPiece wanted;
        const std::string own = std::to_string(++number);
        wanted.key = "batt/" + surface + at + "/" + own;
        wanted.name = PieceName(own);
        wanted.surface = surface;
        const Bounds b = boundsOf(place);
        wanted.shape = {{rectangle(b.low.x, b.low.y, snapped(b.width()), snapped(b.height()))}};
        if (areaMm2(place) < b.width() * b.height() - 50) wanted.marks = outlineMarks(place);
        wanted.weighed = true;
        return &found.pieces.emplace_back(std::move(wanted));
    };
    for (int layer = 0; layer < plan.take.boardLayers; ++layer)
        for (const Region& piece : plan.take.boards) {
            CutPiece* wanted = add(piece);
            wanted->place = piece;
            toOrigin(*wanted);
        }
    double rest = plan.take.loose * 1e6;
    while (rest > kLeastLooseMm2) {
        const double length = std::min(i.length.value, rest / i.width.value);
        add({{rectangle(0, 0, length, i.width.value)}});
        rest -= length * i.width.value;
    }
}

constexpr std::array kRemarks{RemarkKind::BattsTooStiff};

} // namespace

Family insulationFamily() {
    return {.product = {.id = "insulation",
                        .tradeName = "insulation",
                        .role = LayerRole::Insulation,
                        .soldBy = SoldBy::Pack,
                        .form = StockForm::Sheets,
                        .fields = insulationFields(),
                        .layerRules = insulationRules(),
                        .counted = CountedAs::Batts,
                        .quantity = Quantity::Pack},
            .hours = {0.2, 0},
            // What does not give way is closed-cell: it needs no barrier of its own.
            .laid = {.blade = true,
                     .gives = [](const Product& p) { return squashOf(p) > 0; },
                     .keepsDampOut = [](const Product& p) { return squashOf(p) <= 0; }},
            .remarks = kRemarks,
            .takeOff = takeOff,
            .pieces = addBatts,
            .steps = insulationSteps};
}

} // namespace westrum
