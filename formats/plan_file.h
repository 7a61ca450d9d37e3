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

/// One CSV cell: quoted where needed, and with an apostrophe before a text that a spreadsheet would run as a formula
/// (=, +, -, @, tab, carriage return at its start; full-width forms too). Numbers are written by csvNumber() instead.
QByteArray csvCell(const QString& text);
QByteArray csvNumber(double value, int decimals);

} // namespace westrum
