#pragma once

#include "core/geometry/polygon.h"
#include "core/measure/measurement.h"
#include "core/units/money.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// A piece to be cut that no set-out asks for: typed or imported.
struct LoosePiece {
    std::string id; ///< unique in its list, never shown
    std::string name;
    std::string surface; ///< id of the surface it goes to; empty: of none
    MaybeReading length; ///< along the stock; not of a shape
    MaybeReading width;  ///< across it; not of a shape, not from lengths
    int count = 1;
    bool mayTurn = false;           ///< grain or nap do not matter for it
    std::string together;           ///< pieces with the same word stay side by side on a roll
    Region shape;                   ///< of an imported one, in mm; empty: length x width
    std::vector<Ring> folds, marks; ///< lines to fold along and to mark, each from its first to its last point
    friend bool operator==(const LoosePiece&, const LoosePiece&) = default;
};

/// Stock beside what the product is usually sold as: another size, or an offcut on the rack.
struct StockEntry {
    std::string id; ///< unique in its list, never shown; never empty
    std::string name;
    bool rack = false; ///< in hand already: it costs nothing and is used first
    bool used = true;  ///< false: left out of the plan
    MaybeReading length, width;
    Region shape; ///< of an offcut that is no rectangle
    std::optional<Money> price;
    std::optional<int> count; ///< none: any number can be bought
    std::string book{};       ///< of an offcut that is in the workshop's book: its number there
    std::string lot{}, stands{};
    friend bool operator==(const StockEntry&, const StockEntry&) = default;
};

/// Where a piece lies on its stock by a person's will: pinned, or cut already.
struct KeptPiece {
    std::string piece;    ///< key of the piece
    std::string name;     ///< as it was called then
    Point at;             ///< where its origin lies on the stock
    double rotationRad{}; ///< about its origin
    bool cut = false;     ///< ticked as cut
    Region shape;         ///< as it was when it was kept, about its origin
    friend bool operator==(const KeptPiece&, const KeptPiece&) = default;
};

/// An item of stock on which something is kept.
struct KeptItem {
    std::string stock;            ///< id of a StockEntry; empty: what the product is sold as
    bool locked = false;          ///< being cut: nothing is added and nothing moves
    double lengthMm{}, widthMm{}; ///< of a locked one, as it was; of a roll what was cut off it
    std::vector<KeptPiece> pieces;
    friend bool operator==(const KeptItem&, const KeptItem&) = default;
};

/// What a person says about the cutting of one product. All else is worked out.
struct CutList {
    std::vector<LoosePiece> pieces;
    bool useOwnStock = true; ///< as the product is sold
    std::vector<StockEntry> stock;
    std::vector<KeptItem> kept;
    [[nodiscard]] bool empty() const { return *this == CutList{}; }
    friend bool operator==(const CutList&, const CutList&) = default;
};

} // namespace westrum
