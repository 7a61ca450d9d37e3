#pragma once

#include "core/shell/fold_up.h"
#include "core/shell/ties.h"

#include <random>
#include <string>
#include <vector>

namespace westrum::test {

/// A van of six faces with crooked corners, every side and both diagonals of each face taped.
struct CrookedVan {
    std::vector<VanPoint> corners; ///< rear right, front right, front left, rear left of the floor; the same above
    std::vector<Surface> surfaces;
    std::vector<MeasuredOutline> outlines;

    /// @param by  mm by which a corner may lie off in each direction  @param noise  mm of each tape, one sigma
    CrookedVan(std::mt19937& dice, double by, double noise) {
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
        const auto face = [&](const std::string& id, SurfaceKind kind, Hand hand, std::array<int, 4> at) {
            Surface s;
            s.id = s.name = id;
            s.kind = kind;
            s.hand = hand;
            s.measurement.form = OutlineForm::FourSides;
            std::normal_distribution<double> tape(0, std::max(noise, 1e-12));
            for (std::size_t k = 0; k < kQuadReadings; ++k) {
                const auto corner = [&](int c) {
                    return corners[static_cast<std::size_t>(at[static_cast<std::size_t>(c)])];
                };
                s.measurement.readings[k] = Reading{
                    {}, {length(corner(kQuadEnds[k][0]) - corner(kQuadEnds[k][1])) + (noise > 0 ? tape(dice) : 0)}};
            }
            surfaces.push_back(std::move(s));
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
    }

    /// Works the outlines out anew: after a reading was changed.
    [[nodiscard]] FoldUp folded(bool symmetric = false) {
        outlines.clear();
        for (const Surface& s : surfaces) outlines.push_back(outlineOf(s.measurement));
        std::vector<TiedSurface> tied;
        for (std::size_t i = 0; i < surfaces.size(); ++i) tied.push_back({&surfaces[i], &outlines[i]});
        return foldUp(tied, {}, symmetric);
    }
};

} // namespace westrum::test
