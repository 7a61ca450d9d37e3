#include "core/catalogue/stock.h"

#include "core/catalogue/family.h"

#include <algorithm>
#include <array>

namespace westrum {
namespace {

constexpr std::array<std::string_view, 4> kTurnings{"one way", "half turn", "quarter turns", "any way"};
constexpr std::array<std::string_view, 2> kGrains{"none", "along the sheet"};

constexpr std::array<std::string_view, kProfiles> kProfileNames{
    "cover strip", "angle",     "quadrant",   "skirting", "push-on edging",
    "threshold",   "D-section", "bound edge", "cove",     "sealant bead"};
constexpr std::array<std::string_view, 4> kCorners{"mitred", "coped", "butted", "corner blocks"};

constexpr std::array<std::string_view, 3> kTrimFixings{"a bead of adhesive", "screws", "itself"};
constexpr std::array<Field, 14> kTrim{{
    {"profile", "profile", FieldUnit::Choice, 0, kProfiles - 1, 0, kProfileNames},
    {"length", "length sold", FieldUnit::Length, 100, 50000, 2400},
    {"width", "width", FieldUnit::Length, 2, 400, 30},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"endTrim", "squared off each end", FieldUnit::Length, 0, 200, 5},
    {"mass", "mass of a length", FieldUnit::Mass, 0, 100, 0.5},
    {"thickness", "stands off by", FieldUnit::Length, 0, 200, 6},
    {"leastRadius", "bends to a radius of", FieldUnit::Length, 0, 5000, 0},
    {"inside", "inside corners", FieldUnit::Choice, 0, 3, 0, kCorners},
    {"outside", "outside corners", FieldUnit::Choice, 0, 3, 0, kCorners},
    {"fixedBy", "held by", FieldUnit::Choice, 0, 2, 0, kTrimFixings},
    {"bead", "bead behind it", FieldUnit::Length, 1, 30, 4},
    {"screwsApart", "screws apart", FieldUnit::Length, 30, 2000, 300},
    {"cartridge", "ml in a cartridge", FieldUnit::Number, 10, 1000, 290},
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

constexpr std::array<std::string_view, 5> kLinings{"stretch carpet", "felt", "sheet vinyl", "covering", "film"};
constexpr std::array<Field, 13> kRoll{{
    {"lining", "kind of lining", FieldUnit::Choice, 0, 4, 0, kLinings},
    {"rollWidth", "roll width", FieldUnit::Length, 100, 6000, 2000},
    {"gap", "room between pieces", FieldUnit::Length, 0, 100, 5},
    {"turning", "pieces may turn", FieldUnit::Choice, 0, 3, 0, kTurnings},
    {"repeatAlong", "pattern repeat along", FieldUnit::Length, 0, 3000, 0},
    {"repeatAcross", "pattern repeat across", FieldUnit::Length, 0, 3000, 0},
    {"step", "sold in steps of", FieldUnit::Length, 1, 10000, 100},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 20, 0.6},
    {"thickness", "thickness", FieldUnit::Length, 0.02, 40, 4},
    {"selvedge", "no use at either edge", FieldUnit::Length, 0, 200, 0},
    {"stretch", "may be stretched by", FieldUnit::Share, 0, 0.5, 0.1},
    {"allowance", "left to be trimmed", FieldUnit::Length, 0, 300, 45},
    {"lap", "beyond a seam", FieldUnit::Length, 0, 200, 30},
}};

constexpr std::array<Field, 9> kCloth{{
    {"rollWidth", "width of the bolt", FieldUnit::Length, 300, 4000, 1400},
    {"selvedge", "no use at either edge", FieldUnit::Length, 0, 200, 10},
    {"gap", "room between pieces", FieldUnit::Length, 0, 100, 3},
    {"turning", "pieces may turn", FieldUnit::Choice, 0, 3, 0, kTurnings},
    {"repeatAlong", "pattern repeat along", FieldUnit::Length, 0, 3000, 0},
    {"repeatAcross", "pattern repeat across", FieldUnit::Length, 0, 3000, 0},
    {"step", "sold in steps of", FieldUnit::Length, 1, 10000, 100},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 20, 0.4},
    {"thickness", "thickness", FieldUnit::Length, 0.2, 20, 1},
}};

constexpr std::array<Field, 9> kFoam{{
    {"length", "sheet length", FieldUnit::Length, 100, 6000, 2000},
    {"width", "sheet width", FieldUnit::Length, 100, 4000, 1200},
    {"thickness", "thickness", FieldUnit::Length, 5, 400, 100},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 0},
    {"edgeTrim", "trimmed off each edge", FieldUnit::Length, 0, 200, 0},
    {"grain", "grain", FieldUnit::Choice, 0, 1, 0, kGrains},
    {"massPerArea", "mass per area", FieldUnit::MassPerArea, 0, 80, 3.5},
    {"tolerance", "thickness may be off by", FieldUnit::Length, 0, 20, 3},
    {"squash", "loses of its thickness when loaded", FieldUnit::Share, 0, 0.9, 0.35},
}};

} // namespace

std::string_view profileName(Profile profile) { return kProfileNames[static_cast<std::size_t>(profile)]; }

std::span<const Field> trimFields() { return kTrim; }
std::span<const Field> sheetFields() { return kSheet; }
std::span<const Field> rollFields() { return kRoll; }
std::span<const Field> clothFields() { return kCloth; }
std::span<const Field> foamFields() { return kFoam; }

TrimLength trimOf(const Product& product) {
    const auto mm = [&](std::string_view key) { return Mm{valueOf(product.fields, kTrim, key)}; };
    const auto place = [&](std::string_view key) { return static_cast<int>(valueOf(product.fields, kTrim, key)); };
    const auto profile = static_cast<Profile>(place("profile"));
    const bool itself =
        profile == Profile::PushOnEdging || profile == Profile::BoundEdge || profile == Profile::SealantBead;
    return {.length = mm("length"),
            .width = mm("width"),
            .kerf = mm("kerf"),
            .endTrim = squaredOff(mm("endTrim"), mm("kerf")),
            .mass = {valueOf(product.fields, kTrim, "mass")},
            .profile = profile,
            .thickness = mm("thickness"),
            .leastRadius = mm("leastRadius"),
            .inside = static_cast<CornerCut>(place("inside")),
            .outside = static_cast<CornerCut>(place("outside")),
            .fixedBy = itself ? TrimFixing::Itself : static_cast<TrimFixing>(place("fixedBy")),
            .bead = mm("bead"),
            .screwsApart = mm("screwsApart"),
            .cartridgeMl = valueOf(product.fields, kTrim, "cartridge")};
}

Mm squaredOff(Mm trim, Mm kerf) { return trim.value > 0 ? std::max(trim, kerf) : Mm{0}; }

SheetGoods sheetOf(const Product& product) {
    const auto value = [&](std::string_view key) { return figureOf(product, key); };
    return {.length = {value("length")},
            .width = {value("width")},
            .thickness = {value("thickness")},
            .kerf = {value("kerf")},
            .edgeTrim = squaredOff({value("edgeTrim")}, {value("kerf")}),
            .grain = value("grain") > 0,
            .solid = value("solid") > 0,
            .massKgPerM2 = value("massPerArea")};
}

RollGoods rollOf(const Product& product) {
    const auto value = [&](std::string_view key) { return figureOf(product, key); };
    const bool told = findField(fieldsOfFamily(product.family), "lining");
    return {.lining = told ? static_cast<Lining>(static_cast<int>(value("lining"))) : Lining::Covering,
            .selvedge = {value("selvedge")},
            .stretch = value("stretch"),
            .allowance = {value("allowance")},
            .lap = {value("lap")},
            .thickness = {value("thickness")},
            .width = {value("rollWidth")},
            .gap = {value("gap")},
            .turning = static_cast<RollTurning>(static_cast<int>(value("turning"))),
            .repeatAlong = {value("repeatAlong")},
            .repeatAcross = {value("repeatAcross")},
            .step = {value("step")},
            .massKgPerM2 = value("massPerArea")};
}

} // namespace westrum
