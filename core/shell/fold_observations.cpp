#include "core/shell/fold_observations.h"

#include "core/shell/holes.h"
#include "core/shell/section.h"

#include <algorithm>
#include <cmath>
#include <deque>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

constexpr double kMeetMm = 2.5;    ///< that corners which meet lie apart
constexpr double kFlatMm = 12;     ///< that a corner stands off the plane of the others (docs/measuring.md)
constexpr double kAssumedMm = 12;  ///< of what a form takes for granted: opposite sides alike, corners square
constexpr double kSymmetricMm = 4; ///< that the two sides of a body differ where they are said to be alike (ours)
constexpr double kDrawnMm = 3;     ///< of a drawing or two tapes
constexpr double kPlumbedMm = 5;   ///< of a lean that was read, or a height
constexpr double kHeadroomMm = 15; ///< of a bare height, read about there: a wall leans far for a few mm of it (ours)
constexpr double kUsuallyMm = 60;  ///< that walls stand plumb and ceilings level, where nothing is read

int cornersOf(const TiedSurface& t) { return static_cast<int>(t.measured->sides.size()); }

/// A surface's own corner, the start of side k.
Point cornerOf(const TiedSurface& t, int k) { return t.measured->sides[at(k % cornersOf(t))].front(); }

/// An equation that the figures of a profile are part of.
void addFigures(const FoldProblem& problem, int bend, Observation& o) {
    o.bend = bend;
    for (const Bend::Part& p : problem.bends[at(bend)].parts) {
        o.points.push_back(p.length);
        if (p.rise >= 0) o.points.push_back(p.rise);
    }
}

double lengthOf(const std::vector<ProfilePart>& profile) {
    double all = 0;
    for (const ProfilePart& part : profile) all += part.rise > 1e-6 ? arcLengthOf(part) : part.length;
    return all;
}

/// How far the middle of a section stands outside of its chord.
double bulgeOf(const std::vector<ProfilePart>& profile, double height) {
    const SectionPoint top = profileAt(profile, height), middle = profileAt(profile, height / 2);
    const double chord = std::max(1e-9, std::hypot(top.inside, top.high));
    return (middle.high * top.inside - middle.inside * top.high) / chord;
}

/// Adds what a surface's readings say of its corners.
class Tapes {
public:
    Tapes(const TiedSurface& t, int surface, FoldProblem& problem)
        : t_(t),
          m_(t.surface->measurement),
          surface_(surface),
          first_(problem.first[at(surface)]),
          problem_(problem),
          low_(boundsOf(t.measured->frame).low.y) {}

    void add() {
        bend();
        switch (m_.form) {
        case OutlineForm::Rectangle: rectangle(); break;
        case OutlineForm::FourSides:
            for (std::size_t k = 0; k < kQuadReadings; ++k)
                if (m_.readings[k])
                    tape(kQuadEnds[k][0], kQuadEnds[k][1], m_.readings[k], readingKey(static_cast<QuadReading>(k)));
            if (!m_.readings[4] && !m_.readings[5]) square(3, 0, 1);
            break;
        case OutlineForm::Polygon: polygon(); break;
        case OutlineForm::Stations: stations(); break;
        case OutlineForm::TwoPoint:
        case OutlineForm::Drawn: rigid(); break;
        }
        const int n = cornersOf(t_);
        for (int k = 3; k < n; ++k) push(Observation::Flat, {first_, first_ + 1, first_ + 2, first_ + k}, 0, kFlatMm);
    }

private:
    Observation& push(Observation::Kind kind, std::vector<int> points, double value, double error, int reading = -1) {
        return problem_.tell(kind, std::move(points), value, error, surface_, reading);
    }
    /// The figures of the profile, each with its reading.
    void bend() {
        const std::vector<ProfilePart> parts = profileOf(*t_.surface);
        if (parts.empty()) return;
        problem_.bendOf[at(surface_)] = static_cast<int>(problem_.bends.size());
        Bend& bend = problem_.bends.emplace_back();
        for (std::size_t k = 0, part = 0; k < m_.curve.parts.size(); ++k) {
            const CurveReadings::Part& read = m_.curve.parts[k];
            if (!read.length || read.length->length.value <= 0) continue;
            const int place = static_cast<int>(k);
            bend.parts.push_back({figure(parts[part].length, readingKey('p', place)),
                                  parts[part].rise > 0 ? figure(parts[part].rise, readingKey('h', place)) : -1});
            ++part;
        }
    }
    int figure(double mm, const std::string& key) {
        const int place = problem_.add({mm, 0, 0}, true);
        push(Observation::Figure, {place}, mm, kTapeErrorMm, problem_.add({surface_, key, mm}));
        return place;
    }
    [[nodiscard]] int bendHere() const { return problem_.bendOf[at(surface_)]; }
    /// A length on the surface between two corners.
    void laid(int a, int b, double mm, double error, int reading = -1) {
        const bool bent = bendHere() >= 0;
        Observation& o = push(bent ? Observation::Bent : Observation::Distance, {first_ + a, first_ + b},
                              mm * lengthways(a, b), error, reading);
        if (!bent) return;
        o.along = {cornerOf(t_, a).y - low_, cornerOf(t_, b).y - low_};
        // Straight along the bend no tape is less sure.
        if (std::abs(o.along[0] - o.along[1]) > 0.05 * mm) o.error = std::max(error, kCurveTapeErrorMm);
        addFigures(problem_, bendHere(), o);
    }
    /// Of a surface that is bent both ways: what a length along it is straight.
    [[nodiscard]] double lengthways(int a, int b) const {
        const CurveReadings& c = m_.curve;
        if (c.curving != Curving::Double || !c.alongChord || !c.alongRise || c.alongRise->length.value <= 0 ||
            c.alongChord->length.value <= 0)
            return 1;
        const double chord = c.alongChord->length.value, arc = arcLengthOf({chord, c.alongRise->length.value});
        const Point d = cornerOf(t_, b) - cornerOf(t_, a);
        const double all = std::max(1e-9, std::hypot(d.x, d.y)), x = d.x * chord / arc;
        return std::hypot(x, d.y) / all;
    }
    int tape(int a, int b, const MaybeReading& reading, const std::string& key, double error = kTapeErrorMm) {
        if (!reading || reading->length.value <= 0) return -1;
        const int place = problem_.add({surface_, key, reading->length.value});
        laid(a, b, reading->length.value, error, place);
        return place;
    }
    void square(int a, int corner, int b) {
        push(Observation::Square, {first_ + a, first_ + corner, first_ + b}, 0, kAssumedMm);
    }
    void same(int a, int b, int c, int d) {
        push(Observation::SameDistance, {first_ + a, first_ + b, first_ + c, first_ + d}, 0, kAssumedMm);
    }
    void rectangle() {
        tape(0, 1, m_.readings[0], "AB");
        const bool bent = bendHere() >= 0;
        if (m_.readings[1]) {
            const int width = tape(1, 2, m_.readings[1], "BC");
            if (bent) // taped along the curve it is all of the profile
                addFigures(problem_, bendHere(),
                           push(Observation::Profile, {}, m_.readings[1]->length.value, kCurveTapeErrorMm, width));
        } else if (bent) { // the width follows from the profile
            addFigures(problem_, bendHere(), push(Observation::Chord, {first_ + 1, first_ + 2}, 0, kDrawnMm));
        }
        same(0, 1, 3, 2);
        same(1, 2, 0, 3);
        same(0, 2, 1, 3);
    }
    void polygon() {
        const int n = cornersOf(t_);
        for (int k = 0; k < n && k < static_cast<int>(m_.polygon.sides.size()); ++k)
            tape(k, (k + 1) % n, m_.polygon.sides[at(k)], readingKey('S', k));
        for (std::size_t d = 0; d < m_.polygon.diagonals.size(); ++d) {
            const auto& g = m_.polygon.diagonals[d];
            if (g.from != g.to && g.from >= 0 && g.to >= 0 && g.from < n && g.to < n)
                tape(g.from, g.to, g.length, readingKey('D', static_cast<int>(d)));
        }
    }
    /// The baseline's length is its last station, the ends their offsets, square to it.
    void stations() {
        int last = -1, begin = -1;
        for (std::size_t i = 0; i < m_.stations.rows.size(); ++i)
            if (m_.stations.rows[i].at) {
                if (begin < 0) begin = static_cast<int>(i);
                last = static_cast<int>(i);
            }
        if (last <= begin || m_.stations.bothSides) return rigid();
        const auto& rows = m_.stations.rows;
        const double base = (rows[at(last)].at->length - rows[at(begin)].at->length).value;
        if (base > 0)
            laid(0, 1, base, kTapeErrorMm,
                 problem_.add({surface_, readingKey('x', last), rows[at(last)].at->length.value}));
        tape(1, 2, rows[at(last)].offset, readingKey('y', last));
        tape(3, 0, rows[at(begin)].offset, readingKey('y', begin));
        square(0, 1, 2);
        square(1, 0, 3);
    }
    void rigid() {
        const int n = cornersOf(t_);
        for (int a = 0; a < n; ++a)
            for (int b = a + 1; b < n; ++b)
                if (const double mm = distance(cornerOf(t_, a), cornerOf(t_, b)); mm > 1) laid(a, b, mm, kDrawnMm);
    }

    const TiedSurface& t_;
    const Measurement& m_;
    int surface_, first_;
    FoldProblem& problem_;
    double low_; ///< of the surface's own y
};

/// Lays surfaces about where they are, from the floor outwards.
class Placing {
public:
    Placing(const std::vector<TiedSurface>& all, FoldProblem& problem) : all_(all), problem_(problem) {}

    bool run() {
        const auto root = std::find_if(all_.begin(), all_.end(), [](const TiedSurface& t) {
            return t.surface->kind == SurfaceKind::Floor && t.measured->measured() && !t.measured->sides.empty();
        });
        if (root == all_.end()) return false;
        problem_.first.assign(all_.size(), -1);
        problem_.bendOf.assign(all_.size(), -1);
        const auto floor = static_cast<std::size_t>(root - all_.begin());
        const Bounds b = boundsOf(root->measured->frame);
        middle_ = {(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2, 0};
        add(floor, [](Point p) { return VanPoint{p.x, p.y, 0}; });
        problem_.fixed = problem_.first[floor];
        hangOn({floor});
        // What is the other side of a hole stands behind it, and others hang on that.
        for (bool more = true; more;) {
            more = false;
            for (const Hole& hole : holesOf(all_))
                for (const HoleSide& on : hole.sides)
                    for (const HoleSide& behind : hole.sides)
                        if (problem_.first[on.surface] >= 0 && problem_.first[behind.surface] < 0 &&
                            hangBehind(on, behind)) {
                            hangOn({behind.surface});
                            more = true;
                        }
        }
        return true;
    }

private:
    void hangOn(std::deque<std::size_t> open) {
        while (!open.empty()) {
            const std::size_t parent = open.front();
            open.pop_front();
            for (int side = 0; side < cornersOf(all_[parent]); ++side)
                if (const auto child = childAt(parent, side)) {
                    hang(parent, side, *child);
                    open.push_back(*child);
                }
        }
    }
    /// Seen from the other side, left is right.
    bool hangBehind(const HoleSide& on, const HoleSide& behind) {
        const auto mine = middleOfHole(all_, on), theirs = middleOfHole(all_, behind);
        if (!mine || !theirs || all_[behind.surface].measured->sides.empty()) return false;
        const Point first = cornerOf(all_[on.surface], 0), way = cornerOf(all_[on.surface], 1) - first;
        const Point u = way * (1 / std::max(1e-9, std::hypot(way.x, way.y)));
        const VanPoint from = corner(on.surface, 0), along = unit(corner(on.surface, 1) - from);
        const VanPoint in = corner(on.surface, cornersOf(all_[on.surface]) - 1) - from;
        const VanPoint upAlong = unit(in - along * dot(in, along));
        // What a millimetre along the own x and y of the one that is hung on does in the van.
        const VanPoint perX = along * u.x - upAlong * u.y, perY = along * u.y + upAlong * u.x;
        const VanPoint spot = from + perX * (mine->x - first.x) + perY * (mine->y - first.y);
        add(behind.surface, [&](Point p) { return spot - perX * (p.x - theirs->x) + perY * (p.y - theirs->y); });
        return true;
    }
    void add(std::size_t i, const auto& place) {
        problem_.first[i] = static_cast<int>(problem_.start.size());
        for (int k = 0; k < cornersOf(all_[i]); ++k) problem_.add(place(cornerOf(all_[i], k)));
    }
    [[nodiscard]] VanPoint corner(std::size_t i, int k) const {
        return problem_.start[at(problem_.first[i] + k % cornersOf(all_[i]))];
    }
    /// Who meets this side and is not laid yet.
    [[nodiscard]] std::optional<std::size_t> childAt(std::size_t parent, int side) const {
        const Edge edge = all_[parent].surface->edge(side);
        if (edge.kind != EdgeKind::Meets) return std::nullopt;
        for (std::size_t i = 0; i < all_.size(); ++i)
            if (all_[i].surface->id == edge.surface && problem_.first[i] < 0 && all_[i].measured->measured() &&
                edge.side >= 0 && edge.side < cornersOf(all_[i]))
                return i;
        return std::nullopt;
    }
    void hang(std::size_t parent, int side, std::size_t child) {
        const Edge edge = all_[parent].surface->edge(side);
        // Seen from inside, the two sides run against each other.
        const VanPoint a = corner(parent, side + 1), b = corner(parent, side);
        const Point from = cornerOf(all_[child], edge.side), to = cornerOf(all_[child], edge.side + 1);
        const Point u = (to - from) * (1 / std::max(1e-9, distance(from, to))), n{-u.y, u.x};
        const VanPoint along = unit(b - a);
        const VanPoint in = unit(inwards(parent, child, a, along));
        add(child, [&](Point p) { return a + along * dot(p - from, u) + in * dot(p - from, n); });
    }
    /// Which way the child goes on from the side, square to it.
    [[nodiscard]] VanPoint inwards(std::size_t parent, std::size_t child, VanPoint a, VanPoint along) const {
        const bool lies = liesLevel(all_[parent].surface->kind), childLies = liesLevel(all_[child].surface->kind);
        const auto square = [&](VanPoint v) { return v - along * dot(v, along); };
        VanPoint middle; // of the parent
        for (int k = 0; k < cornersOf(all_[parent]); ++k) middle = middle + corner(parent, k);
        middle = middle * (1.0 / cornersOf(all_[parent]));
        if (std::abs(along.z) > 0.7) { // joined along an upright side: it turns the corner
            const VanPoint plane = middle - a;
            const VanPoint normal = cross(along, unit(square(plane)));
            return dot(normal, middle_ - a) >= 0 ? normal : normal * -1;
        }
        if (lies != childLies) {
            if (childLies) { // towards the middle of the van
                VanPoint v = middle_ - a;
                v.z = 0;
                return square(v);
            }
            return square({0, 0,
                           all_[parent].surface->kind == SurfaceKind::Ceiling ||
                                   all_[parent].surface->kind == SurfaceKind::Headliner
                               ? -1.0
                               : 1.0});
        }
        return square(a - middle); // on from the parent
    }

    const std::vector<TiedSurface>& all_;
    FoldProblem& problem_;
    VanPoint middle_;
};

/// Ties, heights and what is usual where nothing is read.
class Shell {
public:
    Shell(const std::vector<TiedSurface>& all, FoldProblem& problem) : all_(all), problem_(problem) {}

    void add(const Headroom& headroom) {
        for (std::size_t i = 0; i < all_.size(); ++i) {
            if (problem_.first[i] < 0) continue;
            ties(i);
            if (liesLevel(all_[i].surface->kind))
                level(i);
            else if (cornersOf(all_[i]) >= 4)
                upright(i);
        }
        heights(headroom);
    }

private:
    Observation& push(Observation::Kind kind, std::vector<int> points, double value, double error, std::size_t surface,
                      int reading = -1) {
        return problem_.tell(kind, std::move(points), value, error, static_cast<int>(surface), reading);
    }
    void ties(std::size_t i) {
        const int n = cornersOf(all_[i]), first = problem_.first[i];
        for (int side = 0; side < n; ++side) {
            const Edge edge = all_[i].surface->edge(side);
            if (edge.kind != EdgeKind::Meets) continue;
            for (std::size_t k = i + 1; k < all_.size(); ++k) {
                if (all_[k].surface->id != edge.surface || problem_.first[k] < 0) continue;
                const int m = cornersOf(all_[k]);
                if (edge.side < 0 || edge.side >= m) continue;
                const int theirs = problem_.first[k] + edge.side, then = problem_.first[k] + (edge.side + 1) % m;
                for (const bool start : {true, false}) {
                    const int mine = first + (start ? side : (side + 1) % n);
                    Observation& o = push(Observation::Meet, {mine, start ? then : theirs}, 0, kMeetMm, i);
                    o.sides = {side, edge.side};
                    o.atStart = start;
                }
            }
        }
    }
    void level(std::size_t i) {
        if (all_[i].surface->kind == SurfaceKind::Floor) return;
        const int first = problem_.first[i];
        for (int k = 1; k < cornersOf(all_[i]); ++k) push(Observation::Level, {first, first + k}, 0, kUsuallyMm, i);
    }
    /// Its upper edge over its lower one: as read, or about plumb; its foot as high as it was read.
    void upright(std::size_t i) {
        const Surface& s = *all_[i].surface;
        const int n = cornersOf(all_[i]), first = problem_.first[i];
        const double sign = s.leansOut ? -1 : 1;
        const int read = s.lean ? problem_.add({static_cast<int>(i), "lean", s.lean->length.value, sign}) : -1;
        push(Observation::Plumb, {first, first + n - 1, first + 1}, s.lean ? s.lean->length.value * sign : 0,
             s.lean ? kPlumbedMm : kUsuallyMm, i, read);
        for (const auto& [reading, key, corner] :
             {std::tuple{&s.heightRear, "heightRear", s.hand == Hand::Right ? 1 : 0},
              {&s.heightFront, "heightFront", s.hand == Hand::Right ? 0 : 1}})
            if (const MaybeReading& r = *reading)
                push(Observation::Height, {first + corner}, r->length.value, kPlumbedMm, i,
                     problem_.add({static_cast<int>(i), key, r->length.value}));
    }
    /// From the floor's metal to the ceiling's ribs, about the middle of its ends and of itself: a bent one stands
    /// higher there than its corners.
    void heights(const Headroom& headroom) {
        const auto isCeiling = [&](std::size_t i) {
            return problem_.first[i] >= 0 && all_[i].surface->kind == SurfaceKind::Ceiling && cornersOf(all_[i]) == 4;
        };
        std::optional<std::size_t> only;
        for (std::size_t i = 0; i < all_.size(); ++i)
            if (isCeiling(i)) {
                if (only) return; // nobody says which of them was read
                only = i;
            }
        if (!only) return;
        const int first = problem_.first[*only];
        for (const auto& [reading, key, corners] : {std::tuple{&headroom.rear, kHeadroomRear, std::vector{0, 3}},
                                                    {&headroom.middle, kHeadroomMiddle, std::vector{0, 1, 2, 3}},
                                                    {&headroom.front, kHeadroomFront, std::vector{1, 2}}}) {
            const MaybeReading& r = *reading;
            if (!r) continue;
            std::vector<int> points;
            for (const int k : corners) points.push_back(first + k);
            Observation& o = push(Observation::Height, std::move(points), r->length.value, kHeadroomMm, *only,
                                  problem_.add({static_cast<int>(*only), key, r->length.value}));
            o.corners = static_cast<int>(corners.size());
            if (problem_.bendOf[*only] < 0) continue;
            o.along = {0, boundsOf(all_[*only].measured->frame).height()};
            addFigures(problem_, problem_.bendOf[*only], o);
        }
    }

    const std::vector<TiedSurface>& all_;
    FoldProblem& problem_;
};

/// The kind that is a wall's image on the other side.
std::optional<SurfaceKind> imageOf(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::LeftWall: return SurfaceKind::RightWall;
    case SurfaceKind::LeftWallUpper: return SurfaceKind::RightWallUpper;
    default: return std::nullopt;
    }
}

/// Both sides alike: what a tape would read between two corners on the left it would read on the right.
void addSymmetry(const std::vector<TiedSurface>& all, FoldProblem& problem) {
    const auto same = [&](std::size_t surface, std::array<int, 4> points) {
        problem.tell(Observation::SameDistance, {points.begin(), points.end()}, 0, kSymmetricMm,
                     static_cast<int>(surface));
    };
    for (std::size_t i = 0; i < all.size(); ++i) {
        const int first = problem.first[i];
        if (first < 0 || cornersOf(all[i]) != 4) continue;
        const SurfaceKind kind = all[i].surface->kind;
        if (kind == SurfaceKind::Floor || kind == SurfaceKind::Ceiling) {
            same(i, {first, first + 1, first + 3, first + 2});
            same(i, {first, first + 2, first + 1, first + 3});
        }
        const auto image = imageOf(kind);
        for (std::size_t k = 0; image && k < all.size(); ++k) {
            if (all[k].surface->kind != *image || problem.first[k] < 0 || cornersOf(all[k]) != 4) continue;
            // Seen from inside, one begins at the rear where the other begins at the front.
            constexpr std::array<int, 4> kImage{1, 0, 3, 2};
            for (int a = 0; a < 4; ++a)
                for (int b = a + 1; b < 4; ++b)
                    same(i, {first + a, first + b, problem.first[k] + kImage[at(a)], problem.first[k] + kImage[at(b)]});
            break;
        }
    }
}

} // namespace

int FoldProblem::add(VanPoint p, bool isFigure) {
    start.push_back(p);
    figure.push_back(isFigure);
    return static_cast<int>(start.size()) - 1;
}

int FoldProblem::add(FoldReading reading) {
    readings.push_back(std::move(reading));
    return static_cast<int>(readings.size()) - 1;
}

Observation& FoldProblem::tell(Observation::Kind kind, std::vector<int> about, double value, double error, int surface,
                               int reading) {
    Observation& o = observations.emplace_back();
    o.kind = kind;
    o.points = std::move(about);
    o.value = value;
    o.error = error;
    o.surface = surface;
    o.reading = reading;
    return o;
}

std::vector<ProfilePart> Bend::profile(const std::vector<VanPoint>& points) const {
    std::vector<ProfilePart> out;
    for (const Part& p : parts)
        out.push_back({std::max(1.0, points[at(p.length)].x), p.rise < 0 ? 0 : points[at(p.rise)].x});
    return out;
}

std::optional<FoldProblem> foldProblem(const std::vector<TiedSurface>& surfaces, const Headroom& headroom,
                                       bool symmetric) {
    FoldProblem problem;
    if (!Placing(surfaces, problem).run()) return std::nullopt;
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (problem.first[i] >= 0) Tapes(surfaces[i], static_cast<int>(i), problem).add();
    Shell(surfaces, problem).add(headroom);
    addHoles(surfaces, problem);
    if (symmetric) addSymmetry(surfaces, problem);
    return problem;
}

int equationsOf(Observation::Kind kind) { return kind == Observation::Meet || kind == Observation::SameSpot ? 3 : 1; }

std::array<double, 3> misfit(const Observation& o, const std::vector<VanPoint>& points,
                             const std::vector<Bend>& bends) {
    const auto p = [&](std::size_t k) { return points[at(o.points[k])]; };
    // Half of a figure, if there is one at this place.
    const auto half = [&](std::size_t k) { return o.points.size() > k ? p(k).x / 2 : 0; };
    switch (o.kind) {
    case Observation::Distance: return {o.value - length(p(1) - p(0))};
    case Observation::Bent: {
        const std::vector<ProfilePart> profile = bends[at(o.bend)].profile(points);
        const SectionPoint from = profileAt(profile, o.along[0]), to = profileAt(profile, o.along[1]);
        const double up = o.along[1] - o.along[0], chord = std::hypot(to.inside - from.inside, to.high - from.high);
        return {std::sqrt(std::max(1.0, o.value * o.value - up * up + chord * chord)) - length(p(1) - p(0))};
    }
    case Observation::Profile: {
        return {o.value - lengthOf(bends[at(o.bend)].profile(points))};
    }
    case Observation::SameDistance: return {length(p(1) - p(0)) - length(p(3) - p(2))};
    case Observation::Square: {
        const VanPoint a = p(0) - p(1), b = p(2) - p(1);
        return {dot(a, b) / std::max({1.0, length(a), length(b)})};
    }
    case Observation::Flat: {
        const VanPoint normal = cross(p(1) - p(0), p(2) - p(0));
        return {dot(p(3) - p(0), normal) / std::max(1.0, length(normal))};
    }
    case Observation::Meet: {
        const VanPoint d = p(1) - p(0);
        return {d.x, d.y, d.z};
    }
    case Observation::Level: return {o.value - (p(1) - p(0)).z};
    case Observation::Plumb: {
        // Square to the lower edge and level, towards who looks at it from inside.
        const VanPoint along = p(2) - p(0), in = cross(along, {0, 0, 1});
        const double l = length(in);
        if (l < 1e-9) return {0};
        return {o.value - dot(p(1) - p(0), in * (1 / l))};
    }
    case Observation::Height: {
        const int corners = std::max(1, o.corners);
        double sum = 0;
        for (int k = 0; k < corners; ++k) sum += p(at(k)).z;
        const double bulge = o.bend < 0 ? 0 : bulgeOf(bends[at(o.bend)].profile(points), o.along[1]);
        return {o.value - bulge - sum / corners};
    }
    case Observation::Figure: return {o.value - p(0).x};
    case Observation::FromLine: return {o.value + half(3) - length(cross(p(0) - p(1), unit(p(2) - p(1))))};
    case Observation::FromCross: {
        const VanPoint along = unit(p(2) - p(1)), line = unit(p(4) - p(3));
        const double slant = std::max(0.1, length(cross(along, line)));
        return {o.value + half(5) - length(cross(p(0) - p(3), line)) / slant};
    }
    case Observation::Chord: {
        const std::vector<ProfilePart> profile = bends[at(o.bend)].profile(points);
        const SectionPoint end = profileAt(profile, lengthOf(profile));
        return {std::hypot(end.inside, end.high) - length(p(1) - p(0))};
    }
    case Observation::Parallel: return {dot(p(1) - p(0), unit(cross(p(3) - p(2), p(4) - p(2))))};
    case Observation::SameSpot: {
        const VanPoint normal = unit(cross(p(3) - p(2), p(4) - p(2))), d = p(1) - p(0);
        const VanPoint off = d - normal * dot(d, normal);
        return {off.x, off.y, off.z};
    }
    }
    return {};
}

} // namespace westrum
