#pragma once

#include "core/units/money.h"

#include <optional>
#include <string>

namespace westrum {

/// What was really bought of a line of the shopping list.
struct Bought {
    int packs{};               ///< or items; of a roll whole centimetres
    std::optional<Money> paid; ///< for all of it
    std::string lot;           ///< as printed on it: what is seen must be of one
    friend bool operator==(const Bought&, const Bought&) = default;
};

/// Packs, tins or rolls left of other work that this job uses before it buys.
struct ShelfPack {
    std::string product;  ///< id
    double packs{};       ///< of the catalogue's size; half a tin is 0.5
    std::string number{}; ///< in the workshop's book; empty: of no book
    friend bool operator==(const ShelfPack&, const ShelfPack&) = default;
};

/// Under which a line is ticked: its product, and its size where it has several.
inline std::string boughtKey(const std::string& product, const std::string& size) {
    return size.empty() ? product : product + "/" + size;
}

} // namespace westrum
