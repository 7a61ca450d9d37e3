#include "core/setout/lining_layout.h"

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

constexpr double kGlassEdge = 2;    // mm: film stays off the rubber
constexpr double kLeastStrip = 120; // mm: a narrower strip is a sliver
constexpr double kCornerRad = 20 * std::numbers::pi / 180;
constexpr double kLeastRelief = 5; // mm: a shorter cut relieves nothing
constexpr int kMostExtraSeams = 12;
constexpr int kMostMargin = 400;    // mm: no margin is wider
constexpr double kMostRelief = 0.6; // of what is covered: deeper, it is a seam

} // namespace

void Lay::reliefs(const Region& cut) {
    std::int64_t number = 0;
    for (const ReliefCut& r : request_.reliefs) {
        ++number;
        const ReliefShare share = shareOf(r, out_.net);
        if (share.depth < kLeastRelief) {
            say(Severity::Warning, Part::Rule, RemarkKind::ReliefOutside, {{"number", number}});
            continue;
        }
        out_.reliefs.push_back(r);
        const Point u = (r.to - r.from) * (1 / distance(r.from, r.to));
        Point from = r.from;
        for (int mm = 0; mm < kMostMargin && contains(cut, from - u); ++mm) from = from - u;
        reliefs_.push_back({from, r.to});
    }
}

void Lay::coverPanels() {
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

void Lay::coverGlass() {
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

void Lay::fits(const Region& cut) {
    const Bounds b = boundsOf(cut);
    const double across = acrossIsY_ ? b.height() : b.width();
    const bool turns = roll_.turning == RollTurning::Quarter || roll_.turning == RollTurning::Any;
    if ((turns ? std::min(b.height(), b.width()) : across) <= roll_.usable().value + 1e-6) return;
    say(Severity::Error, Part::Product, RemarkKind::PieceWiderThanRoll,
        {{"piece", std::to_string(out_.pieces.size() + 1)}, {"width", Mm{across}}, {"limit", roll_.usable()}});
}

void Lay::checkStretch() {
    if (rules_.undersize > roll_.stretch + 1e-9)
        say(Severity::Warning, Part::Rule, RemarkKind::UndersizeBeyondStretch,
            {{"share", rules_.undersize}, {"limit", roll_.stretch}}, Fix{FixKind::SetRule, "undersize", roll_.stretch});
    if (!request_.stretch) return;
    const double extent = acrossOf(boundsOf(out_.net).high) - acrossOf(boundsOf(out_.net).low);
    if (extent <= 0) return;
    // Each strip by its own width; the one that asks for most is told.
    const Piece* worst = nullptr;
    double most = 0, share = 1, relieved = 0;
    for (const Piece& p : out_.pieces) {
        const Bounds b = boundsOf(p.shape);
        const double part = (acrossOf(b.high) - acrossOf(b.low)) / extent, cuts = relievedOf(p.shape);
        if (const double asked = stretchOfStrip(*request_.stretch, part, cuts); asked > most + 1e-9) {
            worst = &p;
            most = asked;
            share = part;
            relieved = cuts;
        }
    }
    const double gives = roll_.stretch - rules_.undersize;
    if (!worst || most <= gives + 1e-9) return;
    const int pieces = static_cast<int>(out_.pieces.size());
    int enough = pieces;
    while (enough < kMostExtraSeams + 1 && stretchOfStrip(*request_.stretch, 1.0 / enough, 0) > gives + 1e-9) ++enough;
    if (gives > 0) proposeRelief(worst->shape, *request_.stretch * share / gives - 1 - relieved);
    const std::optional<ReliefCut>& cut = out_.proposedRelief;
    const bool byHand = !request_.joints.empty();
    std::optional<Fix> fix;
    if (!byHand) fix = Fix{FixKind::SetRule, "extraSeams", static_cast<double>(rules_.extraSeams + enough - pieces)};
    Facts facts{{"share", most + rules_.undersize},
                {"limit", roll_.stretch},
                {"seams", std::int64_t{enough - pieces}},
                {"hidden", std::int64_t{cut ? 1 : 0}},
                {"depth", Mm{cut ? distance(cut->from, cut->to) : 0}}};
    if (pieces > 1) facts.push_back({"piece", worst->name});
    say(Severity::Warning, Part::Rule, RemarkKind::StretchBeyondLining, std::move(facts), std::move(fix));
}

double Lay::relievedOf(const Region& strip) const {
    double sum = 0;
    for (const ReliefCut& r : out_.reliefs)
        if (const ReliefShare share = shareOf(r, strip); share.depth >= kLeastRelief) sum += share.asSeam();
    return sum;
}

void Lay::proposeRelief(const Region& strip, double wanted) {
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
            const double extent = shareOf({at, at + in * 1000}, strip).extent;
            if (!contains(strip, at + in * kLeastRelief)) continue;
            if (taken || extent < 2 * kLeastRelief) continue;
            double depth = std::min(wanted, kMostRelief) * extent;
            if (behind != request_.hidden.end() && side->kind != EdgeKind::UnderTrim)
                depth = std::min(depth, shareOf({at, at + in * 1000}, *behind).extent);
            out_.proposedRelief = ReliefCut{at, at + in * std::max(2 * kLeastRelief, std::ceil(depth))};
            return;
        }
}

void Lay::upstandCorners(const Region& whole) {
    if (rules_.upstand.value <= 0 || !request_.lies) return;
    for (const Ring& ring : whole.rings) {
        if (signedArea(ring) <= 0) continue;
        const std::size_t n = ring.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point u0 = ring[i] - ring[(i + n - 1) % n], u1 = ring[(i + 1) % n] - ring[i];
            const double turn = std::atan2(cross(u0, u1), dot(u0, u1));
            const bool outside = turn <= -kCornerRad, inside = turn >= kCornerRad && rules_.cornerPieces;
            // What is turned down into a reveal needs none.
            if ((!outside && !inside) || !standsUp(ring[(i + n - 1) % n], ring[i]) ||
                !standsUp(ring[i], ring[(i + 1) % n]))
                continue;
            // Opened out, one outside is as wide as the gap at its top, and laps both sides; one inside only laps.
            const double up = rules_.upstand.value, lap = std::max(10.0, rules_.seamLap.value / 2);
            const double wide = (outside ? 2 * up * std::tan(std::min(-turn, 3.0) / 2) : 0) + 2 * lap;
            Piece p;
            p.name = PieceName::of(PiecePart::Corner, 0, ++corners_);
            p.kind = PieceKind::Cut;
            p.cut = {{rectangle(ring[i].x, ring[i].y, acrossIsY_ ? wide : up + lap, acrossIsY_ ? up + lap : wide)}};
            measure(p);
            out_.pieces.push_back(std::move(p));
        }
    }
}

void Lay::checkPattern() {
    const double repeat = std::max(roll_.repeatAlong.value, roll_.repeatAcross.value);
    if (repeat <= 0) return;
    for (const Piece& p : out_.pieces)
        if (std::min(p.length, p.width).value < repeat && p.name.part != PiecePart::Corner) {
            say(Severity::Note, Part::Product, RemarkKind::RepeatBeyondPiece,
                {{"piece", p.name}, {"repeat", Mm{repeat}}, {"length", std::min(p.length, p.width)}});
            return;
        }
}

double Lay::runOnRoll() const {
    std::vector<std::pair<double, double>> pieces;
    for (const Piece& p : out_.pieces) pieces.emplace_back(p.length.value, p.width.value);
    return rowsOnRoll(std::move(pieces), roll_.usable().value, roll_.gap.value);
}

void Lay::figures() {
    Judgement& j = out_.figures;
    j.pieces = static_cast<int>(out_.pieces.size());
    for (const Piece& p : out_.pieces) {
        for (const Ring& r : p.cut.rings) j.cutLength = j.cutLength + Mm{perimeter(r)};
        if (p.width.value < kLeastStrip && p.name.part != PiecePart::Corner && rules_.face == LinedFace::Surface)
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

} // namespace westrum
