#include "formats/csv.h"

#include "core/units/print.h"

namespace westrum {

QByteArray csvCell(const QString& text) {
    QString safe = text;
    static const QString dangerous =
        QStringLiteral("=+-@\t\r\n|%") + QChar(0xFF1D) + QChar(0xFF0B) + QChar(0xFF0D) + QChar(0xFF20);
    // A spreadsheet also strips blanks before it looks.
    qsizetype first = 0;
    while (first < safe.size() && safe[first].isSpace() && !dangerous.contains(safe[first])) ++first;
    if (first < safe.size() && dangerous.contains(safe[first])) safe.prepend(QLatin1Char('\''));
    const bool quote = safe.contains(QLatin1Char(',')) || safe.contains(QLatin1Char('"')) ||
                       safe.contains(QLatin1Char('\n')) || safe.contains(QLatin1Char('\r')) ||
                       safe.contains(QLatin1Char(';'));
    if (quote) safe = QLatin1Char('"') + safe.replace(QLatin1Char('"'), QLatin1String("\"\"")) + QLatin1Char('"');
    return safe.toUtf8();
}

QByteArray csvNumber(double value, int decimals) {
    return QByteArray::fromStdString(printNumber(value, decimals, '.', false));
}

QChar csvSeparator(const QString& all) {
    return all.contains(QLatin1Char(';'))    ? QLatin1Char(';')
           : all.contains(QLatin1Char('\t')) ? QLatin1Char('\t')
                                             : QLatin1Char(',');
}

QStringList csvCells(const QString& line, QChar separator) {
    QStringList cells;
    QString cell;
    bool quoted = false;
    for (qsizetype i = 0; i < line.size(); ++i) {
        const QChar c = line[i];
        if (c == QLatin1Char('"')) {
            if (quoted && i + 1 < line.size() && line[i + 1] == QLatin1Char('"')) {
                cell += c;
                ++i;
            } else if (quoted || cell.trimmed().isEmpty()) {
                quoted = !quoted;
            } else {
                cell += c; // an inch mark
            }
        } else if (c == separator && !quoted) {
            cells << cell.trimmed();
            cell.clear();
        } else {
            cell += c;
        }
    }
    return cells << cell.trimmed();
}

} // namespace westrum
