#pragma once

#include "core/units/quantity.h"

#include <QByteArray>

#include <optional>
#include <variant>

namespace westrum {

/// The lines between Westrum and a laser distance meter, described in docs/formats/laser-meter.md. Each ends with a
/// newline; neither side trusts the other.
enum class MeterFault {
    WeakSignal,
    LowBattery,
    OutOfRange,
    NotUnderstood, ///< the meter sent something that is no answer
    Silent,        ///< no answer came in time
    Disconnected,  ///< gone in the middle of a reading
    NotThere,      ///< no meter answers at that address
};

/// What one line of a meter says.
using MeterAnswer = std::variant<Mm, MeterFault>;

/// One line of a meter: what it says, and of which request if it says so.
struct MeterLine {
    MeterAnswer answer;
    std::optional<unsigned> request;
};
/// Reads one line, without its newline. A length that is none, or beyond the range of such a meter, is NotUnderstood.
MeterLine readMeterLine(const QByteArray& line);

/// "R 3640.2 #7", "E weak #7" and so on, with the newline; without the number if there is none.
QByteArray meterLine(const MeterAnswer& answer, std::optional<unsigned> request = {});

/// What asks for a reading: "TAKE 7", with the newline; 1 and up.
QByteArray meterRequest(unsigned request);
/// The number of a request's line; nothing if it is none.
std::optional<unsigned> requestOf(const QByteArray& line);

/// A meter's range, 30 mm to 60 m; nothing longer than this many bytes is a line of it.
inline constexpr double kMeterLeastMm = 30, kMeterMostMm = 60000;
inline constexpr int kLongestMeterLine = 80;

} // namespace westrum
