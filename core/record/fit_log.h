#pragma once

#include "core/record/work_settings.h"
#include "core/units/money.h"

#include <map>
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
    std::set<std::string> done;             ///< keys of fitting steps ticked; of one place of a step: "key#3"
    std::map<std::string, WorkedTime> when; ///< of those of which it is known
    friend bool operator==(const FitLog&, const FitLog&) = default;
};

} // namespace westrum
