#include "core/takeoff/needs.h"

#include "core/takeoff/fixings.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr Mm kBite{12}, kBiteMetal{8}, kClear{4}; // of a screw: into a batten, through sheet metal, short of the skin
constexpr double kLoopMm = 100;                   // of hook-and-loop at each place

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

double fixingValue(const NeedFacts& f, std::string_view key) {
    return findField(f.fixing, key) ? valueOf(*f.rules, f.fixing, key) : 0;
}

void hold(const NeedFacts& f, FixedWith by, double places, bool cups, std::vector<Need>& needs) {
    if (places <= 0) return;
    switch (by) {
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

std::vector<SupportLine> holders(const NeedFacts& f) {
    const SupportKind wanted = f.into ? SupportKind::Batten : SupportKind::Rib;
    const auto& all = f.shape->supports;
    const bool any = std::any_of(all.begin(), all.end(), [&](const PlacedSupport& s) { return s.kind == wanted; });
    std::vector<SupportLine> lines;
    for (const PlacedSupport& s : all) {
        if (any && s.kind != wanted) continue;
        if (s.shape.empty()) lines.push_back({s.along, s.centre});
        for (const Region& part : partsOf(s.shape)) { // an opening in a side parts it
            const Bounds b = boundsOf(part);
            lines.push_back(s.along ? SupportLine{true, s.centre, b.low.x, b.high.x}
                                    : SupportLine{false, s.centre, b.low.y, b.high.y});
        }
    }
    return lines;
}

void addNeed(std::vector<Need>& needs, Serves serves, double amount) {
    if (amount > 1e-9) needs.push_back({.serves = serves, .amount = amount});
}

void addSundries(const SetOut& setOut, std::vector<Need>& needs) {
    for (const Sundry& s : setOut.sundries) {
        const Serves serves = servesFor(s.kind);
        addNeed(needs, serves, unitOf(serves) == NeedUnit::Metres ? s.amount / 1000 : s.amount);
    }
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
            screws += fixingsAlong(piece.length, kFixFromEnd, trim.screwsApart).count;
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
        put(Serves::CornerBlocks, blocks); // half of each is the run's that it meets
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
