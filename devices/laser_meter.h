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

/// A meter that listens on a local socket, such as the simulated one.
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
    void fail(MeterFault fault);

    QLocalSocket socket_;
    QTimer patience_;
    QByteArray received_;
    bool taking_ = false;
    bool connecting_ = false;
};

} // namespace westrum
