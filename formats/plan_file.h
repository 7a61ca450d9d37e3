#pragma once

#include "core/plan/plan.h"
#include "formats/words.h"

#include <QByteArray>
#include <QString>

namespace westrum {

/// The plan as JSON (docs/formats/plan.md), UTF-8, lengths in mm, areas in m2, masses in kg, money in minor units.
QByteArray planAsJson(const Job& job, const Plan& plan);

/// The shopping list: one line a product. Figures with a decimal point and no units; units stand in the header.
QByteArray shoppingListAsCsv(const Job& job, const Plan& plan);

/// The cut list: one line a piece, in laying order.
QByteArray cutListAsCsv(const Job& job, const Plan& plan);

/// The plan in sentences and tables for a terminal.
QString planAsText(const Job& job, const Plan& plan, const Figures& figures);

} // namespace westrum
