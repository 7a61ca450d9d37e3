#pragma once

#include <QByteArray>
#include <QString>
#include <QStringList>

namespace westrum {

/// One CSV cell: quoted where needed, and with an apostrophe before a text that a spreadsheet would run as a formula
/// (=, +, -, @, tab, carriage return at its start; full-width forms too). Numbers are written by csvNumber() instead.
QByteArray csvCell(const QString& text);
QByteArray csvNumber(double value, int decimals);

/// What parts the cells of a list: semicolon or tab where there is one, else comma.
QChar csvSeparator(const QString& all);
/// The cells of one line, quotes taken off, blanks trimmed.
QStringList csvCells(const QString& line, QChar separator);

} // namespace westrum
