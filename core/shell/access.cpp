#include "core/shell/access.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {

Mm widestThrough(Mm openingWidth, Mm openingHeight, Mm thickness) {
    const double a = openingWidth.value, b = openingHeight.value, t = thickness.value;
    if (t > std::min(a, b)) return {0};
    // At each angle the panel is as wide as the nearer wall allows; the best angle lies where the two limits meet or at
    // an end of the range. The lesser of the two has one peak between: sample, then close in on it.
    const auto width = [&](double angle) {
        const double c = std::cos(angle), s = std::sin(angle);
        const double across = c > 1e-12 ? (a - t * s) / c : 1e12;
        const double up = s > 1e-12 ? (b - t * c) / s : 1e12;
        return std::min(across, up);
    };
    constexpr int samples = 720;
    const double quarter = std::numbers::pi / 2;
    int best = 0;
    for (int i = 1; i <= samples; ++i)
        if (width(quarter * i / samples) > width(quarter * best / samples)) best = i;
    double low = quarter * std::max(0, best - 1) / samples, high = quarter * std::min(samples, best + 1) / samples;
    for (int i = 0; i < 100; ++i) {
        const double p = low + (high - low) / 3, q = high - (high - low) / 3;
        (width(p) < width(q) ? low : high) = width(p) < width(q) ? p : q;
    }
    return {std::max({0.0, width((low + high) / 2), width(0), width(quarter)})};
}

Passage passageOf(const Access& access) {
    Passage passage;
    const auto sound = [](const MaybeReading& r) { return r && r->length.value > 0; };
    const Mm thickness = sound(access.panelThickness) ? access.panelThickness->length : Mm{12};
    for (const Access::Door& door : access.doors) {
        if (!sound(door.width) || !sound(door.height)) continue;
        const Mm widest = widestThrough(door.width->length, door.height->length, thickness);
        if (widest.value <= 0)
            passage.remarks.push_back({Severity::Warning,
                                       {},
                                       RemarkKind::PanelCannotPass,
                                       {{"thickness", thickness}, {"door", door.name}},
                                       {}});
        if (!passage.widestPanel || widest > *passage.widestPanel) {
            passage.widestPanel = widest;
            passage.door = door.name;
        }
    }
    if (sound(access.loadLength) && sound(access.loadWidth) && sound(access.loadHeight)) {
        passage.loadLength = access.loadLength->length;
        passage.loadWidth = widestThrough(access.loadWidth->length, access.loadHeight->length, thickness);
    }
    return passage;
}

} // namespace westrum
