#pragma once

#include <QObject>

#include "devices/meter_protocol.h"

#include <QLocalServer>

#include <chrono>
#include <random>

namespace westrum {

/// What the stand-in does when it is asked for a reading.
enum class MeterMood {
    Normal,
    Weak,
    Battery,
    Range,
    Silent,
    Garbage,
    Drop,
    Late,  ///< answers after kLate
    Twice, ///< answers, and once more a moment later
    Echo,  ///< repeats the request and sends an empty line first
};

/// A stand-in for a laser distance meter on a local socket: measures a true value with noise, or fails in any of the
/// ways a meter fails. The same seed gives the same readings.
class SimulatedMeter : public QObject {
    Q_OBJECT
public:
    /// How long a late answer takes.
    static constexpr std::chrono::milliseconds kLate{3500};
    explicit SimulatedMeter(quint32 seed = 1, QObject* parent = nullptr);
    /// Listens; a stale socket of that name is removed first.
    bool listen(const QString& socketName);
    void setTrueLength(Mm length) { trueLength_ = length; }
    void setNoise(Mm oneSigma) { noise_ = oneSigma; }
    void setMood(MeterMood mood) { mood_ = mood; }
    void setLate(std::chrono::milliseconds late) { late_ = late; }
    /// "value 3640", "noise 1.5", "mood weak": what its program takes on its standard input. False if not understood.
    bool command(const QByteArray& line);

private:
    void answer(QLocalSocket& socket, unsigned request);
    QByteArray reading(unsigned request);

    QLocalServer server_;
    std::mt19937 dice_;
    Mm trueLength_{1000};
    Mm noise_{0};
    MeterMood mood_ = MeterMood::Normal;
    std::chrono::milliseconds late_ = kLate;
};

} // namespace westrum
