#include "core/catalogue/product.h"

namespace westrum {

const Product* Catalogue::find(std::string_view id) const {
    for (const Product& product : products)
        if (product.id == id) return &product;
    return nullptr;
}

} // namespace westrum
