#pragma once

#include <QObject>

#include "devices/meter_protocol.h"

#include <QLocalServer>

#include <random>

namespace westrum {

/// What the stand-in does when it is asked for a reading.
enum class MeterMood { Normal, Weak, Battery, Range, Silent, Garbage, Drop };

/// A stand-in for a laser distance meter on a local socket: measures a true value with noise, or fails in any of the
/// ways a meter fails. The same seed gives the same readings.
class SimulatedMeter : public QObject {
    Q_OBJECT
public:
    explicit SimulatedMeter(quint32 seed = 1, QObject* parent = nullptr);
    /// Listens; a stale socket of that name is removed first.
    bool listen(const QString& socketName);
    void setTrueLength(Mm length) { trueLength_ = length; }
    void setNoise(Mm oneSigma) { noise_ = oneSigma; }
    void setMood(MeterMood mood) { mood_ = mood; }
    /// "value 3640", "noise 1.5", "mood weak": what its program takes on its standard input. False if not understood.
    bool command(const QByteArray& line);

private:
    void answer(QLocalSocket& socket);

    QLocalServer server_;
    std::mt19937 dice_;
    Mm trueLength_{1000};
    Mm noise_{0};
    MeterMood mood_ = MeterMood::Normal;
};

} // namespace westrum
