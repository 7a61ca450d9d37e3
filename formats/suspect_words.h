#pragma once

#include "formats/words.h"

#include <QString>

#include <string>

namespace westrum {

/// By how much a reading is wrong: "47 mm too long"; of a height or a lean, which are no lengths along something,
/// "47 mm too much".
QString slipWords(const std::string& key, Mm slip, const Figures& figures);

} // namespace westrum
