#pragma once

#include "core/geometry/polygon.h"
#include "core/measure/quad.h"
#include "core/units/parse.h"
#include "core/units/remark.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// One length as it was taken: what the person typed, and what that is in mm.
struct Reading {
    std::string typed;
    Mm length;
    friend bool operator==(const Reading&, const Reading&) = default;
};

enum class OutlineForm {
    Rectangle, ///< AB and BC; the other sides are taken to be equal and the corners square
    FourSides, ///< four sides and one or both diagonals
};

/// A rectangle let into a side: a wheel arch, a pillar foot. Square to the side.
struct Notch {
    std::string name;
    int side = 0; ///< 0 AB, 1 BC, 2 CD, 3 DA
    /// Along the side from its rear end (AB, CD: x least) or its right end (BC, DA: y least) to the notch.
    std::optional<Reading> position;
    std::optional<Reading> length; ///< along the side
    std::optional<Reading> depth;  ///< into the surface
    friend bool operator==(const Notch&, const Notch&) = default;
};

/// A corner cut away along both its sides: a door well.
struct Step {
    std::string name;
    int corner = 0;                ///< 0 A (rear right), 1 B (front right), 2 C (front left), 3 D (rear left)
    std::optional<Reading> along;  ///< along side AB or CD
    std::optional<Reading> across; ///< along side BC or DA
    friend bool operator==(const Step&, const Step&) = default;
};

/// All that was read off one surface.
struct Measurement {
    OutlineForm form = OutlineForm::Rectangle;
    std::array<std::optional<Reading>, kQuadReadings> readings{}; ///< by QuadReading
    std::vector<Notch> notches;
    std::vector<Step> steps;
    [[nodiscard]] bool empty() const;
    friend bool operator==(const Measurement&, const Measurement&) = default;
};

/// A surface's outline as the readings give it.
struct MeasuredOutline {
    std::optional<std::array<Point, 4>> frame; ///< corners A..D before notches and steps
    Region outline;                            ///< empty if the readings do not give one
    std::optional<QuadFit> fit;                ///< four-sided form only
    std::vector<Remark> remarks;
    [[nodiscard]] bool measured() const { return !outline.empty(); }
};

/// Smallest and largest side accepted: below 50 mm nothing is finished as a surface; no van is longer than 20 m.
inline constexpr double kShortestSideMm = 50;
inline constexpr double kLongestSideMm = 20000;

/// Works out the outline. What is wrong with the readings comes as remarks; readings that are wrong are left out, so
/// that one bad notch does not hide the rest. Remark places carry no surface yet.
MeasuredOutline outlineOf(const Measurement& measurement);

/// Names used in facts: "AB".."BD" for readings.
std::string readingKey(QuadReading reading);

} // namespace westrum
