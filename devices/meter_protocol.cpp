#include "devices/meter_protocol.h"

#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<std::pair<MeterFault, const char*>, 3> kFaultWords{
    {{MeterFault::WeakSignal, "weak"}, {MeterFault::LowBattery, "battery"}, {MeterFault::OutOfRange, "range"}}};

} // namespace

MeterAnswer readMeterLine(const QByteArray& line) {
    if (line.size() > kLongestMeterLine) return MeterFault::NotUnderstood;
    const QByteArray trimmed = line.trimmed();
    if (trimmed.startsWith("E "))
        for (const auto& [fault, word] : kFaultWords)
            if (trimmed.mid(2) == word) return fault;
    if (!trimmed.startsWith("R ")) return MeterFault::NotUnderstood;
    bool good = false;
    const double mm = trimmed.mid(2).toDouble(&good);
    if (!good || !std::isfinite(mm) || mm < 0) return MeterFault::NotUnderstood;
    if (mm < kMeterLeastMm || mm > kMeterMostMm) return MeterFault::OutOfRange;
    return Mm{mm};
}

QByteArray meterLine(const MeterAnswer& answer) {
    if (const auto* mm = std::get_if<Mm>(&answer)) return "R " + QByteArray::number(mm->value, 'f', 1) + '\n';
    for (const auto& [fault, word] : kFaultWords)
        if (std::get<MeterFault>(answer) == fault) return QByteArray("E ") + word + '\n';
    return "E ?\n";
}

} // namespace westrum
