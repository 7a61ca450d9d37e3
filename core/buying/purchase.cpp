#include "core/buying/purchase.h"

#include "core/catalogue/hard_finishes.h"
#include "core/takeoff/whole_strips.h"
#include "core/units/count.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace westrum {
namespace {

constexpr double kWetKgPerLitre = 1.2; // of paint in its tin, typical: docs/formulae.md#areas

/// A line of a product, empty yet.
Purchase lineOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    Purchase p{.product = product.id, .size = {}, .family = product.family};
    if (family) p.quantity = family->quantity;
    return p;
}

void addCost(Purchase& p, const Product& product) {
    p.packPrice = product.packPrice;
    if (product.packPrice) p.cost = *product.packPrice * p.packs;
}

} // namespace

Purchase buyPlanks(const Product& product, const PlankTakeoff& takeoff) {
    const Plank plank = plankOf(product);
    Purchase p = lineOf(product);
    p.unitsPerPack = plank.perPack;
    p.unitsNeeded = takeoff.planks;
    p.packs = (takeoff.planks + plank.perPack - 1) / plank.perPack;
    p.boughtArea = plank.packArea() * p.packs;
    p.consumedArea = takeoff.consumedArea;
    p.laidArea = takeoff.laidArea;
    p.boughtMass = plank.packMass * p.packs;
    p.laidMass = takeoff.laidMass;
    addCost(p, product);
    return p;
}

Purchase buyStrips(const Product& product, const Underlay& underlay, const UnderlayTakeoff& takeoff) {
    Purchase p = lineOf(product);
    p.unitsPerPack = 1;
    p.lengthNeeded = takeoff.totalLength;
    if (takeoff.loose < takeoff.totalLength)
        for (const UnderlayStrip& s : takeoff.strips) p.strips.push_back(s.length);
    p.packs = p.unitsNeeded = rollsOf(p, underlay.rollLength);
    const M2 rollArea = areaOf(underlay.rollWidth, underlay.rollLength);
    p.boughtArea = rollArea * p.packs;
    p.consumedArea = areaOf(takeoff.totalLength, underlay.rollWidth);
    p.laidArea = takeoff.laidArea;
    p.boughtMass = {p.boughtArea.value * underlay.massKgPerM2};
    p.laidMass = takeoff.laidMass;
    p.lengthLeft = underlay.rollLength * p.packs - takeoff.totalLength;
    addCost(p, product);
    return p;
}

Purchase buyTiles(const Product& product, const SetOut& setOut) {
    const Tile tile = tileOf(product);
    Purchase p = lineOf(product);
    p.unitsPerPack = tile.perPack;
    p.unitsNeeded = static_cast<int>(setOut.stock.size());
    p.packs = (p.unitsNeeded + tile.perPack - 1) / tile.perPack;
    const M2 each = areaOf(tile.width, tile.height);
    p.boughtArea = each * (p.packs * tile.perPack);
    p.consumedArea = each * p.unitsNeeded;
    double laid = 0;
    for (const Piece& piece : setOut.pieces) laid += areaMm2(piece.shape) / 1e6;
    p.laidArea = {laid};
    p.boughtMass = tile.packMass * p.packs;
    p.laidMass = {laid * tile.massKgPerM2()};
    addCost(p, product);
    return p;
}

Purchase buyAmount(const Product& product, const LayerTakeoff& takeoff, double perPack, Kg laidMass) {
    Purchase p = lineOf(product);
    p.unitsPerPack = 1;
    p.amount = takeoff.amount;
    p.amountPerPack = perPack;
    p.packs = p.unitsNeeded = static_cast<int>(std::max<std::int64_t>(1, roundUp(takeoff.amount / perPack)));
    switch (p.quantity) {
    case Quantity::Area:
        p.laidArea = p.consumedArea = takeoff.area;
        p.boughtArea = {perPack * p.packs};
        p.boughtMass = {p.boughtArea.value * massPerM2Of(product)};
        break;
    case Quantity::Volume: p.boughtMass = {perPack * p.packs * kWetKgPerLitre}; break;
    case Quantity::Mass: p.boughtMass = {perPack * p.packs}; break;
    default: break;
    }
    p.laidMass = laidMass;
    addCost(p, product);
    return p;
}

Purchase buySundries(const Product& product, Serves serves, double amount, double perPack, Kg packMass) {
    Purchase p = lineOf(product);
    p.unitsPerPack = 1;
    p.amount = amount;
    p.amountPerPack = perPack;
    p.serves = serves;
    switch (unitOf(serves)) {
    case NeedUnit::Pieces: p.quantity = Quantity::Pack; break;
    case NeedUnit::Metres: p.quantity = Quantity::Length; break;
    case NeedUnit::SquareMetres: p.quantity = Quantity::Area; break;
    case NeedUnit::Millilitres: p.quantity = Quantity::Volume; break;
    case NeedUnit::Kilograms: p.quantity = Quantity::Mass; break;
    }
    p.packs = p.unitsNeeded = static_cast<int>(std::max<std::int64_t>(1, roundUp(amount / perPack)));
    p.boughtMass = packMass * p.packs;
    p.laidMass = packMass * (amount / perPack);
    addCost(p, product);
    return p;
}

Purchase boughtTogether(const Purchase& a, const Purchase& b) {
    assert(a.product == b.product && a.packs > 0 && b.packs > 0);
    Purchase p = a;
    const double packs = a.packs;
    p.lengthNeeded = a.lengthNeeded + b.lengthNeeded;
    if (a.quantity == Quantity::Length && !a.serves) {
        const Mm roll = (a.lengthNeeded + a.lengthLeft) / packs;
        p.strips.insert(p.strips.end(), b.strips.begin(), b.strips.end());
        p.packs = rollsOf(p, roll);
        p.unitsNeeded = p.packs;
        p.lengthLeft = roll * p.packs - p.lengthNeeded;
    } else if (a.measuredOut()) {
        p.amount = a.amount + b.amount;
        p.packs = p.unitsNeeded = static_cast<int>(roundUp(p.amount / a.amountPerPack));
    } else {
        p.unitsNeeded = a.unitsNeeded + b.unitsNeeded;
        p.packs = (p.unitsNeeded + a.unitsPerPack - 1) / a.unitsPerPack;
    }
    p.boughtArea = a.boughtArea * (p.packs / packs);
    p.boughtMass = a.boughtMass * (p.packs / packs);
    p.consumedArea = a.consumedArea + b.consumedArea;
    p.laidArea = a.laidArea + b.laidArea;
    p.rackArea = a.rackArea + b.rackArea;
    p.laidMass = a.laidMass + b.laidMass;
    p.spare = 0;
    p.offcuts = a.offcuts + b.offcuts;
    if (areaOf(b.offcutLength, b.offcutWidth) > areaOf(a.offcutLength, a.offcutWidth)) {
        p.offcutLength = b.offcutLength;
        p.offcutWidth = b.offcutWidth;
    }
    if (p.packPrice) p.cost = *p.packPrice * p.packs;
    return p;
}

int rollsOf(const Purchase& p, Mm roll) {
    Mm whole{0};
    for (const Mm strip : p.strips) whole = whole + strip;
    return std::max(1, rollsFor(p.strips, std::max(Mm{0}, p.lengthNeeded - whole), roll).rolls);
}

int unitsNeededOf(std::span<const Purchase> purchases, std::string_view product) {
    int units = 0;
    for (const Purchase& p : purchases) units += p.product == product ? p.unitsNeeded : 0;
    return units;
}

void addSpares(Purchase& p, int spare, double step) {
    const double before = p.packs;
    p.spare += spare;
    if (step > 0) { // its price is that of a metre
        const double metres = spare * step;
        p.lengthLeft = p.lengthLeft + Mm{metres * 1000};
        const double share = p.lengthNeeded.value > 0 ? metres * 1000 / p.lengthNeeded.value : 0;
        p.boughtArea = p.boughtArea * (1 + share);
        p.boughtMass = p.boughtMass * (1 + share);
        if (p.cost) p.cost->minor += std::llround(static_cast<double>(p.packPrice->minor) * metres);
        return;
    }
    p.packs += spare;
    p.boughtArea = p.boughtArea * (p.packs / before);
    p.boughtMass = p.boughtMass * (p.packs / before);
    if (p.cost) p.cost = *p.cost + *p.packPrice * spare;
}

double chanceOfRunningShort(int needed, int cuts, int total, double spoil) {
    const int spares = total - needed;
    if (spares < 0) return 1;
    if (cuts <= 0 || spoil <= 0) return 0;
    // P(at most `spares` spoiled among cuts + spares tries), the binomial in logarithms.
    const int n = cuts + spares;
    double enough = 0;
    for (int k = 0; k <= spares; ++k) {
        const double logTerm = std::lgamma(n + 1.0) - std::lgamma(k + 1.0) - std::lgamma(n - k + 1.0) +
                               k * std::log(spoil) + (n - k) * std::log1p(-spoil);
        enough += std::exp(logTerm);
    }
    return std::clamp(1 - enough, 0.0, 1.0);
}

} // namespace westrum
