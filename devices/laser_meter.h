#pragma once

#include <QObject>

#include "devices/meter_protocol.h"

#include <QLocalSocket>
#include <QTimer>

namespace westrum {

/// A laser distance meter: asked for a reading, it answers with a length or a fault, each exactly once.
class LaserMeter : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    [[nodiscard]] virtual bool isReady() const = 0;
    [[nodiscard]] virtual bool isTaking() const = 0;
    /// Asks for one reading; while one is under way nothing happens.
    virtual void take() = 0;

signals:
    void taken(westrum::Mm length);
    void failed(westrum::MeterFault fault);
    void readyChanged();
};

/// A meter that listens on a local socket, such as the simulated one. Requests are numbered, and a reading is taken
/// only for the request that it answers: late and second answers, empty lines and the request's own echo are passed
/// over. A meter that does not number its answers is believed until one of them failed to come in time; from then on,
/// until it is connected anew, nothing tells whether an answer is that one's.
class SocketMeter final : public LaserMeter {
    Q_OBJECT
public:
    /// @param patience  how long an answer may take
    explicit SocketMeter(QObject* parent = nullptr, std::chrono::milliseconds patience = std::chrono::seconds(3));
    /// Connects to a socket by name; failed(NotThere) if none listens there.
    void connectTo(const QString& socketName);
    void letGo();

    [[nodiscard]] bool isReady() const override;
    [[nodiscard]] bool isTaking() const override { return taking_; }
    void take() override;

private:
    void read();
    void heard(const QByteArray& line);
    void fail(MeterFault fault);

    QLocalSocket socket_;
    QTimer patience_;
    QByteArray received_;
    unsigned request_ = 0;    ///< the one asked last
    bool unanswered_ = false; ///< an earlier one was given up: an answer without a number may be its own
    bool taking_ = false;
    bool connecting_ = false;
};

} // namespace westrum
