#pragma once

#include "core/fitting/steps.h"

#include <functional>
#include <span>
#include <string_view>
#include <vector>

namespace westrum {

/// What a step's time grows with.
enum class EffortUnit {
    Once,
    Pieces,       ///< its pieces, or what it counts
    SquareMetres, ///< m2 that its layer covers
    Metres
};

/// A row of the table of efforts: minutes in practised hands, and what the work asks for.
/// Steps of a layer share the hours of their family by these minutes; the others take them as they are.
struct EffortRow {
    StepKind kind{};
    double once{}; ///< minutes to set up
    double each{}; ///< minutes for each unit
    EffortUnit unit{};
    StepEffort needs{}; ///< all but its minutes
};

/// Typical figures of the trade. Source: docs/formulae.md#efforts
std::span<const EffortRow> effortTable();
const EffortRow& effortRow(StepKind kind);

/// A first-timer takes so many times as long as a practised person; the first piece of a kind so many times as long as
/// the later ones. Source: docs/formulae.md#efforts
inline constexpr double kFirstTimer = 2, kFirstPiece = 3;
/// Minutes of a step in these hands, the first of its kind left aside.
inline double minutesOf(const FitStep& step, bool practised) {
    return step.effort.minutes * (practised ? 1 : kFirstTimer);
}
/// Looking behind, before it is covered.
bool isCheck(StepKind kind);
/// A coat of something that keeps everyone out, and an adhesive: minutes after which others may come in again.
inline constexpr int kFumesMinutes = 120;

/// Units of a step: its pieces, or what it counts; metres of what it runs along. At least 1 where it is by the piece.
double unitsOf(const FitStep& step, EffortUnit unit, double areaM2);

/// Fills in the effort of every step. @param layers  by FitStep::layer; @param hours  of a layer, to be shared by its
/// steps; 0, or none given: the table's minutes stand
void giveEfforts(std::span<FitStep> steps, const FitFacts& facts,
                 const std::function<double(const LayerFacts&)>& hours);

/// What must be at hand for a step.
enum class Tool {
    TapeMeasure,
    Pencil,
    StraightEdge,
    ChalkLine,
    Level,
    Card,
    Saw,
    Jigsaw,
    Router,
    HoleSaw,
    Drill,
    Driver,
    RivetNutTool,
    Mallet,
    PullBar,
    Clamps,
    Props,
    Knife,
    Scissors,
    Roller,
    Trowel,
    Brush,
    CoatRoller,
    Stapler,
    SewingMachine,
    HotKnife,
    SealantGun,
    TileCutter,
    GroutFloat,
    Cloths,
    Camera,
    Tester,
    Mask,
    Gloves,
    EyeAndEar,
};
std::span<const Tool> toolsFor(StepKind kind);

} // namespace westrum
