#include "core/shell/fold_up.h"

#include "core/measure/slips.h"
#include "core/shell/fold_observations.h"

#include <Eigen/Dense>
#include <Eigen/Sparse>

#include <algorithm>
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
        : observations_(problem.observations), unknowns_(unknowns) {}

    /// From these points to the best ones. @param left  place of an observation that is left out; -1: none
    std::vector<VanPoint> run(std::vector<VanPoint> points, int left = -1) {
        double damping = 1e-6, now = cost(points, left);
        for (int round = 0; round < 60; ++round) {
            linearise(points, left);
            Eigen::VectorXd step;
            std::vector<VanPoint> next;
            double then = 0;
            for (;;) {
                Sparse damped = normal_;
                for (int i = 0; i < damped.rows(); ++i) damped.coeffRef(i, i) += damping;
                if (!known_) solver_.analyzePattern(damped);
                known_ = true;
                solver_.factorize(damped);
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
        for (int i = 0; i < static_cast<int>(observations_.size()); ++i) {
            if (i == left) continue;
            const Observation& o = observations_[at(i)];
            for (const double m : misfit(o, points)) sum += m * m / (o.error * o.error);
        }
        return sum;
    }

    /// The share of an error of its own that stays in the residual of each distance that is a reading; 1 elsewhere.
    std::vector<double> shares(const std::vector<VanPoint>& points) {
        linearise(points, -1);
        Sparse damped = normal_;
        for (int i = 0; i < damped.rows(); ++i) damped.coeffRef(i, i) += 1e-9;
        if (!known_) solver_.analyzePattern(damped);
        known_ = true;
        solver_.factorize(damped);
        std::vector<double> shares(observations_.size(), 1);
        for (std::size_t i = 0; i < observations_.size(); ++i) {
            const Observation& o = observations_[i];
            if (o.kind != Observation::Distance || o.key.empty()) continue;
            Eigen::VectorXd row = Eigen::VectorXd::Zero(unknowns_.count());
            VanPoint u = points[at(o.points[1])] - points[at(o.points[0])];
            u = u * (1 / std::max(1e-9, length(u)));
            for (std::size_t c = 0; c < 3; ++c) {
                if (const int k = unknowns_.of(o.points[1], c); k >= 0) row(k) += part(u, c) / o.error;
                if (const int k = unknowns_.of(o.points[0], c); k >= 0) row(k) -= part(u, c) / o.error;
            }
            const Eigen::VectorXd through = solver_.solve(row);
            shares[i] = std::clamp(1 - row.dot(through), 0.0, 1.0);
        }
        return shares;
    }

private:
    /// Normal equations at these points; derivatives by differences, each equation touches few coordinates.
    void linearise(std::vector<VanPoint> points, int left) {
        std::vector<Eigen::Triplet<double>> entries;
        right_ = Eigen::VectorXd::Zero(unknowns_.count());
        constexpr double h = 1e-3;
        for (int i = 0; i < static_cast<int>(observations_.size()); ++i) {
            const Observation& o = observations_[at(i)];
            const double weight = i == left ? 0 : 1 / (o.error * o.error);
            const int rows = o.kind == Observation::Meet ? 3 : 1;
            const std::array<double, 3> off = misfit(o, points);
            std::array<std::pair<int, std::array<double, 3>>, 12> slopes;
            std::size_t count = 0;
            for (int k = 0; k < pointsOf(o.kind); ++k)
                for (std::size_t c = 0; c < 3; ++c) {
                    const int index = unknowns_.of(o.points[at(k)], c);
                    if (index < 0) continue;
                    double& value = part(points[at(o.points[at(k)])], c);
                    const double kept = value;
                    value = kept + h;
                    const auto up = misfit(o, points);
                    value = kept - h;
                    const auto down = misfit(o, points);
                    value = kept;
                    std::array<double, 3> slope{};
                    for (std::size_t r = 0; r < 3; ++r) slope[r] = (down[r] - up[r]) / (2 * h); // of the fitted figure
                    slopes[count++] = {index, slope};
                }
            for (std::size_t a = 0; a < count; ++a) {
                double rhs = 0;
                for (int r = 0; r < rows; ++r) rhs += slopes[a].second[at(r)] * off[at(r)];
                right_(slopes[a].first) += weight * rhs;
                for (std::size_t b = 0; b < count; ++b) {
                    double product = 0;
                    for (int r = 0; r < rows; ++r) product += slopes[a].second[at(r)] * slopes[b].second[at(r)];
                    entries.emplace_back(slopes[a].first, slopes[b].first, weight * product);
                }
            }
        }
        normal_.resize(unknowns_.count(), unknowns_.count());
        normal_.setFromTriplets(entries.begin(), entries.end());
    }

    const std::vector<Observation>& observations_;
    const Unknowns& unknowns_;
    Sparse normal_;
    Eigen::VectorXd right_;
    Eigen::SimplicialLDLT<Sparse> solver_;
    bool known_ = false;
};

/// Which readings would explain what does not close.
void findSuspects(const std::vector<TiedSurface>& surfaces, const FoldProblem& problem, Adjustment& adjustment,
                  const std::vector<VanPoint>& points, FoldUp& fold) {
    const auto& all = problem.observations;
    // Nothing to look for where every tape is met to half as much again as it is good to.
    const bool calm = std::all_of(all.begin(), all.end(), [&](const Observation& o) {
        return o.kind != Observation::Distance || std::abs(misfit(o, points)[0]) < 0.6 * o.error;
    });
    if (calm) return;
    const std::vector<double> shares = adjustment.shares(points);
    struct Trial {
        int observation{};
        double stands{}, left{}, weight{};
        VanSuspect suspect;
    };
    std::vector<Trial> trials;
    int readings = 0;
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Observation& o = all[at(i)];
        if (o.kind != Observation::Distance || o.key.empty()) continue;
        ++readings;
        if (shares[at(i)] < 1e-3) continue;
        const double stands = std::abs(misfit(o, points)[0]) / o.error / std::sqrt(shares[at(i)]);
        trials.push_back({i, stands, 0, 0, {surfaces[at(o.surface)].surface->id, o.key, {}, {}, 0}});
    }
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
        const Observation& o = all[at(t.observation)];
        const std::vector<VanPoint> without = adjustment.run(points, t.observation);
        t.left = adjustment.cost(without, t.observation);
        least = std::min(least, t.left);
        // A bent surface's tape differs from its chord by what they differ by now.
        const double slip = misfit(o, without)[0];
        const MaybeReading* read = findReading(*surfaces[at(o.surface)].surface, o.key);
        const double reads = read && *read ? (*read)->length.value : o.value;
        t.suspect.reads = {reads};
        t.suspect.implied = {reads - slip};
        t.weight = -t.left / 2 - 2 * std::log(std::max(1.0, std::abs(slip) / kUsualSlipMm)) +
                   std::log(std::min(o.error / std::sqrt(shares[at(t.observation)]), kUsualSlipMm / 2));
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
}

Pose poseOf(const TiedSurface& t, std::vector<VanPoint> corners) {
    Pose pose;
    // The plane's own axes from the surface's coordinates by least squares: x along what its x does.
    const std::size_t n = corners.size();
    Point middle;
    VanPoint centre;
    for (std::size_t k = 0; k < n; ++k) {
        middle = middle + t.measured->sides[k].front() * (1.0 / static_cast<double>(n));
        centre = centre + corners[k] * (1.0 / static_cast<double>(n));
    }
    Eigen::Matrix3d between = Eigen::Matrix3d::Zero();
    for (std::size_t k = 0; k < n; ++k) {
        const Point own = t.measured->sides[k].front() - middle;
        const VanPoint v = corners[k] - centre;
        between += Eigen::Vector3d(v.x, v.y, v.z) * Eigen::RowVector3d(own.x, own.y, 0);
    }
    const Eigen::JacobiSVD<Eigen::Matrix3d> svd(between, Eigen::ComputeFullU | Eigen::ComputeFullV);
    Eigen::Matrix3d turn = svd.matrixU() * svd.matrixV().transpose();
    if (turn.determinant() < 0) {
        Eigen::Matrix3d u = svd.matrixU();
        u.col(2) *= -1;
        turn = u * svd.matrixV().transpose();
    }
    const auto axis = [&](int c) { return VanPoint{turn(0, c), turn(1, c), turn(2, c)}; };
    pose.perX = axis(0);
    pose.perY = axis(1);
    pose.inwards = axis(2);
    pose.origin = centre - pose.perX * middle.x - pose.perY * middle.y;
    pose.corners = std::move(corners);
    return pose;
}

} // namespace

double dot(VanPoint a, VanPoint b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
VanPoint cross(VanPoint a, VanPoint b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
double length(VanPoint a) { return std::sqrt(dot(a, a)); }

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
        fold.poses[i] =
            poseOf(surfaces[i], {begin, begin + static_cast<std::ptrdiff_t>(surfaces[i].measured->sides.size())});
    }
    // The floor is the frame: its own coordinates are the van's.
    for (std::size_t i = 0; i < surfaces.size(); ++i)
        if (problem->first[i] == problem->fixed) {
            Pose& floor = *fold.poses[i];
            floor.origin = {};
            floor.perX = {1, 0, 0};
            floor.perY = {0, 1, 0};
            floor.inwards = {0, 0, 1};
        }
    for (const Observation& o : problem->observations) {
        if (o.kind != Observation::Meet) continue;
        const Surface& s = *surfaces[at(o.surface)].surface;
        const VanPoint a = points[at(o.points[0])], b = points[at(o.points[1])];
        fold.corners.push_back({s.id, s.edge(o.points[2]).surface, o.points[2], o.points[3], o.value > 0, (a + b) * 0.5,
                                b - a, Mm{length(b - a)}});
        if (o.value <= 0) continue;
        const auto other = std::find_if(surfaces.begin(), surfaces.end(), [&](const TiedSurface& t) {
            return t.surface->id == s.edge(o.points[2]).surface;
        });
        const Pose &mine = *fold.poses[at(o.surface)],
                   &theirs = *fold.poses[static_cast<std::size_t>(other - surfaces.begin())];
        const double angle = std::acos(std::clamp(-dot(mine.inwards, theirs.inwards), -1.0, 1.0));
        fold.hinges.push_back({s.id, other->surface->id, o.points[2], o.points[3], angle});
    }
    std::stable_sort(fold.corners.begin(), fold.corners.end(),
                     [](const TiedCorner& a, const TiedCorner& b) { return a.gap > b.gap; });
    findSuspects(surfaces, *problem, adjustment, points, fold);
    return fold;
}

} // namespace westrum
