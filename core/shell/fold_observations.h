#pragma once

#include "core/measure/developed.h"
#include "core/shell/fold_up.h"

namespace westrum {

/// What is known of the corners of the van, as equations of least squares (fold_up.h).
struct Observation {
    enum Kind {
        Distance,     ///< between points 0 and 1: `value`
        Bent,         ///< as that, but `value` was taped along a bent surface
        SameDistance, ///< between 0 and 1 as between 2 and 3
        Square,       ///< 0-1-2 a right angle, in mm over the shorter leg
        Flat,         ///< 3 in the plane of 0, 1, 2
        Meet,         ///< 0 and 1 are one point: three equations
        Level,        ///< 0 and 1 at the same height but for `value`
        Plumb,        ///< 1 inside of the plumb of 0 by `value`, 0-2 the lower edge from left to right
        Height,       ///< of its corners in the mean, and of the bulge between them, over the floor: `value`
        Figure,       ///< the figure 0 is `value`
        Profile,      ///< all of a bent surface's profile is `value` long
        FromLine,     ///< 0 lies `value` from the line 1-2, and half of the figure 3 if there is one
        FromCross,    ///< 0 lies `value` from the line 3-4, along 1-2, and half of the figure 5 if there is one
        Chord,        ///< 0 and 1 are as far apart as a profile's ends
        Parallel,     ///< 1 stands as far off the plane of 2, 3, 4 as 0 does
        SameSpot,     ///< 0 and 1 lie behind each other, square through the plane of 2, 3, 4: three equations
    };
    Kind kind{};
    std::vector<int> points; ///< where a surface is bent, its profile's figures come last
    double value{};
    double error{}; ///< mm, one standard deviation
    int surface = -1;
    int reading = -1;              ///< place in FoldProblem::readings; -1: an assumption or a tie
    int bend = -1;                 ///< place in FoldProblem::bends; -1: nothing bent in it
    std::array<double, 2> along{}; ///< of Bent and Height: how far up the section its ends lie
    int corners = 0;               ///< of Height: how many of its points stand for it; 0: one
    std::array<int, 2> sides{};    ///< of Meet: which sides
    bool atStart{};                ///< of Meet: at the start of the first one
};

/// A reading that may be wrong. Several equations may rest on one.
struct FoldReading {
    int surface{};
    std::string key;
    double reads{};
    double sign = 1; ///< of what its equations take it for
};

/// The profile of a bent surface: its figures are unknown like the corners are.
struct Bend {
    struct Part {
        int length{}, rise{}; ///< places among the points; -1: straight
    };
    std::vector<Part> parts;
    [[nodiscard]] std::vector<ProfilePart> profile(const std::vector<VanPoint>& points) const;
};

/// The corners of all surfaces that hang together with the floor: points are numbered through.
struct FoldProblem {
    std::vector<int> first;      ///< of each surface, its first point; -1: it hangs on nothing
    std::vector<VanPoint> start; ///< about where the points are
    std::vector<bool> figure;    ///< whether a point is none, but a figure: its x
    std::vector<Observation> observations;
    std::vector<FoldReading> readings;
    std::vector<Bend> bends;
    std::vector<int> bendOf; ///< of each surface; -1: flat
    int fixed = 0;           ///< the floor's first point: it, the direction of its first side and its plane are held

    int add(VanPoint p, bool isFigure = false);
    int add(FoldReading reading);
    /// @param reading  place of the one that it rests on; -1: none
    Observation& tell(Observation::Kind kind, std::vector<int> about, double value, double error, int surface,
                      int reading = -1);
};

/// @return  nothing where there is no measured floor with sides that others meet
std::optional<FoldProblem> foldProblem(const std::vector<TiedSurface>& surfaces, const Headroom& headroom,
                                       bool symmetric);

/// Openings that are one hole seen from two surfaces, where both are laid and flat.
void addHoles(const std::vector<TiedSurface>& surfaces, FoldProblem& problem);

/// How many equations a kind is.
int equationsOf(Observation::Kind kind);

/// What one equation is off, in mm.
std::array<double, 3> misfit(const Observation& o, const std::vector<VanPoint>& points, const std::vector<Bend>& bends);

} // namespace westrum
