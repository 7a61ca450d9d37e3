#pragma once

#include "core/geometry/boolean.h"
#include "core/setout/set_out.h"

#include <cmath>
#include <random>
#include <string>
#include <vector>

namespace westrum::test {

inline Region sheetOfSize(double w, double h) { return {{westrum::rectangle(0, 0, w, h)}}; }

inline std::vector<PlacedSupport> supportsAt(const std::vector<double>& centres, bool along, double width = 40) {
    std::vector<PlacedSupport> all;
    for (const double c : centres) {
        PlacedSupport s;
        s.centre = c;
        s.along = along;
        s.shape = {{along ? westrum::rectangle(-10, c - width / 2, 8000, width)
                          : westrum::rectangle(c - width / 2, -10, width, 8000)}};
        all.push_back(std::move(s));
    }
    return all;
}

inline OpeningFact openingAt(OpeningKind kind, double x, double y, double w, double h,
                             Treatment treatment = Treatment::CutBefore, int opening = 0) {
    Ring ring = westrum::rectangle(x, y, w, h);
    OpeningFact o;
    o.placed.opening = opening;
    o.placed.centre = {x + w / 2, y + h / 2};
    o.placed.shape = Ring(ring.rbegin(), ring.rend());
    o.kind = kind;
    o.treatment = treatment;
    o.name = "opening";
    return o;
}

inline bool has(const SetOut& s, RemarkKind kind) {
    return std::any_of(s.remarks.begin(), s.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
}
inline const Remark* remark(const SetOut& s, RemarkKind kind) {
    for (const Remark& r : s.remarks)
        if (r.kind == kind) return &r;
    return nullptr;
}

/// A surface as vans have them: quadrilaterals, L shapes, notches, curved sides, windows.
inline Region anySurface(std::mt19937& dice) {
    const auto between = [&](double low, double high) { return low + (high - low) * (dice() % 1000) / 1000.0; };
    const double w = between(700, 3600), h = between(500, 1900);
    Ring ring{{0, 0}, {w, 0}, {w - between(0, 40), h - between(0, 60)}, {between(0, 30), h}};
    if (dice() % 3 == 0) { // a curved upper side
        ring = {{0, 0}, {w, 0}};
        for (int k = 0; k <= 12; ++k) {
            const double t = 1 - k / 12.0;
            ring.push_back({w * t, h + 60 * std::sin(t * 3.14159265)});
        }
    }
    Region region{{ring}};
    const auto cut = [&](const Ring& hole) { region = difference(region, {{hole}}); };
    if (dice() % 3 == 0) cut(westrum::rectangle(w * 0.55, h * 0.6, w, h)); // L
    if (dice() % 3 == 0) cut(westrum::rectangle(w * 0.2, -1, between(150, 500), between(60, 200)));
    if (dice() % 2 == 0) cut(roundedRectangle(w * 0.3, h * 0.35, between(90, 380), between(80, 200), 30, 24));
    return region;
}

} // namespace westrum::test
