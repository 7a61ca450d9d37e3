#include "core/families/planks.h"

#include "core/catalogue/plank.h"
#include "core/setout/plank_floor.h"

namespace westrum {
namespace {

constexpr std::array kRemarks{
    RemarkKind::CutoutSliver,         RemarkKind::EdgeRowSliver,       RemarkKind::EndStaggerBelowLabel,
    RemarkKind::FieldOutOfRange,      RemarkKind::GapBelowProduct,     RemarkKind::NotProvenLeast,
    RemarkKind::NothingLeftInsideGap, RemarkKind::PlankWiderThanFloor, RemarkKind::RowsCannotBeLaid,
    RemarkKind::RowsNotLaid,          RemarkKind::TooManyPieces};

void reckon(const Product& product, LayerPlan& layer) {
    layer.planks = takeOffPlanks(layer.setOut, plankOf(product));
    layer.purchase = buyPlanks(product, *layer.planks);
    layer.area = layer.planks->laidArea;
    layer.mass = layer.planks->laidMass;
}

TrimLength bar(const Product& product) {
    const Plank p = plankOf(product);
    return {.length = p.length, .width = p.width, .mass = {areaOf(p.length, p.width).value * p.massKgPerM2()}};
}

/// The planks of one set-out as bars with their pieces where they are cut.
void addPlanks(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
               WantedPieces& found) {
    const SetOut& setOut = plan.setOut;
    const Mm kerf = plankRulesOf(plan.rules).kerf;

    const Plank plank = plankOf(product);
    const double width = plank.width.value;
    for (std::size_t u = 0; u < setOut.stock.size(); ++u) {
        const StockUnit& unit = setOut.stock[u];
        CutItem item;
        item.name = std::to_string(u + 1);
        item.lengthMm = plank.length.value;
        item.widthMm = width;
        item.decided = true;
        item.kerfMm = kerf.value;
        double fromLeft[2] = {0, 0}; // of the near and of the far strip
        for (const int id : unit.pieces) {
            const Piece& piece = setOut.pieces[std::size_t(id)];
            const bool far = piece.factory.far && !piece.factory.near;
            double& used = fromLeft[unit.rippedInTwo && far ? 1 : 0];
            const bool right = piece.kind == PieceKind::First;
            const double x = right ? plank.length.value - piece.length.value : used;
            if (!right) used += piece.length.value + kerf.value;
            const double y = far ? width - piece.width.value : 0;
            CutPiece wanted;
            wanted.key = "plank/" + surface + layer + "/" + piece.name.key();
            wanted.name = piece.name;
            wanted.surface = surface;
            wanted.shape = {{rectangle(0, 0, piece.length.value, piece.width.value)}};
            wanted.place = piece.shape;
            wanted.cutAway = piece.cutAway;
            wanted.seenBehind = setOut.rowsAcross;
            LyingPiece lies;
            lies.piece = int(found.pieces.size());
            lies.key = wanted.key;
            lies.name = wanted.name;
            lies.at = {x, y};
            lies.shape = {{rectangle(x, y, piece.length.value, piece.width.value)}};
            item.pieces.push_back(std::move(lies));
            found.pieces.push_back(std::move(wanted));
        }
        for (const Cut& cut : unit.cuts) {
            if (cut.kind == CutKind::Cross)
                item.order.push_back({CutStep::Kind::Across, cut.at.value, 0, width, cut.at.value, {}});
            else if (cut.kind == CutKind::Rip)
                item.order.push_back({CutStep::Kind::Along, cut.at.value, 0, plank.length.value, cut.at.value, {}});
        }
        for (std::size_t i = 0; i < unit.pieces.size(); ++i) {
            const Piece& piece = setOut.pieces[std::size_t(unit.pieces[i])];
            const Bounds b = boundsOf(item.pieces[i].shape);
            // The line is drawn on the near side of the cut: of a piece at the right-hand end, a kerf before it.
            const bool right = piece.kind == PieceKind::First;
            for (CutStep& step : item.order) {
                if (step.kind != CutStep::Kind::Across) continue;
                if (right && std::abs(step.atMm - b.low.x) < 0.01) step.atMm = step.partAtMm = b.low.x - kerf.value;
                if (std::abs(step.atMm - (right ? b.low.x - kerf.value : b.high.x)) < 0.01)
                    step.frees.push_back(int(i));
            }
            if (piece.notched)
                item.order.push_back(
                    outlineStep(found.pieces[std::size_t(item.pieces[i].piece)], static_cast<int>(i), b.low));
        }
        for (const Offcut& offcut : unit.offcuts) {
            if (offcut.ripped || offcut.length.value < keepRuleOf(StockForm::Lengths).leastLengthMm) continue;
            // A plank's rest lies between what was cut from its left end and from its right.
            const double x = fromLeft[0] > 0 || fromLeft[1] == 0 ? fromLeft[0] : fromLeft[1];
            item.left.push_back({x, 0, offcut.length.value, offcut.width.value});
        }
        found.decided.push_back(std::move(item));
    }
    found.leastDecided += setOut.leastStock;
}

std::vector<Grip> grips(const GripFacts& f) {
    if (f.setOut.rows.empty()) return {};
    return {startLineGrip(f, plankOf(f.product).width.value, f.setOut.rows.front().low, {}, 0)};
}

} // namespace

Family plankFamily() {
    return {.product = {.id = "planks",
                        .tradeName = "planks",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Pack,
                        .form = StockForm::Lengths,
                        .fields = plankFields(),
                        .counted = CountedAs::Planks,
                        .quantity = Quantity::Pack,
                        .rowField = "width",
                        .bar = bar,
                        .massPerM2 = [](const Product& p) { return plankOf(p).massKgPerM2(); },
                        .suits =
                            [](const Product&) {
                                return Suitability{2, 2, 3, 0, 3};
                            }},
            .hours = {0.25, 0.02},
            .setOut = plankSetOut(),
            .laid = {.unitsBySetOut = true, .floats = true, .lotShows = true, .centred = false, .plainKeys = true},
            .drawn = {.tellsOffcuts = true, .showsDatum = false},
            .remarks = kRemarks,
            .reckon = reckon,
            .pieces = addPlanks,
            .steps = plankSteps,
            .grips = grips};
}

} // namespace westrum
