#include "formats/readings_file.h"

#include "core/shell/sketch.h"
#include "core/units/print.h"
#include "formats/csv.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <cctype>
#include <map>

namespace westrum {
namespace {

struct ReadingsWords {
    Q_DECLARE_TR_FUNCTIONS(ReadingsWords)
};

/// Everything that a place of the surface may be called, in small letters.
std::map<QString, std::string> placesOf(const Surface& surface) {
    std::map<QString, std::string> places;
    const Sketch sketch = sketchOf(surface, {});
    for (const ReadingSlot& slot : sketch.places)
        // A bare number is a coordinate, not the number of a diagonal: a list of corners is no list of readings.
        if (!slot.letter.empty() && std::isalpha(static_cast<unsigned char>(slot.letter.front())) &&
            (slot.kind == SlotKind::Side || slot.kind == SlotKind::Diagonal))
            places[QString::fromStdString(slot.letter)] = slot.key;
    for (const std::string& key : readingKeys(surface)) {
        places[QString::fromStdString(key).toLower()] = key;
        places[readingName(key).toLower()] = key;
    }
    return places;
}

} // namespace

Result<std::vector<ListedReading>, ReadingsFault> readReadings(const QByteArray& bytes, const Surface& surface,
                                                               LengthUnit bareUnit) {
    using Kind = ReadingsFault::Kind;
    if (bytes.trimmed().isEmpty()) return ReadingsFault{Kind::Empty, 0, {}, {}};
    const auto places = placesOf(surface);
    std::vector<ListedReading> readings;
    const QString all = QString::fromUtf8(bytes);
    CsvReader rows(all, csvSeparator(all.section(QLatin1Char('\n'), 0, 0)));
    int number = 0;
    for (CsvRow row; rows.next(row);) {
        number = row.line;
        const QStringList& cells = row.cells;
        if (cells.isEmpty() || cells[0].isEmpty()) continue;
        if (cells.size() < 2) return ReadingsFault{Kind::NoList, number, cells[0].left(40), {}};
        const auto place = places.find(cells[0].toLower());
        if (place == places.end()) {
            if (number == 1) continue; // words over the columns
            return ReadingsFault{Kind::UnknownPlace, number, cells[0].left(40), {}};
        }
        if (cells[1].isEmpty()) continue; // not taken
        const std::string typed = cells[1].toStdString();
        const auto length = parseLength(typed, bareUnit);
        if (!length) return ReadingsFault{Kind::BadLength, number, cells[1].left(40), length.error()};
        readings.push_back({place->second, {typed, length.value()}});
    }
    if (readings.empty()) return ReadingsFault{Kind::NoList, number, {}, {}};
    return readings;
}

QByteArray writeReadings(const Surface& surface) {
    QByteArray out = "place,length mm,name,typed\r\n";
    for (const std::string& key : readingKeys(surface)) {
        const MaybeReading* r = findReading(surface, key);
        out += csvCell(QString::fromStdString(key)) + ',';
        if (r && *r) out += csvNumber((*r)->length.value, 3);
        out += ',' + csvCell(readingName(key)) + ',' +
               csvCell(r && *r ? QString::fromStdString((*r)->typed) : QString()) + "\r\n";
    }
    return out;
}

QString sentence(const ReadingsFault& fault) {
    switch (fault.kind) {
    case ReadingsFault::Kind::Empty: return ReadingsWords::tr("The file is empty.");
    case ReadingsFault::Kind::NoList:
        return ReadingsWords::tr("The file is no list of readings: a place and a length in each line.");
    case ReadingsFault::Kind::UnknownPlace:
        return ReadingsWords::tr("Line %1: “%2” is no reading of this surface.").arg(fault.line).arg(fault.text);
    case ReadingsFault::Kind::BadLength:
        return ReadingsWords::tr("Line %1: %2").arg(fault.line).arg(sentence(fault.error, fault.text));
    }
    return {};
}

} // namespace westrum
