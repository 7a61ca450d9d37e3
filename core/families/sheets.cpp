#include "core/families/sheets.h"

#include "core/families/flat_pieces.h"
#include "core/geometry/boolean.h"
#include "core/setout/sheet_panels.h"
#include "core/takeoff/needs.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<Field, 5> kFixing{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 7, 7, kFixedWith},
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
    RemarkKind::GapBelowProduct, RemarkKind::NothingLeftInsideGap,  RemarkKind::TooManyPieces,
    RemarkKind::PanelPastLoad,   RemarkKind::LidInPieces,           RemarkKind::LidUnderKerf,
    RemarkKind::FingerTooLarge};

/// Whether a cover strip lies over a place: it is no further from a joint than the edge's line of fixings.
bool underStrip(Point p, const SetOut& setOut, double reach) {
    return std::any_of(setOut.joints.begin(), setOut.joints.end(), [&](const Joint& j) {
        const Point way = j.to - j.from;
        const double length = std::max(1e-9, distance(j.from, j.to)), on = dot(p - j.from, way) / length;
        return on > -reach && on < length + reach && std::abs(cross(way, p - j.from)) / length <= reach;
    });
}

void fix(NeedFacts& f, std::vector<Fixing>& all) {
    if (f.held.byWrapping) return;
    const std::vector<Holder> holders = holdersFor(f);
    const FixingRules rules = fixingRulesOf(f);
    const PanelRules panels = panelRulesOf(*f.rules);
    const bool cups = fixingValue(f, "fixCups") != 0, solid = sheetOf(*f.product).solid;
    const double reach = rules.inset.value + panels.jointGap.value / 2 + 1;
    for (std::size_t i = 0; i < f.setOut->pieces.size(); ++i) {
        const Piece& piece = f.setOut->pieces[i];
        const bool heavy = std::any_of(f.heavy.begin(), f.heavy.end(),
                                       [&](const Region& r) { return areaMm2(intersection(r, piece.shape)) > 1; });
        FixedWith by = holdingOf(piece, f.held, heavy, f.into.has_value());
        if (f.holders)
            if (const auto own = f.holders->find(piece.name.key()); own != f.holders->end())
                by = holdingOf(piece, {static_cast<FixedWith>(own->second)}, heavy, f.into.has_value());
        if (by == FixedWith::AdhesiveAlone) continue;
        const PlacedFixings placed = placeOnPanel(piece.shape, rules, holders);
        f.leftOut += placed.leftOut;
        for (const FixingPlace& place : placed.places) {
            Fixing x = fixingAt(f, place, by, cups || piece.removable);
            x.piece = static_cast<int>(i);
            if (by == FixedWith::Screws && solid && !x.cup) x.washer = true; // solid wood moves under its heads
            x.underStrip = panels.joint == PanelJoint::Strip && underStrip(place.at, *f.setOut, reach);
            all.push_back(std::move(x));
        }
    }
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
                     .takesCoatLoose = true,
                     .jointsCovered =
                         [](const FieldValues& rules) { return panelRulesOf(rules).joint == PanelJoint::Strip; }},
            .drawn = {.style = "panel", .lettering = Lettering::Panel, .grainLeads = true},
            .remarks = kRemarks,
            .pieces = addPanels,
            .fix = fix,
            .steps = panelSteps,
            .grips = grips};
}

} // namespace westrum
