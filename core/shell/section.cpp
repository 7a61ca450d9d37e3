#include "core/shell/section.h"

#include "core/measure/developed.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// The section as its profile has it, from a foot that rises plumb. Arcs turn towards the inside.
std::vector<SectionPoint> profileSection(const Surface& surface, double height) {
    std::vector<ProfilePart> parts;
    for (const CurveReadings::Part& p : surface.measurement.curve.parts)
        if (p.length && p.length->length.value > 0)
            parts.push_back({p.length->length.value, p.rise ? std::max(0.0, p.rise->length.value) : 0});
    double all = 0;
    for (const ProfilePart& p : parts) all += arcLengthOf(p);
    if (surface.measurement.curve.curving == Curving::Flat || all <= 0) return {{0, 0, 0}, {0, height, height}};
    std::vector<SectionPoint> section{{}};
    double angle = 0;
    for (const ProfilePart& p : parts) {
        const int pieces = p.rise > 0 ? 64 : 1;
        for (int i = 0; i < pieces; ++i) {
            const double turn = angleRadOf(p) / pieces, way = angle + turn / 2;
            const double chord = p.rise > 0 ? 2 * radiusOf(p) * std::sin(turn / 2) : p.length;
            const SectionPoint& last = section.back();
            section.push_back({last.inside + chord * std::sin(way), last.high + chord * std::cos(way),
                               last.along + arcLengthOf(p) / pieces});
            angle += turn;
        }
    }
    return section;
}

} // namespace

std::vector<SectionPoint> sectionOf(const Surface& surface, double height) {
    std::vector<SectionPoint> section = profileSection(surface, height);
    const SectionPoint top = section.back();
    const double chord = std::hypot(top.inside, top.high);
    const auto& parts = surface.measurement.curve.parts;
    const bool bowFromFoot = section.size() > 2 && parts.front().rise && parts.front().rise->length.value > 0;
    double turn = 0;
    if (surface.lean && chord > 0) {
        const double inside = std::clamp(surface.lean->length.value * (surface.leansOut ? -1 : 1), -chord, chord);
        turn = std::asin(inside / chord) - std::atan2(top.inside, top.high);
    } else if (bowFromFoot) {
        turn = -std::atan2(top.inside, top.high);
    }
    for (SectionPoint& p : section)
        p = {p.inside * std::cos(turn) + p.high * std::sin(turn), p.high * std::cos(turn) - p.inside * std::sin(turn),
             p.along};
    return section;
}

double alongAt(const std::vector<SectionPoint>& section, double plumb) {
    std::size_t k = 1;
    while (k + 1 < section.size() && section[k].high < plumb) ++k;
    const SectionPoint &a = section[k - 1], &b = section[k];
    const double rise = b.high - a.high;
    return rise > 1e-9 ? a.along + (b.along - a.along) * (plumb - a.high) / rise : a.along;
}

double chordAt(const std::vector<SectionPoint>& section, double along) {
    std::size_t k = 1;
    while (k + 1 < section.size() && section[k].along < along) ++k;
    const SectionPoint &a = section[k - 1], &b = section[k];
    const double step = b.along - a.along, part = step > 1e-9 ? (along - a.along) / step : 0;
    return std::hypot(a.inside + (b.inside - a.inside) * part, a.high + (b.high - a.high) * part);
}

} // namespace westrum
