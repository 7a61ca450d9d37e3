#include "devices/laser_meter.h"

namespace westrum {

SocketMeter::SocketMeter(QObject* parent, std::chrono::milliseconds patience) : LaserMeter(parent) {
    patience_.setSingleShot(true);
    patience_.setInterval(patience);
    connect(&patience_, &QTimer::timeout, this, [this] { fail(MeterFault::Silent); });
    connect(&socket_, &QLocalSocket::readyRead, this, &SocketMeter::read);
    connect(&socket_, &QLocalSocket::connected, this, [this] {
        connecting_ = false;
        emit readyChanged();
    });
    connect(&socket_, &QLocalSocket::disconnected, this, [this] {
        if (taking_) fail(MeterFault::Disconnected);
        emit readyChanged();
    });
    connect(&socket_, &QLocalSocket::errorOccurred, this, [this] {
        if (!connecting_) return; // a connection that breaks is told by disconnected()
        connecting_ = false;
        emit failed(MeterFault::NotThere);
    });
}

void SocketMeter::connectTo(const QString& socketName) {
    letGo();
    connecting_ = true;
    socket_.connectToServer(socketName);
}

void SocketMeter::letGo() {
    taking_ = false;
    connecting_ = false;
    patience_.stop();
    unanswered_ = false;
    received_.clear();
    socket_.abort();
}

bool SocketMeter::isReady() const { return socket_.state() == QLocalSocket::ConnectedState; }

void SocketMeter::take() {
    if (taking_ || !isReady()) return;
    taking_ = true;
    received_.clear();
    socket_.readAll(); // what came unasked is no answer to this
    socket_.write(meterRequest(++request_));
    patience_.start();
}

void SocketMeter::fail(MeterFault fault) {
    if (fault == MeterFault::Silent) unanswered_ = true;
    taking_ = false;
    patience_.stop();
    received_.clear();
    emit failed(fault);
}

void SocketMeter::read() {
    received_ += socket_.read(4096);
    while (taking_) {
        const qsizetype end = received_.indexOf('\n');
        if (end < 0) {
            if (received_.size() > kLongestMeterLine) fail(MeterFault::NotUnderstood);
            return;
        }
        const QByteArray line = received_.left(end);
        received_.remove(0, end + 1);
        heard(line);
    }
    received_.clear();
}

void SocketMeter::heard(const QByteArray& line) {
    if (line.trimmed().isEmpty() || requestOf(line)) return; // an echo
    const MeterLine said = readMeterLine(line);
    const bool reading = std::holds_alternative<Mm>(said.answer);
    if (said.request ? *said.request != request_ : unanswered_ && reading) return; // of an earlier request, or it may be
    if (const auto* fault = std::get_if<MeterFault>(&said.answer)) return fail(*fault);
    taking_ = false;
    patience_.stop();
    emit taken(std::get<Mm>(said.answer));
}

} // namespace westrum
