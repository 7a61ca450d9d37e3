#include "core/shell/datum.h"

#include "core/measure/cutouts.h"
#include "core/measure/developed.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

double mmOf(const MaybeReading& r, double otherwise) { return r ? r->length.value : otherwise; }

bool standsAcross(SurfaceKind kind) {
    return kind == SurfaceKind::Bulkhead || kind == SurfaceKind::RearDoors || kind == SurfaceKind::RearDoor;
}

/// A point of the section through a surface: how far inside its foot, and how high over it.
struct SectionPoint {
    double inside{}, high{}, along{};
};

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

FloorFrame floorFrameOf(const std::vector<TiedSurface>& surfaces) {
    FloorFrame frame;
    const auto floor = std::find_if(surfaces.begin(), surfaces.end(), [](const TiedSurface& t) {
        return t.surface->kind == SurfaceKind::Floor && t.measured->measured();
    });
    if (floor == surfaces.end()) return frame;
    const Bounds b = boundsOf(floor->measured->frame);
    frame.length = {b.width()};
    for (int side = 0; side < static_cast<int>(floor->measured->sides.size()); ++side) {
        const Edge edge = floor->surface->edge(side);
        if (edge.kind != EdgeKind::Meets) continue;
        const Ring& points = floor->measured->sides[static_cast<std::size_t>(side)];
        const double from = std::min(points.front().x, points.back().x),
                     to = std::max(points.front().x, points.back().x);
        const bool across = to - from < std::abs(points.front().y - points.back().y);
        frame.standsAt[edge.surface] = Mm{(across ? (from + to) / 2 : from) - b.low.x};
    }
    return frame;
}

double alongSurface(const Surface& surface, double height, double plumb) {
    std::vector<SectionPoint> section = profileSection(surface, height);
    // Turned about the foot until the upper edge stands where it was plumbed; unsaid, a foot that is straight rises
    // plumb, and a bow stands with its ends over each other.
    const SectionPoint top = section.back();
    const double chord = std::hypot(top.inside, top.high);
    const auto& parts = surface.measurement.curve.parts;
    const bool bowFromFoot =
        section.size() > 2 && !parts.empty() && parts.front().rise && parts.front().rise->length.value > 0;
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
    // Beyond an end as the surface goes on there.
    std::size_t k = 1;
    while (k + 1 < section.size() && section[k].high < plumb) ++k;
    const SectionPoint &a = section[k - 1], &b = section[k];
    const double rise = b.high - a.high;
    return rise > 1e-9 ? a.along + (b.along - a.along) * (plumb - a.high) / rise : a.along;
}

std::optional<DatumLine> datumLevelOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                      const FloorFrame& floor) {
    if (liesLevel(surface.kind) || !measured.measured() || (!datum.rear && !datum.front)) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    const SideLine lower = lowerEdge(measured);
    const double rear = mmOf(datum.rear, mmOf(datum.front, 0)), front = mmOf(datum.front, rear);
    const double length = std::max(floor.length.value, 0.0);
    const auto heightOverFloor = [&](double fromRear) {
        return length > 0 ? rear + (front - rear) * std::clamp(fromRear / length, 0.0, 1.0) : rear;
    };
    const bool across = standsAcross(surface.kind);
    const auto tied = floor.standsAt.find(surface.id);
    const double byTie = tied != floor.standsAt.end()            ? tied->second.value
                         : surface.kind == SurfaceKind::Bulkhead ? length
                                                                 : 0;
    const double start = mmOf(surface.fromRear, byTie);
    const double lowRear = mmOf(surface.heightRear, mmOf(surface.heightFront, 0));
    const double lowFront = mmOf(surface.heightFront, lowRear);
    // Across the van both ends lie equally far from the rear.
    const bool runsToRear = surface.hand == Hand::Right && !across;
    const double edge = std::max(1e-6, lower.to.x - lower.from.x);
    const auto at = [&](double x) {
        const double share = (x - lower.from.x) / edge; // of the lower edge, from its left end
        const double forwards = runsToRear ? 1 - share : share;
        const double low = lowRear + (lowFront - lowRear) * forwards;
        const double plumb = heightOverFloor(across ? start : start + edge * forwards) - low;
        const double foot = lower.from.y + (lower.to.y - lower.from.y) * share;
        return Point{x, foot + alongSurface(surface, b.high.y - foot, plumb)};
    };
    return DatumLine{at(b.low.x), at(b.high.x)};
}

std::optional<DatumLine> datumOn(const Surface& surface, const MeasuredOutline& measured, const Datum& datum,
                                 const FloorFrame& floor) {
    const auto line = datumLevelOn(surface, measured, datum, floor);
    if (!line) return std::nullopt;
    const Bounds b = boundsOf(measured.frame);
    if (std::max(line->left.y, line->right.y) < b.low.y || std::min(line->left.y, line->right.y) > b.high.y)
        return std::nullopt;
    return line;
}

} // namespace westrum
