#include "core/measure/stations.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <cmath>

namespace westrum {
namespace {

double sign(double v) { return v > 0 ? 1 : v < 0 ? -1 : 0; }

/// Slope at the end of the curve from the two nearest bays: widths h0, h1 and secants s0, s1.
double endSlope(double h0, double h1, double s0, double s1) {
    const double d = ((2 * h0 + h1) * s0 - h0 * s1) / (h0 + h1);
    if (sign(d) != sign(s0)) return 0;
    if (sign(s0) != sign(s1) && std::abs(d) > 3 * std::abs(s0)) return 3 * s0;
    return d;
}

/// One bay of the smooth curve: u runs from 0 to 1 over its width h.
struct Bay {
    double h, y0, y1, d0, d1;
    [[nodiscard]] double height(double u) const {
        const double a = u * u * (3 - 2 * u);
        return y0 * (1 - a) + y1 * a + h * u * (1 - u) * ((1 - u) * d0 - u * d1);
    }
    [[nodiscard]] double slope(double u) const {
        return 6 * u * (1 - u) * (y1 - y0) / h + d0 * (1 - u) * (1 - 3 * u) + d1 * u * (3 * u - 2);
    }
    [[nodiscard]] double bend(double u) const {
        return (6 * (1 - 2 * u) * (y1 - y0) / h + d0 * (6 * u - 4) + d1 * (6 * u - 2)) / h;
    }
};

Bay bayOf(const StationCurve& c, const std::vector<double>& slopes, std::size_t k) {
    return {c.at[k + 1] - c.at[k], c.offset[k], c.offset[k + 1], slopes[k], slopes[k + 1]};
}

double gauss(const Bay& bay, double from, double to) {
    constexpr std::array<double, 3> node{0.2386191860831969, 0.6612093864662645, 0.9324695142031521};
    constexpr std::array<double, 3> weight{0.4679139345726910, 0.3607615730481386, 0.1713244923791704};
    const double middle = (from + to) / 2, half = (to - from) / 2;
    double sum = 0;
    for (std::size_t i = 0; i < node.size(); ++i)
        for (const double side : {-1.0, 1.0})
            sum += weight[i] * std::hypot(1.0, bay.slope(middle + side * half * node[i]));
    return sum * half * bay.h;
}

double arcLength(const Bay& bay, double from, double to, int deeper) {
    const double middle = (from + to) / 2;
    const double whole = gauss(bay, from, to);
    const double halves = gauss(bay, from, middle) + gauss(bay, middle, to);
    if (deeper == 0 || std::abs(whole - halves) < 1e-5) return halves;
    return arcLength(bay, from, middle, deeper - 1) + arcLength(bay, middle, to, deeper - 1);
}

} // namespace

std::vector<double> stationSlopes(const StationCurve& c) {
    const std::size_t n = c.at.size();
    assert(n >= 2 && c.offset.size() == n);
    std::vector<double> h(n - 1), s(n - 1), d(n);
    for (std::size_t k = 0; k + 1 < n; ++k) {
        h[k] = c.at[k + 1] - c.at[k];
        s[k] = (c.offset[k + 1] - c.offset[k]) / h[k];
    }
    if (n == 2) return {s[0], s[0]};
    d[0] = endSlope(h[0], h[1], s[0], s[1]);
    d[n - 1] = endSlope(h[n - 2], h[n - 3], s[n - 2], s[n - 3]);
    for (std::size_t k = 1; k + 1 < n; ++k) {
        if (s[k - 1] * s[k] <= 0) continue;
        const double w1 = 2 * h[k] + h[k - 1], w2 = h[k] + 2 * h[k - 1];
        d[k] = (w1 + w2) / (w1 / s[k - 1] + w2 / s[k]);
    }
    return d;
}

double heightAt(const StationCurve& c, double x) {
    if (x <= c.at.front()) return c.offset.front();
    if (x >= c.at.back()) return c.offset.back();
    const auto k = static_cast<std::size_t>(std::upper_bound(c.at.begin(), c.at.end(), x) - c.at.begin()) - 1;
    const double u = (x - c.at[k]) / (c.at[k + 1] - c.at[k]);
    if (c.join == StationJoin::Straight) return c.offset[k] + u * (c.offset[k + 1] - c.offset[k]);
    return bayOf(c, stationSlopes(c), k).height(u);
}

M2 areaUnder(const StationCurve& c) {
    const std::vector<double> d = stationSlopes(c);
    double sum = 0;
    for (std::size_t k = 0; k + 1 < c.at.size(); ++k) {
        const Bay bay = bayOf(c, d, k);
        sum += bay.h * (bay.y0 + bay.y1) / 2;
        if (c.join == StationJoin::Smooth) sum += bay.h * bay.h * (bay.d0 - bay.d1) / 12;
    }
    return {sum / 1e6};
}

Mm lengthAlong(const StationCurve& c) {
    const std::vector<double> d = stationSlopes(c);
    double sum = 0;
    for (std::size_t k = 0; k + 1 < c.at.size(); ++k) {
        const Bay bay = bayOf(c, d, k);
        sum += c.join == StationJoin::Straight ? std::hypot(bay.h, bay.y1 - bay.y0) : arcLength(bay, 0, 1, 24);
    }
    return {sum};
}

std::vector<Point> flattened(const StationCurve& c, double tolerance) {
    std::vector<Point> points{{c.at.front(), c.offset.front()}};
    const std::vector<double> d = stationSlopes(c);
    for (std::size_t k = 0; k + 1 < c.at.size(); ++k) {
        const Bay bay = bayOf(c, d, k);
        int pieces = 1;
        if (c.join == StationJoin::Smooth) {
            // A chord over a width w is off its arc by at most w^2 |y''| / 8; y'' is linear, largest at an end.
            const double bend = std::max(std::abs(bay.bend(0)), std::abs(bay.bend(1)));
            pieces = std::clamp(static_cast<int>(std::ceil(bay.h * std::sqrt(bend / (8 * tolerance)))), 1, 256);
        }
        for (int i = 1; i <= pieces; ++i) {
            const double u = static_cast<double>(i) / pieces;
            points.push_back({c.at[k] + u * bay.h, i == pieces ? bay.y1 : bay.height(u)});
        }
    }
    return points;
}

} // namespace westrum
