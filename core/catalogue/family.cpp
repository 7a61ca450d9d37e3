#include "core/catalogue/family.h"

namespace westrum {

std::span<const Field> fieldsOfFamily(std::string_view family) {
    const ProductFamily* found = productFamily(family);
    return found ? found->fields : std::span<const Field>();
}

std::optional<StockForm> stockFormOf(std::string_view family) {
    const ProductFamily* found = productFamily(family);
    return found ? found->form : std::nullopt;
}

double figureOf(const Product& product, std::string_view key) {
    const Field* field = findField(fieldsOfFamily(product.family), key);
    return field ? valueOf(product.fields, *field) : 0;
}

Mm thicknessOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family && family->thickness ? family->thickness(product) : Mm{figureOf(product, "thickness")};
}

TrimLength barOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family && family->bar ? family->bar(product) : TrimLength{};
}

Mm toleranceOf(const Product& product) { return {figureOf(product, "tolerance")}; }

double squashOf(const Product& product) { return figureOf(product, "squash"); }

bool isPorous(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family && family->porous && family->porous(product);
}

double massPerM2Of(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family && family->massPerM2 ? family->massPerM2(product) : figureOf(product, "massPerArea");
}

Suitability suitabilityOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family && family->suits ? family->suits(product) : Suitability{};
}

Mm rowModuleOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return {family && !family->rowField.empty() ? figureOf(product, family->rowField) : 0};
}

Mm columnModuleOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return {family && !family->columnField.empty() ? figureOf(product, family->columnField) : 0};
}

int perPackOf(const Product& product) {
    const int each = static_cast<int>(figureOf(product, "perPack"));
    return each > 0 ? each : 1;
}

} // namespace westrum
