#include "core/catalogue/hard_finishes.h"
#include "core/fitting/steps.h"
#include "core/setout/board_cladding.h"
#include "core/setout/sheet_panels.h"
#include "core/setout/tiling.h"

#include <algorithm>

namespace westrum {
bool isFitting(OpeningKind kind) {
    return kind == OpeningKind::Lamp || kind == OpeningKind::Socket || kind == OpeningKind::RoofVent;
}

namespace {

constexpr double kTileSetHours = 24;

void routOpenings(const FitFacts& facts, std::vector<FitStep>& steps) {
    const auto covered = std::count_if(facts.openings.begin(), facts.openings.end(),
                                       [](const OpeningName& o) { return o.treatment == Treatment::CoverAndRout; });
    if (covered > 0)
        steps.push_back({.key = "rout",
                         .kind = StepKind::RoutOpenings,
                         .facts = {{"count", static_cast<std::int64_t>(covered)}},
                         .caution = Caution::SawAndDust});
}

} // namespace

void boardSteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& s = *layer.setOut;
    steps.push_back({.key = "rest",
                     .kind = StepKind::RestTimber,
                     .facts = {{"product", layer.product->name}, {"boards", std::int64_t{s.figures.stock}}},
                     .wait = Wait{WaitKind::Rest, kAcclimatiseHours}});
    const double first = s.rows.front().low;
    steps.push_back({.key = "line",
                     .kind = StepKind::SnapLine,
                     .facts = {{"at", Mm{s.startLine - first}}, {"gap", boardRulesOf(*layer.rules).gap}},
                     .caution = facts.overhead ? Caution::Overhead : Caution::DrillIntoBody});
    const int rows = static_cast<int>(s.rows.size());
    for (int r = 0; r < rows; ++r) {
        FitStep step{.key = "row-" + std::to_string(r + 1),
                     .kind = r == 0          ? StepKind::FirstBoard
                             : r + 1 == rows ? StepKind::LastBoard
                                             : StepKind::BoardRow};
        Mm ripStart, ripEnd;
        for (std::size_t i = 0; i < s.pieces.size(); ++i)
            if (s.pieces[i].row == r) {
                if (step.pieces.empty()) ripStart = s.pieces[i].ripAtStart;
                ripEnd = s.pieces[i].ripAtEnd;
                step.pieces.push_back(static_cast<int>(i));
            }
        step.facts = {{"row", std::int64_t{r + 1}}, {"ripStart", ripStart}, {"ripEnd", ripEnd}};
        if (r == 0 || (ripStart.value > 0 && r + 1 == rows)) step.caution = Caution::SawAndDust;
        steps.push_back(std::move(step));
    }
    carryHatches(facts, layer, steps);
    routOpenings(facts, steps);
}

void panelSteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& s = *layer.setOut;
    const auto pieces = static_cast<std::int64_t>(s.pieces.size());
    steps.push_back({.key = "template", .kind = StepKind::MakeTemplate, .facts = {{"count", pieces}}});
    steps.push_back({.key = "cut",
                     .kind = StepKind::CutPanels,
                     .facts = {{"product", layer.product->name}, {"count", pieces}},
                     .caution = Caution::SawAndDust});
    steps.push_back({.key = "dry-fit",
                     .kind = StepKind::DryFitPanels,
                     .facts = {{"count", pieces}},
                     .caution = facts.overhead ? Caution::Overhead : Caution::DrillIntoBody});
    // Once it is up, or stuck, nothing can be drilled from behind any more.
    std::int64_t holes = 0;
    for (const OpeningName& o : facts.openings)
        if (isFitting(o.kind) && o.treatment == Treatment::CutBefore) holes += o.count;
    if (holes > 0 || !s.lids.empty()) {
        FitStep step{.key = "openings",
                     .kind = StepKind::CutOpenings,
                     .facts = {{"count", holes}},
                     .caution = Caution::SawAndDust};
        for (const KeptLid& l : s.lids) { // the facts of each lid stand together, in this order
            step.facts.emplace_back("lid", l.name);
            step.facts.emplace_back("length", l.lid.length);
            step.facts.emplace_back("width", l.lid.width);
            step.facts.emplace_back("gap", l.lid.gap);
            step.facts.emplace_back("finger", l.lid.finger.value_or(Mm{}));
        }
        steps.push_back(std::move(step));
    }
    for (std::size_t i = 0; i < s.pieces.size(); ++i) {
        const Piece& p = s.pieces[i];
        // What holds it is said by its fixings, each at its place.
        FixedWith by = holdingOf(p, layer.held, false, true);
        std::int64_t count = 0, drilled = 0;
        for (const Fixing& f : layer.fixings) {
            if (f.piece != static_cast<int>(i) || !f.place.holds) continue;
            by = f.by;
            ++count;
            drilled += drillFor(f).value > 0 ? 1 : 0;
        }
        steps.push_back({.key = "panel-" + p.name.key(),
                         .kind = StepKind::FixPanel,
                         .facts = {{"panel", p.name},
                                   {"length", p.length},
                                   {"width", p.width},
                                   {"removable", std::int64_t{p.removable ? 1 : 0}},
                                   {"held", static_cast<std::int64_t>(by)},
                                   {"edge", Mm{valueOf(*layer.rules, layer.fixing, "fixEdge")}},
                                   {"field", Mm{valueOf(*layer.rules, layer.fixing, "fixField")}},
                                   {"count", count},
                                   {"drilled", drilled}},
                         .pieces = {static_cast<int>(i)}});
    }
    if (!s.joints.empty()) {
        Mm total;
        for (const Joint& j : s.joints) total = total + Mm{distance(j.from, j.to)};
        steps.push_back(
            {.key = "joints",
             .kind = StepKind::CloseJoints,
             .facts = {{"count", static_cast<std::int64_t>(s.joints.size())},
                       {"total", total},
                       {"style", static_cast<std::int64_t>(valueOf(*layer.rules, panelRuleFields(), "panelJoint"))}}});
    }
    routOpenings(facts, steps);
}

void tileSteps(const FitFacts& facts, const LayerFacts& layer, std::vector<FitStep>& steps) {
    const SetOut& s = *layer.setOut;
    const Tile tile = tileOf(*layer.product);
    const auto whole =
        std::count_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.kind == PieceKind::Whole; });
    const auto cut = static_cast<std::int64_t>(s.pieces.size()) - whole;
    steps.push_back({.key = "backing", .kind = StepKind::CheckBacking, .facts = {}, .caution = Caution::DrillIntoBody});
    steps.push_back(
        {.key = "lines", .kind = StepKind::TileLines, .facts = {{"first", s.firstRow}, {"column", s.firstColumn}}});
    steps.push_back({.key = "whole",
                     .kind = tile.selfAdhesive ? StepKind::PeelTiles : StepKind::LayTiles,
                     .facts = {{"whole", static_cast<std::int64_t>(whole)}, {"joint", s.jointWidth}}});
    if (cut > 0) {
        FitStep step{.key = "cuts",
                     .kind = StepKind::CutTiles,
                     .facts = {{"cut", cut}, {"tiles", static_cast<std::int64_t>(s.stock.size()) - whole}},
                     .caution = tile.selfAdhesive ? Caution::SawAndDust : Caution::TileDust};
        for (std::size_t i = 0; i < s.pieces.size(); ++i)
            if (s.pieces[i].kind != PieceKind::Whole) step.pieces.push_back(static_cast<int>(i));
        steps.push_back(std::move(step));
    }
    if (!tile.selfAdhesive) {
        steps.push_back({.key = "grout",
                         .kind = StepKind::GroutTiles,
                         .facts = {{"amount", groutFor(s, tile).value}},
                         .wait = Wait{WaitKind::Set, kTileSetHours}});
    }
    routOpenings(facts, steps);
}

} // namespace westrum
