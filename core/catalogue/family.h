#pragma once

#include "core/catalogue/product.h"
#include "core/catalogue/stock.h"

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

/// A family of products: everything that tells it from the others stands in one table entry. How finishes are set out
/// stands in core/setout/set_out.h, how they are fitted in core/fitting.
struct Family {
    std::string_view id; ///< as in Product::family and in files
    std::string_view tradeName;
    LayerRole role{};
    SoldBy soldBy{};
    std::optional<StockForm> form{}; ///< how it is cut to size; nothing for what is only counted or spread
    std::span<const Field> fields;
    std::span<const Field> layerRules{}; ///< how a layer of it lies, where it is not set out
};

/// All families, in the order in which they are listed.
std::span<const Family> families();
const Family* productFamily(std::string_view id);

/// The table of fields of a family by its name; empty for an unknown family.
std::span<const Field> fieldsOfFamily(std::string_view family);

/// The form in which a family is cut; nothing for what is not cut to size here.
std::optional<StockForm> stockFormOf(std::string_view family);

/// What is sold in lengths and sawn to size: trim, battens, boards (whose width here is the overall one). Of another
/// family: all zero.
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

} // namespace westrum
