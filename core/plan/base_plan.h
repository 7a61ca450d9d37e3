#pragma once

#include "core/plan/layer_request.h"
#include "core/plan/plan.h"

#include <map>
#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// Packs the battens of a surface: every crossing with a rib that stands on it. Says what lacks a reading, what stands
/// out so far that all the others are packed for it, and where no packers do. Nothing where battens stand beside the
/// ribs. Source: docs/formulae.md#packing
/// @param surface  with the battens of its option  @param shape  of it
PackedBattens packBattens(const Surface& surface, const Finish& finish, const SurfaceShape& shape,
                          const SurfaceContext& context, std::vector<Remark>& remarks);

/// A surface's battens as a panel of this thickness wants them: so far apart that it carries, one below every joint of
/// panels that runs their way, both edges held. @param along  they run along x  @param joints  coordinates across them
/// Empty without room for one. Source: docs/formulae.md#supports-by-span
std::vector<Support> battensBySpan(const MeasuredOutline& measured, bool along, Mm width, Mm span,
                                   std::span<const double> joints, const std::string& name);
/// What the chosen finish asks of its battens: the largest span over all of its panels and boards above them, the way
/// in which they must run, and the joints that they should lie below. Nothing if nothing above battens asks.
struct BattenDemand {
    Mm span;
    bool along{};
    std::vector<double> joints;
    Mm width; ///< of the batten itself
};
std::optional<BattenDemand> battenDemand(const Finish& finish, const SurfacePlan& plan, const Catalogue& catalogue);

/// How far an opening of a kind is kept from edges, joints and other openings, and how far from what lies behind it; 0:
/// as far as one likes. Source: docs/formulae.md#clearances
struct Clearance {
    Mm edge, support;
};
Clearance usualClearance(OpeningKind kind);

/// One distance of an opening, to be told and drawn.
struct OpeningDistance {
    enum class To { Edge, Opening, Joint, Support };
    To to{};
    int index = -1; ///< of the opening, joint or support
    Point from, at; ///< nearest points; of a support the opening's middle and the support's edge
    Mm length;      ///< negative: so far into the support
    Mm limit;
    [[nodiscard]] bool tooNear() const { return length.value < limit.value - 0.05; }
};
/// All distances of one opening as it lies, nearest of each kind first. @param plan  measured and set out
std::vector<OpeningDistance> openingDistances(const Surface& surface, const SurfacePlan& plan, int opening,
                                              const std::map<OpeningKind, Mm>& clearances);
/// The shortest shift along x or y that clears all of them; nothing within 150 mm.
std::optional<Point> clearingShift(const Surface& surface, const SurfacePlan& plan, int opening,
                                   const std::map<OpeningKind, Mm>& clearances);
/// What stands too near, each with its fix.
void checkClearances(const Surface& surface, const SurfaceContext& context, SurfacePlan& plan);
/// Heavy things without timber behind them.
void checkBacking(const Surface& surface, SurfacePlan& plan);
/// The surface with a batten behind the middle of a zone, right across it.
Surface withBacking(const Surface& surface, const MeasuredOutline& measured, const SurfaceShape& shape, int zone,
                    const std::string& name);

/// Where the lamps of a surface stand even: every opening of lamps that is kept even is a row, and the rows share what
/// is seen of the surface. Middles of the first lamps, and how far apart they are. Source: docs/formulae.md#lamps
struct LampRow {
    int opening{};
    Point first;
    Mm pitch;
};
std::vector<LampRow> evenLamps(const Surface& surface, const SurfacePlan& plan);
void checkLamps(const Surface& surface, SurfacePlan& plan);

} // namespace westrum
