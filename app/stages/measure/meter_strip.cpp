#include "app/stages/measure/meter_strip.h"

#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/meter_words.h"
#include "core/measure/repeat.h"

#include <QHBoxLayout>

#include <utility>

namespace westrum {

MeterStrip::MeterStrip(JobDocument& document, char decimalMark, OutlineBench& bench, LaserMeter& meter, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      bench_(bench),
      meter_(meter),
      join_(new QPushButton(tr("Laser meter…"))),
      socket_(new QLineEdit(QStringLiteral("westrum-meter"))),
      three_(new QCheckBox(tr("three readings each"))),
      take_(new QPushButton(tr("Take reading"))),
      words_(new QLabel) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    join_->setObjectName(QStringLiteral("joinMeter"));
    socket_->setObjectName(QStringLiteral("meterSocket"));
    socket_->setAccessibleName(tr("Socket of the meter"));
    socket_->setMaximumWidth(170);
    three_->setObjectName(QStringLiteral("threeReadings"));
    take_->setObjectName(QStringLiteral("takeReading"));
    take_->setToolTip(tr("Space in a dimension, or F8"));
    take_->setFocusPolicy(Qt::NoFocus); // the dimension keeps the keyboard
    words_->setTextFormat(Qt::PlainText);
    words_->setObjectName(QStringLiteral("meterSays"));
    row->addWidget(socket_);
    row->addWidget(take_);
    row->addWidget(three_);
    row->addWidget(words_, 1);
    socket_->hide();
    connect(join_, &QPushButton::clicked, this, [this] {
        if (meter_.isReady()) {
            emit letGoWanted();
            say({});
            refresh();
        } else if (socket_->isHidden()) {
            socket_->show();
            show();
            socket_->setFocus();
            socket_->selectAll();
            say(tr("Name the meter's socket, then press Enter."));
        } else {
            emit connectWanted(socket_->text().trimmed());
        }
    });
    connect(socket_, &QLineEdit::returnPressed, this, [this] { emit connectWanted(socket_->text().trimmed()); });
    connect(take_, &QPushButton::clicked, this, &MeterStrip::take);
    connect(&bench_, &OutlineBench::takeWanted, this, &MeterStrip::take);
    connect(&meter_, &LaserMeter::taken, this, &MeterStrip::keep);
    connect(&meter_, &LaserMeter::failed, this, &MeterStrip::failed);
    connect(&meter_, &LaserMeter::readyChanged, this, [this] {
        if (meter_.isReady()) {
            socket_->hide();
            say(tr("The meter is ready: press Space in a dimension to take it."));
        }
        refresh();
    });
    refresh();
}

void MeterStrip::refresh() {
    const bool ready = meter_.isReady();
    join_->setText(ready ? tr("Let the meter go") : tr("Laser meter…"));
    take_->setVisible(ready);
    three_->setVisible(ready);
    bench_.setMeterReady(ready);
    setVisible(ready || !socket_->isHidden() || !words_->text().isEmpty());
}

void MeterStrip::say(const QString& text, bool attention) {
    words_->setText(text);
    setVisible(meter_.isReady() || !socket_->isHidden() || !text.isEmpty());
    words_->setStyleSheet(QStringLiteral("color: %1;").arg(css(attention ? Theme::now().pencil : Theme::now().chalk)));
}

void MeterStrip::take() {
    if (!meter_.isReady()) return say(tr("No meter is connected."), true);
    const QString key = bench_.currentKey();
    if (key.isEmpty()) return say(tr("Put the cursor into the dimension to be taken."), true);
    if (key != key_ || document_.currentSurface() != surface_) readings_.clear();
    key_ = key;
    surface_ = document_.currentSurface();
    if (readings_.empty()) say(tr("Measuring …"));
    asked_ = true;
    meter_.take();
}

void MeterStrip::keep(Mm length) {
    if (!std::exchange(asked_, false)) return; // somebody else's
    const Surface* surface = document_.job().surface(surface_);
    if (!surface || !findReading(*surface, key_.toStdString())) return; // gone while the meter was at it
    const Figures f = figuresFor(document_.job(), decimalMark_);
    readings_.push_back(length);
    if (three_->isChecked() && readings_.size() < 3)
        return say(tr("%1 of 3: %2").arg(readings_.size()).arg(f.fineLength(length)));
    const Repeated r = repeated(readings_);
    const QString typed = QString::fromStdString(printNumber(r.median.value, 1, '.', false)) + QStringLiteral(" mm");
    const bool several = readings_.size() > 1;
    readings_.clear();
    push(document_, takeReading(document_, surface_, key_.toStdString(), Reading{typed.toStdString(), r.median}));
    const QString name = readingName(key_.toStdString());
    if (several)
        say(tr("%1: %2, the middle of three within %3.").arg(name, f.fineLength(r.median), f.fineLength(r.spread)),
            r.spread.value > 10);
    else
        say(tr("%1: %2").arg(name, f.fineLength(r.median)));
    if (surface_ == document_.currentSurface()) bench_.focusField(key_, true);
}

void MeterStrip::failed(MeterFault fault) {
    if (!std::exchange(asked_, false) && fault != MeterFault::NotThere) return; // somebody else's
    const QString why = sentence(fault, socket_->text());
    say(fault == MeterFault::NotThere ? why : tr("%1 The dimension stays as it was.").arg(why), true);
}

} // namespace westrum
