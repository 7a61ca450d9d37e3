#pragma once

#include "core/catalogue/product.h"
#include "core/catalogue/stock.h"
#include "core/catalogue/suitability.h"

#include <optional>
#include <span>
#include <string_view>

namespace westrum {

/// What a layer of a family does in a build-up, roughly in the order from the metal inwards.
enum class LayerRole {
    Barrier,    ///< vapour barrier, sound deadening: laid over the whole surface
    Insulation, ///< between supports, or over them
    Batten,     ///< lengths on the surface's battens
    Underlay,   ///< under a floating floor
    Adhesive,   ///< between two layers
    Finish,     ///< set out piece by piece: planks, boards, panels, tiles, lining
    Coating,    ///< paint, oil, waterproof coat
    Trim,       ///< along edges: no layer
    Sundry,     ///< fixings, tapes and what is used up: no layer
};

/// In what a family is bought: what its price is the price of.
enum class SoldBy { Pack, Roll, Sheet, Length, Metre, Container };

/// As what they are counted: it decides how a number of them is said, and how one of them is called.
enum class CountedAs { Planks, Boards, Sheets, Batts, Tiles, MetresOfRoll, Lengths };

/// In what a need of it is reckoned and bought.
enum class Quantity {
    Piece,  ///< one by one: sheets, lengths
    Pack,   ///< counted, in packs of several
    Length, ///< m: off a roll
    Area,   ///< m2
    Volume, ///< l
    Mass,   ///< kg
};

/// What any room may ask of a family's products. The rest of what a family is (how it lies, is cut, fitted, drawn)
/// stands with it in core/families/.
struct ProductFamily {
    std::string_view id; ///< as in Product::family and in files
    std::string_view tradeName;
    LayerRole role{};
    SoldBy soldBy{};
    std::optional<StockForm> form{}; ///< how it is cut to size; nothing for what is only counted or spread
    std::span<const Field> fields;
    std::span<const Field> layerRules{}; ///< how a layer of it lies, where it is not set out
    CountedAs counted = CountedAs::Lengths;
    Quantity quantity = Quantity::Piece;
    std::string_view rowField{};    ///< the field that says how far its rows lie apart; empty: it has no rows
    std::string_view columnField{}; ///< the same for the columns of a grid
    // Each of these may be left out; what then holds stands beside it.
    Mm (*thickness)(const Product&) = nullptr;      ///< its field `thickness`, or 0
    TrimLength (*bar)(const Product&) = nullptr;    ///< it is not sold in lengths
    bool (*porous)(const Product&) = nullptr;       ///< its face is closed
    double (*massPerM2)(const Product&) = nullptr;  ///< its field `massPerArea`, or 0
    Suitability (*suits)(const Product&) = nullptr; ///< nobody sees it: it stands nothing
};

/// All families, in the order in which they are listed. They come from the one table in core/families/table.cpp.
std::span<const ProductFamily* const> productFamilies();
const ProductFamily* productFamily(std::string_view id);

/// The table of fields of a family by its name; empty for an unknown family.
std::span<const Field> fieldsOfFamily(std::string_view family);

/// The form in which a family is cut; nothing for what is not cut to size here.
std::optional<StockForm> stockFormOf(std::string_view family);

/// What is sold in lengths and sawn to size: trim, battens, planks, boards (whose width here is the overall one). Of
/// another family: all zero.
TrimLength barOf(const Product& product);

/// Thickness of a layer as sold, before anything presses on it; of a coating all its coats. 0 for an unknown family.
Mm thicknessOf(const Product& product);
/// By how much the thickness may be off, either way.
Mm toleranceOf(const Product& product);
/// The share of its thickness that it loses when loaded (underlay, cork) or squeezed between others (insulation).
double squashOf(const Product& product);
/// Whether its face drinks adhesive: wood and boards, foam, cloth, felt and the backs of carpets; not vinyl, film,
/// metal, tiles.
bool isPorous(const Product& product);
/// What a square metre of the layer weighs once it is dry, laid without laps. Of planks, boards and tiles: of the
/// covered area.
double massPerM2Of(const Product& product);
/// How far the rows of it lie apart, joint left out, and the columns of a grid; 0 where it has none.
Mm rowModuleOf(const Product& product);
Mm columnModuleOf(const Product& product);
/// Units in a pack; 1 of what is sold singly.
int perPackOf(const Product& product);
/// The value of a field, or 0 where the family has none of that name.
double figureOf(const Product& product, std::string_view key);

} // namespace westrum
