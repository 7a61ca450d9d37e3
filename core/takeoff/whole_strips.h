#pragma once

#include "core/units/quantity.h"

#include <vector>

namespace westrum {

/// How strips come off rolls: each whole, as a strip put together from the ends of two rolls has a joint that nobody
/// planned.
struct StripsOnRolls {
    int rolls{};
    int joints{}; ///< in strips longer than a roll: whole rolls, butted, and the rest
    friend bool operator==(const StripsOnRolls&, const StripsOnRolls&) = default;
};

/// The fewest rolls. @param strips  lengths, > 0  @param loose  further length that may be taken in any pieces
/// (patches)
/// @param roll  its length, > 0
StripsOnRolls rollsFor(const std::vector<Mm>& strips, Mm loose, Mm roll);

} // namespace westrum
