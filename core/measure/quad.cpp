#include "core/measure/quad.h"

#include "core/measure/distance_network.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace westrum {
namespace {

using R = QuadReading;

std::size_t index(R r) { return static_cast<std::size_t>(r); }

/// The third corner of a triangle over the base p-q, at distances from p and q, to the left of p->q.
std::optional<Point> apex(Point p, Point q, double fromP, double fromQ) {
    const double base = distance(p, q);
    if (base <= 0) return std::nullopt;
    const double along = (fromP * fromP - fromQ * fromQ + base * base) / (2 * base);
    const double heightSquared = fromP * fromP - along * along;
    if (heightSquared < -1e-9 * base * base) return std::nullopt;
    const Point u = (q - p) * (1 / base);
    const double height = std::sqrt(std::max(0.0, heightSquared));
    return p + u * along + Point{-u.y, u.x} * height;
}

std::optional<OpenTriangle> openTriangle(const QuadReadings& r, R a, R b, R c) {
    std::array<R, 3> sides{a, b, c};
    std::sort(sides.begin(), sides.end(), [&](R x, R y) { return r[x] > r[y]; });
    const double gap = r[sides[0]] - r[sides[1]] - r[sides[2]];
    if (gap <= 0) return std::nullopt;
    return OpenTriangle{sides[0], {sides[1], sides[2]}, gap};
}

std::optional<std::array<Point, 4>> fromOneDiagonal(const QuadReadings& r, R diagonal) {
    const Point a{0, 0};
    const Point b{r[R::AB], 0};
    if (diagonal == R::AC) {
        const auto c = apex(a, b, r[R::AC], r[R::BC]);
        const auto d = c ? apex(a, *c, r[R::DA], r[R::CD]) : std::nullopt;
        if (!d) return std::nullopt;
        return std::array<Point, 4>{a, b, *c, *d};
    }
    const auto d = apex(a, b, r[R::DA], r[R::BD]);
    const auto c = d ? apex(*d, b, r[R::CD], r[R::BC]) : std::nullopt;
    if (!c) return std::nullopt;
    // C lies on the side of BD away from A: to the left of B->D reversed, so mirror the apex over D-B.
    const Point u = (b - *d) * (1 / distance(*d, b));
    const Point v = *c - *d;
    const Point mirrored = *d + u * (2 * dot(u, v)) - v;
    const bool sameSideAsA = cross(b - *d, *c - *d) * cross(b - *d, a - *d) > 0;
    return std::array<Point, 4>{a, b, sameSideAsA ? mirrored : *c, *d};
}

/// What a reading would be if the five others were exact: the two corners it joins, each from the opposite base.
std::optional<double> implied(const QuadReadings& r, R wanted) {
    const auto length = [&](int i, int j) {
        for (int k = 0; k < kQuadReadings; ++k)
            if ((kQuadEnds[index(R(k))][0] == i && kQuadEnds[index(R(k))][1] == j) ||
                (kQuadEnds[index(R(k))][0] == j && kQuadEnds[index(R(k))][1] == i))
                return r[R(k)];
        return 0.0;
    };
    if (wanted == R::AC || wanted == R::BD) {
        const auto corners = fromOneDiagonal(r, wanted == R::AC ? R::BD : R::AC);
        if (!corners) return std::nullopt;
        return wanted == R::AC ? distance((*corners)[0], (*corners)[2]) : distance((*corners)[1], (*corners)[3]);
    }
    const int p = kQuadEnds[index(wanted)][0];
    const int q = kQuadEnds[index(wanted)][1];
    const int s = (q + 1) % 4; // opposite base s-t, met in this order going round
    const int t = (q + 2) % 4;
    const Point baseS{0, 0};
    const Point baseT{length(s, t), 0};
    const auto cornerP = apex(baseS, baseT, length(s, p), length(t, p));
    const auto cornerQ = apex(baseS, baseT, length(s, q), length(t, q));
    if (!cornerP || !cornerQ) return std::nullopt;
    return distance(*cornerP, *cornerQ);
}

/// Least squares over all six readings, from both one-diagonal shapes; the better fit of the two.
std::array<Point, 4> adjusted(const QuadReadings& r) {
    std::vector<CornerDistance> readings;
    for (std::size_t k = 0; k < kQuadReadings; ++k) readings.push_back({kQuadEnds[k][0], kQuadEnds[k][1], *r.mm[k]});
    std::array<Point, 4> best{};
    double least = -1;
    for (const R diagonal : {R::AC, R::BD}) {
        const auto start = fromOneDiagonal(r, diagonal);
        if (!start) continue;
        const std::vector<Point> c = adjustCorners({start->begin(), start->end()}, readings);
        double sum = 0;
        for (const CornerDistance& d : readings) {
            const double e = d.mm - distance(c[static_cast<std::size_t>(d.from)], c[static_cast<std::size_t>(d.to)]);
            sum += e * e;
        }
        if (least < 0 || sum < least - 1e-9) {
            least = sum;
            std::copy(c.begin(), c.end(), best.begin());
        }
    }
    return best;
}

} // namespace

QuadFit fitQuad(const QuadReadings& r) {
    assert(r.has(R::AC) || r.has(R::BD));
    QuadFit fit;
    if (r.has(R::AC)) {
        fit.impossible = openTriangle(r, R::AB, R::BC, R::AC);
        if (!fit.impossible) fit.impossible = openTriangle(r, R::CD, R::DA, R::AC);
    }
    if (r.has(R::BD) && !fit.impossible) {
        fit.impossible = openTriangle(r, R::AB, R::DA, R::BD);
        if (!fit.impossible) fit.impossible = openTriangle(r, R::BC, R::CD, R::BD);
    }
    if (fit.impossible) return fit;
    const bool both = r.has(R::AC) && r.has(R::BD);
    fit.corners = *fromOneDiagonal(r, r.has(R::AC) ? R::AC : R::BD);
    if (both) {
        fit.corners = adjusted(r);
        for (std::size_t k = 0; k < kQuadReadings; ++k) {
            const double fitted = distance(fit.corners[static_cast<std::size_t>(kQuadEnds[k][0])],
                                           fit.corners[static_cast<std::size_t>(kQuadEnds[k][1])]);
            fit.residual[k] = *r.mm[k] - fitted;
            fit.largestResidual = std::max(fit.largestResidual, std::abs(*fit.residual[k]));
            if (const auto should = implied(r, R(k))) fit.misclosure[k] = *r.mm[k] - *should;
        }
    }
    fit.area = {signedArea({fit.corners.begin(), fit.corners.end()}) / 1e6};
    return fit;
}

} // namespace westrum
