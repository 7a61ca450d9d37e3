#pragma once

#include "core/catalogue/product.h"

#include <span>

namespace westrum {

/// What a small thing is bought for.
enum class Serves {
    Screws,
    RivetNuts, ///< set into sheet metal, for machine screws
    MachineScrews,
    Washers,
    ScrewCups, ///< under the heads of screws that show
    PanelClips,
    HookAndLoop,
    Staples,
    AdhesiveTube, ///< runs in a bead behind trims
    Grout,
    BarrierTape, ///< over laps and edges of a barrier
    SeamSealer,  ///< welds or seals seams of vinyl
    CornerBlocks,
    Zip,
    Thread,
    PipingCord,
    FoamGlue,
    PlainLining, ///< for the bottoms of cushions
    AbrasiveDiscs,
    MaskingTape,
    Blades,
    Packers,       ///< between ribs and battens
    ExpandingNuts, ///< set into a hole that is there, for machine screws
    Sealant,       ///< a bead that closes an edge: bought as the trim that it is, not as one of these
};
/// Purposes that a product of this family may have.
inline constexpr int kServes = 23;

enum class NeedUnit { Pieces, Metres, SquareMetres, Millilitres, Kilograms };
NeedUnit unitOf(Serves serves);
/// Used up in the work, so that it adds nothing to the van's mass, and can be left out of the list.
bool isConsumable(Serves serves);

/// Something sold in packs that serves a purpose.
struct SundryGoods {
    Serves serves{};
    double perPack{}; ///< in the purpose's unit
    Mm length;        ///< of screws; thickness of packers; 0: not told apart by it
    Kg packMass;      ///< of what stays in the van of one pack
};

std::span<const Field> sundryFields();

/// Of a product whose fields passed checkFields().
SundryGoods sundryOf(const Product& product);

} // namespace westrum
