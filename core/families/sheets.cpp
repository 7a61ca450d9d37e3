#include "core/families/sheets.h"

#include "core/families/flat_pieces.h"
#include "core/setout/sheet_panels.h"
#include "core/takeoff/fixings.h"

namespace westrum {
namespace {

constexpr std::array<Field, 5> kFixing{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 5, 0, kFixedWith},
    {"fixEdge", "fixings apart at the edge", FieldUnit::Length, 30, 2000, 200},
    {"fixField", "fixings apart in the field", FieldUnit::Length, 30, 2000, 300},
    {"fixInset", "fixings in from the edge", FieldUnit::Length, 0, 200, 15},
    {"fixCups", "cups under the heads", FieldUnit::Flag, 0, 1, 0},
}};
constexpr Mm kThin{4.5}; // a sheet that bends
constexpr std::array kRemarks{
    RemarkKind::BendTooTight,    RemarkKind::JointsOffSupport,      RemarkKind::NoSupports,
    RemarkKind::PanelPastDoor,   RemarkKind::PanelTooLarge,         RemarkKind::SolidMoves,
    RemarkKind::SpanTooWide,     RemarkKind::EdgeOverhangs,         RemarkKind::PanelsUnsupported,
    RemarkKind::PanelSlivers,    RemarkKind::CentreOpeningsMissing, RemarkKind::EdgeBelowThird,
    RemarkKind::GapBelowProduct, RemarkKind::NothingLeftInsideGap,  RemarkKind::TooManyPieces};

void needs(const NeedFacts& f, std::vector<Need>& found) {
    if (f.held.byWrapping) return;
    const std::vector<SupportLine> supports = holders(f);
    const bool cups = fixingValue(f, "fixCups") != 0, solid = sheetOf(*f.product).solid;
    std::array<double, kFixedWith.size()> places{};
    double cupped = 0;
    for (const Piece& piece : f.setOut->pieces) {
        const FixedWith by = holdingOf(piece, f.held);
        const int n = fixingsOfPanel(piece.shape, {fixingValue(f, "fixInset")}, {fixingValue(f, "fixEdge")}, supports,
                                     {fixingValue(f, "fixField")})
                          .total();
        places[static_cast<std::size_t>(by)] += n;
        if (by == FixedWith::Screws && (cups || piece.removable)) cupped += n;
    }
    for (std::size_t i = 0; i < places.size(); ++i) hold(f, static_cast<FixedWith>(i), places[i], false, found);
    addNeed(found, Serves::ScrewCups, cupped);
    // Solid wood moves under its heads.
    if (solid) addNeed(found, Serves::Washers, places[static_cast<std::size_t>(FixedWith::Screws)] - cupped);
}

std::vector<Grip> grips(const GripFacts& f) {
    std::vector<Grip> all;
    addJointGrips(f, false, true, all);
    return all;
}

} // namespace

Family sheetFamily() {
    return {.product = {.id = "sheet",
                        .tradeName = "sheets",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Sheet,
                        .form = StockForm::Sheets,
                        .fields = sheetFields(),
                        .counted = CountedAs::Sheets,
                        .porous = [](const Product&) { return true; },
                        .suits =
                            [](const Product& p) {
                                return Suitability{1, 2, 2, sheetOf(p).thickness <= kThin ? 2 : 1, 2};
                            }},
            .hours = {0.3, 0.35},
            .setOut = panelSetOut(),
            .fixing = kFixing,
            .laid = {.wrapped = true,
                     .lotShows = true,
                     .jointsCovered =
                         [](const FieldValues& rules) { return panelRulesOf(rules).joint == PanelJoint::Strip; }},
            .drawn = {.style = "panel", .lettering = Lettering::Panel, .grainLeads = true},
            .remarks = kRemarks,
            .pieces = addPanels,
            .needs = needs,
            .steps = panelSteps,
            .grips = grips};
}

} // namespace westrum
