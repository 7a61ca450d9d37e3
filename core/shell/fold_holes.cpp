#include "core/shell/fold_observations.h"
#include "core/shell/holes.h"
#include "core/shell/shape.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

constexpr double kParallelMm = 8; ///< that the two faces of a partition are not as thick everywhere; ours
constexpr double kBehindMm = 2.5; ///< that the two sides of one hole lie off each other, and off their surfaces

/// One side of a hole: an opening where it lies on a surface that stands in the van.
class Side {
public:
    Side(const std::vector<TiedSurface>& all, const HoleSide& side, FoldProblem& problem)
        : t_(all[side.surface]),
          opening_(t_.surface->openings[side.opening]),
          surface_(static_cast<int>(side.surface)),
          name_("o" + std::to_string(side.opening) + "."),
          problem_(problem) {}

    /// Whether it can say where it lies.
    [[nodiscard]] bool lay() {
        const Placement& place = opening_.place;
        const int n = static_cast<int>(t_.measured->sides.size());
        if (problem_.first[at(surface_)] < 0 || problem_.bendOf[at(surface_)] >= 0 || opening_.count > 1 || n < 3 ||
            place.side < 0 || place.side >= n || place.cross < 0 || place.cross >= n || !width() || !height())
            return false;
        // A side that bends is no line to measure from.
        for (const int side : {place.side, place.cross})
            if (t_.measured->sides[at(side)].size() > 2) return false;
        const auto box = placedBox(place, width()->length.value, height()->length.value, *t_.measured);
        if (!box) return false;
        const Point centre = ((*box)[0] + (*box)[2]) * 0.5;
        const Point a = t_.measured->sides[0].front(), u = unitOf(t_.measured->sides[0].back() - a);
        const VanPoint from = corner(0), x = unit(corner(1) - from), in = corner(n - 1) - from;
        const VanPoint y = unit(in - x * dot(in, x));
        spot_ = problem_.add(from + x * dot(centre - a, u) + y * cross(u, centre - a));
        return true;
    }
    /// Its equations. @param wide, high  figures of the hole's size along its side, and square to that
    void tell(int wide, int high) {
        const Placement& place = opening_.place;
        push(Observation::Flat, {point(0), point(1), point(2), spot_}, 0, kBehindMm, {});
        std::vector<int> line{spot_, point(place.side), point(place.side + 1)};
        std::vector<int> cross = line;
        cross.insert(cross.end(), {point(place.cross), point(place.cross + 1)});
        if (!place.toCentre) {
            line.push_back(high);
            cross.push_back(wide);
        }
        push(Observation::FromLine, std::move(line), place.fromSide->length.value, kTapeErrorMm, "side");
        push(Observation::FromCross, std::move(cross), place.fromCross->length.value, kTapeErrorMm, "cross");
        size(wide, opening_.width, "width");
        if (opening_.shape != OpeningShape::Round) size(high, opening_.height, "height");
    }
    /// The whole surface lies behind the other one's: as far off it everywhere.
    void parallelTo(const Side& other) {
        for (int k = 1; k < static_cast<int>(t_.measured->sides.size()); ++k)
            push(Observation::Parallel, {point(0), point(k), other.point(0), other.point(1), other.point(2)}, 0,
                 kParallelMm, {});
    }
    [[nodiscard]] int surface() const { return surface_; }
    /// It lies behind the other one.
    void behind(const Side& other) {
        push(Observation::SameSpot, {spot_, other.spot_, point(0), point(1), point(2)}, 0, kBehindMm, {});
    }

    [[nodiscard]] const MaybeReading& width() const { return opening_.width; }
    [[nodiscard]] const MaybeReading& height() const {
        return opening_.shape == OpeningShape::Round ? opening_.width : opening_.height;
    }
    /// The way its side runs in the van.
    [[nodiscard]] VanPoint way() const {
        return unit(problem_.start[at(point(opening_.place.side + 1))] -
                    problem_.start[at(point(opening_.place.side))]);
    }

private:
    static Point unitOf(Point p) { return p * (1 / std::max(1e-9, std::hypot(p.x, p.y))); }
    [[nodiscard]] int point(int corner) const {
        return problem_.first[at(surface_)] + corner % static_cast<int>(t_.measured->sides.size());
    }
    [[nodiscard]] VanPoint corner(int k) const { return problem_.start[at(point(k))]; }
    void push(Observation::Kind kind, std::vector<int> points, double value, double error, const std::string& key) {
        const int reading = key.empty() ? -1 : problem_.add({surface_, name_ + key, value});
        problem_.tell(kind, std::move(points), value, error, surface_, reading);
    }
    void size(int figure, const MaybeReading& reading, const std::string& key) {
        push(Observation::Figure, {figure}, reading->length.value, kTapeErrorMm, key);
    }

    const TiedSurface& t_;
    const Opening& opening_;
    int surface_, spot_ = -1;
    std::string name_; ///< of the opening, in keys
    FoldProblem& problem_;
};

} // namespace

void addHoles(const std::vector<TiedSurface>& surfaces, FoldProblem& problem) {
    std::set<std::pair<int, int>> pairs; ///< of surfaces
    for (const Hole& hole : holesOf(surfaces)) {
        std::vector<Side> sides;
        for (const HoleSide& h : hole.sides) {
            Side side(surfaces, h, problem);
            if (side.lay()) sides.push_back(std::move(side));
        }
        if (sides.size() < 2) continue;
        const int wide = problem.add({sides.front().width()->length.value, 0, 0}, true),
                  high = problem.add({sides.front().height()->length.value, 0, 0}, true);
        for (Side& side : sides) {
            // Dimensioned from an upright side, its width is what the other one calls its height.
            const bool turned = std::abs(dot(side.way(), sides.front().way())) < 0.7;
            side.tell(turned ? high : wide, turned ? wide : high);
            if (&side == &sides.front()) continue;
            side.behind(sides.front());
            if (pairs.emplace(sides.front().surface(), side.surface()).second) side.parallelTo(sides.front());
        }
    }
}

} // namespace westrum
