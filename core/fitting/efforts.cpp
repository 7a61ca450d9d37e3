#include "core/fitting/efforts.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <map>

namespace westrum {
namespace {

using enum StepKind;
using enum EffortUnit;

constexpr StepEffort kInside{};
constexpr StepEffort kReady{.prepares = true};
constexpr StepEffort kTable{.place = WorkPlace::Workshop, .prepares = true};
constexpr StepEffort kSewing{.place = WorkPlace::Workshop};
constexpr StepEffort kOutside{.place = WorkPlace::Yard, .prepares = true, .dry = true, .light = true};
constexpr StepEffort kCovering{.covers = true};
constexpr StepEffort kFresh{.follows = true};

/// Once and each in minutes. Source: docs/formulae.md#efforts
constexpr auto kTableOfEfforts = std::to_array<EffortRow>({
    {CheckDelivery, 10, 0, Once, kReady},
    {Acclimatise, 15, 0, Once, kReady},
    {CheckBase, 15, 2, SquareMetres, kReady},
    {LayUnderlay, 5, 3, SquareMetres, kInside},
    {FirstRow, 10, 6, Pieces, {.minC = kLayLowC, .maxC = kLayHighC}},
    {StepKind::Row, 0, 4, Pieces, {.minC = kLayLowC, .maxC = kLayHighC}},
    {LastRow, 10, 6, Pieces, {.minC = kLayLowC, .maxC = kLayHighC}},
    {Trims, 5, 3, Metres, kInside},
    {CablesTested, 10, 0, Once, kInside},
    {PipesTested, 10, 0, Once, kInside},
    {BackingIn, 10, 0, Once, kInside},
    {SupportsRecorded, 10, 0, Once, kInside},
    {BarrierTaped, 5, 0, Once, kInside},
    {TailsThrough, 5, 3, Pieces, kInside},
    {LayBarrier, 5, 6, SquareMetres, kInside},
    {FitInsulation, 10, 10, SquareMetres, kInside},
    {FixBattens, 10, 5, Metres, kInside},
    {SpreadAdhesive, 5, 4, SquareMetres, {.opens = true, .minC = 15, .fumes = kFumesMinutes}},
    {Coat, 5, 6, SquareMetres, {.split = false, .minC = 8, .fumes = kFumesMinutes}},
    {RestTimber, 15, 0, Once, kReady},
    {SnapLine, 10, 0, Once, kReady},
    {FirstBoard, 15, 8, Pieces, kCovering},
    {BoardRow, 0, 8, Pieces, kCovering},
    {LastBoard, 15, 8, Pieces, kCovering},
    {RoutOpenings, 0, 10, Pieces, kInside},
    {CarryHatch, 10, 5, Pieces, kInside},
    {MakeTemplate, 5, 15, Pieces, kReady},
    {CutPanels, 10, 12, Pieces, kOutside},
    {DryFitPanels, 0, 10, Pieces, kReady},
    {CutOpenings, 5, 8, Pieces, kOutside},
    {FixPanel, 5, 10, Once, kCovering},
    {CloseJoints, 5, 4, Metres, kInside},
    {CheckBacking, 10, 0, Once, kReady},
    {TileLines, 10, 0, Once, kReady},
    {LayTiles, 10, 1.5, Pieces, {.follows = true, .covers = true, .minC = 10}},
    {CutTiles, 10, 4, Pieces, {.follows = true, .covers = true, .minC = 10}},
    {GroutTiles, 10, 15, SquareMetres, {.minC = 10}},
    {PeelTiles, 5, 1, Pieces, {.follows = true, .covers = true}},
    {RestVinyl, 10, 0, Once, kReady},
    {CutLinings, 5, 8, Pieces, kTable},
    {CleanFace, 5, 3, SquareMetres, kReady},
    {CleanGlass, 5, 3, SquareMetres, kReady},
    {StickLining, 5, 10, SquareMetres, {.follows = true, .covers = true, .minC = 15}},
    {LayVinyl, 10, 8, SquareMetres, {.follows = true, .covers = true, .minC = 18}},
    {CloseSeams, 5, 5, Metres, kFresh},
    {TurnUpstand, 10, 8, SquareMetres, kFresh},
    {TrimLining, 10, 2, SquareMetres, kFresh},
    {WrapPanels, 0, 20, Pieces, {.place = WorkPlace::Workshop, .follows = true, .minC = 15}},
    {ClipPanels, 0, 10, Pieces, {}},
    {LayFilm, 0, 10, Pieces, {.light = true}},
    {CutFoam, 5, 10, Pieces, kSewing},
    {CutCloth, 5, 4, Pieces, kSewing},
    {SewZip, 10, 10, Metres, kSewing},
    {SewPiping, 15, 6, Metres, kSewing},
    {SewCushions, 20, 10, Pieces, kSewing},
    {FillCushions, 5, 10, Pieces, kSewing},
    {StapleCover, 10, 15, Pieces, kSewing},
    {FitFittings, 0, 12, Pieces, kInside},
    {FitTrim, 5, 8, Pieces, kInside},
    {FitEdging, 5, 3, Metres, kInside},
    {RunBead, 5, 4, Metres, {.minC = 5}},
});

/// By kind: the table lists every kind once. A kind without a row is a fault of ours.
const std::map<StepKind, const EffortRow*>& rowsByKind() {
    static const auto rows = [] {
        std::map<StepKind, const EffortRow*> all;
        for (const EffortRow& row : kTableOfEfforts) all[row.kind] = &row;
        return all;
    }();
    return rows;
}

std::optional<double> factOf(const FitStep& step, std::string_view name) {
    for (const auto& [key, value] : step.facts) {
        if (key != name) continue;
        if (const auto* l = std::get_if<Mm>(&value)) return l->value;
        if (const auto* n = std::get_if<std::int64_t>(&value)) return static_cast<double>(*n);
        if (const auto* d = std::get_if<double>(&value)) return *d;
    }
    return std::nullopt;
}

/// Two pairs of hands: boards over 2 m and panels over 1 m2 overhead, linings over 2 m2. Source:
/// docs/formulae.md#efforts
bool takesTwo(const FitStep& step, const FitFacts& facts, const LayerFacts* layer) {
    constexpr double kLongBoard = 2000, kLargePanel = 1e6, kLargeLining = 2;
    if (!layer) return false;
    switch (step.kind) {
    case FirstBoard:
    case BoardRow:
    case LastBoard:
        return facts.overhead && std::any_of(step.pieces.begin(), step.pieces.end(), [&](int i) {
                   return layer->setOut->pieces[static_cast<std::size_t>(i)].length.value > kLongBoard;
               });
    case FixPanel:
    case DryFitPanels: {
        const auto large = [](const Piece& p) { return p.length.value * p.width.value > kLargePanel; };
        if (!facts.overhead) return false;
        if (step.kind == DryFitPanels)
            return std::any_of(layer->setOut->pieces.begin(), layer->setOut->pieces.end(), large);
        return std::any_of(step.pieces.begin(), step.pieces.end(),
                           [&](int i) { return large(layer->setOut->pieces[static_cast<std::size_t>(i)]); });
    }
    case StickLining:
    case LayVinyl: return layer->area.value > kLargeLining;
    default: return false;
    }
}

bool hasOwnMinutes(const FitFacts& facts, StepKind kind) {
    const auto own = facts.efforts.find(kind);
    return own != facts.efforts.end() && (own->second.once || own->second.each);
}

/// What a person knows better. Others of its layer share the hours that are left as if it took what the table says.
void takeOwn(FitStep& step, const OwnEffort& own, const EffortRow& row, double units) {
    StepEffort& e = step.effort;
    if (own.once || own.each) {
        const double each = own.each.value_or(row.each);
        e.minutes = own.once.value_or(row.once) + each * units;
        e.firstMore = row.unit == Pieces && units > 0 ? (kFirstPiece - 1) * each : 0;
    }
    if (own.hands) e.hands = std::max(1, *own.hands);
    if (own.dry) e.dry = *own.dry;
    if (own.light) e.light = *own.light;
    if (own.minC) e.minC = own.minC;
    if (own.maxC) e.maxC = own.maxC;
    if (own.fumes) e.fumes = *own.fumes > 0 ? own.fumes : std::nullopt;
}

/// What the label says goes before the table.
void takeLabel(FitStep& step) {
    if (step.kind != SpreadAdhesive) return;
    if (const auto coldest = factOf(step, "coldest")) step.effort.minC = *coldest;
    if (const auto warmest = factOf(step, "warmest"); warmest && *warmest > step.effort.minC.value_or(0))
        step.effort.maxC = *warmest;
    // What need not flash off gives off nothing to speak of: mortar, dispersion.
    if (factOf(step, "flash").value_or(0) <= 0) step.effort.fumes.reset();
}

} // namespace

bool isCheck(StepKind kind) { return kind >= CablesTested && kind <= TailsThrough; }

std::span<const EffortRow> effortTable() { return kTableOfEfforts; }

const EffortRow& effortRow(StepKind kind) {
    const auto row = rowsByKind().find(kind);
    assert(row != rowsByKind().end());
    return *row->second;
}

double unitsOf(const FitStep& step, EffortUnit unit, double areaM2) {
    switch (unit) {
    case Once: return 1;
    case SquareMetres: return areaM2;
    case Metres:
        for (const char* name : {"total", "length"})
            if (const auto mm = factOf(step, name)) return *mm / 1000;
        return 0;
    case Pieces:
        if (!step.pieces.empty()) return static_cast<double>(step.pieces.size());
        for (const char* name : {"count", "pieces", "whole", "cut", "cushions", "clips"})
            if (const auto n = factOf(step, name)) return std::max(1.0, *n);
        return 1;
    }
    return 1;
}

void giveEfforts(std::span<FitStep> steps, const FitFacts& facts,
                 const std::function<double(const LayerFacts&)>& hours) {
    const auto layerOf = [&](int place) -> const LayerFacts* {
        const auto l = std::find_if(facts.layers.begin(), facts.layers.end(),
                                    [&](const LayerFacts& x) { return x.layer == place; });
        return place < 0 || l == facts.layers.end() ? nullptr : &*l;
    };
    std::map<int, double> listed; // minutes by layer, as the table has them
    for (FitStep& step : steps) {
        const LayerFacts* layer = layerOf(step.layer);
        const EffortRow& row = effortRow(step.kind);
        step.effort = row.needs;
        const double units = unitsOf(step, row.unit, layer ? layer->area.value : 0);
        step.effort.minutes = row.once + row.each * units;
        step.effort.firstMore = row.unit == Pieces && units > 0 ? (kFirstPiece - 1) * row.each : 0;
        if (layer) {
            // What lies loose, or comes off again, hides nothing for good.
            const bool again = step.kind == FixPanel && factOf(step, "removable").value_or(0) != 0;
            step.effort.covers = step.effort.covers && !layer->floats && !again;
            listed[step.layer] += step.effort.minutes;
        }
        if (takesTwo(step, facts, layer)) step.effort.hands = 2;
    }
    for (FitStep& step : steps) {
        const LayerFacts* layer = layerOf(step.layer);
        if (const auto own = facts.efforts.find(step.kind); own != facts.efforts.end()) {
            const EffortRow& row = effortRow(step.kind);
            takeOwn(step, own->second, row, unitsOf(step, row.unit, layer ? layer->area.value : 0));
        }
        takeLabel(step);
        if (hasOwnMinutes(facts, step.kind)) continue;
        const double all = layer && hours ? hours(*layer) * 60 : 0;
        if (all <= 0) continue;
        const double share = all / listed[step.layer];
        step.effort.minutes *= share;
        step.effort.firstMore *= share;
    }
}

std::span<const Tool> toolsFor(StepKind kind) {
    using enum Tool;
    static const std::map<StepKind, std::vector<Tool>> tools{
        {CheckDelivery, {TapeMeasure}},
        {CheckBase, {StraightEdge, Level}},
        {LayUnderlay, {Knife, TapeMeasure}},
        {FirstRow, {Saw, Mallet, PullBar, TapeMeasure, EyeAndEar}},
        {StepKind::Row, {Saw, Mallet, PullBar, EyeAndEar}},
        {LastRow, {Saw, PullBar, TapeMeasure, EyeAndEar}},
        {Trims, {TapeMeasure, Saw}},
        {CablesTested, {Tester}},
        {PipesTested, {Tester}},
        {BackingIn, {Drill, Driver}},
        {SupportsRecorded, {TapeMeasure, Camera}},
        {BarrierTaped, {Knife}},
        {TailsThrough, {Camera}},
        {LayBarrier, {Scissors, TapeMeasure}},
        {FitInsulation, {Knife, Gloves, Mask}},
        {FixBattens, {Saw, Drill, Driver, StraightEdge}},
        {SpreadAdhesive, {Brush, Trowel, Mask, Gloves}},
        {Coat, {CoatRoller, Brush, Mask, Gloves}},
        {SnapLine, {ChalkLine, TapeMeasure}},
        {FirstBoard, {Saw, Driver, Mallet, TapeMeasure, EyeAndEar}},
        {BoardRow, {Saw, Driver, Mallet, EyeAndEar}},
        {LastBoard, {Saw, Driver, TapeMeasure, EyeAndEar}},
        {RoutOpenings, {Router, EyeAndEar, Mask}},
        {CarryHatch, {Saw, Pencil}},
        {MakeTemplate, {Card, Knife, Pencil}},
        {CutPanels, {Saw, StraightEdge, Clamps, EyeAndEar, Mask}},
        {DryFitPanels, {Pencil, Props}},
        {CutOpenings, {HoleSaw, Jigsaw, Drill, EyeAndEar}},
        {FixPanel, {Drill, Driver, Props}},
        {CloseJoints, {Driver}},
        {CheckBacking, {Level, StraightEdge}},
        {TileLines, {Level, Pencil}},
        {LayTiles, {Trowel, Level, Gloves}},
        {CutTiles, {TileCutter, EyeAndEar}},
        {GroutTiles, {GroutFloat, Cloths, Gloves}},
        {PeelTiles, {Knife, Roller}},
        {CutLinings, {Knife, Scissors, StraightEdge, TapeMeasure}},
        {CleanFace, {Cloths, Gloves}},
        {CleanGlass, {Cloths}},
        {StickLining, {Roller, Knife, Mask, Gloves}},
        {LayVinyl, {Roller, Knife, Mask}},
        {CloseSeams, {Knife, Roller}},
        {TurnUpstand, {HotKnife, Roller}},
        {TrimLining, {Knife, HotKnife}},
        {WrapPanels, {Knife, Brush, Mask, Gloves}},
        {ClipPanels, {Drill, Mallet}},
        {LayFilm, {Roller, Knife}},
        {CutFoam, {Knife, StraightEdge}},
        {CutCloth, {Scissors, TapeMeasure}},
        {SewZip, {SewingMachine}},
        {SewPiping, {SewingMachine, Scissors}},
        {SewCushions, {SewingMachine}},
        {StapleCover, {Stapler, Scissors}},
        {FitFittings, {Driver, Tester}},
        {FitTrim, {Saw, Driver, TapeMeasure, EyeAndEar}},
        {FitEdging, {Knife, Mallet}},
        {RunBead, {SealantGun, Cloths}},
    };
    const auto found = tools.find(kind);
    return found == tools.end() ? std::span<const Tool>() : std::span<const Tool>(found->second);
}

} // namespace westrum
