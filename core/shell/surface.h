#pragma once

#include "core/measure/measurement.h"

#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// What a surface is: it gives the name, the ghost and the place on the map where no edge says better.
enum class SurfaceKind {
    Floor,
    Ceiling,
    LeftWall, ///< lower, where a wall is parted
    RightWall,
    Bulkhead,
    RearDoors,
    LeftWallUpper,
    RightWallUpper,
    ArchTop,
    ArchFace,
    ArchEnd,
    Pillar,
    SlidingDoor,
    RearDoor,
    CabReveal,
    BenchFront,
    BenchTop,
    KitchenFront,
    Splashback,
    WetCellWall,
    Shelf,
    Headliner,
    Other,
};

/// Floors, ceilings and tops: surfaces that lie rather than stand.
bool liesLevel(SurfaceKind kind);

enum class OpeningKind { Window, RoofVent, Lamp, Socket, Hatch, Pipe, Other, Hob, Sink, Heater };
inline constexpr int kOpeningKinds = 10;
enum class OpeningShape { Rectangle, Round, Polygon };
/// When an opening is cut.
enum class Treatment {
    CutBefore,    ///< before fitting
    CoverAndRout, ///< covered, then routed flush to the frame behind
    LeaveCovered, ///< stays covered; its place is recorded
};
enum class OpeningEdge { None, TrimRing, Reveal, Bound };

/// Where something lies: its distance from one side, square to it, and from another side along the first, at the height
/// of its middle. Measured to its near edge, or to its centre.
struct Placement {
    int side = 0;
    MaybeReading fromSide;
    int cross = 3;
    MaybeReading fromCross;
    bool toCentre = false;
    friend bool operator==(const Placement&, const Placement&) = default;
};

/// A hole in a surface, or a row of equal ones; the first one is placed.
struct Opening {
    struct Corner {
        MaybeReading along, across; ///< from the lower left of the opening's box
        friend bool operator==(const Corner&, const Corner&) = default;
    };
    std::string name;
    OpeningKind kind = OpeningKind::Window;
    OpeningShape shape = OpeningShape::Rectangle;
    Placement place;
    MaybeReading width;          ///< along `place.side`; diameter of a round one
    MaybeReading height;         ///< square to it
    MaybeReading radius;         ///< of a rectangle's corners
    std::vector<Corner> corners; ///< of a polygon, at least three
    int count = 1;
    bool rowAlong = true; ///< the row runs along `place.side`, else away from it
    MaybeReading pitch;   ///< centre to centre
    Treatment treatment = Treatment::CutBefore;
    OpeningEdge edge = OpeningEdge::TrimRing;
    MaybeReading turnIn; ///< of a reveal
    MaybeReading clear;  ///< by its label: from edges, joints and other openings; none: as usual for its kind
    bool even = false;   ///< of lamps: kept even in what is seen of the surface
    /// What is sawn out is kept as its lid: the gap all round, and the diameter of a hole to lift it by.
    MaybeReading lid{}, finger{};
    /// Of a hole that is seen from more than one surface: the openings that say the same are it. Empty: this one alone.
    std::string hole{};
    friend bool operator==(const Opening&, const Opening&) = default;
};

/// What a zone says of a part of the surface.
enum class ZoneKind {
    Hidden, ///< furniture or fittings will hide it
    Wiring, ///< cables or pipes run behind it: what covers it must come off again
    Heavy,  ///< something heavy hangs there: a cupboard, a rail; it wants timber behind it
};

/// A part of the surface: a rectangle placed like an opening.
struct Zone {
    std::string name;
    ZoneKind kind = ZoneKind::Hidden;
    Placement place;
    MaybeReading width, height;
    friend bool operator==(const Zone&, const Zone&) = default;
};

enum class SupportKind { Rib, Batten };
/// A rib or batten across the whole surface, or several at a spacing.
struct Support {
    std::string name;
    SupportKind kind = SupportKind::Rib;
    bool along = false; ///< runs along the surface (x), else across it (y)
    /// Of its centre line along the lower edge from that edge's rear or left end; or up from the lower edge there.
    MaybeReading position;
    MaybeReading width;
    int count = 1;
    MaybeReading spacing; ///< centre to centre
    MaybeReading depth;   ///< of a rib, from the metal to its face
    /// Holes that the body has in it already, from its lower or left end on the surface: the first and how far on the
    /// next ones follow, and single ones that were pointed at.
    MaybeReading holeFirst, holePitch;
    std::vector<Reading> holes{};
    friend bool operator==(const Support&, const Support&) = default;
};

/// What the faces of battens are to be brought into by packers between them and the ribs.
enum class PackTo {
    Nothing,
    Plane,    ///< one plane for all
    EachLine, ///< a straight line for each batten by itself
    Level     ///< parallel to what was measured from
};
/// How far a rib's face stands where a batten crosses it.
struct CrossingReading {
    int batten = 0, battenInRow = 0, rib = 0, ribInRow = 0; ///< places among the supports, and in their rows
    int station = 0; ///< where the batten lies along the rib: places from its lower or left end, at most 600 apart
    MaybeReading reading;
    [[nodiscard]] bool at(const CrossingReading& o) const {
        return batten == o.batten && battenInRow == o.battenInRow && rib == o.rib && ribInRow == o.ribInRow &&
               station == o.station;
    }
    friend bool operator==(const CrossingReading&, const CrossingReading&) = default;
};
struct Packing {
    PackTo to = PackTo::Nothing;
    /// Read from a stretched line or straight edge down to the rib; else how far the rib stands into the room.
    bool fromLine = true;
    std::vector<CrossingReading> readings;
    friend bool operator==(const Packing&, const Packing&) = default;
};

/// Which part of the van it is. What follows from that (damp, airbags) follows from the kind, whatever it is called.
enum class AreaKind { Unsaid, Living, Garage, WetCell, Cab, Other };
inline constexpr int kAreaKinds = 6;
struct Area {
    AreaKind kind = AreaKind::Unsaid;
    std::string name{}; ///< if it has one of its own
    friend bool operator==(const Area&, const Area&) = default;
};

struct Edge {
    EdgeKind kind = EdgeKind::Unsaid;
    std::string surface; ///< id, where it meets one
    int side = 0;
    MaybeReading allowance; ///< turn-in or gap
    MaybeReading gapAtEnd;  ///< of a gap that is wider at one end: there, going round; `allowance` is at the start
    std::string trim;       ///< id of the product that closes it; "-" none; empty: by rule
    /// The corner at its start and at its end, going round, as a bevel gauge reads it: degrees, on the room's side.
    std::optional<double> startDeg{}, endDeg{};
    bool factory = false; ///< it lies on the sheet's own edge, which saves a cut
    friend bool operator==(const Edge&, const Edge&) = default;
};

/// Which side of the van; mirroring exchanges them.
enum class Hand { None, Left, Right };

/// One face of the inside to be finished.
struct Surface {
    std::string id; ///< unique in the job, never shown
    std::string name;
    SurfaceKind kind = SurfaceKind::Floor;
    Hand hand = Hand::None;
    Area area;                              ///< of the van
    Mm ghostLength{1000}, ghostHeight{500}; ///< drawn until it is measured
    Measurement measurement;
    std::vector<Opening> openings;
    std::vector<Edge> edges; ///< by side; may be shorter than the sides
    std::vector<Zone> zones;
    std::vector<Support> supports;
    Packing packing;
    MaybeReading heightRear, heightFront; ///< of its lower edge over the floor, at its rear and its front end
    MaybeReading fromRear;                ///< of its rear end from the rear of the floor
    MaybeReading lean;                    ///< by how much its upper edge stands inside the plumb of its lower one
    bool leansOut = false;                ///< outside it instead
    bool before = false;                  ///< its readings are of an earlier body, not of this one

    [[nodiscard]] Edge edge(int side) const {
        return side >= 0 && side < static_cast<int>(edges.size()) ? edges[static_cast<std::size_t>(side)] : Edge{};
    }
    friend bool operator==(const Surface&, const Surface&) = default;
};

/// The reading of a key, or null: those of the measurement; "n0.position", "n0.length", "n0.depth", "s0.along",
/// "s0.across" of notches and cut corners; "o0.side", "o0.cross", "o0.width", "o0.height", "o0.radius", "o0.pitch",
/// "o0.turnIn", "o0.clear", "o0.lid", "o0.finger" of openings; "z0.side", "z0.cross", "z0.width", "z0.height" of zones;
/// "u0.position", "u0.width", "u0.spacing", "u0.depth", "u0.holeFirst", "u0.holePitch" of supports; "e0" of edges;
/// "heightRear", "heightFront", "fromRear", "lean"; "e0.end" of an edge's gap at its end.
MaybeReading* findReading(Surface& surface, std::string_view key);
const MaybeReading* findReading(const Surface& surface, std::string_view key);

/// All keys of a surface's readings, in the order in which a person goes round.
std::vector<std::string> readingKeys(const Surface& surface);

/// The surface as it would be on the other side of the van: outline, openings, edges and supports mirrored left to
/// right. Edges that meet a surface meet nothing yet.
Surface mirrored(const Surface& surface);

} // namespace westrum
