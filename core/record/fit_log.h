#pragma once

#include "core/units/money.h"

#include <optional>
#include <set>
#include <string>

namespace westrum {

/// What happened on one surface, as the person wrote it down.
struct FitLog {
    std::optional<int> opened;   ///< planks taken out of their packs
    std::optional<int> spoilt;   ///< of these, spoiled
    std::optional<int> leftOver; ///< whole planks left
    std::optional<double> hours;
    std::optional<Money> paid;
    std::string note;
    std::set<std::string> done; ///< keys of fitting steps ticked
    friend bool operator==(const FitLog&, const FitLog&) = default;
};

} // namespace westrum
