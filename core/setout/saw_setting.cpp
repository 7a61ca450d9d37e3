#include "core/setout/saw_setting.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

struct Vector {
    double x{}, y{}, z{};
    friend Vector operator+(Vector a, Vector b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
    friend Vector operator-(Vector a, Vector b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
    friend Vector operator*(Vector a, double k) { return {a.x * k, a.y * k, a.z * k}; }
};
double dot(Vector a, Vector b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
Vector cross(Vector a, Vector b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
double length(Vector a) { return std::sqrt(dot(a, a)); }
/// Nothing if it has no length.
std::optional<Vector> unit(Vector a) {
    const double l = length(a);
    return l < 1e-9 ? std::nullopt : std::optional(a * (1 / l));
}

constexpr double kNoAngle = 1e-8; // rad

/// One face at the corner: along its run, up the face, out of the face.
struct Face {
    Vector run, up, normal;
};
Face faceOf(Vector run, Vector intoRoom, double tilt) {
    const Vector level{0, 0, 1};
    return {run, intoRoom * std::cos(tilt) + level * std::sin(tilt),
            intoRoom * std::sin(tilt) - level * std::cos(tilt)};
}

} // namespace

CornerSetting compoundMitre(const Corner& c) {
    CornerSetting out;
    if (std::abs(std::sin(c.tilt1Rad)) > 1e-12 && std::abs(std::sin(c.tilt2Rad)) > 1e-12)
        out.widthRatio = std::sin(c.tilt1Rad) / std::sin(c.tilt2Rad);
    const double cosine = std::cos(c.planRad), sine = std::sin(c.planRad);
    // The first run lies along x, the room on its left; the second turns from it by the plan angle.
    const Face one = faceOf({1, 0, 0}, {0, 1, 0}, c.tilt1Rad);
    const Face two = faceOf({cosine, sine, 0}, {sine, -cosine, 0}, c.tilt2Rad);
    std::optional<Vector> line = unit(cross(one.normal, two.normal));
    if (!line) line = unit(one.run + two.run); // both lie in one level plane
    if (!line) return out;
    if (dot(*line, one.up + two.up) < 0) *line = *line * -1;
    const auto away = [&](const Face& f) { return unit(f.run - *line * dot(f.run, *line)); };
    const auto a = away(one), b = away(two);
    if (!a || !b) return out;
    const auto plane = unit(*a - *b);
    if (!plane) return out;
    const auto setting = [&](const Face& f) {
        SawSetting s;
        const double mitre = std::atan2(dot(*line, f.run), dot(*line, f.up));
        s.mitreRad = std::abs(mitre);
        s.bevelRad = std::asin(std::clamp(std::abs(dot(*plane, f.normal)), 0.0, 1.0));
        s.longEdge = s.mitreRad < kNoAngle ? LongEdge::Equal : mitre > 0 ? LongEdge::Bottom : LongEdge::Top;
        return s;
    };
    out.first = setting(one);
    out.second = setting(two);
    return out;
}

double plainMitre(double planRad) { return std::abs(std::numbers::pi / 2 - planRad / 2); }

Filler taperedFiller(Mm length, Mm gap0, Mm gap1, std::vector<Mm> at) {
    if (at.empty()) at = {Mm{0}, length};
    Filler f{.length = length, .gap0 = gap0, .gap1 = gap1, .at = std::move(at)};
    const double rise = std::abs((gap1 - gap0).value);
    f.ripRad = std::atan2(rise, length.value);
    f.cutEdge = {std::hypot(length.value, rise)};
    for (const Mm x : f.at) f.wide.push_back(gap0 + (gap1 - gap0) * (length.value > 0 ? x / length : 0));
    f.offcut = {length.value * rise / 2 / 1e6};
    return f;
}

} // namespace westrum
