#pragma once

#include "core/measure/developed.h"
#include "core/shell/fold_up.h"
#include "core/shell/ties.h"

#include <array>
#include <cmath>
#include <random>
#include <string>
#include <tuple>
#include <vector>

namespace westrum::test {

/// A van of six faces with crooked corners, every side and both diagonals of each face taped.
struct CrookedVan {
    std::vector<VanPoint> corners; ///< rear right, front right, front left, rear left of the floor; the same above
    std::vector<Surface> surfaces;
    std::vector<MeasuredOutline> outlines;

    /// @param by  mm by which a corner may lie off in each direction  @param noise  mm of each tape, one sigma
    /// @param rise  of a roof that is bowed over its width, taped along the bow
    CrookedVan(std::mt19937& dice, double by, double noise, double rise = 0) {
        const auto between = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(dice);
        };
        const double l = between(2800, 4200), w = between(1600, 1900), h = between(1700, 2000), lean = between(0, 120);
        corners = {{0, 0, 0},    {l, 0, 0},    {l, w, 0},        {0, w, 0},
                   {0, lean, h}, {l, lean, h}, {l, w - lean, h}, {0, w - lean, h}};
        for (std::size_t k = 0; k < corners.size(); ++k) {
            VanPoint& p = corners[k];
            if (k > 0) p = p + VanPoint{between(-by, by), k == 1 ? 0 : between(-by, by), k < 4 ? 0 : between(-by, by)};
        }
        const auto face = [&](const std::string& id, SurfaceKind kind, Hand hand,
                              const std::array<std::size_t, 4>& at) {
            surfaces.push_back(
                taped(dice, noise, id, kind, hand, {corners[at[0]], corners[at[1]], corners[at[2]], corners[at[3]]}));
        };
        face("floor", SurfaceKind::Floor, Hand::None, {0, 1, 2, 3});
        face("ceiling", SurfaceKind::Ceiling, Hand::None, {7, 6, 5, 4});
        face("left", SurfaceKind::LeftWall, Hand::Left, {3, 2, 6, 7});
        face("right", SurfaceKind::RightWall, Hand::Right, {1, 0, 4, 5});
        face("bulkhead", SurfaceKind::Bulkhead, Hand::None, {2, 1, 5, 6});
        face("rear", SurfaceKind::RearDoors, Hand::None, {0, 3, 7, 4});
        for (const auto& [a, side, b, other] : {std::tuple{"floor", 0, "right", 0},
                                                {"floor", 1, "bulkhead", 0},
                                                {"floor", 2, "left", 0},
                                                {"floor", 3, "rear", 0},
                                                {"ceiling", 0, "left", 2},
                                                {"ceiling", 1, "bulkhead", 2},
                                                {"ceiling", 2, "right", 2},
                                                {"ceiling", 3, "rear", 2},
                                                {"left", 1, "bulkhead", 3},
                                                {"bulkhead", 1, "right", 3},
                                                {"right", 1, "rear", 3},
                                                {"rear", 1, "left", 3}})
            meet(surfaces, a, side, b, other);
        if (rise > 0) bow(dice, rise, noise);
    }

    /// A face between four corners, all its sides and both diagonals taped.
    static Surface taped(std::mt19937& dice, double noise, const std::string& id, SurfaceKind kind, Hand hand,
                         const std::array<VanPoint, 4>& at) {
        Surface s;
        s.id = s.name = id;
        s.kind = kind;
        s.hand = hand;
        s.measurement.form = OutlineForm::FourSides;
        std::normal_distribution<double> tape(0, std::max(noise, 1e-12));
        for (std::size_t k = 0; k < kQuadReadings; ++k) {
            const VanPoint from = at[static_cast<std::size_t>(kQuadEnds[k][0])],
                           to = at[static_cast<std::size_t>(kQuadEnds[k][1])];
            s.measurement.readings[k] = Reading{{}, {length(from - to) + (noise > 0 ? tape(dice) : 0)}};
        }
        return s;
    }

    /// The left wall in two parts, the upper one so high; neither meets the ends of the van.
    void partLeftWall(std::mt19937& dice, double noise, double upper) {
        loosen("left");
        const auto between = [&](std::size_t low, std::size_t high) {
            return corners[high] + unit(corners[low] - corners[high]) * upper;
        };
        const VanPoint rear = between(3, 7), front = between(2, 6);
        surfaces[2] =
            taped(dice, noise, "left", SurfaceKind::LeftWall, Hand::Left, {corners[3], corners[2], front, rear});
        surfaces.push_back(
            taped(dice, noise, "upper", SurfaceKind::LeftWallUpper, Hand::Left, {rear, front, corners[6], corners[7]}));
        meet(surfaces, "floor", 2, "left", 0);
        meet(surfaces, "left", 2, "upper", 0);
        meet(surfaces, "upper", 2, "ceiling", 0);
    }

    /// A face that meets no other any more.
    void loosen(const std::string& id) {
        for (Surface& s : surfaces)
            for (Edge& e : s.edges)
                if (s.id == id || e.surface == id) e = {};
    }

    /// The roof's own readings and those of its bow, over the corners that stand.
    void bow(std::mt19937& dice, double rise, double noise) {
        std::normal_distribution<double> tape(0, std::max(noise, 1e-12));
        const auto read = [&](double exact) { return Reading{{}, {exact + (noise > 0 ? tape(dice) : 0)}}; };
        const VanPoint a = corners[7], along = unit(corners[6] - a);
        const VanPoint in = corners[4] - a, across = unit(in - along * dot(in, along));
        const double chord = (length(corners[4] - a) + length(corners[5] - corners[6])) / 2;
        const double radius = radiusOf({chord, rise}), turn = angleRadOf({chord, rise});
        std::array<Point, 4> flat; // laid out flat: what lies y across the chord lies further along the bow
        for (std::size_t k = 0; k < 4; ++k) {
            const VanPoint p = corners[7 - k] - a;
            const double y = dot(p, across);
            flat[k] = {dot(p, along), radius * (std::asin((y - chord / 2) / radius) + turn / 2)};
        }
        Measurement& m = surfaces[1].measurement;
        for (std::size_t k = 0; k < kQuadReadings; ++k)
            m.readings[k] = read(distance(flat[static_cast<std::size_t>(kQuadEnds[k][0])],
                                          flat[static_cast<std::size_t>(kQuadEnds[k][1])]));
        m.curve = {Curving::Single, {{read(chord), read(rise)}}, {}, {}};
    }

    /// Works the outlines out anew: after a reading was changed.
    [[nodiscard]] FoldUp folded(bool symmetric = false, const Headroom& headroom = {}) {
        outlines.clear();
        for (const Surface& s : surfaces) outlines.push_back(outlineOf(s.measurement));
        std::vector<TiedSurface> tied;
        for (std::size_t i = 0; i < surfaces.size(); ++i) tied.push_back({&surfaces[i], &outlines[i]});
        return foldUp(tied, headroom, symmetric);
    }
};

} // namespace westrum::test
