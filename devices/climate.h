#pragma once

#include "core/units/date.h"

#include <QByteArray>
#include <QString>

#include <cstdint>
#include <optional>
#include <variant>

namespace westrum {

/// What a thermo-hygrometer shows: docs/formats/climate.md.
struct ClimateReading {
    double degC{};
    std::optional<double> humidity; ///< relative, percent
    friend bool operator==(const ClimateReading&, const ClimateReading&) = default;
};
enum class ClimateFault {
    Silent,     ///< nothing came
    Nonsense,   ///< it says no temperature
    OutOfRange, ///< no van is that hot or cold, or no air that damp
};
/// Reads a line: "T=18.4;RH=56", in any order, units and blanks left out or not.
std::variant<ClimateReading, ClimateFault> readClimate(const QString& line);

/// An instrument in the van: asked, it gives a line.
class ThermoHygrometer {
public:
    virtual ~ThermoHygrometer() = default;
    [[nodiscard]] virtual QString read() = 0;
};

/// A stand-in near a temperature and a humidity. The same seed gives the same readings.
class SimulatedThermoHygrometer final : public ThermoHygrometer {
public:
    enum class Mood { Sound, Silent, Garbled, Broken };
    SimulatedThermoHygrometer(std::uint64_t seed, double degC, double humidity, Mood mood = Mood::Sound)
        : state_(seed), degC_(degC), humidity_(humidity), mood_(mood) {}
    [[nodiscard]] QString read() override;

private:
    std::uint64_t state_;
    double degC_, humidity_;
    Mood mood_;
};

/// A forecast: asked, it gives the days ahead as a list, docs/formats/forecast.md.
class ForecastFeed {
public:
    virtual ~ForecastFeed() = default;
    [[nodiscard]] virtual QByteArray fetch(const CivilDate& from, int days) = 0;
};

/// A stand-in: weather that stays for some days. The same seed and day give the same forecast.
class SimulatedForecast final : public ForecastFeed {
public:
    enum class Mood {
        Sound,
        Patchy,   ///< days are missing
        Nonsense, ///< some lines cannot be read
        Stale,    ///< it was made two weeks ago
        Silent
    };
    explicit SimulatedForecast(std::uint64_t seed, Mood mood = Mood::Sound) : seed_(seed), mood_(mood) {}
    [[nodiscard]] QByteArray fetch(const CivilDate& from, int days) override;

private:
    std::uint64_t seed_;
    Mood mood_;
};

} // namespace westrum
