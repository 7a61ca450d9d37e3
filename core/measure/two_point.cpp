#include "core/measure/two_point.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {

std::vector<TwoPointCorner> cornersFromTwoPoints(double base, const std::vector<TwoPointReading>& readings,
                                                 double snap) {
    constexpr double flat = 20 * std::numbers::pi / 180;
    std::vector<TwoPointCorner> corners;
    for (const TwoPointReading& r : readings) {
        TwoPointCorner corner;
        const double a = r.fromA, b = r.fromB;
        corner.at.x = (a * a - b * b + base * base) / (2 * base);
        corner.shortBy = std::max({0.0, base - a - b, std::abs(a - b) - base});
        if (corner.shortBy > snap) {
            corner.meeting = TapeMeeting::Impossible;
        } else if (corner.shortBy > 0) {
            corner.meeting = TapeMeeting::Weak;
        } else {
            corner.at.y = std::sqrt(std::max(0.0, a * a - corner.at.x * corner.at.x)) * (r.below ? -1 : 1);
            const double cosine = a > 0 && b > 0 ? (a * a + b * b - base * base) / (2 * a * b) : 1;
            const double angle = std::acos(std::clamp(cosine, -1.0, 1.0));
            if (angle < flat || angle > std::numbers::pi - flat) corner.meeting = TapeMeeting::Weak;
        }
        corners.push_back(corner);
    }
    return corners;
}

} // namespace westrum
