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
constexpr Mm kIntoHollow{8}, kIntoRib{15};        // a screw may stand out behind a thin strip: docs/formulae.md#needs
constexpr Mm kNearCrossing{40};                   // of a batten and a rib

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

FixedWith holdingOf(const Piece& panel, const Holding& layer, bool carries, bool intoWood) {
    if (layer.by == FixedWith::AdhesiveAlone) return panel.removable ? FixedWith::Screws : layer.by;
    if (layer.by != FixedWith::AsNeeded) return layer.by;
    return !intoWood && (panel.removable || carries) ? FixedWith::RivetNuts : FixedWith::Screws;
}

Mm drillFor(const Fixing& f) {
    constexpr Mm kScrew{4.5}, kBolt{5.5}, kClip{8}, kLarger{3};
    if (!f.place.holds) return {};
    Mm hole;
    switch (f.by) {
    case FixedWith::Screws:
    case FixedWith::AsNeeded: hole = kScrew; break;
    case FixedWith::RivetNuts:
    case FixedWith::ExpandingNuts: hole = kBolt; break;
    case FixedWith::PanelClips: hole = kClip; break;
    case FixedWith::HookAndLoop:
    case FixedWith::Staples:
    case FixedWith::AdhesiveAlone: return {};
    }
    // Timber moves under its washer; a hole that a strip covers may be guessed through the panel.
    return f.underStrip || (f.washer && f.by == FixedWith::Screws) ? hole + kLarger : hole;
}

void hold(std::span<const Fixing> fixings, std::vector<Need>& needs) {
    const auto put = [&](Serves serves, double amount, const std::optional<Mm>& least, const std::optional<Mm>& most) {
        const auto same = std::find_if(needs.begin(), needs.end(), [&](const Need& n) {
            return n.serves == serves && n.least == least && n.most == most;
        });
        if (same != needs.end())
            same->amount += amount;
        else
            needs.push_back({.serves = serves, .amount = amount, .least = least, .most = most});
    };
    for (const Fixing& f : fixings) {
        if (!f.place.holds) continue;
        switch (f.by) {
        case FixedWith::Screws:
        case FixedWith::AsNeeded: put(Serves::Screws, 1, f.least, f.most); break;
        case FixedWith::RivetNuts:
        case FixedWith::ExpandingNuts:
            put(f.by == FixedWith::RivetNuts ? Serves::RivetNuts : Serves::ExpandingNuts, 1, {}, {});
            put(Serves::MachineScrews, 1, f.least, f.most);
            break;
        case FixedWith::PanelClips: put(Serves::PanelClips, 1, {}, {}); break;
        case FixedWith::HookAndLoop: put(Serves::HookAndLoop, kLoopMm / 1000, {}, {}); break;
        case FixedWith::Staples: put(Serves::Staples, 1, {}, {}); break;
        case FixedWith::AdhesiveAlone: break;
        }
        if (f.cup) put(Serves::ScrewCups, 1, {}, {});
        if (f.washer) put(Serves::Washers, 1, {}, {});
    }
}

std::vector<Holder> holdersFor(const NeedFacts& f) {
    const SupportKind wanted = f.into ? SupportKind::Batten : SupportKind::Rib;
    std::vector<Holder> all = holdersOf(*f.shape, f.surface);
    if (std::any_of(all.begin(), all.end(), [&](const Holder& h) { return h.kind == wanted; }))
        std::erase_if(all, [&](const Holder& h) { return h.kind != wanted; });
    return all;
}

FixingRules fixingRulesOf(const NeedFacts& f) {
    FixingRules rules;
    rules.inset = {fixingValue(f, "fixInset")};
    rules.edge = {std::max(1.0, fixingValue(f, "fixEdge"))};
    rules.field = {std::max(1.0, fixingValue(f, "fixField"))};
    rules.keepOut.assign(f.keepOut.begin(), f.keepOut.end());
    return rules;
}

Fixing fixingAt(const NeedFacts& f, const FixingPlace& place, FixedWith by, bool cup) {
    Fixing fixing{.place = place, .by = by};
    Mm packed; // below a batten where it crosses a rib
    for (const PackedAt& p : f.packers)
        if (distance(p.at, place.at) < kNearCrossing.value) packed = std::max(packed, p.thickness);
    const Mm through = f.into ? f.through : f.through + packed;
    if (by == FixedWith::Screws) {
        fixing.cup = cup;
        fixing.least = through + (f.into ? kBite : kBiteMetal);
        if (f.into) {
            const Mm batten = f.through + *f.into;
            fixing.most = batten - kClear;
            if (*fixing.most < *fixing.least) {
                // A strip too thin to hold a screw and hide its point: the hollow behind it hides the point; where it
                // crosses a rib, the screw goes on into that.
                const auto onRib = [&](const PlacedSupport& s) {
                    if (s.kind != SupportKind::Rib || s.shape.empty()) return false;
                    const Bounds b = boundsOf(s.shape);
                    return place.at.x >= b.low.x && place.at.x <= b.high.x && place.at.y >= b.low.y &&
                           place.at.y <= b.high.y;
                };
                if (f.hollow.value > 0 && std::any_of(f.shape->supports.begin(), f.shape->supports.end(), onRib)) {
                    fixing.least = batten + packed + kBiteMetal;
                    fixing.most = *fixing.least + kIntoRib;
                } else
                    fixing.most =
                        std::max(*fixing.most, std::min(batten + f.hollow - kClear, *fixing.least + kIntoHollow));
            }
        }
    } else if (by == FixedWith::RivetNuts || by == FixedWith::ExpandingNuts) {
        fixing.washer = true;
        fixing.least = boltLength(through, kWasher, kNutBody, kPastNut, {}).needed;
    }
    return fixing;
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
