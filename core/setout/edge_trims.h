#pragma once

#include "core/buildup/build_up.h"
#include "core/catalogue/stock.h"
#include "core/setout/edge_meeting.h"
#include "core/setout/saw_setting.h"
#include "core/setout/set_out.h"
#include "core/shell/pose.h"
#include "core/shell/surface.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace westrum {

/// A surface as the edges see it. Pointers are into the plan that is being made.
struct TrimSurface {
    const Surface* surface{};
    const MeasuredOutline* measured{};
    const SurfaceShape* shape{};
    const SetOut* face{}; ///< of the layer that is seen; null if it is not set out
    Hardness hardness = Hardness::Bare;
    std::string trim;         ///< product for all its edges, kNoTrim, or empty: by its area, or the rule table
    bool coverJoints = false; ///< its panels' joints go under cover strips
    const Pose* pose{};       ///< where it stands in the van; null if that is not known
};

enum class TrimEnd {
    Square,
    Mitred,
    Coped,   ///< sawn back to the profile of the piece that it runs against
    Butted,  ///< square against the face of the one that runs through
    Blocked, ///< square against a corner block
    Angled,  ///< against something that stands at an angle of its own
    Scarfed, ///< joined to the next piece of its run
};

/// How one end of a piece is cut, and what it meets there.
struct TrimJoint {
    TrimEnd end = TrimEnd::Square;
    bool inside = true;   ///< corner of the room, else one that sticks into it
    bool crooked = false; ///< more than a degree and a half from square
    double planRad{};     ///< of the corner, on the room's side; 0 where it is none
    SawSetting saw;
    Point at;              ///< on the owner's surface
    int run = -1;          ///< that it meets: place in TrimPlan::runs
    bool onSupport = true; ///< of a scarf
    friend bool operator==(const TrimJoint&, const TrimJoint&) = default;
};

struct TrimPiece {
    std::string name;
    Mm length; ///< to cut: over its longer edge
    Ring path; ///< on the owner's surface, from its first to its last point
    TrimJoint start, end;
    /// Of a strip over a joint: where it is drilled to size, over the larger holes of the panels; from its start along
    /// its line, and from its middle to the left.
    std::vector<Point> drills{};
    friend bool operator==(const TrimPiece&, const TrimPiece&) = default;
};

/// One stretch of one profile.
struct TrimRun {
    std::string surface;   ///< id of the one whose outline it follows
    int side = -1;         ///< of its frame; -1: a notch, a joint or an opening
    std::string neighbour; ///< id; empty: nobody
    EdgeMeeting meeting{};
    Profile profile{};
    std::string product; ///< id; empty: the catalogue has none of that profile
    bool overruled = false;
    std::string name; ///< of it: "a", "a.2"
    Ring path;
    Mm length;
    std::optional<Mm> leastRadius; ///< of a run that bends
    std::optional<Filler> filler;
    std::vector<TrimPiece> pieces;
    friend bool operator==(const TrimRun&, const TrimRun&) = default;
};

struct TrimPlan {
    std::vector<TrimRun> runs;
    std::vector<Remark> remarks; ///< places filled in
    [[nodiscard]] Mm lengthOf(std::string_view product) const;
    friend bool operator==(const TrimPlan&, const TrimPlan&) = default;
};

/// Tilt of a surface from level, towards the room's middle: a quarter turn for upright ones, less where its top leans
/// over the room, 0 for floors, ceilings and tops. As it stands in the van, where that is known - of a bent one the
/// strip at that side -, else by its lean.
double tiltOf(const TrimSurface& surface, int side);

/// Collects the edges of all surfaces, each shared one once, chooses what closes them, breaks the runs at openings and
/// corners, and says how every end is cut. Runs longer than their stock are joined on a support.
/// @param trims  products of the family "trim" with sound fields, in the order of the catalogue: the first of a
///               profile is taken where nobody says which
/// @param byArea  of the job
TrimPlan trimEdges(std::span<const TrimSurface> surfaces, std::span<const Product> trims,
                   std::span<const AreaTrim> byArea = {});

} // namespace westrum
