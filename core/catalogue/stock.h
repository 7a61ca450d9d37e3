#pragma once

#include "core/catalogue/product.h"

#include <span>

namespace westrum {

/// How stock lies on the trestles, which decides how it is cut.
enum class StockForm {
    Lengths, ///< bars: boards, trims, planks
    Sheets,  ///< cut right across by a saw on a rail
    Roll,    ///< cut by blade or scissors into any shape
};

/// How pieces may be turned on a roll.
enum class RollTurning {
    OneWay,   ///< nap, stripe or print
    HalfTurn, ///< felt: along the roll, either way round
    Quarter,  ///< any quarter turn
    Any,
};

/// What a trim is, which says where it goes.
enum class Profile {
    CoverStrip, ///< flat, over a joint or an edge
    Angle,      ///< round an outside corner
    Quadrant,   ///< in an inside corner
    Skirting,
    PushOnEdging, ///< gripped on a turned-in edge
    Threshold,
    DSection, ///< on a free edge
    BoundEdge,
    Cove, ///< up-stand at a floor
    SealantBead,
};
inline constexpr int kProfiles = 10;

/// How a trim is made to turn a corner.
enum class CornerCut { Mitred, Coped, Butted, Blocked };

/// What holds a trim.
enum class TrimFixing {
    Bead, ///< of adhesive behind it
    Screws,
    Itself, ///< it grips, is sewn on, or is a bead
};

/// Trim, battens and boards sold in lengths.
struct TrimLength {
    Mm length;
    Mm width;
    Mm kerf;
    Mm endTrim; ///< squared off at both ends
    Kg mass;    ///< of one length
    // Of trim only.
    Profile profile{};
    Mm thickness;   ///< by which it stands off the face that carries it
    Mm leastRadius; ///< to which it bends; 0: it is stiff
    CornerCut inside{}, outside{};
    TrimFixing fixedBy{};
    Mm bead;              ///< diameter of that behind it
    Mm screwsApart;       ///< at most
    double cartridgeMl{}; ///< of a sealant bead: what is in one
    /// Metres of a sealant bead, its legs `width` and `thickness`, out of one cartridge.
    [[nodiscard]] double metresOfBead() const { return cartridgeMl / (width.value * thickness.value / 2); }
};

/// A panel sold as a whole sheet.
struct SheetGoods {
    Mm length;
    Mm width;
    Mm thickness;
    Mm kerf;
    Mm edgeTrim; ///< cut off all four edges before anything is measured
    bool grain;  ///< runs along the length: pieces keep their direction
    bool solid;  ///< solid timber, which moves across its grain
    double massKgPerM2;
};

/// What a lining is, which says how it is cut and fitted.
enum class Lining {
    StretchCarpet, ///< nap, stretches every way
    Felt,
    SheetVinyl,
    Covering, ///< leathercloth, suede and the like, on a board or a soft back
    Film,     ///< stuck on glass or on a smooth face
};

/// Lining sold by the running metre.
struct RollGoods {
    Lining lining{};
    Mm selvedge;      ///< of no use at either edge
    double stretch{}; ///< by which it may be pulled at most, as a share
    Mm allowance;     ///< left at every edge to be trimmed
    Mm lap;           ///< beyond a seam, each piece
    Mm thickness;
    Mm width;
    Mm gap; ///< kept free between pieces for the blade
    RollTurning turning;
    Mm repeatAlong, repeatAcross; ///< of its pattern; 0: none
    Mm step;                      ///< it is cut off the roll in steps of this
    double massKgPerM2;
    /// Across the roll, between its selvedges.
    [[nodiscard]] Mm usable() const { return width - selvedge * 2; }
};

/// Trade name of a profile.
std::string_view profileName(Profile profile);

std::span<const Field> trimFields();
std::span<const Field> sheetFields();
std::span<const Field> rollFields();
std::span<const Field> clothFields();
std::span<const Field> foamFields();

/// Of a product whose fields passed checkFields(), of any family that is cut from sheets or off a roll: by the fields
/// of these names that it has.
TrimLength trimOf(const Product& product);
SheetGoods sheetOf(const Product& product);
/// What squaring off an edge really takes: a blade wider than what is to come off takes its own width.
Mm squaredOff(Mm trim, Mm kerf);
RollGoods rollOf(const Product& product);

} // namespace westrum
