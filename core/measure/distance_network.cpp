#include "core/measure/distance_network.h"

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

double sumOfSquares(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings) {
    double sum = 0;
    for (const CornerDistance& r : readings) {
        const double e = r.mm - distance(corners[at(r.from)], corners[at(r.to)]);
        sum += e * e;
    }
    return sum;
}

/// Places the corners one after the other; `fit` says what stopped it.
void placeByTriangles(int corners, const std::vector<CornerDistance>& readings, NetworkFit& fit) {
    const auto between = [&](int a, int b) {
        for (std::size_t r = 0; r < readings.size(); ++r)
            if ((readings[r].from == a && readings[r].to == b) || (readings[r].from == b && readings[r].to == a))
                return static_cast<int>(r);
        return -1;
    };
    std::vector<bool> stands(at(corners), false);
    fit.corners.assign(at(corners), {});
    const int base = between(0, 1);
    if (base < 0) {
        fit.state = NetworkState::Undetermined;
        fit.at = 1;
        return;
    }
    fit.corners[1] = {readings[at(base)].mm, 0};
    stands[0] = stands[1] = true;
    for (int placed = 2; placed < corners; ++placed) {
        int best = -1, bestA = -1, bestB = -1;
        double bestMeeting = -1; // the tapes that meet most squarely carry the least error on
        for (int k = 0; k < corners; ++k) {
            if (stands[at(k)]) continue;
            for (int a = 0; a < corners; ++a)
                for (int b = a + 1; b < corners; ++b) {
                    if (!stands[at(a)] || !stands[at(b)]) continue;
                    const int ra = between(a, k), rb = between(b, k);
                    if (ra < 0 || rb < 0) continue;
                    const double p = readings[at(ra)].mm, q = readings[at(rb)].mm;
                    const double base2 = distance(fit.corners[at(a)], fit.corners[at(b)]);
                    const double cosine = (p * p + q * q - base2 * base2) / (2 * p * q);
                    const double meeting = 1 - std::min(1.0, std::abs(cosine));
                    if (meeting > bestMeeting || best < 0) {
                        best = k;
                        bestA = a;
                        bestB = b;
                        bestMeeting = meeting;
                    }
                }
        }
        if (best < 0) {
            fit.state = NetworkState::Undetermined;
            fit.at = static_cast<int>(std::find(stands.begin(), stands.end(), false) - stands.begin());
            return;
        }
        const Point a = fit.corners[at(bestA)], b = fit.corners[at(bestB)];
        const int ra = between(bestA, best), rb = between(bestB, best);
        const double p = readings[at(ra)].mm, q = readings[at(rb)].mm, d = distance(a, b);
        if (d > p + q || p > d + q || q > d + p) {
            fit.state = NetworkState::CannotClose;
            fit.at = d > p + q ? between(bestA, bestB) : p > q ? ra : rb;
            if (fit.at < 0) fit.at = ra;
            return;
        }
        const double along = (p * p - q * q + d * d) / (2 * d);
        const double height = std::sqrt(std::max(0.0, p * p - along * along));
        const Point u = (b - a) * (1 / d);
        // Going round counter-clockwise a, b, k: k lies to the left of a->b, unless it comes between them.
        const double side = best > bestA && best < bestB ? -1 : 1;
        fit.corners[at(best)] = a + u * along + Point{-u.y, u.x} * (side * height);
        stands[at(best)] = true;
    }
    fit.state = NetworkState::Solved;
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

NetworkFit fitNetwork(int corners, const std::vector<CornerDistance>& readings) {
    assert(corners >= 3);
    NetworkFit fit;
    placeByTriangles(corners, readings, fit);
    if (fit.state != NetworkState::Solved) return fit;
    fit.residual.assign(readings.size(), 0);
    fit.misclosure.assign(readings.size(), std::nullopt);
    fit.spareReadings = static_cast<int>(readings.size()) - (2 * corners - 3);
    if (fit.spareReadings <= 0) return fit;

    std::vector<double> shares;
    fit.corners = adjustCorners(fit.corners, readings, &shares);
    std::vector<double> standing(readings.size(), 0);
    for (std::size_t r = 0; r < readings.size(); ++r) {
        fit.residual[r] = readings[r].mm - distance(fit.corners[at(readings[r].from)], fit.corners[at(readings[r].to)]);
        if (shares[r] < 1e-6) continue; // nothing else checks it
        standing[r] = std::abs(fit.residual[r]) / std::sqrt(shares[r]);
        // What the others imply: the fit without this reading.
        std::vector<CornerDistance> others = readings;
        others.erase(others.begin() + static_cast<std::ptrdiff_t>(r));
        const std::vector<Point> without = adjustCorners(fit.corners, others);
        fit.misclosure[r] = readings[r].mm - distance(without[at(readings[r].from)], without[at(readings[r].to)]);
    }
    // Of those that stand out alike the one that need be wrong by least: a small slip is likelier than a large one.
    const double alike = 0.9 * *std::max_element(standing.begin(), standing.end());
    int several = 0;
    for (std::size_t r = 0; r < standing.size(); ++r) {
        if (standing[r] < alike || !fit.misclosure[r]) continue;
        ++several;
        if (fit.likeliest < 0 ||
            std::abs(*fit.misclosure[r]) < std::abs(*fit.misclosure[static_cast<std::size_t>(fit.likeliest)]))
            fit.likeliest = static_cast<int>(r);
    }
    fit.likeliest = std::max(fit.likeliest, 0);
    fit.oneOfSeveral = several > 1;
    return fit;
}

} // namespace westrum
