#pragma once

#include "core/catalogue/family.h"
#include "core/catalogue/product.h"
#include "core/catalogue/sundry.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/takeoff/layer_takeoff.h"
#include "core/units/money.h"

#include <cmath>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// What of a purchase is a surface's.
struct PurchaseShare {
    std::string surface;       ///< id; empty: of no surface
    double consumed{};         ///< m2, m, kg, litres or pieces: in what the product is reckoned
    std::optional<Money> cost; ///< the shares add up to what is paid; nothing without a price
    Kg mass;                   ///< that stays there
    friend bool operator==(const PurchaseShare&, const PurchaseShare&) = default;
};

/// One line of the shopping list: whole packs (or rolls) of one product.
struct Purchase {
    std::string product; ///< id
    std::string stock{}; ///< id of the entry of its stock list that is bought; empty: as the catalogue has it
    std::string size;    ///< tells this one from others where the product is sold in several sizes: part of its key
    std::optional<double> offered{}; ///< what one holds, in litres, kg, m or pieces, where an offer's size is bought
    std::string family;
    std::string supplier{}; ///< from whom; empty: nobody said
    Quantity quantity{};    ///< in what it is reckoned: of small things, in the unit of what it serves
    int packs{};
    int unitsPerPack{}; ///< planks in a pack; 1 for a roll
    int unitsNeeded{};  ///< planks opened; rolls
    std::optional<Money> packPrice;
    std::optional<Money> cost; ///< packs * price; nothing without a price
    // Areas of what is reckoned in area; 0 for what is not. Definitions: docs/formulae.md#areas
    M2 boughtArea;
    M2 consumedArea;                     ///< of units opened; off the roll
    M2 rackArea{};                       ///< of offcuts in hand that are cut into besides
    M2 laidArea;                         ///< of the pieces as they lie, openings out
    Kg boughtMass;                       ///< as it is carried home
    Kg laidMass;                         ///< that stays in the van, once dry
    Mm lengthNeeded;                     ///< off the roll; 0 for packs
    Mm lengthLeft;                       ///< of all rolls; 0 for packs
    std::vector<Mm> strips{};            ///< that are to come whole off the rolls: part of the length
    int spare{};                         ///< of the packs, items or steps of a roll: beyond what the plan takes
    double amount{};                     ///< of what is measured out: litres, kg, m2, or in the unit of what it serves
    double amountPerPack{};              ///< in one
    double shelf{};                      ///< of the need: from packs in hand, in units, litres, kg, m2 or m
    int offcuts{};                       ///< of what is cut to size: worth keeping
    Mm offcutLength, offcutWidth;        ///< of the largest of them
    bool oneLot{};                       ///< all of it from one lot
    std::optional<Serves> serves{};      ///< of small things: in whose unit the amount is
    std::vector<PurchaseShare> shares{}; ///< by surface, in the job's order
    /// Whether it is an amount in containers or packs rather than counted or taken off a roll.
    [[nodiscard]] bool measuredOut() const {
        return serves || quantity == Quantity::Area || quantity == Quantity::Volume || quantity == Quantity::Mass;
    }
    /// Bought, and in hand from other work.
    [[nodiscard]] int unitsAtHand() const {
        const bool counted = !measuredOut() && quantity != Quantity::Length;
        return packs * unitsPerPack + (counted ? static_cast<int>(std::lround(shelf)) : 0);
    }
    [[nodiscard]] int unitsLeft() const { return unitsAtHand() - unitsNeeded; }
    /// Of what is measured out.
    [[nodiscard]] double amountLeft() const { return amountPerPack * packs + shelf - amount; }
    /// Stock bought minus laid area: what is paid for and not on the floor.
    [[nodiscard]] M2 wasteOfBought() const { return boughtArea - laidArea; }
    /// Stock consumed minus laid area: what cutting costs; whole planks left over are no waste here.
    [[nodiscard]] M2 wasteOfConsumed() const { return consumedArea - laidArea; }
    friend bool operator==(const Purchase&, const Purchase&) = default;
};

/// Whole packs for the planks taken off. @pre the product's fields passed checkFields()
Purchase buyPlanks(const Product& product, const PlankTakeoff& takeoff);

/// Whole rolls for strips of an underlay or barrier, each of them in one piece. @param roll  as it is sold
Purchase buyStrips(const Product& product, const Underlay& roll, const UnderlayTakeoff& takeoff);

/// Whole packs of tiles for those that a set-out opens.
Purchase buyTiles(const Product& product, const SetOut& setOut);

/// Whole containers or packs for an amount. @param perPack  > 0, in the amount's unit
Purchase buyAmount(const Product& product, const LayerTakeoff& takeoff, double perPack, Kg laidMass);

/// Whole packs for an amount of small things. @param perPack  > 0  @param packMass  of what stays in the van of one
Purchase buySundries(const Product& product, Serves serves, double amount, double perPack, Kg packMass);

/// Two surfaces' needs of one product bought at once: whole packs of the sum, no spares. @pre same product, packs > 0
/// in both
Purchase boughtTogether(const Purchase& a, const Purchase& b);

/// Rolls of a length that hold what a line needs. @pre it is reckoned in length  @param roll  > 0
int rollsOf(const Purchase& purchase, Mm roll);

/// Units that all lines of a product need together: planks, tiles, items.
int unitsNeededOf(std::span<const Purchase> purchases, std::string_view product);

/// Adds spares: packs or items, or steps of what is sold by the metre. What is needed stays as it is.
/// @param step  m of a roll's step; 0: not sold by the metre
void addSpares(Purchase& purchase, int spare, double step);

/// Chance that `total` planks do not suffice for `needed` planks among which `cuts` are cut, when each try at a cut
/// spoils its plank with probability `spoil` and is then tried again on a further plank: more than total - needed
/// spoiled tries before the last good one (negative binomial). 1 if total < needed. Source: docs/formulae.md#odds.
double chanceOfRunningShort(int needed, int cuts, int total, double spoil);

} // namespace westrum
