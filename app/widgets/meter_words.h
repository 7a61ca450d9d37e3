#pragma once

#include "devices/meter_protocol.h"

#include <QString>

namespace westrum {

/// Why a meter gave no reading, and what can be done, in a sentence. @param socket  that it was looked for at
QString sentence(MeterFault fault, const QString& socket);

} // namespace westrum
