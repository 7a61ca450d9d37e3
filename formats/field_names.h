#pragma once

#include <string_view>
#include <vector>

namespace westrum {

/// Every trade name and choice that fieldName() may be asked to translate.
std::vector<std::string_view> translatableFieldNames();

} // namespace westrum
