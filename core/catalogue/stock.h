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

/// Trim, battens and boards sold in lengths.
struct TrimLength {
    Mm length;
    Mm width;
    Mm kerf;
    Mm endTrim; ///< squared off at both ends
    Kg mass;    ///< of one length
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

/// Lining sold by the running metre.
struct RollGoods {
    Mm width;
    Mm gap; ///< kept free between pieces for the blade
    RollTurning turning;
    Mm repeatAlong, repeatAcross; ///< of its pattern; 0: none
    Mm step;                      ///< it is cut off the roll in steps of this
    double massKgPerM2;
};

std::span<const Field> trimFields();
std::span<const Field> sheetFields();
std::span<const Field> rollFields();

/// Of a product whose fields passed checkFields().
TrimLength trimOf(const Product& product);
SheetGoods sheetOf(const Product& product);
RollGoods rollOf(const Product& product);

} // namespace westrum
