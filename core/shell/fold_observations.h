#pragma once

#include "core/shell/fold_up.h"

namespace westrum {

/// What is known of the corners of the van, as equations of least squares (fold_up.h).
struct Observation {
    enum Kind {
        Distance,     ///< between points 0 and 1: `value`
        SameDistance, ///< between 0 and 1 as between 2 and 3
        Square,       ///< 0-1-2 a right angle, in mm over the shorter leg
        Flat,         ///< 3 in the plane of 0, 1, 2
        Meet,   ///< 0 and 1 are one point: three equations; 2 and 3 are the sides that meet, `value` 1 at its start
        Level,  ///< 0 and 1 at the same height but for `value`
        Plumb,  ///< 1 inside of the plumb of 0 by `value`, 0-2 the lower edge from left to right
        Height, ///< of 0 over the floor: `value`
    };
    Kind kind{};
    std::array<int, 4> points{-1, -1, -1, -1};
    double value{};
    double error{}; ///< mm, one standard deviation
    int surface = -1;
    std::string key{}; ///< of the reading; empty: an assumption or a tie
};

/// The corners of all surfaces that hang together with the floor: points are numbered through.
struct FoldProblem {
    std::vector<int> first;      ///< of each surface, its first point; -1: it hangs on nothing
    std::vector<VanPoint> start; ///< about where the points are
    std::vector<Observation> observations;
    int fixed = 0; ///< the floor's first point: it, the direction of its first side and its plane are held
};

/// @return  nothing where there is no measured floor with sides that others meet
std::optional<FoldProblem> foldProblem(const std::vector<TiedSurface>& surfaces, const Headroom& headroom,
                                       bool symmetric);

/// How many points a kind is about.
int pointsOf(Observation::Kind kind);

/// What one equation is off, in mm; three figures for Meet, else the first.
std::array<double, 3> misfit(const Observation& o, const std::vector<VanPoint>& points);

} // namespace westrum
