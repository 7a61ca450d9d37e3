#include "core/families/linings.h"

#include "core/families/flat_pieces.h"
#include "core/setout/lining.h"
#include "core/takeoff/needs.h"

namespace westrum {
namespace {

constexpr std::array kRemarks{RemarkKind::NoGlass,
                              RemarkKind::NoPanelsBelow,
                              RemarkKind::PatternMisses,
                              RemarkKind::PieceWiderThanRoll,
                              RemarkKind::ReliefOutside,
                              RemarkKind::RepeatBeyondPiece,
                              RemarkKind::RollTooNarrow,
                              RemarkKind::StretchBeyondLining,
                              RemarkKind::TooManyPieces,
                              RemarkKind::UndersizeBeyondStretch,
                              RemarkKind::NothingLeftInsideGap};

void look(const LayersAbout& about, SetOutRequest& request) {
    request.panels.assign(about.panelsBelow.begin(), about.panelsBelow.end());
}

void needs(const NeedFacts& f, std::vector<Need>& found) {
    if (rollOf(*f.product).lining == Lining::SheetVinyl) {
        double seams = 0;
        for (const Joint& j : f.setOut->joints) seams += distance(j.from, j.to);
        addNeed(found, Serves::SeamSealer, seams / 1000);
    }
    addNeed(found, Serves::Blades, f.setOut->figures.cutLength.value / 1000);
}

void fix(NeedFacts& f, std::vector<Fixing>& all) {
    const LiningRules rules = liningRulesOf(*f.rules);
    if (rules.face != LinedFace::Panels || f.held.by != FixedWith::PanelClips) return;
    for (std::size_t i = 0; i < f.setOut->pieces.size(); ++i)
        for (const FixingPlace& place : placeClips(f.setOut->pieces[i].shape, rules.clips))
            all.push_back({.place = place, .piece = static_cast<int>(i), .by = FixedWith::PanelClips});
}

bool porous(const Product& product) {
    const Lining lining = rollOf(product).lining;
    return lining != Lining::SheetVinyl && lining != Lining::Film;
}

Suitability suits(const Product& product) {
    switch (rollOf(product).lining) {
    case Lining::StretchCarpet: return {1, 2, 2, 3, 1};
    case Lining::Felt: return {1, 2, 1, 2, 0};
    case Lining::SheetVinyl: return {3, 1, 3, 2, 3};
    case Lining::Covering: return {1, 1, 1, 3, 2};
    case Lining::Film: return {3, 1, 0, 1, 3};
    }
    return {};
}

/// What is left at the edges: the up-stand, where it has one there, else what is trimmed.
Grip marginGrip(const GripFacts& f, const LiningRules& rules) {
    const bool upstand = rules.upstand.value > 0 && f.lies;
    const double now = (upstand ? rules.upstand : rules.allowance).value;
    // On the upper edge of the first piece.
    const Bounds cut = boundsOf(f.setOut.pieces.front().cut);
    return {.moves = Moves::Margin,
            .at = {cut.low.x + cut.width() * 0.3, cut.high.y},
            .rule = upstand ? "upstand" : "allowance",
            .value = now,
            .most = 300,
            .origin = cut.high.y - now};
}

bool wraps(const FieldValues& rules) { return liningRulesOf(rules).face == LinedFace::Panels; }

bool stuck(const FieldValues& rules) { return liningRulesOf(rules).face == LinedFace::Surface; }
bool keepsWaterOut(const Product& product) { return rollOf(product).lining == Lining::SheetVinyl; }

bool takesReliefs(const FieldValues& rules) { return liningRulesOf(rules).face == LinedFace::Surface; }

std::vector<Grip> grips(const GripFacts& f) {
    std::vector<Grip> all;
    const SetOut& s = f.setOut;
    if (s.proposedRelief)
        all.push_back({.moves = Moves::NewRelief,
                       .pull = Pull::Anywhere,
                       .at = (s.proposedRelief->from + s.proposedRelief->to) * 0.5});
    for (std::size_t i = 0; i < f.reliefs.size(); ++i)
        for (const int end : {0, 1})
            all.push_back({.moves = Moves::ReliefEnd,
                           .pull = Pull::Anywhere,
                           .index = static_cast<int>(i) * 2 + end,
                           .at = end == 0 ? f.reliefs[i].from : f.reliefs[i].to});
    // Seams run along the pile.
    addJointGrips(f, s.pile && std::abs(s.pile->x) > 0.5, false, all);
    const LiningRules rules = liningRulesOf(f.rules);
    if (rules.face == LinedFace::Surface) all.push_back(marginGrip(f, rules));
    return all;
}

} // namespace

Family liningFamily() {
    return {.product = {.id = "roll",
                        .tradeName = "lining off the roll",
                        .role = LayerRole::Finish,
                        .soldBy = SoldBy::Metre,
                        .form = StockForm::Roll,
                        .fields = rollFields(),
                        .counted = CountedAs::MetresOfRoll,
                        .quantity = Quantity::Length,
                        .porous = porous,
                        .suits = suits},
            .hours = {0.5, 0.25},
            .setOut = liningSetOut(),
            .laid = {.napRunsOn = true,
                     .seams = true,
                     .blade = true,
                     .lotShows = true,
                     .stuck = stuck,
                     .keepsWaterOut = keepsWaterOut,
                     .takesReliefs = takesReliefs,
                     .wraps = wraps},
            .drawn = {.style = "lining", .lettering = Lettering::Panel},
            .remarks = kRemarks,
            .look = look,
            .pieces = addLinings,
            .fix = fix,
            .needs = needs,
            .steps = liningSteps,
            .grips = grips};
}

} // namespace westrum
