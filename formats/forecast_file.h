#pragma once

#include "core/record/work_settings.h"

#include <QByteArray>
#include <QString>

#include <vector>

namespace westrum {

inline constexpr qsizetype kLargestForecastFile = 4 * 1024 * 1024;
inline constexpr std::size_t kMostForecastDays = 20000;

/// What is wrong with a line of a forecast; the other lines are read.
struct ForecastFault {
    enum class Kind { Empty, TooLarge, NoHeading, BadDate, BadNumber, Twice, TooMany };
    Kind kind{};
    int line = 0;
    QString text{};
};
struct ForecastReading {
    Forecast forecast;
    std::vector<ForecastFault> faults; ///< the first of them
    std::size_t faulty = 0;
};

/// Reads a forecast: a day a line, columns by their heading (docs/formats/forecast.md): date, dry (chance in percent),
/// low and high (degrees C); a cell may be empty. @param made  when it was made, if the file does not say
ForecastReading readForecast(const QByteArray& bytes, const CivilDate& made);
QByteArray forecastAsCsv(const Forecast& forecast);
QString sentence(const ForecastFault& fault);

} // namespace westrum
