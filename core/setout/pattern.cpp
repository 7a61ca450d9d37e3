#include "core/setout/pattern.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace westrum {
namespace {

constexpr double kHairMm = 1e-6;

double past(double at, double repeat) { return at - std::floor(at / repeat + 1e-9) * repeat; }

/// Extent of a piece across its pile, from the pattern's point.
struct Across {
    std::size_t piece{};
    double from{}, size{};
};

} // namespace

void alignPattern(const RollGoods& roll, bool meets, SetOut& s) {
    const double repeat = roll.repeatAcross.value, usable = roll.usable().value;
    if (repeat <= 0 || !s.pile) return;
    const Point across{-s.pile->y, s.pile->x};
    std::vector<Across> all;
    for (std::size_t i = 0; i < s.pieces.size(); ++i) {
        const Piece& p = s.pieces[i];
        if (p.offPattern || p.pile || p.cut.empty() || p.name.part == PiecePart::Corner) continue;
        double low = 1e18, high = -1e18;
        for (const Ring& ring : p.cut.rings)
            for (const Point& q : ring) {
                low = std::min(low, dot(q - s.patternAt, across));
                high = std::max(high, dot(q - s.patternAt, across));
            }
        all.push_back({i, low, high - low});
    }
    // With the pattern's point moved by -shift: does the piece, at its place on the pattern, stay on the roll?
    const auto fits = [&](const Across& a, double shift) {
        return past(a.from + shift, repeat) + a.size <= usable + kHairMm;
    };
    const auto served = [&](double shift) {
        return std::count_if(all.begin(), all.end(), [&](const Across& a) { return fits(a, shift); });
    };
    double best = 0;
    auto most = served(0);
    for (const Across& a : all) { // it lies lowest on the roll with its own lower edge on the pattern's point
        if (most == static_cast<std::ptrdiff_t>(all.size())) break;
        double shift = past(-a.from, repeat);
        if (shift > repeat / 2) shift -= repeat;
        const auto now = served(shift);
        if (now > most || (now == most && std::abs(shift) < std::abs(best) - kHairMm)) {
            most = now;
            best = shift;
        }
    }
    s.patternAt = s.patternAt - across * best;
    if (!meets || all.size() < 2) return;
    for (const Across& a : all)
        if (!fits(a, best))
            s.remarks.push_back({Severity::Warning,
                                 {"", Part::Piece, static_cast<int>(a.piece)},
                                 RemarkKind::PatternMisses,
                                 {{"piece", s.pieces[a.piece].name},
                                  {"width", Mm{a.size}},
                                  {"repeat", roll.repeatAcross},
                                  {"limit", roll.usable()}},
                                 {}});
}

} // namespace westrum
