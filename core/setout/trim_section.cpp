#include "core/setout/trim_section.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kRoundMm = 0.05; ///< a round part's chord lies no further inside it
constexpr int kHeights = 60;      ///< at which a cope is told

/// A quarter of an ellipse about `centre`, from one axis to the other, both ends included.
void quarter(Ring& ring, Point centre, double rx, double ry, double fromRad) {
    const double most = std::max({std::abs(rx), std::abs(ry), kRoundMm * 2});
    const int n = std::max(2, static_cast<int>(std::ceil(std::numbers::pi / 4 / std::acos(1 - kRoundMm / most))));
    for (int i = 0; i <= n; ++i) {
        const double a = fromRad + std::numbers::pi / 2 * i / n;
        ring.push_back({centre.x + rx * std::cos(a), centre.y + ry * std::sin(a)});
    }
}

/// How far a section stands off at a height; 0 beyond its ends.
double standsOff(const Ring& section, double y) {
    double x = 0;
    for (std::size_t i = 0; i < section.size(); ++i) {
        const Point a = section[i], b = section[(i + 1) % section.size()];
        if (std::min(a.y, b.y) > y || std::max(a.y, b.y) < y) continue;
        const double t = std::abs(b.y - a.y) < 1e-12 ? 0 : (y - a.y) / (b.y - a.y);
        x = std::max({x, a.x + (b.x - a.x) * t, std::abs(b.y - a.y) < 1e-12 ? b.x : 0.0});
    }
    return x;
}

} // namespace

Ring trimSection(const TrimLength& trim) {
    const double w = trim.width.value, t = std::max(trim.thickness.value, 0.5);
    Ring ring;
    switch (trim.profile) {
    case Profile::Quadrant: { // as far off the floor as off the wall, rounded towards the room
        ring = {{0, 0}};
        quarter(ring, {0, 0}, std::max(t, w), w, 0);
        return ring;
    }
    case Profile::Skirting: { // its upper edge rounded over
        const double r = std::min(t, w / 2);
        ring = {{0, 0}, {t, 0}};
        quarter(ring, {t - r, w - r}, r, r, 0);
        ring.push_back({0, w});
        break;
    }
    case Profile::DSection: { // half round
        ring = {{0, 0}};
        quarter(ring, {0, w / 2}, t, w / 2, -std::numbers::pi / 2);
        quarter(ring, {0, w / 2}, t, w / 2, 0);
        break;
    }
    case Profile::Cove: { // hollow towards the room
        ring = {{0, 0}, {w, 0}};
        const double r = std::max(1.0, w - t);
        Ring hollow;
        quarter(hollow, {w, w}, r, r, std::numbers::pi);
        std::reverse(hollow.begin(), hollow.end());
        ring.insert(ring.end(), hollow.begin(), hollow.end());
        ring.push_back({0, w});
        break;
    }
    case Profile::Angle: // one leg on the wall, one into the room
        ring = {{0, 0}, {w, 0}, {w, t}, {t, t}, {t, w}, {0, w}};
        break;
    case Profile::CoverStrip: { // arrises taken off
        const double c = std::min(t, w) / 4;
        ring = {{0, 0}, {t - c, 0}, {t, c}, {t, w - c}, {t - c, w}, {0, w}};
        break;
    }
    case Profile::PushOnEdging:
    case Profile::Threshold:
    case Profile::BoundEdge:
    case Profile::SealantBead: ring = {{0, 0}, {t, 0}, {t, w}, {0, w}}; break;
    }
    ring.erase(std::unique(ring.begin(), ring.end(), [](Point a, Point b) { return distance(a, b) < 1e-9; }),
               ring.end());
    return ring;
}

Ring copeLine(const Ring& section, double cornerRad) {
    assert(cornerRad > 0 && cornerRad < std::numbers::pi);
    const Bounds b = boundsOf(section);
    Ring line;
    double least = 1e18;
    for (int i = 0; i <= kHeights; ++i) {
        // A hair inside both ends, where level edges would say two things.
        const double share = std::clamp(static_cast<double>(i) / kHeights, 1e-6, 1 - 1e-6);
        const double y = b.low.y + share * b.height();
        line.push_back({standsOff(section, y) / std::sin(cornerRad), b.low.y + b.height() * i / kHeights});
        least = std::min(least, line.back().x);
    }
    for (Point& p : line) p.x -= least;
    return line;
}

} // namespace westrum
