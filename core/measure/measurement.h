#pragma once

#include "core/geometry/polygon.h"
#include "core/measure/distance_network.h"
#include "core/measure/quad.h"
#include "core/units/parse.h"
#include "core/units/remark.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// One length as it was taken: what the person typed, and what that is in mm.
struct Reading {
    std::string typed;
    Mm length;
    friend bool operator==(const Reading&, const Reading&) = default;
};
using MaybeReading = std::optional<Reading>;

enum class OutlineForm {
    Rectangle, ///< AB and BC; the other sides are taken to be equal and the corners square
    FourSides, ///< four sides and one or both diagonals
    Polygon,   ///< any number of sides and enough diagonals inside it
    Stations,  ///< a baseline with offsets square to it
    TwoPoint,  ///< distances of each corner from two fixed points
    Drawn,     ///< taken from a drawing or a photograph: corners as they are
};

/// Sides of a polygon in order, counter-clockwise from corner 0, and diagonals between its corners.
struct PolygonReadings {
    struct Diagonal {
        int from = 0;
        int to = 2;
        MaybeReading length;
        friend bool operator==(const Diagonal&, const Diagonal&) = default;
    };
    std::vector<MaybeReading> sides = std::vector<MaybeReading>(5);
    std::vector<Diagonal> diagonals{{0, 2, {}}, {0, 3, {}}};
    std::vector<CornerTurn> turns; ///< what is said of corners; may be shorter than they are
    friend bool operator==(const PolygonReadings&, const PolygonReadings&) = default;
};

/// Stations along a baseline (the surface's lower edge, unless both sides are measured) and the offsets at each.
struct StationReadings {
    struct Row {
        MaybeReading at;     ///< along the baseline from its rear or left end
        MaybeReading offset; ///< square to the baseline, upwards
        MaybeReading other;  ///< downwards, where both sides are measured
        friend bool operator==(const Row&, const Row&) = default;
    };
    std::vector<Row> rows = std::vector<Row>(3);
    bool smooth = true;
    bool bothSides = false;
    friend bool operator==(const StationReadings&, const StationReadings&) = default;
};

/// Corners by their distances from two fixed points on a base.
struct FixedPointReadings {
    struct Row {
        MaybeReading fromA, fromB;
        bool below = false; ///< on the near side of the base
        friend bool operator==(const Row&, const Row&) = default;
    };
    MaybeReading base;
    std::vector<Row> rows = std::vector<Row>(4);
    friend bool operator==(const FixedPointReadings&, const FixedPointReadings&) = default;
};

enum class Curving {
    Flat,
    Single, ///< bent one way: lies flat when developed
    Double, ///< bent both ways: does not
};

/// How a surface is bent. The width of a rectangle that was not taped along the curve follows from the profile.
struct CurveReadings {
    struct Part {
        MaybeReading length; ///< of a straight part, or the chord
        MaybeReading rise;   ///< of the chord at its middle; none for a straight part
        friend bool operator==(const Part&, const Part&) = default;
    };
    Curving curving = Curving::Flat;
    std::vector<Part> parts = std::vector<Part>(1);
    MaybeReading alongChord, alongRise; ///< the other way, where it is bent both ways
    friend bool operator==(const CurveReadings&, const CurveReadings&) = default;
};

/// What happens at one side of the outline.
enum class EdgeKind {
    Unsaid,
    Meets, ///< another surface's side
    Free,
    DoorReveal, ///< turned in
    UnderTrim,
    MovementGap,
};

/// A rectangle let into a straight side: a wheel arch, a pillar foot. Square to the side.
struct Notch {
    std::string name;
    int side = 0; ///< place in MeasuredOutline::sides
    /// Along the side to the notch from the side's rear (left) end, or from its lower end if it runs upwards.
    MaybeReading position;
    MaybeReading length;               ///< along the side
    MaybeReading depth;                ///< into the surface
    EdgeKind edges = EdgeKind::Unsaid; ///< what happens along its edges: unsaid, as if something stood in it
    friend bool operator==(const Notch&, const Notch&) = default;
};

/// A corner cut away along both its sides: a door well.
struct Step {
    std::string name;
    int corner = 0;                    ///< where side `corner` begins; 0 A (rear right on a floor), 1 B, 2 C, 3 D
    MaybeReading along;                ///< along the one of its two sides that runs more along the surface (AB or CD)
    MaybeReading across;               ///< along the other one
    EdgeKind edges = EdgeKind::Unsaid; ///< as of a notch: a door well's are free
    friend bool operator==(const Step&, const Step&) = default;
};

/// All that was read off one surface's outline.
struct Measurement {
    OutlineForm form = OutlineForm::Rectangle;
    std::array<MaybeReading, kQuadReadings> readings{}; ///< by QuadReading
    PolygonReadings polygon;
    StationReadings stations;
    FixedPointReadings fixedPoints;
    Ring drawn; ///< counter-clockwise, mm; Drawn form only
    CurveReadings curve;
    std::vector<MaybeReading> cornerRadii; ///< by corner; may be shorter than the corners
    std::vector<Notch> notches;
    std::vector<Step> steps;
    [[nodiscard]] bool empty() const; ///< nothing read for the form chosen
    friend bool operator==(const Measurement&, const Measurement&) = default;
};

/// What a general polygon's readings say of each other; places are those of `keys`.
struct NetworkReport {
    std::vector<std::string> keys;
    NetworkFit fit;
    friend bool operator==(const NetworkReport&, const NetworkReport&) = default;
};

/// A reading whose error would explain why they disagree.
struct SuspectReading {
    std::string key;
    Mm reads, implied; ///< what it says and what the others make of it
    double chance{};   ///< that it is this one, of all that explain it
    Ring corners;      ///< of the frame as it would be without it
    [[nodiscard]] Mm slip() const { return reads - implied; }
    friend bool operator==(const SuspectReading&, const SuspectReading&) = default;
};
/// What the readings prove of their own errors (slips.h).
struct SlipReport {
    std::vector<SuspectReading> suspects;       ///< likeliest first
    bool proved = false;                        ///< the first one is wrong: nothing else explains it
    bool several = false;                       ///< no single error explains it
    int others = 0;                             ///< readings that explain it too, less likely
    std::optional<std::pair<int, int>> decides; ///< corners; the length between them, not read yet, would tell
    bool ofOutline = true; ///< any of them is a reading of the outline; else of what lies on it or how it stands
    friend bool operator==(const SlipReport&, const SlipReport&) = default;
};

/// What a notch or a step took off the frame, where something is said of its edges.
struct CutAway {
    Region shape;
    EdgeKind edges{};
    friend bool operator==(const CutAway&, const CutAway&) = default;
};

/// A surface's outline as the readings give it.
struct MeasuredOutline {
    Ring frame;                           ///< before radii, notches and steps; empty if the readings give none
    std::vector<Ring> sides;              ///< of the frame, each from its first to its last point, in order round it
    Region outline;                       ///< empty if the readings do not give one
    std::vector<CutAway> cutAways{};      ///< of notches and steps whose edges are said
    Point fixedA, fixedB;                 ///< the two fixed points, two-point form only
    std::optional<QuadFit> fit;           ///< four-sided form only
    std::optional<NetworkReport> network; ///< general polygon only
    std::optional<SlipReport> slip;       ///< where readings disagree
    std::optional<Mm> leastRadius;        ///< of a curved surface
    std::optional<double> stretch;        ///< of one curved both ways, as a share
    std::vector<Remark> remarks;
    [[nodiscard]] bool measured() const { return !outline.empty(); }
    /// Whether its readings contradict each other, or allow another outline as well.
    [[nodiscard]] bool inDoubt() const {
        return (slip && slip->ofOutline) || (network && network->fit.turnsEitherWay >= 0);
    }
    [[nodiscard]] Mm sideLength(int side) const;
    friend bool operator==(const MeasuredOutline&, const MeasuredOutline&) = default;
};

/// A ring taken from outside, fit to be Measurement::drawn: counter-clockwise from its lower left, at most
/// kMostDrawnCorners, corners that lie within `tolerance` of a straight line left out.
Ring drawnOutline(const Ring& ring, double tolerance = 0.05);
inline constexpr std::size_t kMostDrawnCorners = 4000;
/// The sides of a drawn outline: it is parted where it turns by more than 20 degrees and where a straight side goes
/// over into a curve, so that a curve is one side. At most kMostDrawnSides: the least turns are passed over.
std::vector<Ring> drawnSides(const Ring& drawn);
inline constexpr std::size_t kMostDrawnSides = 60;

/// Smallest and largest side accepted: below 5 mm nothing is finished as a surface; no van is longer than 20 m.
inline constexpr double kShortestSideMm = 5;
inline constexpr double kLongestSideMm = 20000;

/// Works out the outline. What is wrong with the readings comes as remarks; readings that are wrong are left out, so
/// that one bad notch does not hide the rest. Remark places carry no surface yet.
MeasuredOutline outlineOf(const Measurement& measurement);

/// Keys of readings, used in facts, files and fields: "AB".."BD" of a quadrilateral; "S2" a side, "D0" a diagonal of a
/// polygon; "x3", "y3", "z3" a station, its offset and the other one; "base", "a3", "b3" fixed points; "p0", "h0" a
/// part of the profile and its rise, "chord2", "rise2" the other way; "R1" a corner's radius.
std::string readingKey(QuadReading reading);
std::string readingKey(char kind, int index);

/// The reading of a key, or null if there is no such place in this measurement.
MaybeReading* findReading(Measurement& measurement, std::string_view key);
/// Keys of the outline's readings for the form chosen, in the order in which a person goes round.
std::vector<std::string> readingKeys(const Measurement& measurement);

} // namespace westrum
