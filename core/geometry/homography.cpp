#include "core/geometry/homography.h"

#include <Eigen/Dense>

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

/// A triangle of marks that is lower than this share of its longest side is a line.
constexpr double kLeastHeight = 0.02;
/// No part of the thing is seen this many times smaller than another.
constexpr double kNearHorizon = 0.02;

/// Moves points to their middle and scales them to a mean distance of root 2: the equations are then well conditioned.
Eigen::Matrix3d normaliser(const std::vector<Point>& points) {
    Point middle;
    for (Point p : points) middle = middle + p * (1.0 / static_cast<double>(points.size()));
    double mean = 0;
    for (Point p : points) mean += distance(p, middle) / static_cast<double>(points.size());
    const double s = mean > 0 ? std::sqrt(2.0) / mean : 1;
    Eigen::Matrix3d t;
    t << s, 0, -s * middle.x, 0, s, -s * middle.y, 0, 0, 1;
    return t;
}

Homography toHomography(const Eigen::Matrix3d& h) {
    Homography out;
    for (int r = 0; r < 3; ++r)
        for (int c = 0; c < 3; ++c)
            out.m[static_cast<std::size_t>(3) * static_cast<std::size_t>(r) + static_cast<std::size_t>(c)] = h(r, c);
    return out;
}

Eigen::Matrix3d toMatrix(const Homography& h) {
    Eigen::Matrix3d m;
    for (int r = 0; r < 3; ++r)
        for (int c = 0; c < 3; ++c)
            m(r, c) = h.m[static_cast<std::size_t>(3) * static_cast<std::size_t>(r) + static_cast<std::size_t>(c)];
    return m;
}

} // namespace

std::optional<Point> Homography::map(Point p) const {
    const double w = m[6] * p.x + m[7] * p.y + m[8];
    if (std::abs(w) < 1e-12) return std::nullopt;
    const Point q{(m[0] * p.x + m[1] * p.y + m[2]) / w, (m[3] * p.x + m[4] * p.y + m[5]) / w};
    if (!std::isfinite(q.x) || !std::isfinite(q.y)) return std::nullopt;
    return q;
}

std::optional<Homography> Homography::inverse() const {
    const Eigen::Matrix3d h = toMatrix(*this);
    if (std::abs(h.determinant()) < 1e-18) return std::nullopt;
    return toHomography(h.inverse());
}

std::optional<Homography> homographyOf(const std::vector<PointPair>& pairs) {
    if (pairs.size() < 4) return std::nullopt;
    std::vector<Point> from, to;
    for (const PointPair& p : pairs) {
        from.push_back(p.from);
        to.push_back(p.to);
    }
    if (pairs.size() == 4) {
        // Three of four nearly on one line say nothing across it; and every three must go round the same way in both,
        // or all of them the other way: else the points were named in crossed order.
        double way = 0;
        for (std::size_t leave = 0; leave < 4; ++leave) {
            std::array<double, 2> turn{};
            for (std::size_t set = 0; set < 2; ++set) {
                const auto& points = set == 0 ? from : to;
                const Point a = points[(leave + 1) % 4], b = points[(leave + 2) % 4], c = points[(leave + 3) % 4];
                const double longest = std::max({distance(a, b), distance(b, c), distance(c, a)});
                turn[set] = cross(b - a, c - a);
                if (!(std::abs(turn[set]) > kLeastHeight * longest * longest)) return std::nullopt;
            }
            const double together = turn[0] * turn[1];
            if (way != 0 && (together > 0) != (way > 0)) return std::nullopt;
            way = together;
        }
    }
    const Eigen::Matrix3d nf = normaliser(from), nt = normaliser(to);
    Eigen::MatrixXd a(2 * static_cast<Eigen::Index>(pairs.size()), 9);
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        const Eigen::Vector3d p = nf * Eigen::Vector3d(from[i].x, from[i].y, 1),
                              q = nt * Eigen::Vector3d(to[i].x, to[i].y, 1);
        const auto row = 2 * static_cast<Eigen::Index>(i);
        a.row(row) << p(0), p(1), 1, 0, 0, 0, -q(0) * p(0), -q(0) * p(1), -q(0);
        a.row(row + 1) << 0, 0, 0, p(0), p(1), 1, -q(1) * p(0), -q(1) * p(1), -q(1);
    }
    const Eigen::JacobiSVD<Eigen::MatrixXd> svd(a, Eigen::ComputeFullV);
    const Eigen::VectorXd v = svd.matrixV().col(8);
    Eigen::Matrix3d h;
    h << v(0), v(1), v(2), v(3), v(4), v(5), v(6), v(7), v(8);
    h = nt.inverse() * h * nf;
    if (!h.allFinite() || std::abs(h.determinant()) < 1e-15 * std::pow(h.norm(), 3)) return std::nullopt;
    // Seen from the front all points lie on one side of the horizon, and none of them on it.
    double least = 1e300, most = 0;
    int ahead = 0;
    for (const Point& p : from) {
        const double w = h(2, 0) * p.x + h(2, 1) * p.y + h(2, 2);
        ahead += w > 0 ? 1 : -1;
        least = std::min(least, std::abs(w));
        most = std::max(most, std::abs(w));
    }
    if (std::abs(ahead) != static_cast<int>(from.size()) || least < kNearHorizon * most) return std::nullopt;
    return toHomography(h / h.norm());
}

} // namespace westrum
