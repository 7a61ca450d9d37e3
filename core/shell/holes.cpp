#include "core/shell/holes.h"

#include "core/shell/shape.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

const Opening& openingOf(const std::vector<TiedSurface>& all, const HoleSide& side) {
    return all[side.surface].surface->openings[side.opening];
}

/// Of the first of a row, its two sizes, the smaller one first: which is called the width follows from the side that it
/// is dimensioned from.
struct Sizes {
    double small{}, large{};
};
std::optional<Sizes> sizesOf(const Opening& o) {
    const MaybeReading& other = o.shape == OpeningShape::Round ? o.width : o.height;
    if (!o.width || !other) return std::nullopt;
    const auto [small, large] = std::pair(std::min(o.width->length.value, other->length.value),
                                          std::max(o.width->length.value, other->length.value));
    return Sizes{small, large};
}

Remark differ(const std::vector<TiedSurface>& all, const HoleSide& a, const HoleSide& b, double mine, double theirs,
              double limit) {
    const TiedSurface& t = all[a.surface];
    return {Severity::Warning,
            Place{t.surface->id, Part::Opening, static_cast<int>(a.opening)},
            RemarkKind::HoleSidesDiffer,
            {{"opening", openingOf(all, a).name},
             {"length", Mm{mine}},
             {"other", all[b.surface].surface->name},
             {"otherLength", Mm{theirs}},
             {"difference", Mm{std::abs(mine - theirs)}},
             {"limit", Mm{limit}}},
            {}};
}

} // namespace

std::optional<std::size_t> openingOfKey(std::string_view key) {
    std::size_t place{};
    if (!key.starts_with('o')) return std::nullopt;
    const auto [end, error] = std::from_chars(key.data() + 1, key.data() + key.size(), place);
    if (error != std::errc() || end == key.data() + key.size() || *end != '.') return std::nullopt;
    return place;
}

std::vector<Hole> holesOf(const std::vector<TiedSurface>& surfaces) {
    std::vector<Hole> holes;
    for (std::size_t i = 0; i < surfaces.size(); ++i) {
        if (!surfaces[i].measured->measured()) continue;
        const std::vector<Opening>& openings = surfaces[i].surface->openings;
        for (std::size_t k = 0; k < openings.size(); ++k) {
            const std::string& name = openings[k].hole;
            if (name.empty()) continue;
            auto hole = std::find_if(holes.begin(), holes.end(), [&](const Hole& h) { return h.name == name; });
            if (hole == holes.end()) hole = holes.insert(holes.end(), {name, {}});
            // A surface has one side of a hole.
            if (hole->sides.empty() || hole->sides.back().surface != i) hole->sides.push_back({i, k});
        }
    }
    std::erase_if(holes, [](const Hole& h) { return h.sides.size() < 2; });
    return holes;
}

std::optional<Point> middleOfHole(const std::vector<TiedSurface>& surfaces, const HoleSide& side) {
    const Opening& o = openingOf(surfaces, side);
    const MaybeReading& height = o.shape == OpeningShape::Round ? o.width : o.height;
    if (!o.width || !height || o.count > 1) return std::nullopt;
    const auto box = placedBox(o.place, o.width->length.value, height->length.value, *surfaces[side.surface].measured);
    return box ? std::optional(((*box)[0] + (*box)[2]) * 0.5) : std::nullopt;
}

std::vector<Remark> holeRemarks(const std::vector<TiedSurface>& surfaces) {
    std::vector<Remark> remarks;
    const std::vector<Hole> holes = holesOf(surfaces);
    const double limit = 3 * kTapeErrorMm * std::numbers::sqrt2;
    for (const Hole& hole : holes)
        for (std::size_t k = 1; k < hole.sides.size(); ++k) {
            const auto mine = sizesOf(openingOf(surfaces, hole.sides[0])),
                       theirs = sizesOf(openingOf(surfaces, hole.sides[k]));
            if (!mine || !theirs) continue;
            for (const double Sizes::*size : {&Sizes::small, &Sizes::large})
                if (std::abs((*mine).*size - (*theirs).*size) > limit)
                    remarks.push_back(
                        differ(surfaces, hole.sides[0], hole.sides[k], (*mine).*size, (*theirs).*size, limit));
        }
    // From the middle of one hole to that of another there are four readings more on either side.
    const double far = 3 * kTapeErrorMm * std::sqrt(8.0);
    for (std::size_t a = 0; a < holes.size(); ++a)
        for (std::size_t b = a + 1; b < holes.size(); ++b) {
            struct Apart {
                HoleSide side;
                double mm{};
            };
            std::vector<Apart> apart;
            for (const HoleSide& s : holes[a].sides)
                for (const HoleSide& o : holes[b].sides) {
                    if (s.surface != o.surface) continue;
                    const auto from = middleOfHole(surfaces, s), to = middleOfHole(surfaces, o);
                    if (from && to) apart.push_back({o, distance(*from, *to)});
                }
            for (std::size_t k = 1; k < apart.size(); ++k)
                if (std::abs(apart[0].mm - apart[k].mm) > far) {
                    Remark r = differ(surfaces, apart[0].side, apart[k].side, apart[0].mm, apart[k].mm, far);
                    r.kind = RemarkKind::HolesApartDiffer;
                    r.facts.emplace_back("from", openingOf(surfaces, holes[a].sides[0]).name);
                    remarks.push_back(std::move(r));
                }
        }
    return remarks;
}

} // namespace westrum
