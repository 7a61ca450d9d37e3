#include "core/cutting/shape_forms.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace westrum {

namespace {

// Shapes are grown by half the gap less half of this, so that what was one piece fits together again.
constexpr double kSlackMm = 0.015;

Region regionOf(const Ring& outline, const std::vector<Ring>& holes) {
    Region region;
    region.rings.push_back(outline);
    if (signedArea(outline) < 0) std::reverse(region.rings[0].begin(), region.rings[0].end());
    for (const Ring& hole : holes) {
        region.rings.push_back(hole);
        if (signedArea(hole) > 0) std::reverse(region.rings.back().begin(), region.rings.back().end());
    }
    return region;
}

std::vector<GridRing> collisionParts(const Region& region, double gapMm) {
    const Region fat = grown(region, (gapMm - kSlackMm) / 2);
    std::vector<GridRing> parts = convexParts(fat);
    // A sliver thinner than the slack would vanish: it is taken as it is.
    if (parts.empty()) parts = convexParts(region);
    return parts;
}

/// Corners and the middles of edges, from the low corner of the bounds.
std::vector<Point> landmarks(const Region& region) {
    const Point low = boundsOf(region).low;
    std::vector<Point> list;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            list.push_back(ring[i] - low);
            list.push_back((ring[i] + ring[(i + 1) % ring.size()]) * 0.5 - low);
        }
    return list;
}

constexpr double kSameMm = 0.2; // off: a piece that is turned looks the same

/// Told at once of most pairs that are not alike.
bool alikeIn(const Bounds& a, const Bounds& b) {
    return std::abs(a.width() - b.width()) < kSameMm && std::abs(a.height() - b.height()) < kSameMm;
}

/// Whether two regions differ by no more than where they lie.
bool alike(const Region& a, const Region& b) {
    const auto meets = [](const std::vector<Point>& list, const std::vector<Point>& other) {
        return std::all_of(list.begin(), list.end(), [&](Point p) {
            return std::any_of(other.begin(), other.end(),
                               [&](Point q) { return std::abs(p.x - q.x) < kSameMm && std::abs(p.y - q.y) < kSameMm; });
        });
    };
    const std::vector<Point> ofA = landmarks(a);
    const std::vector<Point> ofB = landmarks(b);
    return meets(ofA, ofB) && meets(ofB, ofA);
}

} // namespace

Region lying(const ShapePiece& piece, const PlacedShape& placed) {
    std::vector<Ring> holes;
    for (const Ring& hole : piece.holes) holes.push_back(turned(hole, placed.rotationRad));
    return moved(regionOf(turned(piece.outline, placed.rotationRad), holes), placed.at);
}

ShapeForms::ShapeForms(const ShapesProblem& problem) : problem_(problem) {
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        ofPiece_.emplace_back();
        if (problem.pieces[i].count <= 0) continue;
        std::vector<int>& forms = ofPiece_.back();
        // Against a pattern a piece that looks the same lies elsewhere: its origin tells.
        const bool patterned =
            (problem.repeat.alongMm > 0 || problem.repeat.acrossMm > 0) && !problem.pieces[i].offPattern;
        for (const double rotation : problem.pieces[i].rotationsRad) {
            Region region = lying(problem.pieces[i], {i, rotation, {}});
            const Bounds bounds = boundsOf(region);
            if (bounds.height() > problem.widthMm + kShapeToleranceMm) continue;
            const auto same = [&](int known) {
                return alikeIn(form(known).bounds, bounds) && alike(form(known).region, region);
            };
            if (patterned || std::none_of(forms.begin(), forms.end(), same))
                forms.push_back(add(i, rotation, std::move(region)));
        }
    }
    for (const Region& region : problem.forbidden) obstacles_.push_back(add(problem.pieces.size(), 0, region));
    for (const PlacedShape& placed : problem.fixed) formFor(placed);
}

int ShapeForms::add(std::size_t piece, double rotationRad, Region region) {
    auto form = std::make_unique<ShapeForm>();
    form->piece = piece;
    form->rotationRad = rotationRad;
    form->bounds = boundsOf(region);
    form->areaMm2 = areaMm2(region);
    form->region = std::move(region);
    forms_.push_back(std::move(form));
    return int(forms_.size()) - 1;
}

const std::vector<GridRing>& ShapeForms::partsOf(int index) {
    ShapeForm& form = *forms_[std::size_t(index)];
    const std::scoped_lock lock(mutex_);
    if (form.parts.empty()) form.parts = collisionParts(form.region, problem_.gapMm);
    return form.parts;
}

int ShapeForms::formFor(const PlacedShape& placed) {
    for (const int form : ofPiece_[placed.piece])
        if (forms_[std::size_t(form)]->rotationRad == placed.rotationRad) return form;
    const auto [at, fresh] = others_.try_emplace({placed.piece, placed.rotationRad}, 0);
    if (fresh)
        at->second = add(placed.piece, placed.rotationRad,
                         lying(problem_.pieces[placed.piece], {placed.piece, placed.rotationRad, {}}));
    return at->second;
}

std::pair<int, int> ShapeForms::sharedBy(int a, int b) const {
    const ShapeForm& first = form(a);
    const ShapeForm& second = form(b);
    if (std::max(first.piece, second.piece) >= ofPiece_.size()) return {a, b}; // a forbidden region
    constexpr double kSameRad = 1e-9;
    const double turned = second.rotationRad - first.rotationRad;
    for (const int c : ofPiece_[first.piece]) {
        if (c >= a) break;
        for (const int d : ofPiece_[second.piece]) {
            const double off = std::abs(form(d).rotationRad - form(c).rotationRad - turned);
            if (off < kSameRad || std::abs(off - 2 * std::numbers::pi) < kSameRad) return {c, d};
        }
    }
    return {a, b};
}

ShapeForms::Meeting ShapeForms::meeting(int a, int b) {
    if (a > b) {
        const Meeting other = meeting(b, a);
        return {other.fit, {-other.turn.cos, -other.turn.sin}};
    }
    const auto [c, d] = sharedBy(a, b);
    const double turned = form(c).rotationRad - form(a).rotationRad;
    const auto exact = [](double value) { // of quarter turns
        return std::abs(value - std::round(value)) < 1e-12 ? std::round(value) : value;
    };
    return {&noFit(c, d), {exact(std::cos(turned)), exact(std::sin(turned))}};
}

const NoFit& ShapeForms::noFit(int a, int b) {
    const std::uint64_t key = std::uint64_t(a) << 32 | std::uint64_t(b);
    {
        const std::scoped_lock lock(mutex_);
        if (const auto found = noFits_.find(key); found != noFits_.end()) return *found->second;
    }
    auto fit = std::make_unique<NoFit>(partsOf(a), partsOf(b));
    const std::scoped_lock lock(mutex_);
    return *noFits_.try_emplace(key, std::move(fit)).first->second;
}

} // namespace westrum
