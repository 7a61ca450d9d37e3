#include "core/catalogue/stock.h"

#include <array>

namespace westrum {
namespace {

constexpr std::array<std::string_view, 4> kTurnings{"one way", "half turn", "quarter turns", "any way"};
constexpr std::array<std::string_view, 2> kGrains{"none", "along the sheet"};

constexpr std::array<Field, 5> kTrim{{
    {"length", "length sold", FieldUnit::Length, 100, 12000, 2400},
    {"width", "width", FieldUnit::Length, 2, 400, 30},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"endTrim", "squared off each end", FieldUnit::Length, 0, 200, 5},
    {"mass", "mass of a length", FieldUnit::Mass, 0, 100, 0.5},
}};

constexpr std::array<Field, 9> kSheet{{
    {"length", "sheet length", FieldUnit::Length, 100, 6000, 2440},
    {"width", "sheet width", FieldUnit::Length, 100, 4000, 1220},
    {"thickness", "thickness", FieldUnit::Length, 0.5, 60, 6},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"edgeTrim", "trimmed off each edge", FieldUnit::Length, 0, 200, 5},
    {"grain", "grain", FieldUnit::Choice, 0, 1, 1, kGrains},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 80, 3.5},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0.3},
    {"solid", "solid timber", FieldUnit::Flag, 0, 1, 0},
}};

constexpr std::array<Field, 8> kRoll{{
    {"rollWidth", "roll width", FieldUnit::Length, 100, 6000, 2000},
    {"gap", "room between pieces", FieldUnit::Length, 0, 100, 5},
    {"turning", "pieces may turn", FieldUnit::Choice, 0, 3, 0, kTurnings},
    {"repeatAlong", "pattern repeat along", FieldUnit::Length, 0, 3000, 0},
    {"repeatAcross", "pattern repeat across", FieldUnit::Length, 0, 3000, 0},
    {"step", "sold in steps of", FieldUnit::Length, 1, 10000, 100},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 20, 0.6},
    {"thickness", "thickness", FieldUnit::Length, 0.2, 40, 4},
}};

} // namespace

std::span<const Field> trimFields() { return kTrim; }
std::span<const Field> sheetFields() { return kSheet; }
std::span<const Field> rollFields() { return kRoll; }

TrimLength trimOf(const Product& product) {
    const auto mm = [&](std::string_view key) { return Mm{valueOf(product.fields, kTrim, key)}; };
    return {mm("length"), mm("width"), mm("kerf"), mm("endTrim"), {valueOf(product.fields, kTrim, "mass")}};
}

SheetGoods sheetOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kSheet, key); };
    return {.length = {value("length")},
            .width = {value("width")},
            .thickness = {value("thickness")},
            .kerf = {value("kerf")},
            .edgeTrim = {value("edgeTrim")},
            .grain = value("grain") > 0,
            .solid = value("solid") > 0,
            .massKgPerM2 = value("massPerArea")};
}

RollGoods rollOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kRoll, key); };
    return {.width = {value("rollWidth")},
            .gap = {value("gap")},
            .turning = static_cast<RollTurning>(static_cast<int>(value("turning"))),
            .repeatAlong = {value("repeatAlong")},
            .repeatAcross = {value("repeatAcross")},
            .step = {value("step")},
            .massKgPerM2 = value("massPerArea")};
}

} // namespace westrum
