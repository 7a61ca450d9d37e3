#pragma once

#include "core/catalogue/product.h"

#include <span>

namespace westrum {

/// Tongue-and-groove boards. Each covers `cover`; the tongue is what `overall` has more.
struct Board {
    Mm length; ///< as sold
    Mm overall;
    Mm cover;
    Mm thickness;
    Mm kerf;
    Mm endTrim; ///< squared off each end
    Mm movementGap;
    double massKgPerM2{}; ///< of the covered area
    [[nodiscard]] Mm tongue() const { return overall - cover; }
};

/// Tiles with joints between them. A mosaic is a sheet of chips on mesh that may be parted between its chips.
struct Tile {
    Mm width;  ///< along x
    Mm height; ///< along y
    Mm thickness;
    Mm joint; ///< by its label; the rule may say otherwise
    Mm kerf;
    int perPack{};
    Kg packMass;
    Mm chipWidth, chipHeight; ///< of a mosaic; 0: an ordinary tile
    bool selfAdhesive{};
    [[nodiscard]] bool mosaic() const { return chipWidth.value > 0 && chipHeight.value > 0; }
    [[nodiscard]] double massKgPerM2() const { return packMass.value / (areaOf(width, height).value * perPack); }
};

std::span<const Field> boardFields();
std::span<const Field> tileFields();

/// Of a product whose fields passed checkFields() and checkBoard() or checkTile().
Board boardOf(const Product& product);
Tile tileOf(const Product& product);

/// What no single field says: a board whose cover is more than its overall width, a joint wider than its tile.
std::vector<Remark> checkBoard(const Board& board, const std::string& name);
std::vector<Remark> checkTile(const Tile& tile, Mm joint, const std::string& name);

} // namespace westrum
