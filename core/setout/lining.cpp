#include "core/setout/lining.h"

#include "core/geometry/boolean.h"
#include "core/setout/common_rules.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr std::array<std::string_view, 5> kPiles{"as usual", "drawn downwards", "drawn upwards", "drawn to the left",
                                                 "drawn to the right"};
constexpr std::array<std::string_view, 3> kFaces{"the surface", "each panel below it", "the glass of its windows"};
constexpr std::array<std::string_view, 2> kSeams{"butted, cut through both", "lapped"};
constexpr std::array<std::string_view, 2> kInside{"mitred and sealed", "closed by a piece"};
constexpr std::array<Field, 16> kRules{{
    {"pile", "nap lies", FieldUnit::Choice, 0, 4, 0, kPiles},
    {"face", "covers", FieldUnit::Choice, 0, 2, 0, kFaces},
    {"allowance", "left to be trimmed", FieldUnit::Length, 0, 300, 45},
    {"turnIn", "turned in at doors", FieldUnit::Length, 0, 200, 30},
    {"turnUnder", "turned round a panel", FieldUnit::Length, 0, 150, 40},
    {"tuck", "tucked under a trim", FieldUnit::Length, 0, 100, 15},
    {"upstand", "up-stand", FieldUnit::Length, 0, 300, 0},
    {"insideCorners", "up-stand's inside corners", FieldUnit::Choice, 0, 1, 0, kInside},
    {"corner", "corners rounded to", FieldUnit::Length, 0, 150, 20},
    {"undersize", "cut smaller by", FieldUnit::Share, 0, 0.3, 0},
    {"seamLap", "beyond a seam", FieldUnit::Length, 0, 200, 30},
    {"seam", "seams", FieldUnit::Choice, 0, 1, 0, kSeams},
    {"extraSeams", "seams besides", FieldUnit::Count, 0, 12, 0},
    {"clips", "clips apart", FieldUnit::Length, 40, 1000, 200},
    {"hidden", "hidden parts left bare", FieldUnit::Flag, 0, 1, 0},
    {"bearing", "reaches under furniture by", FieldUnit::Length, 0, 500, 50},
}};

constexpr double kStepMm = 10;      ///< of places tried for a seam
constexpr double kGlassEdge = 2;    // mm: film stays off the rubber
constexpr double kLeastStrip = 120; // mm: a narrower strip is a sliver
constexpr double kFoldEase = 3;     // mm that a mitred fold's corner keeps
constexpr double kSideReach = 1;    // mm: a stretch this near a side lies on it
constexpr double kCornerRad = 20 * std::numbers::pi / 180;
constexpr double kLeastRelief = 5;  // mm: a shorter cut relieves nothing
constexpr int kMostMargin = 400;    // mm: no margin is wider
constexpr double kMostRelief = 0.6; // of what is covered: deeper, it is a seam
constexpr int kMostStrips = 200;

/// What is left beyond a stretch of the outline, and whether it is turned along it.
struct Beyond {
    double by = 0;
    bool fold = false;
};

/// Where a line meets another, each through a point along a direction.
std::optional<Point> crossing(Point a, Point u, Point b, Point v) {
    const double d = cross(u, v);
    if (std::abs(d) < 1e-9) return std::nullopt;
    return a + u * (cross(b - a, v) / d);
}
Point outwards(Point along) { return {along.y, -along.x}; } // right of a ring that runs counter-clockwise

/// A lining while it is set out: from what is covered to the pieces as they are cut.
class Lay {
public:
    Lay(const SetOutRequest& request, const RollGoods& roll, const LiningRules& rules)
        : request_(request), roll_(roll), rules_(rules) {}

    SetOut run() {
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
        checkPattern();
        figures();
        return std::move(out_);
    }

private:
    void say(Severity severity, Part part, RemarkKind kind, Facts facts, std::optional<Fix> fix = {}) {
        out_.remarks.push_back({severity, {"", part}, kind, std::move(facts), std::move(fix)});
    }

    /// What is left beyond a stretch between two points of the outline, by what happens there.
    Beyond beyond(Point a, Point b) const {
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

    /// A region with what is left beyond each stretch of its outer edge; folds and relief cuts with it.
    template <class By> Region grown(const Region& region, const By& by, Piece& lines) const {
        std::vector<Ring> rings = region.rings;
        std::vector<Ring> added, taken;
        for (const Ring& ring : region.rings) {
            if (signedArea(ring) <= 0) continue;
            const std::size_t n = ring.size();
            std::vector<Beyond> all(n);
            for (std::size_t i = 0; i < n; ++i) all[i] = by(ring[i], ring[(i + 1) % n]);
            const auto direction = [&](std::size_t i) {
                const Point d = ring[(i + 1) % n] - ring[i];
                return d * (1 / std::max(1e-12, std::hypot(d.x, d.y)));
            };
            for (std::size_t i = 0; i < n; ++i) {
                if (all[i].by <= 0) continue;
                for (const Ring& strip : stripAlong({ring[i], ring[(i + 1) % n]}, -all[i].by).rings)
                    added.push_back(strip);
                if (all[i].fold) lines.folds.push_back({ring[i], ring[(i + 1) % n]});
            }
            for (std::size_t i = 0; i < n; ++i) {
                const std::size_t before = (i + n - 1) % n;
                const Beyond in = all[before], out = all[i];
                if (in.by <= 0 && out.by <= 0) continue;
                const Point v = ring[i], u0 = direction(before), u1 = direction(i);
                const Point n0 = outwards(u0), n1 = outwards(u1);
                const double turn = std::atan2(cross(u0, u1), dot(u0, u1));
                const Point foot0 = v + n0 * in.by, foot1 = v + n1 * out.by;
                if (turn < -kCornerRad) { // the cloth is pulled apart here: it is snipped to the corner
                    if (const auto x = crossing(foot0, u0, foot1, u1); x && distance(*x, v) > 1)
                        lines.snips.push_back({*x, v});
                    continue;
                }
                if (turn <= 1e-9) continue;
                const bool both = in.fold && out.fold && in.by > 0 && out.by > 0 && turn > kCornerRad;
                if (both) { // folded both ways: the corner is taken out so that the folds lie edge to edge
                    Point bisector = n0 + n1;
                    bisector = bisector * (1 / std::max(1e-9, std::hypot(bisector.x, bisector.y)));
                    const Point near = v + bisector * kFoldEase, cutLine{-bisector.y, bisector.x};
                    const auto p0 = crossing(foot0, u0, near, cutLine), p1 = crossing(foot1, u1, near, cutLine);
                    const auto q0 = crossing(v, n0, near, cutLine), q1 = crossing(v, n1, near, cutLine);
                    if (p0 && p1 && q0 && q1) {
                        // Along the cut line, a little past both ends of it.
                        const auto corner = [&](Point p, Point q, Point foot, Point past) {
                            const double l = distance(p, q);
                            if (l < 1e-6) return;
                            const Point along = (q - p) * (1 / l);
                            taken.push_back({p - along, q + along, foot + past});
                        };
                        corner(*p0, *q0, foot0, u0 + n0);
                        corner(*p1, *q1, foot1, n1 - u1);
                    }
                    continue;
                }
                const auto x = crossing(foot0, u0, foot1, u1);
                const double reach = 3 * std::max(in.by, out.by);
                if (x && distance(*x, v) <= reach)
                    added.push_back({v, foot0, *x, foot1});
                else
                    added.push_back({v, foot0, foot1});
            }
        }
        std::erase_if(added, [](const Ring& r) { return std::abs(signedArea(r)) < 1e-3; });
        Region all = unionOf(region, unionOf(added));
        if (!taken.empty()) all = difference(all, unionOf(taken));
        return all;
    }

    /// How far into an opening the lining reaches before it is trimmed or turned.
    Mm intoOpening(const OpeningFact& o) const {
        return o.edge == OpeningEdge::Reveal ? o.turnIn.value_or(rules_.turnIn) : Mm{rules_.allowance.value / 2};
    }

    void coverSurface() {
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

    /// The outline without its openings: what an opening must lie in to be a hole of it.
    Region hull() const {
        Region filled;
        for (const Ring& ring : request_.outline.rings)
            if (signedArea(ring) > 0) filled.rings.push_back(ring);
        return filled;
    }

    double acrossOf(Point p) const { return acrossIsY_ ? p.y : p.x; }
    Region between(const Region& region, double from, double to) const {
        const Bounds b = boundsOf(region);
        const Ring band = acrossIsY_ ? rectangle(b.low.x - 1, from, b.width() + 2, to - from)
                                     : rectangle(from, b.low.y - 1, to - from, b.height() + 2);
        return intersection(region, {{band}});
    }

    /// Length of a line along the pile, at `at` across it, that is seen.
    double seenAt(double at) {
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

    /// What a piece has beyond the seam at its lower and at its upper end. Butted ones are cut through together; of
    /// lapped ones the lower reaches under the upper, which ends at the seam: water runs over it.
    double lapBefore() const { return rules_.lapped ? 0 : rules_.seamLap.value; }
    double lapAfter() const { return rules_.seamLap.value; }

    /// Relief cuts by hand, from the edge of what is cut on.
    void reliefs(const Region& cut) {
        std::int64_t number = 0;
        for (const ReliefCut& r : request_.reliefs) {
            ++number;
            const ReliefShare share = shareOf(r, out_.net);
            if (share.depth < kLeastRelief) {
                say(Severity::Warning, Part::Rule, RemarkKind::ReliefOutside, {{"number", number}});
                continue;
            }
            out_.reliefs.push_back(r);
            relieved_ += share.asSeam();
            const Point u = (r.to - r.from) * (1 / distance(r.from, r.to));
            Point from = r.from;
            for (int mm = 0; mm < kMostMargin && contains(cut, from - u); ++mm) from = from - u;
            reliefs_.push_back({from, r.to});
        }
    }

    /// Seams where the roll is too narrow: as few as can be, where they are seen least and trodden on least.
    void seams(const Region& cut) {
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

    void byHand(double low, double high) {
        for (const double at : request_.joints)
            if (at > low + 1 && at < high - 1) seams_.push_back(at);
        std::sort(seams_.begin(), seams_.end());
        seams_.erase(std::unique(seams_.begin(), seams_.end()), seams_.end());
    }

    /// The cheapest places for so many strips, each no wider than the roll, by dynamic programming over places
    /// kStepMm apart: a seam costs the length of it that is seen, up to twice as much in the middle of what lies
    /// (where one treads), and nothing behind furniture.
    void place(double low, double high, int strips, double usable) {
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
        const auto width = [&](std::size_t a, std::size_t z, bool first, bool last) {
            return (static_cast<double>(z) - static_cast<double>(a)) * step + (first ? 0 : lapBefore()) +
                   (last ? 0 : lapAfter());
        };
        // best[k][i]: k + 1 strips up to a seam at i. A strip narrower than kLeastStrip costs as much as a long seam.
        const auto narrow = [&](double w) { return w < kLeastStrip ? 1e5 : 0.0; };
        for (std::size_t k = 0; k + 1 < static_cast<std::size_t>(strips); ++k)
            for (std::size_t i = 1; i < n; ++i) {
                if (k == 0) {
                    if (const double w = width(0, i, true, false); w <= usable + 1e-6) best[0][i] = cost[i] + narrow(w);
                    continue;
                }
                for (std::size_t j = 1; j < i; ++j) {
                    const double w = width(j, i, false, false);
                    if (w > usable + 1e-6 || best[k - 1][j] >= kNever) continue;
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
            if (w > usable + 1e-6 || best[last][i] >= kNever) continue;
            if (const double c = best[last][i] + narrow(w); c < least) {
                least = c;
                end = static_cast<int>(i);
            }
        }
        if (end < 0) { // steps too coarse for an exact fit: even strips
            for (int k = 1; k < strips; ++k) seams_.push_back(low + (high - low) * k / strips);
            return;
        }
        for (std::size_t k = last + 1; k-- > 0 && end > 0;) {
            seams_.push_back(low + end * step);
            end = from[k][static_cast<std::size_t>(end)];
        }
        std::sort(seams_.begin(), seams_.end());
    }

    /// The pieces between the seams.
    void strips(const Region& cut, const Piece& lines) {
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

    void add(const Region& shape, Region cut, const Piece& lines, double from, double to, bool whole) {
        if (cut.empty()) return;
        Piece p;
        p.name = std::to_string(out_.pieces.size() + 1);
        p.inRow = static_cast<int>(out_.pieces.size());
        p.kind = PieceKind::Cut;
        p.shape = shape;
        p.cut = std::move(cut);
        const auto inside = [&](const Ring& line) {
            return whole || std::all_of(line.begin(), line.end(), [&](Point q) {
                       return acrossOf(q) >= from - 0.01 && acrossOf(q) <= to + 0.01;
                   });
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

    /// The part of a line that lies on a piece: its points between the piece's two ends across the pile.
    void keep(const Ring& line, double from, double to, bool whole, std::vector<Ring>& kept) const {
        if (whole) {
            kept.push_back(line);
            return;
        }
        Ring part;
        for (std::size_t i = 1; i < line.size(); ++i) {
            Point a = line[i - 1], b = line[i];
            const double ta = acrossOf(a), tb = acrossOf(b);
            if (std::max(ta, tb) < from || std::min(ta, tb) > to) continue;
            const auto at = [&](double t) {
                return std::abs(tb - ta) < 1e-9 ? a : a + (b - a) * ((t - ta) / (tb - ta));
            };
            const Point p = at(std::clamp(ta, from, to)), q = at(std::clamp(tb, from, to));
            if (part.empty() || distance(part.back(), p) > 1e-6) {
                if (part.size() > 1) kept.push_back(part);
                part = {p};
            }
            part.push_back(q);
        }
        if (part.size() > 1) kept.push_back(part);
    }

    /// Cut smaller about its middle, to be stretched into place.
    void shrink(Piece& p) const {
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

    void measure(Piece& p) const {
        const Bounds b = boundsOf(p.cut);
        p.length = {acrossIsY_ ? b.width() : b.height()};
        p.width = {acrossIsY_ ? b.height() : b.width()};
        p.narrowest = p.width;
        p.notched = p.cut.rings.size() > 1;
    }

    void coverPanels() {
        if (request_.panels.empty()) {
            say(Severity::Error, Part::Rule, RemarkKind::NoPanelsBelow, {}, Fix{FixKind::SetRule, "face", 0.0});
            return;
        }
        std::vector<Ring> rings;
        const double by = rules_.turnUnder.value + roll_.thickness.value;
        for (const Region& panel : request_.panels) {
            for (const Ring& r : panel.rings) rings.push_back(r);
            Piece lines;
            Region filled;
            std::vector<Ring> holes;
            for (const Ring& r : panel.rings)
                if (signedArea(r) > 0)
                    filled.rings.push_back(r);
                else
                    holes.push_back(Ring(r.rbegin(), r.rend()));
            Region cut = grown(
                filled,
                [&](Point, Point) {
                    return Beyond{by, true};
                },
                lines);
            // Round a hole it is turned under too: the cut-out is as much smaller.
            for (const Ring& hole : holes) {
                cut = difference(cut, inset({{hole}}, std::max(0.01, std::min(by, rules_.allowance.value))));
                Ring closed = hole;
                closed.push_back(hole.front());
                lines.folds.push_back(std::move(closed));
            }
            fits(cut);
            add(panel, std::move(cut), lines, 0, 0, true);
            out_.pieces.back().removable = true;
        }
        out_.net.rings = rings;
    }

    void coverGlass() {
        for (const OpeningFact& o : request_.openings) {
            if (o.kind != OpeningKind::Window) continue;
            const Region glass = inset({{Ring(o.placed.shape.rbegin(), o.placed.shape.rend())}}, kGlassEdge);
            if (glass.empty()) continue;
            fits(glass);
            for (const Ring& r : glass.rings) out_.net.rings.push_back(r);
            add(glass, glass, {}, 0, 0, true);
        }
        if (out_.pieces.empty())
            say(Severity::Error, Part::Rule, RemarkKind::NoGlass, {}, Fix{FixKind::SetRule, "face", 0.0});
    }

    void fits(const Region& cut) {
        const Bounds b = boundsOf(cut);
        const double across = acrossIsY_ ? b.height() : b.width();
        const bool turns = roll_.turning == RollTurning::Quarter || roll_.turning == RollTurning::Any;
        if ((turns ? std::min(b.height(), b.width()) : across) <= roll_.usable().value + 1e-6) return;
        say(Severity::Error, Part::Product, RemarkKind::PieceWiderThanRoll,
            {{"piece", std::to_string(out_.pieces.size() + 1)}, {"width", Mm{across}}, {"limit", roll_.usable()}});
    }

    void checkStretch() {
        if (rules_.undersize > roll_.stretch + 1e-9)
            say(Severity::Warning, Part::Rule, RemarkKind::UndersizeBeyondStretch,
                {{"share", rules_.undersize}, {"limit", roll_.stretch}},
                Fix{FixKind::SetRule, "undersize", roll_.stretch});
        if (!request_.stretch) return;
        const int pieces = static_cast<int>(out_.pieces.size());
        const double left = stretchWithSeams(*request_.stretch, pieces + relieved_) + rules_.undersize;
        if (left <= roll_.stretch + 1e-9) return;
        int enough = pieces;
        while (enough < 13 &&
               stretchWithSeams(*request_.stretch, enough + relieved_) + rules_.undersize > roll_.stretch)
            ++enough;
        if (roll_.stretch > rules_.undersize) {
            const double wanted = *request_.stretch / (roll_.stretch - rules_.undersize) - pieces - relieved_;
            proposeRelief(wanted);
        }
        const std::optional<ReliefCut>& cut = out_.proposedRelief;
        say(Severity::Warning, Part::Rule, RemarkKind::StretchBeyondLining,
            {{"share", left},
             {"limit", roll_.stretch},
             {"seams", std::int64_t{enough - pieces}},
             {"hidden", std::int64_t{cut ? 1 : 0}},
             {"depth", Mm{cut ? distance(cut->from, cut->to) : 0}}},
            Fix{FixKind::SetRule, "extraSeams", static_cast<double>(rules_.extraSeams + enough - pieces)});
    }

    /// A relief cut belongs where something hides it: at a side that goes under a trim, or behind furniture; else
    /// nowhere, and a seam is the way out. The first free place along such sides, the longest side first.
    void proposeRelief(double wanted) {
        std::vector<const SideFact*> sides;
        for (const SideFact& s : request_.sides)
            if (s.line.size() > 1) sides.push_back(&s);
        const auto length = [](const SideFact* s) { return distance(s->line.front(), s->line.back()); };
        std::stable_sort(sides.begin(), sides.end(),
                         [&](const SideFact* a, const SideFact* b) { return length(a) > length(b); });
        for (const SideFact* side : sides)
            for (const double share : {0.5, 0.25, 0.75, 0.375, 0.625}) {
                const auto k = static_cast<std::size_t>(share * static_cast<double>(side->line.size() - 1));
                const Point a = side->line[k], b = side->line[std::min(k + 1, side->line.size() - 1)];
                const double l = distance(a, b);
                if (l < 1) continue;
                const Point at = a + (b - a) * (side->line.size() == 2 ? share : 0.5);
                const Point in = outwards((b - a) * (1 / l)) * -1;
                const auto behind = std::find_if(request_.hidden.begin(), request_.hidden.end(),
                                                 [&](const Region& z) { return contains(z, at + in * 20); });
                if (side->kind != EdgeKind::UnderTrim && behind == request_.hidden.end()) continue;
                const bool taken = std::any_of(out_.reliefs.begin(), out_.reliefs.end(),
                                               [&](const ReliefCut& r) { return distance(r.from, at) < kLeastStrip; });
                const double extent = shareOf({at, at + in * 1000}, out_.net).extent;
                if (taken || extent < 2 * kLeastRelief) continue;
                double depth = std::min(wanted, kMostRelief) * extent;
                if (behind != request_.hidden.end() && side->kind != EdgeKind::UnderTrim)
                    depth = std::min(depth, shareOf({at, at + in * 1000}, *behind).extent);
                out_.proposedRelief = ReliefCut{at, at + in * std::max(2 * kLeastRelief, std::ceil(depth))};
                return;
            }
    }

    /// At a corner that sticks into the room an up-stand opens: a piece closes it. So does one at an inside corner, if
    /// it is not to be sealed along its mitre alone.
    void upstandCorners(const Region& whole) {
        if (rules_.upstand.value <= 0 || !request_.lies) return;
        for (const Ring& ring : whole.rings) {
            if (signedArea(ring) <= 0) continue;
            const std::size_t n = ring.size();
            for (std::size_t i = 0; i < n; ++i) {
                const Point u0 = ring[i] - ring[(i + n - 1) % n], u1 = ring[(i + 1) % n] - ring[i];
                const double turn = std::atan2(cross(u0, u1), dot(u0, u1));
                const bool outside = turn <= -kCornerRad, inside = turn >= kCornerRad && rules_.cornerPieces;
                if ((!outside && !inside) || !beyond(ring[(i + n - 1) % n], ring[i]).fold ||
                    !beyond(ring[i], ring[(i + 1) % n]).fold)
                    continue;
                // Opened out, one outside is as wide as the gap at its top, and laps both sides; one inside only laps.
                const double up = rules_.upstand.value, lap = std::max(10.0, rules_.seamLap.value / 2);
                const double wide = (outside ? 2 * up * std::tan(std::min(-turn, 3.0) / 2) : 0) + 2 * lap;
                Piece p;
                p.name = "corner " + std::to_string(++corners_);
                p.kind = PieceKind::Cut;
                p.cut = {{rectangle(ring[i].x, ring[i].y, acrossIsY_ ? wide : up + lap, acrossIsY_ ? up + lap : wide)}};
                measure(p);
                out_.pieces.push_back(std::move(p));
            }
        }
    }

    void checkPattern() {
        const double repeat = std::max(roll_.repeatAlong.value, roll_.repeatAcross.value);
        if (repeat <= 0) return;
        for (const Piece& p : out_.pieces)
            if (std::min(p.length, p.width).value < repeat && !p.name.starts_with("corner")) {
                say(Severity::Note, Part::Product, RemarkKind::RepeatBeyondPiece,
                    {{"piece", p.name}, {"repeat", Mm{repeat}}, {"length", std::min(p.length, p.width)}});
                return;
            }
    }

    /// What it takes for this surface alone.
    double runOnRoll() const {
        std::vector<std::pair<double, double>> pieces;
        for (const Piece& p : out_.pieces) pieces.emplace_back(p.length.value, p.width.value);
        return rowsOnRoll(std::move(pieces), roll_.usable().value, roll_.gap.value);
    }

    void figures() {
        Judgement& j = out_.figures;
        j.pieces = static_cast<int>(out_.pieces.size());
        for (const Piece& p : out_.pieces) {
            for (const Ring& r : p.cut.rings) j.cutLength = j.cutLength + Mm{perimeter(r)};
            if (p.width.value < kLeastStrip && !p.name.starts_with("corner") && rules_.face == LinedFace::Surface)
                ++j.slivers;
        }
        out_.slivers = j.slivers;
        for (const double s : seams_) j.offCentre = j.offCentre + Mm{seenAt(s)};
        j.stock = static_cast<int>(roundUp(runOnRoll() / 10)); // whole centimetres
        double area = 0;
        for (const Piece& p : out_.pieces) area += areaMm2(p.cut);
        j.leastStock = static_cast<int>(
            std::min(static_cast<double>(j.stock), std::floor(area / std::max(1.0, roll_.usable().value) / 10)));
        out_.leastStock = j.leastStock;
    }

    const SetOutRequest& request_;
    const RollGoods& roll_;
    const LiningRules& rules_;
    SetOut out_;
    Point along_;
    bool acrossIsY_ = false; ///< the pile runs in x, so strips lie beside each other in y
    std::vector<double> seams_;
    std::vector<Ring> reliefs_; ///< by hand, as they are cut
    double relieved_ = 0;       ///< what they count for, in seams
    Region seen_;               ///< what is covered less what is hidden, transposed where seams are level
    int corners_ = 0;
};

SetOut setOut(const SetOutRequest& request, const std::stop_token&) {
    const RollGoods roll = rollOf(request.product);
    const LiningRules rules = liningRulesOf(request.rules);
    SetOut s = Lay(request, roll, rules).run();
    for (const Piece& p : s.pieces) { // a strip set by hand may be wider than the roll
        const bool already = std::any_of(s.remarks.begin(), s.remarks.end(),
                                         [](const Remark& r) { return r.kind == RemarkKind::PieceWiderThanRoll; });
        if (already || rules.face != LinedFace::Surface || p.width.value <= roll.usable().value + 0.01) continue;
        s.remarks.push_back({Severity::Error,
                             {"", Part::Product},
                             RemarkKind::PieceWiderThanRoll,
                             {{"piece", p.name}, {"width", p.width}, {"limit", roll.usable()}},
                             {}});
    }
    return s;
}

/// The pile each way, and seams besides.
std::vector<StartChoice> choices(const SetOutRequest& request, const std::stop_token& stop) {
    std::vector<StartChoice> all;
    const LiningRules now = liningRulesOf(request.rules);
    if (stop.stop_requested()) return {};
    const SetOut current = setOut(request, stop);
    for (int pile = 0; pile <= 4; ++pile) {
        if (stop.stop_requested()) return {};
        SetOutRequest r = request;
        FieldValues change{{"pile", static_cast<double>(pile)}};
        r.rules["pile"] = pile;
        // Seams by hand belong to one way of the pile: they stay with it.
        if (pileOf(static_cast<Pile>(pile), request.lies) != pileOf(now.pile, request.lies)) r.joints.clear();
        const bool asIs = pile == static_cast<int>(now.pile);
        StartChoice choice = choiceOf(setOut(r, stop), std::move(change), false);
        // The nap is the neighbours' too: another way is worth telling only if it saves a piece.
        if (asIs || choice.figures.pieces < current.figures.pieces) all.push_back(std::move(choice));
        tell(request, (pile + 1) / 5.0);
    }
    return all;
}

} // namespace

std::span<const Field> liningRuleFields() { return kRules; }

LiningRules liningRulesOf(const FieldValues& rules) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    const auto mm = [&](std::string_view key) { return Mm{value(key)}; };
    const auto place = [&](std::string_view key) { return static_cast<int>(value(key)); };
    return {.pile = static_cast<Pile>(place("pile")),
            .face = static_cast<LinedFace>(place("face")),
            .allowance = mm("allowance"),
            .turnIn = mm("turnIn"),
            .turnUnder = mm("turnUnder"),
            .tuck = mm("tuck"),
            .upstand = mm("upstand"),
            .corner = mm("corner"),
            .undersize = value("undersize"),
            .seamLap = mm("seamLap"),
            .lapped = value("seam") != 0,
            .cornerPieces = value("insideCorners") != 0,
            .extraSeams = place("extraSeams"),
            .clips = mm("clips"),
            .hiddenBare = value("hidden") != 0,
            .bearing = mm("bearing")};
}

SetOutFamily liningSetOut() { return {"roll", kRules, setOut, choices}; }

Point pileOf(Pile pile, bool lies) {
    switch (pile) {
    case Pile::Usual: return lies ? Point{-1, 0} : Point{0, -1};
    case Pile::Down: return {0, -1};
    case Pile::Up: return {0, 1};
    case Pile::Left: return {-1, 0};
    case Pile::Right: return {1, 0};
    }
    return {0, -1};
}

double stretchWithSeams(double stretch, double pieces) { return stretch / std::max(1.0, pieces); }

ReliefShare shareOf(const ReliefCut& cut, const Region& covered) {
    const double l = distance(cut.from, cut.to);
    if (l < 1e-6 || covered.empty()) return {};
    const Point u = (cut.to - cut.from) * (1 / l);
    const Bounds b = boundsOf(covered);
    const double reach = b.width() + b.height() + l + distance(cut.from, b.low);
    // A millimetre wide its area is its length.
    const auto within = [&](Point from, Point to) {
        return areaMm2(intersection(covered, stripAlong({from, to}, 0.5))) +
               areaMm2(intersection(covered, stripAlong({from, to}, -0.5)));
    };
    return {within(cut.from, cut.to), within(cut.from - u * reach, cut.to + u * reach)};
}

} // namespace westrum
