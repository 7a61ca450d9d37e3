#include "app/widgets/meter_words.h"

#include <QCoreApplication>

namespace westrum {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(MeterStrip)
};

} // namespace

QString sentence(MeterFault fault, const QString& socket) {
    switch (fault) {
    case MeterFault::WeakSignal:
        return Words::tr("The signal is too weak: aim at something lighter, or hold a card against the mark.");
    case MeterFault::LowBattery: return Words::tr("The meter's battery is too low to measure.");
    case MeterFault::OutOfRange: return Words::tr("Nothing within the meter's range.");
    case MeterFault::NotUnderstood: return Words::tr("The meter's answer is not understood.");
    case MeterFault::Silent: return Words::tr("The meter does not answer.");
    case MeterFault::Disconnected: return Words::tr("The meter went away in the middle of a reading.");
    case MeterFault::NotThere: return Words::tr("No meter answers at “%1”. Is it switched on?").arg(socket);
    }
    return {};
}

} // namespace westrum
