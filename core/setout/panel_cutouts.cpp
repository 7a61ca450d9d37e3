#include "core/setout/panel_cutouts.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6;
constexpr Mm kLeastCutout{150};
constexpr double kFingerShare = 0.5; // of a lid's narrow side: more of a hole than of a lid

/// How far a rectangle must stand back from the bounds of a hole all round to lie in it: nothing where it has sharp
/// corners, 0.29 of the radius of round ones.
double cornersOff(const Ring& hole) {
    const Bounds b = boundsOf(hole);
    const Region within{{Ring(hole.rbegin(), hole.rend())}};
    double low = 0, high = std::min(b.width(), b.height()) / 2;
    for (int i = 0; i < 24; ++i) {
        const double t = i == 0 ? 0 : (low + high) / 2, w = b.width() - 2 * t, h = b.height() - 2 * t;
        const bool fits =
            w > 0 && h > 0 && areaMm2(difference({{rectangle(b.low.x + t, b.low.y + t, w, h)}}, within)) < 1;
        if (fits && i == 0) return 0;
        (fits ? high : low) = t;
    }
    return high;
}

} // namespace

void addCutout(const SetOutRequest& request, const Ring& hole, int piece, Mm kerf, Mm gap, SetOut& out) {
    for (const OpeningFact& o : request.openings) {
        const bool own =
            contains({{hole}}, o.placed.centre) || contains({{Ring(hole.rbegin(), hole.rend())}}, o.placed.centre);
        if (!own || !o.lid) continue;
        out.lids.push_back({o.placed.opening, o.name, piece, *o.lid});
        return; // it serves as that
    }
    const Bounds b = boundsOf(hole);
    const double off = 2 * (cornersOff(hole) + kerf.value + gap.value);
    const Mm length{b.width() - off}, width{b.height() - off};
    if (std::min(length, width) < kLeastCutout) return;
    int opening = -1;
    for (const OpeningFact& o : request.openings)
        if (contains({{hole}}, o.placed.centre) || contains({{Ring(hole.rbegin(), hole.rend())}}, o.placed.centre))
            opening = o.placed.opening;
    out.cutouts.push_back({opening, piece, length, width});
}

FactoryEdges wantedEdges(const SetOutRequest& request, const Bounds& b, Mm gap) {
    FactoryEdges wants;
    const double reach = gap.value + 1;
    for (const SideFact& side : request.sides) {
        if (!side.factory || side.line.size() != 2) continue;
        const Point from = side.line.front(), to = side.line.back();
        const auto meets = [](double low, double high, double a, double c) {
            return std::min(high, std::max(a, c)) - std::max(low, std::min(a, c)) > 1;
        };
        if (std::abs(from.y - to.y) < 1 && meets(b.low.x, b.high.x, from.x, to.x)) {
            wants.near = wants.near || std::abs(b.low.y - from.y) <= reach;
            wants.far = wants.far || std::abs(b.high.y - from.y) <= reach;
        } else if (std::abs(from.x - to.x) < 1 && meets(b.low.y, b.high.y, from.y, to.y)) {
            wants.left = wants.left || std::abs(b.low.x - from.x) <= reach;
            wants.right = wants.right || std::abs(b.high.x - from.x) <= reach;
        }
    }
    return wants;
}

void checkLids(const SetOutRequest& request, Mm kerf, SetOut& out) {
    for (const OpeningFact& o : request.openings) {
        if (!o.lid) continue;
        const auto say = [&](RemarkKind kind, Facts facts) {
            facts.insert(facts.begin(), {"opening", o.name});
            out.remarks.push_back(
                {Severity::Warning, {"", Part::Opening, o.placed.opening}, kind, std::move(facts), {}});
        };
        const auto kept = std::find_if(out.lids.begin(), out.lids.end(), [&](const KeptLid& l) {
            return l.opening == o.placed.opening && l.lid == *o.lid;
        });
        if (kept == out.lids.end()) {
            say(RemarkKind::LidInPieces, {});
            continue;
        }
        if (o.lid->gap < kerf) say(RemarkKind::LidUnderKerf, {{"gap", o.lid->gap}, {"limit", kerf}});
        if (o.lid->finger && *o.lid->finger > std::min(o.lid->length, o.lid->width) * kFingerShare)
            say(RemarkKind::FingerTooLarge,
                {{"length", *o.lid->finger}, {"limit", std::min(o.lid->length, o.lid->width)}});
    }
}

void checkLoad(const SetOutRequest& request, const Piece& p, int index, std::vector<Remark>& remarks) {
    if (request.loadLength && request.loadWidth &&
        (std::max(p.length, p.width) > std::max(*request.loadLength, *request.loadWidth) + Mm{kLevel} ||
         std::min(p.length, p.width) > std::min(*request.loadLength, *request.loadWidth) + Mm{kLevel}))
        remarks.push_back({Severity::Warning,
                           {"", Part::Piece, index},
                           RemarkKind::PanelPastLoad,
                           {{"panel", p.name},
                            {"length", std::max(p.length, p.width)},
                            {"width", std::min(p.length, p.width)},
                            {"limitLength", *request.loadLength},
                            {"limitWidth", *request.loadWidth}},
                           {}});
}

} // namespace westrum
