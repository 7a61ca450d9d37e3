#pragma once

#include "core/plan/plan.h"
#include "core/plan/trips.h"
#include "formats/words.h"

#include <QString>

namespace westrum {

/// The shopping list as a workbook: a sheet of all lines by supplier, with what is needed, bought and left, and a sheet
/// of what every surface bears of each line. Texts are written as texts, so that none is taken for a formula. Returns
/// an empty text, or why it could not be written.
QString saveShoppingXlsx(const QString& path, const Job& job, const Plan& plan, const Figures& figures);

/// What one purchase needs and what is left of it, in words.
QString neededText(const Purchase& purchase, const Figures& figures);
/// The purchase's name, and that it must be of one lot where that is so and there is more than one.
QString nameWithLot(const Purchase& purchase, const Catalogue& catalogue, const Figures& figures = {});
QString leftOverText(const Purchase& purchase, const Figures& figures);
/// What of it is bought beyond the plan.
QString spareText(const Purchase& purchase, const Catalogue& catalogue, const Figures& figures);

/// What to ask the yard for, one sentence each.
QStringList roughCutTexts(const Job& job, const std::vector<RoughCut>& cuts, const Figures& figures);

} // namespace westrum
