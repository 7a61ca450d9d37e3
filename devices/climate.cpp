#include "devices/climate.h"

#include <QRegularExpression>

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

/// The same numbers on every machine (splitmix64).
double shareOf(std::uint64_t& state) {
    state += 0x9E3779B97F4A7C15ULL;
    std::uint64_t z = state;
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
    return static_cast<double>((z ^ (z >> 31)) >> 11) * 0x1.0p-53;
}

std::optional<double> figureAfter(const QString& line, const char* name) {
    const QRegularExpression figure(QStringLiteral("\\b%1\\s*[=: ]\\s*(-?\\d+(?:[.,]\\d+)?)").arg(QLatin1String(name)),
                                    QRegularExpression::CaseInsensitiveOption);
    const QRegularExpressionMatch m = figure.match(line);
    if (!m.hasMatch()) return std::nullopt;
    return m.captured(1).replace(QLatin1Char(','), QLatin1Char('.')).toDouble();
}

/// Mean of a day's low and high by month. Made up for a temperate country.
constexpr std::array<double, 12> kMean{3, 4, 6, 9, 13, 16, 17, 17, 15, 11, 7, 4};

} // namespace

std::variant<ClimateReading, ClimateFault> readClimate(const QString& line) {
    constexpr qsizetype kLongest = 200;
    if (line.trimmed().isEmpty()) return ClimateFault::Silent;
    const QString text = line.left(kLongest);
    const auto degC = figureAfter(text, "T");
    if (!degC) return ClimateFault::Nonsense;
    const auto humidity = figureAfter(text, "RH");
    if (!(*degC >= -40 && *degC <= 70) || (humidity && !(*humidity >= 0 && *humidity <= 100)))
        return ClimateFault::OutOfRange;
    return ClimateReading{*degC, humidity};
}

QString SimulatedThermoHygrometer::read() {
    switch (mood_) {
    case Mood::Silent: return {};
    case Mood::Garbled: return QStringLiteral("\x07T??;;RH=--");
    case Mood::Broken: return QStringLiteral("T=-273.1;RH=0");
    case Mood::Sound: break;
    }
    const double degC = degC_ + (shareOf(state_) - 0.5), humidity = humidity_ + 4 * (shareOf(state_) - 0.5);
    return QStringLiteral("T=%1;RH=%2").arg(degC, 0, 'f', 1).arg(std::clamp(humidity, 0.0, 100.0), 0, 'f', 0);
}

QByteArray SimulatedForecast::fetch(const CivilDate& from, int days) {
    if (mood_ == Mood::Silent) return {};
    constexpr int kStaleDays = 14;
    const CivilDate first = mood_ == Mood::Stale ? from + -kStaleDays : from;
    std::uint64_t state = seed_ ^ (static_cast<std::uint64_t>(dayNumber(first)) * 0x2545F4914F6CDD1DULL);
    QByteArray out = "date;dry;low;high\n";
    double wet = shareOf(state);
    for (int d = 0; d < days; ++d) {
        const CivilDate day = first + d;
        wet = 0.6 * wet + 0.4 * shareOf(state); // what was, mostly stays
        const double mean = kMean[static_cast<std::size_t>(day.month - 1)] + 4 * (shareOf(state) - 0.5);
        if (mood_ == Mood::Patchy && shareOf(state) < 0.4) continue;
        if (mood_ == Mood::Nonsense && shareOf(state) < 0.3) {
            out += "tomorrow;sunny;;\n";
            continue;
        }
        // The further ahead, the nearer to what is usual.
        const double sure = 1 / (1 + d / 5.0), dry = 1 - (0.4 + (wet - 0.4) * sure);
        out += QByteArray::fromStdString(isoDate(day)) + ';' +
               QByteArray::number(static_cast<int>(std::lround(100 * std::clamp(dry, 0.03, 0.97)))) + ';' +
               QByteArray::number(mean - 3, 'f', 0) + ';' + QByteArray::number(mean + 4, 'f', 0) + '\n';
    }
    return out;
}

} // namespace westrum
