#include "core/takeoff/needs.h"

#include "core/catalogue/hard_finishes.h"
#include "core/setout/lining.h"
#include "core/setout/tiling.h"
#include "core/takeoff/fixings.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr std::array<std::string_view, 6> kWith{
    "screws", "rivet nuts and machine screws", "panel clips", "hook-and-loop", "staples", "adhesive alone"};
constexpr std::array<Field, 5> kPanels{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 5, 0, kWith},
    {"fixEdge", "fixings apart at the edge", FieldUnit::Length, 30, 2000, 200},
    {"fixField", "fixings apart in the field", FieldUnit::Length, 30, 2000, 300},
    {"fixInset", "fixings in from the edge", FieldUnit::Length, 0, 200, 15},
    {"fixCups", "cups under the heads", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<Field, 3> kBoards{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 5, 0, kWith},
    {"fixField", "fixings apart without supports", FieldUnit::Length, 30, 2000, 400},
    {"fixCups", "cups under the heads", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<Field, 2> kBattens{{
    {"fixWith", "held by", FieldUnit::Choice, 0, 5, 0, kWith},
    {"fixField", "fixings apart", FieldUnit::Length, 30, 2000, 300},
}};

constexpr double kWideBoard = 100; // mm: a wider one has two fixings at every crossing
constexpr Mm kFromEnd{50};
constexpr Mm kBite{12}, kBiteMetal{8}, kClear{4}; // of a screw: into a batten, through sheet metal, short of the skin
constexpr double kLoopMm = 100;                   // of hook-and-loop at each place
constexpr double kTapeRound = 1;                  // share of the outline that a barrier is taped along

double value(const NeedFacts& f, std::string_view key) {
    const auto rules = fixingRules(f.product->family);
    return findField(rules, key) ? valueOf(*f.rules, rules, key) : 0;
}

/// Fixings of so many places, by what holds them.
void hold(const NeedFacts& f, double places, std::vector<Need>& needs) {
    if (places <= 0) return;
    const bool cups = value(f, "fixCups") != 0;
    switch (static_cast<FixedWith>(static_cast<int>(value(f, "fixWith")))) {
    case FixedWith::Screws: {
        Need screws{.serves = Serves::Screws, .amount = places};
        screws.least = f.through + (f.into ? kBite : kBiteMetal);
        if (f.into) screws.most = f.through + *f.into - kClear;
        needs.push_back(screws);
        if (cups) needs.push_back({.serves = Serves::ScrewCups, .amount = places});
        break;
    }
    case FixedWith::RivetNuts: {
        needs.push_back({.serves = Serves::RivetNuts, .amount = places});
        Need bolts{.serves = Serves::MachineScrews, .amount = places};
        bolts.least = boltLength(f.through, kWasher, kNutBody, kPastNut, {}).needed;
        needs.push_back(bolts);
        needs.push_back({.serves = Serves::Washers, .amount = places});
        break;
    }
    case FixedWith::PanelClips: needs.push_back({.serves = Serves::PanelClips, .amount = places}); break;
    case FixedWith::HookAndLoop:
        needs.push_back({.serves = Serves::HookAndLoop, .amount = places * kLoopMm / 1000});
        break;
    case FixedWith::Staples: needs.push_back({.serves = Serves::Staples, .amount = places}); break;
    case FixedWith::AdhesiveAlone: break;
    }
}

double panelFixings(const NeedFacts& f) {
    std::vector<double> across; // supports that run up and down
    for (const PlacedSupport& s : f.shape->supports)
        if (!s.along) across.push_back(s.centre);
    std::sort(across.begin(), across.end());
    double places = 0;
    for (const Piece& piece : f.setOut->pieces)
        for (const Ring& ring : piece.shape.rings)
            if (signedArea(ring) > 0)
                places +=
                    fixingsOfPanel(ring, {value(f, "fixInset")}, {value(f, "fixEdge")}, across, {value(f, "fixField")})
                        .total();
    return places;
}

double boardFixings(const NeedFacts& f) {
    const double each = boardOf(*f.product).cover.value > kWideBoard ? 2 : 1;
    double places = 0;
    for (const Piece& piece : f.setOut->pieces) {
        const Bounds b = boundsOf(piece.shape);
        const bool up = f.setOut->rowsAcross;
        const double low = up ? b.low.y : b.low.x, high = up ? b.high.y : b.high.x;
        int crossings = 0;
        for (const PlacedSupport& s : f.shape->supports)
            crossings += s.along == up && s.centre > low - 1 && s.centre < high + 1 ? 1 : 0;
        places +=
            each * (crossings > 0 ? crossings : fixingsAlong({high - low}, kFromEnd, {value(f, "fixField")}).count);
    }
    return places;
}

/// Lines along which neighbouring strips of a barrier lap.
double lapsOf(const UnderlayTakeoff& strips) {
    double laps = 0;
    for (std::size_t i = 1; i < strips.strips.size(); ++i)
        laps += std::min(strips.strips[i - 1].length, strips.strips[i].length).value;
    return laps;
}

Serves servesFor(SundryKind kind) {
    switch (kind) {
    case SundryKind::Zip: return Serves::Zip;
    case SundryKind::Thread: return Serves::Thread;
    case SundryKind::PipingCord: return Serves::PipingCord;
    case SundryKind::Staples: return Serves::Staples;
    case SundryKind::FoamGlue: return Serves::FoamGlue;
    case SundryKind::LiningCloth: return Serves::PlainLining;
    }
    return Serves::Thread;
}

} // namespace

std::span<const Field> fixingRules(std::string_view family) {
    if (family == "sheet") return kPanels;
    if (family == "boards") return kBoards;
    if (family == "battens") return kBattens;
    return {};
}

std::vector<Need> needsOf(const NeedFacts& f) {
    std::vector<Need> needs;
    const std::string& family = f.product->family;
    const auto put = [&](Serves serves, double amount) {
        if (amount > 1e-9) needs.push_back({.serves = serves, .amount = amount});
    };
    if (family == "sheet") hold(f, panelFixings(f), needs);
    if (family == "boards") hold(f, boardFixings(f), needs);
    if (family == "battens") {
        double places = 0;
        for (const Mm length : f.take->lengths) places += fixingsAlong(length, kFromEnd, {value(f, "fixField")}).count;
        hold(f, places, needs);
    }
    if (family == "tiles") {
        const Tile tile = tileOf(*f.product);
        if (!tile.selfAdhesive) put(Serves::Grout, groutFor(*f.setOut, tile).value);
    }
    if (family == "barrier") put(Serves::BarrierTape, (lapsOf(f.take->strips) + kTapeRound * f.edges.value) / 1000);
    if (family == "roll") {
        const LiningRules rules = liningRulesOf(*f.rules);
        if (rollOf(*f.product).lining == Lining::SheetVinyl) {
            double seams = 0;
            for (const Joint& j : f.setOut->joints) seams += distance(j.from, j.to);
            put(Serves::SeamSealer, seams / 1000);
        }
        if (rules.face == LinedFace::Panels) {
            double clips = 0;
            for (const Piece& p : f.setOut->pieces)
                for (const ClippedSide& side : clippedSides(p.shape, rules.clips)) clips += side.clips.count;
            put(Serves::PanelClips, clips);
        }
    }
    for (const Sundry& s : f.setOut->sundries) {
        const Serves serves = servesFor(s.kind);
        put(serves, unitOf(serves) == NeedUnit::Metres ? s.amount / 1000 : s.amount);
    }
    if (family == "coating") {
        // Sanded between coats; its edges are masked once.
        const int coats = static_cast<int>(valueOf(f.product->fields, fieldsOfFamily("coating"), "coats"));
        put(Serves::AbrasiveDiscs, f.take->area.value * (coats - 1));
        put(Serves::MaskingTape, f.edges.value / 1000);
    }
    if (family == "roll" || family == "cloth") put(Serves::Blades, f.setOut->figures.cutLength.value / 1000);
    return needs;
}

std::vector<Need> needsOfTrims(const TrimPlan& plan, std::span<const Product> trims) {
    std::vector<Need> needs;
    for (const TrimRun& run : plan.runs) {
        const auto product =
            std::find_if(trims.begin(), trims.end(), [&](const Product& p) { return p.id == run.product; });
        if (product == trims.end()) continue;
        const TrimLength trim = trimOf(*product);
        double length = 0, screws = 0, blocks = 0;
        for (const TrimPiece& piece : run.pieces) {
            length += piece.length.value;
            screws += fixingsAlong(piece.length, kFromEnd, trim.screwsApart).count;
            blocks += (piece.start.end == TrimEnd::Blocked ? 0.5 : 0) + (piece.end.end == TrimEnd::Blocked ? 0.5 : 0);
        }
        const auto put = [&](Serves serves, double amount) {
            if (amount > 1e-9) needs.push_back({.serves = serves, .amount = amount, .surface = run.surface});
        };
        if (trim.profile == Profile::SealantBead) {
            put(Serves::Sealant, run.length.value / 1000);
            if (!needs.empty()) needs.back().product = run.product;
            continue;
        }
        if (trim.fixedBy == TrimFixing::Bead)
            put(Serves::AdhesiveTube, length * std::numbers::pi / 4 * trim.bead.value * trim.bead.value / 1000);
        if (trim.fixedBy == TrimFixing::Screws) {
            Need need{.serves = Serves::Screws, .amount = screws, .surface = run.surface};
            need.least = trim.thickness + kBite;
            if (screws > 0) needs.push_back(std::move(need));
        }
        put(Serves::CornerBlocks, std::ceil(blocks));
    }
    return needs;
}

const Product* productFor(const Need& need, std::span<const Product* const> products) {
    const Product* best = nullptr;
    for (const Product* p : products) {
        const SundryGoods goods = sundryOf(*p);
        if (goods.serves != need.serves) continue;
        const bool told = goods.length.value > 0 && need.least;
        if (told && (goods.length < *need.least || (need.most && goods.length > *need.most))) continue;
        if (!best) {
            best = p;
            continue;
        }
        if (!told) continue;
        // Into a batten the longest that stays in it; with no end, the shortest that holds.
        const Mm length = sundryOf(*best).length;
        if (need.most ? goods.length > length : goods.length < length) best = p;
    }
    return best;
}

} // namespace westrum
