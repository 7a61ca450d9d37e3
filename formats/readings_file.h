#pragma once

#include "core/shell/surface.h"
#include "core/units/parse.h"
#include "core/units/result.h"

#include <QByteArray>
#include <QString>

#include <vector>

namespace westrum {

/// One line of a list of readings: its place on the surface, and what was written.
struct ListedReading {
    std::string key;
    Reading reading;
};

/// What kept a list from being read, with the line.
struct ReadingsFault {
    enum class Kind { Empty, NoList, UnknownPlace, BadLength };
    Kind kind{};
    int line{};
    QString text;
    ParseError error; ///< of a BadLength
};

/// A list of readings as CSV: a place and a length in each line, `a,3640`, `diagonal e;4049 mm`, `x2,1.2 m`. A place is
/// its letter on the drawing, its name, or its key (docs/formats/job.md); further columns are passed over, and so is a
/// first line of words. All places must be on this surface.
Result<std::vector<ListedReading>, ReadingsFault> readReadings(const QByteArray& bytes, const Surface& surface,
                                                               LengthUnit bareUnit);

/// The readings of a surface in the order of going round: key, name, millimetres, as typed.
QByteArray writeReadings(const Surface& surface);

QString sentence(const ReadingsFault& fault);

} // namespace westrum
