#include "core/setout/set_out.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace westrum {
M2 SetOut::laidArea() const { return {areaMm2(net) / 1e6}; }

std::vector<CarriedPiece> carriedPieces(const SetOut& setOut, std::span<const OpeningFact> openings) {
    std::vector<CarriedPiece> carried;
    for (const OpeningFact& o : openings) {
        if (o.kind != OpeningKind::Hatch || o.treatment != Treatment::CoverAndRout) continue;
        const Region hatch{{Ring(o.placed.shape.rbegin(), o.placed.shape.rend())}};
        for (std::size_t i = 0; i < setOut.pieces.size(); ++i)
            if (Region part = intersection(setOut.pieces[i].shape, hatch); areaMm2(part) > 1)
                carried.push_back({o.placed.opening, static_cast<int>(i), std::move(part)});
    }
    return carried;
}

void markFeature(SetOut& setOut, Point seen) {
    Piece* best = nullptr;
    double nearest = 0;
    for (Piece& p : setOut.pieces) {
        if (p.kind != PieceKind::Whole || p.notched) continue;
        const Bounds b = boundsOf(p.shape);
        const double away = distance((b.low + b.high) * 0.5, seen);
        if (best && away >= nearest) continue;
        best = &p;
        nearest = away;
    }
    if (best) best->feature = true;
}

namespace {

/// What of a hidden zone stays bare when its edges are reached under: those along which something is seen. Where it
/// stands against the end of the surface there is nothing to reach under from.
Region reachedUnder(const Region& zone, const Region& outline, Mm bearing) {
    constexpr double kTouches = 0.05; // mm: rounding between a zone and the side it stands at
    const Bounds b = boundsOf(zone);
    const double more = 2 * bearing.value + 1;
    const Region around{{rectangle(b.low.x - more, b.low.y - more, b.width() + 2 * more, b.height() + 2 * more)}};
    const Region beyond = difference(around, inset(outline, kTouches));
    return intersection(inset(unionOf(zone, beyond), bearing.value), zone);
}

} // namespace

Region toCover(const SetOutRequest& request, bool leaveBare, Mm bearing, Mm gap) {
    Region outline = request.outline;
    for (const SideFact& side : request.sides) {
        if (side.kind != EdgeKind::MovementGap || !side.allowance) continue;
        const double further = (*side.allowance - gap).value;
        if (further > 0)
            outline = difference(outline, stripAlong(side.line, further));
        else if (further < 0)
            outline = unionOf(outline, stripAlong(side.line, further));
    }
    if (!leaveBare || request.hidden.empty()) return outline;
    std::vector<Ring> bare;
    for (const Region& zone : request.hidden)
        for (const Ring& ring : (bearing.value > 0 ? reachedUnder(zone, request.outline, bearing) : zone).rings)
            bare.push_back(ring);
    return bare.empty() ? outline : difference(outline, unionOf(bare));
}

std::vector<double> supportsAcross(const SetOutRequest& request, bool rowsAcross) {
    std::vector<double> centres;
    for (const PlacedSupport& s : request.supports) {
        if (s.along == rowsAcross) centres.push_back(s.centre);
    }
    std::sort(centres.begin(), centres.end());
    return centres;
}

std::vector<Suggestion> suggestStarts(std::span<const StartChoice> starts, int unitsPerPack) {
    std::vector<StartChoice> candidates;
    for (const StartChoice& s : starts)
        if (s.stock > 0 && s.fair) candidates.push_back(s);
    if (candidates.empty())
        for (const StartChoice& s : starts)
            if (s.stock > 0) candidates.push_back(s);
    if (candidates.empty()) return {};

    const auto packs = [&](const StartChoice& s) { return (s.stock + unitsPerPack - 1) / unitsPerPack; };
    // Differences of two millimetres are within the sawing: such rows are equal.
    // A grid has edges in both directions: the worse counts.
    const auto exactly = [](const StartChoice& s) {
        return std::max(std::abs(s.firstRow.value - s.lastRow.value), s.figures.unevenness.value);
    };
    const auto unevenness = [&](const StartChoice& s) {
        return exactly(s) <= 2 ? 0 : static_cast<int>(std::lround(exactly(s)));
    };
    const auto best = [&](const auto& key) {
        return *std::min_element(candidates.begin(), candidates.end(),
                                 [&](const StartChoice& a, const StartChoice& b) { return key(a) < key(b); });
    };
    const std::array<Suggestion, 3> found{{
        {SuggestionReason::EqualEdges, best([&](const StartChoice& s) {
             return std::tuple(unevenness(s), packs(s), s.rows, s.slivers, s.stock, exactly(s));
         })},
        {SuggestionReason::FewestUnits,
         best([&](const StartChoice& s) { return std::tuple(packs(s), s.stock, s.slivers, unevenness(s)); })},
        {SuggestionReason::FewestSlivers,
         best([&](const StartChoice& s) { return std::tuple(s.slivers, packs(s), s.stock, unevenness(s)); })},
    }};
    std::vector<Suggestion> kept;
    for (const Suggestion& s : found) {
        const bool addsNothing = std::any_of(kept.begin(), kept.end(), [&](const Suggestion& k) {
            return k.choice.stock <= s.choice.stock && k.choice.slivers <= s.choice.slivers &&
                   unevenness(k.choice) <= unevenness(s.choice);
        });
        if (!addsNothing) kept.push_back(s);
    }
    // Further ways, each only if it is better in its own figure than all that are kept.
    const auto add = [&](SuggestionReason reason, const auto& figure) {
        if (kept.size() >= 3) return;
        const StartChoice choice = best([&](const StartChoice& s) { return std::tuple(figure(s), packs(s), s.stock); });
        for (const Suggestion& k : kept)
            if (figure(k.choice) <= figure(choice)) return;
        kept.push_back({reason, choice});
    };
    add(SuggestionReason::OnSupports,
        [](const StartChoice& s) { return s.figures.jointsOffSupport + s.figures.jointsInLine; });
    add(SuggestionReason::WidestEdge,
        [](const StartChoice& s) { return -std::floor(s.figures.narrowestEdge.value / 5); });
    add(SuggestionReason::FewestPieces, [](const StartChoice& s) { return s.figures.pieces; });
    return kept;
}

} // namespace westrum
