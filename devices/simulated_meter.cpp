#include "devices/simulated_meter.h"

#include <QLocalSocket>

#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<std::pair<MeterMood, const char*>, 7> kMoods{{{MeterMood::Normal, "normal"},
                                                                   {MeterMood::Weak, "weak"},
                                                                   {MeterMood::Battery, "battery"},
                                                                   {MeterMood::Range, "range"},
                                                                   {MeterMood::Silent, "silent"},
                                                                   {MeterMood::Garbage, "garbage"},
                                                                   {MeterMood::Drop, "drop"}}};

} // namespace

SimulatedMeter::SimulatedMeter(quint32 seed, QObject* parent) : QObject(parent), dice_(seed) {
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        while (QLocalSocket* socket = server_.nextPendingConnection()) {
            connect(socket, &QLocalSocket::readyRead, this, [this, socket] {
                while (socket->canReadLine())
                    if (socket->readLine(kLongestMeterLine) == kMeterTake) answer(*socket);
            });
            connect(socket, &QLocalSocket::disconnected, socket, &QObject::deleteLater);
        }
    });
}

bool SimulatedMeter::listen(const QString& socketName) {
    QLocalServer::removeServer(socketName);
    return server_.listen(socketName);
}

bool SimulatedMeter::command(const QByteArray& line) {
    const QByteArray text = line.trimmed();
    const QByteArray word = text.left(text.indexOf(' ')), rest = text.mid(text.indexOf(' ') + 1);
    bool good = false;
    const double number = rest.toDouble(&good);
    good = good && std::isfinite(number) && number >= 0;
    if (word == "value" && good) {
        trueLength_ = {number};
        return true;
    }
    if (word == "noise" && good) {
        noise_ = {number};
        return true;
    }
    if (word == "mood")
        for (const auto& [mood, name] : kMoods)
            if (rest == name) {
                mood_ = mood;
                return true;
            }
    return false;
}

void SimulatedMeter::answer(QLocalSocket& socket) {
    switch (mood_) {
    case MeterMood::Normal: {
        const double off = noise_.value > 0 ? std::normal_distribution<double>(0, noise_.value)(dice_) : 0;
        socket.write(meterLine(trueLength_ + Mm{off}));
        break;
    }
    case MeterMood::Weak: socket.write(meterLine(MeterFault::WeakSignal)); break;
    case MeterMood::Battery: socket.write(meterLine(MeterFault::LowBattery)); break;
    case MeterMood::Range: socket.write(meterLine(MeterFault::OutOfRange)); break;
    case MeterMood::Silent: break;
    case MeterMood::Garbage: socket.write(QByteArray("\x00\xFFR 12,,\x07 nan\n", 14)); break;
    case MeterMood::Drop:
        socket.write("R 36"); // gone in the middle of a line
        socket.flush();
        socket.disconnectFromServer();
        break;
    }
}

} // namespace westrum
