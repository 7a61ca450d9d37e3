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

/// One row of a list.
struct CsvRow {
    int line = 0;      ///< where it begins in the file, from 1
    QString text;      ///< as it stands there
    QStringList cells; ///< quotes taken off, blanks trimmed
};

/// Reads a list row by row, as spreadsheets write them (RFC 4180): a cell in quotes may hold separators, doubled quotes
/// and line breaks. Rows with nothing in them are passed over. A quote inside a cell is an inch mark, and one that is
/// never closed is a character like any other, so that it does not swallow the rest of the file.
class CsvReader {
public:
    /// @param all  the text; a byte-order mark at its start is passed over  @param separator  see csvSeparator()
    CsvReader(QString all, QChar separator);
    /// False at the end.
    bool next(CsvRow& row);

private:
    /// The place behind the quote that closes a cell opened at `from`; -1: none does.
    [[nodiscard]] qsizetype closedAfter(qsizetype from) const;
    QString all_;
    QChar separator_;
    qsizetype at_ = 0;
    int line_ = 1;
};

} // namespace westrum
