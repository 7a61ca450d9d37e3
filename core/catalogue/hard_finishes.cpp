#include "core/catalogue/hard_finishes.h"

#include "core/catalogue/stock.h"

#include <array>

namespace westrum {
namespace {

// Typical figures of the trade; the label goes before them. Sources: docs/formulae.md#boards, #tiles.
constexpr std::array<Field, 9> kBoard{{
    {"length", "board length", FieldUnit::Length, 200, 8000, 3000},
    {"overall", "overall width", FieldUnit::Length, 20, 400, 96},
    {"cover", "cover width", FieldUnit::Length, 20, 400, 88},
    {"thickness", "thickness", FieldUnit::Length, 3, 40, 9},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"endTrim", "squared off each end", FieldUnit::Length, 0, 200, 5},
    {"movementGap", "least movement gap", FieldUnit::Length, 0, 50, 5},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 40, 4.3},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0.3},
}};

constexpr std::array<Field, 11> kTile{{
    {"width", "tile width", FieldUnit::Length, 5, 1500, 150},
    {"height", "tile height", FieldUnit::Length, 5, 1500, 150},
    {"thickness", "thickness", FieldUnit::Length, 0.5, 30, 6},
    {"joint", "joint width", FieldUnit::Length, 0, 20, 2},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 10, 2},
    {"perPack", "tiles in a pack", FieldUnit::Count, 1, 2000, 25},
    {"packMass", "mass of a pack", FieldUnit::Mass, 0, 200, 8},
    {"chipWidth", "chip width of a mosaic", FieldUnit::Length, 0, 200, 0},
    {"chipHeight", "chip height of a mosaic", FieldUnit::Length, 0, 200, 0},
    {"selfAdhesive", "self-adhesive", FieldUnit::Flag, 0, 1, 0},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 5, 0.3},
}};

Remark outOfRange(const std::string& name, std::string_view field, Mm value, Mm least, Mm most) {
    return {Severity::Error,
            {"", Part::Product},
            RemarkKind::FieldOutOfRange,
            {{"product", name}, {"field", std::string(field)}, {"value", value}, {"least", least}, {"most", most}},
            {}};
}

} // namespace

std::span<const Field> boardFields() { return kBoard; }
std::span<const Field> tileFields() { return kTile; }

Board boardOf(const Product& product) {
    const auto mm = [&](std::string_view key) { return Mm{valueOf(product.fields, kBoard, key)}; };
    return {.length = mm("length"),
            .overall = mm("overall"),
            .cover = mm("cover"),
            .thickness = mm("thickness"),
            .kerf = mm("kerf"),
            .endTrim = squaredOff(mm("endTrim"), mm("kerf")),
            .movementGap = mm("movementGap"),
            .massKgPerM2 = valueOf(product.fields, kBoard, "massPerArea")};
}

Tile tileOf(const Product& product) {
    const auto mm = [&](std::string_view key) { return Mm{valueOf(product.fields, kTile, key)}; };
    return {.width = mm("width"),
            .height = mm("height"),
            .thickness = mm("thickness"),
            .joint = mm("joint"),
            .kerf = mm("kerf"),
            .perPack = static_cast<int>(valueOf(product.fields, kTile, "perPack")),
            .packMass = {valueOf(product.fields, kTile, "packMass")},
            .chipWidth = mm("chipWidth"),
            .chipHeight = mm("chipHeight"),
            .selfAdhesive = valueOf(product.fields, kTile, "selfAdhesive") != 0};
}

std::vector<Remark> checkBoard(const Board& board, const std::string& name) {
    std::vector<Remark> faults;
    if (board.cover > board.overall)
        faults.push_back(outOfRange(name, "cover width", board.cover, {20}, board.overall));
    if (board.length <= board.endTrim * 2)
        faults.push_back(outOfRange(name, "squared off each end", board.endTrim, {0}, board.length / 2));
    return faults;
}

std::vector<Remark> checkTile(const Tile& tile, Mm joint, const std::string& name) {
    std::vector<Remark> faults;
    const Mm least = std::min(tile.width, tile.height);
    if (joint >= least) faults.push_back(outOfRange(name, "joint width", joint, {0}, least));
    return faults;
}

} // namespace westrum
