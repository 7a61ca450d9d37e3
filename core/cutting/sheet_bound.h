#pragma once

#include "core/cutting/sheet_tree.h"
#include "core/cutting/stock_sets.h"

#include <optional>
#include <vector>

namespace westrum {

/// Inequalities that every set of sheets satisfies which can carry all items, strongest first.
/// They come from the items' areas and from dual feasible functions applied along both sides (Fekete and Schepers,
/// 2001): cut-offs at the items' own sizes, which count an item as a whole sheet's width where nothing fits beside it.
/// @param items  as they lie; sizes with the kerf
/// @param sizes  by kind of sheet, with the kerf
std::vector<StockCut> sheetCuts(const std::vector<SheetItem>& items,
                                const std::vector<std::array<SheetUnits, 2>>& sizes);

/// The same from slices across the sheet: items are taken as bundles of slices of their height, a slice of the sheet
/// holds what its height allows, and the slices of a sheet are as many as it is wide. Prices for the items by column
/// generation. Stronger where large items leave a rest that nothing fits; takes longer.
/// @param against  a set of sheets; none: the slices fit it, nothing is said against it
std::optional<StockCut> sliceCut(const std::vector<SheetItem>& items,
                                 const std::vector<std::array<SheetUnits, 2>>& sizes, const StockSet& against);

} // namespace westrum
