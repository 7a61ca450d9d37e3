#include "core/catalogue/family.h"

#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/layers.h"
#include "core/catalogue/plank.h"
#include "core/catalogue/sundry.h"

#include <array>

namespace westrum {

std::span<const Family> families() {
    static const std::array<Family, 15> all{{
        {"planks", "planks", LayerRole::Finish, SoldBy::Pack, StockForm::Lengths, plankFields()},
        {"boards", "tongue-and-groove boards", LayerRole::Finish, SoldBy::Length, StockForm::Lengths, boardFields()},
        {"sheet", "sheets", LayerRole::Finish, SoldBy::Sheet, StockForm::Sheets, sheetFields()},
        {"tiles", "tiles", LayerRole::Finish, SoldBy::Pack, std::nullopt, tileFields()},
        {"roll", "lining off the roll", LayerRole::Finish, SoldBy::Metre, StockForm::Roll, rollFields()},
        {"foam", "foam", LayerRole::Finish, SoldBy::Sheet, StockForm::Sheets, foamFields()},
        {"cloth", "cloth", LayerRole::Finish, SoldBy::Metre, StockForm::Roll, clothFields()},
        {"underlay", "underlay", LayerRole::Underlay, SoldBy::Roll, std::nullopt, underlayFields()},
        {"barrier", "barrier", LayerRole::Barrier, SoldBy::Roll, std::nullopt, barrierFields()},
        {"insulation", "insulation", LayerRole::Insulation, SoldBy::Pack, std::nullopt, insulationFields(),
         insulationRules()},
        {"battens", "battens", LayerRole::Batten, SoldBy::Length, StockForm::Lengths, battenFields(), battenRules()},
        {"adhesive", "adhesive", LayerRole::Adhesive, SoldBy::Container, std::nullopt, adhesiveFields()},
        {"coating", "coating", LayerRole::Coating, SoldBy::Container, std::nullopt, coatingFields()},
        {"trim", "trim", LayerRole::Trim, SoldBy::Length, StockForm::Lengths, trimFields()},
        {"sundries", "fixings and sundries", LayerRole::Sundry, SoldBy::Pack, std::nullopt, sundryFields()},
    }};
    return all;
}

const Family* productFamily(std::string_view id) {
    for (const Family& family : families())
        if (family.id == id) return &family;
    return nullptr;
}

std::span<const Field> fieldsOfFamily(std::string_view family) {
    const Family* found = productFamily(family);
    return found ? found->fields : std::span<const Field>();
}

std::optional<StockForm> stockFormOf(std::string_view family) {
    const Family* found = productFamily(family);
    return found ? found->form : std::nullopt;
}

namespace {

/// The value of a field, or 0 where the family has none of that name.
double figure(const Product& product, std::string_view key) {
    const Field* field = findField(fieldsOfFamily(product.family), key);
    return field ? valueOf(product.fields, *field) : 0;
}

} // namespace

Mm thicknessOf(const Product& product) {
    if (product.family == "coating") {
        const Coating c = coatingOf(product);
        return c.dryThickness * c.coats;
    }
    if (product.family == "adhesive") return adhesiveOf(product).bed;
    return {figure(product, "thickness")};
}

TrimLength barOf(const Product& product) {
    if (product.family == "trim") return trimOf(product);
    if (product.family != "boards" && product.family != "battens") return {};
    TrimLength bar{.length = {figure(product, "length")},
                   .width = {figure(product, "width")},
                   .kerf = {figure(product, "kerf")},
                   .endTrim = {figure(product, "endTrim")},
                   .mass = {figure(product, "mass")}};
    if (product.family == "boards") {
        const Board board = boardOf(product);
        bar.width = board.overall;
        bar.mass = {areaOf(board.length, board.cover).value * board.massKgPerM2};
    }
    return bar;
}

Mm toleranceOf(const Product& product) { return {figure(product, "tolerance")}; }

double squashOf(const Product& product) { return figure(product, "squash"); }

bool isPorous(const Product& product) {
    if (product.family == "roll") {
        const Lining lining = rollOf(product).lining;
        return lining != Lining::SheetVinyl && lining != Lining::Film;
    }
    return product.family == "sheet" || product.family == "boards" || product.family == "foam" ||
           product.family == "cloth" || product.family == "battens" || product.family == "underlay";
}

double massPerM2Of(const Product& product) {
    if (product.family == "planks") return plankOf(product).massKgPerM2();
    if (product.family == "tiles") return tileOf(product).massKgPerM2();
    if (product.family == "coating") {
        const Coating c = coatingOf(product);
        return c.coats / c.spreadingRateM2PerLitre * c.dryKgPerLitre;
    }
    if (product.family == "adhesive") {
        const Adhesive a = adhesiveOf(product);
        return a.rateKgPerM2 * (a.bothFaces ? 2 : 1) * a.dryShare;
    }
    return figure(product, "massPerArea");
}

} // namespace westrum
