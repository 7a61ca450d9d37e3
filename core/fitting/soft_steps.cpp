#include "core/catalogue/stock.h"
#include "core/fitting/efforts.h"
#include "core/fitting/steps.h"
#include "core/setout/cushion.h"
#include "core/setout/lining.h"
#include "core/takeoff/fixings.h"

#include <algorithm>

namespace westrum {
namespace {

constexpr std::int64_t kVinylRestC = 18;
constexpr double kVinylRestHours = 24, kBondHours = 24;

} // namespace

void liningSteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& s = *layer.setOut;
    const RollGoods roll = rollOf(*layer.product);
    const LiningRules rules = liningRulesOf(*layer.rules);
    const auto pieces = static_cast<std::int64_t>(s.pieces.size());
    const bool panels = rules.face == LinedFace::Panels, glass = rules.face == LinedFace::Glass;
    if (roll.lining == Lining::SheetVinyl)
        steps.push_back({.key = "rest",
                         .kind = StepKind::RestVinyl,
                         .facts = {{"degrees", kVinylRestC}},
                         .wait = Wait{WaitKind::Rest, kVinylRestHours}});
    FitStep cut{.key = "cut",
                .kind = StepKind::CutLinings,
                .facts = {{"product", layer.product->name}, {"count", pieces}},
                .caution = Caution::SharpBlades};
    for (int i = 0; i < static_cast<int>(pieces); ++i) cut.pieces.push_back(i);
    steps.push_back(std::move(cut));
    steps.push_back({.key = "face",
                     .kind = glass ? StepKind::CleanGlass : StepKind::CleanFace,
                     .facts = {},
                     .caution = facts.airbags ? std::optional(Caution::AirbagZones) : std::nullopt});
    const bool clipped = panels && layer.held.by == FixedWith::PanelClips;
    if (panels) {
        int clips = 0;
        for (const Piece& p : s.pieces)
            for (const ClippedSide& side : clippedSides(p.shape, rules.clips)) clips += side.clips.count;
        steps.push_back({.key = "wrap",
                         .kind = StepKind::WrapPanels,
                         .facts = {{"count", pieces}, {"turn", rules.turnUnder}},
                         .caution = Caution::Solvents});
        FitStep clip{.key = "clips",
                     .kind = StepKind::ClipPanels,
                     .facts = {{"clips", std::int64_t{clips}}, {"apart", rules.clips}},
                     .caution = Caution::DrillIntoBody};
        if (!clipped) return; // its panels are held another way, said with them
        // Where each sits: panel by panel, side by side.
        for (const Piece& p : s.pieces)
            for (const ClippedSide& side : clippedSides(p.shape, rules.clips)) {
                clip.facts.emplace_back("panel", p.name);
                clip.facts.emplace_back("side", side.length);
                clip.facts.emplace_back("first", kClipFromEnd);
                clip.facts.emplace_back("spacing", side.clips.spacing.value_or(Mm{0}));
                clip.facts.emplace_back("count", static_cast<std::int64_t>(side.clips.count));
            }
        steps.push_back(std::move(clip));
        return;
    }
    if (glass) {
        steps.push_back({.key = "film", .kind = StepKind::LayFilm, .facts = {{"count", pieces}}});
        return;
    }
    steps.push_back({.key = "stick",
                     .kind = roll.lining == Lining::SheetVinyl ? StepKind::LayVinyl : StepKind::StickLining,
                     .facts = {{"count", pieces}, {"share", rules.undersize}},
                     .caution = Caution::Solvents,
                     .wait = Wait{WaitKind::Cure, kBondHours}});
    if (!s.joints.empty()) {
        Mm total;
        for (const Joint& j : s.joints) total = total + Mm{distance(j.from, j.to)};
        steps.push_back({.key = "seams",
                         .kind = StepKind::CloseSeams,
                         .facts = {{"count", static_cast<std::int64_t>(s.joints.size())},
                                   {"total", total},
                                   {"lap", rules.seamLap},
                                   {"lapped", std::int64_t{rules.lapped ? 1 : 0}}},
                         .caution = Caution::SharpBlades});
    }
    if (rules.upstand.value > 0 && facts.lies)
        steps.push_back({.key = "upstand",
                         .kind = StepKind::TurnUpstand,
                         .facts = {{"height", rules.upstand}},
                         .caution = Caution::HotTools});
    steps.push_back({.key = "trim",
                     .kind = StepKind::TrimLining,
                     .facts = {{"allowance", rules.allowance}, {"turnIn", rules.turnIn}},
                     .caution = roll.lining == Lining::StretchCarpet ? Caution::HotTools : Caution::SharpBlades});
}

namespace {

double sundry(const SetOut& s, SundryKind kind) {
    for (const Sundry& each : s.sundries)
        if (each.kind == kind) return each.amount;
    return 0;
}

} // namespace

void foamSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    FitStep cut{.key = "cut",
                .kind = StepKind::CutFoam,
                .facts = {{"count", static_cast<std::int64_t>(layer.setOut->pieces.size())},
                          {"glue", sundry(*layer.setOut, SundryKind::FoamGlue)}},
                .caution = Caution::FoamFire};
    for (int i = 0; i < static_cast<int>(layer.setOut->pieces.size()); ++i) cut.pieces.push_back(i);
    steps.push_back(std::move(cut));
}

void clothSteps(const FitFacts&, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& s = *layer.setOut;
    const CushionRules rules = cushionRulesOf(*layer.rules);
    FitStep cut{.key = "cut",
                .kind = StepKind::CutCloth,
                .facts = {{"product", layer.product->name}, {"count", static_cast<std::int64_t>(s.pieces.size())}},
                .caution = Caution::SharpBlades};
    for (int i = 0; i < static_cast<int>(s.pieces.size()); ++i) cut.pieces.push_back(i);
    steps.push_back(std::move(cut));
    if (rules.style == CushionStyle::Wrapped) {
        steps.push_back({.key = "staple",
                         .kind = StepKind::StapleCover,
                         .facts = {{"staples", static_cast<std::int64_t>(sundry(s, SundryKind::Staples))},
                                   {"turn", rules.turnUnder}},
                         .caution = Caution::SharpBlades});
        return;
    }
    if (const double zip = sundry(s, SundryKind::Zip); zip > 0)
        steps.push_back({.key = "zip", .kind = StepKind::SewZip, .facts = {{"length", Mm{zip}}}});
    if (const double cord = sundry(s, SundryKind::PipingCord); cord > 0)
        steps.push_back({.key = "piping",
                         .kind = StepKind::SewPiping,
                         .facts = {{"length", Mm{cord}}, {"width", pipingStripWidth(rules.cord, rules.seam)}}});
    steps.push_back({.key = "sew",
                     .kind = StepKind::SewCushions,
                     .facts = {{"seam", rules.seam}, {"thread", Mm{sundry(s, SundryKind::Thread)}}}});
    steps.push_back(
        {.key = "fill", .kind = StepKind::FillCushions, .facts = {{"ease", rules.ease}}, .caution = Caution::FoamFire});
}

void trimSteps(const TrimPlan& trims, const std::string& surface, std::span<const Product> products,
               const OwnEfforts& efforts, std::vector<FitStep>& steps) {
    const std::size_t before = steps.size();
    for (const Product& product : products) {
        std::int64_t pieces = 0, mitred = 0, coped = 0;
        Mm length;
        for (const TrimRun& run : trims.runs) {
            if (run.surface != surface || run.product != product.id) continue;
            length = length + run.length;
            for (const TrimPiece& piece : run.pieces) {
                ++pieces;
                for (const TrimJoint* j : {&piece.start, &piece.end}) {
                    mitred += j->end == TrimEnd::Mitred;
                    coped += j->end == TrimEnd::Coped;
                }
            }
        }
        if (pieces == 0) continue;
        const Profile profile = trimOf(product).profile;
        const bool bead = profile == Profile::SealantBead;
        const bool soft = profile == Profile::PushOnEdging || profile == Profile::BoundEdge;
        steps.push_back({.key = "trim/" + product.id,
                         .kind = bead   ? StepKind::RunBead
                                 : soft ? StepKind::FitEdging
                                        : StepKind::FitTrim,
                         .facts = {{"product", product.name},
                                   {"pieces", pieces},
                                   {"length", length},
                                   {"mitred", mitred},
                                   {"coped", coped}},
                         .caution = bead   ? Caution::Solvents
                                    : soft ? Caution::SharpBlades
                                           : Caution::SawAndDust,
                         .wait = bead ? std::optional(Wait{WaitKind::Cure, kBondHours}) : std::nullopt});
    }
    const std::span own = std::span(steps).subspan(before);
    // Sealant runs along what is there already.
    std::stable_partition(own.begin(), own.end(), [](const FitStep& s) { return s.kind != StepKind::RunBead; });
    giveEfforts(own, {.efforts = efforts}, {});
}

} // namespace westrum
