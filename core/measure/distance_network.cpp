#include "core/measure/distance_network.h"

#include "core/measure/embeddings.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cassert>
#include <cmath>
#include <numeric>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// Unknowns: x of corner 1, then x and y of each further corner. -1: held fixed.
int unknownX(int corner) { return corner == 0 ? -1 : corner == 1 ? 0 : 2 * corner - 3; }
int unknownY(int corner) { return corner < 2 ? -1 : 2 * corner - 2; }

struct Linear {
    Eigen::MatrixXd design;
    Eigen::VectorXd misfit;
};

Linear linearised(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings) {
    const auto unknowns = static_cast<Eigen::Index>(2 * corners.size() - 3);
    const auto rows = static_cast<Eigen::Index>(readings.size());
    Linear l{Eigen::MatrixXd::Zero(rows, unknowns), Eigen::VectorXd(rows)};
    for (Eigen::Index r = 0; r < rows; ++r) {
        const CornerDistance& reading = readings[static_cast<std::size_t>(r)];
        const Point a = corners[at(reading.from)], b = corners[at(reading.to)];
        const double d = std::max(1e-9, distance(a, b));
        l.misfit(r) = reading.mm - d;
        const Point u = (b - a) * (1 / d);
        const auto put = [&](int column, double value) {
            if (column >= 0) l.design(r, column) += value;
        };
        put(unknownX(reading.to), u.x);
        put(unknownY(reading.to), u.y);
        put(unknownX(reading.from), -u.x);
        put(unknownY(reading.from), -u.y);
    }
    return l;
}

std::vector<CornerDistance> without(std::vector<CornerDistance> readings, std::size_t left) {
    readings.erase(readings.begin() + static_cast<std::ptrdiff_t>(left));
    return readings;
}

/// Worse than all readings by a tape's error, in its squares, before anything else is said to have happened: a chance
/// of about 1 in 3000.
constexpr double kSurprise = 16;

/// How badly the readings bear a shape, in squares of the tape's error: as they are, or with one of them wrong.
double badness(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings, bool oneWrong) {
    double least = sumOfSquares(corners, readings) / (kTapeMm * kTapeMm);
    for (std::size_t r = 0; r < readings.size() && oneWrong && least > kSurprise; ++r) {
        const std::vector<CornerDistance> others = without(readings, r);
        least = std::min(least, kSurprise + sumOfSquares(adjustCorners(corners, others), others) / (kTapeMm * kTapeMm));
    }
    return least;
}

double turnAt(const std::vector<Point>& c, std::size_t k) {
    const std::size_t n = c.size();
    return cross(c[k] - c[(k + n - 1) % n], c[(k + 1) % n] - c[k]);
}

/// A shape that the readings allow, and how well.
struct Candidate {
    std::vector<Point> corners;
    bool inside{};
    double badness{};
    int inwards{};
};

/// All distinct shapes, the one that the readings bear best first.
std::vector<Candidate> candidatesOf(const Embeddings& embeddings, const std::vector<CornerDistance>& readings,
                                    bool checked) {
    constexpr std::size_t most = 40, tried = 6; // as many shapes are adjusted, and tried without each reading
    constexpr double alikeMm = 20;
    std::vector<Candidate> all;
    for (const Embedding& e : embeddings.found) {
        if (all.size() >= most) break;
        Candidate c{checked ? adjustCorners(e.corners, readings) : e.corners, e.diagonalsInside, 0, 0};
        if (crossesItself(c.corners) || signedArea(c.corners) <= 0) continue;
        const bool known = std::any_of(all.begin(), all.end(), [&](const Candidate& other) {
            double furthest = 0;
            for (std::size_t k = 0; k < c.corners.size(); ++k)
                furthest = std::max(furthest, distance(c.corners[k], other.corners[k]));
            return furthest < alikeMm;
        });
        if (known) continue;
        for (std::size_t k = 0; k < c.corners.size(); ++k) c.inwards += turnAt(c.corners, k) < 0;
        c.badness = badness(c.corners, readings, false);
        all.push_back(std::move(c));
    }
    const auto better = [](const Candidate& a, const Candidate& b) {
        if (a.inside != b.inside) return a.inside;
        if (std::abs(a.badness - b.badness) > kSurprise / 4) return a.badness < b.badness;
        return a.inwards < b.inwards;
    };
    const auto best = [&] { // no strict order: the best one forward, the rest as they come
        for (std::size_t k = 1; k < all.size(); ++k)
            if (better(all[k], all[0])) std::swap(all[0], all[k]);
    };
    std::stable_sort(all.begin(), all.end(), [](const Candidate& a, const Candidate& b) {
        return a.inside != b.inside ? a.inside : a.badness < b.badness;
    });
    for (std::size_t k = 0; k < std::min(tried, all.size()) && all.size() > 1; ++k)
        all[k].badness = badness(all[k].corners, readings, true);
    best();
    return all;
}

} // namespace

std::vector<Point> adjustCorners(std::vector<Point> corners, const std::vector<CornerDistance>& readings,
                                 std::vector<double>* shares) {
    double damping = 1e-3;
    double now = sumOfSquares(corners, readings);
    for (int round = 0; round < 500; ++round) {
        const Linear l = linearised(corners, readings);
        Eigen::MatrixXd normal = l.design.transpose() * l.design;
        normal.diagonal().array() += damping;
        const Eigen::VectorXd step = normal.ldlt().solve(l.design.transpose() * l.misfit);
        std::vector<Point> next = corners;
        for (int k = 1; k < static_cast<int>(next.size()); ++k) {
            next[at(k)].x += step(unknownX(k));
            if (k > 1) next[at(k)].y += step(unknownY(k));
        }
        const double then = sumOfSquares(next, readings);
        if (!(then <= now)) {
            damping *= 10;
            if (damping > 1e12) break;
            continue;
        }
        corners = std::move(next);
        now = then;
        damping = std::max(damping / 10, 1e-12);
        if (step.lpNorm<Eigen::Infinity>() < 1e-10) break;
    }
    if (shares) {
        const Linear l = linearised(corners, readings);
        Eigen::MatrixXd normal = l.design.transpose() * l.design;
        normal.diagonal().array() += 1e-12;
        const Eigen::MatrixXd hat = l.design * normal.ldlt().solve(l.design.transpose());
        shares->clear();
        for (Eigen::Index r = 0; r < hat.rows(); ++r) shares->push_back(std::clamp(1 - hat(r, r), 0.0, 1.0));
    }
    return corners;
}

double sumOfSquares(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings) {
    double sum = 0;
    for (const CornerDistance& r : readings) {
        const double e = r.mm - distance(corners[at(r.from)], corners[at(r.to)]);
        sum += e * e;
    }
    return sum;
}

NetworkFit fitNetwork(int corners, const std::vector<CornerDistance>& readings, const std::vector<CornerTurn>& turns) {
    assert(corners >= 3);
    NetworkFit fit;
    const Embeddings embeddings = embeddingsOf(corners, readings, turns);
    fit.state = embeddings.state;
    fit.at = embeddings.at;
    if (fit.state != NetworkState::Solved) return fit;
    fit.spareReadings = static_cast<int>(readings.size()) - (2 * corners - 3);
    const std::vector<Candidate> candidates = candidatesOf(embeddings, readings, fit.spareReadings > 0);
    if (candidates.empty()) {
        fit.state = NetworkState::Crosses;
        return fit;
    }
    const Candidate& best = candidates.front();
    fit.corners = best.corners;
    for (std::size_t c = 1; c < candidates.size() && fit.otherwise.empty(); ++c) {
        const Candidate& other = candidates[c];
        if (other.inside != best.inside || other.badness > best.badness + kSurprise) continue;
        fit.otherwise = other.corners;
        for (std::size_t k = 0; k < at(corners) && fit.turnsEitherWay < 0; ++k)
            if (turnAt(best.corners, k) * turnAt(other.corners, k) < 0) fit.turnsEitherWay = static_cast<int>(k);
    }
    fit.residual.assign(readings.size(), 0);
    fit.misclosure.assign(readings.size(), std::nullopt);
    if (fit.spareReadings <= 0) return fit;
    std::vector<double> shares;
    fit.corners = adjustCorners(fit.corners, readings, &shares);
    for (std::size_t r = 0; r < readings.size(); ++r) {
        fit.residual[r] = readings[r].mm - distance(fit.corners[at(readings[r].from)], fit.corners[at(readings[r].to)]);
        if (shares[r] < 1e-6) continue; // nothing else checks it
        // What the others imply: the fit without this reading.
        const std::vector<Point> others = adjustCorners(fit.corners, without(readings, r));
        fit.misclosure[r] = readings[r].mm - distance(others[at(readings[r].from)], others[at(readings[r].to)]);
    }
    return fit;
}

} // namespace westrum
