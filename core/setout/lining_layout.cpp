#include "core/setout/lining_layout.h"

#include "core/geometry/boolean.h"
#include "core/setout/common_rules.h"
#include "core/setout/pattern.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kStepMm = 10;      ///< of places tried for a seam
constexpr double kLeastStrip = 120; // mm: a narrower strip is a sliver
constexpr double kSideReach = 1;    // mm: a stretch this near a side lies on it
constexpr int kMostStrips = 200;
constexpr double kUneven = 1.25; ///< times an even share: the widest strip where seams besides are asked for

} // namespace

SetOut Lay::run() {
    out_.pile = pileOf(rules_.pile, request_.lies);
    along_ = *out_.pile;
    acrossIsY_ = std::abs(along_.x) > 0.5;
    if (rules_.face == LinedFace::Glass) {
        coverGlass();
    } else if (rules_.face == LinedFace::Panels) {
        coverPanels();
    } else {
        coverSurface();
    }
    if (out_.net.empty() || out_.pieces.empty()) return std::move(out_);
    const Bounds b = boundsOf(out_.net);
    out_.patternAt = {request_.visibleCentreX.value_or((b.low.x + b.high.x) / 2),
                      request_.visibleCentreY.value_or((b.low.y + b.high.y) / 2)};
    alignPattern(roll_, rules_.face == LinedFace::Surface, out_);
    checkPattern();
    figures();
    return std::move(out_);
}

void Lay::say(Severity severity, Part part, RemarkKind kind, Facts facts, std::optional<Fix> fix) {
    out_.remarks.push_back({severity, {"", part}, kind, std::move(facts), std::move(fix)});
}

const SideFact* Lay::sideAlong(Point a, Point b) const {
    const Point middle = (a + b) * 0.5;
    const SideFact* on = nullptr;
    double least = kSideReach;
    for (const SideFact& side : request_.sides)
        for (std::size_t i = 1; i < side.line.size(); ++i) {
            const Point ab = side.line[i] - side.line[i - 1];
            const double t = std::clamp(dot(middle - side.line[i - 1], ab) / std::max(1e-9, dot(ab, ab)), 0.0, 1.0);
            // What is covered stays a side's own gap away from it.
            const double gap = side.kind == EdgeKind::MovementGap ? side.allowance.value_or(Mm{0}).value : 0;
            if (const double d = std::abs(distance(middle, side.line[i - 1] + ab * t) - gap); d < least) {
                least = d;
                on = &side;
            }
        }
    return on;
}

bool Lay::standsUp(Point a, Point b) const {
    if (rules_.upstand.value <= 0 || !request_.lies) return false;
    const SideFact* on = sideAlong(a, b); // none: a notch, round an arch or a post
    return !on || on->kind == EdgeKind::Meets || on->kind == EdgeKind::Unsaid;
}

Beyond Lay::beyond(Point a, Point b) const {
    const SideFact* on = sideAlong(a, b);
    const auto upright = [&] { // an up-stand wants something to stand up against
        return rules_.upstand.value > 0 && request_.lies ? Beyond{rules_.upstand.value, true}
                                                         : Beyond{rules_.allowance.value, false};
    };
    if (!on) return upright(); // a notch: round an arch or a post
    switch (on->kind) {
    case EdgeKind::DoorReveal: return {on->allowance.value_or(rules_.turnIn).value, true};
    case EdgeKind::UnderTrim: return {rules_.tuck.value, false};
    case EdgeKind::MovementGap: return {};
    case EdgeKind::Free: return {rules_.allowance.value, false};
    case EdgeKind::Meets:
    case EdgeKind::Unsaid: return upright();
    }
    return {};
}

Mm Lay::intoOpening(const OpeningFact& o) const {
    return o.edge == OpeningEdge::Reveal ? o.turnIn.value_or(rules_.turnIn) : Mm{rules_.allowance.value / 2};
}

void Lay::coverSurface() {
    // Openings that are cut first are left out; the lining reaches a little into each.
    std::vector<Ring> holes, openings;
    Piece lines;
    for (const OpeningFact& o : request_.openings) {
        Ring ring(o.placed.shape.rbegin(), o.placed.shape.rend());
        if (o.treatment != Treatment::CutBefore) {
            Ring closed = ring;
            if (!closed.empty()) closed.push_back(closed.front());
            lines.marks.push_back(std::move(closed));
            continue;
        }
        openings.push_back(ring);
        for (const Ring& hole : inset({{ring}}, std::max(0.01, intoOpening(o).value)).rings) holes.push_back(hole);
        if (o.edge == OpeningEdge::Reveal) {
            Ring closed = ring;
            closed.push_back(ring.front());
            lines.folds.push_back(std::move(closed));
        }
    }
    out_.net = toCover(request_, rules_.hiddenBare, rules_.bearing, {0});
    if (nothingLeft(out_.net, {0}, out_.remarks)) return;
    const Region whole = openings.empty() ? out_.net : unionOf(out_.net, intersection(unionOf(openings), hull()));
    Region cut = grown(
        whole, [&](Point a, Point b) { return beyond(a, b); }, lines);
    cut = rounded(cut, rules_.corner.value);
    if (!holes.empty()) cut = difference(cut, unionOf(holes));
    reliefs(cut);
    seams(cut);
    strips(cut, lines);
    checkStretch();
    upstandCorners(whole);
}

Region Lay::hull() const {
    Region filled;
    for (const Ring& ring : request_.outline.rings)
        if (signedArea(ring) > 0) filled.rings.push_back(ring);
    return filled;
}

Region Lay::between(const Region& region, double from, double to) const {
    const Bounds b = boundsOf(region);
    const Ring band = acrossIsY_ ? rectangle(b.low.x - 1, from, b.width() + 2, to - from)
                                 : rectangle(from, b.low.y - 1, to - from, b.height() + 2);
    return intersection(region, {{band}});
}

double Lay::seenAt(double at) {
    if (seen_.empty()) {
        seen_ = out_.net;
        for (const Region& zone : request_.hidden) seen_ = difference(seen_, zone);
        for (const OpeningFact& o : request_.openings) // what is cut out later shows no seam
            if (o.treatment == Treatment::CoverAndRout)
                seen_ = difference(seen_, {{Ring(o.placed.shape.rbegin(), o.placed.shape.rend())}});
        if (acrossIsY_) seen_ = transposed(seen_);
    }
    return seen_.empty() ? 0 : heightAt(seen_, at);
}

void Lay::seams(const Region& cut) {
    const Bounds b = boundsOf(cut);
    // Strips whose pattern must meet over the seams cannot use the roll's whole width.
    const double low = acrossOf(b.low), high = acrossOf(b.high);
    const double usable =
        high - low <= roll_.usable().value ? roll_.usable().value : roll_.usable().value - roll_.repeatAcross.value;
    const double laps = lapBefore() + lapAfter();
    if (usable <= laps + 1) {
        say(Severity::Error, Part::Product, RemarkKind::RollTooNarrow,
            {{"width", roll_.usable()}, {"limit", Mm{laps}}});
        return;
    }
    const double extent = high - low;
    // The outer strips reach beyond a seam at one side, inner ones at both.
    int strips = 1;
    if (extent > usable + 1e-6) {
        const double outer = 2 * usable - laps, inner = usable - laps;
        strips = extent <= outer + 1e-6 ? 2 : 2 + static_cast<int>(roundUp((extent - outer) / inner));
    }
    if (!request_.joints.empty()) {
        byHand(low, high);
        return;
    }
    strips += rules_.extraSeams;
    if (strips > kMostStrips) {
        say(Severity::Error, Part::Product, RemarkKind::TooManyPieces,
            {{"count", std::int64_t{strips}}, {"limit", std::int64_t{kMostStrips}}});
        return;
    }
    if (strips < 2) return;
    place(low, high, strips, usable);
}

void Lay::byHand(double low, double high) {
    for (const double at : request_.joints)
        if (at > low + 1 && at < high - 1) seams_.push_back(at);
    std::sort(seams_.begin(), seams_.end());
    seams_.erase(std::unique(seams_.begin(), seams_.end()), seams_.end());
}

void Lay::place(double low, double high, int strips, double usable) {
    const int count = std::clamp(static_cast<int>((high - low) / kStepMm), 2, 2000);
    const double step = (high - low) / count;
    const Bounds b = boundsOf(out_.net);
    const double middle = acrossIsY_ ? request_.visibleCentreY.value_or((b.low.y + b.high.y) / 2)
                                     : request_.visibleCentreX.value_or((b.low.x + b.high.x) / 2);
    std::vector<double> cost(static_cast<std::size_t>(count) + 1, 0);
    for (int i = 1; i < count; ++i) {
        const double at = low + i * step;
        const double near = 1 - std::min(1.0, std::abs(at - middle) / ((high - low) / 2));
        cost[static_cast<std::size_t>(i)] = std::round(seenAt(at)) * (1 + (request_.lies ? near : 0)) +
                                            1e-3 * std::abs(at - (low + high) / 2) + 1e-7 * i;
    }
    constexpr double kNever = 1e18;
    const auto n = static_cast<std::size_t>(count);
    std::vector<std::vector<double>> best(static_cast<std::size_t>(strips), std::vector<double>(n + 1, kNever));
    std::vector<std::vector<int>> from(static_cast<std::size_t>(strips), std::vector<int>(n + 1, -1));
    const Bounds net = boundsOf(out_.net);
    const double netLow = acrossOf(net.low), netHigh = acrossOf(net.high);
    const double most = widest(netHigh - netLow, strips);
    const auto fits = [&](std::size_t a, std::size_t z, double wide) {
        const double first = low + static_cast<double>(a) * step, end = low + static_cast<double>(z) * step;
        return wide <= usable + 1e-6 && std::min(end, netHigh) - std::max(first, netLow) <= most + 1e-6;
    };
    const auto width = [&](std::size_t a, std::size_t z, bool first, bool last) {
        return (static_cast<double>(z) - static_cast<double>(a)) * step + (first ? 0 : lapBefore()) +
               (last ? 0 : lapAfter());
    };
    // best[k][i]: k + 1 strips up to a seam at i. A strip narrower than kLeastStrip costs as much as a long seam.
    const auto narrow = [&](double w) { return w < kLeastStrip ? 1e5 : 0.0; };
    for (std::size_t k = 0; k + 1 < static_cast<std::size_t>(strips); ++k)
        for (std::size_t i = 1; i < n; ++i) {
            if (k == 0) {
                if (const double w = width(0, i, true, false); fits(0, i, w)) best[0][i] = cost[i] + narrow(w);
                continue;
            }
            for (std::size_t j = 1; j < i; ++j) {
                const double w = width(j, i, false, false);
                if (!fits(j, i, w) || best[k - 1][j] >= kNever) continue;
                if (const double c = best[k - 1][j] + cost[i] + narrow(w); c < best[k][i]) {
                    best[k][i] = c;
                    from[k][i] = static_cast<int>(j);
                }
            }
        }
    double least = kNever;
    int end = -1;
    const auto last = static_cast<std::size_t>(strips - 2);
    for (std::size_t i = 1; i < n; ++i) {
        const double w = width(i, n, false, true);
        if (!fits(i, n, w) || best[last][i] >= kNever) continue;
        if (const double c = best[last][i] + narrow(w); c < least) {
            least = c;
            end = static_cast<int>(i);
        }
    }
    if (end < 0) { // steps too coarse for an exact fit: even strips, of what is seen if the roll is wide enough
        const double even = (netHigh - netLow) / strips;
        const double outer = even + std::max(netLow - low + lapAfter(), high - netHigh + lapBefore());
        const bool ofNet = std::max(outer, even + lapBefore() + lapAfter()) <= usable + 1e-6;
        for (int k = 1; k < strips; ++k) seams_.push_back(ofNet ? netLow + even * k : low + (high - low) * k / strips);
        return;
    }
    for (std::size_t k = last + 1; k-- > 0 && end > 0;) {
        seams_.push_back(low + end * step);
        end = from[k][static_cast<std::size_t>(end)];
    }
    std::sort(seams_.begin(), seams_.end());
}

double Lay::widest(double extent, int strips) const {
    const double even = extent / strips;
    double most = extent;
    const double gives = roll_.stretch - rules_.undersize;
    if (request_.stretch && *request_.stretch > 0 && gives / *request_.stretch * extent >= even - 1e-6)
        most = std::min(most, gives / *request_.stretch * extent);
    if (rules_.extraSeams > 0) most = std::min(most, kUneven * even);
    return std::max(most, even);
}

void Lay::strips(const Region& cut, const Piece& lines) {
    const Bounds all = boundsOf(cut);
    std::vector<double> stops{acrossOf(all.low) - 1};
    for (const double s : seams_) stops.push_back(s);
    stops.push_back(acrossOf(all.high) + 1);
    for (std::size_t k = 0; k + 1 < stops.size(); ++k) {
        const bool first = k == 0, last = k + 2 == stops.size();
        const Region shape = stops.size() == 2 ? out_.net : between(out_.net, stops[k], stops[k + 1]);
        const double from = stops[k] - (first ? 0 : lapBefore()), to = stops[k + 1] + (last ? 0 : lapAfter());
        const Region piece = stops.size() == 2 ? cut : between(cut, from, to);
        add(shape, piece, lines, from, to, stops.size() == 2);
        if (!last) {
            const Region line = between(out_.net, stops[k + 1] - 0.5, stops[k + 1] + 0.5);
            if (line.empty()) continue;
            const Bounds b = boundsOf(line);
            const double s = stops[k + 1];
            Joint joint;
            joint.from = acrossIsY_ ? Point{b.low.x, s} : Point{s, b.low.y};
            joint.to = acrossIsY_ ? Point{b.high.x, s} : Point{s, b.high.y};
            joint.onSupport = true; // cloth needs no support under a seam
            joint.byHand = !request_.joints.empty();
            out_.joints.push_back(joint);
        }
    }
}

void Lay::add(const Region& shape, Region cut, const Piece& lines, double from, double to, bool whole) {
    if (cut.empty()) return;
    Piece p;
    p.name = std::to_string(out_.pieces.size() + 1);
    p.inRow = static_cast<int>(out_.pieces.size());
    p.kind = PieceKind::Cut;
    p.shape = shape;
    p.cut = std::move(cut);
    const auto inside = [&](const Ring& line) {
        return whole || std::all_of(line.begin(), line.end(),
                                    [&](Point q) { return acrossOf(q) >= from - 0.01 && acrossOf(q) <= to + 0.01; });
    };
    for (const Ring& l : lines.folds) keep(l, from, to, whole, p.folds);
    for (const Ring& l : lines.snips)
        if (inside(l)) p.snips.push_back(l);
    for (const Ring& l : reliefs_) keep(l, from, to, whole, p.snips);
    for (const Ring& l : lines.marks)
        if (inside(l)) p.marks.push_back(l);
    if (rules_.undersize > 0) shrink(p);
    measure(p);
    out_.pieces.push_back(std::move(p));
}

void Lay::keep(const Ring& line, double from, double to, bool whole, std::vector<Ring>& kept) const {
    if (whole) {
        kept.push_back(line);
        return;
    }
    Ring part;
    for (std::size_t i = 1; i < line.size(); ++i) {
        Point a = line[i - 1], b = line[i];
        const double ta = acrossOf(a), tb = acrossOf(b);
        if (std::max(ta, tb) < from || std::min(ta, tb) > to) continue;
        const auto at = [&](double t) { return std::abs(tb - ta) < 1e-9 ? a : a + (b - a) * ((t - ta) / (tb - ta)); };
        const Point p = at(std::clamp(ta, from, to)), q = at(std::clamp(tb, from, to));
        if (part.empty() || distance(part.back(), p) > 1e-6) {
            if (part.size() > 1) kept.push_back(part);
            part = {p};
        }
        part.push_back(q);
    }
    if (part.size() > 1) kept.push_back(part);
}

void Lay::shrink(Piece& p) const {
    const Bounds b = boundsOf(p.cut);
    const Point middle = (b.low + b.high) * 0.5;
    const double k = 1 - rules_.undersize;
    const auto all = [&](std::vector<Ring>& rings) {
        for (Ring& ring : rings)
            for (Point& q : ring) q = middle + (q - middle) * k;
    };
    all(p.cut.rings);
    all(p.folds);
    all(p.snips);
    all(p.marks);
}

void Lay::measure(Piece& p) const {
    const Bounds b = boundsOf(p.cut);
    p.length = {acrossIsY_ ? b.width() : b.height()};
    p.width = {acrossIsY_ ? b.height() : b.width()};
    p.narrowest = p.width;
    p.notched = p.cut.rings.size() > 1;
}

} // namespace westrum
