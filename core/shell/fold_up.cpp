#include "core/shell/fold_up.h"

#include "core/measure/embeddings.h"
#include "core/measure/slips.h"
#include "core/shell/fold_observations.h"

#include <Eigen/Dense>
#include <Eigen/Sparse>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

using Sparse = Eigen::SparseMatrix<double>;

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// A reading that stands out by this much, in its own error, is no accident: more than of one surface (slips.cpp), as
/// many more are looked at.
constexpr double kStandsOut = 3.9;
constexpr std::size_t kMostTried = 16;

/// Which unknown a coordinate of a point is; -1: it is held. The floor lies level, its first corner and the direction
/// of its first side are the van's axes.
class Unknowns {
public:
    Unknowns(const FoldProblem& problem, int floorCorners) : index_(problem.start.size(), {-1, -1, -1}) {
        const VanPoint way = problem.start[at(problem.fixed + 1)] - problem.start[at(problem.fixed)];
        const bool alongX = std::abs(way.x) >= std::abs(way.y);
        for (int p = 0; p < static_cast<int>(index_.size()); ++p) {
            const int inFloor = p - problem.fixed;
            const bool floor = inFloor >= 0 && inFloor < floorCorners;
            for (std::size_t c = 0; c < 3; ++c) {
                if (problem.figure[at(p)] && c > 0) continue;
                const bool held = floor && (c == 2 || inFloor == 0 || (inFloor == 1 && c == (alongX ? 1U : 0U)));
                if (!held) index_[at(p)][c] = count_++;
            }
        }
    }
    [[nodiscard]] int of(int point, std::size_t c) const { return index_[at(point)][c]; }
    [[nodiscard]] int count() const { return count_; }

private:
    std::vector<std::array<int, 3>> index_;
    int count_ = 0;
};

double& part(VanPoint& p, std::size_t c) { return c == 0 ? p.x : c == 1 ? p.y : p.z; }

/// Weighted least squares by damped Gauss-Newton steps (Levenberg-Marquardt) on sparse equations.
class Adjustment {
public:
    Adjustment(const FoldProblem& problem, const Unknowns& unknowns)
        : problem_(problem), observations_(problem.observations), unknowns_(unknowns) {}

    /// From these points to the best ones. @param left  place of a reading that is left out; -1: none
    std::vector<VanPoint> run(std::vector<VanPoint> points, int left = -1) {
        settledAt_.clear();
        double damping = 1e-6, now = cost(points, left);
        for (int round = 0; round < 60; ++round) {
            linearise(points, left);
            Eigen::VectorXd step;
            std::vector<VanPoint> next;
            double then = 0;
            for (;;) {
                factorise(damping);
                step = solver_.solve(right_);
                next = points;
                for (int p = 0; p < static_cast<int>(next.size()); ++p)
                    for (std::size_t c = 0; c < 3; ++c)
                        if (const int i = unknowns_.of(p, c); i >= 0) part(next[at(p)], c) += step(i);
                then = cost(next, left);
                if (then <= now || damping > 1e6) break;
                damping = std::max(damping * 10, 1e-6);
            }
            if (!(then <= now)) break;
            points = std::move(next);
            const double gain = now - then;
            now = then;
            damping = std::max(damping / 10, 1e-9);
            if (step.lpNorm<Eigen::Infinity>() < 1e-4 || gain < 1e-7 * (1 + now)) break;
        }
        return points;
    }

    [[nodiscard]] double cost(const std::vector<VanPoint>& points, int left = -1) const {
        double sum = 0;
        for (const Observation& o : observations_) {
            if (left >= 0 && o.reading == left) continue;
            for (const double m : misfit(o, points, problem_.bends)) sum += m * m / (o.error * o.error);
        }
        return sum;
    }

    /// How sure something is that follows from some of the points: one standard deviation.
    double errorOf(const std::vector<int>& about, std::vector<VanPoint> points, const auto& figure) {
        settle(points);
        constexpr double h = 0.05;
        Eigen::VectorXd row = Eigen::VectorXd::Zero(unknowns_.count());
        toEitherSide(
            about, points, h, [&] { return figure(points); },
            [&](int index, double up, double down) { row(index) += (up - down) / (2 * h); });
        return std::sqrt(std::max(0.0, row.dot(Eigen::VectorXd(solver_.solve(row)))));
    }

    /// The share of an error of its own that stays in the residual of each equation that a reading gives; 1 elsewhere.
    std::vector<double> shares(std::vector<VanPoint> points) {
        settle(points);
        std::vector<double> shares(observations_.size(), 1);
        for (std::size_t i = 0; i < observations_.size(); ++i) {
            const Observation& o = observations_[i];
            if (o.reading < 0) continue;
            slopesOf(o, points);
            Eigen::VectorXd row = Eigen::VectorXd::Zero(unknowns_.count());
            for (const auto& [index, slope] : slopes_) row(index) += slope[0] / o.error;
            const Eigen::VectorXd through = solver_.solve(row);
            shares[i] = std::clamp(1 - row.dot(through), 0.0, 1.0);
        }
        return shares;
    }

private:
    /// Readies the solver at the points that were found, all readings in.
    void settle(std::vector<VanPoint>& points) {
        if (settledAt_ == points) return;
        settledAt_ = points;
        linearise(points, -1);
        factorise(1e-9);
    }
    void factorise(double damping) {
        Sparse damped = normal_;
        for (int i = 0; i < damped.rows(); ++i) damped.coeffRef(i, i) += damping;
        if (!known_) solver_.analyzePattern(damped);
        known_ = true;
        solver_.factorize(damped);
    }
    /// Moves each unknown of some points by h up and down, and tells what a figure was then.
    void toEitherSide(const std::vector<int>& about, std::vector<VanPoint>& points, double h, const auto& figure,
                      const auto& tell) const {
        for (const int point : about)
            for (std::size_t c = 0; c < 3; ++c) {
                const int index = unknowns_.of(point, c);
                if (index < 0) continue;
                double& value = part(points[at(point)], c);
                const double kept = value;
                value = kept + h;
                const auto up = figure();
                value = kept - h;
                const auto down = figure();
                value = kept;
                tell(index, up, down);
            }
    }
    /// How an equation's fitted figures change with each unknown it is about, by differences.
    void slopesOf(const Observation& o, std::vector<VanPoint>& points) {
        constexpr double h = 1e-3;
        slopes_.clear();
        toEitherSide(
            o.points, points, h, [&] { return misfit(o, points, problem_.bends); },
            [&](int index, const std::array<double, 3>& up, const std::array<double, 3>& down) {
                std::array<double, 3> slope{};
                for (std::size_t r = 0; r < 3; ++r) slope[r] = (down[r] - up[r]) / (2 * h);
                slopes_.emplace_back(index, slope);
            });
    }
    /// Normal equations at these points; each equation touches few coordinates.
    void linearise(std::vector<VanPoint>& points, int left) {
        entries_.clear();
        right_ = Eigen::VectorXd::Zero(unknowns_.count());
        for (const Observation& o : observations_) {
            const double weight = left >= 0 && o.reading == left ? 0 : 1 / (o.error * o.error);
            const int rows = equationsOf(o.kind);
            const std::array<double, 3> off = misfit(o, points, problem_.bends);
            slopesOf(o, points);
            for (const auto& [index, slope] : slopes_) {
                double rhs = 0;
                for (int r = 0; r < rows; ++r) rhs += slope[at(r)] * off[at(r)];
                right_(index) += weight * rhs;
                for (const auto& [other, with] : slopes_) {
                    double product = 0;
                    for (int r = 0; r < rows; ++r) product += slope[at(r)] * with[at(r)];
                    entries_.emplace_back(index, other, weight * product);
                }
            }
        }
        normal_.resize(unknowns_.count(), unknowns_.count());
        normal_.setFromTriplets(entries_.begin(), entries_.end());
    }

    const FoldProblem& problem_;
    const std::vector<Observation>& observations_;
    const Unknowns& unknowns_;
    std::vector<std::pair<int, std::array<double, 3>>> slopes_;
    std::vector<Eigen::Triplet<double>> entries_;
    Sparse normal_;
    Eigen::VectorXd right_;
    Eigen::SimplicialLDLT<Sparse> solver_;
    bool known_ = false;
    std::vector<VanPoint> settledAt_; ///< for which the solver is ready
};

/// Looks for the length not read yet that differs most between the suspects.
class Deciding {
public:
    /// @param without  all points as they are without each of the suspects
    Deciding(const std::vector<TiedSurface>& surfaces, const FoldProblem& problem,
             const std::vector<VanSuspect>& suspects, const std::vector<std::vector<VanPoint>>& without)
        : surfaces_(surfaces), problem_(problem), suspects_(suspects), without_(without) {}

    /// Of a surface that one of them is of, if any of those tells.
    std::optional<DecidingLength> find() {
        for (const bool own : {true, false}) {
            if (best_) break;
            for (std::size_t i = 0; i < surfaces_.size(); ++i)
                if (own == std::any_of(suspects_.begin(), suspects_.end(),
                                       [&](const VanSuspect& s) { return s.surface == surfaces_[i].surface->id; }))
                    look(i);
        }
        return best_;
    }

private:
    void look(std::size_t i) {
        const OutlineForm form = surfaces_[i].surface->measurement.form;
        if (problem_.first[i] < 0 || problem_.bendOf[i] >= 0 ||
            (form != OutlineForm::FourSides && form != OutlineForm::Polygon))
            return;
        std::vector<Point> corners;
        for (const Ring& side : surfaces_[i].measured->sides) corners.push_back(side.front());
        const int n = static_cast<int>(corners.size());
        for (int a = 0; a < n; ++a)
            for (int b = a + 1; b < n; ++b) {
                if (isRead(i, a, b) || !liesInside(corners, a, b)) continue;
                double low = 1e300, high = -1e300;
                for (const std::vector<VanPoint>& p : without_) {
                    const double mm = length(p[at(problem_.first[i] + b)] - p[at(problem_.first[i] + a)]);
                    low = std::min(low, mm);
                    high = std::max(high, mm);
                }
                if (high - low <= most_) continue;
                most_ = high - low;
                best_ = DecidingLength{surfaces_[i].surface->id, a, b};
            }
    }
    [[nodiscard]] bool isRead(std::size_t i, int a, int b) const {
        const int from = problem_.first[i] + a, to = problem_.first[i] + b;
        return std::any_of(problem_.observations.begin(), problem_.observations.end(), [&](const Observation& o) {
            return o.kind == Observation::Distance && o.reading >= 0 &&
                   std::minmax(o.points[0], o.points[1]) == std::minmax(from, to);
        });
    }

    const std::vector<TiedSurface>& surfaces_;
    const FoldProblem& problem_;
    const std::vector<VanSuspect>& suspects_;
    const std::vector<std::vector<VanPoint>>& without_;
    std::optional<DecidingLength> best_;
    double most_ = 4 * kTapeMm; ///< less would not tell
};

/// Which readings would explain what does not close.
void findSuspects(const std::vector<TiedSurface>& surfaces, const FoldProblem& problem, Adjustment& adjustment,
                  const std::vector<VanPoint>& points, FoldUp& fold) {
    const auto& all = problem.observations;
    const auto off = [&](const Observation& o, const std::vector<VanPoint>& at) {
        return misfit(o, at, problem.bends)[0];
    };
    // Nothing to look for where every tape is met to half as much again as it is good to.
    const bool calm = std::all_of(all.begin(), all.end(), [&](const Observation& o) {
        return o.reading < 0 || std::abs(off(o, points)) < 0.6 * o.error;
    });
    if (calm) return;
    const std::vector<double> shares = adjustment.shares(points);
    struct Trial {
        int reading{};
        const Observation* rests{}; ///< the equation that tells most of it
        double share{}, stands{}, left{}, weight{};
        VanSuspect suspect;
        std::vector<VanPoint> without{};
    };
    std::vector<Trial> trials(problem.readings.size());
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Observation& o = all[i];
        if (o.reading < 0 || shares[i] < 1e-3) continue;
        Trial& t = trials[at(o.reading)];
        const double stands = std::abs(off(o, points)) / o.error / std::sqrt(shares[i]);
        if (t.rests && t.stands >= stands) continue;
        const FoldReading& r = problem.readings[at(o.reading)];
        t = {o.reading, &o, shares[i], stands, 0, 0, {surfaces[at(r.surface)].surface->id, r.key, {}, {}, 0}};
    }
    std::erase_if(trials, [](const Trial& t) { return !t.rests; });
    const int readings = static_cast<int>(problem.readings.size());
    std::stable_sort(trials.begin(), trials.end(), [](const Trial& a, const Trial& b) { return a.stands > b.stands; });
    if (trials.empty() || trials.front().stands < kStandsOut) return;
    const double worst = trials.front().stands * trials.front().stands;
    // Without a reading the sum of squares falls by the square of its standing, as far as equations are straight.
    std::erase_if(trials, [&](const Trial& t) {
        return t.stands * t.stands < worst - 3 * kOutOfTest && t.stands * t.stands < worst / 2;
    });
    if (trials.size() > kMostTried) trials.resize(kMostTried);
    double least = 1e300;
    for (Trial& t : trials) {
        const Observation& o = *t.rests;
        t.without = adjustment.run(points, t.reading);
        t.left = adjustment.cost(t.without, t.reading);
        least = std::min(least, t.left);
        const FoldReading& r = problem.readings[at(t.reading)];
        const double slip = off(o, t.without) * r.sign;
        t.suspect.reads = {r.reads};
        t.suspect.implied = {r.reads - slip};
        t.weight = -t.left / 2 - 2 * std::log(std::max(1.0, std::abs(slip) / kUsualSlipMm)) +
                   std::log(std::min(o.error / std::sqrt(t.share), kUsualSlipMm / 2));
    }
    std::erase_if(trials, [&](const Trial& t) { return t.left > least + kOutOfTest; });
    std::stable_sort(trials.begin(), trials.end(), [](const Trial& a, const Trial& b) { return a.weight > b.weight; });
    double sum = 0;
    for (const Trial& t : trials) sum += std::exp(t.weight - trials.front().weight);
    fold.proved = trials.size() == 1;
    // What is left should be about as much as there are equations more than unknowns; shapes are not flat, so be
    // generous.
    fold.several = least > 3 * readings + 30;
    if (fold.several) fold.proved = false;
    for (Trial& t : trials) {
        t.suspect.chance = std::exp(t.weight - trials.front().weight) / sum;
        fold.suspects.push_back(t.suspect);
    }
    if (fold.proved || fold.several) return;
    std::vector<std::vector<VanPoint>> without;
    for (Trial& t : trials)
        if (without.size() < kMostNamed) without.push_back(std::move(t.without));
    fold.decides = Deciding(surfaces, problem, fold.suspects, without).find();
}

/// The other way, of a surface that is bent both ways.
std::vector<ProfilePart> sidewaysOf(const Surface& s) {
    const CurveReadings& c = s.measurement.curve;
    if (c.curving != Curving::Double || !c.alongChord || c.alongChord->length.value <= 0) return {};
    return {{c.alongChord->length.value, c.alongRise ? std::max(0.0, c.alongRise->length.value) : 0}};
}

/// From the middle of a side into the surface, square to the side.
VanPoint intoFrom(const TiedSurface& t, const Pose& pose, int side) {
    const Ring& line = t.measured->sides[at(side)];
    const Point middle = (line.front() + line.back()) * 0.5;
    return unit(cross(pose.facing(middle), pose.map(line.back()) - pose.map(line.front())));
}

/// Three corners that its plane goes through.
std::array<int, 3> cornersAbout(const FoldProblem& problem, int surface, const TiedSurface& t) {
    const int first = problem.first[at(surface)];
    return {first, first + 1, first + static_cast<int>(t.measured->sides.size()) - 1};
}

double hingeAngle(const TiedSurface& mine, const Pose& pose, int side, const TiedSurface& theirs, const Pose& other,
                  int otherSide) {
    const Ring& line = mine.measured->sides[at(side)];
    const VanPoint in = intoFrom(mine, pose, side), on = intoFrom(theirs, other, otherSide);
    const double angle = std::acos(std::clamp(dot(in, on), -1.0, 1.0));
    const bool intoTheRoom = dot(on, pose.facing((line.front() + line.back()) * 0.5)) < 0;
    return intoTheRoom ? 2 * std::numbers::pi - angle : angle;
}

/// How sure an upright surface's lean is.
double leanError(const TiedSurface& t, const FoldProblem& problem, int first, Adjustment& adjustment,
                 const std::vector<VanPoint>& points) {
    const int n = static_cast<int>(t.measured->sides.size());
    Observation lean;
    lean.kind = Observation::Plumb;
    lean.points = {first, first + n - 1, first + 1};
    const double high = std::max(1.0, length(points[at(first + n - 1)] - points[at(first)]));
    return adjustment.errorOf(lean.points, points, [&](const std::vector<VanPoint>& p) {
        return misfit(lean, p, problem.bends)[0];
    }) / high;
}

/// How sure the angle of two surfaces is: of the planes through their corners, about the first one's side.
double hingeError(const std::array<int, 3>& mine, const std::array<int, 3>& theirs, VanPoint hinge,
                  Adjustment& adjustment, const std::vector<VanPoint>& points) {
    std::vector<int> about{mine.begin(), mine.end()};
    about.insert(about.end(), theirs.begin(), theirs.end());
    return adjustment.errorOf(about, points, [&](const std::vector<VanPoint>& p) {
        const auto normal = [&](const std::array<int, 3>& c) {
            return unit(cross(p[at(c[1])] - p[at(c[0])], p[at(c[2])] - p[at(c[0])]));
        };
        const VanPoint a = normal(mine), b = normal(theirs);
        return std::atan2(dot(cross(a, b), hinge), dot(a, b));
    });
}

/// The corners in which surfaces meet, and the angles at which.
void tellCorners(const std::vector<TiedSurface>& surfaces, const FoldProblem& problem, Adjustment& adjustment,
                 const std::vector<VanPoint>& points, FoldUp& fold) {
    for (const Observation& o : problem.observations) {
        if (o.kind != Observation::Meet) continue;
        const TiedSurface& mine = surfaces[at(o.surface)];
        const std::string& otherId = mine.surface->edge(o.sides[0]).surface;
        const VanPoint a = points[at(o.points[0])], b = points[at(o.points[1])];
        fold.corners.push_back(
            {mine.surface->id, otherId, o.sides[0], o.sides[1], o.atStart, (a + b) * 0.5, b - a, Mm{length(b - a)}});
        if (!o.atStart) continue;
        const auto other = std::find_if(surfaces.begin(), surfaces.end(),
                                        [&](const TiedSurface& t) { return t.surface->id == otherId; });
        const double angle = hingeAngle(mine, *fold.poses[at(o.surface)], o.sides[0], *other,
                                        *fold.poses[static_cast<std::size_t>(other - surfaces.begin())], o.sides[1]);
        const int place = static_cast<int>(other - surfaces.begin()), first = problem.first[at(o.surface)];
        const VanPoint hinge =
            unit(points[at(first + (o.sides[0] + 1) % static_cast<int>(mine.measured->sides.size()))] -
                 points[at(first + o.sides[0])]);
        const double error = hingeError(cornersAbout(problem, o.surface, mine), cornersAbout(problem, place, *other),
                                        hinge, adjustment, points);
        fold.hinges.push_back({mine.surface->id, otherId, o.sides[0], o.sides[1], angle, error});
    }
}

} // namespace

FoldUp foldUp(const std::vector<TiedSurface>& surfaces, const Headroom& headroom, bool symmetric) {
    FoldUp fold;
    fold.poses.resize(surfaces.size());
    const auto problem = foldProblem(surfaces, headroom, symmetric);
    if (!problem) return fold;
    int floorCorners = 0;
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (problem->first[i] == problem->fixed) floorCorners = static_cast<int>(surfaces[i].measured->sides.size());
    const Unknowns unknowns(*problem, floorCorners);
    Adjustment adjustment(*problem, unknowns);
    const std::vector<VanPoint> points = adjustment.run(problem->start);
    for (std::size_t i = 0; i < surfaces.size(); ++i) {
        if (problem->first[i] < 0) continue;
        const auto begin = points.begin() + problem->first[i];
        const int bend = problem->bendOf[i];
        fold.poses[i] = poseOf(*surfaces[i].measured,
                               {begin, begin + static_cast<std::ptrdiff_t>(surfaces[i].measured->sides.size())},
                               bend < 0 ? std::vector<ProfilePart>{} : problem->bends[at(bend)].profile(points),
                               sidewaysOf(*surfaces[i].surface));
    }
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (fold.poses[i] && !liesLevel(surfaces[i].surface->kind))
            fold.poses[i]->leanErrorRad = leanError(surfaces[i], *problem, problem->first[i], adjustment, points);
    // The floor is the frame: its own coordinates are the van's.
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (problem->first[i] == problem->fixed) {
            Pose& floor = *fold.poses[i];
            floor.origin = {};
            floor.perX = {1, 0, 0};
            floor.perY = {0, 1, 0};
            floor.inwards = {0, 0, 1};
        }
    tellCorners(surfaces, *problem, adjustment, points, fold);
    std::stable_sort(fold.corners.begin(), fold.corners.end(),
                     [](const TiedCorner& a, const TiedCorner& b) { return a.gap > b.gap; });
    findSuspects(surfaces, *problem, adjustment, points, fold);
    return fold;
}

} // namespace westrum
