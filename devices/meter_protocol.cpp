#include "devices/meter_protocol.h"

#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<std::pair<MeterFault, const char*>, 3> kFaultWords{
    {{MeterFault::WeakSignal, "weak"}, {MeterFault::LowBattery, "battery"}, {MeterFault::OutOfRange, "range"}}};

} // namespace

MeterLine readMeterLine(const QByteArray& line) {
    if (line.size() > kLongestMeterLine) return {MeterFault::NotUnderstood, {}};
    QByteArray trimmed = line.trimmed();
    std::optional<unsigned> request;
    if (const qsizetype at = trimmed.lastIndexOf(" #"); at > 0) {
        bool good = false;
        const unsigned number = trimmed.mid(at + 2).toUInt(&good);
        if (!good) return {MeterFault::NotUnderstood, {}};
        request = number;
        trimmed = trimmed.left(at).trimmed();
    }
    if (trimmed.startsWith("E "))
        for (const auto& [fault, word] : kFaultWords)
            if (trimmed.mid(2) == word) return {fault, request};
    if (!trimmed.startsWith("R ")) return {MeterFault::NotUnderstood, request};
    bool good = false;
    const double mm = trimmed.mid(2).toDouble(&good);
    if (!good || !std::isfinite(mm) || mm < 0) return {MeterFault::NotUnderstood, request};
    if (mm < kMeterLeastMm || mm > kMeterMostMm) return {MeterFault::OutOfRange, request};
    return {Mm{mm}, request};
}

QByteArray meterLine(const MeterAnswer& answer, std::optional<unsigned> request) {
    QByteArray text = "E ?";
    if (const auto* mm = std::get_if<Mm>(&answer)) text = "R " + QByteArray::number(mm->value, 'f', 1);
    for (const auto& [fault, word] : kFaultWords)
        if (const auto* told = std::get_if<MeterFault>(&answer); told && *told == fault) text = QByteArray("E ") + word;
    return text + (request ? " #" + QByteArray::number(*request) : QByteArray()) + '\n';
}

QByteArray meterRequest(unsigned request) { return "TAKE " + QByteArray::number(request) + '\n'; }

std::optional<unsigned> requestOf(const QByteArray& line) {
    const QByteArray text = line.trimmed();
    bool good = false;
    const unsigned number = text.startsWith("TAKE ") ? text.mid(5).toUInt(&good) : 0;
    return good ? std::optional(number) : std::nullopt;
}

} // namespace westrum
