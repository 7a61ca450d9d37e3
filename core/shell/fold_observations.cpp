#include "core/shell/fold_observations.h"

#include "core/shell/section.h"

#include <algorithm>
#include <cmath>
#include <deque>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

constexpr double kMeetMm = 2.5;    ///< that corners which meet lie apart
constexpr double kFlatMm = 8;      ///< that a corner stands off the plane of the others
constexpr double kAssumedMm = 12;  ///< of what a form takes for granted: opposite sides alike, corners square
constexpr double kSymmetricMm = 4; ///< that the two sides of a body differ where they are said to be alike (ours)
constexpr double kDrawnMm = 3;     ///< of a drawing or two tapes
constexpr double kPlumbedMm = 5;   ///< of a lean that was read, or a height
constexpr double kUsuallyMm = 60;  ///< that walls stand plumb and ceilings level, where nothing is read

int cornersOf(const TiedSurface& t) { return static_cast<int>(t.measured->sides.size()); }

/// A surface's own corner, the start of side k.
Point cornerOf(const TiedSurface& t, int k) { return t.measured->sides[at(k % cornersOf(t))].front(); }

VanPoint unit(VanPoint v) {
    const double l = length(v);
    return l > 1e-9 ? v * (1 / l) : VanPoint{};
}

/// Adds what a surface's readings say of its corners.
class Tapes {
public:
    Tapes(const TiedSurface& t, int surface, int first, std::vector<Observation>& into)
        : t_(t), m_(t.surface->measurement), surface_(surface), first_(first), into_(into) {
        if (m_.curve.curving != Curving::Flat) {
            const Bounds b = boundsOf(t.measured->frame);
            section_ = sectionOf(*t.surface, b.height());
        }
    }

    void add() {
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
        for (int k = 3; k < n; ++k) push({Observation::Flat, {first_, first_ + 1, first_ + 2, first_ + k}, 0, kFlatMm});
    }

private:
    void push(Observation o) {
        o.surface = surface_;
        into_.push_back(std::move(o));
    }
    /// A tape laid on the surface between two corners; on a bent one its chord.
    [[nodiscard]] double straight(int a, int b, double taped) const {
        if (section_.empty()) return taped;
        const double up = std::abs(cornerOf(t_, a).y - cornerOf(t_, b).y);
        const double chord = std::abs(chordAt(section_, up));
        return std::sqrt(std::max(1.0, taped * taped - up * up + chord * chord));
    }
    void tape(int a, int b, const MaybeReading& reading, const std::string& key, double error = kTapeErrorMm) {
        if (!reading || reading->length.value <= 0) return;
        push({Observation::Distance,
              {first_ + a, first_ + b, -1, -1},
              straight(a, b, reading->length.value),
              section_.empty() ? error : std::max(error, kCurveTapeErrorMm),
              -1,
              key});
    }
    void square(int a, int corner, int b) {
        push({Observation::Square, {first_ + a, first_ + corner, first_ + b, -1}, 0, kAssumedMm});
    }
    void same(int a, int b, int c, int d) {
        push({Observation::SameDistance, {first_ + a, first_ + b, first_ + c, first_ + d}, 0, kAssumedMm});
    }
    void rectangle() {
        tape(0, 1, m_.readings[0], "AB");
        if (m_.readings[1])
            tape(1, 2, m_.readings[1], "BC");
        else // the width follows from the profile
            push({Observation::Distance,
                  {first_ + 1, first_ + 2, -1, -1},
                  straight(1, 2, distance(cornerOf(t_, 1), cornerOf(t_, 2))),
                  kCurveTapeErrorMm});
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
        const MaybeReading base = Reading{{}, rows[at(last)].at->length - rows[at(begin)].at->length};
        tape(0, 1, base, readingKey('x', last));
        tape(1, 2, rows[at(last)].offset, readingKey('y', last));
        tape(3, 0, rows[at(begin)].offset, readingKey('y', begin));
        square(0, 1, 2);
        square(1, 0, 3);
    }
    void rigid() {
        const int n = cornersOf(t_);
        for (int a = 0; a < n; ++a)
            for (int b = a + 1; b < n; ++b)
                if (const double mm = distance(cornerOf(t_, a), cornerOf(t_, b)); mm > 1)
                    push({Observation::Distance, {first_ + a, first_ + b, -1, -1}, straight(a, b, mm), kDrawnMm});
    }

    const TiedSurface& t_;
    const Measurement& m_;
    int surface_, first_;
    std::vector<Observation>& into_;
    std::vector<SectionPoint> section_;
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
        const auto floor = static_cast<std::size_t>(root - all_.begin());
        const Bounds b = boundsOf(root->measured->frame);
        middle_ = {(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2, 0};
        add(floor, [](Point p) { return VanPoint{p.x, p.y, 0}; });
        problem_.fixed = problem_.first[floor];
        std::deque<std::size_t> open{floor};
        while (!open.empty()) {
            const std::size_t parent = open.front();
            open.pop_front();
            for (int side = 0; side < cornersOf(all_[parent]); ++side)
                if (const auto child = childAt(parent, side)) {
                    hang(parent, side, *child);
                    open.push_back(*child);
                }
        }
        return true;
    }

private:
    void add(std::size_t i, const auto& place) {
        problem_.first[i] = static_cast<int>(problem_.start.size());
        for (int k = 0; k < cornersOf(all_[i]); ++k) problem_.start.push_back(place(cornerOf(all_[i], k)));
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
void addShell(const std::vector<TiedSurface>& all, const Headroom& headroom, FoldProblem& problem) {
    auto& into = problem.observations;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (problem.first[i] < 0) continue;
        const TiedSurface& t = all[i];
        const int n = cornersOf(t), first = problem.first[i];
        for (int side = 0; side < n; ++side) {
            const Edge edge = t.surface->edge(side);
            if (edge.kind != EdgeKind::Meets) continue;
            for (std::size_t k = i + 1; k < all.size(); ++k) {
                if (all[k].surface->id != edge.surface || problem.first[k] < 0) continue;
                const int m = cornersOf(all[k]);
                if (edge.side < 0 || edge.side >= m) continue;
                const int mine = first + side, next = first + (side + 1) % n;
                const int theirs = problem.first[k] + edge.side, then = problem.first[k] + (edge.side + 1) % m;
                into.push_back({Observation::Meet, {mine, then, side, edge.side}, 1, kMeetMm, static_cast<int>(i)});
                into.push_back({Observation::Meet, {next, theirs, side, edge.side}, 0, kMeetMm, static_cast<int>(i)});
            }
        }
        if (liesLevel(t.surface->kind)) {
            if (t.surface->kind == SurfaceKind::Floor) continue;
            for (int k = 1; k < n; ++k)
                into.push_back({Observation::Level, {first, first + k, -1, -1}, 0, kUsuallyMm, static_cast<int>(i)});
        } else if (n >= 4) {
            // Its upper edge over its lower one: as read, or about plumb.
            const double lean = t.surface->lean ? t.surface->lean->length.value * (t.surface->leansOut ? -1 : 1) : 0;
            into.push_back({Observation::Plumb,
                            {first, first + n - 1, first + 1, -1},
                            lean,
                            t.surface->lean ? kPlumbedMm : kUsuallyMm,
                            static_cast<int>(i)});
            for (const auto& [reading, corner] :
                 {std::pair{&t.surface->heightRear, t.surface->hand == Hand::Right ? 1 : 0},
                  {&t.surface->heightFront, t.surface->hand == Hand::Right ? 0 : 1}})
                if (*reading)
                    into.push_back({Observation::Height,
                                    {first + corner, -1, -1, -1},
                                    (*reading)->length.value,
                                    kPlumbedMm,
                                    static_cast<int>(i)});
        }
    }
    // From the floor's metal to the ceiling's ribs, near its ends.
    for (std::size_t i = 0; i < all.size(); ++i)
        if (problem.first[i] >= 0 && all[i].surface->kind == SurfaceKind::Ceiling && cornersOf(all[i]) == 4)
            for (const auto& [reading, ends] :
                 {std::pair{&headroom.rear, std::array{0, 3}}, {&headroom.front, std::array{1, 2}}})
                if (*reading)
                    for (const int k : ends)
                        into.push_back({Observation::Height,
                                        {problem.first[i] + k, -1, -1, -1},
                                        (*reading)->length.value,
                                        kUsuallyMm,
                                        static_cast<int>(i)});
}

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
        problem.observations.push_back({Observation::SameDistance, points, 0, kSymmetricMm, static_cast<int>(surface)});
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

std::optional<FoldProblem> foldProblem(const std::vector<TiedSurface>& surfaces, const Headroom& headroom,
                                       bool symmetric) {
    FoldProblem problem;
    if (!Placing(surfaces, problem).run()) return std::nullopt;
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (problem.first[i] >= 0)
            Tapes(surfaces[i], static_cast<int>(i), problem.first[i], problem.observations).add();
    addShell(surfaces, headroom, problem);
    if (symmetric) addSymmetry(surfaces, problem);
    return problem;
}

int pointsOf(Observation::Kind kind) {
    switch (kind) {
    case Observation::Distance:
    case Observation::Meet:
    case Observation::Level: return 2;
    case Observation::Square:
    case Observation::Plumb: return 3;
    case Observation::SameDistance:
    case Observation::Flat: return 4;
    case Observation::Height: return 1;
    }
    return 0;
}

std::array<double, 3> misfit(const Observation& o, const std::vector<VanPoint>& points) {
    const auto p = [&](std::size_t k) { return points[at(o.points[k])]; };
    switch (o.kind) {
    case Observation::Distance: return {o.value - length(p(1) - p(0))};
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
    case Observation::Height: return {o.value - p(0).z};
    }
    return {};
}

} // namespace westrum
