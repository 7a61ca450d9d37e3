#pragma once

#include "core/catalogue/product.h"

#include <span>

namespace westrum {

/// A membrane laid in strips off a roll: vapour barrier, sound deadening, reflective foil.
struct Barrier {
    Mm rollWidth, rollLength, lap, thickness;
    double massKgPerM2{};
};

/// Insulation sold in boards or batts of one size, so many to a pack.
struct Insulation {
    Mm length, width, thickness;
    int perPack{};
    double massKgPerM2{};
};

/// Paint, oil, varnish, waterproof coat.
struct Coating {
    int coats{};
    double spreadingRateM2PerLitre{}; ///< of one coat on a smooth, closed face
    double porous{};                  ///< by which the first coat on a porous face takes more, as a share
    double waste{};                   ///< left in tray and roller, as a share
    double tinLitres{};
    Mm dryThickness;        ///< of one coat
    double dryKgPerLitre{}; ///< what stays of a litre
    bool waterproof{};
    double recoatHours{}; ///< before the next coat
};

/// Glue or mortar spread over an area.
struct Adhesive {
    double rateKgPerM2{}; ///< of wet adhesive, on one closed face
    bool bothFaces{};     ///< contact adhesive
    double porous{};      ///< by which a porous face takes more, as a share
    double waste{};       ///< on odd shapes, as a share
    Kg container;
    Mm bed;            ///< thickness that it leaves
    double dryShare{}; ///< of its mass that stays
    double openMinutes{};
    double flashMinutes{};       ///< it dries before it is closed
    double cureHours{};          ///< before it may be loaded
    double coldest{}, warmest{}; ///< degrees C to work in
    double standsHeat{};         ///< degrees C that it holds in
};

std::span<const Field> barrierFields();
std::span<const Field> insulationFields();
std::span<const Field> battenFields();
std::span<const Field> coatingFields();
std::span<const Field> adhesiveFields();

/// Rules of a membrane: "share" of the surface that patches of it cover; "onRibs" 1: strips along the ribs alone, that
/// break the bridge of cold.
std::span<const Field> barrierRules();
/// Rules of a layer of insulation: "between" 1: it lies between ribs or battens and takes no thickness of its own;
/// "fill": so deep is filled, layer on layer; "cavity": litres of pillars, doors and frames that are filled besides;
/// "pressed" 1: of what gives way, offcuts may be pressed in, so that area alone counts; else each bay has its own
/// pieces.
std::span<const Field> insulationRules();
/// Rules of a layer of battens: "beside" 1: they stand beside the ribs, not on them.
std::span<const Field> battenRules();

/// Of a product whose fields passed checkFields().
Barrier barrierOf(const Product& product);
Insulation insulationOf(const Product& product);
Coating coatingOf(const Product& product);
Adhesive adhesiveOf(const Product& product);

} // namespace westrum
