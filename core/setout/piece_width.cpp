#include "core/setout/piece_width.h"

#include <algorithm>
#include <vector>

namespace westrum {
namespace {

/// Where the line x crosses the shape's rings, rising.
std::vector<double> crossingsAt(const Region& shape, double x) {
    std::vector<double> crossings;
    for (const Ring& ring : shape.rings)
        for (std::size_t k = 0; k < ring.size(); ++k) {
            const Point a = ring[k];
            const Point b = ring[(k + 1) % ring.size()];
            if ((a.x > x) != (b.x > x)) crossings.push_back(a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x));
        }
    std::sort(crossings.begin(), crossings.end());
    return crossings;
}

} // namespace

double heightAt(const Region& shape, double x) {
    const std::vector<double> crossings = crossingsAt(shape, x);
    double height = 0;
    for (std::size_t k = 0; k + 1 < crossings.size(); k += 2) height += crossings[k + 1] - crossings[k];
    return height;
}

double narrowestOf(const Region& shape) {
    std::vector<double> stops;
    for (const Ring& ring : shape.rings)
        for (Point p : ring) stops.push_back(p.x);
    std::sort(stops.begin(), stops.end());
    double narrowest = 0;
    bool any = false;
    for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
        if (stops[i + 1] - stops[i] < kLeastStretchMm) continue;
        for (const double x : {stops[i] + 0.01, stops[i + 1] - 0.01}) {
            const std::vector<double> crossings = crossingsAt(shape, x);
            for (std::size_t k = 0; k + 1 < crossings.size(); k += 2) {
                const double height = crossings[k + 1] - crossings[k];
                narrowest = any ? std::min(narrowest, height) : height;
                any = true;
            }
        }
    }
    return narrowest;
}

} // namespace westrum
