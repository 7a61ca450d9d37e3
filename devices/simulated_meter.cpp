#include "devices/simulated_meter.h"

#include <QLocalSocket>
#include <QTimer>

#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<std::pair<MeterMood, const char*>, 10> kMoods{{{MeterMood::Normal, "normal"},
                                                                    {MeterMood::Weak, "weak"},
                                                                    {MeterMood::Battery, "battery"},
                                                                    {MeterMood::Range, "range"},
                                                                    {MeterMood::Silent, "silent"},
                                                                    {MeterMood::Garbage, "garbage"},
                                                                    {MeterMood::Drop, "drop"},
                                                                    {MeterMood::Late, "late"},
                                                                    {MeterMood::Twice, "twice"},
                                                                    {MeterMood::Echo, "echo"}}};

} // namespace

SimulatedMeter::SimulatedMeter(quint32 seed, QObject* parent) : QObject(parent), dice_(seed) {
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        while (QLocalSocket* socket = server_.nextPendingConnection()) {
            connect(socket, &QLocalSocket::readyRead, this, [this, socket] {
                while (socket->canReadLine())
                    if (const auto request = requestOf(socket->readLine(kLongestMeterLine))) answer(*socket, *request);
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

QByteArray SimulatedMeter::reading(unsigned request) {
    const double off = noise_.value > 0 ? std::normal_distribution<double>(0, noise_.value)(dice_) : 0;
    return meterLine(trueLength_ + Mm{off}, request);
}

void SimulatedMeter::answer(QLocalSocket& socket, unsigned request) {
    const auto later = [&](std::chrono::milliseconds wait) {
        QTimer::singleShot(wait, &socket, [&socket, line = reading(request)] { socket.write(line); });
    };
    switch (mood_) {
    case MeterMood::Normal: socket.write(reading(request)); break;
    case MeterMood::Weak: socket.write(meterLine(MeterFault::WeakSignal, request)); break;
    case MeterMood::Battery: socket.write(meterLine(MeterFault::LowBattery, request)); break;
    case MeterMood::Range: socket.write(meterLine(MeterFault::OutOfRange, request)); break;
    case MeterMood::Silent: break;
    case MeterMood::Garbage: socket.write(QByteArray("\x00\xFFR 12,,\x07 nan\n", 14)); break;
    case MeterMood::Drop:
        socket.write("R 36"); // gone in the middle of a line
        socket.flush();
        socket.disconnectFromServer();
        break;
    case MeterMood::Late: later(late_); break;
    case MeterMood::Twice:
        socket.write(reading(request));
        later(std::chrono::milliseconds(50));
        break;
    case MeterMood::Echo: socket.write(meterRequest(request) + "\n" + reading(request)); break;
    }
}

} // namespace westrum
