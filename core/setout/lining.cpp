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

double stretchOfStrip(double stretch, double part, double reliefs) {
    return stretch * std::clamp(part, 0.0, 1.0) / (1 + std::max(0.0, reliefs));
}

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
