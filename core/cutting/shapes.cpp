#include "core/cutting/shapes.h"

#include "core/cutting/shape_forms.h"
#include "core/cutting/shape_placing.h"
#include "core/cutting/shape_search.h"
#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {

namespace {

constexpr double kFuzzMm = 1e-6;

bool notNegative(double value) { return std::isfinite(value) && value >= 0; }

constexpr std::size_t kMostCorners = 4000;

bool soundRing(const Ring& ring) {
    return ring.size() <= kMostCorners && std::all_of(ring.begin(), ring.end(), [](Point p) {
               return std::isfinite(p.x) && std::isfinite(p.y) && std::abs(p.x) <= kAbsurdCutMm &&
                      std::abs(p.y) <= kAbsurdCutMm;
           });
}

/// Without corners that repeat the one before.
Ring withoutRepeats(const Ring& ring) {
    Ring result;
    for (const Point p : ring)
        if (result.empty() || distance(p, result.back()) > kFuzzMm) result.push_back(p);
    while (result.size() > 1 && distance(result.front(), result.back()) <= kFuzzMm) result.pop_back();
    return result;
}

Region regionAt0(const ShapePiece& piece) { return lying(piece, {}); }

/// Least length of the piece on the roll's middle line, over where it may lie across; 0 if it can miss that line.
double onMiddleLine(const Region& region, double widthMm) {
    const Bounds b = boundsOf(region);
    if (b.height() <= widthMm / 2) return 0;
    const double low = b.high.y - widthMm / 2;
    const double high = b.low.y + widthMm / 2;
    // Pieces that cross the middle are over half the width high: none lies in a hole lower than that.
    Region solid;
    for (const Ring& ring : region.rings)
        if (signedArea(ring) > 0 || boundsOf(ring).height() > widthMm / 2) solid.rings.push_back(ring);
    std::vector<double> levels{low, high};
    for (const Ring& ring : solid.rings)
        for (const Point p : ring)
            if (p.y > low && p.y < high) levels.push_back(p.y);
    double least = std::numeric_limits<double>::infinity();
    for (const double level : levels)
        for (const double y : {std::clamp(level - 1e-4, low, high), std::clamp(level + 1e-4, low, high)}) {
            std::vector<double> crossings;
            for (const Ring& ring : solid.rings)
                for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
                    if ((ring[i].y <= y) != (ring[j].y <= y))
                        crossings.push_back(ring[j].x +
                                            (ring[i].x - ring[j].x) * (y - ring[j].y) / (ring[i].y - ring[j].y));
            std::sort(crossings.begin(), crossings.end());
            double inside = 0;
            for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) inside += crossings[i + 1] - crossings[i];
            least = std::min(least, inside);
        }
    return std::isfinite(least) ? least : 0;
}

/// Holes must lie inside and apart: then their areas are missing from the whole, no more and no less.
bool holesAreSound(const ShapePiece& piece, const Ring& outline) {
    double missing = 0;
    bool holesSound = true;
    Region holes;
    for (const Ring& hole : piece.holes) {
        const Ring ring = withoutRepeats(hole);
        holesSound = holesSound && ring.size() >= 3 && !crossesItself(ring);
        if (!holesSound) break;
        missing += std::abs(signedArea(ring));
        holes.rings.push_back(ring);
    }
    if (holesSound && !holes.rings.empty()) {
        const Region whole{{outline}};
        const double left = areaMm2(difference(unionOf(whole.rings), unionOf(holes.rings)));
        holesSound = std::abs(std::abs(signedArea(outline)) - missing - left) < 1e-6 * missing + 0.01;
    }
    return holesSound;
}

void checkPiece(const ShapesProblem& problem, std::size_t i, CuttingFaults& faults) {
    const ShapePiece& piece = problem.pieces[i];
    bool sound = soundRing(piece.outline);
    for (const Ring& hole : piece.holes) sound = sound && soundRing(hole);
    if (!sound) {
        faults.push_back({CuttingFault::PieceAbsurd, i});
        return;
    }
    const Ring outline = withoutRepeats(piece.outline);
    if (outline.size() > 3 && crossesItself(outline)) {
        faults.push_back({CuttingFault::PieceCrosses, i});
        return;
    }
    if (outline.size() < 3 || std::abs(signedArea(outline)) < 1e-3) {
        faults.push_back({CuttingFault::PieceNotPositive, i});
        return;
    }
    if (!holesAreSound(piece, outline)) faults.push_back({CuttingFault::PieceHoleOutside, i});
    if (piece.rotationsRad.empty() ||
        !std::all_of(piece.rotationsRad.begin(), piece.rotationsRad.end(), [](double r) { return std::isfinite(r); })) {
        faults.push_back({CuttingFault::PieceNoRotation, i});
        return;
    }
    const bool fits = std::any_of(piece.rotationsRad.begin(), piece.rotationsRad.end(), [&](double rotation) {
        const Bounds b = boundsOf(turned(piece.outline, rotation));
        if (b.height() > problem.widthMm + kShapeToleranceMm ||
            b.width() > problem.lengthMm.value_or(kAbsurdCutMm) + kShapeToleranceMm)
            return false;
        // A wide repeat may leave no point across at which it fits.
        const double step = problem.repeat.acrossMm;
        if (step <= 0 || piece.offPattern) return true;
        const double first = -b.low.y + std::fmod(std::fmod(problem.repeat.phase.y + b.low.y, step) + step, step);
        return first + b.high.y <= problem.widthMm + kFuzzMm;
    });
    if (!fits && problem.widthMm > 0) faults.push_back({CuttingFault::PieceTooLarge, i});
}

/// What is placed already must be a piece that there is, and lie where it can.
void checkFixed(const ShapesProblem& problem, CuttingFaults& faults) {
    std::vector<int> used(problem.pieces.size(), 0);
    for (std::size_t f = 0; f < problem.fixed.size(); ++f) {
        const PlacedShape& placed = problem.fixed[f];
        if (placed.piece >= problem.pieces.size() || ++used[placed.piece] > problem.pieces[placed.piece].count ||
            !std::isfinite(placed.rotationRad) || !std::isfinite(placed.at.x) || !std::isfinite(placed.at.y)) {
            faults.push_back({CuttingFault::LockedUnknown, f});
            continue;
        }
        const Bounds b = boundsOf(lying(problem.pieces[placed.piece], placed));
        bool fits = b.low.x >= -kShapeToleranceMm && b.low.y >= -kShapeToleranceMm &&
                    b.high.y <= problem.widthMm + kShapeToleranceMm &&
                    b.high.x <= problem.lengthMm.value_or(kAbsurdCutMm) + kShapeToleranceMm;
        for (const Region& flaw : problem.forbidden)
            fits = fits && areaMm2(intersection(lying(problem.pieces[placed.piece], placed), flaw)) < 1;
        for (std::size_t g = 0; g < f && fits; ++g)
            fits = problem.fixed[g].piece >= problem.pieces.size() ||
                   clashMm(problem, problem.fixed[g], placed) <= kShapeToleranceMm;
        if (!fits) faults.push_back({CuttingFault::LockedDoesNotFit, f});
    }
}

} // namespace

CuttingFaults faultsOf(const ShapesProblem& problem) {
    CuttingFaults faults;
    if (problem.pieces.empty()) faults.push_back({CuttingFault::NoPieces});
    if (!std::isfinite(problem.widthMm) || problem.widthMm <= 0)
        faults.push_back({CuttingFault::StockNotPositive});
    else if (problem.widthMm > kAbsurdCutMm)
        faults.push_back({CuttingFault::StockAbsurd});
    if (problem.lengthMm && (!std::isfinite(*problem.lengthMm) || *problem.lengthMm <= 0))
        faults.push_back({CuttingFault::StockNotPositive});
    if (!notNegative(problem.gapMm) || problem.gapMm > kAbsurdCutMm) faults.push_back({CuttingFault::KerfNegative});
    if (!notNegative(problem.repeat.alongMm) || !notNegative(problem.repeat.acrossMm) ||
        !std::isfinite(problem.repeat.phase.x) || !std::isfinite(problem.repeat.phase.y))
        faults.push_back({CuttingFault::RepeatNegative});
    std::size_t pieces = 0;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) {
        const ShapePiece& piece = problem.pieces[i];
        if (piece.count < 0)
            faults.push_back({CuttingFault::PieceCountNegative, i});
        else
            pieces += std::size_t(piece.count);
        checkPiece(problem, i, faults);
    }
    if (pieces > kMostPieces) faults.push_back({CuttingFault::PieceTooMany});
    if (!faults.empty()) return faults;
    checkFixed(problem, faults);
    return faults;
}

double shortestLengthMm(const ShapesProblem& problem) {
    double area = 0;
    double longest = 0;
    double line = 0;
    int crossing = 0;
    for (const ShapePiece& piece : problem.pieces) {
        if (piece.count <= 0) continue;
        double shortest = std::numeric_limits<double>::infinity();
        double middle = std::numeric_limits<double>::infinity();
        for (const double rotation : piece.rotationsRad) {
            const Region region = lying(piece, {0, rotation, {}});
            const Bounds b = boundsOf(region);
            if (b.height() > problem.widthMm + kShapeToleranceMm) continue;
            shortest = std::min(shortest, b.width());
            middle = std::min(middle, onMiddleLine(region, problem.widthMm));
        }
        if (!std::isfinite(shortest)) continue;
        const Region region = regionAt0(piece);
        // Grown by half the gap the pieces still do not overlap.
        const Region fat = problem.gapMm > 0 ? grown(region, problem.gapMm / 2, Corners::Rounded) : region;
        area += areaMm2(fat) * piece.count;
        longest = std::max(longest, shortest);
        if (middle > 0) {
            line += middle * piece.count;
            crossing += piece.count;
        }
    }
    for (const PlacedShape& placed : problem.fixed) // what is fixed stays where it is
        if (placed.piece < problem.pieces.size())
            longest = std::max(longest, boundsOf(lying(problem.pieces[placed.piece], placed)).high.x);
    return std::max({area / (problem.widthMm + problem.gapMm) - problem.gapMm, longest,
                     line + problem.gapMm * std::max(0, crossing - 1)});
}

namespace {

double toSegment(Point p, Point a, Point b) {
    const Point ab = b - a;
    const double t = std::clamp(dot(p - a, ab) / std::max(1e-12, dot(ab, ab)), 0.0, 1.0);
    return distance(p, a + ab * t);
}

/// Distance of the edges of two regions that do not overlap, in mm.
double distanceMm(const Region& a, const Region& b) {
    double least = std::numeric_limits<double>::infinity();
    for (const Ring& r : a.rings)
        for (const Ring& q : b.rings)
            for (std::size_t i = 0; i < r.size(); ++i)
                for (std::size_t j = 0; j < q.size(); ++j) {
                    const Point p1 = r[i], p2 = r[(i + 1) % r.size()], q1 = q[j], q2 = q[(j + 1) % q.size()];
                    least = std::min({least, toSegment(p1, q1, q2), toSegment(q1, p1, p2)});
                }
    return least;
}

} // namespace

double clashMm(const ShapesProblem& problem, const PlacedShape& a, const PlacedShape& b) {
    ShapesProblem two;
    two.widthMm = kAbsurdCutMm;
    two.gapMm = problem.gapMm;
    two.pieces = {problem.pieces[a.piece], problem.pieces[b.piece]};
    two.pieces[0].rotationsRad = {a.rotationRad};
    two.pieces[1].rotationsRad = {b.rotationRad};
    two.pieces[0].count = two.pieces[1].count = 1;
    ShapeForms forms(two);
    const ShapeForms::Meeting meeting = forms.meeting(0, 1);
    const double depth = meeting.fit->depth(meeting.turn(b.at - a.at));
    if (depth <= kShapeToleranceMm || problem.gapMm <= 0) return depth;
    // The no-fit region keeps the gap from corners with a little more: what is parted is measured as it lies.
    const Region first = lying(problem.pieces[a.piece], a), second = lying(problem.pieces[b.piece], b);
    if (areaMm2(intersection(first, second)) > 0.01) return depth;
    return std::clamp(problem.gapMm - distanceMm(first, second), 0.0, depth);
}

namespace {

/// Part of an effort, up to a share of the whole.
Effort upTo(const Effort& effort, double share) {
    Effort part = effort;
    part.iterations = std::int64_t(double(effort.iterations) * share);
    if (effort.iterations > 0) part.iterations = std::max<std::int64_t>(part.iterations, 1);
    if (effort.timeSpent) part.timeSpent = [spent = effort.timeSpent, share] { return spent() / share; };
    return part;
}

/// Stock that ends: what lies beyond its end is taken off, then put back in piece by piece, the largest first.
ShapesPlan fillStock(const ShapesProblem& problem, double endMm, const Effort& effort,
                     const std::function<void(const ShapesPlan&)>& progress) {
    constexpr double kShare = 0.6; // of the effort, for all pieces together
    constexpr int kPatience = 25;
    ShapesPlan plan = placeOnRoll(problem, upTo(effort, kShare));
    if (plan.lengthMm <= endMm + kShapeToleranceMm) return plan;

    ShapeForms forms(problem);
    std::vector<ShapeSearch::Fixed> fixed;
    for (const PlacedShape& placed : problem.fixed) fixed.push_back({forms.formFor(placed), placed.at});
    for (std::size_t i = 0; i < problem.forbidden.size(); ++i) fixed.push_back({forms.obstacle(i), {}});
    std::vector<PlacedShape> kept;
    std::vector<PlacedShape> loose;
    for (std::size_t i = problem.fixed.size(); i < plan.placements.size(); ++i) {
        const PlacedShape& placed = plan.placements[i];
        const bool inside = placed.at.x + forms.form(forms.formFor(placed)).bounds.high.x <= endMm + kShapeToleranceMm;
        (inside ? kept : loose).push_back(placed);
    }
    const auto areaOf = [&](const PlacedShape& p) { return forms.form(forms.formFor(p)).areaMm2; };
    std::stable_sort(loose.begin(), loose.end(),
                     [&](const PlacedShape& a, const PlacedShape& b) { return areaOf(a) > areaOf(b); });
    const auto planNow = [&] {
        ShapesPlan now;
        now.placements = problem.fixed;
        now.placements.insert(now.placements.end(), kept.begin(), kept.end());
        for (const PlacedShape& p : now.placements)
            now.lengthMm = std::max(now.lengthMm, p.at.x + forms.form(forms.formFor(p)).bounds.high.x);
        for (const PlacedShape& p : loose) now.unplaced.push_back(p.piece);
        return now; // with pieces left over there is no bound to speak of: 0
    };
    if (progress) progress(planNow());
    std::int64_t moves = effort.iterations > 0 ? std::int64_t(double(effort.iterations) * kShare) : 0;
    Dice dice(effort.seed);
    for (int round = 0; round < 4 && !loose.empty() && effort.spent(moves) < 1; ++round)
        for (std::size_t next = 0; next < loose.size() && effort.spent(moves) < 1;) {
            std::vector<std::size_t> pieces;
            ShapeLayout layout;
            for (const PlacedShape& p : kept) {
                pieces.push_back(p.piece);
                layout.form.push_back(forms.formFor(p));
                layout.at.push_back(p.at);
            }
            pieces.push_back(loose[next].piece);
            layout.form.push_back(forms.formFor(loose[next]));
            layout.at.push_back({dice.unit() * endMm, dice.unit() * problem.widthMm});
            ShapeSearch search(problem, forms, pieces, fixed, dice.bits());
            search.setLayout(std::move(layout));
            search.pushInside(endMm);
            if (!search.separate(endMm, kPatience, effort, moves) ||
                search.lengthOf(search.layout()) > endMm + kShapeToleranceMm) {
                ++next;
                continue;
            }
            kept.clear();
            for (std::size_t i = 0; i < pieces.size(); ++i)
                kept.push_back({pieces[i], forms.form(search.layout().form[i]).rotationRad, search.layout().at[i]});
            loose.erase(loose.begin() + std::ptrdiff_t(next));
            if (progress) progress(planNow());
        }
    return planNow();
}

} // namespace

ShapesPlan placeShapes(const ShapesProblem& problem, const Effort& effort,
                       const std::function<void(const ShapesPlan&)>& progress) {
    if (problem.lengthMm) return fillStock(problem, *problem.lengthMm, effort, progress);
    return placeOnRoll(problem, effort, progress);
}

} // namespace westrum
