#include "core/shell/arch_box.h"

#include <cmath>
#include <numbers>

namespace westrum {
namespace {

double mm(const MaybeReading& r) { return r ? r->length.value : 0; }

MaybeReading exactly(double length) { return Reading{{}, {std::round(length * 10) / 10}}; }

Measurement rectangleOf(const MaybeReading& along, const MaybeReading& across) {
    Measurement m;
    m.form = OutlineForm::Rectangle;
    m.readings[static_cast<std::size_t>(QuadReading::AB)] = along;
    m.readings[static_cast<std::size_t>(QuadReading::BC)] = across;
    return m;
}

} // namespace

BoxAnswer boxParts(const ArchBox& box) {
    const double l = mm(box.length), h = mm(box.height), d = mm(box.depth), r = mm(box.rake), t = mm(box.thickness),
                 s = mm(box.scribe);
    if (l <= 0) return {{}, BoxFault::LengthMissing};
    if (h <= 0) return {{}, BoxFault::HeightMissing};
    if (d <= 0) return {{}, BoxFault::DepthMissing};
    if (r >= d) return {{}, BoxFault::RakeBeyondDepth};
    const double below = h - t, leant = r * below / h; // up to the underside of the top
    const double level = t * std::hypot(h, r) / h;     // the face's thickness along the floor
    if (below <= 0 || d - leant - level <= 0 || l - 2 * t <= 0) return {{}, BoxFault::TooThick};
    const bool outside = box.lap == BoxLap::EndsOutside;
    BoxParts p;
    p.topLength = l;
    p.topDepth = d - leant + s; // its front edge is bevelled: wider below than above
    p.faceLength = outside ? l - 2 * t : l;
    p.faceHeight = std::hypot(below, leant);
    p.endDepth = d - (outside ? 0 : level) + s;
    p.endDepthAbove = p.endDepth - leant;
    p.endHeight = below;
    p.areaM2 =
        (p.topLength * p.topDepth + p.faceLength * p.faceHeight + (p.endDepth + p.endDepthAbove) * p.endHeight) / 1e6;
    p.faceFromLevelRad = r > 0 ? std::atan2(h, r) : std::numbers::pi / 2;
    return {p, {}};
}

Measurement boxTop(const ArchBox& box) {
    return rectangleOf(box.length, mm(box.rake) > 0 ? exactly(mm(box.depth) - mm(box.rake)) : box.depth);
}

Measurement boxFace(const ArchBox& box) {
    return rectangleOf(box.length, mm(box.rake) > 0 ? exactly(std::hypot(mm(box.height), mm(box.rake))) : box.height);
}

Measurement boxEnd(const ArchBox& box, bool front) {
    if (mm(box.rake) <= 0) return rectangleOf(box.depth, box.height);
    const double d = mm(box.depth), h = mm(box.height), r = mm(box.rake);
    Measurement m;
    m.form = OutlineForm::FourSides;
    const auto put = [&](QuadReading which, MaybeReading reading) {
        m.readings[static_cast<std::size_t>(which)] = std::move(reading);
    };
    put(QuadReading::AB, box.depth);
    put(front ? QuadReading::BC : QuadReading::DA, box.height);
    put(front ? QuadReading::DA : QuadReading::BC, exactly(std::hypot(h, r)));
    put(QuadReading::CD, exactly(d - r));
    // From the wall's foot up to the face, and from the face's foot up to the wall.
    put(front ? QuadReading::BD : QuadReading::AC, exactly(std::hypot(d - r, h)));
    put(front ? QuadReading::AC : QuadReading::BD, exactly(std::hypot(d, h)));
    return m;
}

} // namespace westrum
