#pragma once

#include "core/geometry/polygon.h"

#include <cmath>
#include <numbers>
#include <random>

namespace westrum::test {

/// Any outline without crossings: corners at rising angles about a centre.
inline Ring anyOutline(std::mt19937& dice, double size) {
    Ring ring;
    const int corners = 4 + int(dice() % 6);
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * std::numbers::pi * i / corners;
        const double radius = size * (0.4 + double(dice() % 600) / 1000);
        ring.push_back({radius * std::cos(angle), radius * std::sin(angle)});
    }
    return ring;
}

} // namespace westrum::test
