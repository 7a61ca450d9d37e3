#include "core/catalogue/layers.h"

#include <array>

namespace westrum {
namespace {

// Typical figures of the trade; the label goes before them. Sources: docs/formulae.md#layers.
constexpr std::array<Field, 6> kBarrier{{
    {"rollWidth", "roll width", FieldUnit::Length, 50, 5000, 1000},
    {"rollLength", "roll length", FieldUnit::Length, 100, 200000, 10000},
    {"lap", "lap between strips", FieldUnit::Length, 0, 300, 50},
    {"thickness", "thickness", FieldUnit::Length, 0.01, 30, 0.2},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 20, 0.18},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0},
}};

constexpr std::array<Field, 7> kInsulation{{
    {"length", "batt length", FieldUnit::Length, 100, 20000, 1200},
    {"width", "batt width", FieldUnit::Length, 50, 3000, 600},
    {"thickness", "thickness", FieldUnit::Length, 2, 300, 25},
    {"perPack", "batts in a pack", FieldUnit::Count, 1, 1000, 8},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 30, 0.8},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 20, 1},
    {"squash", "gives way by", FieldUnit::Share, 0, 0.9, 0},
}};

constexpr std::array<Field, 7> kBatten{{
    {"length", "length sold", FieldUnit::Length, 100, 12000, 2400},
    {"width", "width", FieldUnit::Length, 5, 200, 38},
    {"thickness", "thickness", FieldUnit::Length, 3, 100, 19},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"endTrim", "squared off each end", FieldUnit::Length, 0, 200, 5},
    {"mass", "mass of a length", FieldUnit::Mass, 0, 100, 0.9},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0.5},
}};

constexpr std::array<Field, 9> kCoating{{
    {"coats", "coats", FieldUnit::Count, 1, 10, 2},
    {"spreading", "a litre covers", FieldUnit::Spreading, 0.2, 40, 11},
    {"porous", "first coat on a porous face takes more by", FieldUnit::Share, 0, 2, 0},
    {"waste", "left in tray and roller", FieldUnit::Share, 0, 1, 0},
    {"tin", "litres in a tin", FieldUnit::Litres, 0.05, 50, 0.75},
    {"dryThickness", "dry thickness of a coat", FieldUnit::Length, 0.005, 3, 0.04},
    {"dryMass", "a litre dries to", FieldUnit::Mass, 0, 5, 0.6},
    {"waterproof", "waterproof", FieldUnit::Flag, 0, 1, 0},
    {"recoat", "hours before the next coat", FieldUnit::Hours, 0, 200, 6},
}};

constexpr std::array<std::string_view, 2> kFaces{"one face", "both faces"};
constexpr std::array<Field, 13> kAdhesive{{
    {"rate", "spread on a face, per area", FieldUnit::MassPerArea, 0.02, 20, 0.3},
    {"faces", "spread on", FieldUnit::Choice, 0, 1, 0, kFaces},
    {"porous", "a porous face takes more by", FieldUnit::Share, 0, 2, 0},
    {"waste", "lost on odd shapes", FieldUnit::Share, 0, 1, 0},
    {"container", "mass of a container", FieldUnit::Mass, 0.05, 50, 5},
    {"bed", "thickness of its bed", FieldUnit::Length, 0, 15, 0.2},
    {"dryShare", "share that stays when dry", FieldUnit::Share, 0, 1, 0.7},
    {"openTime", "open time in minutes", FieldUnit::Minutes, 1, 600, 15},
    {"flash", "minutes to dry before closing", FieldUnit::Minutes, 0, 600, 0},
    {"cure", "hours before load", FieldUnit::Hours, 0, 400, 24},
    {"coldest", "worked from, °C", FieldUnit::Number, -30, 60, 15},
    {"warmest", "worked up to, °C", FieldUnit::Number, -30, 80, 27},
    {"standsHeat", "holds up to, °C", FieldUnit::Number, 20, 400, 60},
}};

constexpr std::array<Field, 4> kInsulationRules{{
    {"between", "between the supports", FieldUnit::Flag, 0, 1, 1},
    {"fill", "filled so deep, 0: one layer", FieldUnit::Length, 0, 400, 0},
    {"cavity", "litres in cavities besides", FieldUnit::Litres, 0, 2000, 0},
    {"pressed", "offcuts pressed in", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<Field, 2> kBarrierRules{{
    {"share", "share of the surface", FieldUnit::Share, 0.05, 1, 1},
    {"onRibs", "as strips along the ribs", FieldUnit::Flag, 0, 1, 0},
}};
constexpr std::array<Field, 1> kBattenRules{{
    {"beside", "beside the ribs, not on them", FieldUnit::Flag, 0, 1, 0},
}};

} // namespace

std::span<const Field> barrierFields() { return kBarrier; }
std::span<const Field> insulationFields() { return kInsulation; }
std::span<const Field> battenFields() { return kBatten; }
std::span<const Field> coatingFields() { return kCoating; }
std::span<const Field> adhesiveFields() { return kAdhesive; }
std::span<const Field> insulationRules() { return kInsulationRules; }
std::span<const Field> battenRules() { return kBattenRules; }
std::span<const Field> barrierRules() { return kBarrierRules; }

Barrier barrierOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kBarrier, key); };
    return {{value("rollWidth")}, {value("rollLength")}, {value("lap")}, {value("thickness")}, value("massPerArea")};
}

Insulation insulationOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kInsulation, key); };
    return {.length = {value("length")},
            .width = {value("width")},
            .thickness = {value("thickness")},
            .perPack = static_cast<int>(value("perPack")),
            .massKgPerM2 = value("massPerArea")};
}

Coating coatingOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kCoating, key); };
    return {.coats = static_cast<int>(value("coats")),
            .spreadingRateM2PerLitre = value("spreading"),
            .porous = value("porous"),
            .waste = value("waste"),
            .tinLitres = value("tin"),
            .dryThickness = {value("dryThickness")},
            .dryKgPerLitre = value("dryMass"),
            .waterproof = value("waterproof") != 0,
            .recoatHours = value("recoat")};
}

Adhesive adhesiveOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kAdhesive, key); };
    return {.rateKgPerM2 = value("rate"),
            .bothFaces = value("faces") != 0,
            .porous = value("porous"),
            .waste = value("waste"),
            .container = {value("container")},
            .bed = {value("bed")},
            .dryShare = value("dryShare"),
            .openMinutes = value("openTime"),
            .flashMinutes = value("flash"),
            .cureHours = value("cure"),
            .coldest = value("coldest"),
            .warmest = value("warmest"),
            .standsHeat = value("standsHeat")};
}

} // namespace westrum
