#pragma once

#include "core/catalogue/field.h"
#include "core/units/money.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// Something that can be bought. Its family says which fields it has; the fields of a family stand in one table.
struct Product {
    std::string id;
    std::string family; ///< "planks", "underlay"
    std::string name;
    std::string supplier;
    std::optional<Money> packPrice; ///< of one pack or roll, tax included
    FieldValues fields;
    friend bool operator==(const Product&, const Product&) = default;
};

/// The products of a job, in the order in which they are shown. Ids are unique.
struct Catalogue {
    std::vector<Product> products;
    [[nodiscard]] const Product* find(std::string_view id) const;
    friend bool operator==(const Catalogue&, const Catalogue&) = default;
};

} // namespace westrum
