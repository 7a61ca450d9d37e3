#include "core/shell/section.h"

#include "core/measure/developed.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Turn and length of a part that may bend either way.
double turnOf(const ProfilePart& p) { return 4 * std::atan(2 * p.rise / p.length); }
double lengthOf(const ProfilePart& p) {
    const double turn = turnOf(p);
    return std::abs(turn) < 1e-6 ? p.length : (p.length * p.length / 4 + p.rise * p.rise) / (2 * p.rise) * turn;
}

/// Points of a profile as it goes on from its foot. Arcs turn towards the inside.
std::vector<SectionPoint> pointsOf(const std::vector<ProfilePart>& parts) {
    std::vector<SectionPoint> section{{}};
    double angle = 0;
    for (const ProfilePart& p : parts) {
        const double turn = turnOf(p);
        const int pieces = std::abs(turn) > 1e-6 ? 64 : 1;
        const double step = lengthOf(p) / pieces, bend = turn / pieces;
        const double chord = pieces > 1 ? step * std::sin(bend / 2) / (bend / 2) : step;
        for (int i = 0; i < pieces; ++i) {
            const double way = angle + bend / 2;
            const SectionPoint& last = section.back();
            section.push_back(
                {last.inside + chord * std::sin(way), last.high + chord * std::cos(way), last.along + step});
            angle += bend;
        }
    }
    return section;
}

std::vector<SectionPoint> turned(std::vector<SectionPoint> section, double by) {
    const double c = std::cos(by), s = std::sin(by);
    for (SectionPoint& p : section) p = {p.inside * c + p.high * s, p.high * c - p.inside * s, p.along};
    return section;
}

} // namespace

std::vector<ProfilePart> profileOf(const Surface& surface) {
    std::vector<ProfilePart> parts;
    if (surface.measurement.curve.curving == Curving::Flat) return parts;
    for (const CurveReadings::Part& p : surface.measurement.curve.parts)
        if (p.length && p.length->length.value > 0)
            parts.push_back({p.length->length.value, p.rise ? std::max(0.0, p.rise->length.value) : 0});
    return parts;
}

SectionPoint profileAt(const std::vector<ProfilePart>& profile, double along) {
    SectionPoint at;
    double angle = 0;
    for (std::size_t k = 0; k < profile.size(); ++k) {
        const ProfilePart& p = profile[k];
        const double turn = turnOf(p), length = lengthOf(p);
        const bool last = k + 1 == profile.size();
        const double part = along < at.along + length ? along - at.along : length;
        const double bend = length > 1e-9 ? turn * part / length : 0;
        const double chord = std::abs(bend) > 1e-9 ? part * std::sin(bend / 2) / (bend / 2) : part;
        at = {at.inside + chord * std::sin(angle + bend / 2), at.high + chord * std::cos(angle + bend / 2),
              at.along + part};
        angle += bend;
        if (at.along >= along) return at;
        if (last) { // on along the tangent
            const double beyond = along - at.along;
            at = {at.inside + beyond * std::sin(angle), at.high + beyond * std::cos(angle), along};
        }
    }
    return profile.empty() ? SectionPoint{0, along, along} : at;
}

std::vector<SectionPoint> sectionOverChord(const std::vector<ProfilePart>& profile, double height) {
    if (profile.empty()) return {{0, 0, 0}, {0, height, height}};
    const SectionPoint top = profileAt(profile, height);
    std::vector<SectionPoint> section = pointsOf(profile);
    std::erase_if(section, [&](const SectionPoint& p) { return p.along >= height - 1e-9; });
    section.push_back(top);
    return turned(std::move(section), -std::atan2(top.inside, top.high));
}

std::vector<SectionPoint> sectionOf(const Surface& surface, double height) {
    const std::vector<ProfilePart> profile = profileOf(surface);
    std::vector<SectionPoint> section =
        profile.empty() ? std::vector<SectionPoint>{{0, 0, 0}, {0, height, height}} : pointsOf(profile);
    const SectionPoint top = section.back();
    const double chord = std::hypot(top.inside, top.high);
    const bool bowFromFoot = section.size() > 2 && profile.front().rise > 0;
    double turn = 0;
    if (surface.lean && chord > 0) {
        const double inside = std::clamp(surface.lean->length.value * (surface.leansOut ? -1 : 1), -chord, chord);
        turn = std::asin(inside / chord) - std::atan2(top.inside, top.high);
    } else if (bowFromFoot) {
        turn = -std::atan2(top.inside, top.high);
    }
    return turned(std::move(section), turn);
}

double alongAt(const std::vector<SectionPoint>& section, double plumb) {
    std::size_t k = 1;
    while (k + 1 < section.size() && section[k].high < plumb) ++k;
    const SectionPoint &a = section[k - 1], &b = section[k];
    const double rise = b.high - a.high;
    return rise > 1e-9 ? a.along + (b.along - a.along) * (plumb - a.high) / rise : a.along;
}

} // namespace westrum
