#pragma once

#include <QWidget>

#include "app/stages/measure/outline_bench.h"
#include "devices/laser_meter.h"

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace westrum {

/// Takes readings from a laser distance meter into the dimension that has the keyboard, and goes on to the next.
class MeterStrip : public QWidget {
    Q_OBJECT
public:
    MeterStrip(JobDocument& document, char decimalMark, OutlineBench& bench, LaserMeter& meter,
               QWidget* parent = nullptr);
    /// One reading for the dimension in hand; with three of each, the third one fills it with their median.
    void take();
    [[nodiscard]] QString said() const { return words_->text(); }
    /// The button that brings the meter in; it stands elsewhere, and the strip shows only while there is something in
    /// it.
    [[nodiscard]] QPushButton* joinButton() const { return join_; }

signals:
    /// The person wants the meter at this socket.
    void connectWanted(const QString& socketName);
    void letGoWanted();

private:
    void refresh();
    void say(const QString& text, bool attention = false);
    void keep(Mm length);
    void failed(MeterFault fault);

    JobDocument& document_;
    char decimalMark_;
    OutlineBench& bench_;
    LaserMeter& meter_;
    QPushButton* join_;
    QLineEdit* socket_;
    QCheckBox* three_;
    QPushButton* take_;
    QLabel* words_;
    std::string surface_; ///< for which readings are being gathered
    QString key_;
    std::vector<Mm> readings_;
    bool asked_ = false; ///< the reading under way is this one's
};

} // namespace westrum
