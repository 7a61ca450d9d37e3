#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "devices/climate.h"
#include "formats/forecast_file.h"
#include "tests/support/registry.h"

using namespace westrum;

/// The thermo-hygrometer and the forecast, in all their moods.
class ClimateTest : public QObject {
    Q_OBJECT
private slots:
    void aLineIsRead() {
        const auto r = readClimate(QStringLiteral("T=18.4;RH=56"));
        QVERIFY(std::get<ClimateReading>(r) == (ClimateReading{18.4, 56.0}));
        QVERIFY(std::get<ClimateReading>(readClimate(QStringLiteral("rh: 40  t: -3,5 C"))) ==
                (ClimateReading{-3.5, 40.0}));
        QVERIFY(!std::get<ClimateReading>(readClimate(QStringLiteral("T 20"))).humidity);
        QCOMPARE(std::get<ClimateFault>(readClimate(QString())), ClimateFault::Silent);
        QCOMPARE(std::get<ClimateFault>(readClimate(QStringLiteral("hello"))), ClimateFault::Nonsense);
        QCOMPARE(std::get<ClimateFault>(readClimate(QStringLiteral("T=500"))), ClimateFault::OutOfRange);
        QCOMPARE(std::get<ClimateFault>(readClimate(QStringLiteral("T=20;RH=140"))), ClimateFault::OutOfRange);
    }

    void theInstrumentHasMoods() {
        using Mood = SimulatedThermoHygrometer::Mood;
        SimulatedThermoHygrometer sound(1, 18, 55);
        for (int i = 0; i < 50; ++i) {
            const ClimateReading r = std::get<ClimateReading>(readClimate(sound.read()));
            QVERIFY(std::abs(r.degC - 18) <= 0.55 && std::abs(*r.humidity - 55) <= 2.6);
        }
        QCOMPARE(SimulatedThermoHygrometer(3, 18, 55).read(), SimulatedThermoHygrometer(3, 18, 55).read());
        for (const auto& [mood, fault] : {std::pair{Mood::Silent, ClimateFault::Silent},
                                          {Mood::Garbled, ClimateFault::Nonsense},
                                          {Mood::Broken, ClimateFault::OutOfRange}})
            QCOMPARE(std::get<ClimateFault>(readClimate(SimulatedThermoHygrometer(1, 18, 55, mood).read())), fault);
    }

    void theForecastHasMoods() {
        using Mood = SimulatedForecast::Mood;
        const CivilDate from{2027, 3, 13};
        const auto read = [&](Mood mood) { return readForecast(SimulatedForecast(5, mood).fetch(from, 14), from); };
        const ForecastReading sound = read(Mood::Sound);
        QCOMPARE(sound.forecast.days.size(), std::size_t{14});
        QCOMPARE(sound.faulty, std::size_t{0});
        QVERIFY(sound.forecast.days.contains(from) && sound.forecast == read(Mood::Sound).forecast);
        for (const auto& [day, w] : sound.forecast.days)
            QVERIFY(*w.dryChance >= 0 && *w.dryChance <= 1 && *w.low < *w.high);
        QVERIFY(read(Mood::Patchy).forecast.days.size() < 14);
        const ForecastReading odd = read(Mood::Nonsense);
        QVERIFY(odd.faulty > 0 && odd.forecast.days.size() + odd.faulty == 14);
        QVERIFY(read(Mood::Stale).forecast.days.begin()->first < from);
        QCOMPARE(read(Mood::Silent).faults.front().kind, ForecastFault::Kind::Empty);
    }
};

WESTRUM_TEST(ClimateTest)
#include "climate_test.moc"
