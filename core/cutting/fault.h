#pragma once

#include <cstddef>
#include <vector>

namespace westrum {

/// What stops a cutting problem, or one piece or item of stock of it, from being planned.
enum class CuttingFault {
    NoPieces,
    NoStock,
    PieceNotPositive, ///< a size that is zero, negative or not a number
    PieceAbsurd,      ///< a size beyond kAbsurdCutMm
    PieceTooLarge,    ///< larger than any stock, as it may lie
    PieceCountNegative,
    PieceCrosses,     ///< its outline crosses itself
    PieceHoleOutside, ///< a hole lies outside the outline, or crosses it or another hole
    PieceTooMany,     ///< more pieces than kMostPieces
    PieceNoRotation,  ///< no allowed rotation
    StockNotPositive,
    StockAbsurd,
    StockPriceNegative, ///< or not a number
    KerfNegative,       ///< kerf, gap or trim: negative, not a number or absurd
    TrimEatsStock,      ///< nothing is left between the trimmed edges
    RepeatNegative,
    LockedUnknown,    ///< a locked piece or stock item that is not in the lists, or more of it than there are
    LockedDoesNotFit, ///< locked pieces that overlap or lie beyond their stock
};

/// One fault and where it lies: `index` is the place of the piece or stock item in its list.
struct CuttingFaultAt {
    CuttingFault fault;
    std::size_t index = 0;
    friend bool operator==(const CuttingFaultAt&, const CuttingFaultAt&) = default;
};

/// All faults found; empty: the problem can be planned.
using CuttingFaults = std::vector<CuttingFaultAt>;

inline constexpr double kAbsurdCutMm = 1e6; ///< no roll is a kilometre long
inline constexpr std::size_t kMostPieces = 20000;

} // namespace westrum
