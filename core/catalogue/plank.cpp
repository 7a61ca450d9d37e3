#include "core/catalogue/plank.h"

#include <array>

namespace westrum {
namespace {

constexpr std::array<Field, 8> kPlank{{
    {"length", "plank length", FieldUnit::Length, 100, 4000, 1220},
    {"width", "plank width", FieldUnit::Length, 40, 1000, 180},
    {"thickness", "thickness", FieldUnit::Length, 1, 40, 5},
    {"perPack", "planks in a pack", FieldUnit::Count, 1, 1000, 10},
    {"packMass", "mass of a pack", FieldUnit::Mass, 0, 200, 18},
    {"movementGap", "least movement gap", FieldUnit::Length, 0, 50, 5},
    {"leastStagger", "least stagger", FieldUnit::Length, 0, 2000, 300},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0.2},
}};

constexpr std::array<Field, 6> kUnderlay{{
    {"rollWidth", "roll width", FieldUnit::Length, 100, 5000, 1000},
    {"rollLength", "roll length", FieldUnit::Length, 100, 200000, 10000},
    {"lap", "lap between strips", FieldUnit::Length, 0, 300, 0},
    {"thickness", "thickness", FieldUnit::Length, 0.1, 50, 1.5},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 50, 0.4},
    {"squash", "gives way by", FieldUnit::Share, 0, 0.9, 0.1},
}};

Mm length(const Product& p, std::span<const Field> fields, std::string_view key) {
    return {valueOf(p.fields, fields, key)};
}

} // namespace

std::span<const Field> plankFields() { return kPlank; }
std::span<const Field> underlayFields() { return kUnderlay; }

Plank plankOf(const Product& product) {
    return {.length = length(product, kPlank, "length"),
            .width = length(product, kPlank, "width"),
            .thickness = length(product, kPlank, "thickness"),
            .perPack = static_cast<int>(valueOf(product.fields, kPlank, "perPack")),
            .packMass = {valueOf(product.fields, kPlank, "packMass")},
            .movementGap = length(product, kPlank, "movementGap"),
            .leastStagger = length(product, kPlank, "leastStagger")};
}

Underlay underlayOf(const Product& product) {
    return {.rollWidth = length(product, kUnderlay, "rollWidth"),
            .rollLength = length(product, kUnderlay, "rollLength"),
            .lap = length(product, kUnderlay, "lap"),
            .thickness = length(product, kUnderlay, "thickness"),
            .massKgPerM2 = valueOf(product.fields, kUnderlay, "massPerArea")};
}

} // namespace westrum
