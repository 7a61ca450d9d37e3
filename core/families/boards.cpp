#include "core/families/boards.h"

#include "core/catalogue/hard_finishes.h"
#include "core/families/flat_pieces.h"
#include "core/setout/board_cladding.h"
#include "core/takeoff/needs.h"

namespace westrum {
namespace {

constexpr std::array<Field, 3> kFixing{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 7, 0, kFixedWith},
    {"fixField", "fixings apart without supports", FieldUnit::Length, 30, 2000, 400},
    {"fixCups", "cups under the heads", FieldUnit::Flag, 0, 1, 0},
}};
constexpr double kWideBoard = 100; // mm: a wider one has two fixings at every crossing
constexpr std::array kRemarks{RemarkKind::BoardWiderThanSurface,
                              RemarkKind::CutoutSliver,
                              RemarkKind::DatumMissing,
                              RemarkKind::JointsInLine,
                              RemarkKind::JointsOffSupport,
                              RemarkKind::LampOffRow,
                              RemarkKind::NoSupports,
                              RemarkKind::RunLongerThanStock,
                              RemarkKind::TaperLosesLock,
                              RemarkKind::TaperTooNarrow,
                              RemarkKind::CentreOpeningsMissing,
                              RemarkKind::EdgeBelowThird,
                              RemarkKind::GapBelowProduct,
                              RemarkKind::NothingLeftInsideGap,
                              RemarkKind::TooManyPieces};

TrimLength bar(const Product& product) {
    const Board b = boardOf(product);
    return {.length = b.length,
            .width = b.overall,
            .kerf = b.kerf,
            .endTrim = b.endTrim,
            .mass = {areaOf(b.length, b.cover).value * b.massKgPerM2}};
}

void fix(NeedFacts& f, std::vector<Fixing>& all) {
    const FixedWith by = holdingOf({}, f.held, false, f.into.has_value());
    if (by == FixedWith::AdhesiveAlone) return;
    const int abreast = boardOf(*f.product).cover.value > kWideBoard ? 2 : 1;
    const std::vector<Holder> holders = holdersFor(f);
    const FixingRules rules = fixingRulesOf(f);
    const bool cups = fixingValue(f, "fixCups") != 0;
    for (std::size_t i = 0; i < f.setOut->pieces.size(); ++i) {
        const PlacedFixings placed =
            placeOnBar(f.setOut->pieces[i].shape, !f.setOut->rowsAcross, abreast, rules, holders);
        f.leftOut += placed.leftOut;
        for (const FixingPlace& place : placed.places) {
            all.push_back(fixingAt(f, place, by, cups));
            all.back().piece = static_cast<int>(i);
        }
    }
}

/// Boards as bars of their lengths; rips and notches are marked on them.
void addBoards(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
               WantedPieces& found) {
    const SetOut& setOut = plan.setOut;
    const double width = barOf(product).width.value;
    for (const Piece& piece : setOut.pieces) {
        CutPiece wanted = wantedOf("board", surface, layer, piece);
        wanted.shape = {{rectangle(0, 0, piece.length.value, width)}};
        if (piece.ripAtStart.value > 0 && std::min(piece.ripAtStart, piece.ripAtEnd).value < width - 1e-3) {
            const auto line = [&](Mm rip) { return piece.factory.near ? rip.value : width - rip.value; };
            wanted.marks.push_back(
                {{piece.ripFrom.value, line(piece.ripAtStart)}, {piece.ripTo.value, line(piece.ripAtEnd)}});
        }
        wanted.cutAway = piece.cutAway;
        wanted.seenBehind = setOut.rowsAcross;
        found.pieces.push_back(std::move(wanted));
    }
}

std::vector<Grip> grips(const GripFacts& f) {
    const SetOut& s = f.setOut;
    if (s.rows.empty()) return {};
    std::vector<Grip> all;
    if (s.taperBoards > 0 && !s.rowsAcross) {
        const auto from = s.rows.size() - static_cast<std::size_t>(s.taperBoards);
        all.push_back({.moves = Moves::Taper,
                       .stands = Stands::Right,
                       .at = {f.outline.high.x, s.rows[from].low},
                       .rule = "taperBoards",
                       .value = static_cast<double>(s.taperBoards),
                       .least = 1,
                       .most = static_cast<double>(s.rows.size())});
    }
    for (const OpeningFact& o : f.openings)
        if (o.kind == OpeningKind::Lamp) {
            const Bounds b = boundsOf(o.placed.shape);
            all.push_back({.moves = Moves::Lamp,
                           .pull = Pull::Anywhere,
                           .index = o.placed.opening,
                           .at = (b.low + b.high) * 0.5});
        }
    all.push_back(startLineGrip(f, boardOf(f.product).cover.value, s.rows.front().low, "start",
                                static_cast<double>(BoardStart::ByHand)));
    return all;
}

} // namespace

Family boardFamily() {
    return {.product = {.id = "boards",
                        .tradeName = "tongue-and-groove boards",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Length,
                        .form = StockForm::Lengths,
                        .fields = boardFields(),
                        .counted = CountedAs::Boards,
                        .rowField = "cover",
                        .bar = bar,
                        .porous = [](const Product&) { return true; },
                        .suits =
                            [](const Product&) {
                                return Suitability{1, 2, 2, 1, 2};
                            }},
            .hours = {0.5, 0.04},
            .setOut = boardSetOut(),
            .fixing = kFixing,
            .laid = {.choosesLengths = true,
                     .lotShows = true,
                     .acrossSupports = true,
                     .lampsOnRows = true,
                     .takesCoatLoose = true},
            .drawn = {.style = "board"},
            .remarks = kRemarks,
            .pieces = addBoards,
            .fix = fix,
            .steps = boardSteps,
            .grips = grips};
}

} // namespace westrum
