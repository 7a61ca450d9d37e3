#include "core/measure/developed.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace westrum {

double radiusOf(const ProfilePart& p) {
    assert(p.rise > 0);
    return (p.length * p.length / 4 + p.rise * p.rise) / (2 * p.rise);
}

double angleRadOf(const ProfilePart& p) { return p.rise > 0 ? 4 * std::atan(2 * p.rise / p.length) : 0; }

double arcLengthOf(const ProfilePart& p) { return p.rise > 0 ? radiusOf(p) * angleRadOf(p) : p.length; }

Developed developed(const std::vector<ProfilePart>& profile) {
    Developed d;
    double straightAcross = 0;
    for (const ProfilePart& p : profile) {
        d.width = d.width + Mm{arcLengthOf(p)};
        straightAcross += p.length;
        if (p.rise > 0) {
            const Mm radius{radiusOf(p)};
            d.leastRadius = d.leastRadius ? std::min(*d.leastRadius, radius) : radius;
        }
    }
    d.chordShortfall = d.width - Mm{straightAcross};
    return d;
}

Mm cutWidth(const std::vector<ProfilePart>& profile, Mm sheetThickness, CurveSide side) {
    const double shift = sheetThickness.value / 2 * (side == CurveSide::Inside ? -1 : 1);
    double width = 0;
    for (const ProfilePart& p : profile) width += arcLengthOf(p) + shift * angleRadOf(p);
    return {width};
}

double stretchOfDoubleCurve(Mm width, Mm height, Mm radiusAcross, Mm radiusAlong) {
    const double halfDiagonalSquared = (width.value * width.value + height.value * height.value) / 4;
    return halfDiagonalSquared / (6 * radiusAcross.value * radiusAlong.value);
}

} // namespace westrum
