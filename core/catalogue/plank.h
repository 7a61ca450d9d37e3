#pragma once

#include "core/catalogue/product.h"

#include <span>

namespace westrum {

/// A floating plank with locks on all four sides, sold in packs. All lengths are cover sizes.
struct Plank {
    Mm length;
    Mm width;
    Mm thickness;
    int perPack{};
    Kg packMass;
    Mm movementGap;  ///< least gap at every edge, by the label
    Mm leastStagger; ///< least distance of end joints in neighbouring rows, by the label
    [[nodiscard]] M2 packArea() const { return areaOf(length, width) * perPack; }
    [[nodiscard]] double massKgPerM2() const { return packMass.value / packArea().value; }
};

/// The fields of the family "planks". Defaults are typical trade figures (sources in
/// docs/formulae.md#planks); the product's label goes before them.
std::span<const Field> plankFields();

/// The plank of a product whose fields passed checkFields().
Plank plankOf(const Product& product);

/// A sheet underlay sold in rolls, laid in strips under a floating floor.
struct Underlay {
    Mm rollWidth;
    Mm rollLength;
    Mm lap; ///< overlap of neighbouring strips; 0 for butted strips
    Mm thickness;
    double massKgPerM2{};
};

std::span<const Field> underlayFields();
Underlay underlayOf(const Product& product);

} // namespace westrum
