#include "core/measure/quad.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace westrum {
namespace {

using R = QuadReading;

/// Which corners (A = 0 .. D = 3) a reading joins.
constexpr std::array<std::array<int, 2>, kQuadReadings> kEnds{{{0, 1}, {1, 2}, {2, 3}, {3, 0}, {0, 2}, {1, 3}}};

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
            if ((kEnds[index(R(k))][0] == i && kEnds[index(R(k))][1] == j) ||
                (kEnds[index(R(k))][0] == j && kEnds[index(R(k))][1] == i))
                return r[R(k)];
        return 0.0;
    };
    if (wanted == R::AC || wanted == R::BD) {
        const auto corners = fromOneDiagonal(r, wanted == R::AC ? R::BD : R::AC);
        if (!corners) return std::nullopt;
        return wanted == R::AC ? distance((*corners)[0], (*corners)[2]) : distance((*corners)[1], (*corners)[3]);
    }
    const int p = kEnds[index(wanted)][0];
    const int q = kEnds[index(wanted)][1];
    const int s = (q + 1) % 4; // opposite base s-t, met in this order going round
    const int t = (q + 2) % 4;
    const Point baseS{0, 0};
    const Point baseT{length(s, t), 0};
    const auto cornerP = apex(baseS, baseT, length(s, p), length(t, p));
    const auto cornerQ = apex(baseS, baseT, length(s, q), length(t, q));
    if (!cornerP || !cornerQ) return std::nullopt;
    return distance(*cornerP, *cornerQ);
}

/// Unknowns xB, xC, yC, xD, yD.
using Unknowns = std::array<double, 5>;

std::array<Point, 4> cornersOf(const Unknowns& u) { return {{{0, 0}, {u[0], 0}, {u[1], u[2]}, {u[3], u[4]}}}; }

double sumOfSquares(const QuadReadings& r, const Unknowns& u) {
    const auto c = cornersOf(u);
    double sum = 0;
    for (std::size_t k = 0; k < kQuadReadings; ++k) {
        const double e =
            *r.mm[k] - distance(c[static_cast<std::size_t>(kEnds[k][0])], c[static_cast<std::size_t>(kEnds[k][1])]);
        sum += e * e;
    }
    return sum;
}

/// Solves the symmetric 5x5 system m x = v by Gauss elimination with pivoting.
Unknowns solve(std::array<std::array<double, 5>, 5> m, Unknowns v) {
    for (std::size_t col = 0; col < 5; ++col) {
        std::size_t pivot = col;
        for (std::size_t row = col + 1; row < 5; ++row)
            if (std::abs(m[row][col]) > std::abs(m[pivot][col])) pivot = row;
        std::swap(m[col], m[pivot]);
        std::swap(v[col], v[pivot]);
        if (m[col][col] == 0) continue;
        for (std::size_t row = col + 1; row < 5; ++row) {
            const double factor = m[row][col] / m[col][col];
            for (std::size_t k = col; k < 5; ++k) m[row][k] -= factor * m[col][k];
            v[row] -= factor * v[col];
        }
    }
    Unknowns x{};
    for (std::size_t row = 5; row-- > 0;) {
        double sum = v[row];
        for (std::size_t k = row + 1; k < 5; ++k) sum -= m[row][k] * x[k];
        x[row] = m[row][row] == 0 ? 0 : sum / m[row][row];
    }
    return x;
}

/// Levenberg-Marquardt: few readings, a good start, so a plain damping schedule converges.
Unknowns adjust(const QuadReadings& r, Unknowns u) {
    double damping = 1e-3;
    double now = sumOfSquares(r, u);
    for (int round = 0; round < 500; ++round) {
        const auto c = cornersOf(u);
        std::array<std::array<double, 5>, 5> normal{};
        Unknowns right{};
        for (std::size_t k = 0; k < kQuadReadings; ++k) {
            const auto i = static_cast<std::size_t>(kEnds[k][0]);
            const auto j = static_cast<std::size_t>(kEnds[k][1]);
            const double d = distance(c[i], c[j]);
            const Point direction = (c[j] - c[i]) * (1 / d);
            Unknowns row{};
            const auto add = [&row](std::size_t corner, Point g) {
                if (corner == 1) row[0] += g.x;
                if (corner == 2) row[1] += g.x, row[2] += g.y;
                if (corner == 3) row[3] += g.x, row[4] += g.y;
            };
            add(j, direction);
            add(i, direction * -1);
            const double e = *r.mm[k] - d;
            for (std::size_t p = 0; p < 5; ++p) {
                right[p] += row[p] * e;
                for (std::size_t q = 0; q < 5; ++q) normal[p][q] += row[p] * row[q];
            }
        }
        auto damped = normal;
        for (std::size_t p = 0; p < 5; ++p) damped[p][p] += damping;
        const Unknowns step = solve(damped, right);
        Unknowns next = u;
        double size = 0;
        for (std::size_t p = 0; p < 5; ++p) {
            next[p] += step[p];
            size = std::max(size, std::abs(step[p]));
        }
        const double then = sumOfSquares(r, next);
        if (then <= now) {
            u = next;
            now = then;
            damping = std::max(damping / 10, 1e-12);
            if (size < 1e-10) break;
        } else {
            damping *= 10;
            if (damping > 1e12) break;
        }
    }
    return u;
}

/// How far a four-sided outline is from a rectangle: differences of opposite sides and of the diagonals, mm.
double irregularity(const QuadReadings& r) {
    return std::hypot(std::hypot(r[R::AB] - r[R::CD], r[R::BC] - r[R::DA]), r[R::AC] - r[R::BD]);
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
        const Unknowns start{fit.corners[1].x, fit.corners[2].x, fit.corners[2].y, fit.corners[3].x, fit.corners[3].y};
        fit.corners = cornersOf(adjust(r, start));
        double best = -1;
        for (std::size_t k = 0; k < kQuadReadings; ++k) {
            const double adjusted = distance(fit.corners[static_cast<std::size_t>(kEnds[k][0])],
                                             fit.corners[static_cast<std::size_t>(kEnds[k][1])]);
            fit.residual[k] = *r.mm[k] - adjusted;
            fit.largestResidual = std::max(fit.largestResidual, std::abs(*fit.residual[k]));
            const auto should = implied(r, R(k));
            if (!should) continue;
            fit.misclosure[k] = *r.mm[k] - *should;
            QuadReadings corrected = r;
            corrected.mm[k] = *should;
            const double left = irregularity(corrected);
            if (best < 0 || left < best - 1e-9) {
                best = left;
                fit.likeliest = R(k);
            }
        }
    }
    fit.area = {signedArea({fit.corners.begin(), fit.corners.end()}) / 1e6};
    return fit;
}

} // namespace westrum
