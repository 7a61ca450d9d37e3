#include "formats/csv.h"

#include <utility>

#include "core/units/print.h"

namespace westrum {

QByteArray csvCell(const QString& text) {
    QString safe = text;
    static const QString dangerous =
        QStringLiteral("=+-@\t\r\n|%") + QChar(0xFF1D) + QChar(0xFF0B) + QChar(0xFF0D) + QChar(0xFF20);
    // A spreadsheet also strips blanks before it looks.
    qsizetype first = 0;
    while (first < safe.size() && safe[first].isSpace() && !dangerous.contains(safe[first])) ++first;
    // An apostrophe of its own would be taken for ours on the way back.
    const bool ours = safe.startsWith(QLatin1Char('\''));
    if (ours || (first < safe.size() && dangerous.contains(safe[first]))) safe.prepend(QLatin1Char('\''));
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

CsvReader::CsvReader(QString all, QChar separator) : all_(std::move(all)), separator_(separator) {
    if (all_.startsWith(QChar(0xFEFF))) at_ = 1;
}

qsizetype CsvReader::closedAfter(qsizetype from) const {
    for (qsizetype i = from; i < all_.size(); ++i) {
        if (all_[i] != QLatin1Char('"')) continue;
        if (i + 1 < all_.size() && all_[i + 1] == QLatin1Char('"')) {
            ++i; // a doubled one stands for itself
            continue;
        }
        qsizetype end = i + 1;
        while (end < all_.size() && (all_[end] == QLatin1Char(' ') || all_[end] == QLatin1Char('\r'))) ++end;
        const bool closes = end == all_.size() || all_[end] == separator_ || all_[end] == QLatin1Char('\n');
        return closes ? i : -1;
    }
    return -1;
}

bool CsvReader::next(CsvRow& row) {
    while (at_ < all_.size()) {
        row = {line_, {}, {}};
        const qsizetype from = at_;
        QString cell;
        bool ended = false;
        for (; at_ < all_.size() && !ended; ++at_) {
            const QChar c = all_[at_];
            if (c == QLatin1Char('\n')) {
                ++line_;
                ended = true;
            } else if (c == separator_) {
                row.cells << cell.trimmed();
                cell.clear();
            } else if (c == QLatin1Char('"') && cell.trimmed().isEmpty()) {
                const qsizetype end = closedAfter(at_ + 1);
                if (end < 0) {
                    cell += c;
                    continue;
                }
                const QString inside = all_.mid(at_ + 1, end - at_ - 1);
                line_ += static_cast<int>(inside.count(QLatin1Char('\n')));
                cell = QString(inside).replace(QStringLiteral("\"\""), QStringLiteral("\""));
                at_ = end;
            } else {
                cell += c;
            }
        }
        row.text = all_.mid(from, at_ - from - (ended ? 1 : 0));
        if (row.text.trimmed().isEmpty()) continue;
        row.cells << cell.trimmed();
        return true;
    }
    return false;
}

} // namespace westrum
